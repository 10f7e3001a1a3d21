"""What stands behind ./ringside: installing, the private database, serving, testing.

Only Python's standard library, because this runs before anything is installed.
"""
