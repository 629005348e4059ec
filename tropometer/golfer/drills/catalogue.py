"""How each drill of the book is drawn. What right and wrong look like is common practice, no source."""

from __future__ import annotations

from dataclasses import replace

from tropometer.golfer import schools
from tropometer.golfer.cast import PEOPLE
from tropometer.golfer.drills.drawing import DrawnDrill
from tropometer.golfer.drills.props import (
    Ball,
    Band,
    Chair,
    FloorStick,
    HipStick,
    MirrorLines,
    OnFloor,
    Slope,
    Wall,
)
from tropometer.golfer.drills.rehearsal import Stage, stage
from tropometer.golfer.faults import with_faults
from tropometer.golfer.settings import Event, SwingSettings

LOADED, CENTRED, FREE, SCREWED = (
    school()
    for school in (schools.loaded_shift, schools.centred, schools.free_heel, schools.screwed_trail_foot)
)
SOFT = schools.lead_biased()
HELD_S = 0.5
SHOWN_BY = (
    PEOPLE["model_loaded"],
    replace(
        PEOPLE["model_centred"],  # in shoes that stand out from paper
        colours="a8714f e8e2d2 4b5a46 4a3526 d8d0c0 1e1510 ffffff 4b5a46 ffffff 1a1a1a",
    ),
)


def there_and_back(settings: SwingSettings, *events: Event) -> tuple[Stage, ...]:
    """From the first event to the last and back, slowly; the last is held longest."""
    first, *rest = events
    there = [stage(at, settings, 1.1 if i == 0 else 0.6) for i, at in enumerate(rest)]
    there[-1] = stage(rest[-1], settings, there[-1].way_s, HELD_S + 0.2)
    return (stage(first, settings, hold_s=0.4), *there, stage(first, settings, 1.0))


def one_way(settings: SwingSettings, *events: Event) -> tuple[Stage, ...]:
    """From the first event to the last, held there."""
    first, *rest = events
    there = [stage(at, settings, 1.0 if i == 0 else 0.7, 0.15) for i, at in enumerate(rest)]
    there[-1] = stage(rest[-1], settings, there[-1].way_s, HELD_S + 0.3)
    return (stage(first, settings, hold_s=0.5), *there)


def set_up(*settings: SwingSettings) -> tuple[Stage, ...]:
    """Set-ups one after the other; the last is held longest."""
    first, *rest = settings
    then = [stage("address", each, 0.9, 0.3) for each in rest]
    then[-1] = stage("address", rest[-1], 0.9, HELD_S + 0.5)
    return (stage("address", first, hold_s=0.6), *then)


def turned_less(settings: SwingSettings, share: float) -> SwingSettings:
    """The same swing with less turn of the hips."""
    return settings.but(pelvis_turn=tuple(each * share for each in settings.pelvis_turn))


def heel_up_and_down(settings: SwingSettings) -> tuple[Stage, ...]:
    """To the top, where the heel is seen, and down until the arms are level."""
    return (
        stage("address", settings, hold_s=0.5),
        stage("top", settings, 1.1, 0.8),
        stage("arm_down", settings, 0.8, 0.7),
    )


def by_turns(drills: tuple[DrawnDrill, ...]) -> tuple[DrawnDrill, ...]:
    """Every other drill is shown by somebody else."""
    return tuple(replace(each, person=SHOWN_BY[i % len(SHOWN_BY)]) for i, each in enumerate(drills))


def _hopping() -> tuple[SwingSettings, SwingSettings, SwingSettings]:
    up = LOADED.plus(
        lead_heel_lift={"address": 26},
        trail_heel_lift={"address": 26},
        lead_knee_flex={"address": -8},
        trail_knee_flex={"address": -8},
    )
    return up, LOADED.plus(lead_knee_flex={"address": 9}, trail_knee_flex={"address": 9}), LOADED


