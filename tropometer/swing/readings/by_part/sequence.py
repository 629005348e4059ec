"""The order of the swing: when each part starts toward the target, and how long it takes back and down."""

from __future__ import annotations

from tropometer.swing.names import Event
from tropometer.swing.readings.clock import Clock, Instant, TurningPoint, given
from tropometer.swing.readings.from_times import FROM_TOP, from_times
from tropometer.swing.readings.reading import Given, Need, Refused

# What shows that a part starts forward: where it is least, or largest.
STARTS: dict[str, TurningPoint] = {
    "lead_knee": TurningPoint(event="lead_knee_start", curve="lead_knee_travel_t", least=1),
    "pelvis_shift": TurningPoint(event="pelvis_shift_start", curve="pelvis_sway", least=1),
    "pelvis_turn": TurningPoint(event="pelvis_turn_start", curve="pelvis_turn", least=-1),
    "chest": TurningPoint(event="chest_start", curve="shoulder_turn", least=-1),
    "lead_arm": TurningPoint(event="lead_arm_start", curve="lead_arm_raise", least=-1),
}
CLUB = "club"
CLUB_START: Event = "club_start"


@from_times("tempo", unit="to_one", group="sequence", at=("swing",),
            sign="3 is three times as long back as down")  # fmt: skip
def tempo(clock: Clock, at: str) -> Given:
    """Time from the first move to the top, by the time from the top to impact."""
    clip = clock.of_impact()
    start = clock.event("first_move", clip) or clock.peg("address", clip)
    top, impact = clock.peg("top", clip), clock.peg("impact", clip)
    back, down = top.seconds - start.seconds, impact.seconds - top.seconds
    if back.value <= 0 or down.value <= 0:
        raise Refused("The pegs are not in order: address, top, impact.")
    return given(back / down, start, top)


@from_times("start_times", unit="s", group="sequence", at=(*STARTS, CLUB), sign=FROM_TOP)
def start_times(clock: Clock, at: str) -> Given:
    """When each part starts toward the target, from the top."""
    return clock.since("top", _club(clock) if at == CLUB else clock.turning_point(STARTS[at]))


def _club(clock: Clock) -> Instant:
    """The club's start, or else the top, which is where it turns."""
    pegged = clock.pegged(CLUB_START)
    if pegged is not None:
        return pegged
    for clip in clock.clips:
        if {"top", "impact"} <= clip.checkpoints.keys():
            return clock.peg("top", clip, of=CLUB_START)
    raise Refused("Set the top peg.", Need("peg", "top", "top"))
