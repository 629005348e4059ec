"""Where a reading can be given, and where not: why, and what would help."""

from __future__ import annotations

import numpy as np

from tropometer.swing.measured import Array
from tropometer.swing.names import CHECKPOINTS, Checkpoint, View, spoken
from tropometer.swing.reading import Kind, Look, Need, Refused
from tropometer.swing.scene.scene import Scene


def usable(scene: Scene, kind: Kind, look: Look, count: int) -> Array:
    """At which moments one set of views has all marks, and nothing was refused."""
    ok = np.zeros(count, bool)
    for views in kind.seen:
        if any(view not in scene.eyes or not _scaled(scene, kind, view) for view in views):
            continue
        having = np.ones(count, bool)
        for name, checkpoint in look.used:
            for view in views:
                has = scene.has(view, name)
                having &= has[scene.here] if checkpoint is None else bool(has[scene.column(checkpoint)])
        ok |= having
    for flags, _ in look.refused:
        ok &= ~np.broadcast_to(flags, ok.shape)
    return ok


def _scaled(scene: Scene, kind: Kind, view: View) -> bool:
    scale = scene.eyes[view].scale
    return kind.scale == "none" or scale == "mat" or (kind.scale == "length" and scale == "length")


def check(scene: Scene, kind: Kind, look: Look, at: Checkpoint) -> None:
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
    for flags, reason in look.refused:
        if np.broadcast_to(flags, len(CHECKPOINTS))[column]:
            raise Refused(reason)


def _missing(scene: Scene, kind: Kind, look: Look, at: Checkpoint, views: tuple[View, ...]) -> list[Refused]:
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
