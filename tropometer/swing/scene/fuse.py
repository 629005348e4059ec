"""From pixels in one or two views, and what is usual, to places in the player's axes.

Each place is the least-squares point of all that is said about it, each weighed by its standard deviation: a
maximum a posteriori estimate by Gauss-Newton (Hartley and Zisserman, 2nd ed., 12.2 and A6). Its errors
follow by first order from the clicks, from the cameras, from where the player stands, from the moment
between two frames, and from what was taken for usual.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from tropometer.swing.camera.pinhole import Array, Pinhole
from tropometer.swing.scene.eye import Eye

STEPS = 3


@dataclass(frozen=True, eq=False)
class Seen:
    """What one view says of n places: pixels (n, 2), NaN unseen; standard deviations (n,); seconds (n,).

    `moment_s` is one standard deviation of how far the frame is from its moment.
    """

    eye: Eye
    pixels: Array
    sd_px: Array
    moment_s: Array


@dataclass(frozen=True, eq=False)
class Fused:
    """Places (n, 3) and what one standard deviation of each error does to them: per view and of the usual."""

    places: Array
    clicks: list[Array]  # (n, 3, 2)
    cameras: list[Array]  # (n, 3, 7)
    stands: list[Array]  # (n, 3, 2)
    moments: list[Array]  # (n, 3, 1)
    depth: Array  # (n, 3, 3)


def fuse(views: Sequence[Seen], usual: Array, usual_sd: Array, speed: Array) -> Fused:
    """Places of n marks; `usual` (n, 3) with standard deviations (n, 3) holds where no view tells.

    `speed` (n, 3), metres a second, turns a moment's error into one of place.
    """
    believed = 1 / usual_sd
    places = usual.copy()
    whole = np.zeros((len(usual), 3, 3))
    slopes: list[Array] = []
    for _ in range(STEPS):
        whole = np.zeros((len(usual), 3, 3))
        whole[:, range(3), range(3)] = believed**2
        pull = (usual - places) * believed**2
        slopes = []
        for view in views:
            pixels, slope = _project(view.eye.solved.camera, places + view.eye.origin)
            missed = (view.pixels - pixels) / view.sd_px[:, None]
            seen = np.asarray(np.isfinite(missed).all(axis=1))
            slope = np.where(seen[:, None, None], slope / view.sd_px[:, None, None], 0.0)
            missed = np.where(seen[:, None], missed, 0.0)
            whole += np.einsum("nki,nkj->nij", slope, slope)
            pull += np.einsum("nki,nk->ni", slope, missed)
            slopes.append(slope)
        places = places + np.linalg.solve(whole, pull[..., None])[..., 0]
    inverse = np.linalg.inv(whole)
    clicks, cameras, stands, moments = [], [], [], []
    for view, slope in zip(views, slopes, strict=True):
        # How the places answer to a shift of the whitened pixels of this view.
        answer = np.einsum("nij,nkj->nik", inverse, slope)
        own = _project(view.eye.solved.camera, places + view.eye.origin)[0]
        shifted = (
            np.stack(
                [camera.project(places + view.eye.origin) - own for camera in view.eye.solved.moved], axis=2
            )
            / view.sd_px[:, None, None]
        )
        clicks.append(answer)
        by_origin = np.einsum("nki,iq->nkq", slope, view.eye.origin_by_camera)
        cameras.append(-np.einsum("nik,nkq->niq", answer, np.nan_to_num(shifted) + by_origin))
        stands.append(-np.einsum("nik,nkj,jq->niq", answer, slope, view.eye.origin_own))
        moved = np.einsum("nki,ni->nk", slope, speed) * view.moment_s[:, None]
        moments.append(np.einsum("nik,nk->ni", answer, moved)[..., None])
    return Fused(places, clicks, cameras, stands, moments, inverse * believed[:, None, :])


def _project(camera: Pinhole, points: Array) -> tuple[Array, Array]:
    """Pixels (n, 2) of points (n, 3), and their slopes (n, 2, 3) along T, B and U."""
    rotation = camera.rotation
    seen = (points - camera.eye) @ rotation.T
    ahead = np.where(seen[:, 2] > 1e-6, seen[:, 2], np.nan)
    flat = seen[:, :2] / ahead[:, None]
    pixels = flat * camera.focal_px + [camera.width / 2, camera.height / 2]
    slopes = camera.focal_px * (rotation[None, :2] - flat[:, :, None] * rotation[2]) / ahead[:, None, None]
    return pixels, slopes
