"""The inbox, a swing on the bench, and the edits made there."""

from dataclasses import asdict
from datetime import date
from typing import TYPE_CHECKING, Any, Literal
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, Query, Router
from ninja.pagination import paginate

from tropometer.server.access import asking
from tropometer.server.bench import answers, editing, parting, services, setup, tracking
from tropometer.server.bench.edit_schemas import Done, Edits
from tropometer.server.bench.first_look import proposed_on
from tropometer.server.bench.measure import doubted
from tropometer.server.bench.measured_schemas import EditAnswer, MarkOut
from tropometer.server.bench.models import Swing
from tropometer.server.bench.schemas import (
    BenchClip,
    BenchSwing,
    CarriedMat,
    Catalogue,
    DoubtOut,
    MatSize,
    MoreClips,
    PathOut,
    Received,
    SetupOut,
    Stretch,
    SwingKind,
    SwingOf,
    SwingRow,
    TracksOut,
    Views,
    Window,
)
from tropometer.server.clips.camera import motion_rows
from tropometer.server.clips.schemas import ClipChange, ClipOut, ProposalsOut, ShownPlayer
from tropometer.server.clips.services import clip_of, is_filmed, times_s
from tropometer.server.clips.uploads import Sender
from tropometer.server.lists import Pages, Search, between, matching
from tropometer.server.people.services import student_of
from tropometer.swing.names import ClubClass, Hand
from tropometer.swing.readings.round import wanted_marks

if TYPE_CHECKING:
    from tropometer.server.clips.models import Clip

router = Router(tags=["bench"])


@router.get("/catalogue", response=Catalogue)
def catalogue(request: HttpRequest) -> dict[str, Any]:
    """What is always true: the marks that the readings need, from which side and when, and the readings."""
    return {"marks": wanted_marks(), "readings": answers.kinds_told()}


class SwingSearch(Search):
    waiting: bool = Field(False, description="leave out the answered ones")
    hurting: bool = Field(False, description="only of students whom something hurts")
    student: UUID | None = None
    hand: Hand | None = None
    club_class: ClubClass | None = None
    finding: str = Field("", max_length=40, description="a fault that is likely or shown in it")
    since: date | None = None
    until: date | None = Field(None, description="that day too")
    order: Literal["newest", "oldest", "name"] = "newest"


@router.get("/swings", response=list[SwingRow])
@paginate(Pages)
def swings(request: HttpRequest, wanted: Query[SwingSearch]) -> QuerySet[Swing]:
    """Students' swings."""
    swung = services.swings_of(asking(request)).swung()
    found: QuerySet[Swing] = swung.filter(student__isnull=False)
    if wanted.waiting:
        found = found.filter(is_filmed(), answered_at__isnull=True)
    if wanted.hurting:
        found = found.exclude(what_hurts="", hurts=[])
    if wanted.student:
        found = found.filter(student=wanted.student)
    if wanted.hand:
        found = found.filter(student__hand=wanted.hand)
    if wanted.club_class:
        found = found.filter(club_class=wanted.club_class)
    if wanted.finding:
        found = found.filter(found_faults__fault=wanted.finding)
    found = between(found, "received_at", wanted.since, wanted.until)
    found = matching(found, wanted.q, "student__name", "club", "words", "usual_miss", "what_hurts")
    return found.order_by(*SWING_ORDERS[wanted.order])


SWING_ORDERS = {
    "newest": ("-received_at", "part", "id"),
    "oldest": ("received_at", "part", "id"),
    "name": ("student__name", "-received_at", "part", "id"),
}


@router.post("/swings", response={201: Received})
def send_swing(request: HttpRequest, data: SwingOf) -> tuple[int, dict[str, Any]]:
    """Take in a student's swing from finished uploads."""
    instructor = asking(request)
    student = student_of(instructor, data.student_id)
    swing, refused = services.receive(Sender(instructor), student, data)
    return 201, {"swing_id": swing.pk, "refused": refused}


@router.post("/swings/{uuid:id}/clips", response={201: Received})
def add_clips(request: HttpRequest, id: UUID, data: MoreClips) -> tuple[int, dict[str, Any]]:
    """More clips of a swing, from another side."""
    swing = services.swing_of(asking(request), id)
    return 201, {"swing_id": swing.pk, "refused": services.add_clips(swing, data.clips, data.one_swing)}


@router.get("/swings/{uuid:id}", response=BenchSwing)
def swing(request: HttpRequest, id: UUID) -> dict[str, Any]:
    found = services.swing_of(asking(request), id)
    return {
        "id": found.pk,
        "title": found.student.name if found.student else found.reference.name,
        "hand": found.hand,
        "student": found.student,
        "club": found.club,
        "club_class": found.club_class,
        "swing_length": found.swing_length,
        "words": found.words,
        "usual_miss": found.usual_miss,
        "what_hurts": found.what_hurts,
        "misses": found.misses,
        "hurts": found.hurts,
        "part": found.part,
        "parts": found.parts,
        "before": services.swings_before(found),
        "lesson": found.lesson.pk if hasattr(found, "lesson") else None,
        "clips": [_bench_clip(clip) for clip in found.clips.select_related("proposals")],
        "measured": answers.opened(found),
    }


