"""Where a ball goes that was struck so: simple physics for a stand-in, not a measurement.

The strike: the ball leaves along the face's normal but for a share of the club's slide across it, in the
plane of path and normal (Jorgensen 1994, The Physics of Golf, ch. 9), with the speeds of a sphere that rolls
when it leaves (Penner 2003, Rep. Prog. Phys. 66:131). The flight: drag and lift by spin after Smits and Smith
1994, Science and Golf II, 340. All coefficients are from memory.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.integrate import solve_ivp

Vector = npt.NDArray[np.float64]

BALL_KG, BALL_R_M, GRAVITY = 0.04593, 0.02134, 9.80665
AIR_KG_M3 = 1.2
LONGEST_S, STEP_S = 15.0, 0.1


@dataclass(frozen=True, kw_only=True)
class Strike:
    """How the club meets the ball; sides positive toward the ball's side of the line, loft as delivered."""

    club_speed_m_s: float
    club_path_deg: float
    attack_deg: float
    face_deg: float
    loft_deg: float
    head_kg: float


@dataclass(frozen=True, kw_only=True)
class Flight:
    """What becomes of it: how the ball starts, and where it comes down."""

    ball_speed_m_s: float
    launch_deg: float
    start_deg: float
    spin_rpm: float
    carry_m: float
    aside_m: float


def flight(strike: Strike, air_kg_m3: float = AIR_KG_M3) -> Flight:
    """The flight of a strike, over level ground without wind."""
    velocity, spin = _leaves(strike)
    landed = _landing(velocity, spin, air_kg_m3)
    return Flight(
        ball_speed_m_s=float(np.linalg.norm(velocity)),
        launch_deg=float(np.degrees(np.arctan2(velocity[1], np.hypot(velocity[0], velocity[2])))),
        start_deg=float(np.degrees(np.arctan2(velocity[2], velocity[0]))),
        spin_rpm=float(np.linalg.norm(spin) * 60 / (2 * np.pi)),
        carry_m=float(landed[0]),
        aside_m=float(landed[2]),
    )


def _toward(azimuth_deg: float, up_deg: float) -> Vector:
    """A unit vector: toward the target, up, toward the ball's side."""
    azimuth, up = np.radians(azimuth_deg), np.radians(up_deg)
    return np.array([np.cos(up) * np.cos(azimuth), np.sin(up), np.cos(up) * np.sin(azimuth)])


def _leaves(strike: Strike) -> tuple[Vector, Vector]:
    """Velocity of the ball in m/s and its spin in rad/s, as it leaves the face."""
    club = strike.club_speed_m_s * _toward(strike.club_path_deg, strike.attack_deg)
    normal = _toward(strike.face_deg, strike.loft_deg)
    along = float(club @ normal)
    across = club - along * normal
    masses = BALL_KG / strike.head_kg
    bounce = 0.86 - 0.0029 * along
    velocity = (1 + bounce) / (1 + masses) * along * normal + (2 / 7) / (1 + 2 * masses / 7) * across
    # It rolls up the face: the side that touches it moves as the face does.
    spin = np.cross(normal, across) * (5 / 7) / (1 + 2 * masses / 7) / BALL_R_M
    return velocity, -spin


def _landing(velocity: Vector, spin: Vector, air_kg_m3: float) -> Vector:
    """Where it comes back to the height it was struck at."""
    push = 0.5 * air_kg_m3 * np.pi * BALL_R_M**2 / BALL_KG
    axis, turning = spin / max(float(np.linalg.norm(spin)), 1e-9), float(np.linalg.norm(spin))

    def moves(_: float, state: Vector) -> Vector:
        speed_vector, rate = state[3:6], state[6]
        speed = float(np.linalg.norm(speed_vector))
        ratio = rate * BALL_R_M / max(speed, 1e-6)
        drag = -(0.24 + 0.18 * ratio) * speed * speed_vector
        lift = 0.54 * ratio**0.4 * speed * np.cross(axis, speed_vector)
        pull = np.array([0.0, -GRAVITY, 0.0])
        slows = -2e-5 * speed * rate / BALL_R_M
        return np.concatenate([speed_vector, push * (drag + lift) + pull, [slows]])

    def height(_: float, state: Vector) -> float:
        return float(state[1]) if state[4] < 0 else 1.0

    height.terminal = True  # type: ignore[attr-defined]
    began = np.concatenate([np.zeros(3), velocity, [turning]])
    found = solve_ivp(moves, (0, LONGEST_S), began, events=height, max_step=STEP_S)
    return np.asarray(found.y[:3, -1], float)
