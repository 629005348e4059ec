"""Sound swings of the schools that disagree, as named changes of the default swing. Common practice, no source."""

from __future__ import annotations

from tropometer.golfer.settings import SwingSettings


def loaded_shift() -> SwingSettings:
    """A few centimetres away together with push-back and turn; the trail knee gives up flex; posts on the lead leg."""
    return SwingSettings(trail_flare=18).plus(
        pelvis_sway={"shaft_back": -0.014, "arm_back": -0.022, "top": -0.022},
        pelvis_push={"arm_back": -0.016, "top": -0.024, "arm_down": -0.012},
        trail_knee_flex={"arm_back": -3, "top": -5, "arm_down": -3},
        lead_knee_flex={"impact": -6, "shaft_through": -4, "arm_through": -2},
    )


def centred() -> SwingSettings:
    """The pelvis turns between fixed lines; the trail knee keeps its flex; near even pressure going back."""
    return SwingSettings(stance_ratio=0.98).plus(
        pelvis_sway={"arm_back": 0.008, "top": 0.008},
        trail_knee_flex={"shaft_back": 2, "arm_back": 4, "top": 5},
        lead_knee_flex={"arm_back": 2, "top": 2},
        pelvis_turn={"top": -3},
        lead_share={"shaft_back": 0.06, "arm_back": 0.14, "top": 0.12},
    )


def lead_biased() -> SwingSettings:
    """Weight even or slightly forward throughout; lead knee still soft through the strike."""
    return SwingSettings(pelvis_bump=0.03, lead_flare=25).plus(
        pelvis_sway={"arm_back": 0.016, "top": 0.022, "arm_down": 0.012},
        lead_knee_flex={"impact": 8, "shaft_through": 11, "arm_through": 8, "finish": 4},
        lead_foot_roll={"shaft_through": 6, "arm_through": 8, "finish": 4},
        trail_knee_flex={"top": -1},
        lead_share={"address": 0.05, "shaft_back": 0.16, "arm_back": 0.28, "top": 0.24, "arm_down": 0.08},
        side_tilt={"arm_back": -3, "top": -4},
    )


def free_heel() -> SwingSettings:
    """The lead ankle moves and its heel may rise a little to spare knee and back; a full turn follows."""
    return SwingSettings(lead_flare=25, trail_flare=22).plus(
        lead_heel_lift={"arm_back": 6, "top": 9, "arm_down": 1},
        lead_knee_flex={"arm_back": 4, "top": 6},
        pelvis_turn={"arm_back": 3, "top": 6},
        chest_turn={"top": 5},
        pelvis_sway={"arm_back": -0.008, "top": -0.01},
    )


def screwed_trail_foot() -> SwingSettings:
    """The trail foot stays down and presses outward into the floor to hold the seat back."""
    return SwingSettings(trail_flare=15).plus(
        trail_heel_lift={"arm_down": -1, "shaft_down": -5, "impact": -10, "shaft_through": -9},
        trail_foot_roll={"impact": 3, "shaft_through": 3},
        trail_knee_flex={"impact": -3, "shaft_through": -4},
        pelvis_push={"arm_down": -0.01, "shaft_down": -0.014, "impact": -0.012},
        lead_share={"arm_down": -0.06, "shaft_down": -0.05},
    )


def both_sides() -> SwingSettings:
    """From wall to wall: far to the trail side with depth and turn, far past its place before the strike; a push."""
    return SwingSettings(lead_flare=25, trail_flare=22, pelvis_bump=0.02).plus(
        pelvis_sway={
            "shaft_back": -0.035, "arm_back": -0.062, "top": -0.06, "arm_down": 0.03, "shaft_down": 0.075,
            "impact": 0.09, "shaft_through": 0.09, "arm_through": 0.08, "finish": 0.06,
        },
        pelvis_push={"arm_back": -0.02, "top": -0.03, "arm_down": -0.005, "shaft_down": 0.0, "impact": 0.0},
        pelvis_turn={"top": 4, "impact": 4},
        lead_knee_flex={"arm_back": 12, "top": 20, "shaft_down": -6, "impact": -6, "shaft_through": -4},
        trail_knee_flex={"arm_back": -6, "top": -11, "arm_down": -14, "shaft_down": -14, "impact": -12},
        trail_heel_lift={"arm_down": -1, "shaft_down": -4, "impact": -7},
        lead_heel_lift={"arm_back": 3, "top": 5},
        lead_share={"arm_back": -0.03, "top": -0.02, "impact": 0.02},
        trail_cop_toe={"arm_back": -0.1, "top": -0.12},
    )  # fmt: skip


