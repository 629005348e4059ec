"""What an instructor made of a swing's judgement: decisions on faults, and the plan for the lesson."""

from typing import get_args

from django.db import models
from django.db.models import Q

from tropometer.teaching.judging.finding import Decision, Verdict


class DecidedFault(models.Model):
    """A fault of a swing that an instructor accepted, rejected or added, why, and what was read of it."""

    swing = models.ForeignKey("bench.Swing", on_delete=models.CASCADE, related_name="decided_faults")
    fault = models.CharField(max_length=40, help_text="its id in the book")
    decision = models.CharField(max_length=8)
    reason = models.CharField(max_length=300, blank=True)
    verdict_then = models.CharField(max_length=14)
    certainty_then = models.FloatField()
    decided_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["swing", "fault"], name="fault_decided_once_a_swing"),
            models.CheckConstraint(condition=Q(decision__in=get_args(Decision)), name="fault_decision_known"),
            models.CheckConstraint(
                condition=Q(verdict_then__in=get_args(Verdict)), name="fault_verdict_then_known"
            ),
            models.CheckConstraint(
                condition=Q(certainty_then__gte=0, certainty_then__lte=1), name="fault_certainty_then_a_share"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.fault} {self.decision}"


class FoundFault(models.Model):
    """A fault that is likely or shown in a swing, as it was judged last: what lists are searched by."""

    swing = models.ForeignKey("bench.Swing", on_delete=models.CASCADE, related_name="found_faults")
    fault = models.CharField(max_length=40, help_text="its id in the book")
    certainty = models.FloatField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["swing", "fault"], name="fault_found_once_a_swing"),
            models.CheckConstraint(
                condition=Q(certainty__gte=0, certainty__lte=1), name="fault_found_certainty_a_share"
            ),
        ]
        indexes = [models.Index(fields=["fault"], name="found_by_fault")]

    def __str__(self) -> str:
        return f"{self.fault} in {self.swing_id}"


class Plan(models.Model):
    """What the lesson on a swing is about, as `PlanIn`; once sent, also in the words that were sent."""

    swing = models.OneToOneField("bench.Swing", on_delete=models.CASCADE, related_name="plan")
    document = models.JSONField()
    chosen_at = models.DateTimeField(auto_now=True)
    as_sent = models.JSONField(null=True, help_text="the plan in the book's words of that day, as SentPlan")
    reopened = models.BooleanField(default=False, help_text="sent, and to be sent anew: it can be changed")

    class Meta:
        ordering = ["-chosen_at"]

    def __str__(self) -> str:
        return f"plan for {self.swing_id}"


class TakenChoice(models.Model):
    """A decision or a plan that a swing has taken, by its sender's name for it: it is made once.

    A browser that was killed may not know that what it sent arrived, and that something newer did since.
    """

    id = models.UUIDField(primary_key=True, editable=False)
    swing = models.ForeignKey("bench.Swing", on_delete=models.CASCADE, related_name="taken_choices")
    at = models.DateTimeField(auto_now=True)
