"""Marks followed between the frames on which they were placed."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

import numpy as np
import numpy.typing as npt
from django.db import transaction
from django.dispatch import receiver
from django.shortcuts import get_object_or_404
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from tropometer.server.bench.carrying import carrying_stale
from tropometer.server.bench.models import HiddenMark, Mark, Track
from tropometer.server.bench.pegs import checkpoints_of
from tropometer.server.clips.bodies import ClipProposals, has_landmarks, proposals_of
from tropometer.server.clips.proposing import clip_looked_at
from tropometer.server.clips.services import ready_clip, times_s
from tropometer.server.rooms import local_copy, scratch, video
from tropometer.swing.names import PLANE_OF, TRACKED, View
from tropometer.swing.record.clip import Mark as RecordMark
from tropometer.swing.scene.smoothing import smooth_path

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

FOLLOW_SECONDS = 900
FIRST_PRIORITY = 1  # an instructor waits for it
LONGEST_FRAMES = 1200  # between two placed marks; nobody follows farther
Values = npt.NDArray[np.float32]
HOW = {"grip": "landmarks", "club_head": "shaft"}


@dataclass(frozen=True)
class Anchor:
    """A placed mark that a track starts from or ends at."""

    frame: int
    x: float
    y: float

    @property
    def said(self) -> list[float]:
        """Frame and place, as they are kept with a track."""
        return [self.frame, round(self.x, 3), round(self.y, 3)]


@dataclass(frozen=True)
class Chain:
    """The placed marks of one name in order, where it is hidden, and whether landmarks guide."""

    anchors: list[Anchor]
    hidden: frozenset[int]
    guided: bool
    grips: tuple[Anchor, ...] = ()  # the placed grips that a club head hangs from

    @property
    def basis(self) -> dict[str, Any]:
        """What a track is made from; it is made anew when this changes."""
        first, last = self.anchors[0].frame, self.anchors[-1].frame
        between = sorted(frame for frame in self.hidden if first < frame < last)
        placed = [anchor.said for anchor in self.anchors]
        return {
            "placed": placed,
            "hidden": between,
            "guided": self.guided,
            "grips": [grip.said for grip in self.grips],
        }

    def spans(self) -> Iterable[tuple[Anchor, Anchor]]:
        """Neighbours to be followed: frames lie between them, on none of which the mark is hidden."""
        for a, b in pairwise(self.anchors):
            between = range(a.frame + 1, b.frame)
            if 0 < len(between) <= LONGEST_FRAMES and not self.hidden.intersection(between):
                yield a, b


def is_tracked(name: str) -> bool:
    """Whether a mark is one that is followed."""
    return name in TRACKED


def follow_later(clip_id: UUID, tries: int = 0) -> None:
    """Have a worker follow the clip's marks; once, however often it is asked for before it begins."""
    task = app.configure_task(
        "tropometer.server.bench.tasks.follow_marks",
        queueing_lock=f"follow {clip_id}",
        lock=f"follow {clip_id}",
        priority=FIRST_PRIORITY,
        schedule_in={"seconds": 2**tries} if tries else None,
    )
    try:
        with transaction.atomic():
            task.defer(clip_id=str(clip_id), tries=tries)
    except AlreadyEnqueued:
        pass  # it will see these marks too


@receiver(clip_looked_at)
def follow_with_landmarks(sender: object, clip: Clip, **_: object) -> None:
    """Follow what was placed before the landmarks were found, now that they can guide."""
    if Mark.objects.filter(clip=clip, name__in=TRACKED).exists():
        follow_later(clip.pk)


