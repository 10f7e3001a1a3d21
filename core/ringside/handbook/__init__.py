"""Pages the core writes about itself: techniques, the brief, worked cases."""
