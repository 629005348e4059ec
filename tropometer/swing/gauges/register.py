"""The register that every gauge enters itself into."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.names import View

Draw = Callable[[Sheet], Iterator[Gauge]]
DRAWN: list[tuple[frozenset[View], Draw]] = []


def gauge(*views: View) -> Callable[[Draw], Draw]:
    """Register what draws a gauge, or one of it for either side, in clips of these views."""

    def register(draw: Draw) -> Draw:
        DRAWN.append((frozenset(views), draw))
        return draw

    return register
