"""Months before the demo's clips: swings that were measured on the range and whose clips nobody kept.

They are in the log alone. Their values are invented: each reading goes from one point of a story to the next,
and single swings scatter about it as is typical (teaching/book/scatter.json).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from itertools import pairwise
from random import Random

from tropometer.server.demo.answers import Answer, about
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.over_time.typical import typical_scatter

NOT_KEPT = "Measured on the range; the clip was not kept."
BY_DAY = 0.5  # of the scatter within a day, what days differ by here
Way = tuple[tuple[float, float], ...]  # days ago, and the value then; between them it goes straight


@dataclass(frozen=True)
class Months:
    """What was measured of a student: days ago with how many swings, and the way of every reading."""

    days: tuple[tuple[float, int], ...]
    ways: Mapping[Key, Way]
    u95: Mapping[Key, float]
    lessons: Mapping[float, Answer] = field(default_factory=dict)  # by the days ago of the swing it answers
    club: str = "7 iron"


def value_on(way: Way, days_ago: float) -> float:
    """Where a reading stands on a day."""
    if days_ago >= way[0][0]:
        return way[0][1]
    for (earlier, then), (later, now) in pairwise(way):
        if days_ago >= later:
            return then + (now - then) * (earlier - days_ago) / (earlier - later)
    return way[-1][1]


def swings_of(name: str, months: Months) -> list[tuple[float, dict[Key, tuple[float, float]]]]:
    """Each swing's days ago, and what was read of it with its u95; the same every time."""
    luck = Random(name)
    found = []
    for days_ago, count in months.days:
        day = {key: luck.gauss(0, BY_DAY * typical_scatter(key[0]).within) for key in months.ways}
        for number in range(count):
            read = {
                key: (
                    value_on(way, days_ago) + day[key] + luck.gauss(0, typical_scatter(key[0]).within),
                    months.u95[key],
                )
                for key, way in months.ways.items()
            }
            found.append((days_ago - number * 0.004, read))
    return found


MONTHS: dict[str, Months] = {
    "Tobin Farrow": Months(
        days=((331, 3), (296, 4), (268, 4), (239, 3), (204, 4), (171, 4), (140, 3), (112, 5), (84, 4), (57, 4), (16, 4)),
        ways={
            ("pelvis_sway", "top"): ((331, -0.135), (204, -0.118), (33, -0.124), (0, -0.05)),
            ("pelvis_turn", "top"): ((331, 31.0), (268, 40.0), (140, 45.0), (0, 46.0)),
            ("shoulder_turn", "top"): ((331, 70.0), (33, 72.0), (0, 82.0)),
            ("pelvis_sway", "impact"): ((331, 0.0), (204, 0.004), (0, 0.008)),
            ("knee_flex_trail", "top"): ((331, 14.0), (0, 17.0)),
            ("stance_ratio", "address"): ((331, 1.42), (239, 1.2), (0, 1.18)),
            ("tempo", "swing"): ((331, 3.6), (0, 3.1)),
        },
        u95={
            ("pelvis_sway", "top"): 0.013,
            ("pelvis_turn", "top"): 4.5,
            ("shoulder_turn", "top"): 5.5,
            ("pelvis_sway", "impact"): 0.014,
            ("knee_flex_trail", "top"): 4.0,
            ("stance_ratio", "address"): 0.06,
            ("tempo", "swing"): 0.3,
        },
        lessons={
            331: Answer(
                "You turn your arms and not your hips. Let the belt go with the shoulders, slowly at first.",
                (about("restricted_turn", "Your hips stop early going back.", "flare_a_notch", "five, every other day"),),
                goals={"restricted_turn": ("pelvis_turn", "top", 38.0, 55.0)},
                then={"restricted_turn": (31.0, 4.5)},
            ),
            204: Answer(
                "The turn is yours now. Next: be over your left foot when you hit it.",
                (about("hangs_back", "You are still on your right foot when you hit it.", "stick_by_the_hip", "ten, three days a week"),),
                goals={"hangs_back": ("pelvis_sway", "impact", 0.02, 0.12)},
                then={"hangs_back": (0.004, 0.014)},
            ),
        },
    ),
    "Dag Penhale": Months(
        days=((322, 3), (280, 3), (231, 4), (190, 3), (150, 4), (118, 4), (80, 3), (54, 4), (12, 3)),
        ways={
            ("knee_flex_trail", "top"): ((322, 16.0), (150, 11.0), (31, 10.0), (0, 17.0)),
            ("pelvis_turn", "top"): ((322, 46.0), (0, 43.0)),
            ("spine_incline", "impact"): ((322, 30.0), (0, 31.0)),
            ("tempo", "swing"): ((322, 2.9), (0, 2.9)),
        },
        u95={
            ("knee_flex_trail", "top"): 4.5,
            ("pelvis_turn", "top"): 4.5,
            ("spine_incline", "impact"): 3.0,
            ("tempo", "swing"): 0.3,
        },
    ),
}  # fmt: skip
