"""The swing as a whole: its curves on the rule, the relay, the floor plan, and a still to take away."""

import re

import cv2
import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.swings import DEMO_CLIPS, true_reading, truth
from tropometer.server.bench.models import Swing
from tropometer.server.demo.drawn import pressure_table, put_on
from tropometer.server.shelf.models import ReferenceSwing

TOBIN, MODEL = "tobin_first_face", "model_loaded_face"


class WholeTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        model = Swing.objects.create(instructor=self.owner, reference_hand="right", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        self.clip = self.student_clip(DEMO_CLIPS / f"{TOBIN}.mp4")
        for clip, name in ((self.clip, TOBIN), (self.clip_from(DEMO_CLIPS / f"{MODEL}.mp4", model), MODEL)):
            put_on(clip, name, whole=True)
        self.sign_in()
        self.page.goto(f"/bench/{self.clip.swing_id}")
        self.stages = StageDriver(self.page)
        self.stages.wait_drawn()

    def test_curves_and_relay_on_the_rule(self) -> None:
        page = self.page
        pegs = truth(TOBIN)["checkpoints"]
        page.keyboard.press("r")
        page.keyboard.press("1")
        whole = page.get_by_role("region", name="The whole swing")
        curves = whole.get_by_test_id("curves")
        readout = curves.get_by_role("status")
        expect(readout).to_contain_text(re.compile(r"student: .*± .*reference: .*±"))
        self.stages.go_to(pegs["top"])
        top = self.page.get_by_test_id("tape-pelvis_sway-top")
        value = re.search(r"[−+]?[\d.]+ ± [\d.]+ cm", top.inner_text())
        assert value is not None
        expect(readout).to_contain_text(f"student: {value[0]}")
        # Half-way between two pegs nothing is marked, and nothing is made up.
        self.stages.go_to((pegs["top"] + pegs["arm_back"]) // 2)
        expect(readout).to_contain_text("student: not marked here")
        # A drag over the curves moves the stages as the rule does.
        box = curves.bounding_box()
        assert box is not None
        before = str(self.stages.frame())
        page.mouse.click(box["x"] + box["width"] * 0.9, box["y"] + 60)
        expect(page.get_by_test_id("student-frame")).not_to_have_text(before)
        self.assertGreater(self.stages.frame(), pegs["impact"])
        # The same in figures.
        whole.get_by_role("button", name="As figures").click()
        figures = whole.get_by_role("region", name="Pelvis sway in figures")
        row = figures.get_by_role("table", name="Tobin Farrow").get_by_role("row", name="Top")
        expect(row).to_contain_text(value[0])
        check_axe(self, page, "figures")
        whole.get_by_role("button", name="As figures").click()
        # Looking into a reading shows its curve.
        top.click()
        expect(whole.get_by_label("Curve of")).to_have_value("pelvis_sway")
        check_axe(self, page, "curves")
        page.keyboard.press("2")
        relay = whole.get_by_test_id("relay")
        lanes = relay.get_by_role("button", name="student:")
        expect(lanes).to_have_count(6)
        lanes.last.click()  # the lowest lane is the lead knee's
        true = truth(TOBIN)["times_s"]
        start = int(np.abs(np.array(true["frames"]) - true["starts"]["lead_knee"]).argmin())
        expect(page.get_by_test_id("student-frame")).to_have_text(str(start))
        check_axe(self, page, "relay")
        page.keyboard.press("d")
        expect(relay).to_have_count(0)

    def test_a_pressure_mat_s_file_is_added_taken_away_and_brought_back(self) -> None:
        page = self.page
        page.keyboard.press("r")
        page.keyboard.press("4")
        plate = page.get_by_role("region", name="Pressure plate")
        share = page.get_by_test_id("tape-pressure_lead_share-top")
        page.get_by_role("combobox", name="Readings").select_option("All")
        plate.get_by_role("button", name="Add a file").click()
        table = pressure_table(TOBIN)
        for text, words in (
            (table.replace("lead_toe", "toe"), "line 1: there is no column lead_toe"),
            (table, ""),
        ):
            plate.get_by_label("CSV or JSON").set_input_files(
                {"name": "plate.csv", "mimeType": "text/csv", "buffer": text.encode()}
            )
            plate.get_by_label("Impact on").fill("0")
            plate.get_by_role("button", name="Keep").click()
            if words:
                expect(plate.get_by_role("alert")).to_have_text(words)
        expect(plate).to_contain_text("plate.csv, 120 instants")
        true = 100 * true_reading(TOBIN, "pressure_lead_share", "top")
        told = re.search(r"(\d+) ± (\d+) %", share.inner_text())
        assert told is not None
        self.assertLessEqual(abs(int(told[1]) - true), int(told[2]) + 1)
        feet = page.get_by_role("region", name="Under the feet")
        cell = feet.get_by_role("row", name="Pressure on the lead foot").get_by_role("cell").nth(3)
        expect(cell).to_have_text(told[0])
        # The target is on the left: there the pressure goes after it has gone back.
        whole, places = feet.locator("[data-way=student] [data-whole]"), {}
        for at in ("address", "top", "finish"):
            self.stages.go_to(truth(TOBIN)["checkpoints"][at])
            places[at] = float(whole.get_attribute("cx") or "nan")
        self.assertGreater(places["top"], places["address"] + 15)
        self.assertLess(places["finish"], places["address"] - 30)
        expect(feet.locator("[data-taught='Early and full']")).to_have_count(1)
        feet.get_by_role("button", name="Top").click()
        expect(page.get_by_test_id("student-frame")).to_have_text(str(truth(TOBIN)["checkpoints"]["top"]))
        check_axe(self, page, "a pressure plate's data")
        plate.get_by_role("button", name="Remove").click()
        expect(share).to_have_count(0)
        plate.get_by_role("button", name="Undo").click()
        expect(share).to_contain_text(told[0])

    def test_the_floor_plan_and_a_still(self) -> None:
        page = self.page
        page.keyboard.press("r")
        page.keyboard.press("3")
        plate = page.get_by_role("region", name="Floor plan")
        expect(plate.get_by_role("img")).to_be_visible()
        expect(plate).to_contain_text("Lead flare")
        expect(plate).to_contain_text("← target")
        expect(plate.locator("dd").first).to_have_text(re.compile(r"^\d+ ± \d+°$"))
        self.stages.go_to(truth(TOBIN)["checkpoints"]["top"])
        page.get_by_role("button", name="Export").click()
        with page.expect_download() as kept:
            page.get_by_role("button", name="as a PNG").click()
        data = np.frombuffer(kept.value.path().read_bytes(), np.uint8)
        picture = cv2.imdecode(data, cv2.IMREAD_COLOR)
        assert picture is not None
        self.assertEqual(picture.shape[0], 994)
        brass = np.abs(picture.astype(int) - (0x4C, 0xAA, 0xD8)).max(axis=2) < 12
        self.assertGreater(int(brass[:960].sum()), 100)  # the gauges are drawn in
        with page.expect_download() as kept:
            page.get_by_role("button", name="as an SVG").click()
        svg = kept.value.path().read_text()
        self.assertIn("Tobin Farrow · Face-on · frame", svg)
        self.assertRegex(svg, r">gap [−\d.]+ ± [\d.]+ cm<")
        self.assertIn('href="data:image/jpeg;base64,', svg)
