"""What is raised where a piece of the book makes no sense."""

from __future__ import annotations


class BookError(ValueError):
    """A piece of the book that cannot be used: which file, which field, and why."""

    def __init__(self, file: str, field: str, why: str) -> None:
        super().__init__(f"{file}: {field}: {why}" if field else f"{file}: {why}")
        self.file, self.field, self.why = file, field, why
