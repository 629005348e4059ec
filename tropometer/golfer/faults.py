"""The faults of footwork as named changes of a swing, alone and in their usual chains.

Each takes a share: 1 is a plain case, less a slight one. What they look like is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Callable

from tropometer.golfer.settings import Event, SwingSettings

Fault = Callable[[SwingSettings, float], SwingSettings]
At = dict[Event, float]


def _scaled(share: float, **added: At) -> dict[str, At]:
    return {name: {event: share * amount for event, amount in at.items()} for name, at in added.items()}


def wide_stance(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """Stance far wider than the shoulders; the pelvis can hardly turn and the chest leans to the lead side."""
    wider = s.but(stance_ratio=s.stance_ratio + 0.45 * share, pelvis_bump=s.pelvis_bump - 0.005 * share)
    return wider.plus(
        **_scaled(
            share,
            pelvis_turn={"shaft_back": -4, "arm_back": -12, "top": -17},
            chest_turn={"arm_back": -8, "top": -16},
            side_tilt={"arm_back": -6, "top": -11, "arm_down": -5},
            lead_knee_flex={"top": -6, "arm_back": -4},
            trail_knee_flex={"impact": -3},
        )
    )


def square_feet(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """Both feet square: the hips are stopped early."""
    squared = s.but(lead_flare=s.lead_flare * (1 - share), trail_flare=s.trail_flare * (1 - share))
    return squared.plus(
        **_scaled(
            share,
            pelvis_turn={"shaft_back": -3, "arm_back": -10, "top": -14, "impact": 8, "shaft_through": 6},
            chest_turn={"arm_back": -6, "top": -11},
            arm_arc={"top": -6},
        )
    )


def trail_knee_held(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The trail knee keeps its flex going back; the pelvis turns less."""
    return s.plus(
        **_scaled(
            share,
            trail_knee_flex={"shaft_back": 2, "arm_back": 5, "top": 6},
            lead_knee_flex={"arm_back": 3, "top": 4},
            pelvis_turn={"arm_back": -6, "top": -10},
            chest_turn={"top": -6},
        )
    )


