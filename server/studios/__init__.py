"""Studios, their members, rooms and kits."""
