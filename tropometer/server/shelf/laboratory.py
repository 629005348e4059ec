"""A laboratory's file of markers on the shelf: looked into, mapped once, taken in as a reference."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, cast

import numpy as np
from django.db import transaction

from tropometer.server.bench.laboratory import receive_markers
from tropometer.server.rooms import RefusedClip, handed_in, video
from tropometer.server.shelf.models import MarkerProfile, ReferenceSwing
from tropometer.server.teaching.services import model_of
from tropometer.swing.formats.laboratory import (
    Axis,
    Meaning,
    Recorded,
    for_hand,
    guessed,
    metres,
    placed_marks,
)
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.trc import recorded_in_trc
from tropometer.swing.names import Hand

if TYPE_CHECKING:
    from ninja.files import UploadedFile

    from tropometer.server.bench.models import Swing
    from tropometer.server.bench.schemas import SwingKind
    from tropometer.server.people.models import User

MOST_BYTES = 20 * 1024**2
OPEN_SECONDS = 30  # a meddled C3D can keep its reader busy for ever
C3D_KEY = b"\x50"  # the second byte of every C3D file


def opened(file: UploadedFile) -> Recorded:
    """The markers of a C3D or TRC file; RefusedClip, with its name, where it is none."""
    with handed_in(file, MOST_BYTES) as sent:
        try:
            with sent.open("rb") as start:
                is_c3d = start.read(2)[1:] == C3D_KEY
            return _in_c3d(sent) if is_c3d else _in_text(sent)
        except (RefusedClip, RecordError) as trouble:
            raise RefusedClip(f"{file.name}: {trouble}") from None


def _in_c3d(sent: Path) -> Recorded:
    target = sent.parent / "places.npy"
    said = list(video("markers", sent, target, seconds=OPEN_SECONDS))[-1]
    places = np.load(target, allow_pickle=False) * metres(said["unit"])
    return Recorded(labels=tuple(said["labels"]), rate_hz=said["rate_hz"], places=places)


def _in_text(sent: Path) -> Recorded:
    return recorded_in_trc(sent.read_text("utf-8-sig", errors="replace"))


@dataclass(frozen=True)
class Understood:
    """What a file's markers seem to stand for, and the profile that says so, if one does."""

    meaning: Meaning
    profile: str


def understood(instructor: User, recorded: Recorded, hand: Hand) -> Understood:
    """By the profile that knows most of the file's labels; else by what they say of themselves."""
    best: MarkerProfile | None = None
    most = 0
    for profile in MarkerProfile.objects.filter(instructor=instructor):
        known = len(set(profile.marks) & set(recorded.labels))
        if known == len(profile.marks) and known > most:
            best, most = profile, known
    if best is None:
        return Understood(guessed(recorded, hand), "")
    marks = for_hand(best.marks, cast(Hand, best.hand), hand)
    return Understood(Meaning(marks=marks, up=cast(Axis, best.up), toward=cast(Axis, best.toward)), best.name)


def put_recorded_on_shelf(
    instructor: User,
    file: UploadedFile,
    *,
    name: str,
    about: str,
    teaching_model: str,
    hand: Hand,
    kind: SwingKind,
    meaning: Meaning,
    profile: str,
) -> Swing:
    """Take a laboratory's swing in as a reference, and keep what its markers stand for under a name, if any.

    Raises RefusedClip or RecordError where the file or what was said of it makes no sense.
    """
    if teaching_model:
        model_of(instructor, teaching_model)
    recorded = opened(file)
    places = placed_marks(recorded, meaning, hand)
    # A file's name is whatever its sender calls it; what no field can hold is left out.
    shown = "".join(each for each in file.name or "" if each.isprintable())[:200] or "markers"
    with transaction.atomic():
        swing = receive_markers(instructor, hand, kind, places, recorded.rate_hz, shown)
        ReferenceSwing.objects.create(
            swing=swing, instructor=instructor, name=name, about=about, teaching_model=teaching_model
        )
        if profile:
            said = {"hand": hand, "marks": dict(meaning.marks), "up": meaning.up, "toward": meaning.toward}
            MarkerProfile.objects.update_or_create(instructor=instructor, name=profile, defaults=said)
    return swing
