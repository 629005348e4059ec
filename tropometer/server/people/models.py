"""Instructors who sign in, and their students."""

import secrets
import uuid
from typing import ClassVar, get_args

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.contrib.auth.models import PermissionsMixin
from django.contrib.postgres.fields import ArrayField
from django.db import models
from django.db.models import Q
from django.db.models.functions import Lower

from tropometer.swing.names import CLUB_CLASSES
from tropometer.teaching.knowledge.caution import Trouble
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart


class Hand(models.TextChoices):
    RIGHT = "right"
    LEFT = "left"


class Units(models.TextChoices):
    CM = "cm"
    INCH = "in"


class Heading(models.TextChoices):
    """The colour over what students read: none of those that say whose a swing is."""

    PINE = "pine"
    SEA = "sea"
    HEATH = "heath"
    EARTH = "earth"


class MailWish(models.TextChoices):
    """How often somebody is told by mail that something waits for them."""

    EACH = "each", "each time"
    DAILY = "daily", "at most once a day for each thread"
    OFF = "off", "never"


def new_token() -> str:
    """256 random bits; whoever holds them is let in."""
    return secrets.token_urlsafe(32)


def portrait_path(user: "User", name: str) -> str:
    """Where it is kept, each time elsewhere; the sender's file name never becomes a path."""
    return f"portraits/{user.pk}/{uuid.uuid4()}"


class UserManager(BaseUserManager["User"]):
    def create_user(self, email: str, name: str, password: str | None = None) -> "User":
        """A new instructor account."""
        user = self.model(email=email.strip().lower(), name=name)
        user.set_password(password)
        user.save()
        return user


