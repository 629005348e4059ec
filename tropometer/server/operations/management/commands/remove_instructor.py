"""Erase an instructor's account for good, with students, swings, lessons, files and links."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from tropometer.server.operations.bin import counted, erase_account
from tropometer.server.people.services import account_of


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("email")
        parser.add_argument("--yes", action="store_true", help="do not ask")

    def handle(self, *args: Any, email: str, yes: bool, **options: Any) -> None:
        account = account_of(email)
        if account is None:
            raise CommandError(f"Nobody signs in with {email}.")
        kinds = {"student": account.students, "swing": account.swings, "lesson": account.lessons}
        what = ", ".join(counted(things.count(), kind) for kind, things in kinds.items())
        self.stdout.write(f"{account.name}, {account.email}: {what}. Nobody can bring them back.")
        if not yes and input("Type the mail address again to erase all of it: ") != account.email:
            raise CommandError("Nothing was erased.")
        erase_account(account)
        self.stdout.write("Erased.")
