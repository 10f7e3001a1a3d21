"""The one family of errors the core raises; every message is fit for a user to read."""

from collections.abc import Callable


class RingsideError(Exception):
    """Something was asked that cannot be answered; the message says what and why.

    Parameters
    ----------
    message : str
        With a name in braces for each length.
    **lengths_m : float
        The lengths, metres. The message itself words them in metres; an edge that knows
        what its user reads words them anew with `worded`.
    """

    def __init__(self, message: str, **lengths_m: float) -> None:
        self._message, self._lengths_m = message, lengths_m
        super().__init__(self.worded(lambda m: f"{m:.3f} m"))

    def worded(self, length: Callable[[float], str]) -> str:
        """The message with its lengths as somebody reads them.

        Parameters
        ----------
        length : callable
            Turns metres into words.

        Returns
        -------
        str
        """
        if not self._lengths_m:
            return self._message
        return self._message.format(**{k: length(v) for k, v in self._lengths_m.items()})


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
