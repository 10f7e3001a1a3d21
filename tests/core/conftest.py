"""Properties are searched afresh by hand, and with the same examples every time in CI."""

import os

from hypothesis import settings

settings.register_profile("ci", derandomize=True, deadline=None)
settings.register_profile("hand", deadline=None)
settings.load_profile("ci" if os.environ.get("CI") else "hand")
