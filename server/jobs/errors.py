"""Why long work stops before its end."""


class CalledOff(Exception):
    """Nobody wants it any more, or another worker has taken it up."""


class Refused(Exception):
    """What was asked for cannot be done; the message is for whoever asked."""


class TooLong(Exception):
    """One try took longer than its kind may."""
