"""The reference swings an instructor compares with."""

import uuid

from django.db import models


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
