"""What can be wrong with what is asked of takes."""


class TooManyPacked(Exception):
    """Others are having sound packed."""
