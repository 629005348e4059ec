"""How much moves from each frame to the next: one figure a frame, from which swings are found."""

from __future__ import annotations

import cv2
import numpy as np
import numpy.typing as npt

LONG_SIDE_PX = 160
BLOCK_PX = 8
LIVELIEST_SHARE = 0.05


class MovementMeter:
    """Compares small grey pictures block by block, and tells what moves from what merely flickers."""

    def __init__(self) -> None:
        self._before: npt.NDArray[np.float32] | None = None
        self._changes: list[npt.NDArray[np.float32]] = []

    def add(self, picture: npt.NDArray[np.uint8]) -> None:
        """Note one RGB frame (h, w, 3), whatever its size."""
        scale = LONG_SIDE_PX / max(picture.shape[:2])
        rows, columns = (max(1, round(side * scale / BLOCK_PX)) for side in picture.shape[:2])
        size = (columns * BLOCK_PX, rows * BLOCK_PX)
        small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
        grey = cv2.cvtColor(small, cv2.COLOR_RGB2GRAY).astype(np.float32)
        change = np.abs(grey - (grey if self._before is None else self._before))
        blocks = change.reshape(rows, BLOCK_PX, columns, BLOCK_PX).mean(axis=(1, 3))
        self._changes.append(blocks.ravel())
        self._before = grey

    def found(self) -> list[float]:
        """Movement of each frame against the one before, grey levels; 0 for the first.

        The mean change of the liveliest blocks, less that of the middle block: a shaking hand or a cloud
        changes all blocks and cancels. What a block usually does (noise, leaves) counts for nothing.
        """
        changes = np.array(self._changes)
        unusual = np.maximum(changes - np.median(changes, axis=0), 0)
        ranked = np.sort(unusual, axis=1)
        liveliest = ranked[:, -max(1, round(ranked.shape[1] * LIVELIEST_SHARE)) :]
        moved = np.maximum(liveliest.mean(axis=1) - np.median(ranked, axis=1), 0)
        return [round(float(each), 3) for each in moved]
