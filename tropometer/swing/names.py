"""The words of the trade as the core spells them: hands, views, checkpoints, marks, places."""

from __future__ import annotations

from typing import Literal, get_args

Hand = Literal["right", "left"]
View = Literal["face_on", "from_behind", "down_the_line", "up_the_line"]
# What a camera shows without depth: the frontal plane along the target line, or the sagittal one across it.
Plane = Literal["frontal", "sagittal"]
# How far a swing goes back, and what it is made with: a half swing is not a full one that stops short.
SwingLength = Literal["pitch", "lead_arm_level", "shoulder_high", "full"]
ClubClass = Literal["wedge", "iron", "wood", "driver"]
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
SWING_LENGTHS: tuple[SwingLength, ...] = get_args(SwingLength)
CLUB_CLASSES: tuple[ClubClass, ...] = get_args(ClubClass)
CHECKPOINTS: tuple[Checkpoint, ...] = get_args(Checkpoint)
EVENTS: tuple[Event, ...] = get_args(Event)
# In the order in which a swing is looked at: times come from the first that was filmed.
VIEWS: tuple[View, ...] = get_args(View)
PLANES: tuple[Plane, ...] = get_args(Plane)
PLANE_OF: dict[View, Plane] = {
    "face_on": "frontal",
    "from_behind": "frontal",
    "down_the_line": "sagittal",
    "up_the_line": "sagittal",
}
# From where a plane is filmed unless something else is said.
USUAL_VIEW: dict[Plane, View] = {"frontal": "face_on", "sagittal": "down_the_line"}
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
