"""From pixels in one or two views, and what is usual, to places in the player's axes.

Each place is the least-squares point of all that is said about it, each weighed by its standard deviation: a
maximum a posteriori estimate by Gauss-Newton (Hartley and Zisserman, 2nd ed., 12.2 and A6). Its errors
follow by first order from the clicks, from the cameras, from where the player stands, from the moment
between two frames, and from what was taken for usual.

Arrays have their coordinates first and the n places last, so that each step runs over all places at once.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array, Frames
from tropometer.swing.camera.pinhole import Pinhole
from tropometer.swing.scene.eye import Eye

STEPS = 3
BLOCK = 4096  # so many places at once stay near the processor
# How many independent errors each source has, in the order in which `Fused.effects` lists them.
DEPTH = 3
OF_A_VIEW = {"mark": 2, "eye": 2, "camera": 7, "stand": 2, "moment": 1}


@dataclass(frozen=True, eq=False)
class Seen:
    """What one view says of n places: pixels (2, n), NaN unseen; standard deviations (n,); seconds (n,).

    Of the variance of a place in the picture the share `kept` is the same on all frames. `moment_s` is one
    standard deviation of how far the frame is from its moment.
    """

    eye: Eye
    pixels: Array
    sd_px: Array
    kept: Array
    moment_s: Array

    def part(self, places: slice | Frames) -> Seen:
        """What it says of some of the places."""
        return Seen(
            self.eye, self.pixels[:, places], self.sd_px[places], self.kept[places], self.moment_s[places]
        )


@dataclass(frozen=True, eq=False)
class Fused:
    """Places (3, n), and what one standard deviation of each error does to them (3, Q, n).

    The errors are those of what is usual along T, B and U, then view by view those of `OF_A_VIEW`.
    """

    places: Array
    effects: Array


def fuse(views: Sequence[Seen], usual: Array, usual_sd: Array, speed: Array) -> Fused:
    """Places of n marks; `usual` (3, n) with standard deviations (3, n) holds where no view tells.

    `speed` (3, n), metres a second, turns a moment's error into one of place.
    """
    parts = []
    for first in range(0, max(usual.shape[1], 1), BLOCK):
        of = slice(first, first + BLOCK)
        own = (usual[:, of], usual_sd[:, of], speed[:, of])
        parts.append(_fuse_block([view.part(of) for view in views], *own))
    if len(parts) == 1:
        return parts[0]
    return Fused(
        np.concatenate([part.places for part in parts], axis=1),
        np.concatenate([part.effects for part in parts], axis=2),
    )


def _fuse_block(views: Sequence[Seen], usual: Array, usual_sd: Array, speed: Array) -> Fused:
    believed = 1 / usual_sd
    places = usual
    inverse = np.zeros((3, 3, usual.shape[1]))
    slopes: list[Array] = []
    # x <- x + A⁻¹ (Σ Jᵀ (z - h(x)) / sd² + (m - x) / s²) with A = Σ Jᵀ J / sd² + 1 / s²: z what a view has
    # clicked, h(x) where it would see x, J its slopes, sd its deviation; m what is usual, s how surely.
    for _ in range(STEPS):
        whole = np.zeros_like(inverse)
        whole[range(3), range(3)] = believed**2
        pull = (usual - places) * believed**2
        slopes = []
        for view in views:
            pixels, slope = project(view.eye.solved.camera, places + view.eye.origin[:, None])
            missed = (view.pixels - pixels) / view.sd_px
            seen = np.isfinite(missed).all(axis=0)
            slope = np.where(seen, slope / view.sd_px, 0.0)
            missed = np.where(seen, missed, 0.0)
            for k in range(2):
                whole += slope[k, :, None] * slope[k]
                pull = pull + slope[k] * missed[k]
            slopes.append(slope)
        inverse = _inverse(whole)
        places = places + _times(inverse, pull[:, None])[:, 0]
    effects = [inverse * believed]
    for view, slope in zip(views, slopes, strict=True):
        # How the places answer to a shift of the whitened pixels of this view: A⁻¹ Jᵀ / sd. What moves h by
        # dh moves them by -A⁻¹ Jᵀ dh / sd², what moves a click by sd by +A⁻¹ Jᵀ / sd.
        answer = _times(inverse, slope.swapaxes(0, 1))
        here = places + view.eye.origin[:, None]
        seen_by = pixels_in((view.eye.solved.camera, *view.eye.solved.moved), here)
        shifted = seen_by[:, 1:] - seen_by[:, :1]
        by_camera = np.nan_to_num(shifted / view.sd_px) + _along(slope, view.eye.origin_by_camera)
        moved = np.sum(slope * speed, axis=1) * view.moment_s
        effects += [
            answer * np.sqrt(1 - view.kept),
            answer * np.sqrt(view.kept),
            -_times(answer, by_camera),
            -_times(answer, _along(slope, view.eye.origin_own)),
            _times(answer, moved[:, None]),
        ]
    return Fused(places, np.concatenate(effects, axis=1))


def _times(a: Array, b: Array) -> Array:
    """Matrix products (i, q, n) of n matrices (i, k, n) with n matrices (k, q, n)."""
    total: Array = a[:, 0, None] * b[0]
    for k in range(1, a.shape[1]):
        total += a[:, k, None] * b[k]
    return total


def _along(slope: Array, ways: Array) -> Array:
    """Slopes (k, i, n) along ways (i, q): (k, q, n)."""
    total: Array = slope[:, 0, None] * ways[0][:, None]
    for i in range(1, len(ways)):
        total += slope[:, i, None] * ways[i][:, None]
    return total


def _inverse(whole: Array) -> Array:
    """Inverses (3, 3, n) of n symmetric matrices, by their cofactors."""
    (a, b, c), (_, d, e), (_, _, f) = whole
    aa, ab, ac = d * f - e * e, c * e - b * f, b * e - c * d
    bb, bc, cc = a * f - c * c, b * c - a * e, a * d - b * b
    determinant = a * aa + b * ab + c * ac
    cofactors = np.array([[aa, ab, ac], [ab, bb, bc], [ac, bc, cc]])
    return np.asarray(cofactors / determinant)


def pixels_in(cameras: Sequence[Pinhole], points: Array) -> Array:
    """Pixels of points (3, n) in several cameras (2, cameras, n), from their pictures' middles."""
    eyes = np.array([camera.eye for camera in cameras])[..., None]
    seen = np.array([camera.rotation for camera in cameras]) @ (points - eyes)
    focal_px = np.array([camera.focal_px for camera in cameras])[:, None]
    pixels: Array = seen[:, :2].swapaxes(0, 1) * (focal_px / _ahead(seen[:, 2]))
    return pixels


def project(camera: Pinhole, points: Array) -> tuple[Array, Array]:
    """Pixels (2, n) of points (3, n), and their slopes (2, 3, n) along T, B and U."""
    rotation = camera.rotation
    seen = rotation @ (points - camera.eye[:, None])
    ahead = _ahead(seen[2])
    flat = seen[:2] / ahead
    pixels = flat * camera.focal_px + np.array([[camera.width / 2], [camera.height / 2]])
    slopes = (rotation[:2, :, None] - flat[:, None] * rotation[2][:, None]) * (camera.focal_px / ahead)
    return pixels, slopes


def _ahead(metres: Array) -> Array:
    """How far ahead; what lies behind a camera has no pixel and becomes NaN."""
    return np.where(metres > 1e-6, metres, np.nan)
