"""The book: everything that is known, by kind and id."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import TypeVar

from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.caution import Caution
from tropometer.teaching.knowledge.dispute import Clash, Dispute, Option
from tropometer.teaching.knowledge.drill import Drill
from tropometer.teaching.knowledge.fault import Fault
from tropometer.teaching.knowledge.motion import Motion
from tropometer.teaching.knowledge.teaching_model import TeachingModel
from tropometer.teaching.knowledge.trade_words import Id, Known, Phase, Prose


class Standard(Known):
    """What every model asks in one part of the swing."""

    id: Id
    phase: Phase
    name: Prose
    bands: tuple[Band, ...]


Piece = Standard | Dispute | Clash | TeachingModel | Fault | Drill | Caution | Motion
AnyPiece = TypeVar("AnyPiece", bound=Piece)
KIND_OF: dict[str, type[Piece]] = {
    "standard": Standard,
    "dispute": Dispute,
    "clash": Clash,
    "model": TeachingModel,
    "fault": Fault,
    "drill": Drill,
    "caution": Caution,
    "motion": Motion,
}
NAME_OF = {kind: name for name, kind in KIND_OF.items()}


@dataclass(frozen=True, kw_only=True)
class Book:
    """Pieces of each kind by their id, in the order of the book."""

    standards: Mapping[str, Standard] = field(default_factory=dict)
    disputes: Mapping[str, Dispute] = field(default_factory=dict)
    clashes: Mapping[str, Clash] = field(default_factory=dict)
    models: Mapping[str, TeachingModel] = field(default_factory=dict)
    faults: Mapping[str, Fault] = field(default_factory=dict)
    drills: Mapping[str, Drill] = field(default_factory=dict)
    cautions: Mapping[str, Caution] = field(default_factory=dict)
    motions: Mapping[str, Motion] = field(default_factory=dict)

    @classmethod
    def of(cls, pieces: Iterable[Piece]) -> Book:
        """Raises BookError where two pieces of a kind have the same id."""
        found = list(pieces)
        return cls(
            standards=_by_id(found, Standard),
            disputes=_by_id(found, Dispute),
            clashes=_by_id(found, Clash),
            models=_by_id(found, TeachingModel),
            faults=_by_id(found, Fault),
            drills=_by_id(found, Drill),
            cautions=_by_id(found, Caution),
            motions=_by_id(found, Motion),
        )

    @property
    def pieces(self) -> Iterator[Piece]:
        """All of them."""
        for shelf in (
            self.standards, self.disputes, self.clashes, self.models, self.faults, self.drills, self.cautions,
            self.motions,
        ):  # fmt: skip
            yield from shelf.values()

    def with_pieces(self, pieces: Iterable[Piece]) -> Book:
        """This book and somebody's own pieces."""
        return Book.of([*self.pieces, *pieces])

    def option(self, dispute: str, option: str) -> Option | None:
        """An option of a dispute; None where there is no such one."""
        found = self.disputes.get(dispute)
        return next((each for each in found.options if each.id == option), None) if found else None

    def drills_for(self, fault: str) -> list[Drill]:
        """The drills against a fault."""
        return [drill for drill in self.drills.values() if fault in drill.faults]


def named(piece: Piece) -> str:
    """Which piece it is, as an error names it: the folder and the file of the shipped book."""
    return f"{NAME_OF[type(piece)]} {piece.id}"


def _by_id(pieces: Iterable[Piece], kind: type[AnyPiece]) -> dict[str, AnyPiece]:
    found: dict[str, AnyPiece] = {}
    for piece in pieces:
        if isinstance(piece, kind):
            if piece.id in found:
                raise BookError(named(piece), "id", "there is another of this id")
            found[piece.id] = piece
    return found
