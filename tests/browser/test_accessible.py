"""Every main view without an axe finding, and a skip link first."""

from typing import Any
from unittest import TestCase

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swings import DEMO_CLIPS, ROOT
from tropometer.server.bench.models import Peg
from tropometer.server.demo.drawn import put_on
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.sending import send
from tropometer.server.lessons.services import add_frame

AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").read_text()


RUN_AXE = """async (theme) => {
  const root = document.documentElement.dataset, before = root.theme;
  root.theme = theme;
  const found = await axe.run({ rules: { "target-size": { enabled: true } } });
  root.theme = before;
  return found.violations;
}"""


def check_axe(case: TestCase, page: Page, name: str) -> None:
    """No axe finding on the page as it stands, by day and at dusk."""
    expect(page.locator("h1").first).to_be_attached()  # the page is there, not only the way to it
    page.evaluate(AXE)
    for theme in ("bench-day", "bench-dusk"):
        found: list[dict[str, Any]] = page.evaluate(RUN_AXE, theme)
        said = [
            f"{rule['id']}: {[(node['target'], node['failureSummary']) for node in rule['nodes']][:4]}"
            for rule in found
        ]
        case.assertEqual(said, [], f"{name}, {theme}")


PLAN = {
    "focus": [
        {
            "fault": "sways",
            "words": "",
            "drills": [{"drill": "stick_by_the_hip", "dose": "ten"}],
            "goal": None,
        }
    ]
}


class AccessibleTests(BrowserCase):
    def test_every_main_view(self) -> None:
        page = self.page
        page.goto("/sign-in")
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        check_axe(self, page, "sign in")
        for path in ("/forgotten", "/new-password/some-key"):
            page.goto(path)
            check_axe(self, page, path)
        clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_on(clip, "tobin_first_face", whole=False)
        lesson = Lesson.objects.create(instructor=self.owner, swing=clip.swing)
        Plan.objects.create(swing=clip.swing, document=PLAN)
        add_frame(lesson, clip.pk, Peg.objects.get(clip=clip, name="top").frame, "Look here.")
        self.sign_in()
        for path, heading in [
            ("/inbox", "Inbox"),
            ("/students", "Students"),
            ("/shelf", "Shelf of reference swings"),
            ("/lessons", "Lessons"),
            (f"/lessons/{lesson.pk}", "Lesson for Tobin Farrow"),
            ("/book", "Drill book"),
            ("/book/models?model=centred&beside=loaded_shift", "Teaching models"),
            ("/bin", "Bin"),
            ("/account", "Account"),
            ("/nowhere", "Nothing is kept at this address"),
        ]:
            page.goto(path)
            expect(page.get_by_role("heading", name=heading)).to_be_visible()
            page.wait_for_load_state("networkidle")
            check_axe(self, page, path)
        page.goto("/students")
        page.get_by_role("button", name="New student").click()
        check_axe(self, page, "new student")
        page.goto("/students")
        page.get_by_role("button", name="Body and ball of Tobin Farrow").click()
        page.get_by_role("button", name="Add a part").click()
        check_axe(self, page, "body")
        page.goto("/book")
        page.get_by_role("button", name="Own drill").click()
        check_axe(self, page, "own drill")
        page.goto(f"/bench/{clip.swing_id}")
        StageDriver(page).wait_drawn()
        for key, station in zip("mrjt", ("mark", "read", "judge", "tell"), strict=True):
            page.keyboard.press(key)
            expect(page.locator(f"[data-station={station}]")).to_be_visible()
            check_axe(self, page, station)
        page.keyboard.press("Control+k")
        check_axe(self, page, "palette")
        page.keyboard.press("Escape")
        page.keyboard.press("?")
        check_axe(self, page, "keys")
        send(lesson)
        page.goto(f"/lessons/{lesson.pk}")
        expect(page.get_by_role("button", name="Take it back")).to_be_visible()
        check_axe(self, page, "sent lesson")
        page.goto(f"/l/{lesson.token}")
        expect(page.get_by_text("Look here.")).to_be_visible()
        check_axe(self, page, "student page")

    def test_at_twice_the_size_and_with_the_system_s_own_colours(self) -> None:
        clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_on(clip, "tobin_first_face", whole=False)
        self.sign_in()
        page = self.page
        page.set_viewport_size({"width": 640, "height": 400})  # 1280 by 800 at 200 %
        for path, there in [
            ("/inbox", page.get_by_role("heading", name="Inbox")),
            ("/students", page.get_by_role("heading", name="Students")),
            (f"/bench/{clip.swing_id}?station=mark", page.get_by_role("region", name="Round, student")),
            (f"/bench/{clip.swing_id}?station=read", page.get_by_test_id("tape-pelvis_sway-top")),
        ]:
            page.goto(path)
            expect(there.first).to_be_visible()
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 640, path)
            page.evaluate("(main => main.scrollTo(0, main.scrollHeight))(document.querySelector('#main'))")
            check_axe(self, page, f"{path}, twice as large")
        page.emulate_media(forced_colors="active")  # fills tell nothing then: what is on is framed
        framed = page.get_by_role("button", name="Read", exact=True)
        self.assertIn("2px", framed.evaluate("(tab) => getComputedStyle(tab).outline"))

    def test_the_first_tab_skips_to_the_work(self) -> None:
        self.sign_in()
        self.page.goto("/inbox")
        expect(self.page.get_by_role("heading", name="Inbox")).to_be_visible()
        self.page.keyboard.press("Tab")
        expect(self.page.get_by_role("link", name="Skip to the work")).to_be_focused()
