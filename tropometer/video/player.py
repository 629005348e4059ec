"""Whose body it is: who plays stands where they stand, whoever else walks through the picture.

The networks follow one body from frame to frame, and go over to another that passes close by. Where most of
the bodies found lie together is the player's place; frames whose body lies elsewhere are looked at once more
there, and what beside them leaves the player's way is nobody's for sure.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import islice
from pathlib import Path

import numpy as np

from tropometer.video.landmarks import CLOSE, COUNT, Array, Body, LandmarkFinder, Picture, Square
from tropometer.video.outline import COUNT as OUTLINE_COUNT
from tropometer.video.proxy import upright_frames

# In sides of the square about a body, which is some 2.3 m: hips go 0.3 m in a swing.
TOGETHER, ASTRAY = 0.08, 0.18
# Hips leave the median of their way, over so large a share of the frames, by 0.024 at most on the demo clips;
# with somebody else's body among them by 0.05 and more. Common practice, no source.
WAY_OVER, OFF_THE_WAY = 0.45, 0.045
MOST_COMPARED = 400  # each with each: a long clip must not fill the memory
NO_SQUARE = (np.nan,) * 4
TALLER = 1.3  # times the player's size, or as much smaller: somebody nearer, or farther away


@dataclass(frozen=True)
class Shown:
    """A point on the player in a frame, that a hand has shown."""

    frame: int
    x: float
    y: float


def save_landmarks(
    proxy: Path,
    target: Path,
    models: Path,
    first: int,
    last: int,
    progress: Callable[[float], None],
    shown: Shown | None = None,
) -> int:
    """Write the player's body in a proxy's frames `first` to `last` as a .npz file of float32.

    The player is who is `shown`, else whoever stands most in one place. It holds `landmarks` (n, 33, 3),
    `outline` (n, 8, 2) and `squares` (n, 4: centre, side, lean), NaN where the player is not seen. Returns in
    how many frames they are.
    """

    def pictures() -> Iterator[Picture]:
        return (picture for picture, _ in islice(upright_frames(proxy), first, last + 1))

    home = _home_of(proxy, models, shown) if shown else None
    bodies = bodies_of_player(
        LandmarkFinder(models, home=home), pictures, lambda done: progress(done / (last - first + 1)), home
    )
    return save(bodies, target)


def _home_of(proxy: Path, models: Path, shown: Shown) -> Square | None:
    picture = next((picture for picture, _ in islice(upright_frames(proxy), shown.frame, None)), None)
    body = None if picture is None else LandmarkFinder(models).find_at(picture, shown.x, shown.y)
    return replace(body.square, lean=0.0) if body else None


def save_closer_landmarks(
    proxy: Path, target: Path, models: Path, first: int, squares: Array, progress: Callable[[float], None]
) -> int:
    """Write the same as `save_landmarks` as the closer network sees it, from frame `first` on.

    It looks in the squares (n, 4) in which the player was found before, and nowhere where they are NaN.
    """
    finder = LandmarkFinder(models, CLOSE)
    bodies: list[Body | None] = []
    for picture, _ in islice(upright_frames(proxy), first, first + len(squares)):
        x, y, side, lean = squares[len(bodies)].tolist()
        body = finder.find_in(picture, Square(np.array([x, y]), side, lean)) if np.isfinite(side) else None
        bodies.append(body)
        progress(len(bodies) / len(squares))
    return save(bodies, target)


def save(bodies: Sequence[Body | None], target: Path, **beside: Array) -> int:
    """Write bodies and what lies `beside` them as arrays; returns how many there are.

    `landmarks` (n, 33, 3), `outline` (n, 8, 2), `squares` (n, 4: centre, side, lean); NaN for nobody.
    """
    nowhere, no_outline = np.full((COUNT, 3), np.nan), np.full((OUTLINE_COUNT, 2), np.nan)
    squares = [
        (*body.square.centre, body.square.side, body.square.lean) if body else NO_SQUARE for body in bodies
    ]
    np.savez(
        target,
        landmarks=np.array([body.landmarks if body else nowhere for body in bodies], np.float32),
        outline=np.array([body.outline if body else no_outline for body in bodies], np.float32),
        squares=np.array(squares, np.float32),
        allow_pickle=False,
        **beside,
    )
    return sum(body is not None for body in bodies)


def _as_row(square: Square) -> tuple[float, ...]:
    x, y = square.centre.tolist()
    return x, y, square.side, square.lean


def bodies_of_player(
    finder: LandmarkFinder,
    pictures: Callable[[], Iterator[Picture]],
    progress: Callable[[int], None] = lambda done: None,
    home: Square | None = None,
) -> list[Body | None]:
    """The player's body in each picture; None where it is not seen, or where it may be somebody else's.

    `home` is where the player stands, if somebody has shown it.
    """
    found: list[Body | None] = []
    for picture in pictures():
        found.append(finder.find(picture))
        progress(len(found))
    home = home or player_s_place([body.square for body in found if body])
    if home is None:
        return found
    strays = {i for i, body in enumerate(found) if body and not _is_at(body.square, home)}
    if not strays:
        return found
    for number, picture in enumerate(pictures()):
        if number in strays:
            near = _nearest(found, strays, number, home)
            body = finder.find_in(picture, near)
            found[number] = body if body and _is_at(body.square, home) else None
    for number in _off_the_way(found, strays, home):
        found[number] = None
    return found


def player_s_place(squares: Sequence[Square]) -> Square | None:
    """Where most bodies lie together; None without any."""
    if not squares:
        return None
    squares = squares[:: 1 + len(squares) // MOST_COMPARED]
    centres = np.array([square.centre for square in squares])
    sides = np.array([square.side for square in squares])
    apart: Array = np.linalg.norm(centres[:, None] - centres[None], axis=2) / sides[:, None]
    alike = np.abs(np.log(sides[:, None] / sides[None])) < np.log(TALLER)
    with_it = (apart < TOGETHER) & alike
    own = with_it[with_it.sum(axis=1).argmax()]
    return Square(np.median(centres[own], axis=0), float(np.median(sides[own])), 0.0)


def _off_the_way(found: Sequence[Body | None], strays: set[int], home: Square) -> set[int]:
    """Frames next to those with somebody else in which the body leaves the way that the player's takes."""
    seen = [i for i, body in enumerate(found) if body]
    centres = np.array([body.square.centre for body in found if body])
    if not seen:
        return set()
    over = max(3, round(WAY_OVER * len(seen)) | 1)
    about = np.pad(centres, ((over // 2, over // 2), (0, 0)), mode="edge")
    way = np.median(np.lib.stride_tricks.sliding_window_view(about, over, axis=0), axis=-1)
    off = np.linalg.norm(centres - way, axis=1) > OFF_THE_WAY * home.side
    left = {i for i, gone in zip(seen, off, strict=True) if gone}
    doubtful: set[int] = set()
    for step in (1, -1):
        for stray in strays:
            beside = stray
            while beside in strays or beside in left:
                doubtful |= {beside} & left
                beside += step
    return doubtful


def _is_at(square: Square, home: Square) -> bool:
    apart = float(np.linalg.norm(square.centre - home.centre)) / home.side
    return apart < ASTRAY and 1 / TALLER < square.side / home.side < TALLER


def _nearest(found: Sequence[Body | None], strays: set[int], number: int, home: Square) -> Square:
    """The player's square in the nearest frame that has it."""
    of_player = [i for i, body in enumerate(found) if body and i not in strays]
    if not of_player:
        return home
    body = found[min(of_player, key=lambda i: abs(i - number))]
    assert body is not None
    return body.square
