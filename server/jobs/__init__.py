"""Long work: asked for, done by a worker, told how far it is, and never lost half way."""
