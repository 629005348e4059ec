"""A lesson: frames with their gauges as drawn, words, and the link it is read by."""

import secrets
import uuid

from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q


def new_token() -> str:
    """256 random bits; whoever holds them may read the lesson."""
    return secrets.token_urlsafe(32)


def still_path(frame: "LessonFrame", name: str) -> str:
    return f"lessons/{frame.lesson_id}/{frame.pk}.jpg"


class Lesson(models.Model):
    """What an instructor answers a swing with. It is frozen once sent."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="lessons")
    swing = models.OneToOneField("bench.Swing", on_delete=models.CASCADE, related_name="lesson")
    title = models.CharField(max_length=120, default="Your swing")
    opening = models.TextField(max_length=4000, blank=True)
    started_at = models.DateTimeField(auto_now_add=True)
    sent_at = models.DateTimeField(null=True, blank=True)
    expires_on = models.DateField(null=True, blank=True, help_text="the last day on which its link holds")
    mailed_at = models.DateTimeField(null=True, blank=True)
    mail_trouble = models.CharField(max_length=300, blank=True, help_text="why the mail has not gone")
    token = models.CharField(max_length=64, unique=True, null=True, blank=True)
    revoked_at = models.DateTimeField(null=True, blank=True)
    first_read_at = models.DateTimeField(null=True, blank=True)
    send_at = models.DateTimeField(null=True, blank=True, help_text="when a draft goes by itself")
    send_trouble = models.CharField(max_length=300, blank=True, help_text="why it did not go by itself")
    correcting = models.BooleanField(
        default=False, help_text="sent, and being written anew as its next version"
    )
    tries = models.JSONField(null=True, blank=True, help_text="a studio hour, as HourInLesson")
    prefilled_for = models.CharField(max_length=40, blank=True, help_text="the fault it was begun for")

    class Meta:
        ordering = ["-started_at", "id"]
        indexes = [models.Index(fields=["instructor", "-started_at", "id"], name="lesson_by_time")]
        constraints = [
            models.CheckConstraint(
                condition=Q(token__isnull=True) | Q(sent_at__isnull=False), name="lesson_link_only_when_sent"
            ),
            models.CheckConstraint(
                condition=Q(correcting=False) | Q(sent_at__isnull=False), name="lesson_corrected_once_sent"
            ),
        ]

    @property
    def is_draft(self) -> bool:
        """Whether it can be written in: it was not sent, or its next version is being written."""
        return self.sent_at is None or self.correcting


class Template(models.Model):
    """Words of an instructor's own to begin a lesson with; {name} and {club} are filled in."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="templates")
    name = models.CharField(max_length=60)
    text = models.TextField(max_length=4000)
    used_first = models.BooleanField(default=False, help_text="new lessons begin with it")

    class Meta:
        ordering = ["-used_first", "name", "id"]

    def __str__(self) -> str:
        return self.name


class SentSheet(models.Model):
    """A lesson as it was sent: what its student reads, whatever is written in it afterwards."""

    lesson = models.ForeignKey(Lesson, on_delete=models.CASCADE, related_name="sheets")
    number = models.PositiveSmallIntegerField(help_text="1; each correction is one more")
    sent_at = models.DateTimeField()
    document = models.JSONField(help_text="as LessonSheet, each frame with the name of its stored picture")

    class Meta:
        ordering = ["lesson", "number"]
        constraints = [
            models.UniqueConstraint(fields=["lesson", "number"], name="one_sent_sheet_a_number"),
        ]

    def __str__(self) -> str:
        return f"version {self.number} of {self.lesson_id}"


class TakenChange(models.Model):
    """A change that a lesson has taken, by its sender's name for it: what comes again is not done again.

    A browser that was killed may not know that its words arrived, and that newer ones did since.
    """

    id = models.UUIDField(primary_key=True, editable=False)
    lesson = models.ForeignKey(Lesson, on_delete=models.CASCADE, related_name="taken")
    at = models.DateTimeField(auto_now_add=True)


class LessonFrame(models.Model):
    """One frame of a lesson: its picture, the gauges and values as they were drawn, and the words."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    lesson = models.ForeignKey(Lesson, on_delete=models.CASCADE, related_name="frames")
    clip = models.ForeignKey("clips.Clip", on_delete=models.SET_NULL, null=True)
    student = models.ForeignKey(
        "people.Student",
        on_delete=models.CASCADE,
        null=True,
        related_name="+",
        help_text="who is seen in it: with them it goes, out of whoever's lesson",
    )
    frame = models.PositiveIntegerField()
    position = models.PositiveIntegerField()
    words = models.TextField(max_length=2000, blank=True)
    still = models.FileField(upload_to=still_path)
    drawn = models.JSONField()
    left_out = ArrayField(
        models.CharField(max_length=60),
        default=list,
        help_text="readings whose values the student is not shown",
    )

    class Meta:
        ordering = ["position", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["lesson", "position"],
                name="lesson_frame_position_once",
                deferrable=models.Deferrable.DEFERRED,
            )
        ]
