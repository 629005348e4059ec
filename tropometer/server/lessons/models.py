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

    class Meta:
        ordering = ["-started_at", "id"]
        constraints = [
            models.CheckConstraint(
                condition=Q(token__isnull=True) | Q(sent_at__isnull=False), name="lesson_link_only_when_sent"
            ),
        ]


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
