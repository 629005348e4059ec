"""A student's video: the untouched original, its frame-exact proxy and the time of every frame."""

import uuid
from pathlib import Path
from typing import Any, NamedTuple

from django.conf import settings
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q
from django.utils import timezone

from tropometer.swing.names import VIEWS


class State(models.TextChoices):
    """How far a clip is. Refused: it was looked at and is none. Failed: a machine could not do its work."""

    WAITING = "waiting"
    WORKING = "working"
    READY = "ready"
    REFUSED = "refused"
    FAILED = "failed"


MOST_TRIES = 4  # to make one clip ready, however each ended, before a person is asked
LEAST_CAPTURE_FPS, MOST_CAPTURE_FPS = 10.0, 2000.0


def original_path(clip: "Clip", name: str) -> str:
    """Where an original is kept; the sender's file name never becomes a path."""
    return f"clips/{clip.pk}/original"


def proxy_path(clip: "Clip", name: str) -> str:
    return f"clips/{clip.pk}/proxy.mp4"


class Window(NamedTuple):
    """First and last frame of a swing in its clip."""

    first: int
    last: int


class ClipQuerySet(models.QuerySet["Clip"]):
    def ready(self) -> "ClipQuerySet":
        """Those that can be shown."""
        return self.filter(state=State.READY)

    def seen_by(self, instructor: Any) -> "ClipQuerySet":
        """The instructor's, but for what lies in the bin."""
        own = self.filter(instructor=instructor, swing__removed_at__isnull=True)
        return own.filter(swing__student__removed_at__isnull=True)


class Clip(models.Model):
    """One camera's view of one swing."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="clips")
    swing = models.ForeignKey("bench.Swing", on_delete=models.CASCADE, related_name="clips")
    view = models.CharField(max_length=16, choices=[(view, view) for view in VIEWS])
    capture_fps = models.FloatField(null=True, help_text="null: the file plays in real time")
    capture_from = models.CharField(
        max_length=6, choices=[("sender", "sender"), ("file", "file")], default="sender"
    )
    original = models.FileField(upload_to=original_path)
    original_name = models.CharField(max_length=200)
    played_fps = models.FloatField()
    proxy = models.FileField(upload_to=proxy_path, blank=True)
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    progress = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=300, blank=True, help_text="why it was refused, or what failed")
    tries = models.PositiveSmallIntegerField(default=0, help_text="to make it ready since a person asked")
    refused_at = models.DateTimeField(null=True, help_text="since when its original waits in quarantine")
    original_bytes = models.PositiveBigIntegerField(default=0)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    played_times_s = ArrayField(models.FloatField(), default=list)
    drawn = models.BooleanField(
        default=False, db_default=False, help_text="its original is a figure of marks, not a film"
    )
    flipped = models.BooleanField(default=False, help_text="filmed in a mirror: shown the right way round")
    strikes = models.JSONField(default=list, help_text="heard: played_s and confidence of each")
    movement = ArrayField(models.FloatField(), default=list, help_text="of each frame from the one before")
    window_first = models.PositiveIntegerField(null=True, help_text="of the swing; null: the whole clip")
    window_last = models.PositiveIntegerField(null=True, help_text="its last frame")
    window_from = models.CharField(
        max_length=5, choices=[("found", "found"), ("hand", "hand")], default="found"
    )
    player_at = models.JSONField(
        null=True, help_text="frame, x, y: a hand has shown who plays; null: nobody has"
    )
    looking = models.BooleanField(default=False, help_text="a worker is to look for the player")
    sha256 = models.CharField(max_length=64, blank=True, help_text="of the original")
    added_at = models.DateTimeField(auto_now_add=True)

    objects = ClipQuerySet.as_manager()

    class Meta:
        ordering = ["added_at", "id"]
        indexes = [models.Index(fields=["instructor", "sha256"], name="clip_by_content")]
        constraints = [
            models.CheckConstraint(condition=Q(view__in=VIEWS), name="clip_view_known"),
            models.CheckConstraint(condition=Q(progress__lte=100), name="clip_progress_is_percent"),
            models.CheckConstraint(
                condition=Q(capture_fps__isnull=True)
                | Q(capture_fps__gte=LEAST_CAPTURE_FPS, capture_fps__lte=MOST_CAPTURE_FPS),
                name="clip_capture_rate_plausible",
            ),
            models.CheckConstraint(
                condition=Q(capture_from__in=("sender", "file")), name="clip_capture_from_known"
            ),
            models.CheckConstraint(
                condition=Q(window_first__isnull=True, window_last__isnull=True)
                | Q(window_first__lt=models.F("window_last")),
                name="clip_window_is_a_stretch",
            ),
            models.CheckConstraint(
                condition=Q(window_from__in=("found", "hand")), name="clip_window_from_known"
            ),
            models.CheckConstraint(
                condition=~Q(state=State.READY) | ~Q(played_times_s=[]), name="clip_ready_has_times"
            ),
            models.CheckConstraint(
                condition=Q(state=State.REFUSED, refused_at__isnull=False)
                | (~Q(state=State.REFUSED) & Q(refused_at__isnull=True)),
                name="clip_refused_since",
            ),
        ]

    def __str__(self) -> str:
        return self.original_name

    @property
    def is_removed(self) -> bool:
        """Whether it lies in the bin, with its swing or with its student."""
        student = self.swing.student
        return self.swing.removed_at is not None or (student is not None and student.removed_at is not None)

    @property
    def frame_count(self) -> int:
        """Frames of the proxy; 0 until it is made."""
        return len(self.played_times_s)

    @property
    def window(self) -> Window:
        """The frames that are the swing."""
        if self.window_first is None or self.window_last is None:
            return Window(0, max(self.frame_count - 1, 0))
        return Window(self.window_first, self.window_last)


class SeenBody(models.Model):
    """The player's body in a clip, as a worker saw it with one of two networks: the fast or the close one."""

    clip = models.ForeignKey(Clip, on_delete=models.CASCADE, related_name="bodies")
    network = models.CharField(max_length=5, choices=[("fast", "fast"), ("close", "close")])
    first_frame = models.PositiveIntegerField()
    landmarks = models.BinaryField(help_text="float32 (n, 33, 3): x, y in pixels, visibility; NaN: nobody")
    outline = models.BinaryField(default=b"", help_text="float32 (n, 8, 2) of the same frames; empty: older")
    squares = models.BinaryField(
        default=b"",
        help_text="float32 (n, 4) about it: centre, side (pixels), lean (radians); empty: older",
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["clip", "network"], name="one_body_a_network"),
            models.CheckConstraint(condition=Q(network__in=("fast", "close")), name="body_network_known"),
        ]

    def __str__(self) -> str:
        return f"{self.network} body in {self.clip_id}"


