"""Swings on the bench: pegs, marks and calibration of their clips, and the log of edits."""

import secrets
import uuid
from datetime import datetime, timedelta
from typing import Any, cast, get_args

from django.conf import settings
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q
from django.utils import timezone

from tropometer.swing.names import (
    CHECKPOINTS,
    CLUB_CLASSES,
    EVENTS,
    HANDS,
    MARKS,
    PLACES,
    SOURCES,
    SWING_LENGTHS,
    TRACKED,
)
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart


class SwingQuerySet(models.QuerySet["Swing"]):
    def seen_by(self, instructor: Any) -> "SwingQuerySet":
        """The instructor's, but for what lies in the bin."""
        own = self.filter(instructor=instructor, removed_at__isnull=True)
        return own.filter(student__removed_at__isnull=True)

    def swung(self) -> "SwingQuerySet":
        """Without tries at drills: swings as somebody makes them."""
        return self.filter(drill="")


class Swing(models.Model):
    """One swing: a student's, with what they wrote, or a reference's, without a student."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="swings")
    student = models.ForeignKey(
        "people.Student", on_delete=models.CASCADE, null=True, blank=True, related_name="swings"
    )
    reference_hand = models.CharField(max_length=5, choices=[(hand, hand) for hand in HANDS], blank=True)
    club = models.CharField(max_length=60, blank=True)
    club_class = models.CharField(
        max_length=6, null=True, choices=[(each, each) for each in CLUB_CLASSES], help_text="null: not said"
    )
    swing_length = models.CharField(
        max_length=14, null=True, choices=[(each, each) for each in SWING_LENGTHS], help_text="null: not said"
    )
    words = models.TextField(max_length=2000, blank=True)
    usual_miss = models.CharField(max_length=200, blank=True)
    what_hurts = models.CharField(max_length=200, blank=True)
    misses = ArrayField(models.CharField(max_length=12), default=list, help_text="what usually goes wrong")
    hurts = ArrayField(models.CharField(max_length=16), default=list, help_text="parts of the body that hurt")
    camera_place = models.CharField(max_length=200, blank=True, help_text="where the camera stood")
    received_at = models.DateTimeField(default=timezone.now)
    sent_by = models.ForeignKey(
        "bench.SwingRequest", on_delete=models.SET_NULL, null=True, blank=True, related_name="swings",
        help_text="the link by which it came",
    )  # fmt: skip
    one_swing = models.BooleanField(
        null=True, help_text="its two views show one swing; false: a swing each; null: nobody has said"
    )
    drill = models.CharField(
        max_length=40, blank=True, help_text="a try at this drill: no swing that waits for an answer"
    )
    answered_at = models.DateTimeField(null=True, blank=True)
    removed_at = models.DateTimeField(null=True, blank=True, help_text="in the bin since")
    found_in = models.ForeignKey(
        "self", on_delete=models.SET_NULL, null=True, blank=True, related_name="found",
        help_text="the swing in whose clip this one was found too",
    )  # fmt: skip
    part = models.PositiveSmallIntegerField(default=1, help_text="the first swing of its clip, the second …")
    parts = models.PositiveSmallIntegerField(default=1, help_text="how many were found in the clip")

    objects = SwingQuerySet.as_manager()

    class Meta:
        ordering = ["-received_at", "part", "id"]
        indexes = [
            models.Index(fields=["instructor", "-received_at", "part", "id"], name="swing_by_time"),
            models.Index(fields=["student", "received_at"], name="swing_of_student_by_time"),
        ]
        constraints = [
            models.CheckConstraint(
                condition=Q(part__gte=1, part__lte=models.F("parts")), name="swing_part_is_one_of_parts"
            ),
            models.UniqueConstraint(fields=["found_in", "part"], name="swing_part_once"),
            models.CheckConstraint(
                condition=Q(misses__contained_by=list(get_args(BallMiss))), name="swing_misses_known"
            ),
            models.CheckConstraint(
                condition=Q(hurts__contained_by=list(get_args(BodyPart))), name="swing_hurts_known"
            ),
            models.CheckConstraint(condition=Q(club_class__in=CLUB_CLASSES), name="swing_club_class_known"),
            models.CheckConstraint(condition=Q(swing_length__in=SWING_LENGTHS), name="swing_length_known"),
            models.CheckConstraint(
                condition=(Q(student__isnull=False) & Q(reference_hand=""))
                | (Q(student__isnull=True) & Q(reference_hand__in=HANDS)),
                name="swing_has_student_or_reference_hand",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.student or 'reference'}, {self.club}"

    @property
    def hand(self) -> str:
        """Hand of whoever swings."""
        return self.student.hand if self.student else self.reference_hand

    @property
    def units(self) -> str:
        """Those in which its student reads."""
        own = self.student.units if self.student else ""
        return own or self.instructor.units

    @property
    def first_tapes(self) -> list[dict[str, Any]]:
        """What stands out at the first look, while nobody has put anything on the swing."""
        return self.first_look.tapes if hasattr(self, "first_look") else []


def request_token() -> str:
    """192 random bits; whoever holds them may send swings for one student."""
    return secrets.token_urlsafe(24)


def request_expiry() -> datetime:
    """When a link that is made now runs out."""
    return timezone.now() + timedelta(days=settings.LINK_DAYS)


class SwingRequest(models.Model):
    """An instructor's private link by which a student sends swings without an account."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey("people.User", on_delete=models.CASCADE, related_name="requests")
    student = models.ForeignKey("people.Student", on_delete=models.CASCADE, related_name="requests")
    token = models.CharField(max_length=64, unique=True, default=request_token)
    note = models.TextField(max_length=1000, blank=True, help_text="what to film, in the instructor's words")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField(default=request_expiry)
    closed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-made_at", "id"]
        constraints = [
            models.UniqueConstraint(
                fields=["student"], condition=Q(closed_at__isnull=True), name="request_open_once_a_student"
            )
        ]

    def __str__(self) -> str:
        return f"request to {self.student}"


