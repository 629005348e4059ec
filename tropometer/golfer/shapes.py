"""Small lit meshes: tubes, spheres and clubs, as rows of position, normal, colour."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from tropometer.golfer.settings import Club

Floats = npt.NDArray[np.float64]
Mesh = npt.NDArray[np.float32]
Colour = tuple[float, float, float]
Point = tuple[float, float, float] | Floats

STEEL: Colour = (0.62, 0.63, 0.66)
RUBBER: Colour = (0.05, 0.05, 0.055)
FORGED: Colour = (0.55, 0.56, 0.60)
PAINTED: Colour = (0.06, 0.06, 0.075)
GRIP_LENGTH_M = 0.27
# An iron's outline from the heel, along the toe and up the face, metres.
IRON_OUTLINE = (
    (-0.008, -0.014),
    (-0.006, 0.024),
    (0.035, 0.036),
    (0.068, 0.052),
    (0.078, 0.042),
    (0.078, 0.004),
    (0.066, -0.016),
    (0.02, -0.019),
)
IRON_LIE, WOOD_LIE = np.radians(62), np.radians(57)
LOFT: dict[Club, float] = {"wedge": np.radians(46), "mid_iron": np.radians(32), "driver": np.radians(10)}


def mesh(places: Floats, normals: Floats, triangles: npt.NDArray[np.int64], colour: Colour) -> Mesh:
    """Unroll triangles (m, 3) into rows of position, normal, colour."""
    corners = triangles.ravel()
    rows = [places[corners], normals[corners], np.tile(colour, (len(corners), 1))]
    return np.concatenate(rows, axis=1).astype("f4")


def tube(start: Point, end: Point, radius: float, end_radius: float, colour: Colour, sides: int = 14) -> Mesh:
    """A tapered tube with closed ends."""
    a, b = np.array(start, float), np.array(end, float)
    way = (b - a) / np.linalg.norm(b - a)
    x = np.cross(way, [0.3, 0.9, 0.2])
    x /= np.linalg.norm(x)
    angle = np.linspace(0, 2 * np.pi, sides, endpoint=False)[:, None]
    round_ = np.cos(angle) * x + np.sin(angle) * np.cross(way, x)
    i = np.arange(sides)
    j = (i + 1) % sides
    wall = np.concatenate([np.stack([i, j, sides + j], 1), np.stack([i, sides + j, sides + i], 1)])
    places = np.concatenate([a + round_ * radius, b + round_ * end_radius])
    parts = [mesh(places, np.concatenate([round_, round_]), wall, colour)]
    for middle, size, out in ((a, radius, -way), (b, end_radius, way)):
        disc = np.concatenate([middle + round_ * size, middle[None]])
        fan = np.stack([i, j, np.full(sides, sides)], 1)
        parts.append(mesh(disc, np.tile(out, (sides + 1, 1)), fan, colour))
    return np.concatenate(parts)


def ball(radius: float, colour: Colour) -> Mesh:
    """A sphere about the origin."""
    return ellipsoid(np.zeros(3), np.full(3, radius), colour, np.eye(3))


def ellipsoid(middle: Floats, radii: Floats, colour: Colour, axes: Floats, rings: int = 16) -> Mesh:
    """An ellipsoid with radii (3,) along axes (3, 3) in columns."""
    u, v = np.meshgrid(np.linspace(0, 2 * np.pi, 2 * rings + 1), np.linspace(0, np.pi, rings + 1))
    on_sphere = np.stack([np.cos(u) * np.sin(v), np.cos(v), np.sin(u) * np.sin(v)], -1).reshape(-1, 3)
    row = 2 * rings + 1
    k = (np.arange(rings)[:, None] * row + np.arange(2 * rings)).ravel()
    triangles = np.concatenate([np.stack([k, k + 1, k + row], 1), np.stack([k + 1, k + row + 1, k + row], 1)])
    normals = on_sphere / radii
    normals /= np.linalg.norm(normals, axis=1, keepdims=True)
    return mesh((on_sphere * radii) @ axes.T + middle, normals @ axes.T, triangles, colour)


def club(kind: Club, length: float) -> Mesh:
    """A club: origin at the butt, y along the shaft toward the head, x out of the face."""
    shaft = [
        tube((0, 0, 0), (0, GRIP_LENGTH_M, 0), 0.0135, 0.0095, RUBBER),
        tube((0, GRIP_LENGTH_M, 0), (0, length - 0.03, 0), 0.0068, 0.0048, STEEL),
    ]
    head = _wood_head(length) if kind == "driver" else _iron_head(length, LOFT[kind])
    return np.concatenate(shaft + head)


def _head_axes(lie: float) -> tuple[Floats, Floats]:
    """Toward the toe, and toward the crown."""
    return np.array([0, np.cos(lie), np.sin(lie)]), np.array([0, -np.sin(lie), np.cos(lie)])


def _iron_head(length: float, loft: float) -> list[Mesh]:
    toe, crown = _head_axes(IRON_LIE)
    heel = np.array([0, length - 0.02, 0])
    out = np.array([np.cos(loft), 0, 0]) + np.sin(loft) * crown
    up = np.array([-np.sin(loft), 0, 0]) + np.cos(loft) * crown
    outline = np.array([heel + toe * along + up * high for along, high in IRON_OUTLINE])
    front, back = outline + out * 0.006, outline - out * 0.008
    count = len(outline)
    i = np.arange(1, count - 1)
    fan = np.stack([np.zeros_like(i), i, i + 1], 1)
    parts = [
        mesh(front, np.tile(out, (count, 1)), fan, FORGED),
        mesh(back, np.tile(-out, (count, 1)), fan, FORGED),
        tube((0, length - 0.085, 0), heel, 0.0075, 0.0085, STEEL),
    ]
    for a, b in zip(range(count), [*range(1, count), 0], strict=True):
        side = np.cross(outline[b] - outline[a], out)
        side /= np.linalg.norm(side)
        edge = np.array([front[a], front[b], back[b], back[a]])
        parts.append(mesh(edge, np.tile(side, (4, 1)), np.array([[0, 1, 2], [0, 2, 3]]), FORGED))
    return parts


def _wood_head(length: float) -> list[Mesh]:
    toe, crown = _head_axes(WOOD_LIE)
    middle = np.array([-0.035, length - 0.02, 0]) + toe * 0.045 + crown * 0.008
    axes = np.stack([[1, 0, 0], crown, toe], 1)
    return [
        ellipsoid(middle, np.array([0.058, 0.030, 0.058]), PAINTED, axes, 14),
        tube((0, length - 0.09, 0), (0, length - 0.02, 0), 0.0075, 0.010, RUBBER),
    ]
