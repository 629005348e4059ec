"""Writes how made-up golfers' marks lie: swing/scene/usual_places.py and swing/doubts/usual_swings.py.

Every school, with up to three faults of any degree and manners of its own, with every club, by bodies of both
sexes: common practice, no source.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np

from tropometer.golfer.body import build
from tropometer.golfer.events import Timing, timing
from tropometer.golfer.faults import FAULTS, with_faults
from tropometer.golfer.motion import Motion
from tropometer.golfer.rotations import Floats
from tropometer.golfer.schools import SCHOOLS, driver, wedge
from tropometer.golfer.settings import EVENTS, KEYED, SwingSettings
from tropometer.golfer.truth_marks import Marks, mark_places
from tropometer.golfer.usual_swings import text_of
from tropometer.swing.doubts.body import NAMES
from tropometer.swing.names import CHECKPOINTS, MARKS
from tropometer.swing.scene.hangs_on import HANGS_ON

GOLFERS = 400
OF_PLACES = 120  # so many of them do for where single marks are
TRIES = 30  # manners that no body can take are drawn again
STEP_S = 0.004
# One standard deviation of a golfer's manners, shares of a setting's range: the same at all events, and anew
# at each; and how the single settings differ.
ALWAYS, THEN, SINGLE = 0.06, 0.03, 0.08
SINGLES = (
    "stance_ratio",
    "lead_flare",
    "trail_flare",
    "toe_line",
    "ball_position",
    "pelvis_back",
    "arm_hang",
)
TIPS = ("spine_incline", "head_tilt", "side_tilt", "pelvis_turn", "chest_turn")  # at address too
# Marks that one view may lack: where what they hang on is seen, their depth is taken from there.
LACKED = (
    "lead_hip_edge",
    "trail_hip_edge",
    "seat",
    "sternum",
    "head",
    "grip_butt",
    "lead_foot_outer",
    "lead_foot_inner",
    "trail_foot_outer",
    "trail_foot_inner",
)
HEAD = '''"""Where each mark usually is at each checkpoint, how golfers differ there, and how fast it goes.

Written by `./tropo golfer --usual` from {count} made-up golfers of every school, fault and club: common
practice, no source. In shares of stature, at the nine checkpoints in order.
"""

Eight = tuple[float, float, float, float, float, float, float, float]
Four = tuple[float, float, float, float]

# T, B, U from the middle between the heels at address; their change a second; one standard deviation along
# T and B.
USUAL: dict[str, tuple[Eight, ...]] = {{
'''
KEPT_HEAD = """}

# How much of that variance along T and B a golfer has at all checkpoints alike.
KEPT: dict[str, tuple[float, float]] = {
"""
HANGING_HEAD = """}

# What a mark hangs on, and how far along T and B it lies from the middle of that, with one standard deviation
# of either.
HANGING: dict[str, tuple[tuple[str, ...], tuple[Four, ...]]] = {
"""


def write_usual(places_file: Path, swings_file: Path) -> None:
    """Draw the golfers and write the tables."""
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        found = list(pool.map(_one, range(GOLFERS)))
    places = {name: np.array([places[name] for places, _ in found]) for name in sorted(MARKS)}
    speeds = {name: np.array([speeds[name] for _, speeds in found]) for name in sorted(MARKS)}
    of_one = {name: where[:OF_PLACES] for name, where in places.items()}
    places_file.write_text("".join(_text(of_one, {n: each[:OF_PLACES] for n, each in speeds.items()})))
    swings_file.write_text("".join(text_of(np.stack([places[name] for name in NAMES], axis=1))))


def _text(places: dict[str, Floats], speeds: dict[str, Floats]) -> Iterator[str]:
    yield HEAD.format(count=OF_PLACES)
    for name, where in places.items():
        differ = where[..., :2].std(axis=0)
        rows = np.concatenate([where.mean(axis=0), speeds[name].mean(axis=0), differ], axis=1)
        yield f'    "{name}": ({_rows(rows)}\n    ),\n'
    yield KEPT_HEAD
    for name, where in places.items():
        beside = (where - where.mean(axis=0))[..., :2]
        shares = beside.mean(axis=1).var(axis=0) / np.maximum(beside.var(axis=0).mean(axis=0), 1e-9)
        yield f'    "{name}": ({shares[0]:.2f}, {shares[1]:.2f}),\n'
    yield HANGING_HEAD
    for name in LACKED:
        parents = tuple(parent for parent, share in HANGS_ON[name].items() if share > 0)
        from_it = (places[name] - np.mean([places[each] for each in parents], axis=0))[..., :2]
        rows = np.concatenate([from_it.mean(axis=0), from_it.std(axis=0)], axis=1)
        yield f'    "{name}": ({parents!r}, ({_rows(rows)}\n    )),\n'.replace("'", '"')
    yield "}\n"


def _rows(rows: Floats) -> str:
    return "".join("\n        (" + ", ".join(f"{each:.3f}" for each in row) + ")," for row in rows)


def _one(number: int) -> tuple[Marks, Marks]:
    """Places and velocities (9, 3) of one golfer's marks, T, B, U in statures."""
    stature, _, motion, when = drawn(number)
    times = np.array([when.checkpoints[at] for at in CHECKPOINTS])
    three = [mark_places(motion, motion.poses(times + step)) for step in (-STEP_S, 0.0, STEP_S)]
    axes = [0, 2, 1]
    places = {name: where[:, axes] / stature for name, where in three[1].items()}
    speeds = {name: (three[2][name] - three[0][name])[:, axes] / (2 * STEP_S * stature) for name in three[1]}
    return places, speeds


def drawn(number: int) -> tuple[float, float, Motion, Timing]:
    """One of the golfers: stature, 1 for a man and 0 for a woman, and a swing of theirs."""
    random = np.random.default_rng(number)
    stature, man = float(random.uniform(1.5, 1.95)), float(random.integers(2))
    body = build(stature, man, float(random.uniform(-0.6, 0.8)))
    for _ in range(TRIES):
        try:
            motion = Motion(body, _settings(random))
            return stature, man, motion, timing(motion)
        except ValueError:
            continue
    raise RuntimeError(f"no swing of golfer {number} can be made")


def _settings(random: np.random.Generator) -> SwingSettings:
    settings = list(SCHOOLS.values())[random.integers(len(SCHOOLS))]()
    club = random.integers(3)
    settings = wedge(settings) if club == 0 else driver(settings) if club == 1 else settings
    names = random.choice(list(FAULTS), size=random.integers(4), replace=False)
    settings = with_faults(settings, **{str(name): float(random.uniform(0.2, 1.0)) for name in names})
    changed: dict[str, Any] = {}
    fields = settings.__dataclass_fields__
    for name in SINGLES:
        low, high = (fields[name].metadata[end] for end in ("low", "high"))
        drawn = getattr(settings, name) + random.normal(0, SINGLE * (high - low))
        changed[name] = float(np.clip(drawn, low, high))
    for name in KEYED:
        low, high = (fields[name].metadata[end] for end in ("low", "high"))
        keys = np.array(getattr(settings, name))
        own = ALWAYS * random.normal() + THEN * random.normal(size=len(EVENTS))
        own[0] *= name in TIPS
        # What nobody does at some events (a heel that stays down) is not done a little.
        changed[name] = tuple(np.clip(keys + own * (high - low) * _done(keys), low, high))
    return settings.but(**changed)


def _done(keys: Floats) -> Floats:
    return np.ones(len(keys)) if keys.all() else (keys != 0).astype(float)
