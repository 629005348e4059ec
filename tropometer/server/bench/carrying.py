"""Marks by hand carried to the pegs about them: better proposals, which nobody has looked at."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

import numpy as np

from tropometer.server.bench.models import CarriedMark, HiddenMark, Mark
from tropometer.server.bench.pegs import checkpoints_of
from tropometer.server.clips.bodies import pegs_proposed
from tropometer.server.clips.services import ready_clip
from tropometer.server.rooms import local_copy, scratch, video
from tropometer.swing.names import TRACKED, View
from tropometer.swing.proposals.carried import SPREADS, Carried, carried_mark, nearest_frame
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.record.clip import Mark as RecordMark
from tropometer.swing.scene.usual import part_of

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

CARRY_SECONDS = 900
Basis = list[list[Any]]  # of each mark by hand: frame, x, y, spread, and the frames it is carried to


def carry_marks(clip_id: UUID) -> None:
    """Carry what has changed since it was carried last. Safe to run twice."""
    clip = ready_clip(clip_id)
    if clip is None:
        return
    wanted = _wanted(clip)
    CarriedMark.objects.filter(clip=clip).exclude(name__in=wanted).delete()
    stored = dict(CarriedMark.objects.filter(clip=clip).values_list("name", "basis"))
    changed = {name: basis for name, basis in wanted.items() if stored.get(name) != basis}
    if not changed:
        return
    starts = [(name, row) for name, basis in changed.items() for row in basis]
    unit_px = min(clip.width, clip.height) / 720
    places: dict[str, dict[str, list[float]]] = {name: {} for name in changed}
    for (name, row), rows in zip(starts, _carried(clip, [row for _, row in starts]), strict=True):
        for frame, (x, y, way_px, back_px) in zip(row[4], rows, strict=True):
            carried = Carried(x=x, y=y, way_px=way_px, back_px=back_px)
            mark = carried_mark(name, row[3], carried, unit_px)
            if mark is not None:
                places[name][str(frame)] = [round(each, 3) for each in (mark.x, mark.y, mark.sd_px)]
    for name, basis in changed.items():
        CarriedMark.objects.update_or_create(
            clip=clip, name=name, defaults={"basis": basis, "places": places[name]}
        )


def carried_in(clip: Clip) -> dict[str, dict[int, RecordMark]]:
    """Marks by name and frame that were carried there; nothing of what has been changed since."""
    rows = list(clip.carried_marks.all())
    wanted = _wanted(clip) if rows else {}
    return {
        row.name: {
            int(frame): RecordMark(x, y, sd_px, "proposed") for frame, (x, y, sd_px) in row.places.items()
        }
        for row in rows
        if wanted.get(row.name) == row.basis
    }


def carrying_stale(clip: Clip) -> bool:
    """Whether marks by hand have changed since they were carried."""
    return _wanted(clip) != dict(clip.carried_marks.values_list("name", "basis"))


def _wanted(clip: Clip) -> dict[str, Basis]:
    """What is carried, by the mark's name: from every mark by hand to the pegs that it is the nearest to."""
    by_hand: dict[str, dict[int, list[float]]] = {}
    placed: set[tuple[str, int]] = set(HiddenMark.objects.filter(clip=clip).values_list("name", "frame"))
    rows = Mark.objects.filter(clip=clip, name__in=TRACKED)
    for name, frame, source, *place in rows.values_list("name", "frame", "source", "x", "y", "sd_px"):
        placed.add((name, frame))
        if source == "hand" and part_of(name) in SPREADS:
            by_hand.setdefault(name, {})[frame] = place
    if not by_hand:
        return {}
    pegs = pegs_proposed(clip) | checkpoints_of(clip)
    frames: dict[str, set[int]] = {}
    for wanted in wanted_marks():
        if wanted.view == cast(View, clip.view) and wanted.name in by_hand:
            frames.setdefault(wanted.name, set()).update(pegs[at] for at in wanted.at if at in pegs)
    found: dict[str, Basis] = {}
    for name, asked in frames.items():
        to: dict[int, list[int]] = {}
        for frame in sorted(asked):
            if (name, frame) not in placed:
                to.setdefault(nearest_frame(by_hand[name], frame), []).append(frame)
        if to:
            found[name] = [[start, *by_hand[name][start], ends] for start, ends in sorted(to.items())]
    return found


def _carried(clip: Clip, rows: Basis) -> list[list[list[float]]]:
    asked = [{"frame": row[0], "x": row[1], "y": row[2], "to": row[4]} for row in rows]
    with scratch() as folder, local_copy(clip.proxy) as proxy:
        source, target = folder / "starts.json", folder / "carried.npy"
        source.write_text(json.dumps(asked))
        for _ in video("carry", proxy, target, "--spans", source, seconds=CARRY_SECONDS):
            pass
        ends = np.cumsum([len(row[4]) for row in rows])
        return [part.tolist() for part in np.split(np.load(target), ends[:-1])]
