"""A line to the server that stays open while a hand asks: a question costs half of a request."""
