"""A launch monitor that is not there: what it would say of a club that comes so to the ball.

`python -m tropometer.standins.launch_monitor demo/hour.json.gz > demo/lane-2.csv` writes the demo's table.
"""

from __future__ import annotations

import gzip
import json
import sys
from collections.abc import Iterable
from dataclasses import asdict, dataclass
from pathlib import Path

import numpy as np

from tropometer.standins.ball_flight import Strike, flight
from tropometer.swing.record.launch import Launch

# Dynamic loft and mass of the head; common practice, no source.
CLUBS = {"wedge": (40.0, 0.29), "mid_iron": (23.0, 0.265), "driver": (13.0, 0.2)}
FACE_FOLLOWS, FACE_SCATTER_DEG, LOFT_SCATTER_DEG = 0.6, 1.6, 1.0  # of the path, and by itself
# How far its figures are off: one standard deviation each, less than the errors that the book grants it.
NOISE = {
    "club_speed_m_s": 0.3,
    "ball_speed_m_s": 0.2,
    "club_path_deg": 0.6,
    "face_deg": 0.5,
    "attack_deg": 0.6,
    "launch_deg": 0.25,
    "start_deg": 0.3,
    "spin_rpm": 120.0,
    "carry_m": 1.2,
    "aside_m": 1.2,
}


@dataclass(frozen=True, kw_only=True)
class Came:
    """How a club comes to the ball: m/s and degrees, the path positive toward the ball's side, attack up."""

    club_speed_m_s: float
    club_path_deg: float
    attack_deg: float


def shot(came: Came, club: str, random: np.random.Generator) -> Launch:
    """What it says of one shot. How the face looks is drawn: near a share of the path, and by itself."""
    loft, head_kg = CLUBS[club]
    strike = Strike(
        **asdict(came),
        face_deg=FACE_FOLLOWS * came.club_path_deg + random.normal(0, FACE_SCATTER_DEG),
        loft_deg=loft + random.normal(0, LOFT_SCATTER_DEG),
        head_kg=head_kg,
    )
    true = asdict(strike) | asdict(flight(strike))
    return Launch(**{field: true[field] + random.normal(0, sd) for field, sd in NOISE.items()})


FIRST_HIT_S, BETWEEN_S, SEED = 10 * 3600, 180, 5  # of the demo's hour
KM_H = 3.6
HEADER = (
    "Shot;Hit at;Club speed [km/h];Ball speed [km/h];Club path;Face angle;Attack angle;Launch angle;"
    "Launch direction;Spin rate [rpm];Carry [m];Aside [m]"
)


def table(shots: Iterable[Launch]) -> str:
    """A right-hander's shots as it saves them: decimal commas, and a letter for each side."""
    lines = ["Lane 2, Skerrow range", HEADER]
    for number, each in enumerate(shots):
        at = FIRST_HIT_S + number * BETWEEN_S + 4 + number % 3
        said = {name: value for name, value in asdict(each).items() if value is not None}
        cells = [
            str(number + 1),
            f"{at // 3600:02}:{at // 60 % 60:02}:{at % 60:02}",
            f"{said['club_speed_m_s'] * KM_H:.1f}",
            f"{said['ball_speed_m_s'] * KM_H:.1f}",
            _sided(said["club_path_deg"]),
            _sided(said["face_deg"]),
            f"{said['attack_deg']:.1f}",
            f"{said['launch_deg']:.1f}",
            _sided(said["start_deg"]),
            f"{said['spin_rpm']:.0f}",
            f"{said['carry_m']:.1f}",
            _sided(said["aside_m"]),
        ]
        lines.append(";".join(cells).replace(".", ","))
    return "\n".join(lines) + "\n"


def hour_table(path: Path) -> str:
    """The table of the demo's hour, of whose swings the file says how the club came."""
    random = np.random.default_rng(SEED)
    swings = json.loads(gzip.decompress(path.read_bytes()))
    return table(shot(Came(**swing["delivery"]), swing["club"], random) for swing in swings)


def _sided(value: float) -> str:
    return f"{abs(value):.1f} {'R' if value >= 0 else 'L'}"


if __name__ == "__main__":
    sys.stdout.write(hour_table(Path(sys.argv[1])))
