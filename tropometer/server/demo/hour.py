"""The demo's studio hour: four tries as ever, four with the feet closer, and four as before.

Clips of the first, of one in the middle and of the last were kept. Of the others what was measured is in the
log alone: what is true of the made-up swing, off by about as much as a careful hand would be.
"""

from __future__ import annotations

import gzip
import json
from datetime import datetime, timedelta
from functools import lru_cache
from random import Random
from typing import TYPE_CHECKING, Any, cast

from django.conf import settings
from django.utils import timezone

from tropometer.server.bench.schemas import SwingIn, SwingKind
from tropometer.server.bench.services import keep_pressure, mark_answered, receive, receive_measured
from tropometer.server.clips.uploads import Sender
from tropometer.server.demo.drawn import CLIPS, PRESSURE_FILE, arrived, mark, plate_table
from tropometer.server.demo.practice import CLUBS
from tropometer.server.logbook.keeping import keep_measured
from tropometer.server.studio import launch, services
from tropometer.swing.error.value import NORMAL_95

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import Student
    from tropometer.teaching.knowledge.band import Key

TRUTH = settings.ROOT / "demo" / "hour.json.gz"
TABLE = settings.ROOT / "demo" / "lane-2.csv"
STUDENT = "Wynn Osk"
DAYS_AGO, AT_HOUR = 2, 10
BETWEEN = timedelta(minutes=3)
CLUB = "6 iron"
CHANGED = "Narrower stance"
MEASURED = "Tried in the studio; the clip was not kept."
FILMED = "Tried in the studio."
FELT = {4: "As if I could fall over", 5: "My belt goes all the way round", 7: "Lighter", 8: "Stuck again"}
STRUCK = (
    "heavy", "heavy", "clean", "heavy", "clean", "clean", "clean", "thin", "heavy", "clean", "heavy", "heavy",
)  # fmt: skip
WATCHED = ("stance_ratio.address", "pelvis_turn.top", "club_path.shot", "carry.shot")
U95: dict[Key, float] = {
    ("stance_ratio", "address"): 0.05,
    ("pelvis_turn", "top"): 5.0,
    ("shoulder_turn", "top"): 6.0,
    ("pelvis_sway", "top"): 0.012,
    ("knee_flex_trail", "top"): 4.5,
    ("tempo", "swing"): 0.3,
    ("pressure_lead_share", "top"): 0.05,
    ("pressure_lead_share", "impact"): 0.05,
}


@lru_cache
def swings() -> list[dict[str, Any]]:
    """What is true of each swing, in order (tropometer/golfer/hour_truth.py)."""
    return cast("list[dict[str, Any]]", json.loads(gzip.decompress(TRUTH.read_bytes())))


def studio_hour(student: Student) -> None:
    """An hour that is over, with its tries, what the mat felt, and the launch monitor's table."""
    day = timezone.localtime() - timedelta(days=DAYS_AGO)
    began = day.replace(hour=AT_HOUR, minute=0, second=0, microsecond=0)
    for number, known in enumerate(swings()):
        swing = _swing(student, known, began + number * BETWEEN)
        keep_pressure(swing, PRESSURE_FILE, plate_table(known), impact_s=0.0)
    instructor = student.instructor
    hour = services.begin(instructor, student.pk, began.date(), "How wide to stand")
    tries = list(services.tries_of(hour))
    third = len(tries) // 3
    for number, each in enumerate(tries):
        each.changed = CHANGED if third <= number < 2 * third else ""
        each.felt, each.struck = FELT.get(number, ""), STRUCK[number]
        each.save(update_fields=["changed", "felt", "struck"])
    services.watch(hour, WATCHED)
    looked = launch.look(hour, instructor, TABLE.read_text("utf-8"), None, None)
    launch.take_in(
        hour, instructor, TABLE.name, TABLE.read_text("utf-8"), looked.uses, None, looked.tries, "Lane 2"
    )


def _swing(student: Student, known: dict[str, Any], at: datetime) -> Swing:
    kind = SwingKind(club=CLUB, club_class=CLUBS[CLUB], swing_length="full")
    name = known["name"]
    if not (CLIPS / f"{name}.truth.json.gz").exists():
        swing = receive_measured(student, kind, MEASURED, at)
        keep_measured(swing, _measured(known))
        return swing
    data = SwingIn(**kind.dict(), words=FILMED, one_swing=True, clips=[arrived(student.instructor, name)])
    swing, _ = receive(Sender(student.instructor), student, data, at)
    mark(swing, (name,))
    mark_answered(swing.pk, at)  # by word of mouth
    return swing


def _measured(known: dict[str, Any]) -> dict[Key, tuple[float, float]]:
    hand = Random(f"{known['name']} measured")
    true = {(each["reading"], each["at"]): each["value"] for each in known["readings"]}
    return {key: (true[key] + hand.gauss(0, u95 / NORMAL_95), u95) for key, u95 in U95.items() if key in true}
