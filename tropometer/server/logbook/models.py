"""The log: what was read of every student's swing, so that months are one query."""

from typing import get_args

from django.db import models
from django.db.models import Q

from tropometer.swing.error.source import SourceKind

CORE_LENGTH = 12


class LoggedSwing(models.Model):
    """A swing whose readings are in the log, and by which measuring core they were read."""

    swing = models.OneToOneField(
        "bench.Swing", on_delete=models.CASCADE, primary_key=True, related_name="logged"
    )
    core = models.CharField(max_length=CORE_LENGTH)
    logged_at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes = [models.Index(fields=["core"], name="logged_by_core")]

    def __str__(self) -> str:
        return f"log of {self.swing_id}"


class LoggedReading(models.Model):
    """One reading of one swing, in its unit; what an earlier core read stays, with when it was replaced."""

    swing = models.ForeignKey("bench.Swing", on_delete=models.CASCADE, related_name="logged_readings")
    reading = models.CharField(max_length=40)
    at = models.CharField(max_length=24)
    value = models.FloatField()
    u95 = models.FloatField()
    set_up_share = models.FloatField(help_text="of its variance: shared by swings before the same camera")
    worst = models.CharField(max_length=8, blank=True, help_text="the kind of its largest error")
    provisional = models.BooleanField(help_text="it hangs on something nobody looked at")
    core = models.CharField(max_length=CORE_LENGTH)
    read_at = models.DateTimeField(auto_now_add=True)
    replaced_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["swing", "reading", "at"],
                condition=Q(replaced_at__isnull=True),
                name="logged_reading_once_a_swing",
            ),
            models.CheckConstraint(condition=Q(u95__gte=0), name="logged_u95_positive"),
            models.CheckConstraint(
                condition=Q(set_up_share__gte=0, set_up_share__lte=1), name="logged_share_is_one"
            ),
            models.CheckConstraint(
                condition=Q(worst="") | Q(worst__in=get_args(SourceKind)), name="logged_worst_known"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.reading} {self.at} of {self.swing_id}"
