"""The four stations: own side and picture, address and key; and a hand that hits what it means."""

import re
from urllib.parse import parse_qs, urlparse

from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import Mark, Peg, Swing
from tropometer.server.demo.drawn import put_on
from tropometer.server.shelf.models import ReferenceSwing

TOBIN, MODEL = "tobin_first_face", "model_loaded_face"


class StationTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        model = Swing.objects.create(instructor=self.owner, reference_hand="right", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        self.clip = self.student_clip(DEMO_CLIPS / f"{TOBIN}.mp4", history="Right knee aches.")
        for clip, name in ((self.clip, TOBIN), (self.clip_from(DEMO_CLIPS / f"{MODEL}.mp4", model), MODEL)):
            put_on(clip, name, whole=True)
        self.known = truth(TOBIN)
        self.sign_in()
        self.page.goto(f"/bench/{self.clip.swing_id}")
        self.student = StageDriver(self.page)
        self.student.wait_drawn()
        StageDriver(self.page, "reference").wait_drawn()

    def here(self) -> dict[str, str]:
        return {name: value[0] for name, value in parse_qs(urlparse(self.page.url).query).items()}

    def test_the_address_leads_to_station_frame_and_reading_by_back_reload_and_link(self) -> None:
        page, top = self.page, self.known["checkpoints"]["top"]
        tape = page.get_by_test_id("tape-pelvis_sway-top")
        page.keyboard.press("r")
        tape.click()
        self.student.wait_drawn(top)
        expect(page).to_have_url(re.compile("reading=pelvis_sway.top"))
        link = page.url
        page.keyboard.press("j")
        expect(page.get_by_role("region", name="Judgement")).to_be_visible()
        expect(page).to_have_url(re.compile("station=judge"))
        page.go_back()
        expect(tape).to_have_attribute("aria-expanded", "true")
        page.go_forward()
        expect(page.get_by_role("region", name="Judgement")).to_be_visible()
        page.go_back()
        page.keyboard.press("ArrowRight")
        expect(page).to_have_url(re.compile(f"frame={top + 1}"))
        page.reload()
        self.student.wait_drawn(top + 1)
        expect(tape).to_be_visible()
        other = self.new_page()  # a copied link
        other.goto(link)
        StageDriver(other).wait_drawn(top)
        expect(other.get_by_test_id("tape-pelvis_sway-top")).to_have_attribute("aria-expanded", "true")
        self.assertEqual(parse_qs(urlparse(other.url).query)["station"], ["read"])

    def test_each_station_shows_what_its_step_needs_and_nothing_scrolls_the_page(self) -> None:
        page = self.page
        marks = self.student.stage.locator("[data-mark]")
        shown = {"mark": True, "read": False, "judge": False, "tell": False}
        health = page.get_by_text("Right knee aches.")
        for key, (station, crosses) in zip("mrjt", shown.items(), strict=True):
            page.keyboard.press(key)
            expect(page.get_by_role("button", name=station.title(), exact=True)).to_have_attribute(
                "aria-current", "step"
            )
            expect(marks).to_have_count(marks.count() if crosses else 0)
            expect(health).to_have_count(0 if station == "read" else 1)
            tall, wide = page.evaluate(
                "[document.documentElement.scrollHeight, document.documentElement.scrollWidth]"
            )
            self.assertEqual((tall, wide), (800, 1280), station)
            main = page.evaluate("(m => m.scrollHeight - m.clientHeight)(document.querySelector('#main'))")
            self.assertLessEqual(main, 0, station)
        page.keyboard.press("r")
        self.assertGreaterEqual(self.whole_tapes(), 6)
        rule = page.get_by_role("slider", name="Swing rule")
        for key in "1234":  # nothing is pushed off when the drawer opens
            page.keyboard.press(key)
            box = rule.bounding_box()
            assert box is not None
            self.assertLessEqual(box["y"] + box["height"], 800)
            self.assertGreaterEqual(self.whole_tapes(), 6)
        page.keyboard.press("d")
        expect(page.get_by_role("region", name="Pressure plate")).to_have_count(0)
        page.keyboard.down("u")  # to peek
        expect(marks.first).to_be_visible()
        page.keyboard.up("u")
        expect(marks).to_have_count(0)

    def test_a_held_key_holds_while_others_come_and_go(self) -> None:
        page, laid = self.page, self.student.stage.locator("canvas[data-overlay]")
        before = self.student.frame()
        page.keyboard.down("f")
        page.keyboard.press("ArrowRight")
        expect(page.get_by_test_id("student-frame")).to_have_text(str(before + 1))
        expect(laid).to_be_visible()
        page.keyboard.up("f")
        expect(laid).to_have_count(0)
        # A link to a reference that is gone falls back to one that fits.
        page.goto(f"/bench/{self.clip.swing_id}?beside=11111111-1111-4111-8111-111111111111")
        StageDriver(page, "reference").wait_drawn()

    def whole_tapes(self) -> int:
        boxes = [each.bounding_box() for each in self.page.locator("[data-testid^=tape-]").all()]
        return sum(box is not None and box["y"] >= 100 and box["y"] + box["height"] <= 800 for box in boxes)

    def test_judge_begins_with_what_stands_outside(self) -> None:
        page = self.page
        page.keyboard.press("j")
        rows = page.locator("[data-testid^=judged-]")
        expect(rows.first).to_be_visible()
        said = [text for text in rows.all_inner_texts() if "band" in text]
        ranks = [0 if "asked for" in text else 2 if "Inside" in text else 1 for text in said]
        self.assertEqual(ranks, sorted(ranks))
        self.assertIn(0, ranks)
        page.emulate_media(media="print")  # on paper: what is measured, and nothing to press
        expect(page.get_by_test_id("judged-pelvis_sway-top")).to_be_visible()
        expect(page.get_by_role("button", name="Undo")).to_be_hidden()
        page.emulate_media(media="screen")
        page.get_by_test_id("judged-pelvis_sway-top").click()
        self.student.wait_drawn(self.known["checkpoints"]["top"])

    def test_judge_says_what_stands_out_and_what_leads_to_what(self) -> None:
        page = self.page
        page.keyboard.press("j")
        sways = page.get_by_test_id("finding-sways")
        expect(sways).to_contain_text("Sways")
        expect(sways).to_contain_text(re.compile(r"\d+ %"))
        plate = page.get_by_test_id("chain-sways")
        expect(plate).to_contain_text("Leads to")
        plate.focus()
        page.keyboard.press("Enter")  # the stage shows the frame that speaks for it
        self.student.wait_drawn(self.known["checkpoints"]["top"])
        expect(sways).to_have_attribute("aria-expanded", "true")
        panel = page.get_by_role("region", name="Judgement")
        expect(panel).to_contain_text("right (back) seat pocket")
        check_axe(self, page, "judge with a finding open")
        sways.click()
        expect(sways).to_have_attribute("aria-expanded", "false")
        # A mark that is taken away is judged without: the swing is judged anew when it changes.
        before = page.get_by_label("Cause chain").inner_text()
        for name in ("trail_hip", "trail_hip_edge"):
            Mark.objects.filter(clip=self.clip, name=name).delete()
        page.reload()
        expect(page.get_by_label("Cause chain")).to_be_visible()
        expect(page.get_by_test_id("chain-sways")).to_have_count(0)
        self.assertNotEqual(page.get_by_label("Cause chain").inner_text(), before)

    def test_a_finding_is_rejected_and_comes_back_and_another_is_added_by_eye(self) -> None:
        page = self.page
        page.keyboard.press("j")
        sways, panel = page.get_by_test_id("finding-sways"), page.get_by_role("region", name="Judgement")
        sways.click()
        panel.get_by_role("button", name="Reject", exact=True).click()
        page.get_by_label("Why “Sways” is rejected").fill("The mat was turned")
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("chain-sways")).to_have_count(0)
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        page.reload()
        panel.get_by_text("1 rejected").click()
        sways.click()
        expect(panel).to_contain_text("The mat was turned")
        panel.get_by_role("button", name="Let the readings speak").click()
        expect(page.get_by_test_id("chain-sways")).to_be_visible()
        panel.get_by_text("Add what you see").click()
        panel.get_by_label("Fault").select_option("posed_finish")
        panel.get_by_label("What you saw").fill("Held for the camera")
        panel.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_test_id("chain-posed_finish")).to_be_visible()
        expect(page.get_by_test_id("finding-posed_finish")).to_contain_text("Added by eye")

    def test_what_the_lesson_is_about_is_chosen_changed_and_read(self) -> None:
        page = self.page
        page.keyboard.press("j")
        plan = page.get_by_role("region", name="The lesson is about")
        plan.get_by_role("button", name="Choose these").click()
        first = plan.get_by_role("group").first
        expect(first).to_contain_text("Goal:")
        name = first.locator("b").inner_text().removeprefix("1. ")
        first.get_by_label(f"To the student, {name}").press_sequentially("Turn behind you.")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        check_axe(self, page, "a plan")
        page.reload()
        expect(first.get_by_label(f"To the student, {name}")).to_have_value("Turn behind you.")
        page.keyboard.press("t")
        page.get_by_role("button", name="Begin with words").click()
        expect(page.get_by_text("Turn behind you.")).to_be_visible()
        expect(page.get_by_text(re.compile("^Goal")).first).to_be_visible()
        expect(page.get_by_label("Opening words")).not_to_be_empty()  # the draft is begun from the choice
        page.keyboard.press("j")
        taking = page.get_by_role("button", name=re.compile("^Take .* out$"))
        for _ in range(taking.count()):
            taking.first.click()
        expect(plan).to_contain_text("Nothing to work on")
        plan.get_by_role("button", name="Choose nothing again").click()
        expect(plan.get_by_role("button", name="Choose these")).to_be_visible()

    def test_what_is_decided_without_a_connection_is_kept_and_sent_when_it_is_back(self) -> None:
        page = self.page
        page.keyboard.press("j")
        page.get_by_test_id("finding-sways").click()
        self.context.set_offline(True)
        page.get_by_role("button", name="Accept").click()
        page.get_by_role("region", name="The lesson is about").get_by_role(
            "button", name="Choose these"
        ).click()
        expect(page.get_by_text("Kept here, not sent")).to_be_visible()
        expect(page.get_by_test_id("finding-sways")).to_contain_text("Accepted")
        self.context.set_offline(False)
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(self.clip.swing.decided_faults.get().decision, "accepted")
        self.assertTrue(self.clip.swing.plan.document["focus"])

    def test_the_band_is_drawn_where_the_hip_should_have_been(self) -> None:
        page = self.page
        page.keyboard.press("j")
        page.get_by_test_id("judged-pelvis_sway-top").click()
        self.student.wait_drawn(self.known["checkpoints"]["top"])
        band = self.student.stage.locator("[data-shape=hips_sway] [data-target] polyline").last
        expect(band).to_be_attached()  # a level line has no height, so it counts as hidden
        ends = [float(pair.split(",")[0]) for pair in str(band.get_attribute("points")).split()]
        now = self.student.stage.locator("[data-shape=hips_sway] line").first.get_attribute("x2")
        # He swayed 12 cm to the left of the picture, and the model asks for half a centimetre to six.
        self.assertLess(float(str(now)), min(ends))

    def test_another_model_says_where_it_differs_and_why(self) -> None:
        page = self.page
        page.keyboard.press("j")
        page.get_by_text("Judge it by another model too").click()
        page.get_by_label("The other model").select_option("centred")
        beside = page.get_by_test_id("two-models")
        expect(beside).to_contain_text(re.compile(r"They agree on \d of \d"))
        expect(beside).to_contain_text("The pelvis going back: Loaded | Centred")

    def test_a_key_that_cannot_act_says_why_and_the_palette_goes_where_it_can(self) -> None:
        page = self.page
        page.keyboard.press("r")
        page.keyboard.press("n")
        expect(page.get_by_role("alert")).to_contain_text("That is done at Mark (M)", ignore_case=True)
        page.keyboard.press("v")
        expect(page.get_by_role("alert")).to_have_text(re.compile("filmed from one side only"))
        page.keyboard.press("Control+k")
        palette = page.get_by_role("combobox", name="What, where or who?")
        palette.fill("upright")
        page.keyboard.press("Enter")
        expect(palette).to_have_count(0)
        expect(self.student.stage).to_contain_text("Drag along an upright edge")
        self.assertEqual(self.here()["station"], "mark")
        page.keyboard.press("Shift+Enter")
        expect(page.get_by_role("alert")).to_contain_text("No marks are proposed on this frame")
        page.keyboard.press("?")
        page.keyboard.press("r")  # keys never act under an open sheet
        page.keyboard.press("Escape")
        self.assertEqual(self.here()["station"], "mark")

    def test_of_marks_that_lie_on_each_other_a_fan_asks_which_is_meant(self) -> None:
        page, at = self.page, self.known["checkpoints"]["address"]
        heel = Mark.objects.get(clip=self.clip, frame=at, name="lead_heel")
        Mark.objects.filter(clip=self.clip, frame=at, name="lead_ankle").update(x=heel.x + 1, y=heel.y)
        page.reload()
        self.student.go_to(at)
        self.student.click(heel.x, heel.y)
        fan = page.get_by_role("menu", name="Which mark?")
        check_axe(self, page, "fan")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("ArrowUp")
        expect(fan.get_by_role("menuitem", name="Lead heel")).to_be_visible()
        fan.get_by_role("menuitem", name="Lead ankle").click()
        expect(self.student.stage).to_contain_text("Lead ankle · arrows nudge")
        page.keyboard.press("Shift+ArrowRight")  # the stage has the keys again
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        moved = Mark.objects.get(clip=self.clip, frame=at, name="lead_ankle")
        self.assertGreater(moved.x, heel.x + 1.2)
        # The chosen one is meant from now on, though the other lies there too.
        self.student.drag((moved.x, moved.y), (moved.x + 30, moved.y))
        expect(fan).to_have_count(0)
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertAlmostEqual(Mark.objects.get(pk=moved.pk).x, moved.x + 30, delta=1)
        self.assertEqual(Mark.objects.get(pk=heel.pk).x, heel.x)

    def test_every_mark_is_reached_moved_and_removed_without_a_pointer(self) -> None:
        page, at = self.page, self.known["checkpoints"]["top"]
        self.student.go_to(at)
        before = Mark.objects.get(clip=self.clip, frame=at, name="lead_hip")
        board = page.get_by_role("toolbar", name="Marks of the pelvis")
        board.get_by_role("button", name="Lead hip joint").focus()
        page.keyboard.press("Enter")
        expect(self.student.stage.get_by_role("status")).to_contain_text("Lead hip joint")
        for _ in range(3):
            page.keyboard.press("Shift+ArrowDown")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        moved = Mark.objects.get(pk=before.pk)
        scale = float(self.student.canvas.get_attribute("data-scale") or 0)
        self.assertAlmostEqual(moved.y - before.y, 3 / scale, places=2)
        page.keyboard.press("Delete")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertFalse(Mark.objects.filter(pk=before.pk).exists())
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertAlmostEqual(
            Mark.objects.get(clip=self.clip, frame=at, name="lead_hip").y, moved.y, places=2
        )

    def test_a_peg_on_the_wrong_side_of_another_is_named(self) -> None:
        page, pegs = self.page, self.known["checkpoints"]
        self.student.go_to(pegs["impact"] + 2)
        page.keyboard.press("Shift+T")
        said = page.get_by_role("alert")
        expect(said).to_contain_text(f"Top on frame {pegs['impact'] + 2} lies on the wrong side of")
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(Peg.objects.get(clip=self.clip, name="top").frame, pegs["top"])

    def test_what_stands_beside_is_chosen_and_remembered_for_the_student(self) -> None:
        page = self.page
        choice = page.get_by_role("combobox", name="Reference", exact=True)
        choice.select_option(label="Nothing beside")
        expect(page.get_by_text("Nothing stands beside.")).to_be_visible()
        other = Swing.objects.create(instructor=self.owner, student=self.clip.swing.student)
        self.clip_from(DEMO_CLIPS / f"{TOBIN}.mp4", other)
        page.goto(f"/bench/{other.pk}")  # another swing of the same student
        self.student.wait_drawn()
        expect(page.get_by_text("Nothing stands beside.")).to_be_visible()
        choice.select_option(label="Range model")
        expect(page.locator("section[data-side=reference]")).to_be_visible()