def quiet_and_square() -> SwingSettings:
    """Both feet square, the pelvis between its lines, knees that stay where they are, a soft lead knee."""
    return (
        centred()
        .but(lead_flare=8, trail_flare=6)
        .plus(
            lead_knee_flex={"impact": 3, "shaft_through": 8, "arm_through": 7, "finish": 4},
            lead_knee_out={"arm_back": 6, "top": 8},
            lead_foot_roll={"shaft_through": 4, "arm_through": 6},
        )
    )


def slow_rehearsal() -> SwingSettings:
    """For drills: the lead foot far out, the trail foot square, pressure that stays back, the hip along the line."""
    return (
        centred()
        .but(lead_flare=38, trail_flare=8, downswing=0.4, backswing=1.2)
        .plus(
            lead_knee_flex={"impact": 3, "shaft_through": 8, "arm_through": 7, "finish": 4},
            trail_heel_lift={"arm_down": -1, "shaft_down": -5, "impact": -10, "shaft_through": -9},
            pelvis_sway={"top": -0.012, "shaft_down": 0.01, "impact": 0.02},
            pelvis_push={"arm_down": 0.014, "shaft_down": 0.026, "impact": 0.036},
            lead_share={
                "top": -0.12,
                "arm_back": -0.14,
                "arm_down": -0.2,
                "shaft_down": -0.34,
                "impact": -0.38,
            },
        )
    )


def driver(settings: SwingSettings) -> SwingSettings:
    """The same school with a driver: wider, ball forward on a tee, chest behind it, pressure longer on the trail side."""
    return settings.but(
        club="driver",
        stance_ratio=settings.stance_ratio + 0.2,
        ball_position=0.93,
        pelvis_bump=settings.pelvis_bump + 0.005,
        hands_ahead_address=-0.02,
        hands_ahead_impact=0.0,
        impact_arm_shaft=152,
        arm_hang=14,
    ).plus(
        side_tilt={"address": 4, "shaft_back": 3, "impact": 4, "shaft_down": 3},
        lead_share={"address": -0.08, "shaft_down": -0.05, "impact": -0.08},
    )


def inclined_turn(settings: SwingSettings) -> SwingSettings:
    """The hips turn about the tipped spine, not level: the trail side is higher at the top, lower at impact.

    The knees do it: the trail one straightens going back while the lead one bends, so the kneecaps part.
    """
    return settings.plus(
        lead_knee_flex={"shaft_back": 4, "arm_back": 10, "top": 15, "arm_down": 6, "impact": -2},
        trail_knee_flex={"shaft_back": -1, "arm_back": -2, "top": -3, "arm_down": -2, "impact": 4},
    )


def outer_heel(settings: SwingSettings) -> SwingSettings:
    """Through the ball onto the outer heel of the lead foot: its toe eases up, and it turns out after."""
    return settings.plus(
        lead_toe_lift={"impact": 1, "shaft_through": 3, "arm_through": 5, "finish": 7},
        lead_foot_roll={"impact": 2, "shaft_through": 5, "arm_through": 7, "finish": 8},
        lead_foot_twist={"shaft_through": 2, "arm_through": 8, "finish": 16},
        lead_cop_toe={"impact": -0.22, "shaft_through": -0.20, "arm_through": -0.15, "finish": -0.15},
        lead_cop_outer={"impact": 0.12, "shaft_through": 0.12, "arm_through": 0.10, "finish": 0.08},
    )


def wedge(settings: SwingSettings) -> SwingSettings:
    """The same school with a wedge: narrow, three quarters of the weight on the lead side, ball in the middle."""
    return settings.but(
        club="wedge",
        stance_ratio=settings.stance_ratio - 0.2,
        ball_position=0.5,
        pelvis_bump=settings.pelvis_bump + 0.015,
        hands_ahead_address=0.03,
    ).plus(lead_share={"address": 0.25, "shaft_back": 0.26, "arm_back": 0.26, "top": 0.24})


SCHOOLS = {
    school.__name__: school for school in (loaded_shift, centred, lead_biased, free_heel, screwed_trail_foot)
}
