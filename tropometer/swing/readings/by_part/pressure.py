"""What a pressure plate feels under the feet."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from tropometer.swing.readings.felt import Channel, Felt
from tropometer.swing.readings.from_plate import felt_by_plate, from_plate
from tropometer.swing.readings.from_times import FROM_IMPACT, FROM_TOP
from tropometer.swing.readings.reading import Given, Need, Refused
from tropometer.swing.record.plate import STANDING_N

ON_FOOT_N = 25.0  # with less a foot has no place of pressure worth telling
TOE, OUTER = 0, 1
ALONG, ACROSS = "0 at the heel, 1 at the toe", "0 at the inner edge, 1 at the outer"


@felt_by_plate("pressure_lead_share", sign="1 is all on the lead foot")
def pressure_lead_share(felt: Felt) -> Channel:
    """Force under the lead foot, by that under both."""
    return Channel(values=felt.share, sd=felt.share_sd, force=felt.total, least_n=STANDING_N)


@felt_by_plate("cop_lead_toe", sign=ALONG)
def cop_lead_toe(felt: Felt) -> Channel:
    """Where along the lead shoe the pressure is centred."""
    return _centre(felt, "lead", TOE)


@felt_by_plate("cop_lead_outer", sign=ACROSS)
def cop_lead_outer(felt: Felt) -> Channel:
    """Where across the lead shoe the pressure is centred."""
    return _centre(felt, "lead", OUTER)


@felt_by_plate("cop_trail_toe", sign=ALONG)
def cop_trail_toe(felt: Felt) -> Channel:
    """Where along the trail shoe the pressure is centred."""
    return _centre(felt, "trail", TOE)


@felt_by_plate("cop_trail_outer", sign=ACROSS)
def cop_trail_outer(felt: Felt) -> Channel:
    """Where across the trail shoe the pressure is centred."""
    return _centre(felt, "trail", OUTER)


@from_plate("pressure_peak_trail", unit="ratio", at="swing", sign="1 is all on the trail foot")
def pressure_peak_trail(felt: Felt) -> Given:
    """Largest share under the trail foot before impact."""
    least = felt.least()
    return felt.given(1 - felt.smooth[least], by_plate=felt.smooth_sd[least])


@from_plate("pressure_peak_trail_time", unit="s", at="top", sign=FROM_TOP)
def pressure_peak_trail_time(felt: Felt) -> Given:
    """When the largest share is under the trail foot, from the top."""
    least = felt.least()
    if "top" not in felt.clip.checkpoints:
        raise Refused("Set the top peg.", Need("peg", "top", "top"))
    top, sd_s = felt.moment("top")
    # A flat peak may lie at any sample that the force's error does not tell from it: two such differ by √2
    # standard deviations, and two of those are looked at.
    alike = felt.smooth <= felt.smooth[least] + 2 * math.sqrt(2) * felt.smooth_sd[least]
    first = least - int(np.argmin(alike[least::-1])) if not alike[: least + 1].all() else 0
    after = alike[least:]
    last = least + (int(np.argmin(after)) if not after.all() else len(after) - 1)
    wide = float(felt.plate.times_s[last] - felt.plate.times_s[first])
    value = float(felt.plate.times_s[least]) - top
    return felt.given(value, by_time=math.hypot(wide / math.sqrt(12), sd_s))


@from_plate("pressure_cross_time", unit="s", at="impact", sign=FROM_IMPACT)
def pressure_cross_time(felt: Felt) -> Given:
    """When the lead foot first has half of the force after the trail foot had most, from impact."""
    least = felt.least()
    over = np.flatnonzero(felt.smooth[least:] >= 0.5)
    if felt.smooth[least] >= 0.5:
        raise Refused("The trail foot never has half of the force.")
    if not len(over):
        raise Refused("The lead foot never takes half of the force after that.")
    after = least + int(over[0])
    (a, b), (t0, t1) = felt.smooth[after - 1 : after + 1], felt.plate.times_s[after - 1 : after + 1]
    value = float(t0 + (0.5 - a) / (b - a) * (t1 - t0)) - felt.plate.impact_s
    by_force = float(felt.smooth_sd[after] * (t1 - t0) / (b - a))
    return felt.given(value, by_time=felt.plate.impact_sd_s, by_plate=by_force)


def _centre(felt: Felt, side: Literal["lead", "trail"], axis: int) -> Channel:
    """Where under a foot its pressure is centred, along or across the shoe."""
    place = felt.plate.lead_place if side == "lead" else felt.plate.trail_place
    if place is None:
        raise Refused(f"The plate does not say where under the {side} foot the pressure is.")
    force = felt.plate.lead_force_n if side == "lead" else felt.plate.trail_force_n
    return Channel(
        values=place[:, axis], sd=np.full(len(place), felt.plate.place_sd), force=force, least_n=ON_FOOT_N
    )
