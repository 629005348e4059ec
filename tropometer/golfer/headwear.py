"""Hair, cap and ponytail. Sizes are metres at a stature of 1.78."""

from __future__ import annotations

import numpy as np

from tropometer.golfer.base_mesh import Floats, Ints, normals
from tropometer.golfer.piece import Piece, material, whole
from tropometer.golfer.rig import Rig

HAIR_THICK = 0.010
CAP_THICK = 0.017
BRIM_LENGTH = 0.075


def eyes(vertices: Floats, groups: dict[str, Ints]) -> Floats:
    """The point (3,) between the eyes."""
    eye = vertices[np.unique(groups["helper-l-eye"])].mean(0)
    return np.array([0, eye[1], eye[2]])


def headwear(
    rig: Rig, vertices: Floats, groups: dict[str, Ints], scale: float, cap: bool, ponytail: bool
) -> list[Piece]:
    """What covers the head."""
    faces, outward = groups["body"], normals(vertices, groups["body"])
    of_head = rig.share(rig.weights, "head")
    scalp = of_head > 0.9
    level = eyes(vertices, groups)[1]
    crown = vertices[scalp & (vertices[:, 1] > level)][:, 2]
    middle = np.array([0, level + 0.03 * scale, (crown.min() + crown.max()) / 2])
    about = (vertices - middle) / scale
    line = _hairline(about)
    plain = np.zeros(len(vertices))
    shown = (of_head[faces] > 0.35).all(1) & (line[faces] > -0.03).any(1)
    kind = np.full(len(vertices), float(material("hair")))
    pieces = [Piece(vertices + outward * (HAIR_THICK * scale), faces[shown], rig.weights, kind, -line, plain)]
    if cap:
        edge = about[:, 1] - 0.018
        shown = (of_head[faces] > 0.9).all(1) & (edge[faces] > -0.03).any(1)
        kind = np.full(len(vertices), float(material("cap")))
        dome = vertices + outward * (CAP_THICK * scale)
        pieces.append(Piece(dome, faces[shown], rig.weights, kind, -edge, plain))
        pieces.append(_brim(rig, vertices[scalp], middle, scale))
    if ponytail:
        back = np.array([0, level + 0.045 * scale, vertices[scalp][:, 2].min() - 0.004 * scale])
        pieces.append(_ponytail(rig, back, scale))
    return pieces


def _hairline(about: Floats) -> Floats:
    """Height (n,) over the hairline: above the brow in front, down to the nape behind, round the ears."""
    over = about[:, 1] - np.interp(
        about[:, 2], [-0.08, -0.02, 0.03, 0.07, 0.1], [-0.062, -0.04, 0.0, 0.05, 0.06]
    )
    aside = np.abs(about[:, 0])
    ear = (aside > 0.071) & (about[:, 1] < 0.03) & (about[:, 1] > -0.08) & (about[:, 2] > -0.05)
    over = np.where(ear, np.minimum(over, -0.02), over)
    line: Floats = np.where(about[:, 1] < 0.0, np.minimum(over, (0.077 - aside) * 2), over)
    return line


def _grid_quads(rows: int, columns: int) -> Ints:
    corner = np.arange((rows - 1) * columns).reshape(rows - 1, columns)[:, : columns - 1].ravel()
    return np.stack([corner, corner + 1, corner + columns + 1, corner + columns], 1)


def _brim(rig: Rig, scalp: Floats, middle: Floats, scale: float) -> Piece:
    front = scalp[np.abs(scalp[:, 1] - (middle[1] + 0.022 * scale)) < 0.012 * scale]
    edge, half = front[:, 2].max() + 0.012 * scale, np.abs(front[:, 0]).max() * 0.86
    columns, rows = 17, 7
    across, out = np.meshgrid(np.linspace(-1, 1, columns), np.linspace(0, 1, rows))
    reach = BRIM_LENGTH * scale * np.sqrt(np.maximum(0, 1 - across**2 * 0.92))
    falls = 0.016 * out + 0.014 * across**2 - 0.003 * np.sin(out * 3.1)
    vertices = np.stack(
        [
            across * half * (1 - 0.10 * out),
            middle[1] + 0.024 * scale - falls * scale,
            edge - BRIM_LENGTH * scale * across**2 + reach * out,
        ],
        -1,
    ).reshape(-1, 3)
    return whole(vertices, _grid_quads(rows, columns)[:, ::-1], rig.hung_on("head", len(vertices)), "cap")


def _ponytail(rig: Rig, start: Floats, scale: float) -> Piece:
    """Tied hair that falls from the back of the head; its end lies on the back."""
    rings, sides = 9, 12
    share = np.linspace(0, 1, rings)
    middle = start + scale * np.stack([0 * share, -0.11 * share**1.3, -0.035 * np.sin(share * 2.4)], 1)
    radius = scale * np.interp(share, [0, 0.12, 0.4, 1], [0.014, 0.028, 0.032, 0.008])
    angle = np.linspace(0, 2 * np.pi, sides, endpoint=False)
    ring = np.stack([np.cos(angle), 0 * angle, np.sin(angle)], 1)
    vertices = (middle[:, None] + radius[:, None, None] * ring).reshape(-1, 3)
    quads = [
        [i * sides + j, i * sides + (j + 1) % sides, (i + 1) * sides + (j + 1) % sides, (i + 1) * sides + j]
        for i in range(rings - 1)
        for j in range(sides)
    ]
    hangs = np.clip((start[1] - vertices[:, 1]) / (0.16 * scale), 0, 1)[:, None]
    count = len(vertices)
    weights = rig.hung_on("head", count) * (1 - hangs) + rig.hung_on("spine_03", count) * hangs
    return whole(vertices, np.array(quads), weights, "hair")
