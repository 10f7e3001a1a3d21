"""Edits of a layout: kit, room, mics, techniques."""
