"""When things happen in a swing: by its pegs, by its events, and by its curves."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, Never

import numpy as np

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import NORMAL_95, Measured
from tropometer.swing.names import VIEWS, Checkpoint, Event, spoken
from tropometer.swing.readings.curve_events import passing, rate_about, turn_of
from tropometer.swing.readings.reading import Given, Need, Refused
from tropometer.swing.readings.series import Series
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord

UPWARD: Literal[1] = 1
DOWNWARD: Literal[-1] = -1


@dataclass(frozen=True, kw_only=True, eq=False)
class Instant:
    """Seconds from impact, in a clip; the frame is None where it lies between frames."""

    seconds: Measured
    clip: str
    frame: int | None = None


@dataclass(frozen=True, kw_only=True)
class Crossing:
    """The peg of an event, or else when a reading first passes a level for good after a checkpoint."""

    event: Event
    curve: str
    level: float
    way: Literal[1, -1]
    after: Checkpoint


@dataclass(frozen=True, kw_only=True)
class TurningPoint:
    """The peg of an event, or else when a reading is least (1) or largest (−1) between back and impact."""

    event: Event
    curve: str
    least: Literal[1, -1]


class Clock:
    """Finds the times of one swing. What it cannot find it raises Refused for, with the peg to set."""

    def __init__(self, record: SwingRecord, curves: Mapping[str, Series]) -> None:
        # Face-on first: its clip is the one that sequence is looked at in.
        self.clips = sorted(record.clips, key=lambda clip: VIEWS.index(clip.view))
        self.curves = curves

    def of_impact(self) -> Clip:
        """The clip on which impact is pegged, whose times count from it."""
        clip = next((clip for clip in self.clips if "impact" in clip.checkpoints), None)
        return clip or _unpegged("impact")

    def peg(self, at: Checkpoint, clip: Clip, of: Event | None = None) -> Instant:
        """A checkpoint on a clip's own clock; what it is taken `of` misses it by an error of its own."""
        frame = clip.checkpoints.get(at)
        if frame is None:
            _unpegged(at)
        seconds = clip.time_from_impact_s(frame)
        if seconds is None:
            _unpegged("impact")
        # Impact is the zero of its own clock, also where it lies between two frames.
        return _on(clip, frame, 0.0 if at == "impact" else seconds, of or at)

    def event(self, event: Event, clip: Clip) -> Instant | None:
        """An event that somebody pegged on a clip; None where nobody has."""
        frame = clip.events.get(event)
        seconds = None if frame is None else clip.time_from_impact_s(frame)
        return None if frame is None or seconds is None else _on(clip, frame, seconds, event)

    def since(self, zero: Checkpoint, instant: Instant) -> Given:
        """A time since a checkpoint of the same clip."""
        clip = next(clip for clip in self.clips if clip.id == instant.clip)
        start = self.peg(zero, clip)
        return given(instant.seconds - start.seconds, instant, start)

    def pegged(self, event: Event) -> Instant | None:
        """An event that somebody pegged on any clip."""
        return next((found for clip in self.clips if (found := self.event(event, clip))), None)

    def crossing(self, crossing: Crossing) -> Instant:
        """When a reading passes a level, as it is pegged or drawn."""
        pegged = self.pegged(crossing.event)
        if pegged is not None:
            return pegged
        seen = self.curves.get(crossing.curve)
        if seen is None:
            words = f"Set the event {spoken(crossing.event)}, or mark it on the frames about it."
            raise Refused(words, Need("peg", crossing.event))
        past = (seen.values - crossing.level) * crossing.way
        found = passing(seen.times_s, past, seen.u95 / NORMAL_95, self._from_s(crossing.after))
        return self._drawn(found.value, found.sd, crossing.event)

    def turning_point(self, point: TurningPoint) -> Instant:
        """When a reading turns round, as it is pegged or drawn."""
        pegged = self.pegged(point.event)
        if pegged is not None:
            return pegged
        seen = self.curves.get(point.curve)
        turn = seen and turn_of(seen.times_s, seen.values * point.least, self._from_s("arm_back"), 0.0)
        if not turn:
            raise Refused(f"Set the event {spoken(point.event)}.", Need("peg", point.event))
        return self._drawn(turn.at_s, turn.sd_s, point.event)

    def rate_at_impact(self, curve: str) -> Given:
        """How fast a reading changes about impact, by its curve."""
        # Curves are on the frames of the first clip: without its own impact their times count from elsewhere.
        frame = self.clips[0].checkpoints.get("impact") if self.clips else None
        if frame is None:
            _unpegged("impact")
        seen = self.curves.get(curve)
        if seen is None:
            raise Refused(f"Mark it on the frames about impact (frame {frame}).")
        sd_s = peg_sd_s(self.clips[0], frame)
        found = rate_about(seen.times_s, seen.values, seen.u95 / NORMAL_95, 0.0, sd_s)
        value = Measured.of(found.value, found.sd, Source("others", curve, "impact"))
        return Given(value=value, clips=(self.clips[0].id,), frames=(frame,), provisional=True)

    def _drawn(self, at_s: float, sd_s: float, event: Event) -> Instant:
        return Instant(seconds=Measured.of(at_s, sd_s, Source("moment", event)), clip=self.clips[0].id)

    def _from_s(self, at: Checkpoint) -> float:
        """Seconds from impact to a checkpoint; before all where it is not pegged."""
        clip = self.clips[0]
        frame = clip.checkpoints.get(at)
        seconds = None if frame is None else clip.time_from_impact_s(frame)
        return -np.inf if seconds is None else seconds


def given(value: Measured, *instants: Instant) -> Given:
    """A value that follows from some instants."""
    return Given(
        value=value,
        clips=tuple(dict.fromkeys(each.clip for each in instants)),
        frames=tuple(each.frame for each in instants if each.frame is not None),
        provisional=any(each.frame is None for each in instants),  # read off a curve, not pegged
    )


def peg_sd_s(clip: Clip, frame: int) -> float:
    """One standard deviation, seconds, of what is pegged on a frame: as likely at any time about it."""
    times = clip.frame_times_s
    step = (times[min(frame + 1, len(times) - 1)] - times[max(frame - 1, 0)]) / 2
    unseen = (sd_s for at, sd_s in clip.peg_sd_s.items() if clip.checkpoints.get(at) == frame)
    return math.hypot(step / math.sqrt(12), max(unseen, default=0.0))


def _on(clip: Clip, frame: int, seconds: float, of: Checkpoint | Event) -> Instant:
    source = Source("moment", of, view=clip.view)
    return Instant(seconds=Measured.of(seconds, peg_sd_s(clip, frame), source), clip=clip.id, frame=frame)


def _unpegged(at: Checkpoint) -> Never:
    raise Refused(f"Set the {spoken(at)} peg.", Need("peg", at, at))
