"""Layouts and what is carried away of them."""
