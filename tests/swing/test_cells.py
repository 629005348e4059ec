"""A mat's cells as two feet, against soles whose load is known by the formula of a rigid sole."""

from __future__ import annotations

import json

import numpy as np
from django.test import SimpleTestCase

from tropometer.swing.arrays import Array
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.formats.live import Cells, Hello, read_line
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.live.cells import Grid, Prints
from tropometer.swing.record.plate import PressurePlate

FINE_M = 0.001
LENGTH_M, HEEL_M, BALL_M = (
    0.28,
    0.033,
    0.048,
)  # of a sole: its length, and half its breadth behind and in front
GRID = Grid(across=80, along=44, cell_m=(0.01, 0.01))


class Sole:
    """A left or right sole on the mat, turned out by its flare; points (n, 2), and where each is in it."""

    def __init__(self, middle: tuple[float, float], flare_deg: float, side: str) -> None:
        u, v = np.meshgrid(np.arange(0, LENGTH_M, FINE_M), np.arange(-0.06, 0.06, FINE_M), indexing="ij")
        along = u / LENGTH_M
        half = HEEL_M + (BALL_M - HEEL_M) * np.clip((along - 0.2) / 0.5, 0, 1)
        rounded = np.sqrt(np.clip(1 - np.clip((np.abs(along - 0.5) - 0.36) / 0.14, 0, 1) ** 2, 0, 1))
        inside = np.abs(v) <= half * rounded
        self.u, self.v = u[inside], v[inside]  # toward the toes, outward
        out = -1.0 if side == "left" else 1.0
        turn = np.radians(flare_deg) * out
        toes, outward = np.array([np.sin(turn), np.cos(turn)]), out * np.array([np.cos(turn), -np.sin(turn)])
        self.points = middle + (self.u[:, None] - LENGTH_M / 2) * toes + self.v[:, None] * outward
        self.breadth = self.v.min(), self.v.max()

    def load(self, force_n: float, place: tuple[float, float]) -> tuple[Array, tuple[float, float]]:
        """Newtons on each point, and the place they have: a rigid sole is loaded linearly (Navier)."""
        u, v = self.u - self.u.mean(), self.v - self.v.mean()
        pull = np.array([(place[0] - 0.5) * LENGTH_M, (place[1] - 0.5) * np.ptp(self.breadth)])
        a, b = np.linalg.solve(np.cov(np.stack([u, v]), bias=True), pull)
        pressure = np.clip(1 + a * u + b * v, 0.02, None)
        pressure *= force_n / pressure.sum()
        low, high = self.breadth
        found = (
            float((pressure @ self.u) / force_n / LENGTH_M),
            float(((pressure @ self.v) / force_n - low) / (high - low)),
        )
        return pressure, found


def on_cells(sole: Sole, pressure: Array) -> Array:
    columns = (sole.points[:, 0] / GRID.cell_m[0]).astype(int)
    rows = (sole.points[:, 1] / GRID.cell_m[1]).astype(int)
    felt = np.zeros(GRID.across * GRID.along)
    np.add.at(felt, rows * GRID.across + columns, pressure)
    return felt


