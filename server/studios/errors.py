"""Why something of a studio was not done."""


class NotThere(Exception):
    """There is none, or it is not this person's to see."""


class LockerChanged(Exception):
    """Somebody saved the locker since it was opened."""


class Unreadable(Exception):
    """Something kept that no version known here wrote; it stays as it is."""

    def __init__(self, what: str, why: str) -> None:
        super().__init__(
            f"{what} is kept in a form that cannot be read here ({why}). It stays as it is and"
            " can be downloaded; a newer Ringside may read it."
        )
