"""Taking a clip in, making it ready, and handing out its frames."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import timedelta
from typing import TYPE_CHECKING, Any
from uuid import UUID, uuid4

from django.conf import settings
from django.core.files import File
from django.core.files.base import ContentFile
from django.db import transaction
from django.db.models import Exists, F, OuterRef, QuerySet
from django.utils import timezone

from tropometer.server.access import owned
from tropometer.server.clips import uploads
from tropometer.server.clips.models import MOST_TRIES, Clip, ClipQuerySet, State, Upload, proxy_path
from tropometer.server.clips.proposing import clip_ready, propose_anew, swings_in
from tropometer.server.clips.schemas import ClipChange, ClipIn
from tropometer.server.clips.uploads import Sender
from tropometer.server.lanes import WATCHED, priority
from tropometer.server.rooms import RefusedClip, RoomFailed, local_copy, scratch, video
from tropometer.video.stills import still_jpeg
from tropometer.video.timing import real_times_s

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.people.models import User

PROBE_SECONDS = 60
PROXY_SECONDS = 1800
PROGRESS_STEP = 4
# What making a clip ready finds out.
MADE = [
    "proxy", "width", "height", "played_times_s", "movement", "strikes", "state", "progress", "looking",
    "trouble", "tries",
]  # fmt: skip


class KnownClip(RefusedClip):
    """A file that is here already."""


@dataclass(frozen=True)
class Checked:
    """An upload that was found to be a clip nobody has sent before."""

    upload: Upload
    about: ClipIn
    sha256: str
    found: dict[str, Any]


def check(sender: Sender, about: ClipIn) -> Checked:
    """Probe a finished upload; RefusedClip with one clear line, Http404 when it is somebody else's."""
    if not Upload.objects.under_way().filter(pk=about.upload_id).exists():
        raise RefusedClip("A file that was taken in or refused before is no longer waiting; choose it again.")
    upload = owned(uploads.of(sender), about.upload_id)
    if not upload.complete:
        raise RefusedClip(f"{upload.name}: only {upload.offset} of {upload.size} bytes have arrived.")
    sha256 = uploads.sha256_of(upload.path)
    same = Clip.objects.filter(instructor=sender.instructor, sha256=sha256).select_related("swing__student")
    for clip in same[:1]:
        if sender.request_id is not None:  # a student learns nothing of others
            raise KnownClip(f"{upload.name}: this clip has been sent already.")
        whose = clip.swing.student.name if clip.swing.student else "the shelf"
        where = "in the bin" if clip.is_removed else "here already"
        since = f"{clip.added_at:%d %B %Y}"
        raise KnownClip(f"{upload.name}: this clip is {where}, with {whose} since {since}.")
    try:
        return Checked(upload, about, sha256, next(video("probe", upload.path, seconds=PROBE_SECONDS)))
    except RefusedClip as refusal:
        raise RefusedClip(f"{upload.name}: {refusal}") from None


def check_all(sender: Sender, abouts: list[ClipIn]) -> tuple[list[Checked], list[str]]:
    """The usable ones of several uploads, and a line for each refused one.

    What was refused goes into quarantine, but for a file that is still on its way; what is here already is
    forgotten. Raises RefusedClip when
    none is usable, RoomFailed when the machine could not look.
    """
    good: list[Checked] = []
    refused: list[str] = []
    for about in abouts:
        try:
            checked = check(sender, about)
            if any(checked.sha256 == other.sha256 for other in good):
                raise KnownClip(f"{checked.upload.name}: the same clip twice.")
            good.append(checked)
        except RefusedClip as refusal:
            refused.append(str(refusal))
            taken = [checked.upload.pk for checked in good]
            for upload in uploads.of(sender).filter(pk=about.upload_id).exclude(pk__in=taken):
                if isinstance(refusal, KnownClip):
                    upload.delete()
                elif upload.complete:
                    upload.refuse(str(refusal))
    if not good:
        raise RefusedClip(" ".join(refused) or "There is no clip.")
    return good, refused


def claim(checked: list[Checked]) -> None:
    """Hold the uploads until the transaction ends; RefusedClip when another request took them meanwhile."""
    ids = [each.upload.pk for each in checked]
    if len(Upload.objects.select_for_update().filter(pk__in=ids)) < len(ids):
        raise RefusedClip("These files have been handed in already.")


