"""Work for the tests of long answers: read in by processes that know no Django."""

import time

from ringside.errors import RingsideError


def nap(seconds):
    time.sleep(seconds)
    return "slept"


def refuse(length):
    raise RingsideError("expected less than {got}", got=length)


def hungry(size):
    return len(bytearray(size))
