"""Carrying a mat over to other clips of the same set-up, checked against their pictures."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np
from django.db.models import QuerySet

from tropometer.server.bench.problems import BadEdit
from tropometer.server.clips.services import alike
from tropometer.server.rooms import local_copy, video

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

FIND_SECONDS = 120
OFFERED = 12
ALIKE = 0.6  # likeness from which a corner counts as found again
LEAST_FOUND = 3
# Pixels on a picture whose shorter side is 720.
APART_PX = 4.0  # corners that moved more differently than this were not moved by the camera
STILL_PX = 1.5


def others_with_mat(clip: Clip) -> QuerySet[Clip]:
    """Ready clips of the instructor from the same side and of the same size that have a mat, newest first."""
    return (
        alike(clip)
        .filter(mat__along_m__isnull=False)
        .select_related("swing__student", "swing__reference", "mat")
    )


def sizes_for(clip: Clip) -> list[dict[str, Any]]:
    """Sizes of mats that this clip's may have, the likeliest first, shaped as `MatSize`.

    The other side of the same swing shows the same mat; then come the places that have a name, as they were
    said last; then clips that look as if they came from the same place.
    """
    other_side = clip.swing.clips.filter(mat__along_m__isnull=False).exclude(pk=clip.pk)
    whose = [(each, "as from the other side") for each in other_side.select_related("mat")]
    named: dict[str, Clip] = {}
    for each in _in_named_places(clip):
        named.setdefault(each.mat.place, each)
    whose += [(each, f"as in {place}") for place, each in named.items()]
    whose += [(each, f"as for {described(each)['title']}") for each in others_with_mat(clip)[:OFFERED]]
    found: dict[tuple[float | None, float | None, str], str] = {}
    sizes = set()
    for each, said in whose:
        size = (each.mat.along_m, each.mat.across_m)
        if each.mat.place or size not in sizes:
            found.setdefault((*size, each.mat.place), said)
        sizes.add(size)
    return [
        {"along_m": along, "across_m": across, "place": place, "said": said}
        for (along, across, place), said in found.items()
    ]


def _in_named_places(clip: Clip) -> list[Clip]:
    """The instructor's clips whose mat lies in a place that has a name, newest first."""
    clips = type(clip).objects.seen_by(clip.instructor).filter(mat__along_m__isnull=False)
    named = clips.exclude(mat__place="").exclude(swing=clip.swing_id)
    return list(named.select_related("mat").order_by("-added_at")[: 4 * OFFERED])


def described(clip: Clip) -> dict[str, Any]:
    """A clip to carry a mat over from, shaped as `SetupOut`."""
    swing = clip.swing
    who = swing.student.name if swing.student else swing.reference.name
    return {"clip_id": clip.pk, "title": f"{who}, {swing.club}", "added_at": clip.added_at}


def carried_over(source: Clip, target: Clip) -> dict[str, Any]:
    """The source's mat as it lies in the target's picture, shaped as `CarriedMat`.

    Raises BadEdit when the pictures do not show the same set-up.
    """
    mat = source.mat
    points = [[corner["x"], corner["y"]] for corner in mat.corners]
    frames = (_address(source), _address(target))
    with local_copy(source.proxy) as here, local_copy(target.proxy) as there:
        said = video(
            "find", here, there, "--frames", *map(str, frames), "--points", str(points), seconds=FIND_SECONDS
        )
        rows = list(said)[-1]["found"]
    unit = min(target.width, target.height) / 720
    moved = np.array(
        [
            [row[0] - x, row[1] - y] if row and row[2] >= ALIKE else [np.nan] * 2
            for row, (x, y) in zip(rows, points, strict=True)
        ]
    )
    seen = np.isfinite(moved[:, 0])
    if seen.sum() < LEAST_FOUND:
        raise BadEdit(
            f"Only {seen.sum()} of the mat's 4 corners lie here as they lie there: "
            "the camera was moved, or something stands before them. Click the corners instead."
        )
    together = np.median(moved[seen], axis=0)
    if float(np.hypot(*(moved[seen] - together).T).max()) > APART_PX * unit:
        raise BadEdit("The camera stood differently in this clip: click the mat's corners instead.")
    moved[~seen] = together
    far = float(np.hypot(*together))
    return {
        "mat": {
            "corners": [
                {"x": x + dx, "y": y + dy} for (x, y), (dx, dy) in zip(points, moved.tolist(), strict=True)
            ],
            "along_m": mat.along_m,
            "across_m": mat.across_m,
            "place": mat.place,
        },
        "said": "The camera stood still: the mat fits."
        if far <= STILL_PX * unit
        else f"The camera had moved by {far:.0f} px; the mat was moved with it.",
    }


def _address(clip: Clip) -> int:
    """The frame to look at: the address if it is pegged, else the swing's first."""
    peg = clip.pegs.filter(name="address").first()
    return peg.frame if peg else clip.window.first
