"""A pressure mat's cells as two feet: how much is on each, and where in its print.

Which cells are whose foot, and how each foot lies, is learned from where it was loaded before. A print's own
axis is the one along which its load is spread most; how far it reaches is known to a cell, and that is the
error of a place in it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy.ndimage import convolve

from tropometer.swing.arrays import Array, Flags, Frames
from tropometer.swing.live.frames import Frame, Place

LOADED = 0.06  # of the most that a cell has felt: with less it is noise, or the mat that bends
LEAST_TOGETHER = 4  # of a cell and the eight about it: a single one is noise
LEAST_ON_N = 20.0  # a foot with less is in the air, and nowhere in its print
LEAST_CELLS = 8  # of a print: with fewer it says nothing of a place
WINDOW = 1200  # frames after which what was felt once is forgotten by half: somebody stands anew
MOST_CELLS = 8192
ONE_FOOT_M = 0.2  # two are wider, however close they stand
LEAST_CELL_M, MOST_CELL_M = 0.002, 0.05


@dataclass(frozen=True, kw_only=True)
class Grid:
    """How a mat's cells lie: `across` from the player's left to the right, `along` from heels to toes."""

    across: int
    along: int
    cell_m: tuple[float, float]  # a cell's size, across and along

    def __post_init__(self) -> None:
        """Raises ValueError where there are too many cells, or of a size that no mat has."""
        if not 4 <= self.across * self.along <= MOST_CELLS:
            raise ValueError(f"{self.across} by {self.along} are no mat's cells ({MOST_CELLS} at most)")
        if not all(LEAST_CELL_M <= side <= MOST_CELL_M for side in self.cell_m):
            raise ValueError("a mat's cells are 2 to 50 mm wide")

    @property
    def centres(self) -> Array:
        """The cells' centres (n, 2), metres to the right and toward the toes; heels first, left to right."""
        wide, long = self.cell_m
        x = (np.arange(self.across) + 0.5) * wide
        y = (np.arange(self.along) + 0.5) * long
        return np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)


@dataclass(frozen=True, kw_only=True, eq=False)
class Print:
    """A foot's print: its cells, axes toward the toes and outward, where it begins, how far it reaches."""

    cells: Frames  # their numbers, and of those about it
    axes: Array  # (2, 2): toward the toes, outward
    begins: Array  # (2,) along either
    reaches: Array  # (2,)

    def places(self, centres: Array, felt: Array) -> Array:
        """Where in the print the load is (n, 2), heel 0 to toe 1 and inner edge 0 to outer edge 1."""
        load = felt[:, self.cells]
        total = load.sum(axis=1, keepdims=True)
        middle = load @ centres[self.cells] / np.where(total > 0, total, 1.0)
        found: Array = np.where(total > LEAST_ON_N, (middle @ self.axes.T - self.begins) / self.reaches, 0.5)
        return found


class Prints:
    """Learns both prints of whoever stands on a mat, and reads frames by them."""

    def __init__(self, grid: Grid) -> None:
        self.grid = grid
        self._centres = grid.centres
        self._most = np.zeros(len(self._centres))  # each cell; never below nothing

    def frames(self, times_s: list[float], felt: Array) -> Iterator[Frame]:
        """Frames (n, cells) in newtons as feet; `unsure` is one standard deviation of their places."""
        self._most = np.maximum(self._most * 0.5 ** (len(felt) / WINDOW), felt.max(axis=0))
        split = self._split()
        is_left = self._centres[:, 0] < split
        prints = [self._print(is_left, outward=-1.0), self._print(~is_left, outward=1.0)]
        placed = [each.places(self._centres, felt) if each else None for each in prints]
        unsure = max((self._unsure(each) for each in prints if each), default=0.0)
        # What lies outside a print is noise, of many cells.
        own = [each.cells if each else side for each, side in zip(prints, (is_left, ~is_left), strict=True)]
        forces = [felt[:, cells].sum(axis=1) for cells in own]
        for row, time_s in enumerate(times_s):
            yield Frame(
                t_s=time_s,
                left_n=float(forces[0][row]),
                right_n=float(forces[1][row]),
                left=_place(placed[0], row),
                right=_place(placed[1], row),
                unsure=unsure,
            )

    def _split(self) -> float:
        """Between the feet, metres from the mat's left: the middle of the widest gap in what was loaded."""
        loaded = np.flatnonzero(self._loaded().reshape(self.grid.along, self.grid.across).any(axis=0))
        wide = self.grid.cell_m[0]
        if len(loaded) < 2:
            return self.grid.across * wide / 2
        gaps = np.diff(loaded)
        at = int(gaps.argmax())
        if gaps.max() == 1 and len(loaded) * wide < ONE_FOOT_M:
            return self.grid.across * wide / 2  # one foot, on the half of the mat that it is on
        if gaps[at] > 1:
            return float((loaded[at] + loaded[at + 1] + 1) / 2 * wide)
        # The prints touch: between their columns' two halves lies the least load.
        sums = self._most.reshape(self.grid.along, self.grid.across).sum(axis=0)
        first, last = loaded[0], loaded[-1]
        quarter = max(1, (last - first) // 4)
        inner = slice(first + quarter, last - quarter + 1)
        return float((first + quarter + int(sums[inner].argmin()) + 0.5) * wide)

    def _loaded(self) -> Flags:
        """Which cells were ever stood on (cells,)."""
        over = (self._most > LOADED * max(float(self._most.max()), 1e-9)).reshape(
            self.grid.along, self.grid.across
        )
        together = convolve(over.astype(int), np.ones((3, 3), int), mode="constant")
        found: Flags = (over & (together >= LEAST_TOGETHER)).ravel()
        return found

    def _print(self, side: Flags, outward: float) -> Print | None:
        cells = np.flatnonzero(self._loaded() & side)
        if len(cells) < LEAST_CELLS:
            return None
        at = self._centres[cells]
        # How the print lies is told by its shape, not by where on it somebody stands.
        _, axes = np.linalg.eigh(np.cov(at.T))
        toes = axes[:, 1] * (1.0 if axes[1, 1] >= 0 else -1.0)
        out = np.array([toes[1], -toes[0]])
        out = out * (1.0 if out[0] * outward >= 0 else -1.0)
        both = np.stack([toes, out])
        along = at @ both.T
        half = self._half(both)
        begins = along.min(axis=0) - half
        reaches = along.max(axis=0) + half - begins
        # A sole's edge is hardly loaded, and counts: cells a little outside are the foot's too.
        beside = self._centres @ both.T - begins
        near = (beside > -3 * half) & (beside < reaches + 3 * half)
        return Print(cells=np.flatnonzero(near.all(axis=1) & side), axes=both, begins=begins, reaches=reaches)

    def _half(self, axes: Array) -> Array:
        """Half a cell, measured along axes (2, 2)."""
        half: Array = np.abs(axes) @ np.array(self.grid.cell_m) / 2
        return half

    def _unsure(self, one: Print) -> float:
        """A print ends anywhere in its last cell, at either end."""
        ends = 2 * self._half(one.axes) / math.sqrt(12) / one.reaches
        return float(ends.max())


def _place(placed: Array | None, row: int) -> Place | None:
    return None if placed is None else (float(placed[row, 0]), float(placed[row, 1]))
