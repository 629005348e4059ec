"""The first look: what a machine reads of a swing before anybody has looked at it.

Nothing of it is put on the swing. Pegs, marks and mats that somebody put there go before what a machine saw.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

import numpy as np
from django.db import transaction
from django.dispatch import receiver
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued
from scipy.stats import norm

from tropometer.server.bench.asking import asked_of_swing
from tropometer.server.bench.carrying import carried_in
from tropometer.server.bench.changed import swing_changed
from tropometer.server.bench.columns import figure, reading_columns
from tropometer.server.bench.glance import as_kept
from tropometer.server.bench.models import FirstLook, Swing
from tropometer.server.bench.pegs import checkpoints_of
from tropometer.server.bench.problems import BadEdit
from tropometer.server.bench.record import careful_sd_px, marks_of, ready_clips, record_of
from tropometer.server.bench.setup import carried_over, others_with_mat
from tropometer.server.clips.bodies import is_seen_closely, proposals_of
from tropometer.server.clips.closer import clip_looked_at_closely
from tropometer.server.clips.proposing import clip_looked_at
from tropometer.server.clips.services import is_under_way
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import CHECKPOINTS, View
from tropometer.swing.next_look import NextLook, next_looks
from tropometer.swing.proposals.body_length import body_length
from tropometer.swing.proposals.provisional import SeenClip, best_seen, with_proposals
from tropometer.swing.read import SwingRead, read
from tropometer.swing.readings.from_plate import FromPlate
from tropometer.swing.readings.reading import Need, Reading
from tropometer.swing.readings.register import KINDS
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Mark
from tropometer.teaching.judging.asked import Asked
from tropometer.teaching.knowledge.band import Band

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

TRIED_MATS = 4  # clips whose mat may lie here too
SHOWN = 3
STANDS_OUT = 0.85  # so sure must it be that a reading lies outside its band: of those most are (docs/method)
# What bends is never read as less than straight: where its error is large it reads too large.
BENDS = ("knee_flex_lead", "knee_flex_trail", "trail_elbow_flex")
HAND_SD_PX = 1.5  # at 720 lines, while nobody has tested the hand


@dataclass(frozen=True)
class Looked:
    """A swing with what a machine saw: read, beside what is read of it without that."""

    swing: Swing
    clips: list[Clip]
    asked: Asked | None
    own: SwingRead
    with_seen: SwingRead

    def provisional(self) -> list[Reading]:
        """The readings that only the machine's pegs, marks and mats give."""
        given = {(each.reading, each.at) for each in self.own.readings if each.status == "ok"}
        return [
            each
            for each in self.with_seen.readings
            if each.status == "ok"
            and (each.reading, each.at) not in given
            and not isinstance(KINDS[each.reading], FromPlate)
        ]


def look_at(swing: Swing, by_body: bool = False) -> Looked | None:
    """Read a swing as a machine sees it; None where it saw no swing in it.

    `by_body`: where nothing of known length lies, the player's own legs are the scale.
    """
    clips = ready_clips(swing, whole=False)
    seen = {str(clip.pk): found for clip in clips if (found := _seen(swing, clip)) is not None}
    if not seen:
        return None
    record = record_of(swing, clips, whole=False)
    if by_body:
        seen = {id: replace(each, length=body_length(each, record.stature_m)) for id, each in seen.items()}
    with_seen = with_proposals(record, seen)
    return Looked(swing, clips, asked_of_swing(swing), read(record), read(with_seen))


def _seen(swing: Swing, clip: Clip) -> SeenClip | None:
    stored = getattr(clip, "proposals", None)
    if stored is None or clip.looking or not stored.found.get("is_swing"):
        return None
    pegs = {peg["name"]: peg["frame"] for peg in stored.found["pegs"]}
    found = proposals_of(clip, checkpoints_of(clip))
    known = {at: pegs[at] for at in CHECKPOINTS if at in pegs and pegs[at] < clip.frame_count}
    return SeenClip(pegs=known, mark=found.at, carried=carried_in(clip), mat=_mat_of(swing, clip))


