"""What workers do for plans in the background."""

from django.db import connection
from procrastinate.contrib.django import app

from plans.upkeep import renew_some


@app.task(name="renew_summaries", queue="upkeep", queueing_lock="renew_summaries")
def renew_summaries() -> None:
    """Sum up again whatever was summed up by older rules; killed half way, it is begun again."""
    try:
        while renew_some():
            pass
    finally:
        connection.close()
