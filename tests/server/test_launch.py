"""Shots out of a launch monitor's table: looked at, taken in whole or not at all, held against each other."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.utils import timezone

from tests.server.making import instructor
from tests.server.test_studio import StudioCase
from tropometer.server.bench.models import Shot
from tropometer.server.studio.models import LaunchProfile, StudioHour

PATHS = [-3.0, -2.5, -3.5, -2.8, 1.5, 2.0, 1.8, 2.4]  # out to in, and in to out with the change
TABLE = "Way of the club;Carry (yd)\n" + "\n".join(f"{-path};150,5".replace(".", ",") for path in PATHS)
PATH = "club_path.shot"
COLUMNS = {
    "Way of the club": {"field": "club_path_deg", "unit": "deg", "positive": "left"},
    "Carry (yd)": {"field": "carry_m", "unit": "yd"},
}


class LaunchTests(StudioCase):
    def setUp(self) -> None:
        super().setUp()
        self.hour = self.begun()
        self.path = f"/hours/{self.hour['id']}/shots"

    def sent(self, **about: Any) -> dict[str, Any]:
        tries = {line: each["id"] for line, each in enumerate(self.hour["tries"], 2)}
        return {"text": TABLE, "file_name": "lane2.csv", "columns": COLUMNS, "tries": tries} | about

    def test_columns_said_once_are_known_the_next_time_and_shots_stand_against_each_other(self) -> None:
        looked = self.call("post", f"{self.path}/look", {"text": TABLE})
        self.assertEqual([each["use"] is None for each in looked["columns"]], [True, False])
        self.assertEqual(looked["decimal"], ",")
        self.assertEqual(looked["lines"][0]["try_id"], self.hour["tries"][0]["id"])
        self.call("post", self.path, self.sent(profile="Lane 2"))
        self.call("patch", f"/hours/{self.hour['id']}", {"columns": [PATH, "carry.shot"]})
        ladder = self.call("get", f"/hours/{self.hour['id']}")
        self.assertEqual(
            [(each["column"], each["unit"]) for each in ladder["columns"]],
            [(PATH, "shot_deg"), ("carry.shot", "far")],
        )
        path, carry = ladder["steps"][0]["columns"]
        self.assertEqual((path["verdict"], carry["verdict"]), ("real", "not_shown"))
        self.assertAlmostEqual(path["by"], 4.9, delta=0.2)
        again = self.call("post", f"{self.path}/look", {"text": TABLE})
        self.assertEqual(again["profile"], "Lane 2")
        self.assertEqual(again["lines"][0]["values"][0], {"column": PATH, "value": -3.0, "u95": 1.5})
        swing = self.hour["tries"][0]["swing_id"]
        self.assertAlmostEqual(Shot.objects.get(swing=swing).said["carry_m"], 150.5 * 0.9144)
        gone = self.call("delete", self.path)
        self.assertEqual({each["has_shot"] for each in gone["tries"]}, {False})
        self.assertEqual(Shot.objects.count(), 0)
        (known,) = self.call("get", "/launch-profiles")
        self.call("delete", f"/launch-profiles/{known['id']}", status=204)
        self.assertFalse(LaunchProfile.objects.exists())

    def test_lines_are_put_to_tries_by_their_clocks_unless_those_are_of_other_things(self) -> None:
        ids = [each["id"] for each in self.hour["tries"]]
        hit = [timezone.localtime(swing.received_at) + timedelta(seconds=9) for swing in self.swings]

        def put(late: timedelta) -> list[str | None]:
            lines = [f"{at + late:%H:%M:%S};140" for at in reversed(hit)]
            text = "\n".join(["Time;Carry", "00:00:01;150", *lines])  # one more, hit before anybody looked
            looked = self.call("post", f"{self.path}/look", {"text": text})
            return [each["try_id"] for each in looked["lines"]]

        self.assertEqual(put(timedelta(0)), [None, *reversed(ids)])
        self.assertEqual(put(timedelta(hours=3)), [*ids, None])  # a clock of another place: in their order

    def test_what_is_wrong_is_said_and_nothing_is_half_stored(self) -> None:
        wrong = TABLE.replace("2,5;150,5", "slow;150,5")
        looked = self.call("post", f"{self.path}/look", {"text": wrong, "columns": COLUMNS})
        self.assertEqual(looked["trouble"], "line 3, Way of the club: “slow” is not a number")
        self.assertEqual(looked["lines"], [])
        ids = [each["id"] for each in self.hour["tries"]]
        other = StudioHour.objects.create(student=self.tobin)
        for about, told in (
            ({"text": wrong}, "line 3, Way of the club"),
            ({"tries": {2: ids[0], 3: ids[0]}}, "two lines"),
            ({"tries": {2: ids[0], 99: ids[1]}}, "no shot on line 99"),
            ({"tries": {2: ids[0], 3: str(other.pk)}}, "line 3 is not of this hour"),
            ({"columns": {"Carry (yd)": {"field": "carry_m", "unit": "rpm"}}}, "carry is given in m, yd"),
            ({"columns": {"Carry (yd)": {"field": "smash"}}}, "nothing of a shot is called smash"),
        ):
            answer = self.call("post", self.path, self.sent(**about), 422)
            self.assertIn(told, str(answer))
        self.assertEqual(Shot.objects.count(), 0)

    def test_a_profile_is_its_owner_s_alone(self) -> None:
        self.call("post", self.path, self.sent(profile="Lane 2"))
        known = LaunchProfile.objects.get()
        self.client.force_login(instructor("Odd Stranger"))
        self.assertEqual(self.call("get", "/launch-profiles"), [])
        self.call("delete", f"/launch-profiles/{known.pk}", status=404)
        self.call("post", f"{self.path}/look", {"text": TABLE}, 404)
        self.assertTrue(LaunchProfile.objects.exists())
