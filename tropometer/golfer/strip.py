"""A frame strip: the frame's number painted into the picture as sixteen black or white blocks.

Tests read it back from the canvas to prove that the frame drawn is the frame named.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

BLOCK_PX = 32
MARGIN_PX = 8
BITS = 16


def paint(frame: npt.NDArray[np.uint8], number: int) -> None:
    """Paint `number` into the top left of an RGB frame (h, w, 3), most significant bit first, in place."""
    frame[: BLOCK_PX + 2 * MARGIN_PX, : BITS * BLOCK_PX + 2 * MARGIN_PX] = 128
    for bit in range(BITS):
        left = MARGIN_PX + bit * BLOCK_PX
        level = 235 if number >> (BITS - 1 - bit) & 1 else 16
        frame[MARGIN_PX : MARGIN_PX + BLOCK_PX, left : left + BLOCK_PX] = level


def read(frame: npt.NDArray[np.uint8]) -> int:
    """The number painted into an RGB frame (h, w, 3)."""
    row = frame[MARGIN_PX + BLOCK_PX // 2]
    number = 0
    for bit in range(BITS):
        number = number * 2 + int(row[MARGIN_PX + bit * BLOCK_PX + BLOCK_PX // 2].mean() > 128)
    return number