class CellsTests(SimpleTestCase):
    def test_feet_are_found_in_the_cells_and_their_places_to_their_error(self) -> None:
        chance = np.random.default_rng(11)
        off: list[Array] = []
        for _ in range(6):
            stance, flare = chance.uniform(0.3, 0.55), chance.uniform(0, 30, 2)
            middle = np.array([0.4, 0.22]) + chance.uniform(-0.03, 0.03, 2)
            soles = [
                Sole((float(middle[0] + side * stance / 2), float(middle[1])), float(turned), name)
                for side, turned, name in ((-1, flare[0], "left"), (1, flare[1], "right"))
            ]
            prints = Prints(GRID)
            for number in range(15):
                forces = chance.uniform(150, 600, 2)
                wanted = chance.uniform(0.35, 0.65, (2, 2))
                loads = [sole.load(f, tuple(w)) for sole, f, w in zip(soles, forces, wanted, strict=True)]
                on_it = [on_cells(sole, load) for sole, (load, _) in zip(soles, loads, strict=True)]
                felt = np.sum(on_it, axis=0) + chance.normal(0, 0.05, GRID.across * GRID.along)
                (frame,) = prints.frames([number / 100], felt[None])
                self.assertLess(abs(frame.left_n - forces[0]), 12)
                self.assertLess(abs(frame.right_n - forces[1]), 12)
                if number < 5:  # it has to see the soles first
                    continue
                assert frame.left is not None and frame.right is not None
                true = np.array([place for _, place in loads])
                sd = np.hypot(frame.unsure, PressurePlate.place_sd)
                off.append((np.array([frame.left, frame.right]) - true) / sd)
        beside = np.abs(np.concatenate(off)).ravel()
        self.assertGreater((beside < NORMAL_95).mean(), 0.95)
        self.assertLess(float(np.median(beside)), 1.0)

    def test_coarser_cells_say_less_surely_where(self) -> None:
        soles = [Sole((0.2, 0.22), 10, "left"), Sole((0.6, 0.22), 20, "right")]
        coarse = Grid(across=40, along=22, cell_m=(0.02, 0.02))
        felt = np.sum([on_cells(sole, sole.load(400, (0.5, 0.5))[0]) for sole in soles], axis=0)
        doubled = felt.reshape(22, 2, 40, 2).sum(axis=(1, 3)).ravel()
        (one,) = Prints(GRID).frames([0.0], felt[None])
        (other,) = Prints(coarse).frames([0.0], doubled[None])
        self.assertGreater(other.unsure, 1.5 * one.unsure)

    def test_nobody_on_the_mat_is_nobody(self) -> None:
        (frame,) = Prints(GRID).frames([0.0], np.zeros((1, GRID.across * GRID.along)))
        self.assertEqual((frame.left_n, frame.right_n, frame.left, frame.right), (0.0, 0.0, None, None))

    def test_lines_of_cells_are_read_and_nonsense_is_named(self) -> None:
        grid = {"across": 3, "along": 2, "cell_mm": [10, 12]}
        hello = {"type": "hello", "version": 1, "device": "plate", "grid": grid}
        told = read_line(json.dumps(hello))
        assert isinstance(told, Hello)
        self.assertEqual(told.grid, Grid(across=3, along=2, cell_m=(0.01, 0.012)))
        cells = read_line(json.dumps({"type": "cells", "t": [1, 2], "cells": [[1, 2, 3, 4, 5, 6]] * 2}))
        assert isinstance(cells, Cells)
        self.assertEqual(cells.felt.shape, (2, 6))
        wrong: list[tuple[dict[str, object], str]] = [
            ({"t": [1], "cells": [[1, 2], [3, 4]]}, "cells.cells: t has 1"),
            ({"t": [1, 2], "cells": [[1, 2], [3]]}, "cells.cells: not every frame"),
            ({"t": [1], "cells": [["1", "2"]]}, "cells.cells: each frame is a list of newtons"),
            ({"t": [1], "cells": [[1, 1e7]]}, "cells.cells: no cell feels more"),
            ({"t": ["x"], "cells": [[1]]}, "cells.t"),
        ]
        for body, words in wrong:
            with self.subTest(words), self.assertRaisesMessage(RecordError, words):
                read_line(json.dumps({"type": "cells", **body}))
        kinds: list[object] = [[], {}, None, 1, "grid"]
        for kind in kinds:
            with self.subTest(kind), self.assertRaisesMessage(RecordError, "type: one of hello"):
                read_line(json.dumps({"type": kind}))
        with self.assertRaisesMessage(RecordError, "hello.grid"):
            read_line(json.dumps({**hello, "grid": {**grid, "cell_mm": [0.1, 10]}}))
