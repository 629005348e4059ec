"""The errors of a scene's places: in which order they come, and what each comes from."""

from __future__ import annotations

from functools import lru_cache

from tropometer.swing.error.source import HERE, Source, Sources, sources
from tropometer.swing.names import Checkpoint, View
from tropometer.swing.scene.fuse import DEPTH, OF_A_VIEW
from tropometer.swing.scene.usual import kept_as, part_of

KEPT = 2  # after those of depth: what is always unusual about it, along T and along B


@lru_cache(maxsize=1024)
def sources_of(
    name: str, at: Checkpoint | None, views: tuple[View, ...], by_mat: bool, paired: bool
) -> Sources:
    """What each of a scene's errors of a place comes from; `at` is None at the moment itself."""
    when = at or HERE
    widths = [(Source("depth", name, when), DEPTH)]
    widths += [(Source("depth", kept_as(name, axis), along=along), 1) for axis, along in enumerate("TB")]
    for view in views:
        of_a_view = {
            "mark": Source("mark", name, when, view),
            "eye": Source("eye", name, view=view),
            "camera": Source("camera", view=view),
            "stand": Source("stand", view=view),
            "moment": Source("moment", at=when, view=view),
        }
        widths += [
            (of_a_view[kind], width) for kind, width in OF_A_VIEW.items() if not (paired and kind == "eye")
        ]
    if by_mat:
        widths.append((Source("mat", "along the target line"), 1))
    if paired:
        # Which joint of the two, and from which side, no longer comes apart.
        widths.append((Source("eye", f"both {part_of(name)}s"), 2 * len(views) * OF_A_VIEW["eye"]))
    return sources(*widths)


@lru_cache(maxsize=16)
def rows_of(kind: str, views: int) -> list[int]:
    """Which of a scene's errors of a place are of one kind, in all of its views."""
    kinds = list(OF_A_VIEW)
    first = DEPTH + KEPT + sum(OF_A_VIEW[each] for each in kinds[: kinds.index(kind)])
    whole = sum(OF_A_VIEW.values())
    return [first + view * whole + i for view in range(views) for i in range(OF_A_VIEW[kind])]


@lru_cache(maxsize=16)
def rows_but(kind: str, views: int, count: int) -> list[int]:
    """All of so many errors of a place but those of one kind, in so many views."""
    without = rows_of(kind, views)
    return [row for row in range(count) if row not in without]
