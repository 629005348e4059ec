"""All gauges of a clip."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import DRAWN
from tropometer.swing.gauges.sheet import Sheet
from tropometer.swing.gauges.target import Ends
from tropometer.swing.names import PLANE_OF, View
from tropometer.swing.readings.reading import Reading
from tropometer.swing.scene.scene import Scene


def gauges(
    scene: Scene,
    view: View,
    readings: Sequence[Reading],
    bands: Mapping[tuple[str, str], Ends] | None = None,
) -> list[Gauge]:
    """The gauges of a view's clip, as far as their marks exist; `bands` are the ends of what is asked for."""
    clip, eye = scene.clips[view], scene.eyes.get(view)
    if "address" not in clip.checkpoints or eye is None:
        return []
    sheet = Sheet(scene, clip, eye, readings, bands or {})
    drawn = (gauge for planes, draw in DRAWN if PLANE_OF[view] in planes for gauge in draw(sheet))
    return [gauge for gauge in drawn if gauge.lines or gauge.shapes]
