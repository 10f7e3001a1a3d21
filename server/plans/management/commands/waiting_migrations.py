"""Say whether tables that hold something would be changed: changes, new or nothing."""

from typing import Any

from django.core.management.base import BaseCommand
from django.db import connection
from django.db.migrations.executor import MigrationExecutor


class Command(BaseCommand):
    """`manage.py waiting_migrations`: one word."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Ask the executor what it would do."""
        executor = MigrationExecutor(connection)
        plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
        filled = bool(executor.loader.applied_migrations)
        self.stdout.write("nothing" if not plan else "changes" if filled else "new")
