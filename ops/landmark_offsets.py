"""Measures how far landmarks lie from their marks through the swing, on the made-up golfers.

    PYTHONPATH=. python -m ops.landmark_offsets

Both networks look at every demo clip, and at six golfers of either hand drawn from behind and up the line;
it writes tropometer/swing/proposals/measured_offsets.py. Golfer by golfer what the others' offsets leave is
counted: what stays through a clip, and what is left on its frames.
"""

from __future__ import annotations

import gzip
import json
import os
from collections.abc import Iterable, Iterator
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
from tropometer.golfer.renderer import Picture
from tropometer.swing.names import VIEWS, View
from tropometer.swing.proposals import measured_offsets
from tropometer.swing.proposals.landmarks import RIGHTWARD, Landmarks
from tropometer.swing.proposals.marks import BESIDE_CHECKPOINTS, bases, checkpoint_weights
from tropometer.swing.proposals.offsets import Network
from tropometer.video.landmarks import CLOSE, Body, LandmarkFinder
from tropometer.video.proxy import upright_frames

Array = npt.NDArray[np.float64]
Key = tuple[Network, View, str]

CLIPS = Path(__file__).parents[1] / "demo" / "clips"
MODELS = Path(__file__).parents[1] / "var" / "models"
OTHER_SIDES: dict[View, float] = {"from_behind": 1.1, "up_the_line": 0.95}  # and the phone's height, metres
FROM_OTHER_SIDES = (
    "tobin_first_face", "ilse_face", "dag_month_face", "petra_closed_face", "model_lead_face",
    "lorne_driver_face",
)  # fmt: skip
# Too little of these is told: they are proposed from other sides.
LEFT_OUT: dict[View, tuple[str, ...]] = {
    "face_on": ("grip_butt", "seat"),
    "down_the_line": (),
    "from_behind": (
        "sternum", "grip_butt", "seat", "lead_toe", "trail_toe", "lead_foot_inner", "trail_foot_inner",
    ),
    "up_the_line": ("sternum", "grip_butt", "lead_foot_outer", "trail_foot_outer"),
}  # fmt: skip
NORMAL_95 = 1.96
HUBER, ROUNDS, FAR = 1.5, 8, 0.4  # of the fit: robust against landmarks that went astray

HEAD = '''"""How far either network's landmarks lie from their marks at each checkpoint, and their spread.

Written by ops/landmark_offsets.py from the made-up golfers. In torso lengths: one standard deviation that is
the same on all frames of a clip, and one that is not; then at the nine checkpoints toward the lead or the
ball's side and down.
"""

from typing import Literal

from tropometer.swing.names import View

Aside = tuple[float, float]
Nine = tuple[Aside, Aside, Aside, Aside, Aside, Aside, Aside, Aside, Aside]

# What is missed at the checkpoints, after the spreads of what is shared by a clip's frames and of each one's.
# fmt: off
MEASURED: dict[Literal["fast", "close"], dict[tuple[View, str], tuple[float, float, Nine]]] = {
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
            camera = replace(take.camera, view=view, height_m=height_m)
            yield replace(take, name=f"{name}, {view}", camera=camera)


def pictures_of(take: Take) -> tuple[dict[str, Any], Iterator[Picture]]:
    """What is true of a take, and its pictures: out of its clip, or drawn anew."""
    clip = CLIPS / f"{take.name}.{take.recording.container}"
    if clip.exists():
        known = json.loads(gzip.decompress((CLIPS / f"{take.name}.truth.json.gz").read_bytes()))
        return known, (picture for picture, _ in upright_frames(clip))
    motion = Motion(body_of(take.person), take.settings)
    times = frame_times_s(take, motion)
    footage = Footage(motion, take.camera, take.person.colours, take.film)
    drawn = (footage.picture(float(t), number) for number, t in enumerate(times))
    return truth(take, motion, times), drawn


def missed_in(take: Take) -> dict[Key, Missed]:
    """What either network misses each mark by between address and finish, torso lengths."""
    known, pictures = pictures_of(take)
    pegs, times = known["checkpoints"], np.array(known["times_s"]["frames"])
    first = max(pegs["address"] - BESIDE_CHECKPOINTS, 0)
    frames = range(first, min(pegs["finish"] + BESIDE_CHECKPOINTS, len(times) - 1) + 1)
    fast, close = LandmarkFinder(MODELS), LandmarkFinder(MODELS, CLOSE)
    bodies: dict[Network, list[Body | None]] = {"fast": [], "close": []}
    for frame, picture in enumerate(pictures):
        found = fast.find(picture)
        if frame in frames:
            bodies["fast"].append(found)
            bodies["close"].append(close.find_in(picture, found.square) if found else None)
    missed: dict[Key, Missed] = {}
    for network, seen in bodies.items():
        points = [np.full((33, 3), np.nan) if body is None else body.landmarks for body in seen]
        outline = [np.full((8, 2), np.nan) if body is None else body.outline for body in seen]
        landmarks = Landmarks(times[list(frames)] - times[first], np.array(points), np.array(outline))
        missed |= missed_by(network, take.name, known, frames, landmarks)
    return missed


def missed_by(
    network: Network, take_name: str, known: dict[str, Any], frames: range, seen: Landmarks
) -> dict[Key, Missed]:
    """What landmarks of some frames of a take miss each mark by."""
    view: View = known["view"]
    way = np.array([RIGHTWARD[view] * (1 if known["hand"] == "right" else -1), 1.0])
    weights = checkpoint_weights(np.array(frames), known["checkpoints"])
    return {
        (network, view, name): Missed(
            take_name.split("_")[0], weights, (base - _true(known, name, frames)) / seen.torso_px * way
        )
        for name, base in bases(seen, view, known["hand"]).items()
        if name in known["pixels"] and name not in LEFT_OUT[view]
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
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        write(pool.map(missed_in, takes()))


def write(takes_missed: Iterable[dict[Key, Missed]]) -> None:
    """Write the table from what is missed in each take."""
    missed: dict[Key, list[Missed]] = {}
    for of_take in takes_missed:
        for key, each in of_take.items():
            missed.setdefault(key, []).append(each)
    rows = []
    for network in ("fast", "close"):
        rows.append(f'    "{network}": {{\n')
        for view in VIEWS:
            for name in sorted(name for by, of, name in missed if (by, of) == (network, view)):
                golfers = missed[network, view, name]
                if any(np.isfinite(each.by).all(axis=1).any() for each in golfers):
                    rows.append(_row(view, name, golfers))
        rows.append("    },\n")
    Path(measured_offsets.__file__).write_text(HEAD + "".join(rows) + "}\n# fmt: on\n")


def _row(view: View, name: str, golfers: list[Missed]) -> str:
    shared, own = spreads(name, golfers)
    at = [f"({aside:.3f}, {down:.3f})," for aside, down in (fitted(golfers) + 0.0).tolist()]
    lines = (" ".join(at[:5]), " ".join(at[5:]))
    return (
        f'        ("{view}", "{name}"): ({shared:.3f}, {own:.3f}, (\n'
        f"            {lines[0]}\n            {lines[1]}\n        )),\n"
    )


if __name__ == "__main__":
    main()
