"""Short rendered examples of a pair on a drum: asked for, rendered by a worker, kept."""