def _bench_clip(clip: "Clip") -> BenchClip:
    found = clip.proposals.found if hasattr(clip, "proposals") else {}
    return BenchClip(
        **ClipOut.from_orm(clip).dict(),
        frame_times_s=times_s(clip),
        camera_motion=motion_rows(clip),
        proposals=ProposalsOut(**found),
        looking=clip.looking,
        closer=clip.proposals.closer if hasattr(clip, "proposals") else None,
    )


@router.patch("/swings/{uuid:id}/kind", response=EditAnswer)
def say_kind(request: HttpRequest, id: UUID, data: SwingKind) -> dict[str, Any]:
    """Say what a swing was made with or how long it was meant to be, and answer with what follows."""
    found = services.swing_of(asking(request), id)
    services.say_kind(found, data)
    return answers.answered(found)


@router.put("/swings/{uuid:id}/views", response=EditAnswer)
def say_views(request: HttpRequest, id: UUID, data: Views) -> dict[str, Any]:
    """Say whether a swing's two views are one swing, and answer with what follows."""
    found = services.swing_of(asking(request), id)
    services.say_views(found, data.one_swing)
    return answers.answered(found)


@router.delete("/swings/{uuid:id}", response={204: None})
def remove_swing(request: HttpRequest, id: UUID) -> tuple[int, None]:
    services.remove(services.swing_of(asking(request), id))
    return 204, None


@router.put("/clips/{uuid:id}/about", response=ClipOut)
def change_clip(request: HttpRequest, id: UUID, change: ClipChange) -> "Clip":
    """Its view, its capture rate, and whether it was filmed in a mirror."""
    found = clip_of(asking(request), id)
    services.change_clip(found, change)
    return found


@router.put("/clips/{uuid:id}/window", response=ClipOut)
def say_window(request: HttpRequest, id: UUID, window: Window) -> "Clip":
    """Which frames of the clip are the swing."""
    found = clip_of(asking(request), id)
    parting.say_window(found, window.first, window.last)
    return found


@router.put("/clips/{uuid:id}/player", response=ClipOut)
def show_player(request: HttpRequest, id: UUID, shown: ShownPlayer) -> "Clip":
    """Who of those in the picture plays; a worker looks at the clip again."""
    found = clip_of(asking(request), id)
    parting.show_player(found, shown.at)
    return found


@router.post("/clips/{uuid:id}/swings", response={201: Received})
def cut_out(request: HttpRequest, id: UUID, stretch: Stretch) -> tuple[int, dict[str, Any]]:
    """A stretch of the clip as a swing of its own."""
    swing = parting.cut_out(clip_of(asking(request), id), stretch.first, stretch.last)
    return 201, {"swing_id": swing.pk, "refused": []}


@router.get("/clips/{uuid:id}/proposed-marks/{int:frame}", response=list[MarkOut])
def marks_proposed(request: HttpRequest, id: UUID, frame: int) -> list[dict[str, Any]]:
    """Marks that a worker saw on a frame; none of them counts before it is taken."""
    marks = proposed_on(clip_of(asking(request), id), frame)
    return [{"name": name, "frame": frame, **asdict(mark)} for name, mark in marks.items()]


@router.post("/clips/{uuid:id}/edits", response=EditAnswer)
def edit(request: HttpRequest, id: UUID, data: Edits) -> dict[str, Any]:
    """Do some edits and answer with what follows from them."""
    clip = clip_of(asking(request), id)
    met = editing.apply_edits(clip, data.edits, data.seen)
    return answers.answered(services.swing_of(asking(request), clip.swing_id), data.since, met)


@router.get("/swings/{uuid:id}/history", response=list[Done])
def history(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """What was done on a swing and can be taken back, the latest last."""
    return editing.history(services.swing_of(asking(request), id))


@router.get("/swings/{uuid:id}/doubts", response=list[DoubtOut])
def doubts(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """Marks to look at again, the worst first."""
    return doubted(services.swing_of(asking(request), id))


@router.get("/clips/{uuid:id}/same-setup", response=list[SetupOut])
def same_setup(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """Clips whose mat may be carried over to this one."""
    others = setup.others_with_mat(clip_of(asking(request), id))
    return [setup.described(clip) for clip in others[: setup.OFFERED]]


@router.get("/clips/{uuid:id}/mat-sizes", response=list[MatSize])
def mat_sizes(request: HttpRequest, id: UUID) -> list[dict[str, Any]]:
    """Sizes that the mat in this clip may have, for somebody to choose from."""
    return setup.sizes_for(clip_of(asking(request), id))


@router.get("/clips/{uuid:id}/same-setup/{uuid:source_id}", response=CarriedMat)
def carry_over(request: HttpRequest, id: UUID, source_id: UUID) -> dict[str, Any]:
    """Another clip's mat as it lies in this clip's picture, if both show the same set-up."""
    instructor = asking(request)
    target = clip_of(instructor, id)
    source = get_object_or_404(setup.others_with_mat(target), pk=clip_of(instructor, source_id).pk)
    return setup.carried_over(source, target)


@router.get("/clips/{uuid:id}/tracks", response=TracksOut)
def tracks(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """The clip's marks as they were followed between the placed ones."""
    return tracking.handed_out(clip_of(asking(request), id))


@router.get("/clips/{uuid:id}/paths/{name}", response=PathOut)
def path(request: HttpRequest, id: UUID, name: str) -> dict[str, Any]:
    """One followed mark's path without its noise."""
    return tracking.path_of(clip_of(asking(request), id), name)
