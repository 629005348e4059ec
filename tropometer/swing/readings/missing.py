"""What a reading of marks lacks: where it can be given, where not and why, and what would help."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from tropometer.swing.arrays import Flags
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View, spoken
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.presence import Presence
from tropometer.swing.readings.reading import Need, Refused
from tropometer.swing.scene.scene import Scene


def usable(presence: Presence, kinds: Sequence[FromMarks], looks: Sequence[Look]) -> Flags:
    """Where one set of views has all marks, and nothing was refused (readings, moments)."""
    scene = presence.scene
    count = scene.count
    found = np.zeros((len(kinds), count), bool)
    for i, (ok, kind, look) in enumerate(zip(found, kinds, looks, strict=True)):
        for views in kind.seen:
            if all(view in scene.eyes and _scaled(scene, kind, view) for view in views):
                first, *others = (presence.complete[view][i] for view in views)
                ok |= np.logical_and(first, *others) if others else first
        for flags, _ in look.refused:
            ok &= ~flags
    return found


def _scaled(scene: Scene, kind: FromMarks, view: View) -> bool:
    scale = scene.eyes[view].scale
    return kind.scale == "none" or scale == "mat" or (kind.scale == "length" and scale == "length")


def check(scene: Scene, kind: FromMarks, look: Look, at: Checkpoint) -> None:
    """Refused with all that is missing, by the set of views that misses least."""
    tries = [_missing(scene, kind, look, at, views) for views in kind.seen]
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
        side = spoken(view).replace("face on", "face-on")
        several = len(scene.clips) > 1
        clip = scene.clips.get(view)
        if clip is None:
            miss(f"Needs a {side.replace(' ', '-')} clip.", Need("view", view, view=view))
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
            elif frame not in clip.marks.get(name, {}):
                words = f"Mark the {spoken(name)} at {spoken(moment)} (frame {frame}{where})."
                miss(words, Need("mark", name, moment, view))
    return found
