"""Pairs in depth."""
