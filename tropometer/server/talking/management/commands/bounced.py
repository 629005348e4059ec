"""Take in a delivery report, as a mail server pipes it: `./tropo manage bounced < report`."""

import sys
from typing import Any

from django.core.management.base import BaseCommand

from tropometer.server.talking.bounces import note

MOST_BYTES = 10 * 1024 * 1024


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        count = note(sys.stdin.buffer.read(MOST_BYTES))
        self.stdout.write(f"Noted at {count} student{'' if count == 1 else 's'}.")
