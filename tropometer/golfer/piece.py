"""One piece of the golfer's surface: cloth, skin, hair or a shoe."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints

Material = Literal["skin", "shirt", "trousers", "shoe", "sole", "hair", "eye", "cap", "glove", "belt"]
# The numbers by which the shaders know them; also the order of a person's colours.
MATERIALS: tuple[Material, ...] = (
    "skin", "shirt", "trousers", "shoe", "sole", "hair", "eye", "cap", "glove", "belt",
)  # fmt: skip


def material(name: Material) -> int:
    """The shaders' number of a material."""
    return MATERIALS.index(name)


@dataclass(frozen=True)
class Piece:
    """Vertices (n, 3), quads (m, 4), bone weights (n, bones), material numbers (n,).

    `cut` is positive where the piece is not drawn: a hem, a neckline, a hairline. `tint` is what the
    shader colours by: along a sleeve, or above the belt.
    """

    vertices: Floats
    quads: Ints
    weights: Floats
    materials: Floats
    cut: Floats
    tint: Floats


def whole(vertices: Floats, quads: Ints, weights: Floats, of: Material, tint: Floats | None = None) -> Piece:
    """A piece of one material without a cut."""
    count = len(vertices)
    return Piece(
        vertices,
        quads,
        weights,
        np.full(count, float(material(of))),
        np.full(count, -1.0),
        np.zeros(count) if tint is None else tint,
    )
