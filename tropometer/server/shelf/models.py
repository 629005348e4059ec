"""The reference swings an instructor compares with."""

import uuid

from django.db import models
from django.db.models import Q

from tropometer.swing.formats.laboratory import AXES
from tropometer.swing.names import HANDS


class ReferenceSwing(models.Model):
    """A named swing on an instructor's shelf."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="references")
    swing = models.OneToOneField("bench.Swing", on_delete=models.CASCADE, related_name="reference")
    name = models.CharField(max_length=120)
    about = models.CharField(max_length=400, blank=True)
    teaching_model = models.CharField(max_length=40, blank=True, help_text="the teaching model that it shows")

    class Meta:
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name


class MarkerProfile(models.Model):
    """What a laboratory's markers stand for, said once and kept."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="marker_profiles")
    name = models.CharField(max_length=80)
    hand = models.CharField(max_length=5, help_text="of the player for whom it was said")
    marks = models.JSONField(help_text="label → mark")
    up = models.CharField(max_length=2, help_text="the file's axis that is up")
    toward = models.CharField(max_length=2, help_text="the one that is toward the target")

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            models.UniqueConstraint(fields=["instructor", "name"], name="marker_profile_name_once"),
            models.CheckConstraint(condition=Q(hand__in=HANDS), name="marker_profile_hand_known"),
            models.CheckConstraint(
                condition=Q(up__in=AXES, toward__in=AXES), name="marker_profile_axes_known"
            ),
        ]

    def __str__(self) -> str:
        return self.name
