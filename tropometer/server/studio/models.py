"""Studio hours: a student's tries of one day, each with the one thing that was changed."""

import uuid

from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q
from django.utils import timezone

from tropometer.teaching.trials.strikes import STRUCK

MOST_TRIES = 200


class StudioHour(models.Model):
    """An hour with a student: its tries, and what is watched of them."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    student = models.ForeignKey("people.Student", on_delete=models.CASCADE, related_name="hours")
    day = models.DateField(default=timezone.localdate)
    begun_at = models.DateTimeField(auto_now_add=True)
    about = models.CharField(max_length=200, blank=True, help_text="what it was for")
    columns = ArrayField(
        models.CharField(max_length=66), default=list, help_text="readings that are watched: reading.at"
    )

    # By this devices find the hour while it is open to them; empty: it is not.
    line_token = models.CharField(max_length=43, blank=True)
    line_open_until = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-day", "-begun_at", "id"]
        indexes = [models.Index(fields=["student", "-day"], name="hour_of_student_by_day")]
        constraints = [
            models.UniqueConstraint(
                fields=["line_token"], condition=~Q(line_token=""), name="line_token_of_one_hour"
            ),
            models.CheckConstraint(
                condition=Q(line_token="", line_open_until=None)
                | (~Q(line_token="") & Q(line_open_until__isnull=False)),
                name="line_open_until_some_time",
            ),
        ]

    def __str__(self) -> str:
        return f"hour with {self.student_id} on {self.day}"


class Try(models.Model):
    """One swing of an hour. `changed` empty: as before."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    hour = models.ForeignKey(StudioHour, on_delete=models.CASCADE, related_name="tries")
    swing = models.OneToOneField("bench.Swing", on_delete=models.CASCADE, related_name="tried")
    position = models.PositiveSmallIntegerField(help_text="its place on the ladder, from 0")
    changed = models.CharField(max_length=80, blank=True, help_text="the one thing that was changed")
    felt = models.CharField(max_length=200, blank=True, help_text="what the student felt")
    struck = models.CharField(max_length=5, blank=True, help_text="how the ball was met; empty: nobody said")
    left_out = models.CharField(max_length=120, blank=True, help_text="why it does not count; empty: it does")
    struck_at = models.DateTimeField(null=True, help_text="as a camera of the hour saw it; null: sent in")

    class Meta:
        ordering = ["position", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["hour", "position"],
                name="try_place_once_an_hour",
                deferrable=models.Deferrable.DEFERRED,
            ),
            models.CheckConstraint(condition=Q(position__lt=MOST_TRIES), name="try_of_so_many"),
            models.CheckConstraint(condition=Q(struck__in=["", *STRUCK]), name="try_struck_known"),
        ]

    def __str__(self) -> str:
        return f"try {self.position} of {self.hour_id}"


class TakenWords(models.Model):
    """What was said in an hour, by its sender's name for it: it is taken once.

    A browser that was killed may not know that its words arrived, and that newer ones did since.
    """

    id = models.UUIDField(primary_key=True, editable=False)
    hour = models.ForeignKey(StudioHour, on_delete=models.CASCADE, related_name="taken")
    at = models.DateTimeField(auto_now_add=True)


class Strike(models.Model):
    """A ball that was struck in an hour, as devices told it: what a plate felt, what became of the ball."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    hour = models.ForeignKey(StudioHour, on_delete=models.CASCADE, related_name="strikes")
    struck_at = models.DateTimeField()
    sd_s = models.FloatField(help_text="one standard deviation of that, seconds")
    felt = models.JSONField(null=True, blank=True, help_text="a pressure plate's data")
    felt_by = models.CharField(max_length=60, blank=True, help_text="what the plate is called")
    said = models.JSONField(null=True, blank=True, help_text="a launch monitor's shot")
    said_by = models.CharField(max_length=60, blank=True, help_text="what the launch monitor is called")
    tried = models.OneToOneField(
        Try, null=True, blank=True, on_delete=models.SET_NULL, related_name="strike", help_text="whose it is"
    )

    class Meta:
        ordering = ["struck_at", "id"]
        indexes = [models.Index(fields=["hour", "struck_at"], name="strike_of_hour_by_time")]
        constraints = [
            models.CheckConstraint(
                condition=Q(felt__isnull=False) | Q(said__isnull=False), name="strike_told_by_a_device"
            ),
            models.CheckConstraint(condition=Q(sd_s__gt=0), name="strike_time_has_an_error"),
        ]

    def __str__(self) -> str:
        return f"strike at {self.struck_at} of {self.hour_id}"


class LaunchProfile(models.Model):
    """What the columns of a launch monitor's table are, said once and kept."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="launch_profiles")
    name = models.CharField(max_length=80)
    columns = models.JSONField(help_text="a column's name → field, unit, and which side is positive")

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            models.UniqueConstraint(fields=["instructor", "name"], name="launch_profile_name_once"),
        ]

    def __str__(self) -> str:
        return self.name
