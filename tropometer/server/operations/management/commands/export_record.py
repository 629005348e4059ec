"""Write whole records of an instructor's students, each as one zip, into a folder."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from tropometer.server.operations.record.packing import file_name, pack
from tropometer.server.people.services import account_of, students_of


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("mail")
        parser.add_argument("folder", type=Path)
        parser.add_argument("names", nargs="*", help="only students whose name begins so")

    def handle(self, *args: Any, mail: str, folder: Path, names: list[str], **options: Any) -> None:
        instructor = account_of(mail)
        if instructor is None:
            raise CommandError(f"{mail} has no account here.")
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        for student in students_of(instructor):
            if names and not student.name.lower().startswith(tuple(name.lower() for name in names)):
                continue
            into = folder / file_name(student)
            pack(student, into)
            self.stdout.write(f"{into.name}: {into.stat().st_size / 1e6:.1f} MB")
