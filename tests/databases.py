"""Databases of their own for servers that tests start."""

import os
import subprocess
import sys

import psycopg

from ops.paths import DEMO_PASSWORD

FILLED = f"""
import os
import django
from django.core.management import call_command
os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"
django.setup()
call_command("migrate", verbosity=0)
call_command("load_demo", password={DEMO_PASSWORD!r})
"""


def database(name: str, like: str = "template1") -> None:
    """A fresh database in the cluster of the tests, or a copy of another."""
    where = f"host=127.0.0.1 port={os.environ['RINGSIDE_DB_PORT']} user=ringside dbname=postgres"
    with psycopg.connect(
        where, password=os.environ["RINGSIDE_DB_PASSWORD"], autocommit=True
    ) as link:
        link.execute(f'create database "{name}" template "{like}"')


def with_demo(name: str) -> None:
    """A fresh database with the demo in it, by one process: most of its time goes on imports."""
    database(name)
    env = {**os.environ, "RINGSIDE_DB_NAME": name}
    subprocess.run([sys.executable, "-c", FILLED], env=env, check=True, capture_output=True)
