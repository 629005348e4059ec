"""What kind of club it is, by how long its shaft was measured at address."""

from __future__ import annotations

from tropometer.swing.error.source import Source
from tropometer.swing.names import ClubClass
from tropometer.swing.scene.place import length_of
from tropometer.swing.scene.scene import Scene

# From the middle of the hands, some 10 cm below the butt, to the head: wedges are 0.89 to 0.91 m long, irons
# to 0.98, woods to 1.10, drivers longer; common practice, no source.
UP_TO_M: tuple[tuple[float, ClubClass], ...] = (
    (0.815, "wedge"),
    (0.895, "iron"),
    (1.015, "wood"),
    (2.0, "driver"),
)
SHORTEST_M = 0.6


def propose_club_class(scene: Scene) -> ClubClass | None:
    """The one kind whose lengths hold the whole interval of the measured one; None where there is no such."""
    way = scene.at("grip", "address").minus(scene.at("club_head", "address"))
    long = length_of(way, Source("depth", "how the shaft stands", "address"))
    least, most = float(long.value - long.u95), float(long.value + long.u95)
    begins = SHORTEST_M
    for ends, kind in UP_TO_M:
        if begins <= least and most <= ends:
            return kind
        begins = ends
    return None
