"""Teaching models: the bands an instructor teaches to. Every band is common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

Standing = Literal["inside", "edge", "below", "above", "undecided"]


@dataclass(frozen=True)
class Band:
    """What a school asks of a reading at a checkpoint, in the reading's unit."""

    reading: str
    at: str  # a checkpoint, or what a reading without one is of
    low: float
    high: float

    def standing(self, value: float, u95: float) -> Standing:
        """Where a value stands: `edge` when its interval holds a limit, `undecided` when it holds both."""
        touches_low = value - u95 < self.low < value + u95
        touches_high = value - u95 < self.high < value + u95
        if touches_low and touches_high:
            return "undecided"
        if touches_low or touches_high:
            return "edge"
        if value <= self.low:
            return "below"
        return "above" if value >= self.high else "inside"


@dataclass(frozen=True)
class School:
    """A way of teaching the pelvis going back."""

    id: str
    name: str
    about: str
    bands: tuple[Band, ...]

    def band(self, reading: str, at: str) -> Band | None:
        """The band for a reading at a checkpoint, if this school has one."""
        return self._by_place.get((reading, at))

    @cached_property
    def _by_place(self) -> dict[tuple[str, str], Band]:
        return {(band.reading, band.at): band for band in reversed(self.bands)}


_COMMON = (
    Band("stance_ratio", "address", 0.95, 1.35),
    Band("pelvis_offset", "address", 0.0, 0.05),
    Band("pelvis_turn", "top", 38.0, 52.0),
    Band("shoulder_turn", "top", 80.0, 105.0),
    Band("heel_lift_lead", "top", -0.01, 0.03),
    Band("lead_leg_lean", "arm_down", -6.0, 6.0),
    Band("pelvis_turn", "impact", -55.0, -25.0),
    Band("pelvis_depth", "impact", -0.08, 0.01),
    Band("tempo", "swing", 2.5, 3.5),
    Band("pelvis_sway", "impact", 0.03, 0.12),
    Band("trail_hip_gap", "impact", 0.10, 0.28),
    Band("trail_hip_gap_share", "impact", 1.2, 3.0),
)

SCHOOLS: dict[str, School] = {
    school.id: school
    for school in (
        School(
            "loaded_shift",
            "Loaded shift",
            "A few centimetres away from the target together with turn and push-back; never past the foot.",
            (
                Band("pelvis_sway", "top", -0.06, -0.005),
                Band("trail_hip_gap", "top", 0.02, 0.12),
                Band("trail_hip_gap_share", "top", 0.25, 1.1),
                *_COMMON,
            ),
        ),
        School(
            "centred",
            "Centred",
            "The pelvis turns between fixed lines and stays where it was.",
            (
                Band("pelvis_sway", "top", -0.025, 0.015),
                Band("trail_hip_gap", "top", 0.04, 0.14),
                Band("trail_hip_gap_share", "top", 0.6, 1.3),
                *_COMMON,
            ),
        ),
        School(
            "lead_biased",
            "Lead-side biased",
            "Weight stays even or slightly forward throughout.",
            (
                Band("pelvis_sway", "top", -0.01, 0.05),
                Band("trail_hip_gap", "top", 0.06, 0.18),
                Band("trail_hip_gap_share", "top", 0.8, 1.8),
                *_COMMON,
            ),
        ),
    )
}
