"""What can be wrong with what is asked of takes."""


class TooManyCopies(Exception):
    """Others are having aligned copies packed."""
