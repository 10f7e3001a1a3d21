"""Sessions, layouts and every state they were in."""
