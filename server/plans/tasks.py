"""What workers do for plans in the background."""

import time

from django.db import connection
from procrastinate.contrib.django import app

from plans.upkeep import renew_some

LONGEST_S = 20.0
"""Then other work has its turn; what is left is for the next minute."""


@app.periodic(cron="* * * * *")
@app.task(name="renew_summaries", queue="upkeep", queueing_lock="renew_summaries")
def renew_summaries(timestamp: int) -> None:
    """Sum up again what was summed up by older rules; killed half way, the next minute goes on."""
    until = time.monotonic() + LONGEST_S
    try:
        while time.monotonic() < until and renew_some(10):
            pass
    finally:
        connection.close()
