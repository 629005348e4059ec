"""Write a whole backup, database and media, into an empty folder."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from tropometer.server.operations.backup import BackupTrouble, back_up


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        try:
            about = back_up(folder)
        except BackupTrouble as trouble:
            raise CommandError(str(trouble)) from trouble
        self.stdout.write(f"Backed up {about['files']} files and the database.")
