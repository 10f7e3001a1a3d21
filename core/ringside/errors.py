"""The one family of errors the core raises; every message is fit for a user to read."""


class RingsideError(Exception):
    """Something was asked that cannot be answered; the message says what and why."""


class LayoutFileError(RingsideError):
    """A layout that cannot be read.

    Parameters
    ----------
    place : str
        Where the fault is, as a path in the file: ``mics[3].position_m[1]``.
    message : str
        What was expected, what came and, where it can be guessed, the likely slip.
    """

    def __init__(self, place: str, message: str) -> None:
        super().__init__(f"{place}: {message}" if place else message)
        self.place = place
        self.message = message