def trail_knee_locked(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The trail knee locks straight at the top."""
    return s.plus(
        **_scaled(
            share,
            trail_knee_flex={"shaft_back": -5, "arm_back": -9, "top": -11, "arm_down": -12, "shaft_down": -8},
            lead_knee_flex={"arm_back": -3, "top": -4},
            pelvis_turn={"arm_back": 4, "top": 6},
        )
    )


def passive_lead_knee(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The lead knee stays where it was going back; little turn, the arms lift."""
    return s.plus(
        **_scaled(
            share,
            lead_knee_flex={"arm_back": -7, "top": -10, "arm_down": -6},
            trail_knee_flex={"top": 3},
            pelvis_turn={"arm_back": -9, "top": -14},
            chest_turn={"top": -10},
            arm_off_plane={"top": 10},
            lead_knee_out={"top": 6},
        )
    )


def lead_heel_high(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The lead heel comes far up going back, up on the toe, and returns late."""
    return s.plus(
        **_scaled(
            share,
            lead_heel_lift={"shaft_back": 4, "arm_back": 17, "top": 24, "arm_down": 10},
            lead_knee_flex={"arm_back": 11, "top": 16, "arm_down": 7},
            pelvis_turn={"arm_back": 4, "top": 7},
            pelvis_sway={"top": -0.012, "arm_down": 0.02},
            spine_incline={"top": -3},
        )
    )


def sway(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The pelvis slides away from the target with little turn and no push-back; the hip passes the foot."""
    return s.plus(
        **_scaled(
            share,
            pelvis_sway={
                "shaft_back": -0.045, "arm_back": -0.088, "top": -0.115, "arm_down": -0.085,
                "shaft_down": -0.06, "impact": -0.04, "shaft_through": -0.03, "arm_through": -0.015,
            },
            pelvis_turn={"shaft_back": -5, "arm_back": -13, "top": -18, "impact": 9, "shaft_through": 6},
            pelvis_push={"arm_back": 0.012, "top": 0.018},
            trail_foot_roll={"arm_back": -4, "top": -6},
            trail_knee_flex={"top": 2},
            lead_knee_flex={"arm_back": -4, "top": -7},
            chest_turn={"top": -8},
        )
    )  # fmt: skip


def closed_toes(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The line through the toes closed: the club goes inside and crosses at the top."""
    return s.but(toe_line=s.toe_line + 9 * share).plus(
        **_scaled(
            share,
            arm_off_plane={"shaft_back": -6, "arm_back": -7},
            shaft_off_plane={"shaft_back": -12, "arm_back": -9, "top": 12},
            pelvis_push={"impact": 0.015, "shaft_through": 0.015},
        )
    )


def upper_body_first(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """Chest and arms start down before the hips; both heels rise, the trail knee breaks toward the ball."""
    late = s.but(
        pelvis_shift_start=s.pelvis_shift_start + 0.10 * share,
        pelvis_turn_start=s.pelvis_turn_start + 0.085 * share,
        lead_knee_start=s.lead_knee_start + 0.10 * share,
        chest_start=s.chest_start - 0.035 * share,
        arm_start=s.arm_start - 0.02 * share,
        hands_ahead_impact=s.hands_ahead_impact - 0.06 * share,
    )
    return late.plus(
        **_scaled(
            share,
            pelvis_sway={"arm_down": -0.035, "shaft_down": -0.03, "impact": -0.025, "shaft_through": -0.02},
            lead_heel_lift={"top": 6, "arm_down": 9, "shaft_down": 3},
            trail_heel_lift={"arm_down": 13, "shaft_down": 20, "impact": 21, "shaft_through": 14},
            trail_knee_flex={"arm_down": 5, "shaft_down": 8, "impact": 9, "shaft_through": 8},
            trail_foot_spin={"shaft_down": 9, "impact": 14, "shaft_through": 12},
            trail_foot_roll={"arm_down": -5, "shaft_down": -9, "impact": -10},
            lead_knee_flex={"arm_down": 3, "shaft_down": 5},
            pelvis_push={"arm_down": 0.02, "shaft_down": 0.03, "impact": 0.035},
            shaft_arc={"arm_down": 14, "shaft_down": 14},
            chest_turn={"arm_down": -9, "shaft_down": -6},
            side_tilt={"arm_down": -5, "shaft_down": -7, "impact": -8},
        )
    )


def slide(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The pelvis slides along the target line on the way down and hardly opens."""
    return s.plus(
        **_scaled(
            share,
            pelvis_sway={
                "arm_down": 0.035, "shaft_down": 0.06, "impact": 0.08, "shaft_through": 0.075, "arm_through": 0.05,
            },
            pelvis_turn={"arm_down": 7, "shaft_down": 13, "impact": 20, "shaft_through": 17, "arm_through": 8},
            side_tilt={"shaft_down": 5, "impact": 7, "shaft_through": 5},
            lead_foot_roll={"impact": 6, "shaft_through": 6},
            lead_knee_flex={"shaft_down": 2, "impact": 6, "shaft_through": 8, "arm_through": 6},
            trail_heel_lift={"impact": -4},
        )
    )  # fmt: skip


def early_extension(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """Pressure into the toes and the seat off its wall: the pelvis comes toward the ball and stands up."""
    return s.plus(
        **_scaled(
            share,
            pelvis_push={
                "arm_down": 0.025, "shaft_down": 0.05, "impact": 0.065, "shaft_through": 0.065, "arm_through": 0.035,
            },
            pelvis_tilt={"shaft_down": -5, "impact": -8, "shaft_through": -6},
            trail_heel_lift={"shaft_down": 6, "impact": 9, "shaft_through": 6},
            pelvis_turn={"impact": 7},
            lead_cop_toe={"arm_down": 0.18, "shaft_down": 0.25, "impact": 0.30, "shaft_through": 0.28},
        )
    )  # fmt: skip


def hang_back(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """A push off the trail foot sends the hips up instead of across; the weight stays behind."""
    return s.plus(
        **_scaled(
            share,
            pelvis_sway={
                "arm_down": -0.03, "shaft_down": -0.045, "impact": -0.06, "shaft_through": -0.065,
                "arm_through": -0.06, "finish": -0.05,
            },
            lead_knee_flex={"arm_down": -8, "shaft_down": -9, "impact": -6},
            trail_knee_flex={"arm_down": -6, "shaft_down": -8, "impact": -6},
            trail_heel_lift={"impact": -5, "shaft_through": -8, "arm_through": -10, "finish": -12},
            side_tilt={"impact": 5, "shaft_through": 6, "arm_through": 6},
            lead_share={"arm_down": -0.22, "shaft_down": -0.28, "impact": -0.30, "shaft_through": -0.25, "finish": -0.1},
        )
    )  # fmt: skip


def lead_knee_snaps(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The pelvis stops going forward; the lead knee snaps back straight and throws head and hands."""
    return s.plus(
        **_scaled(
            share,
            lead_knee_flex={
                "arm_down": 1,
                "shaft_down": 1,
                "impact": -3,
                "shaft_through": -5.5,
                "arm_through": -3.5,
            },
            pelvis_sway={"impact": -0.015, "shaft_through": -0.028, "arm_through": -0.035, "finish": -0.02},
            lead_knee_out={"impact": -5, "shaft_through": -7},
            head_side={"impact": -4, "shaft_through": -6},
        )
    )


def trail_heel_spins(s: SwingSettings, share: float = 1.0) -> SwingSettings:
    """The trail heel lifts straight up and spins; trail hip and shoulder lift over the top."""
    return s.plus(
        **_scaled(
            share,
            trail_heel_lift={"arm_down": 9, "shaft_down": 15, "impact": 17, "shaft_through": 10},
            trail_foot_spin={"arm_down": 6, "shaft_down": 15, "impact": 22, "shaft_through": 16},
            trail_foot_roll={"arm_down": -5, "shaft_down": -9, "impact": -11, "shaft_through": -8},
            trail_knee_flex={"shaft_down": 4, "impact": 6},
            side_tilt={"arm_down": -6, "shaft_down": -8, "impact": -6},
            chest_turn={"arm_down": -10, "shaft_down": -7},
        )
    )


FAULTS: dict[str, Fault] = {
    fault.__name__: fault
    for fault in (
        wide_stance, square_feet, trail_knee_held, trail_knee_locked, passive_lead_knee, lead_heel_high, sway,
        closed_toes, upper_body_first, slide, early_extension, hang_back, lead_knee_snaps, trail_heel_spins,
    )
}  # fmt: skip

# Which faults usually come together, the earliest cause first.
CHAINS: dict[str, tuple[str, ...]] = {
    "wide_and_standing_up": ("wide_stance", "early_extension"),
    "square_and_lifting": ("square_feet", "passive_lead_knee"),
    "sway_and_late": ("sway", "hang_back"),
    "closed_and_thrusting": ("closed_toes", "early_extension"),
    "heel_up_and_sliding": ("lead_heel_high", "slide"),
    "top_heavy": ("upper_body_first", "trail_heel_spins"),
    "stopping_and_snapping": ("slide", "lead_knee_snaps"),
}


def with_faults(settings: SwingSettings, **shares: float) -> SwingSettings:
    """A swing with named faults, each by its share; KeyError names one that does not exist."""
    for name, share in shares.items():
        settings = FAULTS[name](settings, share)
    return settings
