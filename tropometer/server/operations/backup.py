"""A whole backup in a folder, and its way back: the database, the media, and what was erased meanwhile.

The secret that signs sessions is not in it; whoever runs the server keeps that apart.
"""

from __future__ import annotations

import json
import os
import subprocess
from collections.abc import Iterator
from pathlib import Path
from shutil import copyfileobj
from typing import Any

from django.conf import settings
from django.core.files import File
from django.core.files.storage import default_storage
from django.db import connection
from django.utils import timezone

from tropometer.server.operations import ledger
from tropometer.server.operations.sweep import sweep
from tropometer.server.storage import sync_file

DATABASE, MEDIA, UPLOADS, ABOUT = "database.dump", "media", "uploads", "backup.json"


class BackupTrouble(Exception):
    """Why a backup cannot be made or brought back; fit to be shown."""


def back_up(folder: Path) -> dict[str, Any]:
    """Write a backup into an empty folder; returns what is in it.

    The database is written first: files that come while the media are copied are in nobody's way, and a row
    never names a file that was copied before it.
    """
    if folder.exists() and any(folder.iterdir()):
        raise BackupTrouble(f"{folder} is not empty.")
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    _run("pg_dump", "--format=custom", f"--file={folder / DATABASE}")
    files = [*_stored("")]
    for name in files:
        with default_storage.open(name) as content:
            _write(folder / MEDIA / name, content)
    for path in Path(settings.UPLOAD_ROOT).glob("*.part"):
        with path.open("rb") as content:
            _write(folder / UPLOADS / path.name, content)
    about = {"made_at": timezone.now().isoformat(), "files": len(files)}
    (folder / ABOUT).write_text(json.dumps(about), encoding="utf-8")
    sync_file(folder / ABOUT)
    return about


def bring_back(folder: Path) -> dict[str, Any]:
    """Put a backup in place of what is here; returns what was in it.

    What was erased after it was made, here or elsewhere in the same store, is erased again.
    """
    if not (folder / ABOUT).exists():
        raise BackupTrouble(f"{folder} holds no whole backup: {ABOUT} is missing.")
    about: dict[str, Any] = json.loads((folder / ABOUT).read_text(encoding="utf-8"))
    connection.close()
    _run("pg_restore", "--clean", "--if-exists", "--no-owner", "--single-transaction", str(folder / DATABASE))
    kept = {path.relative_to(folder / MEDIA).as_posix(): path for path in _files(folder / MEDIA)}
    for name in [*_stored("")]:
        if name not in kept and not name.startswith(f"{ledger.FOLDER}/"):
            default_storage.delete(name)  # it came after the backup, and no row names it now
    for name, path in kept.items():
        default_storage.delete(name)
        with path.open("rb") as content:
            default_storage.save(name, File(content))
    uploads = Path(settings.UPLOAD_ROOT)
    uploads.mkdir(parents=True, exist_ok=True)
    for path in _files(folder / UPLOADS):
        with path.open("rb") as content:
            _write(uploads / path.name, content)
    sweep()
    return about


def _files(folder: Path) -> Iterator[Path]:
    return (path for path in sorted(folder.rglob("*")) if path.is_file())


def _stored(folder: str) -> Iterator[str]:
    """The names of all stored files below a folder."""
    try:
        inner, names = default_storage.listdir(folder)
    except FileNotFoundError:
        return
    yield from (f"{folder}/{name}".lstrip("/") for name in names if name)
    for each in inner:
        yield from _stored(f"{folder}/{each}".lstrip("/"))


def _write(path: Path, content: Any) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("wb") as into:
        copyfileobj(content, into)
    sync_file(path)


def _run(program: str, *arguments: str) -> None:
    """One of PostgreSQL's own programs on this database; its password goes by the environment."""
    known = connection.settings_dict
    named = {"PGHOST": "HOST", "PGPORT": "PORT", "PGUSER": "USER", "PGPASSWORD": "PASSWORD"}
    environment = {variable: str(known[name]) for variable, name in named.items() if known[name]}
    database = [f"--dbname={known['NAME']}"]
    try:
        done = subprocess.run(
            [program, *database, *arguments],
            env={**os.environ, **environment},
            capture_output=True,
            text=True,
            check=False,
        )
    except FileNotFoundError as missing:
        raise BackupTrouble(f"{program} is missing (Debian's package postgresql-client).") from missing
    if done.returncode != 0:
        raise BackupTrouble(f"{program}: {done.stderr.strip()[-400:]}")