def handed_in_before(sender: Sender, abouts: list[ClipIn]) -> tuple[UUID, list[str]] | None:
    """The swing that these uploads became, and why some did not: for a sender whose answer was lost."""
    ids = [about.upload_id for about in abouts]
    theirs = Clip.objects.filter(pk__in=ids, instructor=sender.instructor)
    if sender.request_id is not None:
        theirs = theirs.filter(swing__sent_by_id=sender.request_id)
    clip = theirs.first()
    if clip is None:
        return None
    refused = Upload.objects.filter(pk__in=ids, asked_by_id=sender.request_id, refused_at__isnull=False)
    return clip.swing_id, [each.refusal for each in refused.filter(instructor=sender.instructor)]


def take_in(swing_id: UUID, checked: Checked) -> Clip:
    """Keep the original, hand the clip to a worker and let the upload go.

    The clip goes by the upload's id, so that an upload becomes one clip at most.
    """
    from tropometer.server.clips.tasks import make_ready

    upload, found = checked.upload, checked.found
    clip = Clip(
        pk=upload.pk,
        swing_id=swing_id,
        instructor=upload.instructor,
        view=checked.about.view,
        capture_fps=checked.about.capture_fps or found["capture_fps"],
        capture_from="file" if checked.about.capture_fps is None and found["capture_fps"] else "sender",
        original_name=upload.name,
        flipped=checked.about.flipped,
        sha256=checked.sha256,
        played_fps=found["played_fps"],
        width=found["width"],
        height=found["height"],
        original_bytes=upload.size,
    )
    with upload.path.open("rb") as content:
        clip.original.save("original", File(content), save=False)
    try:
        with transaction.atomic():
            clip.save(force_insert=True)
            make_ready.configure(priority=_turn(clip)).defer(clip_id=str(clip.pk))
            Upload.objects.filter(pk=upload.pk).delete()
    except BaseException:
        clip.original.delete(save=False)
        raise
    transaction.on_commit(lambda: upload.path.unlink(missing_ok=True))
    return clip


def take_in_figure(swing: Swing, view: str, name: str, figure: dict[str, Any]) -> Clip:
    """A clip that a worker draws from a figure of marks (video.figure) that came without a picture."""
    from tropometer.server.clips.tasks import make_ready

    content = json.dumps(figure, separators=(",", ":")).encode()
    clip = Clip(
        swing=swing,
        instructor=swing.instructor,
        view=view,
        drawn=True,
        window_from="hand",  # it is one swing, whatever moves in it
        original_name=name,
        sha256=hashlib.sha256(content).hexdigest(),
        played_fps=figure["rate_hz"],
        width=figure["width"],
        height=figure["height"],
        original_bytes=len(content),
    )
    clip.original.save("original", ContentFile(content), save=False)
    try:
        with transaction.atomic():
            clip.save(force_insert=True)
            make_ready.configure(priority=_turn(clip)).defer(clip_id=str(clip.pk))
    except BaseException:
        clip.original.delete(save=False)
        raise
    return clip


def _turn(clip: Clip) -> int:
    """A clip's place in the queue: each instructor's next one before anybody's one after that.

    Who films a drill stands there and waits.
    """
    if clip.swing.drill:
        return WATCHED
    unmade = Clip.objects.filter(instructor=clip.instructor_id, state__in=(State.WAITING, State.WORKING))
    return -unmade.exclude(pk=clip.pk).count()


class HandedBack(Exception):
    """The worker is to stop: the clip goes to another, and this try does not count."""


