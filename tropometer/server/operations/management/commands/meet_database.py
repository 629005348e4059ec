"""Say plainly when the database was made by a Tropometer that this one cannot follow."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from tropometer.server.settings import OUR_APPS


class Command(BaseCommand):
    help = __doc__
    requires_system_checks: list[str] = []

    def handle(self, *args: Any, **options: Any) -> None:
        loader = MigrationLoader(connection, ignore_no_migrations=True)
        unknown = [
            f"{app} {name}"
            for app, name in loader.applied_migrations
            if app in OUR_APPS and (app, name) not in (loader.disk_migrations or {})
        ]
        if unknown:
            raise CommandError(
                f"This database was made by another Tropometer: it knows {unknown[0]}, this one does not. "
                "Its data cannot be carried over. ./tropo set-aside moves database and media away, so that "
                "this one starts with empty ones; the old Tropometer still opens what was set aside."
            )
