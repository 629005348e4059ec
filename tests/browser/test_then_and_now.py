"""An earlier swing beside and over the new one, and both into the lesson with what changed."""

from __future__ import annotations

import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.server import making
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import Mat, Swing
from tropometer.server.demo.drawn import put_on
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import LessonFrame
from tropometer.server.logbook.keeping import keep

FIRST, NOW = "tobin_first_face", "tobin_month_face"


class ThenAndNowTests(BrowserCase):
    """A month ago Tobin's pelvis swayed 12 cm; he got a goal, and now it sways half as far."""

    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner, stature_m=1.81)
        self.first, self.now = (
            Swing.objects.create(
                instructor=self.owner,
                student=self.tobin,
                club="7 iron",
                club_class="iron",
                swing_length="full",
                received_at=timezone.now() - timedelta(days=days),
            )
            for days in (33, 0)
        )
        for swing, name in ((self.first, FIRST), (self.now, NOW)):
            clip = self.clip_from(DEMO_CLIPS / f"{name}.mp4", swing)
            put_on(clip, name, whole=True)
            keep(swing.pk)
        goal = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005, "by": None, "unit": "m"}
        focus = {
            "fault": "sways",
            "name": "Your hips slide back",
            "drills": [],
            "goal": {**goal, "then": {"value": -0.124, "u95": 0.013}},
        }
        Plan.objects.create(swing=self.first, document={"focus": []}, as_sent={"focus": [focus]})
        Swing.objects.filter(pk=self.first.pk).update(answered_at=timezone.now() - timedelta(days=32))
        self.sign_in()

    def test_both_go_into_the_lesson_with_what_changed_and_stand_side_by_side_on_the_sheet(self) -> None:
        page = self.page
        page.goto(f"/bench/{self.now.pk}?station=judge")
        StageDriver(page).wait_drawn()
        last = page.get_by_test_id("before-sways")
        expect(last).to_contain_text(re.compile("moved toward the band by \\+[4-8]"))
        last.get_by_role("button", name="Then and now into the lesson").click()
        page.keyboard.press("t")
        lesson = page.get_by_role("region", name="Lesson")
        expect(lesson.get_by_role("heading", name="Tobin Farrow, top")).to_have_count(2)
        page.keyboard.press("j")
        last.get_by_role("button", name="Then and now into the lesson").click()
        expect(page.get_by_role("alert")).to_contain_text("Then and now are in the lesson already.")
        then, now = LessonFrame.objects.order_by("position")
        self.assertEqual((then.drawn["whose"], now.drawn["whose"]), ("earlier", "student"))
        self.assertEqual(
            (then.frame, now.frame), (truth(FIRST)["checkpoints"]["top"], truth(NOW)["checkpoints"]["top"])
        )
        self.assertRegex(then.words, r"^Pelvis sway, top: −1[12]\.\d cm\.$")
        self.assertRegex(now.words, r"Moved toward the band by \+\d\.\d ± \d\.\d cm, .* sure\.")
        page.goto(f"/lessons/{now.lesson_id}")
        pictures = page.get_by_role("img", name=re.compile("^Frame \\d+ of Tobin Farrow, top"))
        preview = page.get_by_role("article").locator(pictures)
        expect(preview).to_have_count(2)
        boxes = [box for each in preview.all() if (box := each.bounding_box())]
        self.assertAlmostEqual(boxes[0]["y"], boxes[1]["y"], delta=2)  # side by side
        self.assertLess(boxes[0]["x"], boxes[1]["x"])

    def test_it_is_laid_over_on_the_foot_and_refused_with_its_reason_where_that_would_be_by_eye(self) -> None:
        page = self.page
        page.goto(f"/bench/{self.now.pk}?station=read&beside={self.first.pk}")
        stage = StageDriver(page)
        stage.wait_drawn()
        StageDriver(page, "reference").wait_drawn()
        over = page.get_by_role("button", name="Laid over")
        over.click()
        expect(stage.stage.get_by_role("img", name="laid over")).to_be_visible()
        expect(stage.stage.get_by_text("Not laid over")).to_have_count(0)
        check_axe(self, page, "one swing over another")
        Mat.objects.filter(clip__swing=self.first).delete()
        self.first.clips.get().calibration.delete()
        page.reload()
        stage.wait_drawn()
        expect(stage.stage.get_by_text("Not laid over. Tobin Farrow's swing needs a mat")).to_be_visible()
        expect(stage.stage.get_by_role("img", name="laid over")).to_have_count(0)
