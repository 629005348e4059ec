"""When things happen in a stranger's swing: true times, and by how much readings of them miss."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from tests.strangers.filming import film
from tests.strangers.swing import Swing, T
from tests.strangers.trials import BOTH, Missed
from tropometer.swing.read import read
from tropometer.swing.readings.by_part.sequence import STARTS
from tropometer.swing.readings.curves import curves_of_marks, placed_on_frames
from tropometer.swing.readings.extremes import extremes
from tropometer.swing.readings.from_times import readings_of_times

Floats = npt.NDArray[np.float64]
STEP_S = 0.0005
RATE_HALF_S = 0.05
HEEL_OFF_M, STRAIGHT_DEG, POST_M = 0.01, 10.0, 0.18
GOES_ON_S = 0.12  # a part that starts goes forward for so long at least
CURVES = (
    *(start.curve for start in STARTS.values()),
    "heel_lift_trail",
    "knee_flex_lead",
    "post_gap",
)


def missed_times(seed: int, rate_hz: float) -> list[Missed]:
    """What is given of a stranger's swing with every frame marked, both sides and a mat."""
    filmed = film(BOTH, "mat", np.random.default_rng([9, seed]), rate_hz=rate_hz, everywhere=True)
    curves = {each.reading: each for each in curves_of_marks(placed_on_frames(filmed.record), CURVES)}
    true = true_times(filmed.swing)
    at_pegs = read(filmed.record).readings
    found = [*readings_of_times(filmed.record, curves), *extremes(at_pegs, curves)]
    return [
        Missed(each.reading, each.at, each.unit, each.value - true[each.reading, each.at], each.u95)
        for each in found
        if (each.reading, each.at) in true and each.value is not None and each.u95 is not None
    ]


def true_times(swing: Swing) -> dict[tuple[str, str], float]:
    """Seconds since the top or impact, and how far the pelvis goes back; what does not happen is not there.

    A start is where a part turns round, when it does so once: where it sways to and fro there is none.
    """
    at = swing.timing.checkpoints_s
    times = np.arange(at["arm_back"], at["impact"], STEP_S)
    found = {}
    for part, values in _forward(swing.places(times)).items():
        least = int(np.argmin(values))
        slopes = np.diff(values)
        after = slopes[least:][: int(GOES_ON_S / STEP_S)]
        inside = 0 < least < len(values) - GOES_ON_S / STEP_S
        if inside and (slopes[:least] <= 0).mean() > 0.97 and (after >= 0).mean() > 0.97:
            found["start_times", part] = float(times[least] - at["top"])
    later = np.arange(at["top"], at["finish"], STEP_S)
    address = np.array([at["address"]])
    places, still = swing.places(later), swing.places(address)
    lead = (places[f"lead_{part}"] for part in ("hip", "knee", "ankle"))
    edge = [swing.pelvis(when).edge("lead", np.tile(T, (len(when), 1)))[:, 0] for when in (later, address)]
    for reading, values in (
        ("heel_off_trail", places["trail_heel"][:, 2] - still["trail_heel"][0, 2] - HEEL_OFF_M),
        ("lead_knee_straight_time", STRAIGHT_DEG - _bend(*lead)),
        ("post_time", edge[0] - edge[1] - POST_M),
    ):
        passed = np.flatnonzero((values[:-1] < 0) & (values[1:] >= 0))
        if len(passed):
            found[reading, "impact"] = float(later[passed[0]] - at["impact"])
    beside_s = np.arange(-RATE_HALF_S, RATE_HALF_S + STEP_S / 2, STEP_S)
    beside = swing.places(at["impact"] + beside_s)
    for reading, place in (
        ("pelvis_forward_rate", (beside["lead_hip"] + beside["trail_hip"]) / 2),
        ("lead_knee_rate", beside["lead_knee"]),
    ):
        found[reading, "impact"] = float(np.polyfit(beside_s, place[:, 0], 1)[0])
    back = swing.places(np.arange(at["address"], at["impact"], STEP_S))
    sway = (back["lead_hip"] + back["trail_hip"])[:, 0] / 2
    return found | {("pelvis_sway", "extreme_back"): float(sway.min() - sway[0])}


def _forward(places: dict[str, Floats]) -> dict[str, Floats]:
    """What grows as each part goes forward."""
    arm = places["grip"] - places["lead_shoulder"]
    return {
        "lead_knee": places["lead_knee"][:, 0],
        "pelvis_shift": places["lead_hip"][:, 0] + places["trail_hip"][:, 0],
        "pelvis_turn": -_azimuth(places["lead_hip"] - places["trail_hip"]),
        "chest": -_azimuth(places["lead_shoulder"] - places["trail_shoulder"]),
        "lead_arm": -np.arctan2(np.hypot(arm[:, 0], arm[:, 1]), -arm[:, 2]),
    }


def _azimuth(line: Floats) -> Floats:
    return np.asarray(np.arctan2(line[:, 1], line[:, 0]))


def _bend(hip: Floats, knee: Floats, ankle: Floats) -> Floats:
    thigh, shank = knee - hip, ankle - knee
    long = np.linalg.norm(thigh, axis=1) * np.linalg.norm(shank, axis=1)
    return np.asarray(np.degrees(np.arccos(np.sum(thigh * shank, axis=1) / long)))
