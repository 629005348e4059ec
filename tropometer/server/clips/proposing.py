"""What a clip seems to show: its swings, view, hand, player, capture rate and pegs, proposed by a worker."""

from pathlib import Path
from typing import Any, cast
from uuid import UUID

import numpy as np
from django.conf import settings
from django.db import transaction
from django.dispatch import Signal

from tropometer.server.clips.ball_and_club import ball_in, heads_in
from tropometer.server.clips.bodies import body_of, is_seen_closely, keep_body, points_of
from tropometer.server.clips.camera import stood_of
from tropometer.server.clips.closer import look_closer_later, stretch_of
from tropometer.server.clips.models import Clip, Proposals, SeenBody, State
from tropometer.server.clips.pace import real_times_of, slowness
from tropometer.server.rooms import local_copy, scratch, video
from tropometer.swing.names import Hand
from tropometer.swing.proposals.checkpoints import propose_checkpoints
from tropometer.swing.proposals.from_marks import landmarks_from
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.motion import FoundSwing, Heard, find_swings, plausible_slowness
from tropometer.swing.proposals.seeing import player_box, propose_hand, propose_view
from tropometer.swing.proposals.swing_length import propose_swing_length

LOOK_SECONDS = 1800
SOUND_M_S = 343.0
USUAL_CAMERA_M = 4.0  # where nobody has said how far it stood; a metre more or less is 3 ms
SOUND_LATE_S = USUAL_CAMERA_M / SOUND_M_S
WHOLE_SHARE = 0.9  # a swing that fills so much of its clip needs no window

# Sent with `clip` and `swings` when a clip has become ready, inside the transaction that says so.
clip_ready = Signal()
# Sent with `clip` when its landmarks have been found.
clip_looked_at = Signal()


def swings_in(clip: Clip) -> tuple[FoundSwing, ...]:
    """The swings that a clip seems to hold."""
    if len(clip.movement) != clip.frame_count:  # made ready before movement was measured
        return ()
    return find_swings(real_times_of(clip).tolist(), clip.movement, _heard(clip))


def window_of(clip: Clip, swing: FoundSwing) -> tuple[int | None, int | None]:
    """The window a found swing needs: none where it fills the clip."""
    if swing.last - swing.first + 1 >= WHOLE_SHARE * clip.frame_count:
        return None, None
    return swing.first, swing.last


def look(clip_id: UUID) -> None:
    """Find the player's landmarks over the swing and propose from them. Safe to run twice."""
    clip = Clip.objects.filter(pk=clip_id, state=State.READY).select_related("swing__student").first()
    if clip is None:
        return
    try:
        _look(clip)
    finally:
        Clip.objects.filter(pk=clip_id).update(looking=False)
    clip_looked_at.send(look, clip=clip)


def _look(clip: Clip) -> None:
    if clip.drawn:
        _look_at_marks(clip)
        return
    first, last = clip.window
    with scratch() as folder, local_copy(clip.proxy) as proxy:
        target = folder / "body.npz"
        models = ["--models", str(settings.LANDMARK_MODELS), "--frames", str(first), str(last)]
        if clip.player_at:
            models += ["--shown", *(str(clip.player_at[each]) for each in ("frame", "x", "y"))]
        for _ in video("landmarks", proxy, target, *models, seconds=LOOK_SECONDS):
            pass  # it says how far it is; nobody waits for it
        with transaction.atomic():
            SeenBody.objects.filter(clip=clip).delete()
            points = keep_body(clip, "fast", first, target)
        found = propose(clip, first, points)
        moves = folder / "moves.npy"
        motion, bends = (None, None) if found["box"] is None else _motion(proxy, moves, found["box"], first)
        stood, kept = stood_of(clip, motion)
        ball = ball_in(clip, proxy, points, found, moves if kept else None)
        heads = heads_in(clip, proxy, folder / "hands.json", points, found, ball)
    closer = stretch_of(found) is not None
    with transaction.atomic():
        Proposals.objects.update_or_create(
            clip=clip,
            defaults={
                "camera_motion": kept,
                "found": found | {"camera": stood, "ball": ball, "heads": heads, "bends": bends},
                "closer": 0 if closer else None,
            },
        )
        if closer:
            look_closer_later(clip)


def _look_at_marks(clip: Clip) -> None:
    """A drawn clip shows nothing but its marks: they say where the body is."""
    marks: dict[str, Any] = {}
    for name, frame, x, y in clip.marks.values_list("name", "frame", "x", "y"):
        marks.setdefault(name, np.full((clip.frame_count, 2), np.nan))[frame] = x, y
    points = landmarks_from(marks, clip.frame_count, cast(Hand, clip.swing.hand))
    found = propose(clip, 0, points)
    Proposals.objects.update_or_create(clip=clip, defaults={"found": found, "closer": None})


