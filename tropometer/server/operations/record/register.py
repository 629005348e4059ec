"""Which rows belong to a student's record, and what of them stays behind.

Every model whose rows hang on a student, by whatever way, is named here; a test sees to it.
"""

from __future__ import annotations

from dataclasses import dataclass

from django.apps import apps
from django.db.models import Model

STUDENT = "people.Student"


@dataclass(frozen=True)
class Part:
    """A model of the record, by the field that names the row it hangs on.

    `left_out` are fields that are secret, or mean something on this machine alone; they come back empty.
    """

    model: str
    hangs_on: str = ""
    left_out: tuple[str, ...] = ()

    @property
    def of(self) -> type[Model]:
        """The model's class."""
        return apps.get_model(self.model)


# Parents before what hangs on them.
PARTS = (
    Part(STUDENT, left_out=("instructor", "removed_at")),
    Part("people.StudentNote", "student"),
    Part("people.Ache", "student"),
    Part("people.MotionMeasured", "student"),
    Part("bench.Swing", "student", ("instructor", "sent_by", "removed_at")),
    Part("bench.Pressure", "swing"),
    Part("bench.Shot", "swing"),
    Part("clips.Clip", "swing", ("instructor",)),
    Part("clips.SeenBody", "clip"),
    Part("clips.Proposals", "clip"),
    Part("bench.Peg", "clip"),
    Part("bench.Mark", "clip"),
    Part("bench.HiddenMark", "clip"),
    Part("bench.Track", "clip"),
    Part("bench.CarriedMark", "clip"),
    Part("bench.Calibration", "clip"),
    Part("bench.CameraFacts", "clip"),
    Part("bench.Mat", "clip"),
    Part("bench.BenchEdit", "clip"),
    Part("bench.FirstLook", "swing"),
    Part("logbook.LoggedSwing", "swing"),
    Part("logbook.LoggedReading", "swing"),
    Part("judging.DecidedFault", "swing"),
    Part("judging.FoundFault", "swing"),
    Part("judging.Plan", "swing"),
    Part("drill_checks.CheckedDrill", "swing"),
    Part("studio.StudioHour", "student", ("line_token", "line_open_until")),
    Part("studio.Try", "hour"),
    Part("studio.Strike", "hour"),
    Part("lessons.Lesson", "swing", ("instructor", "token", "send_at")),
    Part("lessons.SentSheet", "lesson"),
    Part("lessons.LessonFrame", "lesson"),
    Part("walks.Walk", "lesson"),
    Part("walks.Take", "walk"),
    Part("walks.Piece", "take"),
    Part("walks.KeptClip", "walk"),
    Part("talking.Message", "student"),
    Part("talking.Practised", "student"),
)
# Links by which strangers come in, uploads on their way, and names of requests that were answered.
STAY_BEHIND = frozenset(
    {
        "people.StudentPage", "bench.SwingRequest", "clips.Upload", "judging.TakenChoice",
        "lessons.TakenChange", "shelf.ReferenceSwing", "studio.TakenWords",
    }
)  # fmt: skip
