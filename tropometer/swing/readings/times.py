"""Readings that are times, or that need the swing as a whole.

An event's time is its peg's, sure to within half a frame; where nobody pegged it, it is read between the
frames from the reading that shows it, by a local fit.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from tropometer.swing.error.budget import Share
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import CHECKPOINTS, Checkpoint, Event, spoken
from tropometer.swing.readings.curves import Series
from tropometer.swing.readings.going_back import METHOD as WAYS_OF_GOING_BACK
from tropometer.swing.readings.going_back import going_back
from tropometer.swing.readings.reading import Group, Need, Reading, Unit
from tropometer.swing.readings.turning import least_of, passing, turn_of
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord

HEEL_OFF_M = 0.01
EXTREME_BACK = "extreme_back"
STRAIGHT_DEG = 10.0


@dataclass(frozen=True)
class TimedKind:
    """A reading of a time or of the whole swing."""

    unit: Unit
    group: Group
    sign: str
    method: str


SINCE = "before is negative"
TIMED: dict[str, TimedKind] = {
    "tempo": TimedKind(
        "to_one", "sequence", "3 is three times as long back as down",
        "Time from the first move to the top, by the time from the top to impact.",
    ),
    "start_times": TimedKind(
        "s", "sequence", f"from the top; {SINCE}", "When each part starts toward the target, from the top."
    ),
    "heel_return_lead": TimedKind(
        "s", "feet", f"from the top; {SINCE}", "When the lead heel is down again, from the top."
    ),
    "heel_off_trail": TimedKind(
        "s", "feet", f"from impact; {SINCE}", "When the trail heel is 1 cm up, from impact."
    ),
    "lead_knee_straight_time": TimedKind(
        "s", "knees", f"from impact; {SINCE}",
        "When the lead knee is first bent by less than 10° after the top, from impact.",
    ),
    "post_time": TimedKind(
        "s", "pelvis", f"from impact; {SINCE}",
        "When the lead hip's outer edge reaches the post mark, from impact.",
    ),
    "going_back": TimedKind(
        "sd", "pelvis", "how far from the nearest limit, in standard deviations",
        WAYS_OF_GOING_BACK,
    ),
}  # fmt: skip
STARTS: dict[str, tuple[Event, str, int]] = {
    # part: its peg, the reading that shows it, and whether that is least (1) or largest (−1) when it starts.
    "lead_knee": ("lead_knee_start", "lead_knee_travel_t", 1),
    "pelvis_shift": ("pelvis_shift_start", "pelvis_sway", 1),
    "pelvis_turn": ("pelvis_turn_start", "pelvis_turn", -1),
    "chest": ("chest_start", "shoulder_turn", -1),
    "lead_arm": ("lead_arm_start", "lead_arm_raise", -1),
    "club": ("club_start", "", 1),
}


@dataclass(frozen=True)
class Moment:
    """Seconds from impact, with one standard deviation; the frame is None where it lies between frames."""

    at_s: float
    sd_s: float
    clip: str
    frame: int | None = None


def timed_readings(
    record: SwingRecord, found: list[Reading], curves: Mapping[str, Series] | None = None
) -> list[Reading]:
    """The readings of times and of the whole swing; with `curves`, also of events that nobody pegged."""
    clock = _Clock(record, curves or {})
    return [
        clock.tempo(),
        *(clock.since("start_times", part, "top", partial(clock.start, part)) for part in STARTS),
        clock.since("heel_return_lead", "top", "top", clock.heel_return),
        clock.since("heel_off_trail", "impact", "impact", clock.heel_off),
        clock.since("lead_knee_straight_time", "impact", "impact", clock.knee_straight),
        clock.since("post_time", "impact", "impact", clock.posted),
        going_back({(each.reading, each.at): each for each in found}),
        *farthest_back(found, curves or {}),
    ]


class _Clock:
    """Finds the times of one swing."""

    def __init__(self, record: SwingRecord, curves: Mapping[str, Series]) -> None:
        # Face-on first: its clip is the one that sequence is looked at in.
        self.clips = sorted(record.clips, key=lambda clip: clip.view != "face_on")
        self.curves = curves

    def tempo(self) -> Reading:
        clip = next((clip for clip in self.clips if "impact" in clip.checkpoints), None)
        start = None if clip is None else self._event(clip, "first_move") or self._peg(clip, "address")
        top = None if clip is None else self._peg(clip, "top")
        if clip is None or start is None or top is None:
            at: Checkpoint = "impact" if clip is None else "address" if start is None else "top"
            return _refused("tempo", "swing", f"Set the {spoken(at)} peg.", Need("peg", at, at))
        down = -top.at_s
        back = top.at_s - start.at_s
        if down <= 0 or back <= 0:
            return _refused("tempo", "swing", "The pegs are not in order: address, top, impact.")
        impact_sd = peg_sd_s(clip, clip.checkpoints["impact"])
        value = back / down
        sd = math.hypot(start.sd_s / down, top.sd_s * (1 + value) / down, impact_sd * value / down)
        return _given("tempo", "swing", value, sd, start, top)

    def since(self, reading: str, at: str, zero: Checkpoint, find: Callable[[], Moment | Reading]) -> Reading:
        """A time since the top or impact."""
        found = find()
        if isinstance(found, Reading):
            return found
        clip = next(clip for clip in self.clips if clip.id == found.clip)
        start = self._peg(clip, zero)
        if start is None:
            return _refused(reading, at, f"Set the {spoken(zero)} peg.", Need("peg", zero, zero))
        return _given(reading, at, found.at_s - start.at_s, math.hypot(found.sd_s, start.sd_s), found, start)

    def start(self, part: str) -> Moment | Reading:
        event, curve, least = STARTS[part]
        pegged = self._pegged(event)
        if pegged is not None:
            return pegged
        if part == "club":
            at_top = next((top for clip in self.clips if (top := self._peg(clip, "top"))), None)
            return at_top or _refused("start_times", part, "Set the top peg.", Need("peg", "top", "top"))
        seen = self.curves.get(curve)
        found = None if seen is None else self._turns_round(seen, least)
        return found or _refused("start_times", part, f"Set the event {spoken(event)}.", Need("peg", event))

    def heel_off(self) -> Moment | Reading:
        return self._crossing(
            "heel_off_trail", "impact", "trail_heel_off", "heel_lift_trail", HEEL_OFF_M, 1, "top"
        )

    def heel_return(self) -> Moment | Reading:
        return self._crossing(
            "heel_return_lead", "top", "lead_heel_down", "heel_lift_lead", HEEL_OFF_M, -1, "arm_back"
        )

    def knee_straight(self) -> Moment | Reading:
        return self._crossing(
            "lead_knee_straight_time",
            "impact",
            "lead_knee_straight",
            "knee_flex_lead",
            STRAIGHT_DEG,
            -1,
            "top",
        )

    def posted(self) -> Moment | Reading:
        return self._crossing("post_time", "impact", "post_reached", "post_gap", 0.0, -1, "top")

    def _crossing(
        self, reading: str, at: str, event: Event, curve: str, level: float, way: int, after: Checkpoint
    ) -> Moment | Reading:
        """The peg of an event, or when a reading first passes a level upward (1) or downward (−1)."""
        pegged = self._pegged(event)
        if pegged is not None:
            return pegged
        seen = self.curves.get(curve)
        if seen is None:
            words = f"Set the event {spoken(event)}, or mark it on the frames about it."
            return _refused(reading, at, words, Need("peg", event))
        from_s = self._time(after)
        found = passing(
            seen.times_s,
            (seen.values - level) * way,
            seen.u95 / NORMAL_95,
            -np.inf if from_s is None else from_s,
        )
        if isinstance(found, str):
            return _refused(reading, at, found)
        return Moment(found.at_s, found.sd_s, self.clips[0].id)

    def _turns_round(self, seen: Series, least: int) -> Moment | None:
        """When a reading is least or largest between lead arm level back and impact."""
        first = self._time("arm_back")
        found = turn_of(seen.times_s, seen.values * least, -np.inf if first is None else first, 0.0)
        return None if found is None else Moment(found.at_s, found.sd_s, self.clips[0].id)

    def _pegged(self, event: Event) -> Moment | None:
        return next((found for clip in self.clips if (found := self._event(clip, event))), None)

    def _event(self, clip: Clip, event: Event) -> Moment | None:
        frame = clip.events.get(event)
        at_s = None if frame is None else clip.time_from_impact_s(frame)
        return None if frame is None or at_s is None else Moment(at_s, peg_sd_s(clip, frame), clip.id, frame)

    def _peg(self, clip: Clip, at: Checkpoint) -> Moment | None:
        frame = clip.checkpoints.get(at)
        at_s = None if frame is None else clip.time_from_impact_s(frame)
        return None if frame is None or at_s is None else Moment(at_s, peg_sd_s(clip, frame), clip.id, frame)

    def _time(self, at: Checkpoint) -> float | None:
        found = self._peg(self.clips[0], at) if self.clips else None
        return found.at_s if found else None


def farthest_back(found: list[Reading], curves: Mapping[str, Series]) -> list[Reading]:
    """The pelvis's sway where it is farthest from the target before impact, of all frames that are marked."""
    before = CHECKPOINTS[: CHECKPOINTS.index("impact")]
    pegged = [each for each in found if each.reading == "pelvis_sway" and each.at in before]
    given = [each for each in pegged if each.value is not None]
    if not given:
        return [replace(pegged[0], at=EXTREME_BACK, clips=(), frames=())] if pegged else []
    least = min(given, key=lambda each: each.value or 0.0)
    curve = curves.get("pelvis_sway")
    if curve is not None:
        far = least_of(curve.times_s, curve.values, -np.inf, 0.0)
        if far is not None and far[1] < (least.value or 0.0):
            i, value = far
            frame = (int(curve.frames[i]),)
            least = replace(
                least,
                value=value,
                u95=float(curve.u95[i]),
                frames=frame,
                budget=(),
                largest_error="",
                provisional=True,  # on a frame that nobody looked at for it
            )
    return [replace(least, at=EXTREME_BACK)]


def peg_sd_s(clip: Clip, frame: int) -> float:
    """One standard deviation, seconds, of what is pegged on a frame: as likely at any time about it."""
    times = clip.frame_times_s
    step = (times[min(frame + 1, len(times) - 1)] - times[max(frame - 1, 0)]) / 2
    return step / math.sqrt(12)


def _given(reading: str, at: str, value: float, sd: float, *moments: Moment) -> Reading:
    kind = TIMED[reading]
    return Reading(
        reading,
        at,
        kind.unit,
        "ok",
        kind.method,
        value=value,
        u95=NORMAL_95 * sd,
        clips=tuple(dict.fromkeys(each.clip for each in moments)),
        frames=tuple(each.frame for each in moments if each.frame is not None),
        provisional=any(each.frame is None for each in moments),  # read off a curve, not pegged
        budget=(Share("time between frames", 1.0),),
    )


def _refused(reading: str, at: str, reason: str, *needs: Need) -> Reading:
    kind = TIMED[reading]
    return Reading(reading, at, kind.unit, "refused", kind.method, reason=reason, needs=needs)