def follow(clip_id: UUID) -> None:
    """Follow what has changed since the clip's tracks were made. Safe to run twice."""
    clip = ready_clip(clip_id)
    if clip is None:
        return
    wanted = _chains(clip)
    proposals = proposals_of(clip, checkpoints_of(clip))
    stored = {track.name: track for track in clip.tracks.all()}
    Track.objects.filter(clip=clip).exclude(name__in=wanted).delete()
    changed = {
        name: chain
        for name, chain in wanted.items()
        if name not in stored or chain.basis != stored[name].basis
    }
    old = {
        name: _spans_of(stored[name])
        for name, chain in changed.items()
        if name in stored
        and all(stored[name].basis[each] == chain.basis[each] for each in ("guided", "grips"))
    }
    missing = [
        (name, pair)
        for name, chain in changed.items()
        for pair in chain.spans()
        if _key(pair) not in old.get(name, {})
    ]
    found = dict(
        zip(((name, _key(pair)) for name, pair in missing), _track(clip, proposals, missing), strict=True)
    )
    for name, chain in changed.items():
        first, last = chain.anchors[0].frame, chain.anchors[-1].frame
        values = np.full((last - first + 1, 3), np.nan, np.float32)
        for a, b in chain.spans():
            span = found.get((name, _key((a, b))), old.get(name, {}).get(_key((a, b))))
            if span is not None:
                values[a.frame - first : b.frame - first + 1] = span
        for anchor in chain.anchors:
            values[anchor.frame - first] = anchor.x, anchor.y, 0.0
        Track.objects.update_or_create(
            clip=clip,
            name=name,
            defaults={"basis": chain.basis, "first_frame": first, "values": values.tobytes()},
        )


def tracks_stale(clip: Clip) -> bool:
    """Whether what is placed has changed since it was followed."""
    wanted = {name: chain.basis for name, chain in _chains(clip).items()}
    return wanted != dict(clip.tracks.values_list("name", "basis"))


def tracked_marks(
    track: Track, placed: dict[int, RecordMark], kept: set[int] | None = None
) -> dict[int, RecordMark]:
    """A track's marks by frame, without those that were placed; only the frames `kept`, if any are named.

    Their standard deviation is the flow's own together with that of the nearer placed mark.
    """
    values = values_of(track)
    sd_px = with_anchors(track, values[:, 2], {frame: mark.sd_px for frame, mark in placed.items()})
    found = {}
    frames = range(track.first_frame, track.first_frame + len(values))
    for frame in frames if kept is None else sorted(kept.intersection(frames)):
        row = frame - track.first_frame
        if frame not in placed and np.isfinite(values[row, 0]):
            x, y = values[row, :2].tolist()
            found[frame] = RecordMark(x, y, max(float(sd_px[row]), 0.01), "tracked")
    return found


def values_of(track: Track) -> Values:
    """x, y and the flow's standard deviation (n, 3)."""
    return np.frombuffer(bytes(track.values), np.float32).reshape(-1, 3)


def handed_out(clip: Clip) -> dict[str, Any]:
    """All tracks of a clip, shaped as `TracksOut`."""
    placed: dict[str, dict[int, float]] = {}
    for name, frame, of_mark in clip.marks.filter(name__in=TRACKED).values_list("name", "frame", "sd_px"):
        placed.setdefault(name, {})[frame] = of_mark
    rows = []
    for track in clip.tracks.order_by("name"):
        values = values_of(track)
        sd_px = with_anchors(track, values[:, 2], placed.get(track.name, {}))
        rows.append(
            {
                "name": track.name,
                "first": track.first_frame,
                "x": _plain(values[:, 0]),
                "y": _plain(values[:, 1]),
                "sd_px": _plain(sd_px),
            }
        )
    return {"stale": tracks_stale(clip) or carrying_stale(clip), "tracks": rows}


def path_of(clip: Clip, name: str) -> dict[str, Any]:
    """A track's path without its noise, shaped as `PathOut`; Http404 where the mark is not followed."""
    track = get_object_or_404(Track, clip=clip, name=name)
    places = values_of(track)[:, :2].astype(float)
    times = np.array(times_s(clip))[track.first_frame : track.first_frame + len(places)]
    smooth = smooth_path(times, places)
    return {
        "name": name,
        "first": track.first_frame,
        "x": _plain(smooth.places[:, 0]),
        "y": _plain(smooth.places[:, 1]),
        "bridged": (track.first_frame + np.flatnonzero(smooth.bridged)).tolist(),
        "cutoff_hz": smooth.cutoff_hz,
    }