class User(AbstractBaseUser, PermissionsMixin):
    """An instructor's account."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    email = models.EmailField(unique=True)
    name = models.CharField(max_length=120)
    units = models.CharField(max_length=2, choices=Units.choices, default=Units.CM)
    hand_sd_px = models.FloatField(
        null=True, help_text="how steadily this hand marks: one standard deviation on a 720-line picture"
    )
    mail_wish = models.CharField(max_length=5, choices=MailWish.choices, default=MailWish.DAILY)
    practice = models.CharField(max_length=80, blank=True, help_text="the name above what students read")
    heading = models.CharField(max_length=5, choices=Heading.choices, default=Heading.PINE)
    portrait = models.FileField(upload_to=portrait_path, blank=True)
    is_active = models.BooleanField(default=True)
    joined_at = models.DateTimeField(auto_now_add=True)

    USERNAME_FIELD = "email"
    REQUIRED_FIELDS: ClassVar[list[str]] = ["name"]
    objects = UserManager()

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(email=Lower("email")), name="user_mail_in_small_letters"),
            models.CheckConstraint(condition=Q(units__in=Units.values), name="user_units_known"),
            models.CheckConstraint(
                condition=Q(hand_sd_px__isnull=True) | Q(hand_sd_px__gt=0, hand_sd_px__lte=50),
                name="user_hand_sd_plausible",
            ),
            models.CheckConstraint(condition=Q(mail_wish__in=MailWish.values), name="user_mail_wish_known"),
            models.CheckConstraint(condition=Q(heading__in=Heading.values), name="user_heading_known"),
        ]

    def __str__(self) -> str:
        return self.name


class Student(models.Model):
    """Somebody an instructor teaches."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    instructor = models.ForeignKey(User, on_delete=models.CASCADE, related_name="students")
    name = models.CharField(max_length=120)
    email = models.EmailField(blank=True)
    hand = models.CharField(max_length=5, choices=Hand.choices)
    units = models.CharField(
        max_length=2,
        choices=Units.choices,
        blank=True,
        help_text="that they read in; empty: the instructor's",
    )
    stature_m = models.FloatField(null=True, blank=True)
    teaching_model = models.CharField(max_length=40, default="loaded_shift")
    history = models.TextField(max_length=2000, blank=True, help_text="what the instructor keeps in mind")
    misses = ArrayField(models.CharField(max_length=12), default=list, help_text="what usually goes wrong")
    good_clubs = ArrayField(models.CharField(max_length=6), default=list, help_text="those that go well")
    bad_clubs = ArrayField(models.CharField(max_length=6), default=list, help_text="those that do not")
    minor = models.BooleanField(default=False)
    guardian = models.CharField(max_length=120, blank=True, help_text="who consented for a minor")
    guardian_email = models.EmailField(blank=True, help_text="gets a minor's mails too")
    consent_on = models.DateField(null=True, blank=True)
    added_at = models.DateTimeField(auto_now_add=True)
    archived_at = models.DateTimeField(null=True, blank=True, help_text="not taught any more since")
    removed_at = models.DateTimeField(null=True, blank=True, help_text="in the bin since")

    class Meta:
        ordering = ["name", "id"]
        indexes = [models.Index(fields=["instructor", "name"], name="student_by_name")]
        constraints = [
            models.CheckConstraint(condition=Q(hand__in=Hand.values), name="student_hand_known"),
            models.CheckConstraint(condition=Q(units__in=["", *Units.values]), name="student_units_known"),
            models.CheckConstraint(
                condition=Q(stature_m__isnull=True) | Q(stature_m__gte=0.8, stature_m__lte=2.5),
                name="student_stature_plausible",
            ),
            models.CheckConstraint(
                condition=Q(consent_on__isnull=True) | ~Q(guardian=""), name="student_consent_is_somebodys"
            ),
            models.CheckConstraint(
                condition=Q(misses__contained_by=list(get_args(BallMiss))), name="student_misses_known"
            ),
            models.CheckConstraint(
                condition=Q(good_clubs__contained_by=list(CLUB_CLASSES))
                & Q(bad_clubs__contained_by=list(CLUB_CLASSES)),
                name="student_clubs_known",
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def may_be_filmed(self) -> bool:
        """Clips of a minor need a guardian's consent."""
        return not self.minor or self.consent_on is not None

    @property
    def links_hold(self) -> bool:
        """Whether private links to this student's lessons and requests lead anywhere."""
        page: StudentPage | None = getattr(self, "page", None)
        return self.may_be_filmed and self.removed_at is None and (page is None or page.closed_at is None)

    @property
    def addresses(self) -> list[str]:
        """Where mails to this student go: to them, and to the guardian of a minor."""
        all_of_them = [self.email, self.guardian_email if self.minor else ""]
        return list(dict.fromkeys(filter(None, all_of_them)))


class StudentNote(models.Model):
    """What an instructor noted of a student on a day; no student reads it."""

    id = models.UUIDField(primary_key=True, editable=False)
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="notes")
    day = models.DateField()
    words = models.TextField(max_length=4000)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-day", "-changed_at", "id"]
        constraints = [models.CheckConstraint(condition=~Q(words=""), name="note_says_something")]

    def __str__(self) -> str:
        return f"{self.day}, {self.student}"


class StudentPage(models.Model):
    """A student's own lasting page: a private link, and how often they are told of news."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    student = models.OneToOneField(Student, on_delete=models.CASCADE, related_name="page")
    token = models.CharField(max_length=64, unique=True, default=new_token)
    made_at = models.DateTimeField(auto_now_add=True)
    closed_at = models.DateTimeField(
        null=True, blank=True, help_text="no link of this student leads anywhere"
    )
    opened_at = models.DateTimeField(null=True, blank=True, help_text="last, by whoever holds the link")
    mail_wish = models.CharField(max_length=5, choices=MailWish.choices, default=MailWish.DAILY)
    student_mailed_at = models.DateTimeField(null=True, blank=True, help_text="the last news of the thread")
    instructor_mailed_at = models.DateTimeField(null=True, blank=True)
    mail_trouble = models.CharField(max_length=300, blank=True, help_text="why mail does not arrive")

    class Meta:
        constraints = [
            models.CheckConstraint(condition=Q(mail_wish__in=MailWish.values), name="page_mail_wish_known"),
        ]

    def __str__(self) -> str:
        return f"page of {self.student}"


class Ache(models.Model):
    """What is the matter with a part of a student's body, or all of it, and who agreed to drills."""

    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="aches")
    part = models.CharField(max_length=16, blank=True, help_text="empty: the whole person")
    trouble = models.CharField(max_length=10)
    agreed_by = models.CharField(max_length=120, blank=True, help_text="a physician or physiotherapist")
    agreed_on = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["student", "part", "trouble"], name="ache_once_a_student"),
            models.CheckConstraint(
                condition=Q(part="") | Q(part__in=get_args(BodyPart)), name="ache_part_known"
            ),
            models.CheckConstraint(condition=Q(trouble__in=get_args(Trouble)), name="ache_trouble_known"),
            models.CheckConstraint(
                condition=Q(agreed_by="", agreed_on__isnull=True)
                | (~Q(agreed_by="") & Q(agreed_on__isnull=False)),
                name="ache_agreed_by_somebody_on_a_day",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.trouble}, {self.part or 'whole person'}"


class MotionMeasured(models.Model):
    """A range of motion as it was measured on a student, degrees."""

    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="motions")
    motion = models.CharField(max_length=40, help_text="its id in the book")
    degrees = models.FloatField()
    measured_on = models.DateField()

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(fields=["student", "motion"], name="motion_once_a_student"),
            models.CheckConstraint(
                condition=Q(degrees__gte=-180, degrees__lte=180), name="motion_degrees_plausible"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.motion} {self.degrees:g}"
