"""The server's own settings, but for one thing: nothing here is about how passwords are stored.

Argon2 is slow on purpose, and everybody in these tests signs up. The demo's people, whose database
is made by the server's own commands, keep theirs.
"""

from config.settings import *  # noqa: F403
from config.settings import PASSWORD_HASHERS as KEPT

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher", *KEPT]
