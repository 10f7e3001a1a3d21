"""A studio carried away and read in."""
