"""Marking a swing: the round, followed marks, doubts, two tabs, the hand's own steadiness."""

from typing import Any

import numpy as np
from playwright.sync_api import Locator, Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.server.seen import put_proposals
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench import tracking
from tropometer.server.bench.models import HiddenMark, Mark, Peg
from tropometer.server.clips.models import Clip
from tropometer.server.lessons.models import LessonFrame

FACE, LINE = "tobin_first_face", "tobin_first_line"
MOST_ACTIONS, BY_HAND, TO_A_LESSON = 40, 24, 8
HIPS = ("lead_hip_edge", "trail_hip_edge", "lead_hip", "trail_hip")
MARK_WORDS = {
    "trail_foot_outer": "trail foot, outer edge",
    "lead_hip_edge": "lead hip, outer edge",
    "trail_hip_edge": "trail hip, outer edge",
    "lead_hip": "lead hip joint",
    "trail_hip": "trail hip joint",
}


class Counted:
    """Presses and clicks, counted as the hand makes them."""

    def __init__(self, page: Page) -> None:
        self.page, self.actions = page, 0

    def press(self, key: str) -> None:
        self.page.keyboard.press(key)
        self.actions += 1

    def click(self, place: tuple[float, float]) -> None:
        self.page.mouse.click(*place)
        self.actions += 1

    def draw(self, start: tuple[float, float], end: tuple[float, float]) -> None:
        self.page.mouse.move(*start)
        self.page.mouse.down()
        self.page.mouse.move(*end, steps=4)
        self.page.mouse.up()
        self.actions += 1

    def pull_rule(self, frame: int) -> None:
        """Pull the swing rule until the frame stands on the stage."""
        rule = self.page.get_by_role("slider", name="Swing rule")
        box = rule.bounding_box()
        assert box is not None
        left, right = box["x"] + 1, box["x"] + box["width"] - 1
        self.page.mouse.move(left, box["y"] + 30)
        self.page.mouse.down()
        for _ in range(20):
            middle = (left + right) / 2
            self.page.mouse.move(middle, box["y"] + 30)
            self.page.wait_for_timeout(60)  # until the screen has followed
            now = int(rule.get_attribute("aria-valuenow") or 0)
            if now == frame:
                break
            left, right = (middle, right) if now < frame else (left, middle)
        self.page.mouse.up()
        self.actions += 1


class RoundTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / f"{FACE}.mp4")
        self.known = truth(FACE)
        self.sign_in()

    def open_bench(self, page: Page | None = None) -> StageDriver:
        (page or self.page).goto(f"/bench/{self.clip.swing_id}")
        driver = StageDriver(page or self.page)
        driver.wait_drawn()
        return driver

    def peg(self, *names: str) -> None:
        for name in names:
            Peg.objects.create(clip=self.clip, name=name, frame=self.known["checkpoints"][name])

    def put(self, name: str, *frames: int) -> None:
        for frame in frames:
            x, y = self.known["pixels"][name][frame]
            Mark.objects.create(clip=self.clip, name=name, frame=frame, x=x, y=y, sd_px=1.5)

    def test_a_swing_from_two_sides_is_reviewed_in_few_actions(self) -> None:
        line = self.clip_from(DEMO_CLIPS / f"{LINE}.mp4", self.clip.swing)
        Clip.objects.filter(pk=line.pk).update(view="down_the_line")
        line.refresh_from_db()
        put_proposals(self.clip, FACE)
        put_proposals(line, LINE)
        driver = self.open_bench()
        hand = Counted(self.page)
        hand.actions = 1  # opening it
        left = self.page.get_by_test_id("round-left")
        for view in ("face_on", "down_the_line"):
            hand.press("g")
            expect(left).not_to_have_text("no pegs yet")
            hand.press("n")
            for at, frame in sorted(truth(FACE)["checkpoints"].items(), key=lambda item: item[1]):
                driver.wait_drawn(frame)
                with self.subTest(view, at=at):
                    expect(driver.stage.locator("[data-proposed]").first).to_be_visible()
                hand.press("Shift+Enter")  # looked at, and taken
            expect(left).to_have_text("all placed")
            if view == "face_on":
                hand.press("v")
                driver.wait_drawn()
        self.saved()
        self.assertLessEqual(hand.actions, MOST_ACTIONS)
        print(f"\nA swing from two sides, all pegs and marks reviewed: {hand.actions} actions")
        self.assertEqual(Peg.objects.count(), 18)
        per_frame = {"face_on": 16, "down_the_line": 11}
        expected = 9 * sum(per_frame.values())
        self.assertEqual(Mark.objects.filter(source="accepted").count(), expected)
        asked = driver.stage.get_by_text("Do both views show one swing?")
        expect(asked).to_be_visible()
        driver.stage.get_by_role("button", name="One swing").click()
        expect(asked).to_have_count(0)
        self.clip.swing.refresh_from_db()
        self.assertTrue(self.clip.swing.one_swing)

    def test_the_pelvis_is_measured_by_hand_and_a_lesson_sent_in_few_actions(self) -> None:
        driver = self.open_bench()
        page = self.page
        for group in ("Knees", "Feet"):  # wanted or not holds for every swing of this browser
            page.get_by_role("checkbox", name=group).uncheck()
        page.wait_for_timeout(400)
        self.open_bench()
        hand = Counted(page)
        hand.actions = 1  # opening it
        for name, key in (("address", "Shift+A"), ("top", "Shift+T"), ("impact", "Shift+I")):
            hand.pull_rule(self.known["checkpoints"][name])
            hand.press(key)
        stick = self.known["stick"]
        hand.press("k")
        hand.draw(*(driver.place(*end) for end in stick["pixels"]))
        hand.click(self.middle(page.get_by_role("button", name="a range stick")))
        hand.press("n")
        for at in ("address", "top", "impact"):
            frame = self.known["checkpoints"][at]
            driver.wait_drawn(frame)
            for name in ("trail_foot_outer", *HIPS) if at == "address" else HIPS:
                expect(driver.stage).to_contain_text(f"Click the {MARK_WORDS[name]}")
                hand.click(driver.place(*self.known["pixels"][name][frame]))
        expect(page.get_by_test_id("round-left")).to_have_text("all placed")
        self.saved()
        measured = hand.actions
        print(f"\nThe pelvis face-on by hand: {measured} actions")
        page.keyboard.press("r")
        for at in ("top", "impact"):
            expect(page.get_by_test_id(f"tape-pelvis_sway-{at}")).to_contain_text("±")
        hand.press("t")
        for _ in range(2):
            hand.press("PageUp")
            hand.press("p")
        # Its card has come: nothing moves the button any more.
        expect(page.get_by_role("img", name="Frame 9 of Tobin Farrow, address")).to_be_visible()
        hand.click(self.middle(page.get_by_role("button", name="Send to")))
        expect(page.get_by_text("Sent", exact=False).first).to_be_visible()
        print(f"A lesson with two frames, sent: {hand.actions - measured} actions more")
        self.assertLessEqual(measured, BY_HAND)
        self.assertLessEqual(hand.actions - measured, TO_A_LESSON)
        self.assertEqual(len({(each.clip_id, each.frame) for each in LessonFrame.objects.all()}), 2)

    def middle(self, of: Locator) -> tuple[float, float]:
        of.scroll_into_view_if_needed()
        box = of.bounding_box()
        assert box is not None
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def test_the_round_leads_on_skips_hides_and_comes_back(self) -> None:
        self.peg("address", "top")
        driver = self.open_bench()
        page = self.page
        for group in ("Knees", "Feet"):
            page.get_by_role("checkbox", name=group).uncheck()
        left = page.get_by_test_id("round-left")
        expect(left).to_have_text("9 left")
        page.keyboard.press("n")
        at = self.known["checkpoints"]
        driver.wait_drawn(at["address"])
        expect(driver.stage).to_contain_text("Click the trail foot, outer edge")
        page.keyboard.press("n")  # later
        expect(driver.stage).to_contain_text("Click the lead hip, outer edge")
        driver.click(*self.known["pixels"]["lead_hip_edge"][at["address"]])
        expect(driver.stage).to_contain_text("Click the trail hip, outer edge")
        page.keyboard.press("h")
        for name in ("lead_hip", "trail_hip"):
            driver.click(*self.known["pixels"][name][at["address"]])
        driver.wait_drawn(at["top"])
        for name in ("lead_hip_edge", "trail_hip_edge", "lead_hip", "trail_hip"):
            driver.click(*self.known["pixels"][name][at["top"]])
        expect(left).to_have_text("1 left")
        expect(page.get_by_text("1 skipped")).to_be_visible()
        page.keyboard.press("n")
        driver.wait_drawn(at["address"])
        driver.click(*self.known["pixels"]["trail_foot_outer"][at["address"]])
        expect(left).to_have_text("all placed")
        self.saved()
        self.assertEqual(HiddenMark.objects.get().name, "trail_hip_edge")
        self.assertEqual(Mark.objects.count(), 8)
        page.keyboard.press("Control+z")
        expect(left).to_have_text("1 left")

    def test_followed_marks_are_told_apart_moved_and_show_their_path(self) -> None:
        self.put("lead_knee", 32, 59)
        tracking.follow(self.clip.pk)
        driver = self.open_bench()
        driver.go_to(45)
        followed = driver.stage.locator("[data-tracked][data-mark=lead_knee]")
        expect(followed).to_have_count(1)
        expect(followed.locator("title")).to_contain_text("Lead knee (followed, ±")
        x, y = self.known["pixels"]["lead_knee"][45]
        driver.click(x, y)
        expect(driver.stage.locator("[data-path=lead_knee] line").first).to_be_attached()
        driver.drag((x, y), (x + 6, y))
        expect(driver.stage.locator("[data-tracked]")).to_have_count(0)
        expect(driver.stage.locator("[data-mark=lead_knee] title")).to_have_text("Lead knee")
        self.saved()
        self.assertEqual(Mark.objects.get(frame=45).source, "hand")

    def test_a_mark_on_the_wrong_leg_is_doubted_and_can_be_kept(self) -> None:
        self.peg("address", "top")
        self.put("lead_ankle", 9, 59)
        self.put("trail_ankle", 9)
        x, y = self.known["pixels"]["lead_ankle"][59]
        Mark.objects.create(clip=self.clip, name="trail_ankle", frame=59, x=x + 60, y=y, sd_px=1.5)
        tracking.follow(self.clip.pk)
        driver = self.open_bench()
        queue = self.page.get_by_role("region", name="Doubts, student")
        expect(queue).to_contain_text("px too far right for all other marks")
        self.page.keyboard.press("d")
        driver.wait_drawn(59)
        expect(driver.stage).to_contain_text("Trail ankle · arrows nudge")
        queue.get_by_role("button", name="Keep the trail ankle on frame 59 as it is").click()
        expect(queue.get_by_text("too far right")).to_have_count(0)

    def test_another_tab_sees_it_at_once_and_is_told_when_both_change_the_same(self) -> None:
        driver = self.open_bench()
        second = self.new_page()
        other = self.open_bench(second)
        driver.page.bring_to_front()
        driver.page.keyboard.press("2")
        driver.click(660, 350)
        driver.page.keyboard.press("Escape")
        self.saved()
        expect(other.stage.locator("[data-mark=lead_hip_edge]")).to_be_visible()  # nobody reloaded
        self.context.set_offline(True)
        driver.drag((660, 350), (700, 350))
        other.drag((660, 350), (620, 350))
        expect(second.get_by_role("alert")).to_contain_text("No connection")
        self.context.set_offline(False)
        both = [page.get_by_text("the later change stands") for page in (driver.page, second)]
        for _ in range(60):
            if any(each.count() for each in both):
                break
            second.wait_for_timeout(100)
        self.assertEqual(sum(each.count() for each in both), 1)
        self.assertEqual(Mark.objects.count(), 1)

    def test_what_was_done_can_be_taken_back_after_a_reload(self) -> None:
        driver = self.open_bench()
        page = self.page
        page.keyboard.press("Shift+A")
        page.keyboard.press("2")
        driver.click(660, 350)
        page.keyboard.press("Escape")
        driver.drag((660, 350), (700, 340))
        self.saved()
        page.reload()
        driver.wait_drawn()
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        page.keyboard.press("Control+z")
        self.saved()
        self.assertAlmostEqual(Mark.objects.get().x, 660, delta=1)
        for _ in range(2):
            page.keyboard.press("Control+z")
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        self.saved()
        self.assertEqual((Mark.objects.count(), Peg.objects.count()), (0, 0))

    def test_the_hand_is_tested_by_marking_twice_and_its_marks_say_so(self) -> None:
        driver = self.open_bench()
        page = self.page
        page.get_by_role("button", name="Test your hand").click()
        shake = np.random.default_rng(4)
        for _ in range(20):
            name, frame = self.asked(driver)
            x, y = np.array(self.known["pixels"][name][frame]) + shake.normal(0, 2.5, 2)
            driver.click(x, y)
            page.wait_for_timeout(60)
        expect(page.get_by_role("alert")).to_contain_text("Your hand is steady to ±")
        self.owner.refresh_from_db()
        assert self.owner.hand_sd_px is not None
        self.assertTrue(1.5 < self.owner.hand_sd_px < 4, self.owner.hand_sd_px)
        self.assertEqual(Mark.objects.count(), 0)  # a test is no marking
        page.keyboard.press("2")
        driver.click(660, 350)
        page.keyboard.press("Escape")
        self.saved()
        self.assertAlmostEqual(Mark.objects.get().sd_px, self.owner.hand_sd_px, places=6)

    def asked(self, driver: StageDriver) -> tuple[str, Any]:
        words = driver.stage.get_by_role("status").first.inner_text()
        name = words.split("Click the ")[1].split("\n")[0].strip().replace(", outer edge", " edge")
        frame = driver.frame()
        driver.wait_drawn(frame)
        return name.replace(" ", "_"), frame

    def test_a_plumb_line_is_drawn_chosen_and_taken_away(self) -> None:
        driver = self.open_bench()
        self.page.keyboard.press("u")
        driver.drag((300, 100), (303, 600))
        self.saved()
        plumb = self.clip.camera_facts.plumb
        assert plumb is not None
        self.assertAlmostEqual(plumb["bx"] - plumb["ax"], 3, delta=1)
        expect(driver.stage.locator("[data-plumb]")).to_be_attached()
        self.page.keyboard.press("Delete")
        expect(driver.stage.locator("[data-plumb]")).to_have_count(0)
