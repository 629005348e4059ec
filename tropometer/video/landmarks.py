"""Finds a player's body landmarks in pictures with the trained networks of ops/models.

Networks as their makers publish them: one finds a person in the whole picture and says how the
body lies (centre of the hips, size, lean); another finds 33 landmarks in a square cut out so that the body
stands upright in it. From frame to frame the square is carried on by the landmarks themselves. Of the second
kind there are two: a fast one, and a close one that takes four times as long and errs far less.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import numpy.typing as npt

from tropometer.video.outline import SURE, PlayerMask, outline_points

Array = npt.NDArray[np.float64]
Picture = npt.NDArray[np.uint8]

DETECTOR = "pose_detection.tflite"
FAST = "pose_landmark_full.tflite"
CLOSE = "pose_landmark_heavy.tflite"
COUNT = 33  # landmarks of a body; the network adds six helpers, of which two place the next square
DETECTOR_PX = 224
CROP_PX = 256
HEAT_CELL_PX = 4
HEAT_REACH = 3
LEAST_SCORE = 0.5
LEAST_OVERLAP = 0.3
ROOM_ABOUT_BODY = 1.25
CLOSER = (2.0, 1.0, 0.6, 0.35)  # sides of what is looked at about a point, in the picture's shorter side
FLESH = 0.07  # of a body's height, beyond its joints
PART, MOST_SMALL = 0.5, 8  # of the shorter side; frames of a clip
ABOUT_BOX = 1.5  # the detector's boxes are about heads and shoulders: a body reaches farther, in their sizes
ANCHOR_LAYERS = ((28, 2), (14, 2), (7, 6))  # cells a side, anchors a cell


@dataclass(frozen=True)
class Square:
    """Where a body is: centre and side in pixels, and its lean in radians."""

    centre: Array
    side: float
    lean: float


@dataclass(frozen=True)
class Body:
    """Landmarks (33, 3): x, y in pixels of the picture and visibility 0 to 1; outline places (8, 2)."""

    landmarks: Array
    outline: Array
    square: Square


class Network:
    """One network, given an image and answering with its outputs by name."""

    def __init__(self, path: Path, threads: int) -> None:
        from ai_edge_litert.interpreter import Interpreter

        self._interpreter: Any = Interpreter(model_path=str(path), num_threads=threads)
        self._interpreter.allocate_tensors()
        self._input = self._interpreter.get_input_details()[0]["index"]
        self._outputs = {out["name"]: out["index"] for out in self._interpreter.get_output_details()}

    def __call__(self, image: npt.NDArray[np.float32]) -> dict[str, npt.NDArray[np.float32]]:
        self._interpreter.set_tensor(self._input, image[None])
        self._interpreter.invoke()
        return {name: self._interpreter.get_tensor(index)[0] for name, index in self._outputs.items()}


class LandmarkFinder:
    """Finds one player's landmarks, picture after picture of a clip."""

    def __init__(
        self, models: Path, landmarker: str = FAST, home: Square | None = None, threads: int = 1
    ) -> None:
        """`home` is where the player stands, if that is known: nobody is looked for elsewhere."""
        self._detector = Network(models / DETECTOR, threads)
        self._landmarker = Network(models / landmarker, threads)
        self._anchors = _anchors()
        self._home = home
        self._tries_left = MOST_SMALL
        self._square: Square | None = None

    def find(self, picture: Picture) -> Body | None:
        """The body in a picture; None without a person."""
        if self._square is None:
            self._square = self._home or self._detect(picture) or self._detect_small(picture)
        if self._square is None:
            return None
        found = self.find_in(picture, self._square)
        self._square = found.square if found else None
        return found

    def find_in(self, picture: Picture, square: Square) -> Body | None:
        """The body in a square of a picture; None without a person there."""
        points, mask, score = self._landmarks(picture, square)
        if score < LEAST_SCORE:
            return None
        own = _square(points[COUNT, :2], points[COUNT + 1, :2])
        return Body(points[:COUNT], outline_points(mask, points), own)

    def find_at(self, picture: Picture, x: float, y: float) -> Body | None:
        """The body on which a point of a picture lies: looked for ever closer, for it may be small."""
        shorter = min(picture.shape[:2])
        for share in CLOSER:
            side = share * shorter
            left, top = max(int(x - side / 2), 0), max(int(y - side / 2), 0)
            part = picture[top : int(y + side / 2), left : int(x + side / 2)]
            square = self._detect(part, np.array([x - left, y - top]))
            body = self.find_in(picture, _moved(square, left, top)) if square else None
            if body and _lies_on(x, y, body):
                return body
        return None

    def _detect_small(self, picture: Picture) -> Square | None:
        """Somebody who is too small in the whole of a picture; looked for in a few frames only."""
        if not self._tries_left:
            return None
        self._tries_left -= 1
        height, width = picture.shape[:2]
        side = int(PART * min(height, width))
        for top in range(0, height - side // 2, side // 2):
            for left in range(0, width - side // 2, side // 2):
                square = self._detect(picture[top : top + side, left : left + side])
                if square is not None:
                    return _moved(square, left, top)
        return None

    def _detect(self, picture: Picture, point: Array | None = None) -> Square | None:
        """The surest body in a picture, or the surest whose upper half a point lies in."""
        height, width = picture.shape[:2]
        scale = DETECTOR_PX / max(height, width)
        small = cv2.resize(
            picture, (round(width * scale), round(height * scale)), interpolation=cv2.INTER_AREA
        )
        left, top = (DETECTOR_PX - small.shape[1]) // 2, (DETECTOR_PX - small.shape[0]) // 2
        letter = np.full((DETECTOR_PX, DETECTOR_PX, 3), -1, np.float32)
        letter[top : top + small.shape[0], left : left + small.shape[1]] = small / 127.5 - 1
        found = self._detector(letter)
        scores = _logistic(found["Identity_1"][:, 0])
        boxes = found["Identity"]
        centres = boxes[:, :2] / DETECTOR_PX + self._anchors
        sizes = boxes[:, 2:4] / DETECTOR_PX
        if point is not None:
            at = (point * scale + [left, top]) / DETECTOR_PX
            scores = np.where((np.abs(centres - at) <= ABOUT_BOX * sizes).all(axis=1), scores, 0.0)
        best = int(scores.argmax())
        if scores[best] < LEAST_SCORE:
            return None
        alike = [
            i
            for i in np.flatnonzero(scores >= LEAST_SCORE)
            if _overlap(centres[best], sizes[best], centres[i], sizes[i]) > LEAST_OVERLAP
        ]
        keypoints = boxes[:, 4:].reshape(-1, 4, 2) / DETECTOR_PX + self._anchors[:, None]
        mean = np.average(keypoints[alike], axis=0, weights=scores[alike]) * DETECTOR_PX
        centre, edge = (mean[:2] - [left, top]) / scale
        return _square(centre, edge)

    def _landmarks(self, picture: Picture, square: Square) -> tuple[Array, PlayerMask, float]:
        scale = CROP_PX / square.side
        cosine, sine = np.cos(square.lean) * scale, np.sin(square.lean) * scale
        into = np.array([[cosine, sine, 0.0], [-sine, cosine, 0.0]])
        into[:, 2] = CROP_PX / 2 - into[:, :2] @ square.centre
        crop = cv2.warpAffine(picture, into, (CROP_PX, CROP_PX), flags=cv2.INTER_LINEAR)
        found = self._landmarker(np.asarray(crop, np.float32) / np.float32(255))
        rows = found["Identity"].reshape(-1, 5)
        places = _refined(rows[:, :2].astype(float), found["Identity_3"])
        back = cv2.invertAffineTransform(into)
        seen = _logistic(rows[:, 3])
        points = np.column_stack([places @ back[:, :2].T + back[:, 2], seen])
        mask = PlayerMask(np.clip(found["Identity_2"][:, :, 0], -SURE, SURE), into)
        return points, mask, float(found["Identity_1"][0])


def _refined(places: Array, heat: npt.NDArray[np.float32]) -> Array:
    """Places (n, 2) moved to the middle of the warmth about them, if the heat map (…, n) has any."""
    side, each = heat.shape[0], np.arange(len(places))
    cells = np.floor(places / HEAT_CELL_PX).astype(int)
    around = np.arange(-HEAT_REACH, HEAT_REACH + 1)
    columns, rows = cells[:, :1] + around, cells[:, 1:] + around
    held = [np.clip(line, 0, side - 1) for line in (columns, rows)]
    warmth = _logistic(heat[held[1][:, :, None], held[0][:, None, :], each[:, None, None]])
    warmth = warmth * (held[1] == rows)[:, :, None] * (held[0] == columns)[:, None, :]
    warm = ((cells >= 0) & (cells < side)).all(axis=1) & (warmth.max(axis=(1, 2)) >= 0.5)
    whole = np.where(warm, warmth.sum(axis=(1, 2)), 1.0)
    middle = np.column_stack(
        [(warmth.sum(axis=1) * columns).sum(axis=1), (warmth.sum(axis=2) * rows).sum(axis=1)]
    )
    refined: Array = np.where(warm[:, None], middle / whole[:, None] * HEAT_CELL_PX, places)
    return refined


def _square(centre: Array, edge: Array) -> Square:
    """The square about a body from the middle of its hips and a point on the circle round the whole of it."""
    reach = edge - centre
    lean = np.pi / 2 - np.arctan2(-reach[1], reach[0])
    return Square(np.asarray(centre, float), 2 * ROOM_ABOUT_BODY * float(np.hypot(*reach)), float(lean))


def _moved(square: Square, left: int, top: int) -> Square:
    return replace(square, centre=square.centre + np.array([left, top]))


def _lies_on(x: float, y: float, body: Body) -> bool:
    """Whether a point lies on a body: in the box about its joints, with some room about it."""
    low, high = body.landmarks[:, :2].min(axis=0), body.landmarks[:, :2].max(axis=0)
    room = FLESH * float((high - low).max())
    return bool((low - room <= [x, y]).all() and ([x, y] <= high + room).all())


def _overlap(a: Array, a_size: Array, b: Array, b_size: Array) -> float:
    """Shared area of two boxes over their joint area."""
    low = np.maximum(a - a_size / 2, b - b_size / 2)
    high = np.minimum(a + a_size / 2, b + b_size / 2)
    shared = float(np.prod(np.clip(high - low, 0, None)))
    return shared / (float(np.prod(a_size) + np.prod(b_size)) - shared + 1e-9)


def _anchors() -> Array:
    """Centres of the detector's anchor boxes, share of the picture, in the order of its outputs."""
    layers = []
    for side, each in ANCHOR_LAYERS:
        rows, columns = np.mgrid[0:side, 0:side]
        centres = np.stack([(columns + 0.5) / side, (rows + 0.5) / side], -1).reshape(-1, 1, 2)
        layers.append(centres.repeat(each, axis=1).reshape(-1, 2))
    return np.concatenate(layers)


def _logistic(value: Any) -> Any:
    return 1 / (1 + np.exp(-np.clip(value, -50, 50)))