class Proposals(models.Model):
    """What a clip seems to show, found by a worker from the player's body, sound and movement."""

    clip = models.OneToOneField(Clip, on_delete=models.CASCADE, related_name="proposals")
    closer = models.PositiveSmallIntegerField(
        null=True, help_text="percent of the frames looked at more closely; null: none, or all"
    )
    camera_motion = models.BinaryField(
        default=b"", help_text="float64 (frames, 9), as video.camera_motion; empty: still, or not seen"
    )
    found = models.JSONField(default=dict, help_text="view, hand, box and pegs, as schemas.ProposalsOut")

    def __str__(self) -> str:
        return f"proposals for {self.clip_id}"


class UploadQuerySet(models.QuerySet["Upload"]):
    def under_way(self) -> "UploadQuerySet":
        """Those that may still become clips."""
        return self.filter(refused_at__isnull=True)


class Upload(models.Model):
    """A file on its way in, piece by piece. It becomes a clip, or is forgotten after a while.

    How much of it is here is the size of its file, so that a killed server never disagrees with the disk.
    What was refused waits in quarantine before it is forgotten.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="uploads")
    asked_by = models.ForeignKey(
        "bench.SwingRequest", on_delete=models.CASCADE, null=True, blank=True, related_name="uploads"
    )
    student = models.ForeignKey(
        "people.Student", on_delete=models.CASCADE, null=True, blank=True, related_name="uploads",
        help_text="whom it shows; null: a reference",
    )  # fmt: skip
    name = models.CharField(max_length=200)
    size = models.PositiveBigIntegerField()
    begun_at = models.DateTimeField(auto_now_add=True)
    refusal = models.CharField(max_length=300, blank=True)
    refused_at = models.DateTimeField(null=True)

    objects = UploadQuerySet.as_manager()

    class Meta:
        ordering = ["begun_at", "id"]
        constraints = [
            models.CheckConstraint(condition=Q(size__gt=0), name="upload_not_empty"),
            models.CheckConstraint(
                condition=Q(refusal="", refused_at__isnull=True)
                | (~Q(refusal="") & Q(refused_at__isnull=False)),
                name="upload_refused_since",
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def path(self) -> Path:
        """The file of what has arrived; the sender's file name never becomes a path."""
        return Path(settings.UPLOAD_ROOT) / f"{self.pk}.part"

    @property
    def offset(self) -> int:
        """Bytes that have arrived."""
        return self.path.stat().st_size if self.path.exists() else 0

    @property
    def complete(self) -> bool:
        """Whether all of it is here."""
        return self.offset == self.size

    def refuse(self, why: str) -> None:
        """Put it into quarantine."""
        self.refusal, self.refused_at = why[:300], timezone.now()
        self.save(update_fields=["refusal", "refused_at"])
