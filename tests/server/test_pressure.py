"""A pressure plate's file kept with a swing."""

from typing import Any

from django.db import IntegrityError, transaction
from django.test import TestCase

from tests.server import making
from tests.swings import true_reading
from tropometer.server.bench.models import Pressure
from tropometer.server.demo.drawn import pressure_table
from tropometer.swing.readings.from_plate import FromPlate
from tropometer.swing.readings.register import kinds_of

PRESSURE = [kind.id for kind in kinds_of(FromPlate)]


class PressureTests(TestCase):
    def setUp(self) -> None:
        owner = making.instructor()
        self.clip = making.marked_swing(owner)
        self.client.force_login(owner)
        self.path = f"/api/swings/{self.clip.swing_id}"

    def keep(self, text: str, **more: Any) -> Any:
        body = {"file_name": "range-plate.csv", "text": text, "impact_s": 0, **more}
        return self.client.put(f"{self.path}/pressure", body, content_type="application/json")

    def told(self, readings: list[dict[str, Any]]) -> dict[tuple[str, str], dict[str, Any]]:
        return {(r["reading"], r["at"]): r for r in making.rows(readings) if r["reading"] in PRESSURE}

    def test_a_file_gives_readings_and_curves_until_it_is_taken_away_and_comes_back(self) -> None:
        self.assertEqual(self.told(self.client.get(self.path).json()["measured"]["readings"]), {})
        answer = self.keep(pressure_table(making.TOBIN)).json()
        self.assertEqual(answer["pressure"]["file_name"], "range-plate.csv")
        self.assertEqual(answer["pressure"]["instants"], making.FRAMES)
        told = self.told(answer["readings"])
        self.assertEqual({name for name, _ in told}, set(PRESSURE))
        for at in ("address", "top", "impact"):
            share = told["pressure_lead_share", at]
            true = true_reading(making.TOBIN, "pressure_lead_share", at)
            self.assertLess(abs(share["value"] - true), share["u95"])
        found = self.client.get(f"{self.path}/course?reading=pressure_lead_share&reading=cop_lead_toe").json()
        self.assertIn("cop_trail_toe", found["offered"])
        share, toe = found["curves"]
        self.assertEqual(
            (share["reading"], share["unit"], toe["reading"]),
            ("pressure_lead_share", "ratio", "cop_lead_toe"),
        )
        self.assertGreater(sum(value is not None for value in share["values"]), 80)
        # The student's model asks of the strike what it asks; those who teach otherwise are told beside it.
        told_otherwise = [(each["teaching"], each["at"], each["low"]) for each in found["others"]]
        self.assertIn(("Staying back", "impact", 0.25), told_otherwise)
        self.assertNotIn("Forward", [teaching for teaching, _, _ in told_otherwise])
        self.assertIn("pressure_lead_share", self.client.get(f"{self.path}/curves.csv").content.decode())
        self.assertEqual(
            len(self.client.get(f"{self.path}/record").json()["pressure"]["times_s"]), making.FRAMES
        )
        stored = self.client.get(f"{self.path}/pressure").json()
        left = self.client.delete(f"{self.path}/pressure").json()
        self.assertIsNone(left["pressure"])
        self.assertEqual(self.told(left["readings"]), {})
        self.assertEqual(self.client.get(f"{self.path}/pressure").status_code, 404)
        again = self.client.put(f"{self.path}/pressure", stored, content_type="application/json").json()
        self.assertEqual(self.told(again["readings"]), told)

    def test_a_bad_file_is_refused_with_its_line_and_changes_nothing(self) -> None:
        self.keep(pressure_table(making.TOBIN))
        lines = pressure_table(making.TOBIN).splitlines()
        lines[7] = lines[7].replace(",", ",much,", 1).rsplit(",", 1)[0]
        answer = self.keep("\n".join(lines))
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(answer.json()["detail"], "line 8, lead_force_n: “much” is not a number")
        self.assertEqual(self.keep(pressure_table(making.TOBIN), impact_s=9).status_code, 422)
        self.assertEqual(self.keep("").json()["fields"][0]["field"], "text")
        kept = Pressure.objects.get(swing=self.clip.swing_id)
        self.assertEqual((kept.file_name, kept.felt["impact_s"]), ("range-plate.csv", 0))
        with self.assertRaises(IntegrityError), transaction.atomic():
            Pressure.objects.filter(pk=kept.pk).update(felt={})
