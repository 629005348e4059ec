"""How the student is meant to stand, as far as it is felt live or was read of the latest try."""

from __future__ import annotations

from typing import Any

from tropometer.server.bench.asking import asked_of_kind, swung
from tropometer.server.logbook.services import logged_of
from tropometer.server.studio.models import StudioHour
from tropometer.server.studio.services import tries_of
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.asked import Swung

ADDRESS = "address"
FELT = ("pressure_lead_share", "cop_lead_toe", "cop_lead_outer", "cop_trail_toe", "cop_trail_outer")
SEEN = ("stance_ratio", "foot_flare_lead", "foot_flare_trail")
KEYS = [(reading, ADDRESS) for reading in (*FELT, *SEEN)]


def set_up_of(hour: StudioHour) -> list[dict[str, Any]]:
    """What is asked of the set-up with the latest try's club, and what was read of it, as `SetUpOut`."""
    swings = [each.swing for each in tries_of(hour)]
    latest = max(swings, key=lambda swing: swing.received_at, default=None)
    bands = asked_of_kind(hour.student, swung(latest) if latest else Swung()).bands
    logged = logged_of([latest.pk], KEYS) if latest else {}
    told = []
    for key in KEYS:
        reading, band = key[0], bands.get(key)
        read = next(iter(logged.get(key, [])), None)
        told.append(
            {
                "reading": reading,
                "unit": KINDS[reading].unit,
                "low": band.low if band else None,
                "high": band.high if band else None,
                "read": read and {"value": read.value, "u95": read.u95, "provisional": read.provisional},
            }
        )
    return told
