"""Put a backup in place of what is here; what was erased since is erased again."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from tropometer.server.operations.backup import BackupTrouble, bring_back


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        try:
            about = bring_back(folder)
        except BackupTrouble as trouble:
            raise CommandError(str(trouble)) from trouble
        made_at = about["made_at"][:16]
        self.stdout.write(f"Brought back what was backed up on {made_at}: {about['files']} files, database.")
