"""How a long answer can end without one."""


class Busy(Exception):
    """Too many long answers are in line."""


class TooLong(Exception):
    """An answer was stopped: over its time, or out of memory."""


class GaveUp(Exception):
    """Whoever asked has gone."""
