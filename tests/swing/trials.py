"""Made-up golfers seen by made-up cameras and marked by an unsteady hand, with the truth beside them."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

import numpy as np
from scipy.interpolate import CubicSpline

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.camera import Camera
from tropometer.golfer.true_readings import _At, _at_some, _everywhere, _set_up, going_back
from tropometer.swing.camera.mat import Mat
from tropometer.swing.names import CHECKPOINTS, View
from tropometer.swing.record import Clip, KnownLength, Mark, SwingRecord
from tropometer.swing.scene.eye import FEET, SOLE_SD_M
from tropometer.swing.usual import kept_as, share_kept, spread_m, usual

SetUp = Literal["both", "face-on, mat", "face-on, stick", "down the line"]
SET_UPS: dict[SetUp, tuple[View, ...]] = {
    "both": ("face_on", "down_the_line"),
    "face-on, mat": ("face_on",),
    "face-on, stick": ("face_on",),
    "down the line": ("down_the_line",),
}
MARGIN_S = 0.02
MAT_M = 1.56
STICK_M = 1.22
AIMED_AT_M = 0.9
HALF_SEEN_M = (1.0, 1.35)  # half the picture's height, at the player


@dataclass(frozen=True)
class Trial:
    """A record as somebody would mark it, and the true values of its readings."""

    record: SwingRecord
    true: dict[tuple[str, str], float | str]


@dataclass(frozen=True)
class Golfer:
    """Where a golfer's marks go: splines over time by name (T, B, U), and when the checkpoints are."""

    stature_m: float
    paths: dict[str, CubicSpline]
    checkpoints_s: dict[str, float]
    first_s: float
    last_s: float


@lru_cache(maxsize=64)
def golfer(name: str) -> Golfer:
    known = truth(name)
    times = np.array(known["times_s"]["frames"])
    paths = {mark: CubicSpline(times, np.array(places)) for mark, places in known["tbu_m"].items()}
    return Golfer(known["stature_m"], paths, known["times_s"]["checkpoints"], times[0], times[-1])


NAMES = sorted(path.name.removesuffix(".truth.json.gz") for path in DEMO_CLIPS.glob("*_face.truth.json.gz"))


def trials(set_up: SetUp, count: int, seed: int = 0) -> Iterator[Trial]:
    """So many random trials of a set-up."""
    random = np.random.default_rng(seed)
    for _ in range(count):
        yield _trial(set_up, random)


def _trial(set_up: SetUp, random: np.random.Generator) -> Trial:
    who = golfer(NAMES[random.integers(len(NAMES))])
    size = random.uniform(0.92, 1.08)
    # The player stands somewhere on the mat, not where the mat's own axes begin.
    stands = np.array([random.normal(0, 0.1), random.normal(0, 0.1), 0.0])
    left = bool(random.integers(2))
    noise_px = random.uniform(0.8, 2.0)
    own = _own_ways(who, size, random)
    while not _stands_square(who, size, own):
        own = _own_ways(who, size, random)
    clips = tuple(
        _clip(view, set_up, who, size, own, stands, left, noise_px, random) for view in SET_UPS[set_up]
    )
    record = SwingRecord("left" if left else "right", clips, who.stature_m * size)
    return Trial(record, _true(who, size, own))


def _own_ways(who: Golfer, size: float, random: np.random.Generator) -> dict[str, np.ndarray]:
    """How far each mark lies beside the golfer's at each checkpoint (9, 3): as people differ.

    Golfers differ among themselves already: together with that it is as much as the core believes.
    """
    stature = who.stature_m * size
    kept: dict[str, float] = {}
    found = {}
    for name in who.paths:
        beside = np.zeros((len(CHECKPOINTS), 3))
        for axis in (0, 1):
            always = kept.setdefault(f"{kept_as(name, axis)} {axis}", random.normal())
            then = random.normal(size=len(CHECKPOINTS))
            always_sd, then_sd = _left_to_differ()[name, axis]
            beside[:, axis] = stature * (always_sd * always + then_sd * then)
        if name in FEET:
            beside[:, 2] = random.normal(0, SOLE_SD_M)
        found[name] = beside
    for part in ("hip", "shoulder"):
        _keep_rigid(who, size, found, f"lead_{part}", f"trail_{part}")
    return found


def _stands_square(who: Golfer, size: float, own: dict[str, np.ndarray]) -> bool:
    """Whether hips and shoulders are turned by less than 60° at address: else nobody stands so."""
    address = who.checkpoints_s["address"]
    for part in ("hip", "shoulder"):
        lead, trail = (
            who.paths[name](address) * size + own[name][0] for name in (f"lead_{part}", f"trail_{part}")
        )
        if lead[0] - trail[0] < np.linalg.norm(lead - trail) / 2:
            return False
    return True


@lru_cache
def _left_to_differ() -> dict[tuple[str, int], tuple[float, float]]:
    """By mark and axis, what the golfers lack of the spread that the core believes in, of stature.

    One standard deviation of what is the same at all checkpoints, and of what is not.
    """
    who = [golfer(name) for name in NAMES]
    marks = tuple(who[0].paths)
    means, _ = usual(marks, np.arange(float(len(CHECKPOINTS))), 1.0)
    found = {}
    for row, mark in enumerate(marks):
        places = [each.paths[mark]([each.checkpoints_s[at] for at in CHECKPOINTS]) for each in who]
        ways = np.array([place / each.stature_m for place, each in zip(places, who, strict=True)])
        for axis in (0, 1):
            differ = ways[..., axis] - means[axis, row]
            always = differ.mean(axis=1, keepdims=True)
            spread, share = spread_m(mark, axis, 1.0), share_kept(mark, axis)
            left = (share * spread**2 - np.mean(always**2), (1 - share) * spread**2 - np.var(differ - always))
            found[mark, axis] = (float(np.sqrt(max(left[0], 0))), float(np.sqrt(max(left[1], 0))))
    return found


