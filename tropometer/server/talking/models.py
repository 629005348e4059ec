"""What a student and an instructor say to each other, and what the student has practised."""

import uuid
from typing import get_args

from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q

from tropometer.teaching.judging.felt import FeltPlace


class Side(models.TextChoices):
    STUDENT = "student"
    INSTRUCTOR = "instructor"


def voice_path(message: "Message", name: str) -> str:
    """A name of its own for each try: one that loses a race must not take the other's file with it."""
    return f"talking/{message.student_id}/{uuid.uuid4().hex}.m4a"


class Message(models.Model):
    """Words, or a voice, of one side of a thread; there is one thread a student."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    student = models.ForeignKey("people.Student", on_delete=models.CASCADE, related_name="messages")
    lesson = models.ForeignKey("lessons.Lesson", on_delete=models.SET_NULL, null=True, related_name="+")
    side = models.CharField(max_length=10, choices=Side.choices)
    words = models.TextField(max_length=4000, blank=True)
    voice = models.FileField(upload_to=voice_path, blank=True)
    voice_ms = models.PositiveIntegerField(default=0)
    said_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(null=True, blank=True, help_text="by the other side")
    settled_at = models.DateTimeField(null=True, blank=True, help_text="a student's: answered, or needs none")
    mailed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["said_at", "id"]
        constraints = [
            models.CheckConstraint(condition=Q(side__in=Side.values), name="message_side_known"),
            models.CheckConstraint(condition=~Q(words="") | ~Q(voice=""), name="message_says_something"),
        ]
        indexes = [
            models.Index(
                fields=["student"],
                name="message_waits",
                condition=Q(side="student", settled_at__isnull=True),
            )
        ]

    def __str__(self) -> str:
        return f"{self.side} of {self.student_id}: {self.words[:40]}"


class Practised(models.Model):
    """A drill ticked on a day: where it was felt, and how."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    student = models.ForeignKey("people.Student", on_delete=models.CASCADE, related_name="practised")
    lesson = models.ForeignKey("lessons.Lesson", on_delete=models.SET_NULL, null=True, related_name="+")
    drill = models.CharField(max_length=40)
    name = models.CharField(max_length=120, help_text="of the drill, as it was sent")
    day = models.DateField(help_text="where the student was")
    step = models.PositiveSmallIntegerField(default=0, help_text="how far up its ladder; 0: not said")
    places = ArrayField(models.CharField(max_length=20), default=list)
    words = models.TextField(max_length=1000, blank=True)
    ticked_at = models.DateTimeField(auto_now_add=True)
    speaks_up = models.BooleanField(default=False, help_text="felt where a drill must not be felt")
    settled_at = models.DateTimeField(null=True, blank=True, help_text="the instructor knows")
    mailed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-day", "-ticked_at", "id"]
        constraints = [
            models.UniqueConstraint(fields=["student", "drill", "day"], name="drill_ticked_once_a_day"),
            models.CheckConstraint(
                condition=Q(places__contained_by=list(get_args(FeltPlace))), name="felt_places_known"
            ),
        ]
        indexes = [
            models.Index(
                fields=["student"],
                name="body_speaks_up",
                condition=Q(speaks_up=True, settled_at__isnull=True),
            )
        ]

    def __str__(self) -> str:
        return f"{self.drill} on {self.day}"