def with_anchors(track: Track, own: Values, placed: dict[int, float]) -> Values:
    """The flow's standard deviations (n,) together with those of the nearer placed mark."""
    anchors = np.array([anchor[0] for anchor in track.basis["placed"]])
    frames = track.first_frame + np.arange(len(own))
    nearest = anchors[np.abs(frames[:, None] - anchors).argmin(axis=1)]
    of_mark = np.array([placed.get(int(frame), 0.0) for frame in nearest], np.float32)
    return np.asarray(np.hypot(own, of_mark), np.float32)


def _plain(values: Any) -> list[float | None]:
    return [round(each, 2) if each == each else None for each in values.tolist()]


def _chains(clip: Clip) -> dict[str, Chain]:
    """Placed marks that are followed, where there are at least two of a name."""
    hidden: dict[str, set[int]] = {}
    for name, frame in HiddenMark.objects.filter(clip=clip).values_list("name", "frame"):
        hidden.setdefault(name, set()).add(frame)
    anchors: dict[str, list[Anchor]] = {}
    rows = Mark.objects.filter(clip=clip, name__in=TRACKED).order_by("frame")
    for name, frame, x, y in rows.values_list("name", "frame", "x", "y"):
        anchors.setdefault(name, []).append(Anchor(frame, x, y))
    guided = has_landmarks(clip)
    return {
        name: Chain(
            each,
            frozenset(hidden.get(name, ())),
            guided,
            tuple(anchors.get("grip", ())) if name == "club_head" else (),
        )
        for name, each in anchors.items()
        if len(each) > 1
    }


def _key(pair: Iterable[Anchor]) -> tuple[float, ...]:
    return tuple(each for anchor in pair for each in anchor.said)


def _spans_of(track: Track) -> dict[tuple[float, ...], Values]:
    """What a track holds between its neighbouring anchors, where it holds anything."""
    values = values_of(track)
    spans = {}
    for a, b in pairwise(track.basis["placed"]):
        span = values[int(a[0]) - track.first_frame : int(b[0]) - track.first_frame + 1]
        if np.isfinite(span[1:-1, 0]).any():
            spans[(*a, *b)] = span
    return spans


def _seen(proposals: ClipProposals, name: str, first: int, last: int) -> list[list[float]] | None:
    """Where landmarks see a mark on frames `first` to `last`; None where they miss it on one."""
    seen = [proposals.at(name, frame) for frame in range(first, last + 1)]
    return [[mark.x, mark.y] for mark in seen if mark] if all(seen) else None


def _grip(clip: Clip, first: int, last: int) -> list[tuple[float, float]] | None:
    """The grip on the frames of two placed heads, if it was placed on both; only face-on.

    Down the line the club comes toward the camera and goes behind the player: its length in the picture says
    nothing about where its head is.
    """
    grips = Mark.objects.filter(clip=clip, name="grip", frame__in=(first, last)).order_by("frame")
    ends = list(grips.values_list("x", "y"))
    return ends if PLANE_OF[cast(View, clip.view)] == "frontal" and len(ends) == 2 else None


def _track(
    clip: Clip, proposals: ClipProposals, spans: list[tuple[str, tuple[Anchor, Anchor]]]
) -> list[Values]:
    if not spans:
        return []
    asked = []
    for name, (a, b) in spans:
        guide = _seen(proposals, "grip" if name == "club_head" else name, a.frame, b.frame)
        asked.append(
            {
                "name": name,
                "first": a.frame,
                "last": b.frame,
                "start": [a.x, a.y],
                "end": [b.x, b.y],
                "guide": guide,
                "grip": _grip(clip, a.frame, b.frame) if name == "club_head" else None,
                "how": HOW.get(name, "flow"),
            }
        )
    with scratch() as folder, local_copy(clip.proxy) as proxy:
        source, target = folder / "spans.json", folder / "tracks.npy"
        source.write_text(json.dumps(asked))
        for _ in video("track", proxy, target, "--spans", source, seconds=FOLLOW_SECONDS):
            pass
        ends = np.cumsum([b.frame - a.frame + 1 for _, (a, b) in spans])
        return np.split(np.load(target), ends[:-1])
