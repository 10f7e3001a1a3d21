"""Techniques: recipes from a kit and a room to mics, and how they are taken into a layout."""
