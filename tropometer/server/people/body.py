"""A student's body and ball: what hurts, how far it moves, what usually goes wrong."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, cast

from django.db import transaction

from tropometer.server.people.models import Ache, MotionMeasured
from tropometer.server.people.models import Student as StudentRow
from tropometer.server.text import once
from tropometer.teaching.knowledge.caution import Trouble
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart
from tropometer.teaching.student import Ache as Aching
from tropometer.teaching.student import LengthUnit, Student
from tropometer.teaching.student_page import check_motion

if TYPE_CHECKING:
    from collections.abc import Collection

    from tropometer.server.people.schemas import Body


def body_of(student: StudentRow) -> dict[str, Any]:
    """What is known of a student's body, shaped as `Body`."""
    return {
        "aches": list(student.aches.all()),
        "motions": list(student.motions.all()),
        "misses": student.misses,
        "good_clubs": student.good_clubs,
        "bad_clubs": student.bad_clubs,
    }


@transaction.atomic
def say_body(student: StudentRow, body: Body) -> None:
    """Say anew what is known of a body; BookError names a motion that there is not, or that nobody has."""
    for i, motion in enumerate(body.motions):
        check_motion(shipped(), motion.motion, motion.degrees, f"motions[{i}]")
    # Of two tabs that say it at once one goes after the other.
    student = StudentRow.objects.select_for_update().get(pk=student.pk)
    student.misses = once(body.misses)
    student.good_clubs, student.bad_clubs = once(body.good_clubs), once(body.bad_clubs)
    student.save(update_fields=["misses", "good_clubs", "bad_clubs"])
    student.aches.all().delete()
    Ache.objects.bulk_create(Ache(student=student, **ache.dict()) for ache in body.aches)
    student.motions.all().delete()
    MotionMeasured.objects.bulk_create(
        MotionMeasured(student=student, **motion.dict()) for motion in body.motions
    )


def reach_of(student: StudentRow) -> dict[str, float]:
    """How far a student moves, degrees by motion."""
    return dict(student.motions.values_list("motion", "degrees"))


def judged_as(student: StudentRow, misses: Collection[str], hurts: Collection[str], units: str) -> Student:
    """A student as judging knows them, with what they said of one swing: that goes before what is usual.

    What hurts in the swing counts as pain where nothing else is known of that part.
    """
    aches = [
        Aching(
            part=cast(BodyPart, each.part) or None,
            trouble=cast(Trouble, each.trouble),
            agreed_by=each.agreed_by,
        )
        for each in student.aches.all()
    ]
    known = {each.part for each in aches}
    aches += [Aching(part=cast(BodyPart, part), trouble="pain") for part in hurts if part not in known]
    return Student(
        hand="left" if student.hand == "left" else "right",
        units=cast(LengthUnit, units),
        motions=reach_of(student),
        aches=tuple(aches),
        misses=tuple(cast("Collection[BallMiss]", misses or student.misses)),
    )
