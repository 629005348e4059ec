"""The words of the trade as the core spells them: hands, views, checkpoints, marks, places."""

from __future__ import annotations

from typing import Literal, get_args

Hand = Literal["right", "left"]
View = Literal["face_on", "down_the_line"]
Checkpoint = Literal[
    "address",
    "shaft_back",
    "arm_back",
    "top",
    "arm_down",
    "shaft_down",
    "impact",
    "shaft_through",
    "finish",
]
# What has a time of its own beside the checkpoints: each is one frame of a clip.
Event = Literal[
    "first_move",
    "lead_heel_up",
    "lead_heel_down",
    "lead_knee_start",
    "pelvis_shift_start",
    "pelvis_turn_start",
    "chest_start",
    "lead_arm_start",
    "club_start",
    "trail_heel_off",
    "post_reached",
    "lead_knee_straight",
    "lead_toe_up",
]
# A proposal that somebody looked at on the stage and let stand is accepted: its place is still a machine's.
MarkSource = Literal["hand", "tracked", "proposed", "accepted"]
LengthPlace = Literal["body_plane", "toe_line", "ball_line"]

HANDS: tuple[Hand, ...] = get_args(Hand)
CHECKPOINTS: tuple[Checkpoint, ...] = get_args(Checkpoint)
EVENTS: tuple[Event, ...] = get_args(Event)
VIEWS: tuple[View, ...] = get_args(View)
SOURCES: tuple[MarkSource, ...] = get_args(MarkSource)
PROPOSED: frozenset[MarkSource] = frozenset(["proposed", "accepted"])
UNSEEN: frozenset[MarkSource] = frozenset(["tracked", "proposed"])  # nobody looked at it
PLACES: tuple[LengthPlace, ...] = get_args(LengthPlace)

# Each comes as lead_ and as trail_.
_PAIRED = "hip hip_edge knee ankle heel toe foot_outer foot_inner shoulder elbow wrist"
_SINGLE = "neck sternum head seat grip grip_butt club_head ball"
MARKS: frozenset[str] = frozenset(
    [f"{side}_{name}" for side in ("lead", "trail") for name in _PAIRED.split()] + _SINGLE.split()
)
# What is followed between placed marks: by optical flow what wears shoes and trousers, never hips; the grip
# by the landmarks of the hands; the club's head by the line of its shaft, face-on.
TRACKED: tuple[str, ...] = (
    *(
        f"{side}_{name}"
        for side in ("lead", "trail")
        for name in ("heel", "toe", "foot_outer", "foot_inner", "ankle", "knee")
    ),
    "ball",
    "grip",
    "club_head",
)


def spoken(name: str) -> str:
    """A name as it is said in a sentence: `trail_hip_edge` becomes "trail hip edge"."""
    return name.replace("_", " ")
