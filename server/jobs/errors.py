"""Why long work stops before its end."""


class CalledOff(Exception):
    """Nobody wants it any more, or another worker has taken it up."""


class TooLong(Exception):
    """One try took longer than its kind may."""
