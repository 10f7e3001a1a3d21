"""Recorded test hits of a layout: files taken in piece by piece, kept, and measured by workers."""
