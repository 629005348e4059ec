"""What became of a shot, as columns of a ladder: as a launch monitor said it, with an error of its kind."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any, Literal

from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.readings.reading import Unit
from tropometer.swing.record.launch import Launch
from tropometer.teaching.over_time.typical import Typical
from tropometer.teaching.trials.against import Tried

SHIPPED = Path(__file__).parents[1] / "book" / "shots.json"
FACE_TO_PATH, PARTS = "face_to_path", ("face", "club_path")
# Metres of a flight, metres a second, degrees to their tenths, turns a minute: not the sizes of a body.
ShotUnit = Literal["far", "fast", "shot_deg", "rpm"]


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """A column: its field of `Launch` (none: face less path), its unit, u95, scatter, and what matters."""

    id: str
    field: str
    unit: Unit | ShotUnit
    u95: float
    worth: float
    typical: Typical


@lru_cache
def outcomes() -> dict[str, Outcome]:
    """All of them by their ids, in the order in which they are offered."""
    shipped: dict[str, Any] = json.loads(SHIPPED.read_text("utf-8"))
    shared = {part: shipped[part] for part in ("wide", "between", "between_wide")}
    return {
        id: Outcome(
            id=id,
            field=said["field"],
            unit=said["unit"],
            u95=said["u95"],
            worth=said["worth"],
            typical=Typical(within=said["within"], **shared),
        )
        for id, said in shipped["outcomes"].items()
    }


def tried_shot(launch: Launch) -> dict[str, Tried]:
    """What was measured of a shot, by outcome. One device stands there all hour, but nobody knows how much
    of its error is the same for each shot: none of it is taken to be. Its own error goes before.
    """
    found: dict[str, Tried] = {}
    for outcome in outcomes().values():
        if outcome.id == FACE_TO_PATH:
            known = launch.face_deg is not None and launch.club_path_deg is not None
            value = launch.face_deg - launch.club_path_deg if known else None  # type: ignore[operator]
            said = launch.sd.keys() & {"face_deg", "club_path_deg"}
            u95 = math.hypot(*(_u95(launch, outcomes()[part]) for part in PARTS)) if said else outcome.u95
        else:
            value = getattr(launch, outcome.field)
            u95 = _u95(launch, outcome)
        if value is not None:
            found[outcome.id] = Tried(value=value, u95=u95)
    return found


def _u95(launch: Launch, outcome: Outcome) -> float:
    said = launch.sd.get(outcome.field)
    return outcome.u95 if said is None else NORMAL_95 * said
