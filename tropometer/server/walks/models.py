"""A walk: the takes that were recorded, piece by piece, the cut of them, and what was made of it."""

import uuid

from django.db import models
from django.db.models import Q

CONTAINERS = {"webm": "audio/webm", "mp4": "audio/mp4", "wav": "audio/wav"}


def take_path(take: "Take", name: str) -> str:
    return f"walks/{take.walk_id}/takes/{take.pk}.m4a"


def voice_path(walk: "Walk", name: str) -> str:
    """A name of its own for each making: who plays the one before hears it to its end."""
    return f"walks/{walk.pk}/{uuid.uuid4().hex}.m4a"


def film_path(walk: "Walk", name: str) -> str:
    return f"walks/{walk.pk}/{uuid.uuid4().hex}.mp4"


def kept_clip_path(kept: "KeptClip", name: str) -> str:
    return f"walks/{kept.walk_id}/clips/{kept.pk}.mp4"


class Walk(models.Model):
    """The walk of one lesson. `cut` says which stretches of which takes it is made of, in their order."""

    lesson = models.OneToOneField(
        "lessons.Lesson", on_delete=models.CASCADE, primary_key=True, related_name="walk"
    )
    cut = models.JSONField(default=list, help_text="as schemas.WalkStretch, in order")
    captions = models.JSONField(default=dict, help_text="words over each chapter, by its checkpoint")
    taken = models.JSONField(default=list, help_text="ids of its latest changes: none is made twice")
    changed = models.PositiveIntegerField(default=0, help_text="how often cut or words have changed")
    made = models.PositiveIntegerField(
        null=True, help_text="of which change voice and score are; null: of none"
    )
    voice = models.FileField(upload_to=voice_path, blank=True)
    length_ms = models.PositiveIntegerField(default=0, help_text="of the voice as it was made")
    score = models.JSONField(default=list, help_text="of the whole walk, with nothing of what was cut away")
    chapters = models.JSONField(default=list)
    film = models.FileField(upload_to=film_path, blank=True)
    film_made = models.PositiveIntegerField(null=True, help_text="of which change the film is; null: of none")
    film_progress = models.PositiveSmallIntegerField(null=True, help_text="percent of one that is being made")
    trouble = models.CharField(max_length=300, blank=True, help_text="why it could not be made")

    def __str__(self) -> str:
        return f"walk of {self.pk}"


class Take(models.Model):
    """What was said in one go. Its pieces are kept as they came; `voice` is made from them."""

    id = models.UUIDField(primary_key=True, editable=False)
    walk = models.ForeignKey(Walk, on_delete=models.CASCADE, related_name="takes")
    container = models.CharField(max_length=4, choices=[(each, each) for each in CONTAINERS])
    silent = models.BooleanField(default=False, help_text="nobody speaks in it: its words are read")
    begun_at = models.DateTimeField(auto_now_add=True)
    on_stage = models.JSONField(default=dict, help_text="after its last piece: clips by stage")
    ended = models.BooleanField(default=False, help_text="its last piece has come")
    voice = models.FileField(upload_to=take_path, blank=True)
    voiced_pieces = models.PositiveIntegerField(default=0, help_text="how many pieces `voice` is made from")
    length_ms = models.PositiveIntegerField(default=0, help_text="of `voice`")
    silences = models.JSONField(default=list, help_text="[from, to] in ms where nobody speaks")
    again = models.JSONField(default=list, help_text="ms at which something was to be said again")
    trouble = models.CharField(max_length=300, blank=True, help_text="why its voice could not be made")

    class Meta:
        ordering = ["begun_at", "id"]
        constraints = [
            models.CheckConstraint(condition=Q(container__in=tuple(CONTAINERS)), name="take_container_known"),
        ]

    def __str__(self) -> str:
        return f"take of {self.walk_id}"


class Piece(models.Model):
    """A few seconds of a take: the next bytes of its voice, and what happened on the stages."""

    take = models.ForeignKey(Take, on_delete=models.CASCADE, related_name="pieces")
    number = models.PositiveIntegerField()
    voice = models.BinaryField()
    until_ms = models.PositiveIntegerField(help_text="on the voice's clock, when it ends")
    score = models.JSONField(default=list)
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["take", "number"]
        constraints = [models.UniqueConstraint(fields=["take", "number"], name="one_piece_a_number")]

    def __str__(self) -> str:
        return f"piece {self.number} of {self.take_id}"


class KeptClip(models.Model):
    """A clip as a walk shows it, whatever becomes of the clip itself: its picture, names, pegs and gauges."""

    walk = models.ForeignKey(Walk, on_delete=models.CASCADE, related_name="clips")
    clip_id = models.UUIDField()
    student = models.ForeignKey(
        "people.Student",
        on_delete=models.CASCADE,
        null=True,
        related_name="+",
        help_text="who is seen: whoever is erased goes out of everybody's walks; null: a reference",
    )
    file = models.FileField(upload_to=kept_clip_path)
    shown = models.JSONField(help_text="as schemas.WalkClip")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["walk", "clip_id"], name="a_walk_keeps_a_clip_once")]

    def __str__(self) -> str:
        return f"clip {self.clip_id} of {self.walk_id}"
