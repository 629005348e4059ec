"""The register that every gauge enters itself into."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.names import Plane

Draw = Callable[[Sheet], Iterator[Gauge]]
DRAWN: list[tuple[frozenset[Plane], Draw]] = []


def gauge(*planes: Plane) -> Callable[[Draw], Draw]:
    """Register what draws a gauge, or one of it for either side, in clips that show one of these planes."""

    def register(draw: Draw) -> Draw:
        DRAWN.append((frozenset(planes), draw))
        return draw

    return register