def proposed_on(clip: Clip, frame: int) -> dict[str, Mark]:
    """The marks that a machine proposes for a frame, by name: better for what a hand has put on others."""
    found = proposals_of(clip, checkpoints_of(clip))
    seen = SeenClip(pegs={}, mark=found.at, carried=carried_in(clip))
    placed = marks_of(clip)
    named = dict.fromkeys((*found.marks, *seen.carried))
    marks = {name: best_seen(seen, name, placed.get(name, {}))(name, frame) for name in named}
    return {name: mark for name, mark in marks.items() if mark}


def _mat_of(swing: Swing, clip: Clip) -> Mat | None:
    mat = _mats(swing).get(str(clip.pk))
    if mat is None:
        return None
    corners = tuple((corner["x"], corner["y"]) for corner in mat["corners"])
    return Mat(corners, mat["along_m"], mat["across_m"], careful_sd_px(clip))


def _mats(swing: Swing) -> dict[str, Any]:
    """Mats that were carried over to a swing's clips, by the clips' ids."""
    return dict(swing.first_look.mats) if hasattr(swing, "first_look") else {}


def told(swing: Swing) -> dict[str, Any]:
    """The first look as the bench shows it, shaped as `FirstLookOut`."""
    looked = look_at(swing)
    clips = looked.clips if looked else ready_clips(swing, whole=False)
    under_way = any(clip.looking for clip in clips)
    shares = [clip.proposals.closer for clip in clips if hasattr(clip, "proposals")]
    closer = [share for share in shares if share is not None]
    found = {
        "looking": under_way,
        "closer": min(closer) if closer else None,
        "mats": sorted(_mats(swing)),
    }
    if looked is None:
        return found | {"readings": [], "next": []}
    return found | {
        "readings": reading_columns(looked.provisional(), looked.asked, [str(clip.pk) for clip in clips]),
        "next": [_as_click(each) for each in _next(looked)],
    }


def _next(looked: Looked) -> list[NextLook]:
    """Pegs first, for frames are looked at by their pegs; then what ties two views; then mats nobody laid."""
    swing, clips = looked.swing, looked.clips
    first = _pegs_first(clips) or _tied_first(swing, clips) or _mats_first(swing, clips)
    if first:
        return [NextLook(need=need, worth=np.inf, narrows=()) for need in first]
    bands = looked.asked.bands if looked.asked else {}
    ends = {key: (band.low, band.high) for key, band in bands.items()}
    own = looked.swing.instructor.hand_sd_px or HAND_SD_PX
    hand_px = {cast(View, clip.view): own * min(clip.width, clip.height) / 720 for clip in looked.clips}
    return next_looks(looked.with_seen, ends, hand_px)


def _pegs_first(clips: list[Clip]) -> list[Need]:
    """The proposed pegs to look through; without a view where both have some, for they are seen together."""
    views = [
        cast(View, clip.view)
        for clip in clips
        if not checkpoints_of(clip) and hasattr(clip, "proposals") and clip.proposals.found.get("is_swing")
    ]
    return [Need("peg", "proposed", None, views[0] if len(views) == 1 else None)] if views else []


def _tied_first(swing: Swing, clips: list[Clip]) -> list[Need]:
    return [Need("one_swing")] if swing.one_swing is None and len({clip.view for clip in clips}) > 1 else []


def _mats_first(swing: Swing, clips: list[Clip]) -> list[Need]:
    laid = [clip for clip in clips if str(clip.pk) in _mats(swing) and not _is_scaled(clip)]
    return [Need("mat", "", None, cast(View, clip.view)) for clip in laid]


def _is_scaled(clip: Clip) -> bool:
    """Whether somebody laid a mat or drew a known length in it."""
    return hasattr(clip, "mat") or hasattr(clip, "calibration")


def _as_click(look: NextLook) -> dict[str, Any]:
    """Shaped as `NextOut`."""
    return {"need": look.need, "gives": [], "helps": 0, "narrows": look.narrows[:SHOWN]}


