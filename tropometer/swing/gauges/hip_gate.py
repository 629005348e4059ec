"""The gates that stand at the hips' outer edges at address, and how far a hip has gone through."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.names import CHECKPOINTS


@gauge("frontal")
def hip_gates(sheet: Sheet) -> Iterator[Gauge]:
    """One for either hip; what went through it is no reading by itself."""
    for side in ("trail", "lead"):
        name = f"{side}_hip_edge"
        edge = sheet.place(name, "address")
        moved = sheet.scene.moved(name).t
        spans = []
        for shape in sheet.travel(name, "hip_moved", axis=0):
            column = CHECKPOINTS.index(shape.at)
            value, u95 = float(moved.value[column]), float(moved.u95[column])
            if sheet.eye.scale != "none" and math.isfinite(value) and math.isfinite(u95):
                shape = replace(shape, value=value, u95=u95)
            spans.append(shape)
        yield Gauge(
            id=f"{side}_hip_gate",
            label=f"{side.capitalize()} hip gate",
            lines=() if edge is None else (sheet.upright(edge, "gate"),),
            shapes=tuple(spans),
        )
