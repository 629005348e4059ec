"""The book's pages: a piece as a TOML document, in and out."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any

import tomli_w
from pydantic import TypeAdapter, ValidationError

from tropometer.teaching.knowledge.book import KIND_OF, NAME_OF, Book, Piece
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.checking import check

SHIPPED = Path(__file__).parents[1] / "book"
DRAWINGS = SHIPPED / "drawings"  # of the shipped drills, by `./tropo golfer drills`
TAGS = ("all", "any", "of")
LONGEST = 100_000  # characters of a page


@lru_cache
def shipped() -> Book:
    """The book that comes with the application."""
    book = Book.of(read_page(path.read_text("utf-8"), path.stem) for path in sorted(SHIPPED.glob("*/*.toml")))
    check(book)
    return book


def read_page(text: str, file: str) -> Piece:
    """A piece from a TOML document; BookError names the field that it cannot be read for."""
    if len(text) > LONGEST:
        raise BookError(file, "", f"longer than {LONGEST} characters")
    try:
        document = tomllib.loads(text)
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        raise BookError(file, "", f"not TOML ({error})") from error
    return from_document(document, file)


def from_document(document: Mapping[str, Any], file: str) -> Piece:
    """A piece from a document with its `kind`; BookError names the field that makes no sense."""
    kind = KIND_OF.get(str(document.get("kind")))
    if kind is None:
        raise BookError(file, "kind", f"is none of {', '.join(KIND_OF)}")
    try:
        return kind.model_validate({name: each for name, each in document.items() if name != "kind"})
    except ValidationError as error:
        worst = error.errors(include_url=False)[0]
        raise BookError(file, field_of(worst["loc"]), why_of(worst["msg"])) from error


def document_of(piece: Piece) -> dict[str, Any]:
    """A piece as a document, without what it leaves at its default."""
    return {"kind": NAME_OF[type(piece)], **piece.model_dump(mode="json", exclude_defaults=True)}


def written(piece: Piece) -> str:
    """A piece as a TOML document, as it is exchanged."""
    return tomli_w.dumps(document_of(piece))


def schema() -> dict[str, Any]:
    """The JSON Schema of a page of any kind."""
    pieces = {name: TypeAdapter(kind).json_schema() for name, kind in KIND_OF.items()}
    defs: dict[str, Any] = {}
    for name, found in pieces.items():
        defs |= found.pop("$defs", {})
        found["properties"] = {"kind": {"const": name}, **found["properties"]}
        found["required"] = ["kind", *found["required"]]
    defs |= {f"{KIND_OF[name].__name__}Page": each for name, each in pieces.items()}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Tropometer teaching book: one page",
        "oneOf": [{"$ref": f"#/$defs/{kind.__name__}Page"} for kind in KIND_OF.values()],
        "$defs": dict(sorted(defs.items())),
    }


def field_of(loc: tuple[int | str, ...]) -> str:
    """The path of a field, as pydantic tells it; the tags by which rules are told apart are no fields."""
    told = [each for i, each in enumerate(loc) if each not in TAGS or loc[i + 1 : i + 2] != (each,)]
    told = [each for each in told if each != "condition"]
    return "".join(f"[{each}]" if isinstance(each, int) else f".{each}" for each in told).lstrip(".")


def why_of(message: str) -> str:
    """What pydantic says, without its own prefix."""
    return message.removeprefix("Value error, ")
