"""Bring packed records of students to an instructor; what is here already stays as it is."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from tropometer.server.operations.record.register import STUDENT
from tropometer.server.operations.record.unpacking import RecordTrouble, unpack
from tropometer.server.people.services import account_of


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("mail")
        parser.add_argument("files", nargs="+", type=Path)

    def handle(self, *args: Any, mail: str, files: list[Path], **options: Any) -> None:
        instructor = account_of(mail)
        if instructor is None:
            raise CommandError(f"{mail} has no account here: add it with ./tropo add-instructor.")
        for path in files:
            try:
                came = unpack(path, instructor)
            except RecordTrouble as trouble:
                raise CommandError(f"{path.name}: {trouble}") from trouble
            swings, lessons = len(came.new["bench.Swing"]), len(came.new["lessons.Lesson"])
            there = "" if came.new[STUDENT] else ", who was here,"
            self.stdout.write(f"{came.name}{there} came with {swings} swings and {lessons} lessons.")
