"""What instructors add to the book: models, faults and drills of their own."""

import uuid

from django.db import models


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
