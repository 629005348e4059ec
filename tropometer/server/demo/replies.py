"""What the demo's students answered to their lessons: practice over four weeks, questions, what was felt."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from typing import TYPE_CHECKING, Literal

from django.utils import timezone

from tropometer.server.demo.telling import VOICES
from tropometer.server.talking.past import practised_before, said_before
from tropometer.teaching.judging.felt import FeltPlace

if TYPE_CHECKING:
    from tropometer.server.people.models import Student


@dataclass(frozen=True)
class Words:
    """What one side said; a student's words that nobody has answered wait in the inbox."""

    days_ago: float
    side: Literal["student", "instructor"]
    words: str
    waits: bool = False
    spoken: str = ""  # the file in demo/voices


@dataclass(frozen=True)
class Done:
    """A drill done on some days: how far up its ladder, where it was felt."""

    drill: str
    days_ago: tuple[int, ...]
    step: int
    places: tuple[FeltPlace, ...] = ()
    words: str = ""
    waits: bool = False


REPLIES: dict[str, tuple[Words | Done, ...]] = {
    "Tobin Farrow": (
        Done("stick_by_the_hip", (31, 29, 27, 24), 1, ("trail_seat",)),
        Done("stick_by_the_hip", (22,), 2, ("trail_knee",), "After an hour of it."),
        Words(
            21.8, "student", "My right knee told me about it after an hour. Less of it, or something else?"
        ),
        Words(
            21.2,
            "instructor",
            "Less of it: ten, then stop. Let the knee keep its bend and feel the seat take the weight.\n"
            "If the knee speaks up in the first ten, leave it and tell me.",
        ),
        Done("stick_by_the_hip", (20, 17, 15, 13), 2, ("trail_seat", "trail_thigh_inside")),
        Done(
            "stick_by_the_hip", (10, 8, 6), 3, ("trail_seat", "trail_thigh_inside"), "The stick stays clean."
        ),
        Done("stick_by_the_hip", (3, 1), 4, ("trail_seat",)),
        Done("club_on_the_breastbone", (30, 27, 23, 19, 16, 12, 9, 5, 2), 2),
        Words(0.5, "student", "I have sent both views again. Do I go on with the stick?", waits=True),
    ),
    "Dag Penhale": (
        Done("spring_in_the_knee", (29, 28, 26, 21, 19, 14, 11, 7, 4), 2, ("trail_thigh_front",)),
        Words(4.1, "student", "It holds on slow swings. With a ball I forget it."),
        Words(3.5, "instructor", "Then stay slow for a week, with a ball on a tee. Speed comes last."),
        Words(0.3, "student", "", waits=True, spoken="question_dag"),
    ),
    "Sunniva Brae": (
        Done("flare_a_notch", (9, 7, 4), 1, ("trail_hip",)),
        Done("flare_a_notch", (1,), 2, ("low_back",), "A little stiff the next morning.", waits=True),
    ),
}


def reply(student: Student) -> None:
    """Put a demo student's answers in."""
    now = timezone.now()
    for each in REPLIES.get(student.name, ()):
        if isinstance(each, Words):
            voice = (VOICES / f"{each.spoken}.webm").read_bytes() if each.spoken else b""
            at = now - timedelta(days=each.days_ago)
            said_before(student, each.side, each.words, at, not each.waits, voice)
            continue
        for ago in each.days_ago:
            at = now - timedelta(days=ago)
            practised_before(student, each.drill, at, each.step, each.places, each.words, not each.waits)
