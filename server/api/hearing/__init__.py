"""Examples to hear."""
