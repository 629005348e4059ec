"""What a worker proposes is shown as a proposal: taken with one key, changed with one click, or left."""

import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swing.test_proposals import landmarks_of
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import Mark, Peg, Swing
from tropometer.server.clips.models import Clip, Proposals, SeenBody
from tropometer.server.clips.proposing import propose
from tropometer.server.shelf.models import ReferenceSwing

NAME = "tobin_first_face"


class ProposalTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / f"{NAME}.mp4")
        self.known = truth(NAME)

    def proposed(self, **said: object) -> None:
        """As if a worker had looked: the true pegs, a box about the player, and what is said here."""
        self.clip.refresh_from_db()
        nobody = propose(self.clip, 0, np.zeros((0, 33, 3)))
        pegs = [
            {"name": at, "frame": self.known["checkpoints"][at], "confidence": 0.9}
            for at in ("address", "top", "impact")
        ]
        box = {"left": 400.0, "top": 30.0, "right": 900.0, "bottom": 680.0}
        found = {**nobody, "pegs": pegs, "box": box, **said}
        seen = landmarks_of(self.known).points.astype(np.float32)
        SeenBody.objects.update_or_create(
            clip=self.clip, network="fast", defaults={"first_frame": 0, "landmarks": seen.tobytes()}
        )
        Proposals.objects.update_or_create(clip=self.clip, defaults={"found": found})

    def open_bench(self) -> StageDriver:
        self.sign_in()
        self.page.goto(f"/bench/{self.clip.swing_id}")
        driver = StageDriver(self.page)
        driver.wait_drawn()
        return driver

    def pegs(self) -> dict[str, int]:
        return dict(Peg.objects.filter(clip=self.clip).values_list("name", "frame"))

    def test_pegs_are_taken_by_one_key_and_taken_back(self) -> None:
        self.proposed()
        driver = self.open_bench()
        wanted = {at: self.known["checkpoints"][at] for at in ("address", "top", "impact")}
        expect(self.page.get_by_role("button", name="Top: frame", exact=False)).to_be_visible()
        self.assertEqual(self.pegs(), {})  # a proposal is no peg
        self.page.keyboard.press("g")
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(self.pegs(), wanted)
        for _ in wanted:
            self.page.keyboard.press("Control+z")
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(self.pegs(), {})
        self.page.get_by_role("button", name="Impact: frame", exact=False).click()
        driver.wait_drawn(wanted["impact"])
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(self.pegs(), {"impact": wanted["impact"]})

    def test_proposed_marks_are_taken_by_enter_and_are_told_apart(self) -> None:
        self.proposed()
        driver = self.open_bench()
        self.page.keyboard.press("g")
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        driver.go_to(self.known["checkpoints"]["top"])
        take = self.page.get_by_role("button", name="Take 10 marks as proposed")
        expect(take).to_be_visible()
        expect(driver.stage.locator("[data-proposed]")).to_have_count(10)
        self.assertFalse(Mark.objects.exists())  # a proposal is no mark
        self.page.keyboard.press("Enter")
        expect(driver.stage.locator("[data-proposed]")).to_have_count(0)
        expect(driver.stage.locator("[data-mark=lead_hip] title")).to_have_text(
            "Lead hip joint (accepted as proposed)"
        )
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        taken = Mark.objects.get(name="lead_hip")
        self.assertEqual((taken.source, taken.sd_px > 5), ("accepted", True))
        driver.drag((taken.x, taken.y), (taken.x + 4, taken.y))  # moved by hand, it is a hand's
        expect(driver.stage.locator("[data-mark=lead_hip] title")).to_have_text("Lead hip joint")

    def test_a_wrong_view_is_changed_by_one_click_and_a_right_one_kept(self) -> None:
        self.proposed(
            view={"value": "down_the_line", "confidence": 0.9}, hand={"value": "left", "confidence": 1}
        )
        self.open_bench()
        self.page.get_by_role("button", name="Keep").click()
        expect(self.page.get_by_role("button", name="Keep")).to_have_count(0)
        self.page.reload()
        StageDriver(self.page).wait_drawn()
        expect(self.page.get_by_role("button", name="Keep")).to_have_count(0)
        self.proposed(capture_fps=240.0)
        self.page.reload()
        expect(self.page.get_by_text("It moves as if shot at 240/s, not 60/s.")).to_be_visible()
        self.page.get_by_role("button", name="Use 240").click()
        expect(self.page.get_by_text("240/s · slowed 4")).to_be_visible()
        self.assertEqual(Clip.objects.get().capture_fps, 240)

    def test_the_window_is_set_by_keys_and_a_stretch_becomes_a_swing(self) -> None:
        driver = self.open_bench()
        driver.go_to(20)
        self.page.keyboard.press("{")
        rule = self.page.get_by_role("slider", name="Swing rule")
        expect(rule).to_have_attribute("aria-valuemin", "20")
        driver.go_to(90)
        self.page.keyboard.press("}")
        expect(rule).to_have_attribute("aria-valuemax", "90")
        self.page.keyboard.press("Shift+ArrowRight")
        driver.wait_drawn(90)  # the swing ends here
        self.page.keyboard.press("i")
        self.page.get_by_role("button", name="Keep these frames as one more swing").click()
        expect(self.page.get_by_text("swing 2 of 2")).to_be_visible()
        self.assertEqual(Swing.objects.count(), 2)
        StageDriver(self.page).wait_drawn()
        self.page.keyboard.press("i")
        self.page.get_by_role("button", name="It is the whole clip").click()
        expect(rule).to_have_attribute("aria-valuemin", "0")
        Swing.objects.get(part=1).delete()
        self.page.reload()
        StageDriver(self.page).wait_drawn()  # the file stays for the other swing

    def test_events_are_pegged_gone_to_and_taken_away(self) -> None:
        driver = self.open_bench()
        driver.go_to(62)
        self.page.keyboard.press("e")
        self.page.get_by_role("button", name="Lead heel down").click()
        expect(self.page.get_by_role("button", name="Events, 1 set")).to_be_visible()
        self.page.keyboard.press("Escape")
        driver.go_to(70)
        self.page.keyboard.press("[")
        driver.wait_drawn(62)
        expect(driver.stage.get_by_text("Lead heel down")).to_be_visible()
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(self.pegs(), {"lead_heel_down": 62})
        self.page.get_by_role("button", name="Events, 1 set").click()
        self.page.get_by_role("button", name="Take lead heel down away").click()
        expect(self.page.get_by_role("button", name="Events, 1 set")).to_have_count(0)

    def test_both_stages_are_zoomed_alike_or_each_alone_and_stay_so(self) -> None:
        self.proposed()
        model = Swing.objects.create(instructor=self.owner, reference_hand="left", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        self.clip_from(DEMO_CLIPS / "ilse_face.mov", model, 120)
        student = self.open_bench()
        reference = StageDriver(self.page, "reference")
        reference.wait_drawn()

        def scales() -> tuple[float, float]:
            return tuple(float(each.canvas.get_attribute("data-scale") or 0) for each in (student, reference))  # type: ignore[return-value]

        cropped = scales()
        self.page.keyboard.press("w")
        larger = scales()
        for now, before in zip(larger, cropped, strict=True):
            self.assertAlmostEqual(now / before, 1.5, places=3)
        self.page.keyboard.press("y")
        self.page.keyboard.press("q")
        self.assertAlmostEqual(scales()[0], cropped[0], places=3)
        self.assertAlmostEqual(scales()[1], larger[1], places=3)
        self.page.wait_for_timeout(400)
        self.page.reload()
        student.wait_drawn()
        reference.wait_drawn()
        self.assertAlmostEqual(scales()[1], larger[1], places=3)
        self.page.keyboard.press("0")  # back to the crop
        self.assertAlmostEqual(scales()[0], cropped[0], places=3)
