"""Measures how far the close network's landmarks lie from their marks through the swing: the made-up golfers.

    PYTHONPATH=. python -m ops.close_offsets

Both networks look at every demo clip, and at six golfers of either hand drawn from behind and up the line;
it writes tropometer/swing/proposals/close_offsets.py. Golfer by golfer what the others' offsets leave is
counted: what stays through a clip, and what is left on its frames.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from tropometer.golfer.cast import TAKES, Take
from tropometer.golfer.clips import body_of, frame_times_s, truth
from tropometer.golfer.footage import Footage
from tropometer.golfer.motion import Motion
from tropometer.swing.names import VIEWS, View
from tropometer.swing.proposals import close_offsets
from tropometer.swing.proposals.landmarks import RIGHTWARD, Landmarks
from tropometer.swing.proposals.marks import BESIDE_CHECKPOINTS, bases, checkpoint_weights
from tropometer.swing.proposals.offsets import OFFSETS
from tropometer.video.landmarks import CLOSE, LandmarkFinder

Array = npt.NDArray[np.float64]
Key = tuple[View, str]

MODELS = Path(__file__).parents[1] / "var" / "models"
OTHER_SIDES: dict[View, float] = {"from_behind": 1.1, "up_the_line": 0.95}  # and the phone's height, metres
FROM_OTHER_SIDES = (
    "tobin_first_face", "ilse_face", "dag_month_face", "petra_closed_face", "model_lead_face",
    "lorne_driver_face",
)  # fmt: skip
NORMAL_95 = 1.96
HUBER, ROUNDS, FAR = 1.5, 8, 0.4  # of the fit: robust against landmarks that went astray

HEAD = '''"""How far the close network's landmarks lie from their marks at each checkpoint, and their spread.

Written by ops/close_offsets.py from the made-up golfers. In torso lengths: one standard deviation that is
the same on all frames of a clip, and one that is not; then at the nine checkpoints toward the lead or the
ball's side and down.
"""

from tropometer.swing.names import View

Aside = tuple[float, float]
Nine = tuple[Aside, Aside, Aside, Aside, Aside, Aside, Aside, Aside, Aside]

# What is missed at the checkpoints, after the spreads of what is shared by a clip's frames and of each one's.
CLOSE_OFFSETS: dict[tuple[View, str], tuple[float, float, Nine]] = {
'''


@dataclass(frozen=True)
class Missed:
    """Of one golfer: how much each frame is each checkpoint's (n, 9), and what a mark is missed by (n, 2)."""

    golfer: str
    weights: Array
    by: Array


def takes() -> Iterator[Take]:
    """All that is looked at."""
    yield from TAKES
    for name in FROM_OTHER_SIDES:
        take = next(each for each in TAKES if each.name == name)
        for view, height_m in OTHER_SIDES.items():
            yield replace(take, camera=replace(take.camera, view=view, height_m=height_m))


def missed_in(take: Take) -> dict[Key, Missed]:
    """What the close network misses each mark by between address and finish, torso lengths."""
    motion = Motion(body_of(take.person), take.settings)
    times = frame_times_s(take, motion)
    footage = Footage(motion, take.camera, take.person.colours, take.film)
    known = truth(take, motion, times)
    pegs = known["checkpoints"]
    first = max(pegs["address"] - BESIDE_CHECKPOINTS, 0)
    frames = range(first, min(pegs["finish"] + BESIDE_CHECKPOINTS, len(times) - 1) + 1)
    fast, close = LandmarkFinder(MODELS), LandmarkFinder(MODELS, CLOSE)
    points, outlines = np.full((len(frames), 33, 3), np.nan), np.full((len(frames), 8, 2), np.nan)
    for i, frame in enumerate(frames):
        picture = footage.picture(float(times[frame]), frame)
        found = fast.find(picture)
        body = close.find_in(picture, found.square) if found else None
        if body is not None:
            points[i], outlines[i] = body.landmarks, body.outline
    seen = Landmarks(times[list(frames)] - times[first], points, outlines)
    view: View = known["view"]
    way = np.array([RIGHTWARD[view] * (1 if known["hand"] == "right" else -1), 1.0])
    weights = checkpoint_weights(np.array(frames), pegs)
    return {
        (view, name): Missed(
            take.name.split("_")[0], weights, (base - _true(known, name, frames)) / seen.torso_px * way
        )
        for name, base in bases(seen, view, known["hand"]).items()
        if name in known["pixels"] and (view, name) in OFFSETS
    }


def _true(known: dict[str, Any], name: str, frames: range) -> Array:
    return np.array(known["pixels"][name], float)[list(frames)]


def fitted(golfers: list[Missed]) -> Array:
    """What is missed at each checkpoint (9, 2), straight between them: Huber's M-estimate, reweighted."""
    seen = [np.isfinite(each.by).all(axis=1) for each in golfers]
    design = np.concatenate([each.weights[ok] for each, ok in zip(golfers, seen, strict=True)])
    by = np.clip(np.concatenate([each.by[ok] for each, ok in zip(golfers, seen, strict=True)]), -FAR, FAR)
    counts = np.ones(len(by))
    found = np.zeros((design.shape[1], 2))
    for _ in range(ROUNDS):
        weighted = design.T * counts
        found = np.linalg.solve(weighted @ design + 1e-6 * np.eye(design.shape[1]), weighted @ by)
        left = np.linalg.norm(by - design @ found, axis=1)
        counts = 1 / np.maximum(1, left / (HUBER * (1.48 * np.median(left) + 1e-6)))
    return found


def spreads(name: str, golfers: list[Missed]) -> tuple[float, float]:
    """What stays through a clip and what is left on frames, each golfer by what the others tell."""
    stays, left = [], []
    for who in {each.golfer for each in golfers}:
        others = fitted([each for each in golfers if each.golfer != who])
        for each in golfers:
            if each.golfer == who:
                by = each.by - each.weights @ others
                by = by[np.isfinite(by).all(axis=1)]
                if len(by):
                    stays.append(np.median(by, axis=0))
                    left.append(by - stays[-1])
    # A hip's edge has the spread across the outline: its height is not what is read from it.
    axes = [0] if name.endswith("hip_edge") else [0, 1]
    shared = np.sqrt(np.mean(np.square(stays), axis=0))[axes].max()
    own = np.quantile(np.abs(np.concatenate(left)), 0.95, axis=0)[axes].max() / NORMAL_95
    return float(shared), float(own)


def main() -> None:
    """Look at all, and write the table."""
    missed: dict[Key, list[Missed]] = {}
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for of_take in pool.map(missed_in, takes()):
            for key, each in of_take.items():
                missed.setdefault(key, []).append(each)
    rows = []
    for view in VIEWS:
        for name in sorted(name for of, name in missed if of == view):
            golfers = missed[view, name]
            if not any(np.isfinite(each.by).all(axis=1).any() for each in golfers):
                continue
            shared, own = spreads(name, golfers)
            at = ", ".join(f"({a:.3f}, {b:.3f})" for a, b in (fitted(golfers) + 0.0).tolist())
            rows.append(f'    ("{view}", "{name}"): ({shared:.3f}, {own:.3f}, ({at})),\n')
    Path(close_offsets.__file__).write_text(HEAD + "".join(rows) + "}\n")


if __name__ == "__main__":
    main()
