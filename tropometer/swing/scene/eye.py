"""The camera of a clip, and where the player stands in it: what turns pixels into the player's axes.

The camera is solved from the mat's corners where there is a mat; else from the known length, the feet at
address and what is usual of phones; else from the feet and what is usual alone, which gives angles and
ratios but no lengths.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Literal

import numpy as np

from tropometer.swing.arrays import Array
from tropometer.swing.camera.mat import UNSQUARED, MatTurn, camera_from_mat
from tropometer.swing.camera.pinhole import SQUARE, Pinhole
from tropometer.swing.camera.solve import BY_EYE, FloorPoint, SolvedCamera, Unsolved, solve_camera
from tropometer.swing.names import Hand, View
from tropometer.swing.record.calibration import CameraFacts
from tropometer.swing.record.clip import Clip
from tropometer.swing.scene.usual import STATURE_M, spread_m, usual

Scale = Literal["mat", "length", "none"]
FEET = tuple(
    f"{side}_{part}" for side in ("lead", "trail") for part in ("heel", "toe", "foot_outer", "foot_inner")
)
HEELS = ("lead_heel", "trail_heel")
SOLE_SD_M = 0.006  # a sole's edge that is clicked lies so nearly on the floor
# Where the middle between the heels lies from the middle of a mat, T and B, when no foot is marked; spread.
HEELS_ON_MAT_M = ((0.0, 0.25), (-0.25, 0.3))
NOWHERE = (0.5, 0.86, 0.12)  # of the picture: where the feet are when none is marked, and its spread
HALF_UP_M = 0.9
PLAYER_PICTURE_M = 2.4  # a clip's height at the player, where nothing else says it


@dataclass(frozen=True, eq=False)
class Eye:
    """A clip's camera, for a right-hander's picture; `origin` is the middle between the heels at address.

    What the camera's seven errors do to the origin is `origin_by_camera` (3, 7), what its own two do is
    `origin_own` (3, 2), metres.
    """

    clip: Clip
    mirrored: bool
    solved: SolvedCamera
    scale: Scale
    origin: Array
    origin_by_camera: Array
    origin_own: Array

    @property
    def view(self) -> View:
        """From which side it looks."""
        return self.clip.view

    @property
    def px_per_m(self) -> float:
        """Pixels to a metre at the player."""
        return self.solved.camera.scale_at(self.origin + np.array([0.0, 0.0, HALF_UP_M]))

    @property
    def aside(self) -> float:
        """How far off square the player is seen, radians."""
        right, _, ahead = SQUARE[self.view] @ (self.origin - self.solved.camera.eye)
        return float(np.arctan2(right, ahead))

    @cached_property
    def turned(self) -> Array:
        """How unsure it is which way it looks at the player (3,), one standard deviation, radians.

        What lies deeper than was thought is elsewhere by so much of that as well.
        """
        middle = self.origin + np.array([0.0, 0.0, HALF_UP_M])
        x, y = self.solved.camera.project(middle[None])[0]

        def ahead(camera: Pinhole) -> Array:
            across, down = x - camera.width / 2, y - camera.height / 2
            way = camera.rotation.T @ np.array([across, down, camera.focal_px])
            return np.asarray(way / np.linalg.norm(way))

        by_error = np.array([ahead(camera) for camera in self.solved.moved]) - ahead(self.solved.camera)
        return np.asarray(np.sqrt(np.sum(by_error**2, axis=0)))

    def upright(self, pixels: Array) -> Array:
        """Pixels (…, 2) as a right-hander's picture has them, or back."""
        if not self.mirrored:
            return pixels
        turned = np.array(pixels, float)
        turned[..., 0] = self.clip.width - turned[..., 0]
        return turned

    def see(self, places: Array) -> Array:
        """Pixels (n, 2) of the clip's own picture of places (n, 3) in the player's axes."""
        return self.upright(self.solved.camera.project(places + self.origin))


def eye_of(clip: Clip, hand: Hand, stature_m: float | None, turn: MatTurn = UNSQUARED) -> Eye:
    """The eye of a clip whose mat lies so; Unsolved with the reason when no camera sees what was said."""
    tall = stature_m or STATURE_M
    mirrored = hand == "left"
    feet = _feet(clip, mirrored)
    if clip.mat is not None:
        try:
            solved = camera_from_mat(
                clip.mat, clip.view, hand, clip.width, clip.height, clip.camera_facts, turn
            )
            return _standing(clip, mirrored, solved, "mat", feet, tall)
        except Unsolved:
            if clip.known_length is None:
                raise
    facts = replace(clip, mat=None).camera_facts
    solved = _by_anchor(
        _anchor(clip, feet, tall),
        clip.view,
        clip.width,
        clip.height,
        facts.mirrored(clip.width) if mirrored else facts,
    )
    scale: Scale = "length" if clip.known_length is not None else "none"
    return _standing(clip, mirrored, solved, scale, feet, tall)


@lru_cache(maxsize=64)  # moving a hip's mark does not move the camera
def _by_anchor(anchor: FloorPoint, view: View, width: int, height: int, facts: CameraFacts) -> SolvedCamera:
    return solve_camera([anchor], view, width, height, facts, BY_EYE)


