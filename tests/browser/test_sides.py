"""Swings filmed from one unusual side alone: marked, read, told, and seen by the student."""

import re

from playwright.sync_api import Locator, expect

from tests.browser.base import BrowserCase, StageDriver, mark_all
from tests.server import making
from tests.swings import DEMO_CLIPS, true_reading, truth
from tropometer.server.bench.models import Swing
from tropometer.server.demo.drawn import put_on
from tropometer.server.lessons.models import Lesson

BEHIND, UP = "wynn_narrower_behind", "sunniva_month_up"


class SideTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.sign_in()

    def swing_of(self, student: str) -> Swing:
        about = making.student(self.owner, name=student)
        return Swing.objects.create(instructor=self.owner, student=about, club="6 iron")

    def assert_holds(self, tape: Locator, true_m: float) -> None:
        sign, value, u95 = re.findall(r"([−+]?)(\d+\.\d) ± (\d+\.\d)", tape.inner_text())[0]
        measured = float(value) * (-1 if sign == "−" else 1)
        self.assertLessEqual(abs(measured - true_m * 100), float(u95))

    def test_a_swing_from_behind_is_marked_read_and_told(self) -> None:
        page, swing = self.page, self.swing_of("Wynn Osk")
        self.clip_from(DEMO_CLIPS / f"{BEHIND}.mp4", swing, view="from_behind")
        page.goto(f"/bench/{swing.pk}")
        stage = StageDriver(page)
        stage.wait_drawn()
        expect(stage.stage).to_contain_text("Back-on · right-handed")
        mark_all(stage, BEHIND)
        page.keyboard.press("r")
        for reading in ("pelvis_sway", "trail_hip_gap"):
            tape = page.get_by_test_id(f"tape-{reading}-top")
            expect(tape).to_contain_text("±")
            self.assert_holds(tape, true_reading(BEHIND, reading, "top"))
        stage.go_to(truth(BEHIND)["checkpoints"]["top"])
        page.keyboard.press("p")
        expect(page.get_by_text(re.compile(r"is in the lesson \(1\)"))).to_be_visible()
        page.keyboard.press("t")
        page.get_by_label("Words under Wynn Osk, top").fill("Your right hip stays inside the shoe.")
        expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Send to ")).click()
        expect(page.get_by_role("button", name="Take it back")).to_be_visible()
        lesson = Lesson.objects.get()
        page.goto(f"/l/{lesson.token}")
        expect(page.get_by_text("Your right hip stays inside the shoe.")).to_be_visible()
        shown = page.locator("svg image").first
        self.assertTrue(shown.evaluate("(i) => fetch(i.href.baseVal).then((r) => r.ok)"))

    def test_a_swing_up_the_line_gives_what_it_shows_and_says_what_it_is(self) -> None:
        page, swing = self.page, self.swing_of("Sunniva Brae")
        clip = self.clip_from(DEMO_CLIPS / f"{UP}.mp4", swing, view="up_the_line")
        put_on(clip, UP, whole=True)
        page.goto(f"/bench/{swing.pk}?station=read")
        StageDriver(page).wait_drawn()
        tape = page.get_by_test_id("tape-pelvis_depth-impact")
        expect(tape).to_contain_text("±")
        self.assert_holds(tape, true_reading(UP, "pelvis_depth", "impact"))
        expect(page.get_by_text("Needs a face-on clip.").first).to_be_visible()
        page.get_by_role("button", name="6 iron").click()
        page.get_by_label("Swing length").select_option("Hands shoulder high")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("button", name="6 iron · hands shoulder high")).to_be_visible()
        swing.refresh_from_db()
        self.assertEqual((swing.club, swing.swing_length), ("6 iron", "shoulder_high"))
