"""Verdicts on strangers: what is claimed of a swing, and whether it holds on the true readings."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, replace
from unittest.mock import patch

import numpy as np

from tests.strangers import swing as strangers
from tests.strangers.body import draw_body
from tests.strangers.filming import film
from tests.strangers.injected import INJECTED, over_the_ball, with_fault
from tests.strangers.swing import Swing, draw_swing
from tests.strangers.trials import SET_UPS, SetUp, true_readings
from tropometer.swing.names import ClubClass
from tropometer.swing.read import read
from tropometer.swing.record.swing import POST_M
from tropometer.teaching.judge import Judgement, judge
from tropometer.teaching.judging.asked import Swung, asked_of, post_of
from tropometer.teaching.judging.findings import applies
from tropometer.teaching.judging.holding import holds
from tropometer.teaching.judging.population import Population
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.fault import Fault
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.rule import conditions
from tropometer.teaching.knowledge.teaching_model import TeachingModel

TRIES = 200
CLUBS: dict[str, ClubClass] = {"wedge": "wedge", "mid_iron": "iron", "driver": "driver"}


@dataclass(frozen=True, kw_only=True)
class Verdict:
    """What was said of a fault in one swing, and whether its rule holds on the true readings."""

    fault: str
    certainty: float
    is_seen: bool
    is_claimed: bool
    is_shown: bool
    is_root: bool
    truly: bool


def verdicts(
    set_up: SetUp,
    seed: list[int],
    population: Population | None,
    change: Callable[[Swing, np.random.Generator], Swing],
    model_id: str | None = None,
) -> list[Verdict]:
    """What a model (or a random one) says of one stranger, changed before being filmed."""
    book, random = shipped(), np.random.default_rng(seed)
    views, scale = SET_UPS[set_up]
    filmed = film(views, scale, random, change=lambda swing: change(swing, random))
    ids = list(book.models)
    model = book.models[model_id or ids[random.integers(len(ids))]]
    club = CLUBS[filmed.swing.club]
    record = replace(
        filmed.record,
        club_class=club,
        swing_length="full",
        post_m=post_of(book, model) or filmed.record.post_m,
    )
    judged = judge(read(record), book, model, population=population)
    true = true_values(filmed.swing, record.post_m)
    roots = {root.fault for root in judged.chain.roots}
    return list(_compared(book, judged, true, roots))


def true_values(swing: Swing, post_m: float = POST_M) -> dict[Key, np.ndarray]:
    """True readings, each as a row of one; the post mark stands where the model wants it."""
    found = {
        key: np.array([value]) for key, value in true_readings(swing).items() if isinstance(value, float)
    }
    return {key: value + (post_m - POST_M if key[0] == "post_gap" else 0) for key, value in found.items()}


def _compared(
    book: Book, judged: Judgement, true: Mapping[Key, np.ndarray], roots: set[str]
) -> Iterator[Verdict]:
    for found in judged.findings:
        seen = {
            key
            for witness in found.witnesses
            if witness.value is not None
            for key in _keys(book.faults[found.fault], witness.reading, witness.at)
        }
        if not seen <= true.keys():
            continue
        values = {key: true[key] for key in seen}
        held = holds(book.faults[found.fault].evidence, values, judged.asked.bands)
        yield Verdict(
            fault=found.fault,
            certainty=found.certainty,
            is_seen=found.verdict != "cannot_be_seen",
            is_claimed=found.is_active,
            is_shown=found.verdict == "shown",
            is_root=found.fault in roots,
            truly=bool(held.least[0]),
        )


def _keys(fault: Fault, reading: str, at: str) -> set[Key]:
    return {
        key
        for condition in conditions(fault.evidence)
        if condition.key == (reading, at)
        for key, _ in condition.terms
    }


def with_some_faults(swing: Swing, random: np.random.Generator) -> Swing:
    """Up to three faults at random shares."""
    for fault in random.choice(list(INJECTED), size=random.integers(4), replace=False):
        swing = with_fault(swing, str(fault), float(random.uniform(0.1, 1.0)))
    return swing


SOUND: dict[str, strangers.Keys] = {
    "sway": ((0, -0.008, -0.02, -0.03, 0.065, 0.085, 0.104, 0.11, 0.14), (0, *[0.004] * 8)),
    "push": ((0, -0.012, -0.024, -0.034, -0.03, -0.025, -0.02, 0.0, 0.07), (0, *[0.004] * 8)),
    "turn": ((0, 13, 32, 47, 14, -12, -40, -54, -95), (1.5,) * 9),
    "slant": ((1, -1, -5, -8, 1, 5, 9, 8, 3), (1.0,) * 9),
    "rise": ((0, -0.004, -0.014, -0.027, -0.035, -0.02, 0.01, 0.03, 0.04), (0, *[0.003] * 8)),
    "side": ((6, 5, 4, 4, 8, 12, 17, 18, 0), (1.2,) * 9),
    "incline": ((0, 0, 1, 2, 1, 1, 0, -6, -30), (0, *[1.2] * 8)),
    "chest": ((0, 22, 60, 92, 45, 15, -24, -55, -115), (2.5,) * 9),
    "trail_roll": ((0, 0, 0, 0, 8, 15, 20, 20, 12), (0, *[1.0] * 8)),
    "lead_knee_out": ((0, -12, -20, -28, -8, 0, 4, 8, 8), (2.0,) * 9),
    "lead_spin": ((0, 0, 0, 0, 0, 0, 2, 6, 18), (0, *[1.5] * 8)),
    "trail_heel": ((0, 0, 0, 0, 0.004, 0.012, 0.035, 0.06, 0.16), (0, 0, 0, 0, *[0.003] * 5)),
    "shaft": ((2, -90, -165, -268, -185, -92, -4, 90, 250), (2, 2, 5, 5, 5, 3, 3, 3, 8)),
}  # fmt: skip


@contextmanager
def sound_golfers() -> Iterator[None]:
    """Within it, golfers that are drawn are sound ones of the loaded school, each a little their own."""
    with (
        patch.dict(strangers.KEYS, SOUND),
        patch.object(strangers, "HEEL_LIFTERS", 0.0),
        patch.dict(
            strangers.CLUB_STANCE, {"wedge": (0.9, 0.04), "mid_iron": (1.12, 0.05), "driver": (1.35, 0.05)}
        ),
    ):
        yield


def set_up_soundly(swing: Swing) -> Swing:
    """What the strangers draw wide at set-up, brought into the middle of what is asked."""
    half = swing.stance["lead_heel_t"]
    balls = {"wedge": -0.1, "mid_iron": 0.17, "driver": 0.72}
    stood = {
        **swing.stance,
        "pelvis_t": 0.022,
        "lead_flare": 20.0,
        "trail_flare": 16.0,
        "lead_heel_b": -half * np.tan(np.radians(1.0)),
        "trail_heel_b": half * np.tan(np.radians(1.0)),
        "incline": {"wedge": 38.0, "mid_iron": 35.0, "driver": 29.0}[swing.club],
        "hands_t": balls[swing.club] * half,
        "plane": min(swing.stance["plane"], 55.0),
    }
    return over_the_ball(replace(swing, stance=stood))


def sound_seed(seed: list[int], model: TeachingModel) -> list[int]:
    """The first seed after one with which a golfer is drawn whom no rule of a model truly faults."""
    for tried in range(TRIES):
        random = np.random.default_rng([*seed, tried])
        swing = set_up_soundly(draw_swing(draw_body(random), random))
        if not any(truly_has(shipped(), model, swing, fault) for fault in shipped().faults.values()):
            return [*seed, tried]
    raise RuntimeError(f"no sound golfer after {seed}")


def truly_has(book: Book, model: TeachingModel, swing: Swing, fault: Fault) -> bool:
    """Whether a fault's rule holds on a swing's true readings."""
    swung = Swung(club=CLUBS[swing.club], length="full")
    asked = asked_of(book, model, swung)
    values = true_values(swing, post_of(book, model) or POST_M)
    judged = applies(fault, model, swung, asked.bands)
    return judged and bool(holds(fault.evidence, values, asked.bands).least[0])
