"""A laboratory's file of markers: what it holds, taking it in, and the profiles that say what it means."""

from typing import Annotated, Any, Literal
from uuid import UUID

import numpy as np
from django.db.models import QuerySet
from django.http import HttpRequest
from ninja import File, Router, Schema
from ninja.errors import ValidationError
from ninja.files import UploadedFile
from pydantic import Field

from tropometer.server.access import asking, owned
from tropometer.server.bench.schemas import SwingKind
from tropometer.server.border import unusable_in
from tropometer.server.people.schemas import Hand, TeachingModel
from tropometer.server.shelf.laboratory import opened, put_recorded_on_shelf, understood
from tropometer.server.shelf.models import MarkerProfile
from tropometer.server.text import Line
from tropometer.swing.formats.laboratory import Axis, Meaning
from tropometer.swing.names import HANDS

router = Router(tags=["shelf"])


class MarkerSeen(Schema):
    """A marker of a file, and the share of the frames on which it is seen."""

    label: str
    seen: float


class MarkerMeaning(Schema):
    """What stands for what: `marks` by label, the file's axis that is up, and the one toward the target."""

    marks: dict[Annotated[str, Field(max_length=120)], Annotated[str, Field(max_length=24)]] = Field(
        max_length=500
    )
    up: Axis
    toward: Axis


class MeaningForHand(MarkerMeaning):
    hand: Hand
    profile: str  # that says so; empty: only guessed by what the labels say


class MarkersOut(Schema):
    """What a laboratory's file holds, and what it seems to mean for a right- and a left-hander."""

    markers: list[MarkerSeen]
    rate_hz: float
    frames: int
    meant: list[MeaningForHand]


class RecordedIn(SwingKind):
    """A reference that comes as markers; `profile` is the name under which their meaning is kept."""

    name: Line = Field(min_length=1, max_length=120)
    about: str = Field("", max_length=400)
    hand: Hand
    teaching_model: TeachingModel | Literal[""] = ""
    meaning: MarkerMeaning
    profile: Line = Field("", max_length=80)


class RecordedOut(Schema):
    swing_id: UUID


class ProfileOut(Schema):
    id: UUID
    name: str


@router.post("/shelf/laboratory/look", response=MarkersOut)
def look_into_recording(request: HttpRequest, file: File[UploadedFile]) -> dict[str, Any]:
    """What a C3D or TRC file holds; nothing of it is kept."""
    user = asking(request)
    recorded = opened(file)
    seen = np.isfinite(recorded.places).all(axis=2).mean(axis=0)
    meant = []
    for hand in HANDS:
        found = understood(user, recorded, hand)
        said = {"marks": found.meaning.marks, "up": found.meaning.up, "toward": found.meaning.toward}
        meant.append(said | {"hand": hand, "profile": found.profile})
    return {
        "markers": [
            {"label": label, "seen": share}
            for label, share in zip(recorded.labels, seen.tolist(), strict=True)
        ],
        "rate_hz": recorded.rate_hz,
        "frames": len(recorded.places),
        "meant": meant,
    }


@router.post("/shelf/laboratory", response={201: RecordedOut})
def add_recording(
    request: HttpRequest, file: File[UploadedFile], about: RecordedIn
) -> tuple[int, dict[str, UUID]]:
    """Take a C3D or TRC file in as a reference swing; `about` is a RecordedIn as JSON."""
    if found := unusable_in(about.dict()):
        raise ValidationError([{"loc": ("form", found[0]), "msg": found[1]}])
    swing = put_recorded_on_shelf(
        asking(request),
        file,
        name=about.name,
        about=about.about,
        teaching_model=about.teaching_model,
        hand=about.hand,
        kind=about,
        meaning=Meaning(marks=about.meaning.marks, up=about.meaning.up, toward=about.meaning.toward),
        profile=about.profile,
    )
    return 201, {"swing_id": swing.pk}


@router.get("/shelf/laboratory/profiles", response=list[ProfileOut])
def marker_profiles(request: HttpRequest) -> QuerySet[MarkerProfile]:
    return MarkerProfile.objects.filter(instructor=asking(request))


@router.delete("/shelf/laboratory/profiles/{uuid:id}", response={204: None})
def forget_profile(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Forget what a laboratory's markers stand for; references that came by it stay."""
    owned(MarkerProfile.objects.filter(instructor=asking(request)), id).delete()
    return 204, None