def _feet(clip: Clip, mirrored: bool) -> dict[str, tuple[float, float, float]]:
    """Marks of the feet at address, x, y and standard deviation, as a right-hander's picture has them."""
    address = clip.checkpoints.get("address")
    found = {}
    for name in FEET:
        mark = None if address is None else clip.still_mark(name, address)
        if mark is not None:
            found[name] = (clip.width - mark.x if mirrored else mark.x, mark.y, mark.sd_px)
    return found


def _anchor(clip: Clip, feet: dict[str, tuple[float, float, float]], tall: float) -> FloorPoint:
    """The one floor point that is known without a mat: where the player stands.

    One only: how far apart the feet stand must not be taken for a measure of the picture's scale.
    """
    known = clip.known_length
    px_per_m = clip.height / PLAYER_PICTURE_M
    if known is not None:
        px_per_m = float(np.hypot(*np.subtract(known.a, known.b))) / known.length_m
    if not feet:
        across, down, spread = NOWHERE
        return FloorPoint(clip.width * across, clip.height * down, 0.0, 0.0, clip.height * spread)
    used = HEELS if all(name in feet for name in HEELS) else tuple(feet)
    x, y, sd = np.mean([feet[name] for name in used], axis=0)
    t, b, _ = np.mean([_foot(name, tall) for name in used], axis=0)
    spread = 0.0 if used == HEELS else max(spread_m(name, 0, tall) for name in used)
    if used == HEELS:
        t, b = 0.0, 0.0
    return FloorPoint(float(x), float(y), float(t), float(b), float(np.hypot(sd, spread * px_per_m)))


def _foot(name: str, tall: float) -> Array:
    places, _ = usual((name,), np.zeros(1), tall)
    return np.asarray(places[:, 0, 0])


def _standing(
    clip: Clip,
    mirrored: bool,
    solved: SolvedCamera,
    scale: Scale,
    feet: dict[str, tuple[float, float, float]],
    tall: float,
) -> Eye:
    """The eye, with the player put where the feet at address stand on its floor."""
    return Eye(clip, mirrored, solved, scale, *_origin(solved, scale, tuple(feet.items()), tall))


@lru_cache(maxsize=64)  # moving a hip's mark does not move the feet
def _origin(
    solved: SolvedCamera,
    scale: Scale,
    marked: tuple[tuple[str, tuple[float, float, float]], ...],
    tall: float,
) -> tuple[Array, Array, Array]:
    """Where the player stands, and what the camera's seven errors and its own two do to it."""
    feet = dict(marked)
    used = HEELS if all(name in feet for name in HEELS) else tuple(feet)
    places, own = _unmarked(scale)
    stand: Callable[[Pinhole], Array] = lambda camera: places  # noqa: E731
    if used:
        pixels = np.array([feet[name][:2] for name in used])
        sd_px = np.array([feet[name][2] for name in used])
        # Both heels are the origin by what it means; other marks only by where they usually are.
        offsets = np.zeros((len(used), 2)) if used == HEELS else np.array([_foot(n, tall)[:2] for n in used])

        def on_floor(camera: Pinhole) -> Array:
            return np.asarray((camera.on_plane(pixels, 2, 0.0)[:, :2] - offsets).mean(axis=0))

        if np.isfinite(on_floor(solved.camera)).all():
            stand = on_floor
            own = _own_error(solved.camera, pixels, sd_px)
            if used != HEELS:
                own = np.hypot(own, [max(spread_m(n, axis, tall) for n in used) for axis in (0, 1)])
    origin = stand(solved.camera)
    by_camera = np.array([stand(camera) - origin for camera in solved.moved]).T
    if not np.isfinite(by_camera).all():  # so near the horizon that the camera's error carries it beyond
        origin, own = _unmarked(scale)
        by_camera = np.zeros((2, len(solved.moved)))
    return (
        np.array([*origin, 0.0]),
        np.vstack([by_camera, np.zeros(by_camera.shape[1])]),
        np.vstack([np.diag(own), np.zeros(2)]),
    )


def _unmarked(scale: Scale) -> tuple[Array, Array]:
    if scale != "mat":
        return np.zeros(2), np.array([0.1, 0.1])
    (t, t_sd), (b, b_sd) = HEELS_ON_MAT_M
    return np.array([t, b]), np.array([t_sd, b_sd])


def _own_error(camera: Pinhole, pixels: Array, sd_px: Array) -> Array:
    """What clicks and soles do to the mean of floor points, one standard deviation along T and B."""
    here = camera.on_plane(pixels, 2, 0.0)[:, :2]
    squares = np.zeros(2)
    for step in np.eye(2):
        there = camera.on_plane(pixels + step, 2, 0.0)[:, :2]
        squares += np.nansum(np.square((there - here) * sd_px[:, None]), axis=0)
    raised = camera.on_plane(pixels, 2, SOLE_SD_M)[:, :2]
    squares += np.nansum(np.square(raised - here), axis=0)
    return np.asarray(np.sqrt(squares) / len(pixels))
