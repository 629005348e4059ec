"""What is raised where a record or a file makes no sense."""

from __future__ import annotations


class RecordError(ValueError):
    """A record that cannot be read; says which field and why."""

    def __init__(self, where: str, why: str) -> None:
        super().__init__(f"{where}: {why}")
