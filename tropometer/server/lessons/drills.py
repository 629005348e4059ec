"""The drill book. {lead} and {trail} become the student's own left and right on the lesson sheet."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Drill:
    """One drill: how to set it up, what to feel, how much, what the camera should show, and the caution."""

    id: str
    name: str
    purpose: str
    set_up: str
    feel: str
    dose: str
    camera_shows: str
    caution: str


DRILLS: dict[str, Drill] = {
    drill.id: drill
    for drill in (
        Drill(
            "stick_off_trail_hip",
            "Stick a thumb's width off the hip",
            "Hips that slide away from the target going back.",
            "Stand to the ball. Have a stick planted upright in soft ground, a thumb's width outside your "
            "{trail} hip.",
            "Turn the hip pocket back and behind you, so that the seat stays just clear of the stick.",
            "Ten slow swings without a ball, five at half speed with one. Three days a week.",
            "At the top the {trail} hip is still inside the outside of the {trail} shoe.",
            "Use a padded or bendy stick. Stop if the hip or the low back hurts.",
        ),
        Drill(
            "band_across_trail_hip",
            "Elastic band across the hip",
            "A first move that goes sideways instead of around.",
            "Loop an elastic band round the {trail} hip and anchor it ahead of you on the ball's side.",
            "Let the band pull the hip forward; work against it by turning, not by leaning away.",
            "Two sets of eight slow turns, then three half swings without the band.",
            "The belt turns while the middle of the hips stays over the feet.",
            "Check the anchor before every set. Not with a painful knee or a recent hip operation.",
        ),
        Drill(
            "arms_folded_shift",
            "Arms folded, pressure first",
            "Arms that start down before the legs.",
            "Fold your arms over your chest in your golf posture, club put aside.",
            "Turn back; before the turn is finished let the pressure start across into the {lead} foot.",
            "Two sets of ten, slowly enough that you could stop at any moment.",
            "The {lead} knee moves toward the target while the chest still turns back.",
            "Let the {lead} foot turn out if the knee feels twisted.",
        ),
        Drill(
            "flare_one_notch",
            "Flare one notch and test again",
            "Hips that hardly turn.",
            "Turn the toes of the {trail} foot out by the width of two fingers and swing; then once more.",
            "The hip socket opens like a door with room behind it.",
            "Three swings a notch, three notches, filmed from the front.",
            "The belt buckle turns farther at the top without the hips going sideways.",
            "Stop at the notch where the turn no longer grows: a range your hips do not have is the wrong "
            "target.",
        ),
        Drill(
            "wall_behind_seat",
            "Wall behind the seat",
            "A seat that moves toward the ball on the way down.",
            "Stand in your posture with the seat just touching a wall or a chair's back.",
            "Going back the {trail} cheek stays on the wall; coming down the {lead} one takes its place.",
            "Fifteen slow ones without a club, every other day.",
            "From down the line the seat does not leave the line behind it.",
            "Feel it in the seat and thigh, never in the low back. Stop at pain.",
        ),
    )
}
