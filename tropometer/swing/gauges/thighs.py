"""Either thigh, from hip to knee."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, moves, point
from tropometer.swing.gauges.target import Reach, on_floor
from tropometer.swing.names import Checkpoint


@gauge("frontal", "sagittal")
def thighs(sheet: Sheet) -> Iterator[Gauge]:
    """It shows which way the knee points."""
    for side in ("lead", "trail"):
        shapes = [
            sheet.shape(
                at, tuple(map(point, pixels)), "bones", f"knee_points_{side}", _points(sheet, side, at)
            )
            for at, pixels in sheet.each(f"{side}_hip", f"{side}_knee")
        ]
        yield Gauge(id=f"{side}_thigh", label=f"{side.capitalize()} thigh", shapes=tuple(shapes))


def _points(sheet: Sheet, side: str, at: Checkpoint) -> Callable[[float], Reach | None] | None:
    """How a knee goes around the line from ankle to hip, at its own height, as it points elsewhere."""
    hip, knee, ankle = (sheet.place(f"{side}_{part}", at) for part in ("hip", "knee", "ankle"))
    if hip is None or knee is None or ankle is None:
        return None
    share = (knee[2] - ankle[2]) / (hip[2] - ankle[2])
    return moves(on_floor(ankle + share * (hip - ankle), knee))
