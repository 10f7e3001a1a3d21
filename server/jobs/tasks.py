"""What workers take up: any number of them, on any machine that reaches the database."""

from django.db import connection
from procrastinate.contrib.django import app


@app.task(name="run_job", queue="jobs")
def run_job(job_id: int) -> None:
    """Do one job.

    Tasks run in threads of their own and no request ends there: the connection is closed here,
    or every thread would keep one.
    """
    from jobs.working import work_on

    try:
        work_on(job_id)
    finally:
        connection.close()


@app.periodic(cron="* * * * *")
@app.task(name="take_up_again", queue="jobs", queueing_lock="take_up_again")
def take_up_again(timestamp: int) -> None:
    """Each minute: what a worker left half done is handed out again."""
    from jobs.actions import take_up_again as again

    try:
        again()
    finally:
        connection.close()
