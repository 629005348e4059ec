"""What a reading of marks lacks: where it can be given, where not and why, and what would help."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import product

import numpy as np

from tropometer.swing.arrays import Flags
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, USUAL_VIEW, Checkpoint, Plane, View, spoken
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.not_shown import not_shown
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.reading import Need, Refused
from tropometer.swing.scene.scene import Scene


def usable(presence: Presence, kinds: Sequence[FromMarks], looks: Sequence[Look]) -> Flags:
    """Where one set of views has all marks, and nothing was refused (readings, moments)."""
    scene = presence.scene
    count = scene.count
    found = np.zeros((len(kinds), count), bool)
    for i, (ok, kind, look) in enumerate(zip(found, kinds, looks, strict=True)):
        for views in sets_of_views(scene, kind):
            if all(view in scene.eyes and _scaled(scene, kind, view) for view in views):
                first, *others = (presence.complete[view][i] for view in views)
                ok |= np.logical_and(first, *others) if others else first
        for flags, _ in look.refused:
            ok &= ~flags
    return found


def sets_of_views(scene: Scene, kind: FromMarks) -> Iterator[tuple[View, ...]]:
    """The sets of views of which one must have all that a reading needs, best first.

    Of a plane that nobody filmed, the view that usually shows it stands for it.
    """
    for planes in kind.seen:
        yield from product(*(_views_that_show(scene, plane) for plane in planes))


def _views_that_show(scene: Scene, plane: Plane) -> list[View]:
    filmed = [view for view in scene.clips if PLANE_OF[view] == plane]
    return filmed or [USUAL_VIEW[plane]]


def _scaled(scene: Scene, kind: FromMarks, view: View) -> bool:
    scale = scene.eyes[view].scale
    return kind.scale == "none" or scale == "mat" or (kind.scale == "length" and scale == "length")


def check(scene: Scene, kind: FromMarks, look: Look, at: Checkpoint) -> None:
    """Refused with all that is missing, by the set of views that misses least."""
    tries = [_missing(scene, kind, look, at, views) for views in sets_of_views(scene, kind)]
    missing = min(tries, key=lambda each: (any(n.kind == "view" for m in each for n in m.needs), len(each)))
    if missing:
        first, *others = missing
        raise Refused(
            first.reason + (f" ({len(others)} more to do)" if others else ""),
            *(need for each in missing for need in each.needs),
        )
    column = CHECKPOINTS.index(at)
    for flags, why in look.refused:
        if np.broadcast_to(flags, len(CHECKPOINTS))[column]:
            raise why


def _missing(
    scene: Scene, kind: FromMarks, look: Look, at: Checkpoint, views: tuple[View, ...]
) -> list[Refused]:
    found: list[Refused] = []

    def miss(reason: str, *needs: Need) -> None:
        if all(each.reason != reason for each in found):
            found.append(Refused(reason, *needs))

    for view in views:
        side = seen_from(view)
        several = len(scene.clips) > 1
        clip = scene.clips.get(view)
        if clip is None:
            miss(f"Needs a {_of_clip(view)} clip.", Need("view", view, view=view))
            continue
        if view in scene.troubles:
            miss(scene.troubles[view], Need("mat", view=view))
        elif not _scaled(scene, kind, view):
            if kind.scale == "mat":
                miss("Set the corners of the mat: this is measured on the floor.", Need("mat", view=view))
            else:
                words = "Set a known length in the picture, or the corners of the mat."
                miss(words, Need("known_length", view=view))
        for name, checkpoint in look.used:
            moment = checkpoint or at
            frame = clip.checkpoints.get(moment)
            where = f", {side}" if several else ""
            if frame is None:
                miss(f"Set the {spoken(moment)} peg{where}.", Need("peg", moment, moment, view))
            elif frame in clip.hidden.get(name, ()):
                miss(f"The {spoken(name)} was hidden at {spoken(moment)} (frame {frame}{where}).")
            elif frame in clip.marks.get(name, {}):
                continue
            elif not_shown(name, view) and view != USUAL_VIEW[PLANE_OF[view]]:
                usual = USUAL_VIEW[PLANE_OF[view]]
                words = f"The {spoken(name)} is not seen {side}: needs a {_of_clip(usual)} clip."
                miss(words, Need("view", usual, view=usual))
            else:
                words = f"Mark the {spoken(name)} at {spoken(moment)} (frame {frame}{where})."
                miss(words, Need("mark", name, moment, view))
    return found


def seen_from(view: View) -> str:
    """A view as it is said where something is seen from: "face-on", "up the line".

    From behind, which many say of down the line, is "back-on".
    """
    return spoken(view).replace("face on", "face-on").replace("from behind", "back-on")


def _of_clip(view: View) -> str:
    return seen_from(view).replace(" ", "-")
