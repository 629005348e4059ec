"""Make an instructor's account; the password is asked for, or read from TROPO_PASSWORD."""

import getpass
import os
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError
from django.core.validators import validate_email

from tropometer.server.people.services import has_account, make_account


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("email")
        parser.add_argument("name")

    def handle(self, *args: Any, email: str, name: str, **options: Any) -> None:
        password = os.environ.get("TROPO_PASSWORD") or getpass.getpass("Password: ")
        try:
            validate_email(email)
            validate_password(password)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from error
        if has_account(email):
            raise CommandError(f"There is already an account for {email}.")
        make_account(email, name, password)
        self.stdout.write(f"{name} can sign in with {email}.")