ON_HEELS = LOADED.but(pelvis_back=-0.16).plus(
    lead_knee_flex={"address": 12}, trail_knee_flex={"address": 12}, head_tilt={"address": 14}
)
SQUARE = with_faults(LOADED, square_feet=1.0)
CLOSED = with_faults(LOADED, closed_toes=1.0)
FAR_OUT = LOADED.but(lead_flare=45)
FEET_TOGETHER = LOADED.but(stance_ratio=0.62, ball_position=0.5, pelvis_bump=0.0)
LEAD_FOOT_SET = LOADED.but(stance_ratio=0.72, ball_position=0.86, pelvis_bump=0.0)
UNTIPPED = LOADED.plus(side_tilt={"address": -7})
BOUNCED = LOADED.plus(trail_knee_flex={"top": 8})
FLAT_FOOT = LOADED.plus(
    trail_foot_roll={"impact": -11}, trail_heel_lift={"impact": -14}, trail_foot_spin={"impact": -7}
)
ROLLED = LOADED.plus(
    trail_foot_roll={"impact": 17}, trail_heel_lift={"impact": -6}, trail_foot_spin={"impact": -6}
)
HEEL_FIRST = with_faults(LOADED, trail_heel_spins=1.0)
LATE_HEEL = with_faults(FREE, lead_heel_high=1.0).plus(lead_heel_lift={"arm_down": 12})
SHOULDER_LOW = LOADED.but(lead_flare=28).plus(side_tilt={"shaft_back": 1, "arm_back": 1})
SHOULDER_HIGH = LOADED.plus(spine_incline={"shaft_back": -8, "arm_back": -16}, side_tilt={"arm_back": 5})
LOW_HANDS = LOADED.plus(arm_off_plane={"arm_back": -4, "shaft_back": -2})
LIFTED = LOADED.plus(
    arm_off_plane={"shaft_back": 8, "arm_back": 18, "top": 12},
    pelvis_turn={"shaft_back": -6, "arm_back": -14},
)
ROLLED_IN = (
    with_faults(LOADED, closed_toes=1.0)
    .but(toe_line=0.0)
    .plus(arm_off_plane={"arm_back": -10, "shaft_back": -8}, shaft_off_plane={"shaft_back": -14})
)
SPUN_FOOT = FAR_OUT.plus(
    lead_foot_twist={"impact": 12, "shaft_through": 24, "arm_through": 32, "finish": 30},
    lead_knee_out={"impact": -14, "shaft_through": -22, "arm_through": -20},
    pelvis_turn={"impact": 14, "shaft_through": 20, "arm_through": 22},
)
SLID_CHEST = LOADED.plus(side_tilt={"address": -10, "shaft_back": -9, "arm_back": -9, "top": -9}).but(
    pelvis_bump=0.05
)
KNEES_ONLY = turned_less(LOADED, 0.35).plus(
    lead_knee_flex={"arm_back": 6, "top": 8}, trail_knee_flex={"impact": 8}, lead_knee_out={"top": -14}
)
EMPTY = LOADED.plus(
    pelvis_push={"arm_back": 0.06, "top": 0.085}, pelvis_sway={"arm_back": 0.02, "top": 0.026}
)
HIP_STOPS = turned_less(SCREWED, 0.2)
STRAIGHTENED = with_faults(SwingSettings(), trail_knee_locked=0.7).plus(
    lead_knee_flex={"address": -12, "arm_back": -12, "top": -14}
)
LEANING = LOADED.plus(
    side_tilt={"arm_down": -10, "shaft_down": -18, "impact": -20, "shaft_through": -18, "arm_through": -12},
    chest_turn={"impact": -10},
)
SNAPPED = with_faults(SwingSettings(), lead_knee_snaps=0.9)
LOCKED = with_faults(SwingSettings(), trail_knee_locked=1.0)
LOCKED_AND_SLID = with_faults(SwingSettings(), trail_knee_locked=1.0, sway=0.35)
STEPPED = LOADED.plus(
    pelvis_sway={"arm_down": 0.03},
    chest_turn={"arm_down": 28, "shaft_down": 12},
    pelvis_turn={"arm_down": 10},
)
OPENED = with_faults(LOADED, upper_body_first=1.0).plus(chest_turn={"arm_down": -26, "shaft_down": -14})
POSTED = LOADED.plus(pelvis_sway={"arm_through": 0.02})
DIVING_KNEE = with_faults(LOADED, sway=0.6).plus(
    lead_knee_flex={"arm_back": 12, "top": 20}, lead_knee_out={"arm_back": -8, "top": -12}
)
PULLED = with_faults(LOADED, sway=0.0).plus(
    trail_knee_flex={"arm_back": 8, "top": 13},
    trail_knee_out={"top": -22, "arm_back": -15},
    pelvis_turn={"top": -14, "arm_back": -8},
)