def _motion(
    proxy: Path, target: Path, box: dict[str, float], still: int
) -> tuple["np.ndarray[Any, Any]", float | None]:
    """How the camera moved, and how strongly its lens bends straight lines, if it does."""
    sides = [str(box[side]) for side in ("left", "top", "right", "bottom")]
    asked = ("--box", *sides, "--frames", str(still), str(still))
    said = list(video("motion", proxy, target, *asked, seconds=LOOK_SECONDS))
    return np.asarray(np.load(target)), said[-1]["bends"]


def propose_anew(clip: Clip) -> None:
    """Propose again from landmarks found before, after something was said anew about the clip."""
    stored, body = Proposals.objects.filter(clip=clip).first(), body_of(clip, "fast")
    if stored is None or body is None:
        return
    anew = propose(clip, body.first_frame, points_of(body))
    stored.found = anew | {each: stored.found.get(each) for each in ("camera", "ball", "heads", "bends")}
    if stretch_of(anew) is not None and not is_seen_closely(clip):
        stored.closer = 0
        look_closer_later(clip)
    stored.save(update_fields=["found", "closer"])


def propose(clip: Clip, first: int, points: "np.ndarray[Any, np.dtype[np.float64]]") -> dict[str, Any]:
    """Proposals from landmarks of the frames from `first` on, shaped as `ProposalsOut`.

    Pegs are frames of the whole clip. Without landmarks only a heard strike is proposed.
    """
    times = real_times_of(clip)
    stretch = slice(first, first + len(points))
    movement = clip.movement[stretch]
    strike = next((s.strike for s in swings_in(clip) if s.first <= sum(clip.window) / 2 <= s.last), None)
    slow = plausible_slowness(clip.played_times_s, clip.movement) if clip.movement else None
    found: dict[str, Any] = {"pegs": [], "view": None, "hand": None, "swing_length": None, "box": None}
    found["is_swing"] = None
    found["capture_fps"] = round(slow * clip.played_fps, 3) if slow else None
    landmarks = Landmarks(times[stretch] - times[first], points)
    if not landmarks.enough or len(movement) != len(points):
        if strike is not None:
            frame = int(np.abs(times - strike.at_s).argmin())
            found["pegs"] = [{"name": "impact", "frame": frame, "confidence": strike.confidence}]
        return found
    heard = Heard(strike.at_s - times[first], strike.confidence) if strike else None
    pegs = propose_checkpoints(landmarks, movement, cast(Hand, clip.swing.hand), heard)
    found["is_swing"] = bool(pegs) or _swings_at(slow, clip, landmarks, movement)
    if not found["is_swing"]:  # what moves like a swing, only slower, is no slow motion then
        found["capture_fps"] = None
    if pegs:
        address, top = pegs["address"].frame, pegs["top"].frame
        finish = pegs["finish"].frame if "finish" in pegs else len(points) - 1
        view = propose_view(landmarks, address, top, finish)
        hand = propose_hand(landmarks, view.value, address, top)
        found["view"] = {"value": view.value, "confidence": view.confidence}
        found["hand"] = {"value": hand.value, "confidence": hand.confidence}
        length = propose_swing_length(landmarks, address, top)
        found["swing_length"] = {"value": length.value, "confidence": length.confidence}
    box = player_box(landmarks, clip.width, clip.height)
    found["box"] = {"left": box.left, "top": box.top, "right": box.right, "bottom": box.bottom}
    found["pegs"] = [
        {"name": name, "frame": first + peg.frame, "confidence": peg.confidence} for name, peg in pegs.items()
    ]
    return found


def _swings_at(slow: int | None, clip: Clip, landmarks: Landmarks, movement: list[float]) -> bool:
    """Whether a club is swung if the clip plays as slowly as its movement says, not as was said of it."""
    if slow is None or slow == slowness(clip):
        return False
    times = landmarks.times_s * slowness(clip) / slow
    anew = Landmarks(times, landmarks.points)
    return bool(propose_checkpoints(anew, movement, cast(Hand, clip.swing.hand), None))


def _heard(clip: Clip) -> list[Heard]:
    """The strikes when they were made, real seconds."""
    slow = slowness(clip)
    return [Heard(each["played_s"] / slow - SOUND_LATE_S, each["confidence"]) for each in clip.strikes]
