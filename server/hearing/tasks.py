"""What workers take up: any number of them, on any machine that reaches the database."""

from django.db import connection
from procrastinate.contrib.django import app

from hearing.rendering import work_on


@app.task(name="render_example", queue="hearing")
def render_example(example_id: int) -> None:
    """Render one example.

    Tasks run in threads of their own and no request ends there: the connection is closed here,
    or every thread would keep one.
    """
    try:
        work_on(example_id)
    finally:
        connection.close()