def process(clip_id: UUID, stopping: Callable[[], bool] = lambda: False) -> None:
    """Make the proxy of a clip. Safe to run twice: a ready clip is left alone.

    A file that the video room judges to be none is refused, and its original waits in quarantine. When the
    room fails, RoomFailed is raised for another try, until enough were made: then the clip says so, and waits
    for a person. HandedBack is raised when the worker is `stopping`.
    """
    from tropometer.server.clips.tasks import LOOK_PRIORITY, look_at

    if not _begin(clip_id):
        return
    clip = Clip.objects.get(pk=clip_id)
    with scratch() as folder, local_copy(clip.original) as source:
        target = folder / "proxy.mp4"
        flip = ("--flip",) if clip.flipped else ()
        try:
            how = "figure" if clip.drawn else "proxy"
            lines = video(how, source, target, *flip, seconds=PROXY_SECONDS)
            result = _follow(clip, lines, stopping)
        except RefusedClip as refusal:
            _end(clip, State.REFUSED, str(refusal))
            return
        except HandedBack:
            Clip.objects.filter(pk=clip_id).update(state=State.WAITING, progress=0, tries=F("tries") - 1)
            raise
        except RoomFailed as failure:
            failed_again = clip.tries >= MOST_TRIES
            _end(clip, State.FAILED if failed_again else State.WAITING, str(failure))
            if failed_again:
                return
            raise
        # What a killed worker left there would otherwise push the new file to another name.
        clip.proxy.storage.delete(proxy_path(clip, ""))
        with target.open("rb") as made:
            clip.proxy.save("proxy.mp4", File(made), save=False)
    clip.width, clip.height = result["width"], result["height"]
    clip.played_times_s, clip.movement = result["played_times_s"], result["movement"]
    clip.strikes = result["strikes"]
    clip.state, clip.progress, clip.looking = State.READY, 100, True
    clip.trouble, clip.tries = "", 0
    with transaction.atomic():
        if not Clip.objects.select_for_update().filter(pk=clip_id).exists():
            clip.proxy.delete(save=False)  # it was erased meanwhile
            return
        clip.save(update_fields=MADE)
        clip_ready.send(sender=Clip, clip=clip, swings=swings_in(clip))
        look_at.configure(priority=priority(bool(clip.swing.drill), LOOK_PRIORITY)).defer(
            clip_id=str(clip.pk)
        )


def _begin(clip_id: UUID) -> bool:
    """Count one more try; False when there is nothing to do, or when it was tried often enough."""
    with transaction.atomic():
        clip = Clip.objects.select_for_update().filter(pk=clip_id).first()
        if clip is None or clip.state in (State.READY, State.REFUSED, State.FAILED):
            return False
        if clip.tries >= MOST_TRIES:  # each time the worker itself died of it
            _end(clip, State.FAILED, clip.trouble or "the worker was stopped each time")
            return False
        Clip.objects.filter(pk=clip_id).update(state=State.WORKING, progress=0, tries=F("tries") + 1)
    return True


def _end(clip: Clip, state: State, trouble: str) -> None:
    refused_at = timezone.now() if state == State.REFUSED else None
    Clip.objects.filter(pk=clip.pk).update(state=state, trouble=trouble[:300], refused_at=refused_at)


def try_again(clip: Clip) -> None:
    """Have a clip made ready that failed or was refused, now that a person asks for it."""
    from tropometer.server.clips.tasks import make_ready

    with transaction.atomic():
        locked = Clip.objects.select_for_update().get(pk=clip.pk)
        if locked.state not in (State.FAILED, State.REFUSED) or not locked.original:
            return
        Clip.objects.filter(pk=clip.pk).update(
            state=State.WAITING, progress=0, tries=0, trouble="", refused_at=None
        )
        make_ready.configure(priority=_turn(clip)).defer(clip_id=str(clip.pk))
    clip.refresh_from_db()


def say_anew(clip: Clip, wanted: ClipChange) -> bool:
    """Say anew what a file shows, for every swing found in it.

    True when that turned it round, for which a worker makes it ready again.
    """
    from tropometer.server.clips.tasks import make_ready

    turned = wanted.flipped != clip.flipped
    said: dict[str, Any] = {"view": wanted.view, "flipped": wanted.flipped}
    if wanted.capture_fps != clip.capture_fps:
        said |= {"capture_fps": wanted.capture_fps, "capture_from": "sender"}
    if turned:
        said |= {"state": State.WAITING, "progress": 0, "player_at": None}
    with transaction.atomic():
        same_file(clip).update(**said)
        for each in same_file(clip).select_related("swing__student"):
            if turned:
                make_ready.defer(clip_id=str(each.pk))
            else:
                propose_anew(each)
    clip.refresh_from_db()
    return turned


def is_filmed() -> Exists:
    """That a swing has a clip, whatever its state."""
    return Exists(Clip.objects.filter(swing=OuterRef("pk")))


def same_file(clip: Clip) -> QuerySet[Clip]:
    """All clips of the same file: one for each swing found in it."""
    return (
        Clip.objects.filter(original=clip.original.name) if clip.original else Clip.objects.filter(pk=clip.pk)
    )


