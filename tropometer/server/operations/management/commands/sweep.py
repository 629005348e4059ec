"""Forget files that nothing names any more; with --dry-run only say which."""

from argparse import ArgumentParser
from datetime import timedelta
from typing import Any

from django.core.management.base import BaseCommand

from tropometer.server.operations.sweep import GRACE, orphans


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--dry-run", action="store_true", help="change nothing")
        parser.add_argument("--at-once", action="store_true", help="what is only a moment old, too")

    def handle(self, *args: Any, dry_run: bool, at_once: bool, **options: Any) -> None:
        found = list(orphans(timedelta(0) if at_once else GRACE))
        for orphan in found:
            self.stdout.write(orphan.what)
            if not dry_run:
                orphan.forget()
        self.stdout.write(f"{len(found)} orphans{' found' if dry_run else ' forgotten'}.")
