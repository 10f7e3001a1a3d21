"""A line to the server that stays open while a hand asks: a question costs half of a request."""

TAKE_OVER = "ringside.take_over"
"""In the environment of a request: hands its connection over, from the thread that answers."""
