"""Techniques, fitting, what-if."""
