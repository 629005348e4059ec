"""The register that every reading enters itself into, whatever it is read from."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from tropometer.swing.readings.reading import Group, Unit


class DuplicateReading(ValueError):
    """Two readings have the same id."""


@dataclass(frozen=True, kw_only=True)
class Kind:
    """What is always true of a reading; `at` are its checkpoints, or what it is of."""

    id: str
    unit: Unit
    group: Group
    sign: str
    method: str
    at: tuple[str, ...]


AnyKind = TypeVar("AnyKind", bound=Kind)
KINDS: dict[str, Kind] = {}


def enter(kind: AnyKind) -> AnyKind:
    """Put a reading into the register; DuplicateReading where another has its id."""
    if kind.id in KINDS:
        raise DuplicateReading(f"There is a reading {kind.id} already.")
    KINDS[kind.id] = kind
    return kind


def kinds_of(form: type[AnyKind]) -> tuple[AnyKind, ...]:
    """The readings that are read from one thing, in the order of the register."""
    return tuple(kind for kind in KINDS.values() if isinstance(kind, form))


def method_of(formula: Callable[..., Any]) -> str:
    """How a formula measures: the first paragraph of what is written of it."""
    return " ".join((formula.__doc__ or "").strip().partition("\n\n")[0].split())