DRILLS = by_turns((
    DrawnDrill("balls_of_the_feet", "down_the_line", set_up(*_hopping()), set_up(_hopping()[0], ON_HEELS),
    "hips"),
    DrawnDrill(
        "band_across_the_hip", "face_on", there_and_back(LOADED, "address", "top"),
        there_and_back(PULLED, "address", "top"), "folded", (Band(),), beside_m=0.3,
    ),
    DrawnDrill(
        "belt_pulled_back", "down_the_line", there_and_back(LOADED, "address", "top"),
        there_and_back(EMPTY, "address", "top"), "belt",
    ),
    DrawnDrill(
        "bump_and_turn", "face_on", one_way(LOADED, "top", "impact", "arm_through"),
        one_way(with_faults(LOADED, slide=1.0), "top", "impact", "arm_through"), "folded",
        (HipStick("lead", 0.012, stage("impact", LOADED)),),
    ),
    DrawnDrill(
        "club_across_the_thighs", "face_on", one_way(LOADED, "address", "top", "impact"),
        one_way(KNEES_ONLY, "address", "top", "impact"), "thighs", club=True,
    ),
    DrawnDrill(
        "club_on_the_breastbone", "face_on",
        (stage("address", UNTIPPED, hold_s=0.5), stage("address", LOADED, 0.8, 0.3),
        stage("top", LOADED, 1.2, 0.8)),
        (stage("address", UNTIPPED, hold_s=0.5), stage("address", SLID_CHEST, 0.8, 0.3),
        stage("top", SLID_CHEST, 1.2, 0.8)),
        "breastbone", club=True,
    ),
    DrawnDrill(
        "downhill_stance", "face_on", one_way(LOADED, "address", "top", "impact"),
        one_way(LEANING, "address", "top", "impact"), None, (Slope(),), club=True,
    ),
    DrawnDrill(
        "feet_last", "face_on", set_up(FEET_TOGETHER, LEAD_FOOT_SET, LOADED), None, None,
        (Ball(),), club=True, keeps_ball=True,
    ),
    DrawnDrill(
        "flare_a_notch", "face_on",
        (
            stage("address", SQUARE, hold_s=0.6),
            stage("address", LOADED.but(lead_flare=25, trail_flare=25), 0.8, 0.3),
            stage("top", LOADED.but(lead_flare=25, trail_flare=25), 1.2, 0.8),
        ),
        one_way(SQUARE, "address", "top"), "folded",
    ),
    DrawnDrill(
        "half_swings_from_below", "face_on",
        one_way(LOADED, "address", "arm_back", "arm_down", "impact", "arm_through"),
        one_way(with_faults(LOADED, upper_body_first=1.0), "address", "arm_back", "arm_down", "impact",
        "arm_through"),
        None, (Ball(),), club=True,
    ),
    DrawnDrill(
        "hands_low_and_away", "down_the_line", there_and_back(LOW_HANDS, "address", "arm_back"),
        there_and_back(ROLLED_IN, "address", "arm_back"), None, (Ball(),), club=True,
    ),
    DrawnDrill(
        "heel_on_a_coin", "from_behind", heel_up_and_down(FREE),
        heel_up_and_down(LATE_HEEL), "folded", (OnFloor("coin"),),
    ),
    DrawnDrill(
        "knee_behind_the_ball", "face_on", there_and_back(LOADED, "address", "top"),
        there_and_back(DIVING_KNEE, "address", "top"), "folded", (Ball(), OnFloor("glove")),
    ),
    DrawnDrill(
        "knee_gives", "face_on", there_and_back(LOADED, "address", "top"),
        there_and_back(LOCKED_AND_SLID, "address", "top"), "folded",
    ),
    DrawnDrill(
        "lead_foot_far_out", "face_on", one_way(FAR_OUT, "top", "impact", "arm_through"),
        one_way(SPUN_FOOT, "top", "impact", "arm_through"), "folded",
    ),
    DrawnDrill(
        "lines_on_a_mirror", "face_on", one_way(CENTRED, "address", "top", "impact"),
        one_way(turned_less(CENTRED, 0.3), "address", "top", "impact"), "folded", (MirrorLines(),),
    ),
    DrawnDrill(
        "open_toe_low_shoulder", "face_on", there_and_back(SHOULDER_LOW, "address", "arm_back"),
        there_and_back(SHOULDER_HIGH, "address", "arm_back"), "shoulders", club=True,
    ),
    DrawnDrill(
        "preset_waist_high", "down_the_line", there_and_back(LOADED, "shaft_back", "top"),
        there_and_back(LIFTED, "shaft_back", "top"), None, (Ball(),), club=True,
    ),
    DrawnDrill(
        "pressure_first", "face_on", one_way(STEPPED, "address", "top", "arm_down"),
        one_way(OPENED, "address", "top", "arm_down"), "folded",
    ),
    DrawnDrill(
        "screw_the_trail_foot", "from_behind", one_way(SCREWED, "top", "impact"),
        one_way(HIP_STOPS, "top", "impact"),
        "folded",
    ),
    DrawnDrill(
        "seat_to_the_chair", "down_the_line", one_way(LOADED, "address", "top", "impact"),
        one_way(with_faults(LOADED, early_extension=1.0), "address", "top", "impact"), "folded",
        (Chair(),), beside_m=-0.2,
    ),
    DrawnDrill(
        "show_the_sole", "down_the_line",
        (stage("impact", FLAT_FOOT, hold_s=0.5), stage("impact", ROLLED, 1.0, 0.8),
        stage("impact", FLAT_FOOT, 1.0)),
        (stage("impact", FLAT_FOOT, hold_s=0.5), stage("impact", HEEL_FIRST, 1.0, 0.8),
        stage("impact", FLAT_FOOT, 1.0)),
        "folded",
    ),
    DrawnDrill(
        "spring_in_the_knee", "face_on",
        (
            stage("address", LOADED, hold_s=0.4), stage("top", LOADED, 1.1, 0.5),
            stage("top", BOUNCED, 0.3),
            stage("top", LOADED, 0.3), stage("top", BOUNCED, 0.3), stage("top", LOADED, 0.3, 0.2),
        ),
        there_and_back(LOCKED, "address", "top"), "folded",
    ),
    DrawnDrill(
        "stay_soft", "face_on", one_way(SOFT, "impact", "arm_through"),
        one_way(SNAPPED, "impact", "arm_through"), None, club=True,
    ),
    DrawnDrill(
        "stick_by_the_hip", "face_on",
        there_and_back(LOADED.plus(pelvis_sway={"arm_back": 0.02, "top": 0.024}), "address", "top"),
        there_and_back(with_faults(LOADED, sway=1.0), "address", "top"), "folded", (HipStick("trail"),),
    ),
    DrawnDrill(
        "toe_line_stick", "down_the_line", set_up(CLOSED, LOADED), None, None,
        (FloorStick("toe stick", "toes", 0.03), FloorStick("outer stick", "ball", 0.12), Ball()), club=True,
    ),
    DrawnDrill(
        "up_through_the_leg", "face_on", one_way(POSTED, "impact", "arm_through"),
        one_way(SNAPPED, "impact", "arm_through"), "hips",
    ),
    DrawnDrill(
        "wall_behind", "down_the_line", one_way(LOADED, "address", "top", "impact"),
        one_way(STRAIGHTENED, "address", "top", "impact"), "hips", (Wall(0.07),), beside_m=-0.1,
    ),
))  # fmt: skip
