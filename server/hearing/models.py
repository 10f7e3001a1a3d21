"""Nothing of its own is kept: examples are jobs."""
