"""Instructors who sign in, and their students."""

import uuid
from typing import ClassVar

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.contrib.auth.models import PermissionsMixin
from django.db import models
from django.db.models import Q
from django.db.models.functions import Lower


class Hand(models.TextChoices):
    RIGHT = "right"
    LEFT = "left"


class Units(models.TextChoices):
    CM = "cm"
    INCH = "in"


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
    stature_m = models.FloatField(null=True, blank=True)
    teaching_model = models.CharField(max_length=40, default="loaded_shift")
    history = models.TextField(max_length=2000, blank=True, help_text="what the instructor keeps in mind")
    minor = models.BooleanField(default=False)
    guardian = models.CharField(max_length=120, blank=True, help_text="who consented for a minor")
    consent_on = models.DateField(null=True, blank=True)
    added_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True, blank=True, help_text="in the bin since")

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            models.CheckConstraint(condition=Q(hand__in=Hand.values), name="student_hand_known"),
            models.CheckConstraint(
                condition=Q(stature_m__isnull=True) | Q(stature_m__gte=0.8, stature_m__lte=2.5),
                name="student_stature_plausible",
            ),
            models.CheckConstraint(
                condition=Q(consent_on__isnull=True) | ~Q(guardian=""), name="student_consent_is_somebodys"
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
        return self.may_be_filmed and self.removed_at is None
