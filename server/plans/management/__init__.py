"""Commands of the plans app."""
