"""The demo's practice: made-up students of a made-up instructor on a fictional island range.

Each swing names its clips in demo/clips without their endings; a clip's view follows from its name.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from django.conf import settings

from tropometer.server.demo.answers import Answer, about
from tropometer.server.people.schemas import AcheSaid, Body, MotionSaid
from tropometer.swing.names import ClubClass, SwingLength
from tropometer.teaching.knowledge.trade_words import BallMiss, BodyPart

# What the students' clubs are.
CLUBS: dict[str, ClubClass] = {
    "5 iron": "iron",
    "6 iron": "iron",
    "7 iron": "iron",
    "8 iron": "iron",
    "Driver": "driver",
    "Pitching wedge": "wedge",
}
INSTRUCTOR = "Maren Thole"
PRACTICE = "Skerrow Range, by the harbour"
PORTRAIT = settings.ROOT / "demo" / "portrait.png"  # drawn
MAIL, PASSWORD = "maren@skerrow.example", "skerrow-island"


@dataclass(frozen=True)
class DemoSwing:
    """One swing as a student sent it. `marked` says whether the instructor has already marked it."""

    clips: tuple[str, ...]
    days_ago: float
    club: str
    words: str
    usual_miss: str = ""
    what_hurts: str = ""
    camera_place: str = ""
    marked: bool = False
    on_pressure_mat: bool = False  # only the range has one
    one_swing: bool | None = True  # what the sender said of its two views; None: nothing
    swing_length: SwingLength | None = "full"
    misses: tuple[BallMiss, ...] = ()
    hurts: tuple[BodyPart, ...] = ()
    answer: Answer | None = None  # the lesson that was sent
    drill: str = ""  # a try at it, to be checked


@dataclass(frozen=True)
class DemoStudent:
    """A made-up student and their swings, oldest first."""

    name: str
    mail: str
    hand: Literal["right", "left"]
    stature_m: float
    history: str
    swings: tuple[DemoSwing, ...]
    teaching_model: Literal["loaded_shift", "centred", "lead_biased"] = "loaded_shift"
    body: Body | None = None
    units: Literal["cm", "in", ""] = ""
    guardian: str = ""
    consent_on: date | None = None


@dataclass(frozen=True)
class DemoReference:
    """A sound swing on the shelf."""

    name: str
    about: str
    teaching_model: Literal["loaded_shift", "centred", "lead_biased"]
    hand: Literal["right", "left"]
    club: str
    clips: tuple[str, ...]


STUDENTS: tuple[DemoStudent, ...] = (
    DemoStudent(
        "Tobin Farrow",
        "tobin@skerrow.example",
        "right",
        1.81,
        "Keeps the ferry timetable; plays after the last boat. Right knee aches after long sessions.",
        (
            DemoSwing(
                ("tobin_first_face", "tobin_first_line"),
                33,
                "7 iron",
                "It feels like a big turn, but I keep hitting the ground first.",
                "Heavy, then a pull",
                "Right knee after a long session",
                marked=True,
                on_pressure_mat=True,
                misses=("heavy", "pull"),
                hurts=("trail_knee",),
                answer=Answer(
                    "Your hips slide past your right foot before they turn. One thing for a month: keep clear of the stick.",
                    (
                        about(
                            "sways",
                            "Your hips go past your right foot.",
                            "stick_by_the_hip",
                            "ten, three days a week",
                        ),
                        about(
                            "short_shoulders",
                            "Turn your back to the target.",
                            "club_on_the_breastbone",
                            "ten a day",
                        ),
                    ),
                    goals={
                        "sways": ("pelvis_sway", "top", -0.06, -0.005),
                        "short_shoulders": ("shoulder_turn", "top", 80.0, 105.0),
                    },
                    then={"sways": (-0.124, 0.013), "short_shoulders": (72.2, 5.5)},
                ),
            ),
            DemoSwing(("tobin_home_line",), 2.1, "7 iron", "", drill="stick_by_the_hip"),
            DemoSwing(("tobin_home_face",), 2.05, "7 iron", "", drill="stick_by_the_hip"),
            DemoSwing(
                ("tobin_month_face", "tobin_month_line"),
                0.12,
                "7 iron",
                "A month with the stick off my hip. I keep hitting the ground less. Has it really moved?",
                "Heavy, but seldom now",
                camera_place="On the stand, five steps away, belt high",
                misses=("heavy",),
                marked=True,
                on_pressure_mat=True,
            ),
        ),
        body=Body(
            aches=[AcheSaid(part="trail_knee", trouble="pain")],
            misses=["heavy", "pull"],
            good_clubs=["wedge"],
            bad_clubs=["iron"],
        ),
    ),
    DemoStudent(
        "Ilse Marrin",
        "ilse@skerrow.example",
        "left",
        1.68,
        "Plays off nine and turns well. Wants proof before she changes anything.",
        (
            DemoSwing(
                ("ilse_face", "ilse_line"),
                0.8,
                "7 iron",
                "Slow motion from both sides, as you asked. It felt solid today.",
                "A push now and then",
                misses=("push",),
                marked=True,
            ),
        ),
        units="in",
    ),
    DemoStudent(
        "Dag Penhale",
        "dag@skerrow.example",
        "right",
        1.75,
        "Was told elsewhere to straighten the back leg. Back a little stiff in the mornings.",
        (
            DemoSwing(
                ("dag_first_face", "dag_first_line"),
                31,
                "7 iron",
                "My back leg goes straight. I was told it should. Should it?",
                "Thin, low to the right",
                marked=True,
                misses=("thin",),
                answer=Answer(
                    "Let it give up some bend, never all of it. Turn around it.",
                    (
                        about(
                            "trail_knee_locked",
                            "Your right knee gives up too much of its bend.",
                            "spring_in_the_knee",
                            "ten a day",
                        ),
                    ),
                    goals={"trail_knee_locked": ("knee_flex_trail", "top", 18.0, None)},
                    then={"trail_knee_locked": (10.1, 4.9)},
                ),
            ),
            DemoSwing(
                ("dag_month_face", "dag_again_line"),
                2,
                "7 iron",
                "I have tried to keep the knee a little since our last talk. Is it better?",
                "Thin, low to the right",
                camera_place="One phone: from the front first, then another swing from behind",
                misses=("thin",),
                marked=True,
                one_swing=False,
            ),
        ),
        teaching_model="centred",
        body=Body(aches=[AcheSaid(part="low_back", trouble="stiff")], misses=["thin", "low"]),
    ),
    DemoStudent(
        "Wynn Osk",
        "",
        "right",
        1.79,
        "Builds boats. Came to golf from throwing sports and stands as if a wave might come.",
        (
            DemoSwing(
                ("wynn_face", "wynn_line"),
                3,
                "6 iron",
                "I feel stable, and still I fall off the ball at the top.",
                "Everything low on the face",
                camera_place="Held by my brother, on the left of the mat",
                misses=("low",),
                one_swing=None,
            ),
            DemoSwing(
                ("wynn_narrower_behind",),
                0.4,
                "6 iron",
                "Feet closer, as you said. My brother is at sea: the sill of the shed is behind me.",
                "Better, but to the right",
                camera_place="On the shed's sill, behind my back",
                marked=True,
            ),
        ),
    ),
    DemoStudent(
        "Sunniva Brae",
        "sunniva@skerrow.example",
        "right",
        1.72,
        "Stiff hips; a physiotherapist has cleared her to turn as far as is comfortable.",
        (
            DemoSwing(
                ("sunniva_square_face", "sunniva_square_line"),
                12,
                "8 iron",
                "My hips stop and my arms go on.",
                "A pull, or a slice when I try not to",
                misses=("pull", "slice"),
                marked=True,
                answer=Answer(
                    "Your feet hold your hips. Flare both a notch at a time and turn again.",
                    (
                        about(
                            "square_feet",
                            "Your feet point straight ahead and hold your hips.",
                            "flare_a_notch",
                            "three swings a notch",
                        ),
                    ),
                    goals={"square_feet": ("foot_flare_trail", "address", 12.0, 32.0)},
                    then={"square_feet": (3.0, 4.0)},
                ),
            ),
            DemoSwing(
                ("sunniva_flared_face", "sunniva_flared_line"),
                5,
                "8 iron",
                "Both feet turned out one notch at a time. The same swing, I think?",
                "Straighter",
                marked=True,
                answer=Answer(
                    "Not the same at all: look where your belt points at the top. Keep both feet as they are.",
                    (
                        about(
                            "square_feet",
                            "Your feet point where they should. Set them so until they find it by themselves.",
                            "flare_a_notch",
                            "once before each bucket",
                        ),
                    ),
                    goals={"square_feet": ("foot_flare_trail", "address", 12.0, 32.0)},
                    then={"square_feet": (18.0, 4.0)},
                ),
            ),
            DemoSwing(
                ("sunniva_month_up",),
                0.6,
                "8 iron",
                "The bay was full behind me, so the phone stood on the target's side.",
                "Straighter, a little off the heel",
                camera_place="On a bucket toward the target",
                marked=True,
            ),
        ),
        body=Body(
            aches=[
                AcheSaid(
                    part="trail_hip",
                    trouble="stiff",
                    agreed_by="Physiotherapist on the island",
                    agreed_on=date(2026, 8, 14),
                )
            ],
            motions=[
                MotionSaid(motion="trail_hip_in", degrees=21, measured_on=date(2026, 8, 14)),
                MotionSaid(motion="lead_hip_in", degrees=24, measured_on=date(2026, 8, 14)),
            ],
            misses=["pull", "slice"],
        ),
    ),
    DemoStudent(
        "Lorne Maddock",
        "lorne@skerrow.example",
        "right",
        1.86,
        "Left hip replaced four years ago; no new drill before his physician agrees.",
        (
            DemoSwing(
                ("lorne_iron_face",),
                26,
                "5 iron",
                "I cannot get off my right side.",
                "High and weak",
                "Low back the day after",
                misses=("high", "short"),
                hurts=("low_back",),
                marked=True,
                answer=Answer(
                    "Nothing new until your physician agrees. Then: let the pressure start across before the turn is done.",
                    (about("not_stacked", "You come down leaning away from the ball."),),
                ),
            ),
            DemoSwing(
                ("lorne_driver_face", "lorne_driver_line"),
                6,
                "Driver",
                "Now I get off it, but I block it over the sea wall.",
                "A block to the right",
            ),
        ),
        body=Body(
            aches=[AcheSaid(part="lead_hip", trouble="replaced")],
            misses=["push", "high"],
            good_clubs=["wedge", "iron"],
            bad_clubs=["driver"],
        ),
    ),
    DemoStudent(
        "Petra Vance",
        "petra@skerrow.example",
        "right",
        1.63,
        "Teaches at the island school. Short sessions, every day.",
        (
            DemoSwing(
                ("petra_closed_face", "petra_closed_line"),
                15,
                "7 iron",
                "I aim right so that it does not go left.",
                "A hook that starts right",
                misses=("hook",),
                marked=True,
                answer=Answer(
                    "Your toes point right of your aim, so your hips have to make room. Square them first.",
                    (
                        about(
                            "closed_toe_line",
                            "Your toes point right of your aim.",
                            "toe_line_stick",
                            "before every ball",
                        ),
                    ),
                    goals={"closed_toe_line": ("toe_line", "address", -6.0, 1.5)},
                    then={"closed_toe_line": (9.1, 3.3)},
                ),
            ),
            DemoSwing(
                ("petra_wedge_face", "petra_wedge_line"),
                1.6,
                "Pitching wedge",
                "From eighty metres I end on my toes.",
                "Off the heel",
            ),
        ),
        body=Body(misses=["hook"], good_clubs=["wedge"], bad_clubs=["wood"]),
    ),
    DemoStudent(
        "Jory Tennick",
        "jory@skerrow.example",
        "right",
        1.58,
        "Fifteen and growing. Football three times a week.",
        (
            DemoSwing(
                ("jory_heel_face",),
                20,
                "7 iron",
                "I lift my heel so I can turn more.",
                "Tops it",
                misses=("topped",),
                answer=Answer(
                    "A little is fine; up on the toe is not. Keep the ball of the foot heavy.",
                    (
                        about(
                            "lead_heel_high", "Your left heel goes up too far.", "heel_on_a_coin", "ten a day"
                        ),
                    ),
                ),
            ),
            DemoSwing(
                ("jory_top_face", "jory_top_line"),
                4,
                "7 iron",
                "I go at it as hard as I can from the top.",
                "High, and no distance",
                misses=("high", "short"),
                marked=True,
            ),
        ),
        guardian="Keren Tennick",
        consent_on=date(2026, 9, 2),
    ),
    DemoStudent(
        "Anneke Voll",
        "anneke@skerrow.example",
        "right",
        1.70,
        "Runs the island's bakery: practises before dawn. Left knee sore going downstairs.",
        (
            DemoSwing(
                ("anneke_passive_face", "anneke_passive_line"),
                24,
                "7 iron",
                "I was told to keep my left knee still.",
                "Steep, with big divots",
                marked=True,
                answer=Answer(
                    "Let it move in toward the ball as you turn; your hips will follow.",
                    (
                        about(
                            "restricted_turn",
                            "Your hips stop early.",
                            "flare_a_notch",
                            "three swings a notch",
                        ),
                    ),
                ),
            ),
            DemoSwing(
                ("anneke_snap_face", "anneke_again_line"),
                7,
                "7 iron",
                "Now I post up, in slow motion. It jolts.",
                "Thin",
                "Left knee at the hit",
                one_swing=False,
            ),
        ),
        body=Body(aches=[AcheSaid(part="lead_knee", trouble="pain")], misses=["thin"]),
    ),
)

REFERENCES: tuple[DemoReference, ...] = (
    DemoReference(
        "Range model, loaded",
        "Loads a little, pushes back and turns; posts on the lead leg.",
        "loaded_shift",
        "right",
        "7 iron",
        ("model_loaded_face", "model_loaded_line"),
    ),
    DemoReference(
        "Range model, centred",
        "Turns between fixed lines; the trail knee keeps its flex.",
        "centred",
        "right",
        "7 iron",
        ("model_centred_face", "model_centred_line"),
    ),
    DemoReference(
        "Range model, lead-side",
        "Stays over the lead side; lead knee soft through the strike.",
        "lead_biased",
        "left",
        "7 iron",
        ("model_lead_face", "model_lead_line"),
    ),
    DemoReference(
        "Range model, free heel",
        "The lead heel rises a little; a full turn to spare the back.",
        "loaded_shift",
        "left",
        "7 iron",
        ("model_free_face", "model_free_line"),
    ),
)
