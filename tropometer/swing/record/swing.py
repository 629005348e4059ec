"""The swing record: everything the core needs to read one swing, as plain data."""

from __future__ import annotations

from dataclasses import dataclass

from tropometer.swing.names import ClubClass, Hand, SwingLength
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.launch import Launch
from tropometer.swing.record.plate import PressurePlate

POST_M = 0.18  # usual: from the lead hip's edge at address to the post mark


@dataclass(frozen=True, kw_only=True)
class SwingRecord:
    """Everything the core needs to read one swing."""

    hand: Hand
    clips: tuple[Clip, ...]
    stature_m: float | None = None
    hip_width_m: float | None = None  # over the trochanters
    club: str = ""
    club_class: ClubClass | None = None  # None: nobody has said
    swing_length: SwingLength | None = None
    plate: PressurePlate | None = None
    launch: Launch | None = None
    post_m: float = POST_M  # how far the teacher wants the lead hip to go
    one_swing: bool | None = None  # whether its views show one swing; None: nobody has said, so it is tested
