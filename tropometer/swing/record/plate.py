"""What a pressure plate felt under the feet."""

from __future__ import annotations

from dataclasses import dataclass

from tropometer.swing.arrays import Array

STANDING_N = 100.0  # with less nobody stands on the plate


@dataclass(frozen=True, eq=False, kw_only=True)
class PressurePlate:
    """What a pressure plate felt at n instants of its own clock, on which impact is at `impact_s`.

    Forces (n,) in newtons; places (n, 2) in each shoe, heel 0 to toe 1 and inner edge 0 to outer edge 1.
    """

    times_s: Array
    lead_force_n: Array
    trail_force_n: Array
    impact_s: float
    lead_place: Array | None = None
    trail_place: Array | None = None
    # One standard deviation each; common practice, no source.
    impact_sd_s: float = 0.004
    force_sd_n: float = 12.0
    place_sd: float = 0.02

    def __post_init__(self) -> None:
        """Raises ValueError where a column is of another shape, or a spread is not above nothing."""
        count = len(self.times_s)
        for name, shape in (
            ("lead_force_n", (count,)),
            ("trail_force_n", (count,)),
            ("lead_place", (count, 2)),
            ("trail_place", (count, 2)),
        ):
            column = getattr(self, name)
            if column is not None and column.shape != shape:
                raise ValueError(f"{name} is {column.shape}, and times_s has {count}")
        if min(self.impact_sd_s, self.force_sd_n, self.place_sd) <= 0:
            raise ValueError("a standard deviation of a plate's data is above nothing")
