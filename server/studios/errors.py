"""Why something of a studio was not done."""


class NotThere(Exception):
    """There is none, or it is not this person's to see."""


class LockerChanged(Exception):
    """Somebody saved the locker since it was opened."""
