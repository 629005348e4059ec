"""Which measuring core this is: whatever changes in it may change a reading."""

from functools import lru_cache
from hashlib import sha256
from pathlib import Path

import tropometer.swing
from tropometer.server.logbook.models import CORE_LENGTH


@lru_cache
def core_version() -> str:
    """The first digits of a hash over the core's own code."""
    room = Path(tropometer.swing.__file__).parent
    found = sha256()
    for file in sorted(room.rglob("*.py")):
        found.update(str(file.relative_to(room)).encode() + b"\0" + file.read_bytes())
    return found.hexdigest()[:CORE_LENGTH]
