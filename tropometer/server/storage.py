"""Where files are kept on this machine: nothing counts as kept before the disk has it."""

import os
from pathlib import Path
from typing import Any

from django.core.files.storage import FileSystemStorage


def sync_file(path: Path) -> None:
    """Have the disk write a file down (fsync of POSIX.1-2017), and the folder that names it."""
    for each in (path, path.parent):
        handle = os.open(each, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


class DurableStorage(FileSystemStorage):
    """A folder in which a saved file outlasts a power cut."""

    def _save(self, name: str, content: Any) -> str:
        saved: str = super()._save(name, content)  # type: ignore[misc]  # the stubs lack it
        path = Path(self.path(saved))
        sync_file(path)
        sync_file(path.parent)  # its folder may be new as well
        return saved
