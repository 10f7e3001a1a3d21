"""Sessions of a studio."""
