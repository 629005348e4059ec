"""The invented people of the demo: bodies, clothes, swings, and the clips that were taken of them."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from tropometer.golfer import schools
from tropometer.golfer.camera import Camera
from tropometer.golfer.faults import with_faults
from tropometer.golfer.footage import Film
from tropometer.golfer.formats import Recording
from tropometer.golfer.hour import hour_swings
from tropometer.golfer.settings import SwingSettings
from tropometer.swing.names import Hand, View


@dataclass(frozen=True)
class Person:
    """A made-up golfer. Colours: skin, shirt, trousers, shoe, sole, hair, eye, cap, glove, belt."""

    stature_m: float
    sex: Literal["female", "male"]
    build: float  # -1 slight to 1 heavy
    hand: Hand
    colours: str
    cap: bool = True
    ponytail: bool = False
    hip_width: float = 1.0
    foot_length: float = 1.0

    @property
    def man(self) -> float:
        """1 for a man, 0 for a woman, for the tables of body segments."""
        return 1.0 if self.sex == "male" else 0.0

    @property
    def mass_kg(self) -> float:
        """From stature and build: a body mass index of 22.5 for a middling woman, 24 for a man."""
        return (22.5 + 1.5 * self.man + 5.5 * self.build) * self.stature_m**2


@dataclass(frozen=True)
class Take:
    """One clip: who swings how, filmed from where, recorded as what."""

    name: str
    person: Person
    settings: SwingSettings
    camera: Camera
    film: Film = field(default_factory=Film)
    recording: Recording = field(default_factory=Recording)
    indoors: bool = False


PEOPLE: dict[str, Person] = {
    "tobin": Person(1.81, "male", 0.25, "right", "d9a583 8a4b3c 4a5560 2f3540 e9e9e6 3b2a1e ffffff d8d2c2 ffffff 2a1c14"),
    "ilse": Person(
        1.68, "female", -0.1, "left", "c98f6b 3f6f73 2c3446 f0f0f0 f7f7f7 23180f ffffff e6dcc4 ffffff 111111",
        ponytail=True, hip_width=1.03,
    ),
    "dag": Person(1.75, "male", -0.3, "right", "8d5a3c d9d2bd 3a4a3a 5a3a24 d8d0c0 15100c ffffff 7a2f2a ffffff 3a2414"),
    "wynn": Person(1.79, "male", 0.75, "right", "e0b090 5f7f9a 6e6455 3a3a3a e9e9e6 8a8580 ffffff 2f3f33 ffffff 2a1c14"),
    "sunniva": Person(
        1.72, "female", 0.2, "right", "e6bd9e b9a7c4 3b3f4a d8d8d8 f2f2f2 a5763f ffffff f2efe6 ffffff 3a2a20",
        ponytail=True, hip_width=1.04,
    ),
    "lorne": Person(
        1.86, "male", 0.4, "right", "b98562 2f4a3a b3a68a 6b4a30 e9e9e6 5c5550 ffffff b3a68a ffffff 4a3020",
        cap=False, foot_length=1.05,
    ),
    "petra": Person(
        1.63, "female", -0.35, "right", "6f4630 d98a6a 23303f 1f1f1f e0ddd5 120c08 ffffff d98a6a ffffff 101010",
    ),
    "jory": Person(
        1.58, "male", -0.55, "right", "dcae8c 7fa05a 2b2d33 c8c8c8 f7f7f7 6a4a2a ffffff 2b2d33 ffffff 111111",
    ),
    "anneke": Person(
        1.70, "female", 0.45, "right", "d7a27f 2f5560 8f8a7c 5a4030 efe9dd 4a3020 ffffff ffffff ffffff 2a1c14",
        cap=False, ponytail=True,
    ),
    "model_loaded": Person(1.78, "male", 0.0, "right", "d9a583 e4ddc9 39506b 6b4a30 e9e9e6 2b2a26 ffffff 39506b ffffff 2a1c14"),
    "model_centred": Person(
        1.70, "female", -0.2, "right", "a8714f e8e2d2 4b5a46 e5e1d8 f5f5f5 1e1510 ffffff 4b5a46 ffffff 1a1a1a",
    ),
    "model_lead": Person(
        1.84, "male", 0.3, "left", "e2b798 4a6a7c d5cdb8 4a3526 e9e9e6 a08050 ffffff e8e2d0 ffffff 5a3a20",
    ),
    "model_free": Person(
        1.66, "female", 0.1, "left", "8d5a3c c9b48a 2d3540 f0f0f0 f7f7f7 1a120c ffffff 2d3540 ffffff 2a1c14",
    ),
}  # fmt: skip

# How a take's name says from where it was filmed.
ENDING: dict[View, str] = {
    "face_on": "face",
    "from_behind": "behind",
    "down_the_line": "line",
    "up_the_line": "up",
}
HOUR = "wynn_hour"
SOUND = schools.loaded_shift()
FLARED = SwingSettings(lead_flare=25, trail_flare=18)

# Every swing of the demo: the student's name, then which swing of theirs.
SWINGS: dict[str, SwingSettings] = {
    "tobin_first": with_faults(SwingSettings(), sway=1.0, hang_back=0.35),
    "tobin_month": with_faults(SwingSettings(trail_flare=14), sway=0.42),
    "tobin_home": with_faults(SwingSettings(trail_flare=14), sway=0.05),
    "ilse": SOUND,
    "dag_first": with_faults(schools.centred(), trail_knee_locked=1.0),
    "dag_month": with_faults(schools.centred(), trail_knee_locked=0.93, sway=0.03),
    "wynn": with_faults(SwingSettings(), wide_stance=1.0, early_extension=0.35),
    "wynn_narrower": with_faults(SwingSettings(), wide_stance=0.4, slide=0.3),
    **hour_swings(HOUR),
    "sunniva_square": with_faults(SwingSettings(), square_feet=1.0, trail_knee_held=0.8),
    "sunniva_flared": with_faults(FLARED, trail_knee_held=0.25),
    "sunniva_month": with_faults(FLARED, trail_knee_held=0.15, early_extension=0.3),
    "lorne_driver": with_faults(schools.driver(SwingSettings()), slide=0.65),
    "lorne_iron": with_faults(SwingSettings(), hang_back=0.85),
    "petra_wedge": with_faults(schools.wedge(SwingSettings()), early_extension=0.9),
    "petra_closed": with_faults(SwingSettings(), closed_toes=1.0, early_extension=0.5),
    "jory_top": with_faults(SwingSettings(), upper_body_first=0.8, trail_heel_spins=0.3),
    "jory_heel": with_faults(SwingSettings(), lead_heel_high=1.0),
    "anneke_passive": with_faults(SwingSettings(), passive_lead_knee=1.0),
    "anneke_snap": with_faults(SwingSettings(), slide=0.3, lead_knee_snaps=1.0),
    # Filmed down the line after the swing face-on, by the same phone: the same golfer swings once more.
    "dag_again": with_faults(
        schools.centred().but(backswing=0.76, downswing=0.285), trail_knee_locked=0.9, sway=0.06
    ),
    "anneke_again": with_faults(
        SwingSettings(backswing=0.83, downswing=0.265), slide=0.26, lead_knee_snaps=0.9
    ),
    "model_loaded": schools.loaded_shift(),
    "model_centred": schools.centred(),
    "model_lead": schools.lead_biased(),
    "model_free": schools.free_heel(),
}


# Seconds: nobody's time is another's. Who is not named swings in the usual time.
OWN_TIME: dict[str, dict[str, float]] = {
    "model_loaded": {"backswing": 0.78, "downswing": 0.25, "lead_knee_start": -0.075, "pelvis_shift_start": -0.08,
                     "pelvis_turn_start": -0.045, "chest_start": -0.015, "arm_start": -0.01},
    "model_centred": {"backswing": 0.72, "downswing": 0.245, "lead_knee_start": -0.045, "pelvis_shift_start": -0.04,
                      "pelvis_turn_start": -0.04, "chest_start": -0.015, "arm_start": 0.0},
    "model_lead": {"backswing": 0.9, "downswing": 0.29, "lead_knee_start": -0.05, "pelvis_shift_start": -0.055,
                   "pelvis_turn_start": -0.025, "chest_start": 0.0, "arm_start": 0.005},
    "model_free": {"backswing": 0.98, "downswing": 0.305, "lead_knee_start": -0.08, "pelvis_shift_start": -0.09,
                   "pelvis_turn_start": -0.055, "chest_start": -0.025, "arm_start": -0.01},
    "ilse": {"backswing": 0.75, "downswing": 0.26, "lead_knee_start": -0.05, "pelvis_shift_start": -0.065,
             "pelvis_turn_start": -0.03, "chest_start": -0.005, "arm_start": 0.0},
    "lorne_driver": {"backswing": 0.94, "downswing": 0.285, "lead_knee_start": -0.04, "pelvis_shift_start": -0.03,
                     "pelvis_turn_start": -0.02},
    "jory_top": {"backswing": 0.7, "downswing": 0.235},
}  # fmt: skip


def _person_of(swing: str) -> Person:
    return PEOPLE[swing] if swing in PEOPLE else PEOPLE[swing.split("_")[0]]


def _take(
    swing: str,
    view: View,
    *,
    distance: float,
    height: float = 1.0,
    fov: float = 31,
    portrait: bool = False,
    off_square: float = 0.0,
    tilt: float = 3.0,
    roll: float = 0.0,
    beside: float = 0.0,
    drift: float = 0.0,
    grain: float = 0.0,
    recording: Recording | None = None,
    indoors: bool = False,
) -> Take:
    person = _person_of(swing)
    size = (720, 1280) if portrait else (1280, 720)
    camera = Camera(
        view,
        distance,
        height,
        fov,
        *size,
        off_square,
        tilt,
        roll,
        beside,
        drift,
        left_handed=person.hand == "left",
    )
    name = f"{swing}_{ENDING[view]}"
    settings = SWINGS[swing].but(**OWN_TIME.get(swing, {}))
    return Take(name, person, settings, camera, Film(grain=grain), recording or Recording(), indoors)


FILMED = (1, 6, 12)  # of the hour's swings: no clip of the others was kept


def hour_take(number: int) -> Take:
    """A swing of the studio hour, whose camera stands all hour where it stands."""
    return _take(f"{HOUR}_{number:02}", "face_on", distance=4.5, height=1.05, fov=33, off_square=0.5)


SIXTY = Recording()
SLOW_120 = Recording(codec="libx265", container="mov", capture_fps=120, played_fps=30)
SLOW_240 = Recording(codec="libx264", container="mp4", capture_fps=240, played_fps=30)
UNEVEN = Recording(capture_fps=60, played_fps=60, variable_rate=True)
HEVC_TURNED = Recording(codec="libx265", container="mov", capture_fps=60, played_fps=60, rotation=90)

FACE: View = "face_on"
LINE: View = "down_the_line"
BEHIND: View = "from_behind"
UP: View = "up_the_line"

TAKES: tuple[Take, ...] = (
    _take("tobin_first", FACE, distance=4.6, height=1.05, off_square=1.0),
    _take("tobin_first", LINE, distance=4.4, height=1.1, off_square=-1.5, roll=0.3),
    _take("tobin_month", FACE, distance=4.5, height=1.0, off_square=-1.5, roll=-0.4),
    _take("tobin_month", LINE, distance=4.4, height=1.05, off_square=1.0),
    _take("tobin_home", FACE, distance=4.3, height=0.95, off_square=2.0, indoors=True),
    _take("tobin_home", LINE, distance=4.2, height=0.95, off_square=-2.0, indoors=True),
    _take("ilse", FACE, distance=4.5, fov=40, portrait=True, off_square=1.0, recording=SLOW_120),
    _take("ilse", LINE, distance=4.5, fov=40, portrait=True, off_square=0.5, recording=SLOW_120),
    _take("dag_first", FACE, distance=4.9, height=1.1, off_square=1.5, fov=28),
    _take("dag_first", LINE, distance=4.6, height=1.1),
    _take("dag_month", FACE, distance=4.8, height=1.05, off_square=0.5, fov=28),
    _take("dag_again", LINE, distance=4.6, height=1.1, off_square=1.0),
    _take("wynn", FACE, distance=4.4, fov=33, off_square=4.5, roll=0.8, drift=0.06),
    _take("wynn", LINE, distance=4.3, fov=33, off_square=2.0, drift=0.06),
    _take("wynn_narrower", BEHIND, distance=4.5, height=1.15, fov=32, off_square=2.5, roll=0.4),
    *(hour_take(number) for number in FILMED),
    _take("sunniva_square", FACE, distance=4.5, fov=40, portrait=True, recording=HEVC_TURNED),
    _take("sunniva_square", LINE, distance=4.6, fov=40, portrait=True, recording=HEVC_TURNED),
    _take(
        "sunniva_flared", FACE, distance=4.5, fov=40, portrait=True, off_square=-0.8, recording=HEVC_TURNED
    ),
    _take("sunniva_flared", LINE, distance=4.6, fov=40, portrait=True, recording=HEVC_TURNED),
    _take("sunniva_month", UP, distance=4.6, height=0.9, fov=33, off_square=-1.5),
    _take("lorne_driver", FACE, distance=5.0, height=1.1, fov=33, off_square=-2.0),
    _take("lorne_driver", LINE, distance=5.2, height=1.15, fov=33),
    _take("lorne_iron", FACE, distance=5.0, height=1.1, off_square=-1.0, indoors=True),
    _take("petra_wedge", FACE, distance=4.2, height=0.95, off_square=2.5),
    _take("petra_wedge", LINE, distance=4.2, height=0.95, off_square=-2.0),
    _take("petra_closed", FACE, distance=4.2, height=0.95, off_square=2.0),
    _take("petra_closed", LINE, distance=4.2, height=0.95, off_square=-1.0, recording=UNEVEN),
    _take("jory_top", FACE, distance=4.2, height=0.9, fov=29, grain=2.0, drift=0.1, recording=UNEVEN),
    _take("jory_top", LINE, distance=4.2, height=0.9, fov=30, recording=SLOW_240),
    _take("jory_heel", FACE, distance=4.2, height=0.9, fov=29, off_square=1.0, indoors=True),
    _take("anneke_passive", FACE, distance=4.5, off_square=-1.0),
    _take("anneke_passive", LINE, distance=4.5, off_square=1.0),
    _take("anneke_snap", FACE, distance=4.5, off_square=-0.5, recording=SLOW_240),
    _take("anneke_again", LINE, distance=4.4, off_square=1.0, recording=SLOW_240),
    _take("model_loaded", FACE, distance=4.6, height=1.05),
    _take("model_loaded", LINE, distance=4.6, height=1.05),
    _take("model_centred", FACE, distance=4.4),
    _take("model_centred", LINE, distance=4.4),
    _take("model_lead", FACE, distance=4.8, height=1.05),
    _take("model_lead", LINE, distance=4.8, height=1.05),
    _take("model_free", FACE, distance=4.3),
    _take("model_free", LINE, distance=4.3),
)