def _keep_rigid(who: Golfer, size: float, own: dict[str, np.ndarray], lead: str, trail: str) -> None:
    """However people stand and turn, hips and shoulders stay as far apart as they are."""
    seconds = [who.checkpoints_s[at] for at in CHECKPOINTS]
    a, b = (who.paths[name](seconds) * size for name in (lead, trail))
    apart = np.linalg.norm(a - b, axis=1, keepdims=True)
    middle, line = (a + own[lead] + b + own[trail]) / 2, a + own[lead] - b - own[trail]
    half = line / np.linalg.norm(line, axis=1, keepdims=True) * apart / 2
    own[lead], own[trail] = middle + half - a, middle - half - b


def _put_up(view: View, left: bool, random: np.random.Generator) -> Camera:
    """A camera as it may stand where a mat tells how it does."""
    return Camera(
        view,
        distance_m=random.uniform(3, 5),
        height_m=random.normal(1.05, 0.12),
        fov_deg=random.uniform(28, 36),
        width=1280,
        height=720,
        off_square_deg=random.uniform(-15, 15),
        tilt_deg=random.normal(4, 2),
        roll_deg=random.normal(0, 0.6),
        left_handed=left,
    )


def _put_up_by_eye(view: View, left: bool, random: np.random.Generator) -> Camera:
    """A phone as the core believes that people put it up where nothing tells how it stands.

    It looks up or down at the player, who fills the picture however wide it sees.
    """
    distance_m = 1 / random.uniform(1 / 5.4, 1 / 2.6)
    height_m = float(np.clip(random.normal(1.1, 0.4), 0.2, 2.0))
    return Camera(
        view,
        distance_m=distance_m,
        height_m=height_m,
        fov_deg=float(np.degrees(2 * np.arctan(random.uniform(*HALF_SEEN_M) / distance_m))),
        width=1280,
        height=720,
        off_square_deg=random.normal(0, 4),
        tilt_deg=random.normal(np.degrees(np.arctan2(height_m - AIMED_AT_M, distance_m)), 2),
        roll_deg=random.normal(0, 0.6),
        left_handed=left,
    )


def _clip(
    view: View,
    set_up: SetUp,
    who: Golfer,
    size: float,
    own: dict[str, np.ndarray],
    stands: np.ndarray,
    left: bool,
    noise_px: float,
    random: np.random.Generator,
) -> Clip:
    by_eye = set_up == "face-on, stick"
    camera = _put_up_by_eye(view, left, random) if by_eye else _put_up(view, left, random)

    def seen(places: Any) -> np.ndarray:
        tbu = np.atleast_2d(places) + stands
        return np.asarray(camera.project(tbu[:, [0, 2, 1]]))

    rate = float(random.choice([30, 60, 120, 240]))
    start = who.first_s + random.uniform(0, 1 / rate)
    times = np.arange(start, who.last_s, 1 / rate)
    frames = {at: int(np.abs(times - second).argmin()) for at, second in who.checkpoints_s.items()}
    marks: dict[str, dict[int, Mark]] = {}
    for name, path in who.paths.items():
        for at, beside in zip(CHECKPOINTS, own[name], strict=True):
            frame = frames[at]
            (x, y) = seen(path(times[frame]) * size + beside)[0] + random.normal(0, noise_px, 2)
            if -2000 < x < 4000 and -2000 < y < 4000:
                marks.setdefault(name, {})[frame] = Mark(float(x), float(y), noise_px)
    mat = stick = None
    if by_eye:
        ahead = random.normal(0.32, 0.06)
        along = random.normal(0, np.radians(2))
        half = STICK_M / 2 * np.array([np.cos(along), np.sin(along)])
        ends = seen([[-half[0], ahead - half[1], 0.0], [half[0], ahead + half[1], 0.0]])
        ends += random.normal(0, 1.5, (2, 2))
        a, b = ((float(x), float(y)) for x, y in ends)
        stick = KnownLength(a, b, STICK_M, "toe_line", sd_px=1.5)
    else:
        half = MAT_M / 2
        corners = np.array(
            [[t, b, 0] for t, b in ((-half, -half), (-half, half), (half, half), (half, -half))]
        )
        middle = np.array([0.0, 0.35, 0.0])
        pixels = seen(corners + middle - stands) + random.normal(0, 1.5, (4, 2))
        mat = Mat(tuple((float(x), float(y)) for x, y in pixels), MAT_M, MAT_M, 1.5)
    return Clip(
        view,
        view,
        camera.width,
        camera.height,
        tuple(float(t) for t in times - times[0]),
        {at: frames[at] for at in CHECKPOINTS},
        marks,
        known_length=stick,
        mat=mat,
    )


def _true(who: Golfer, size: float, own: dict[str, np.ndarray]) -> dict[tuple[str, str], float | str]:
    """By the golfer's own formulas, which share nothing with the core's, at the checkpoints' own times."""
    times = np.array([who.checkpoints_s[at] for at in CHECKPOINTS])
    place = _At({name: (path(times) * size + own[name])[:, [0, 2, 1]] for name, path in who.paths.items()})
    found: dict[tuple[str, str], float | str] = {(n, "address"): float(v) for n, v, _ in _set_up(place)}
    for at in CHECKPOINTS:
        found |= {(name, at): float(value) for name, value, _ in _everywhere(place, at)}
    found |= {(name, at): float(value) for name, at, value, _ in _at_some(place)}
    top = [float(found[name, "top"]) for name in ("pelvis_sway", "trail_hip_push", "pelvis_turn")]
    found["going_back", "top"] = going_back(*top)
    return found
