"""What instructors add to the book: models, faults and drills of their own, and what shows a drill."""

import uuid

from django.db import models
from django.db.models import Q


def shown_path(shown: "Shown", name: str) -> str:
    """Where it is kept; the sender's file name never becomes a path."""
    return f"drills/{shown.pk}"


class Page(models.Model):
    """A page of an instructor's own, as the document that it was checked as."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="book_pages")
    kind = models.CharField(max_length=20)
    piece = models.CharField(max_length=40, help_text="the id that other pages know it by")
    document = models.JSONField()
    written_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["kind", "piece"]
        constraints = [
            models.UniqueConstraint(fields=["instructor", "kind", "piece"], name="page_once_an_instructor"),
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.piece}"


class Shown(models.Model):
    """A picture or a short clip of an instructor's own that shows a drill of theirs.

    One that was replaced, or whose drill was taken out, stays as long as a sent lesson shows it.
    """

    KINDS = {"picture": "Picture", "clip": "Clip"}

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="shown_drills")
    drill = models.CharField(max_length=40, help_text="the id of the drill in the book")
    kind = models.CharField(max_length=7, choices=KINDS)
    file = models.FileField(upload_to=shown_path)
    added_at = models.DateTimeField(auto_now_add=True)
    replaced_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["drill", "added_at"]
        constraints = [
            models.CheckConstraint(condition=Q(kind__in=("picture", "clip")), name="shown_kind_known"),
            models.UniqueConstraint(
                fields=["instructor", "drill"],
                condition=Q(replaced_at__isnull=True),
                name="shown_once_a_drill",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.kind} of {self.drill}"
