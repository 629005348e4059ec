"""The book on the screen: own drills and models, and what is known of a student's body."""

import re
import tempfile
from pathlib import Path

import cv2
import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserCase
from tests.server import making
from tropometer.server.rooms import DRAW_SECONDS
from tropometer.server.teaching.models import Page


def edges(screenshot: bytes) -> float:
    """How much more is drawn in the left half of a picture than in the right: grey levels."""
    decoded = cv2.imdecode(np.frombuffer(screenshot, np.uint8), cv2.IMREAD_GRAYSCALE)
    grey = np.asarray(decoded, float)
    drawn = np.abs(grey - np.median(grey))
    middle = grey.shape[1] // 2
    return float(drawn[:, :middle].mean() - drawn[:, -middle:].mean())


class BookTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.sign_in()

    def test_drills_are_found_copied_and_changed(self) -> None:
        page = self.page
        page.goto("/book")
        count = page.get_by_role("status").filter(has_text="drills")
        expect(count).to_have_text(re.compile(r"^(\d+) of \1 drills"))
        page.get_by_label("Against which fault").select_option(label="Sways")
        page.get_by_label("Which part to spare").select_option("low_back")
        expect(page.get_by_test_id("drill-stick_by_the_hip")).to_be_visible()
        expect(page.get_by_test_id("drill-band_across_the_hip")).to_have_count(0)
        page.reload()  # the address keeps what was asked for
        expect(page.get_by_test_id("drill-band_across_the_hip")).to_have_count(0)
        page.get_by_role("button", name="Copy and change Stick by the trail hip").click()
        page.get_by_label("Name").fill("Broom by the trail hip")
        page.get_by_label("Set up").fill("Lean a broom on your right side.")
        page.get_by_role("button", name="Add to your book").click()
        expect(page.get_by_role("alert")).to_contain_text("say lead or trail")
        page.get_by_label("Set up").fill("Lean a broom beside the trail hip.")
        page.get_by_role("button", name="Add to your book").click()
        own = page.get_by_test_id("drill-broom_by_the_trail_hip")
        expect(own).to_contain_text("your own")
        kept = Page.objects.get().document
        self.assertEqual(kept["camera"]["holds"]["reading"], "trail_hip_gap")
        self.assertAlmostEqual(kept["camera"]["holds"]["above"], 0.0)
        with page.expect_download() as saved:
            own.get_by_role("link", name="Save as a file").click()
        self.assertIn("Lean a broom", Path(saved.value.path()).read_text())
        own.get_by_role("button", name="Take out").click()
        expect(own).to_have_count(0)

    def test_a_drill_is_seen_right_and_wrong_for_either_hand_and_by_one_s_own_picture(self) -> None:
        page = self.page
        page.goto("/book?fault=sways")
        drill = page.get_by_test_id("drill-stick_by_the_hip")
        start = drill.get_by_role("img", name="Stick by the trail hip: start")
        expect(start).to_have_js_property("naturalWidth", 512)
        golfer = edges(start.screenshot())
        drill.get_by_role("button", name="Done wrong").click()
        video = drill.locator("video")
        page.wait_for_function("() => document.querySelector('video').currentTime > 0.3")
        drill.get_by_role("button", name="Stop").click()
        expect(video).to_have_js_property("paused", True)
        drill.get_by_role("button", name="Done wrong").click()
        page.get_by_label("For which hand").select_option("left")
        expect(start).to_be_visible()
        # The shadow falls to the other side, and so does the stick.
        self.assertAlmostEqual(edges(start.screenshot()), -golfer, delta=abs(golfer) / 3)
        page.get_by_role("button", name="Copy and change Stick by the trail hip").click()
        page.get_by_label("Name").fill("Broom")
        page.get_by_role("button", name="Add to your book").click()
        own = page.get_by_test_id("drill-broom")
        expect(own.get_by_role("img")).to_have_count(2)  # it is still drawn
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "broom.png"
            file.write_bytes(cv2.imencode(".png", np.full((90, 160, 3), 200, np.uint8))[1].tobytes())
            bad = Path(folder) / "notes.txt"
            bad.write_text("no picture")
            own.get_by_label("Own picture or clip").set_input_files(bad)
            expect(own.get_by_role("alert")).to_contain_text("notes.txt")
            own.get_by_label("Own picture or clip").set_input_files(file)
            # The browser reads the file while it sends it. A room of its own looks at it first, and
            # has its own clock.
            expect(own.get_by_text("Being looked at")).to_have_count(0, timeout=1500 * DRAW_SECONDS)
        self.assertEqual(own.get_by_role("alert").all_inner_texts(), [])
        expect(own.get_by_role("img")).to_have_count(1)
        picture = own.get_by_role("img", name="Broom")
        expect(picture).to_have_js_property("naturalWidth", 160)
        own.get_by_role("button", name="Delete it").click()
        own.get_by_role("button", name="Delete it, in sent lessons too?").click()
        expect(own.get_by_role("img")).to_have_count(2)

    def test_a_model_of_one_s_own_is_chosen_side_by_side(self) -> None:
        page = self.page
        page.goto("/book/models?model=centred&beside=loaded_shift")
        expect(page.get_by_role("status").filter(has_text="differs")).to_contain_text("in 9 of 19")
        knee = page.get_by_test_id("dispute-trail_knee_going_back")
        knee.get_by_role("radio", name=re.compile("^Gives up flex")).check()
        expect(page.get_by_role("status").filter(has_text="differs")).to_contain_text("in 8 of 19")
        page.get_by_label("Name of the model").fill("My way")
        page.get_by_role("button", name="Keep as a model of your own").click()
        expect(page.get_by_label("Model", exact=True)).to_have_value("my_way")
        document = Page.objects.get().document
        self.assertEqual(document["chosen"]["trail_knee_going_back"], "release")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "other.toml"
            file.write_text(
                'kind = "model"\nid = "half"\nname = "Half"\nabout = "Nothing."\n[chosen]\nx = "y"\n'
            )
            page.get_by_label("Take in a file").set_input_files(file)
            expect(page.get_by_role("status").filter(has_text="chosen")).to_be_visible()
        self.assertEqual(Page.objects.count(), 1)

    def test_what_hurts_is_said_by_left_and_right_and_kept(self) -> None:
        making.student(self.owner, hand="left")
        page = self.page
        page.goto("/students")
        opened = page.get_by_role("button", name="Body and ball of Tobin Farrow")
        opened.click()
        page.get_by_role("button", name="Add a part").click()
        page.get_by_label("Which part").select_option(label="right hip")
        page.get_by_label("What is the matter").select_option("replaced")
        page.get_by_label("Who agreed to drills").fill("Dr Holm")
        page.get_by_label("heavy").check()
        page.get_by_label("left hip, turning in, degrees").fill("22")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("alert")).to_contain_text("on which day")
        page.get_by_label("Agreed on").fill("2026-10-01")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        opened.click()
        expect(page.get_by_label("Which part")).to_have_value("lead_hip")
        expect(page.get_by_label("heavy")).to_be_checked()
        expect(page.get_by_label("left hip, turning in, degrees")).to_have_value("22")
