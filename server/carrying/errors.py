"""Why an archive is not read in."""


class NotAnArchive(Exception):
    """What was given is no archive of a studio; the message says where and what was expected."""