class Peg(models.Model):
    """A checkpoint or another event put on a frame."""

    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="pegs")
    name = models.CharField(max_length=24)
    frame = models.PositiveIntegerField()
    between = models.BooleanField(default=False, help_text="it happens between this frame and the next")
    accepted = models.BooleanField(
        default=False, db_default=False, help_text="as a machine proposed it, which is as exact as it is"
    )

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(between=False) | Q(name="impact"), name="peg_only_impact_is_between"
            ),
            models.UniqueConstraint(fields=["clip", "name"], name="peg_once_a_clip"),
            models.CheckConstraint(condition=Q(name__in=CHECKPOINTS + EVENTS), name="peg_name_known"),
        ]


class Mark(models.Model):
    """A point on a frame, pixels of the upright full-size frame."""

    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="marks")
    name = models.CharField(max_length=24)
    frame = models.PositiveIntegerField()
    x = models.FloatField()
    y = models.FloatField()
    sd_px = models.FloatField()
    source = models.CharField(max_length=8, default="hand")
    shared_px = models.FloatField(
        default=0.0, db_default=0.0, help_text="of sd_px: the same on all frames that have one"
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["clip", "name", "frame"], name="mark_once_a_frame"),
            models.CheckConstraint(condition=Q(name__in=sorted(MARKS)), name="mark_name_known"),
            models.CheckConstraint(condition=Q(source__in=SOURCES), name="mark_source_known"),
            models.CheckConstraint(condition=Q(sd_px__gt=0), name="mark_sd_positive"),
            models.CheckConstraint(
                condition=Q(shared_px__gte=0, shared_px__lte=models.F("sd_px")),
                name="mark_shares_at_most_all",
            ),
        ]


class HiddenMark(models.Model):
    """Somebody looked for a mark on a frame and could not see it."""

    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="hidden_marks")
    name = models.CharField(max_length=24)
    frame = models.PositiveIntegerField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["clip", "name", "frame"], name="hidden_mark_once_a_frame"),
            models.CheckConstraint(condition=Q(name__in=sorted(MARKS)), name="hidden_mark_name_known"),
        ]


class Track(models.Model):
    """A mark followed by optical flow between the frames on which it was placed."""

    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="tracks")
    name = models.CharField(max_length=24)
    basis = models.JSONField(help_text="placed: [frame, x, y] in order; hidden: frames between them")
    first_frame = models.PositiveIntegerField()
    values = models.BinaryField(
        help_text="float32 (n, 3): x, y, the flow's own standard deviation; NaN: stopped"
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["clip", "name"], name="track_once_a_mark"),
            models.CheckConstraint(condition=Q(name__in=TRACKED), name="track_name_known"),
        ]


class CarriedMark(models.Model):
    """A mark by hand carried to the pegs about it: a proposal there."""

    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="carried_marks")
    name = models.CharField(max_length=24)
    basis = models.JSONField(help_text="of each mark by hand: frame, x, y, spread, frames it is carried to")
    places = models.JSONField(help_text="by frame: x, y and one standard deviation, pixels")

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["clip", "name"], name="carried_once_a_mark"),
            models.CheckConstraint(condition=Q(name__in=TRACKED), name="carried_name_known"),
        ]


class Calibration(models.Model):
    """A straight thing of known length in the picture, and where it lies."""

    clip = models.OneToOneField("clips.Clip", on_delete=models.CASCADE, related_name="calibration")
    ax = models.FloatField()
    ay = models.FloatField()
    bx = models.FloatField()
    by = models.FloatField()
    length_m = models.FloatField(null=True, help_text="null: nobody has said how long it is")
    place = models.CharField(max_length=12)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(place__in=PLACES), name="calibration_place_known"),
            models.CheckConstraint(
                condition=Q(length_m__gt=0, length_m__lte=20), name="calibration_length_plausible"
            ),
        ]


