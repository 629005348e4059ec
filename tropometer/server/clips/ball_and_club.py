"""The ball and the club of a clip, looked for where the player's body says that they may be."""

import json
from pathlib import Path
from typing import Any, cast

import numpy as np

from tropometer.server.clips.models import Clip
from tropometer.server.clips.pace import real_times_of
from tropometer.server.rooms import video
from tropometer.swing.names import PLANE_OF, Hand, View
from tropometer.swing.proposals.ball import ACROSS, SHAFT_AT, ball_room
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import propose_marks

LOOK_SECONDS = 900
ARMS = ("lead_elbow", "trail_elbow", "lead_shoulder", "trail_shoulder")


def ball_in(
    clip: Clip, proxy: Path, points: np.ndarray[Any, Any], found: dict[str, Any], moves: Path | None
) -> dict[str, float] | None:
    """The ball that lies before the feet until it is struck; None where nothing is surely one."""
    pegs = {peg["name"]: peg["frame"] for peg in found["pegs"]}
    if not {"address", "impact"} <= pegs.keys():
        return None
    first, last = clip.window
    landmarks = Landmarks(real_times_of(clip)[first : last + 1], points)
    view = cast(View, clip.view)
    room = ball_room(landmarks, view, pegs["address"] - first, clip.width, clip.height)
    if room is None:
        return None
    sides = [str(side) for side in (room.left, room.top, room.right, room.bottom)]
    asked = ["--frames", str(pegs["address"]), str(pegs["impact"]), "--last", str(last), "--box", *sides]
    asked += ["--across", str(ACROSS * landmarks.torso_px), *(["--moves", str(moves)] if moves else [])]
    said = list(video("ball", proxy, *asked, seconds=LOOK_SECONDS))
    ball: dict[str, float] | None = said[-1]["ball"]
    return ball


def heads_in(
    clip: Clip,
    proxy: Path,
    asked: Path,
    points: np.ndarray[Any, Any],
    found: dict[str, Any],
    ball: dict[str, float] | None,
) -> dict[str, tuple[float, float]]:
    """Where the shaft ends on the frames of pegs, by frame; the ball says how long the club is."""
    pegs = {peg["name"]: peg["frame"] for peg in found["pegs"]}
    if ball is None:
        return {}
    first, last = clip.window
    landmarks = Landmarks(real_times_of(clip)[first : last + 1], points)
    view, hand = cast(View, clip.view), cast(Hand, clip.swing.hand)
    marks = propose_marks(landmarks, view, hand, np.arange(first, last + 1), pegs)

    def place(name: str, at: int) -> tuple[float, float]:
        x, y = marks[name].places[at - first].tolist()
        return x, y

    frames = {pegs[at]: least for at, least in SHAFT_AT[PLANE_OF[view]].items() if at in pegs}
    if "grip" not in marks or not frames:
        return {}
    arms = [each for each in ARMS if each in marks]
    x, y = place("grip", pegs["address"])
    hands = [
        {"frame": at, "grip": place("grip", at), "arms": [place(each, at) for each in arms], "least": least}
        for at, least in frames.items()
    ]
    asked.write_text(json.dumps(hands))
    sizes = ("--torso", str(landmarks.torso_px), "--club", str(np.hypot(ball["x"] - x, ball["y"] - y)))
    said = list(video("shaft", proxy, "--spans", asked, *sizes, seconds=LOOK_SECONDS))
    return {frame: head for frame, head in said[-1]["heads"].items() if head}
