"""The brief and the plans made from it."""
