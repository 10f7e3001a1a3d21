"""What the room does to a sound: decay, modes, and the walls beside a spot."""