def share(clip: Clip, swing_id: UUID, first: int, last: int, by: str) -> Clip:
    """A second clip of the same file, for another swing in it."""
    from tropometer.server.clips.tasks import look_at

    other = Clip.objects.get(pk=clip.pk)
    other.pk, other.swing_id = uuid4(), swing_id
    other.window_first, other.window_last, other.window_from = first, last, by
    other.looking = True
    with transaction.atomic():
        other.save(force_insert=True)
        look_at.defer(clip_id=str(other.pk))
    return other


def set_window(clip: Clip, first: int | None, last: int | None) -> None:
    """Say by hand which frames are the swing; None for both: the whole clip."""
    from tropometer.server.clips.tasks import look_at

    clip.window_first, clip.window_last, clip.window_from = first, last, "hand"
    clip.looking = True
    with transaction.atomic():
        clip.save(update_fields=["window_first", "window_last", "window_from", "looking"])
        look_at.defer(clip_id=str(clip.pk))


def show_player(clip: Clip, at: dict[str, float] | None) -> None:
    """Say who plays, by a point on them: frame, x, y; None leaves that to the machine again."""
    from tropometer.server.clips.tasks import look_at

    with transaction.atomic():
        Clip.objects.filter(pk=clip.pk).update(player_at=at, looking=True)
        look_at.defer(clip_id=str(clip.pk))
    clip.refresh_from_db()


def _follow(clip: Clip, lines: Iterator[dict[str, Any]], stopping: Callable[[], bool]) -> dict[str, Any]:
    """Write progress down as it comes; the last line is the result."""
    said = 0
    for line in lines:
        if "progress" not in line:
            return line
        if stopping():
            raise HandedBack
        if line["progress"] >= said + PROGRESS_STEP:
            said = line["progress"]
            Clip.objects.filter(pk=clip.pk).update(progress=said)
    raise RoomFailed("it stopped without a result")


def times_s(clip: Clip) -> list[float]:
    """Real time of every frame from the first, seconds."""
    return real_times_s(clip.played_times_s, clip.played_fps, clip.capture_fps)


def still(clip: Clip, frame: int, height: int | None = None) -> bytes:
    """One frame of a ready clip as JPEG, at most `height` high; IndexError outside it."""
    with local_copy(clip.proxy) as proxy:
        return still_jpeg(proxy, frame, height)


def clip_of(instructor: User, id: UUID) -> Clip:
    """One of the instructor's clips, or Http404."""
    return owned(Clip.objects.seen_by(instructor), id)


def ready_clip(id: UUID) -> Clip | None:
    """A clip for a job, if it can be shown."""
    return Clip.objects.ready().filter(pk=id).select_related("swing__student").first()


def filed_clip(id: UUID) -> Clip | None:
    """A clip for a job, if its original is there and no worker has refused it."""
    filed = Clip.objects.exclude(state=State.REFUSED).exclude(original="")
    return filed.filter(pk=id).select_related("swing__student").first()


def is_under_way(clip: Clip) -> bool:
    """Whether a worker has still to look at it."""
    return clip.looking or clip.state in (State.WAITING, State.WORKING)


def still_there(ids: Iterable[str | None]) -> set[str]:
    """Those of some clips that were not deleted since."""
    wanted = [id for id in ids if id]
    return {str(id) for id in Clip.objects.filter(pk__in=wanted).values_list("pk", flat=True)}


def locked(clip: Clip) -> None:
    """Let nobody else write to the clip until the transaction ends."""
    Clip.objects.select_for_update().only("pk").get(pk=clip.pk)


def alike(clip: Clip) -> ClipQuerySet:
    """The instructor's other ready clips from the same side and of the same size, the newest first."""
    found = Clip.objects.seen_by(clip.instructor_id).ready()
    same = found.filter(view=clip.view, width=clip.width, height=clip.height).exclude(pk=clip.pk)
    return same.order_by("-added_at", "pk")


def forget_refused() -> int:
    """Delete the originals of refused clips that waited in quarantine; returns how many."""
    before = timezone.now() - timedelta(days=settings.QUARANTINE_DAYS)
    old = list(Clip.objects.filter(state=State.REFUSED, refused_at__lt=before).exclude(original=""))
    for clip in old:
        if not same_file(clip).exclude(pk=clip.pk).exists():
            clip.original.storage.delete(clip.original.name or "")
        Clip.objects.filter(pk=clip.pk).update(original="")
    return len(old)
