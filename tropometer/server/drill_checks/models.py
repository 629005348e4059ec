"""What a machine said of a filmed drill, and what the instructor says of that."""

from django.db import models
from django.db.models import Q


class Answer(models.TextChoices):
    INSIDE = "inside"
    OUTSIDE = "outside"
    UNSURE = "unsure"
    NOT_READ = "not_read"


class Why(models.TextChoices):
    """What to change where a machine could not read a try."""

    NO_SWING = "no_swing"
    SLOWED = "slowed"
    OTHER_VIEW = "other_view"
    MIRRORED = "mirrored"
    CUT_OFF = "cut_off"
    REFUSED = "refused"


class Said(models.TextChoices):
    """What an instructor, who has looked, says of a try."""

    INSIDE = "inside"
    OUTSIDE = "outside"


class CheckedDrill(models.Model):
    """A try at a drill as a machine alone answered it, before anybody had looked.

    What the check was then is kept in words: pages are edited.
    """

    swing = models.OneToOneField(
        "bench.Swing", on_delete=models.CASCADE, primary_key=True, related_name="checked"
    )
    name = models.CharField(max_length=120, help_text="of the drill, as it is called then")
    holds = models.TextField(max_length=1000, blank=True, help_text="what the camera should show, in words")
    answer = models.CharField(max_length=8, choices=Answer.choices)
    why = models.CharField(max_length=10, choices=Why.choices, blank=True)
    reason = models.CharField(max_length=300, blank=True, help_text="of a refused reading, in words")
    unit = models.CharField(max_length=8, blank=True)
    beyond = models.FloatField(null=True, help_text="how far past the limit, positive where it holds")
    give_or_take = models.FloatField(null=True, help_text="how far off that may be on the limit's side")
    clip = models.UUIDField(null=True, help_text="that the picture is of")
    frame = models.PositiveIntegerField(default=0)
    drawn = models.JSONField(null=True, help_text="the picture's gauges")
    answered_at = models.DateTimeField(auto_now_add=True)
    said = models.CharField(max_length=7, choices=Said.choices, blank=True, help_text="by the instructor")
    said_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-swing__received_at", "pk"]
        constraints = [
            models.CheckConstraint(condition=Q(answer__in=Answer.values), name="drill_check_answer_known"),
            models.CheckConstraint(condition=Q(said__in=["", *Said.values]), name="drill_check_said_known"),
            models.CheckConstraint(
                condition=Q(answer="not_read") | Q(beyond__isnull=False, give_or_take__isnull=False),
                name="drill_check_answer_has_its_number",
            ),
            models.CheckConstraint(
                condition=Q(said="", said_at__isnull=True) | (~Q(said="") & Q(said_at__isnull=False)),
                name="drill_check_said_when",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.name}: {self.answer}"
