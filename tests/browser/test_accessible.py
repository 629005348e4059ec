"""Every main view without an axe finding, and a skip link first."""

from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swings import DEMO_CLIPS, ROOT
from tropometer.server.bench.models import Peg
from tropometer.server.demo.management.commands.load_demo import put_marks
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.services import add_frame, send

AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").read_text()


class AccessibleTests(BrowserCase):
    def check(self, page: Page, name: str) -> None:
        page.evaluate(AXE)
        found: dict[str, Any] = page.evaluate("() => axe.run()")
        said = [
            f"{rule['id']}: {[node['target'] for node in rule['nodes']][:4]} {rule['help']}"
            for rule in found["violations"]
        ]
        self.assertEqual(said, [], name)

    def test_every_main_view(self) -> None:
        page = self.page
        page.goto("/sign-in")
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.check(page, "sign in")
        clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_marks(clip, "tobin_first_face")
        lesson = Lesson.objects.create(instructor=self.owner, swing=clip.swing, drill="wall_behind_seat")
        add_frame(lesson, clip.pk, Peg.objects.get(clip=clip, name="top").frame, "Look here.")
        self.sign_in()
        for path, heading in [
            ("/inbox", "Inbox"),
            ("/students", "Students"),
            ("/shelf", "Shelf of reference swings"),
            ("/lessons", "Lessons"),
            (f"/lessons/{lesson.pk}", "Lesson for Tobin Farrow"),
            ("/nowhere", "Nothing is kept at this address"),
        ]:
            page.goto(path)
            expect(page.get_by_role("heading", name=heading)).to_be_visible()
            page.wait_for_load_state("networkidle")
            self.check(page, path)
        page.goto("/students")
        page.get_by_role("button", name="New student").click()
        self.check(page, "new student")
        page.goto(f"/bench/{clip.swing_id}")
        StageDriver(page).wait_drawn()
        self.check(page, "bench")
        page.keyboard.press("?")
        self.check(page, "keys")
        send(lesson)
        page.goto(f"/l/{lesson.token}")
        expect(page.get_by_text("Look here.")).to_be_visible()
        self.check(page, "student page")

    def test_the_first_tab_skips_to_the_work(self) -> None:
        self.sign_in()
        self.page.goto("/inbox")
        expect(self.page.get_by_role("heading", name="Inbox")).to_be_visible()
        self.page.keyboard.press("Tab")
        expect(self.page.get_by_role("link", name="Skip to the work")).to_be_focused()
