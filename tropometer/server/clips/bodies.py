"""The player's body as the networks saw it in a clip, and the marks that it proposes."""

from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any, cast

import numpy as np

from tropometer.server.clips.camera import motion_of
from tropometer.server.clips.models import Clip, Proposals, SeenBody
from tropometer.server.clips.pace import real_times_of
from tropometer.swing.names import Checkpoint, Hand, View
from tropometer.swing.proposals.ball import LyingBall, marks_by_ball
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import ProposedMark, laid_over, propose_marks
from tropometer.swing.proposals.offsets import Network
from tropometer.swing.record.clip import Mark

Floats = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True)
class ClipProposals:
    """Marks that a clip's bodies propose over the frames from `first_frame` on."""

    first_frame: int
    marks: dict[str, ProposedMark]

    def at(self, name: str, frame: int) -> Mark | None:
        """A proposed mark on a frame; None where nobody or no outline was seen."""
        mark, row = self.marks.get(name), frame - self.first_frame
        if mark is None or not 0 <= row < len(mark.places) or not np.isfinite(mark.places[row]).all():
            return None
        x, y = mark.places[row]
        return Mark(float(x), float(y), float(mark.sd_px[row]), "proposed", float(mark.shared_px[row]))


def keep_body(clip: Clip, network: Network, first_frame: int, seen: Path) -> Floats:
    """Store what the video room saw of the player, and answer with its landmarks (n, 33, 3)."""
    body = np.load(seen)
    SeenBody.objects.update_or_create(
        clip=clip,
        network=network,
        defaults={"first_frame": first_frame}
        | {each: body[each].tobytes() for each in ("landmarks", "outline", "squares")},
    )
    landmarks: Floats = body["landmarks"].astype(float)
    return landmarks


def body_of(clip: Clip, network: Network) -> SeenBody | None:
    """The player's body as one network saw it."""
    return SeenBody.objects.filter(clip=clip, network=network).first()


def has_landmarks(clip: Clip) -> bool:
    """Whether the player's body was looked for in the clip."""
    return SeenBody.objects.filter(clip=clip).exists()


def is_seen_closely(clip: Clip) -> bool:
    """Whether the close network has looked at the player."""
    return SeenBody.objects.filter(clip=clip, network="close").exists()


def points_of(body: SeenBody) -> Floats:
    """Its landmarks (n, 33, 3)."""
    return np.frombuffer(bytes(body.landmarks), np.float32).reshape(-1, 33, 3).astype(float)


def pegs_proposed(clip: Clip) -> dict[Checkpoint, int]:
    """The pegs that a worker proposes for a clip, by checkpoint."""
    stored = Proposals.objects.filter(clip=clip).values_list("found", flat=True).first()
    return {peg["name"]: peg["frame"] for peg in (stored or {}).get("pegs", [])}


def proposals_of(clip: Clip, pegs: Mapping[Checkpoint, int] | None = None) -> ClipProposals:
    """What a clip's bodies propose, the close one where it was seen; no marks where nobody was.

    `pegs` are a person's, and go before those that were proposed.
    """
    bodies = {body.network: body for body in SeenBody.objects.filter(clip=clip)}
    fast = bodies.get("fast")
    seen = _landmarks(clip, fast) if fast else None
    if fast is None or seen is None or not seen.enough:
        return ClipProposals(0, {})
    view, hand = cast(View, clip.view), cast(Hand, clip.swing.hand)
    stored = Proposals.objects.filter(clip=clip).first()
    proposed = stored.found if stored else {}
    known = {peg["name"]: peg["frame"] for peg in proposed.get("pegs", [])} | dict(pegs or {})
    frames = np.arange(len(seen.times_s)) + fast.first_frame
    found = propose_marks(seen, view, hand, frames, known)
    close = bodies.get("close")
    closely = _landmarks(clip, close) if close else None
    if close is not None and closely is not None and closely.enough:
        frames = np.arange(len(closely.times_s)) + close.first_frame
        closer = propose_marks(closely, view, hand, frames, known, "close")
        found = laid_over(found, closer, close.first_frame - fast.first_frame)
    if proposed.get("ball"):
        frames = np.arange(len(seen.times_s)) + fast.first_frame
        ball = LyingBall(**proposed["ball"])
        heads = {int(frame): (head[0], head[1]) for frame, head in (proposed.get("heads") or {}).items()}
        found |= marks_by_ball(ball, seen.torso_px, view, hand, frames, known, motion_of(clip), heads)
    return ClipProposals(fast.first_frame, found)


def _landmarks(clip: Clip, body: SeenBody) -> Landmarks | None:
    points = points_of(body)
    times = real_times_of(clip)[body.first_frame : body.first_frame + len(points)]
    if len(times) != len(points):
        return None
    outline = np.frombuffer(bytes(body.outline), np.float32).reshape(-1, 8, 2).astype(float)
    return Landmarks(times - times[0], points, outline if len(outline) == len(points) else None)
