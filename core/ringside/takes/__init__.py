"""Takes: what recorded test hits say about a layout that the plan could only guess."""
