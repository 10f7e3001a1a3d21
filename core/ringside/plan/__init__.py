"""What there is: kit, mics, room, air, limits, the brief, and the layout they make together."""
