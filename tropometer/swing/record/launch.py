"""What a launch monitor said of one shot."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field


@dataclass(frozen=True, kw_only=True)
class Launch:
    """A shot, as far as it was measured; None: it was not.

    Metres, metres a second, degrees, revolutions a minute. Paths, faces and starts are positive toward the
    ball's side of the target line (right of it for a right-hander), attack and launch upward. `sd`: one
    standard deviation of any of them, by name, where the device says it.
    """

    club_speed_m_s: float | None = None
    ball_speed_m_s: float | None = None
    club_path_deg: float | None = None
    face_deg: float | None = None
    attack_deg: float | None = None
    launch_deg: float | None = None
    start_deg: float | None = None
    spin_rpm: float | None = None
    carry_m: float | None = None
    aside_m: float | None = None  # where it came to rest, off the target line
    low_point_m: float | None = None  # of the club head's arc along the target line, past the ball positive
    sd: Mapping[str, float] = field(default_factory=dict)
