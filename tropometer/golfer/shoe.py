"""The golf shoe: a lofted shell round the foot, and the points of its sole that a swing stands on.

Sizes are metres at a stature of 1.78.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints, normals
from tropometer.golfer.piece import Piece, material
from tropometer.golfer.rig import Rig

STATIONS = 40  # rings from heel to toe
UPPER = 20  # points of a ring over the foot
FLOOR = -0.014  # the sole's underside below the bare foot's
ANKLE_BELOW = 0.10


@dataclass(frozen=True)
class Sole:
    """Points (3,) at rest where the shoe meets the floor; `floor` is its underside's height."""

    heel: Floats
    toe: Floats
    ball: Floats
    inner: Floats
    outer: Floats
    along: Floats
    length: float
    floor: float


@dataclass(frozen=True)
class _Last:
    """What the shoe is built round: its axes, and its half width and middle at each station."""

    origin: Floats
    along: Floats
    across: Floats
    start: float
    length: float
    stations: Floats
    middle: Floats
    half: Floats


def shoe(rig: Rig, vertices: Floats, skin: Ints, side: str, scale: float) -> tuple[Piece, Sole]:
    """One shoe and its sole; `skin` are the indices of the body's own vertices."""
    last = _measure(rig, vertices, skin, side, scale)
    ring_points, kinds = _rings(last, side, scale)
    quads = _shell(len(kinds) // STATIONS)
    ends = np.array(
        [ring_points[: len(kinds) // STATIONS].mean(0), ring_points[-(len(kinds) // STATIONS) :].mean(0)]
    )
    points = np.concatenate([ring_points, ends])
    materials: Floats = np.append(kinds, [material("shoe")] * 2).astype(np.float64)
    if ((points - points.mean(0)) * normals(points, quads)).sum() < 0:
        quads = quads[:, ::-1]
    ball = float((rig.head[f"ball_{side}"] - last.origin) @ last.along)
    bends = np.clip(((points - last.origin) @ last.along - (ball - 0.028 * scale)) / (0.045 * scale), 0, 1)
    bends = (bends * bends * (3 - 2 * bends))[:, None]
    count = len(points)
    weights = rig.hung_on(f"ball_{side}", count) * bends + rig.hung_on(f"foot_{side}", count) * (1 - bends)
    piece = Piece(points, quads, weights, materials, np.full(count, -1.0), np.zeros(count))
    return piece, _sole(last, ball, side, scale)


def _measure(rig: Rig, vertices: Floats, skin: Ints, side: str, scale: float) -> _Last:
    of_foot = rig.share(rig.weights, f"foot_{side}", f"ball_{side}")
    foot = vertices[skin][(of_foot[skin] > 0.5) & (vertices[skin, 1] < ANKLE_BELOW * scale)]
    ankle, toe = rig.head[f"foot_{side}"], rig.tail[f"ball_{side}"]
    along = (toe - ankle) * [1, 0, 1]
    along /= np.linalg.norm(along)
    across = np.array([along[2], 0, -along[0]])
    origin = np.array([ankle[0], 0, ankle[2]])
    places, sides = (foot - origin) @ along, (foot - origin) @ across
    start = places.min() - 0.012 * scale
    length = places.max() + 0.016 * scale - start
    stations = 0.5 - 0.5 * np.cos(np.pi * np.linspace(0, 1, STATIONS))
    edges = []
    for share in stations:
        at = start + np.clip(share, 0.1, 0.86) * length
        near = (np.abs(places - at) < 0.018 * scale) & (foot[:, 1] < 0.05 * scale)
        edges.append((sides[near].min() - 0.006 * scale, sides[near].max() + 0.006 * scale))
    left, right = (_smooth(np.array(edge)) for edge in zip(*edges, strict=True))
    heel_round = np.sqrt(np.clip(1 - ((0.13 - stations) / 0.13).clip(0) ** 2, 0, 1))
    toe_round = np.clip(1 - ((stations - 0.74) / 0.26).clip(0) ** 2.3, 0, 1) ** 0.55
    half = np.maximum((right - left) / 2 * np.minimum(heel_round, toe_round), 0.0015)
    return _Last(origin, along, across, start, length, stations, (left + right) / 2, half)


def _smooth(values: Floats) -> Floats:
    smoothed: Floats = np.convolve(np.pad(values, 4, "edge"), np.ones(9) / 9, "valid")
    return smoothed


def _rings(last: _Last, side: str, scale: float) -> tuple[Floats, Ints]:
    """Points of all rings, each round the foot from the sole's inside, and their materials."""
    stations = last.stations
    arch = np.exp(-(((stations - 0.42) / 0.13) ** 2)) * 0.009 * scale
    heights = [0.062, 0.083, 0.090, 0.092, 0.082, 0.064, 0.050, 0.042, 0.028]
    top = np.interp(stations, [0, 0.04, 0.12, 0.30, 0.42, 0.58, 0.78, 0.93, 1], np.array(heights) * scale)
    welt = np.interp(stations, [0, 0.25, 0.45, 0.7, 1], np.array([0.016, 0.014, 0.010, 0.008, 0.013]) * scale)
    spring = np.interp(stations, [0.8, 1], [0, 0.012 * scale])
    upper = [material("shoe")] * UPPER
    sole = [material("sole")]
    points = []
    for i, share in enumerate(stations):
        left, right = last.middle[i] - last.half[i], last.middle[i] + last.half[i]
        left, right = (left + arch[i], right) if side == "l" else (left, right - arch[i])
        low, high = FLOOR * scale + spring[i], welt[i] + spring[i] * 0.6
        ring = [(left + (right - left) * q, low) for q in (0.2, 0.5, 0.8)] + [(right - 0.002, low)]
        ring += [(right + 0.003 * scale, (low + high) / 2), (right + 0.002 * scale, high)]
        ring += _over(last.middle[i], last.half[i], high, top[i], share)
        ring += [(left - 0.002 * scale, high), (left - 0.003 * scale, (low + high) / 2)]
        at = last.origin + last.along * (last.start + share * last.length)
        points += [at + last.across * x + np.array([0, y, 0]) for x, y in ring]
    return np.array(points), np.array((sole * 6 + upper + sole * 2) * STATIONS)


def _over(middle: float, half: float, low: float, top: float, share: float) -> list[tuple[float, float]]:
    """The upper at one station: an arch that narrows toward the ankle."""
    flatness = 0.62 if share < 0.5 else 0.8
    narrows = 0.38 * np.interp(share, [0.05, 0.3, 0.6], [0.9, 0.9, 0.3])
    arch = []
    for j in range(UPPER):
        angle = np.pi * (j + 0.5) / UPPER
        across, up = np.cos(angle), np.sin(angle) ** 0.8
        across = np.sign(across) * abs(across) ** flatness
        width = (half - 0.001) * across * (1 - narrows * up**2)
        arch.append((middle + width, low + (max(top, low + 0.006) - low) * up))
    return arch


def _shell(around: int) -> Ints:
    """Quads of all rings and the two ends, whose middles are the last two points."""
    quads = [
        [
            i * around + j,
            (i + 1) * around + j,
            (i + 1) * around + (j + 1) % around,
            i * around + (j + 1) % around,
        ]
        for i in range(STATIONS - 1)
        for j in range(around)
    ]
    heel, toe, last = STATIONS * around, STATIONS * around + 1, (STATIONS - 1) * around
    quads += [[heel, j, (j + 1) % around, heel] for j in range(around)]
    quads += [[toe, last + (j + 1) % around, last + j, toe] for j in range(around)]
    return np.array(quads)


def _sole(last: _Last, ball: float, side: str, scale: float) -> Sole:
    inner = -1 if side == "l" else 1
    down = np.array([0, FLOOR * scale, 0])
    at_ball = last.origin + last.along * ball + down
    return Sole(
        heel=last.origin + last.along * (last.start + 0.02 * scale) + down,
        toe=last.origin + last.along * (last.start + last.length) + down,
        ball=at_ball,
        inner=at_ball + last.across * (inner * 0.042 * scale),
        outer=at_ball - last.across * (inner * 0.048 * scale),
        along=last.along,
        length=last.length,
        floor=FLOOR * scale,
    )