class CameraFacts(models.Model):
    """What somebody knows of a clip's camera: taped, paced, squared, or an upright edge in its picture."""

    clip = models.OneToOneField("clips.Clip", on_delete=models.CASCADE, related_name="camera_facts")
    distance_m = models.FloatField(null=True, help_text="to the player, along the floor")
    height_m = models.FloatField(null=True)
    squared = models.BooleanField(default=False, help_text="squared to a stick, not placed by eye")
    plumb = models.JSONField(null=True, help_text="ax, ay, bx, by of an upright edge, pixels")

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(distance_m__isnull=True) | Q(distance_m__gte=1, distance_m__lte=30),
                name="camera_distance_plausible",
            ),
            models.CheckConstraint(
                condition=Q(height_m__isnull=True) | Q(height_m__gte=0.05, height_m__lte=5),
                name="camera_height_plausible",
            ),
        ]


class Mat(models.Model):
    """A mat of known size on the floor of a clip, from whose corners its camera is solved."""

    clip = models.OneToOneField("clips.Clip", on_delete=models.CASCADE, related_name="mat")
    corners = models.JSONField(help_text="four of x and y, pixels, in any order")
    along_m = models.FloatField(null=True, help_text="along the target line; null: nobody has said")
    across_m = models.FloatField(null=True, help_text="across it")
    place = models.CharField(max_length=80, blank=True, help_text="where it lies, as its instructor calls it")

    class Meta:
        constraints = [
            models.CheckConstraint(
                condition=Q(along_m__isnull=True, across_m__isnull=True)
                | Q(along_m__gt=0, along_m__lte=20, across_m__gt=0, across_m__lte=20),
                name="mat_size_plausible",
            )
        ]


class Pressure(models.Model):
    """What a pressure plate felt during a swing."""

    swing = models.OneToOneField(Swing, on_delete=models.CASCADE, related_name="pressure")
    file_name = models.CharField(max_length=120)
    felt = models.JSONField(help_text="the swing record's own object")

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(felt__has_key="times_s"), name="pressure_has_times"),
        ]


class Shot(models.Model):
    """What a launch monitor said of a swing's shot."""

    swing = models.OneToOneField(Swing, on_delete=models.CASCADE, related_name="shot")
    source = models.CharField(max_length=120, help_text="the table it came in")
    said = models.JSONField(help_text="the swing record's own object")

    class Meta:
        constraints = [models.CheckConstraint(condition=~Q(said={}), name="shot_says_something")]

    def __str__(self) -> str:
        return f"shot of {self.swing_id}"


class BenchEdit(models.Model):
    """Every edit as it came. The browser names it, so that one sent twice is done once."""

    id = models.UUIDField(primary_key=True, editable=False)
    clip = models.ForeignKey("clips.Clip", on_delete=models.CASCADE, related_name="edits")
    number = models.PositiveIntegerField(help_text="its place among the clip's edits, from 1")
    body = models.JSONField()
    before = models.JSONField(default=dict, help_text="the edit that brings back what was there")
    way = models.CharField(max_length=4, default="do", help_text="do, undo or redo")
    gesture = models.UUIDField(null=True, help_text="what one drag or one key did; undone together")
    undone = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["gesture"], name="edit_by_gesture")]
        constraints = [
            models.UniqueConstraint(fields=["clip", "number"], name="edit_number_once_a_clip"),
            models.CheckConstraint(condition=Q(way__in=("do", "undo", "redo")), name="edit_way_known"),
        ]


class FirstLook(models.Model):
    """What a machine reads of a swing before anybody has looked at it; it is on no clip."""

    swing = models.OneToOneField(Swing, on_delete=models.CASCADE, related_name="first_look")
    mats = models.JSONField(default=dict, help_text="mats carried over, as schemas.MatValue, by clip")
    tapes = models.JSONField(default=list, help_text="as schemas.FirstTape, the surest first")
    read = models.JSONField(null=True, help_text="reading, at, value, u95 of each; null: not looked at yet")
    glanced = models.JSONField(
        null=True, help_text="the same of a quick look, and gates (shares of the width), by clip; null: none"
    )

    def __str__(self) -> str:
        return f"first look at {self.swing_id}"

    @property
    def latest(self) -> list[dict[str, Any]]:
        """What was read last: by the first look, else by the glances, of each reading the surest."""
        if self.read is not None:
            return cast("list[dict[str, Any]]", self.read)
        surest: dict[tuple[str, str], dict[str, Any]] = {}
        for each in (each for told in (self.glanced or {}).values() for each in told["readings"]):
            key = each["reading"], each["at"]
            if key not in surest or each["u95"] < surest[key]["u95"]:
                surest[key] = each
        return list(surest.values())
