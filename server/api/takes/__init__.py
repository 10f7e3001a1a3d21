"""Takes: recorded test hits of a layout."""
