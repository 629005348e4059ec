"""Every shipped model's own sound swing, as the made-up golfer draws it, lies inside its bands."""

from collections.abc import Callable
from functools import partial
from typing import cast
from unittest import TestCase

from tests.golfer import bodies
from tropometer.golfer import schools
from tropometer.golfer.events import timing
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.settings import SwingSettings
from tropometer.golfer.true_readings import true_readings
from tropometer.swing.names import ClubClass
from tropometer.swing.record.swing import POST_M
from tropometer.teaching.judging.asked import Swung, asked_of, post_of
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.knowledge.teaching_model import TeachingModel

DRAWN: dict[str, Callable[[], SwingSettings]] = {
    "loaded_shift": lambda: schools.inclined_turn(schools.loaded_shift()),
    "centred": schools.centred,
    "lead_biased": schools.lead_biased,
    "free_ankles": lambda: schools.outer_heel(schools.free_heel()),
    "screwed_trail_foot": schools.screwed_trail_foot,
    "both_sides": schools.both_sides,
    "quiet_and_square": schools.quiet_and_square,
    "slow_rehearsal": schools.slow_rehearsal,
}
CLUBS: dict[ClubClass, Callable[[SwingSettings], SwingSettings]] = {
    "iron": lambda settings: settings,
    "wedge": schools.wedge,
    "driver": schools.driver,
}


def outside(model: TeachingModel, club: ClubClass) -> list[str]:
    """The bands that the model's own swing with a club is outside of."""
    motion = Motion(bodies.body(), CLUBS[club](DRAWN[model.id]()))
    felt = partial(pressure, motion, man=1.0, mass_kg=76.0)
    true = {
        (each.reading, each.at): each.value
        for each in true_readings(motion, timing(motion), felt, posted=False)
    }
    asked = asked_of(shipped(), model, Swung(club=club))
    found = []
    for key, band in asked.bands.items():
        value = true.get(key)
        if not isinstance(value, float):  # what does not happen in this swing has no time
            continue
        value += (post_of(shipped(), model) or POST_M) - POST_M if band.reading == "post_gap" else 0.0
        if band.standing(value, 0.0) != "inside":
            found.append(f"{model.id}, {club}: {'.'.join(key)} {value:.3f} [{band.low}, {band.high}]")
    return found


class Sound:
    """One club a case: they are drawn beside each other."""

    club: ClubClass

    def test_each_is_inside_its_own_bands(self) -> None:
        case = cast(TestCase, self)
        case.assertEqual(DRAWN.keys(), shipped().models.keys())
        for model in shipped().models.values():
            with case.subTest(model=model.id):
                case.assertEqual(outside(model, self.club), [])


class IronTest(Sound, TestCase):
    club: ClubClass = "iron"


class WedgeTest(Sound, TestCase):
    club: ClubClass = "wedge"


class DriverTest(Sound, TestCase):
    club: ClubClass = "driver"
