"""Commands that need no server: each is run as a module of its own."""