def keep(swing_id: UUID) -> None:
    """Look at a swing for the inbox: carry its mats over, and keep what stands out. Safe to run twice."""
    swing = Swing.objects.filter(pk=swing_id).select_related("student", "instructor", "first_look").first()
    if swing is None or swing.clips.filter(looking=True).exists():
        return  # the clip that is looked at last asks again
    mats = _mats(swing)
    for clip in ready_clips(swing, whole=False):
        if str(clip.pk) not in mats and not _is_scaled(clip):
            carried = _carried(clip)
            mats |= {str(clip.pk): carried} if carried else {}
    kept, _ = FirstLook.objects.update_or_create(swing=swing, defaults={"mats": mats})
    swing.first_look = kept
    looked = look_at(swing)
    kept.tapes = _standing_out(looked) if looked and _is_news(looked) else []
    by_body = look_at(swing, by_body=True) if looked else None
    kept.read = as_kept(by_body.with_seen.readings) if by_body else None
    kept.save(update_fields=["tapes", "read"])


def is_unread(swing: Swing) -> bool:
    """Whether a machine has still to read a swing; what was refused or failed it never will."""
    return not hasattr(swing, "first_look") and any(map(is_under_way, swing.clips.all()))


def _is_news(looked: Looked) -> bool:
    """Whether nobody has begun yet, and the machine looked closely: the fast network is too rough."""
    clips = looked.clips
    return not any(checkpoints_of(clip) for clip in clips) and all(is_seen_closely(clip) for clip in clips)


def _carried(clip: Clip) -> dict[str, Any] | None:
    """A mat that was clicked in another clip of the same set-up, if the pictures agree."""
    for other in others_with_mat(clip)[:TRIED_MATS]:
        try:
            mat: dict[str, Any] = carried_over(other, clip)["mat"]
        except BadEdit:
            continue
        return mat
    return None


def _standing_out(looked: Looked) -> list[dict[str, Any]]:
    """The readings that most surely lie outside their bands, each once, shaped as `FirstTape`."""
    bands: Mapping[tuple[str, str], Band] = looked.asked.bands if looked.asked else {}
    found = []
    for each in looked.with_seen.readings:
        band = bands.get((each.reading, each.at))
        if band is None or each.value is None or not each.u95:
            continue
        if each.reading in BENDS and each.value < 2 * each.u95:
            continue
        below, above = _beyond(band, each.value, each.u95 / NORMAL_95)
        found.append((max(below, above), each, "below" if below > above else "above", band))
    found.sort(key=lambda row: (-round(row[0], 2), row[1].u95))
    once: dict[str, dict[str, Any]] = {}
    for sure, each, standing, band in found:
        if sure >= STANDS_OUT and len(once) < SHOWN:
            once.setdefault(
                each.reading,
                {
                    "reading": each.reading,
                    "at": each.at,
                    "unit": each.unit,
                    "value": figure(each.value),
                    "u95": figure(each.u95),
                    "low": band.low,
                    "high": band.high,
                    "standing": standing,
                    "sure": round(sure, 2),
                },
            )
    return list(once.values())


def _beyond(band: Band, value: float, sd: float) -> tuple[float, float]:
    """How likely a reading truly lies below its band, and above it."""
    below = float(norm.cdf((band.low - value) / sd)) if band.low is not None else 0.0
    above = float(norm.cdf((value - band.high) / sd)) if band.high is not None else 0.0
    return below, above


@receiver([clip_looked_at, clip_looked_at_closely])
def look_once_seen(sender: object, clip: Clip, **_: object) -> None:
    """Look at the swing of a clip whose player was found."""
    look_later(clip.swing_id)


def look_anew(swing_ids: Iterable[UUID]) -> None:
    """Forget what was seen of swings of which something else is said now, and have them looked at again."""
    for swing_id in swing_ids:
        FirstLook.objects.filter(swing=swing_id).update(tapes=[], mats={}, read=None, glanced=None)
        swing_changed.send(None, swing_id=swing_id)
        look_later(swing_id)


def look_later(swing_id: UUID) -> None:
    """Have a worker look at a swing; once, however often it is asked for before it begins."""
    task = app.configure_task(
        "tropometer.server.bench.tasks.first_look", queueing_lock=f"first look {swing_id}"
    )
    try:
        with transaction.atomic():
            task.defer(swing_id=str(swing_id))
    except AlreadyEnqueued:
        pass  # it will see this too
