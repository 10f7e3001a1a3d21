"""Where mics truly stand: what was read at the kit, and what follows from it."""
