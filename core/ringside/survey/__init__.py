"""Where things truly stand, from tape readings: one least-squares net."""
