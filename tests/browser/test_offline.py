"""Without a connection what cannot be kept is refused at once, in words, and never done later by surprise."""

from playwright.sync_api import Locator, Page, Request, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Swing
from tropometer.server.people.models import Student

AWAY = "The server cannot be reached."


class OfflineTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        self.sign_in()
        self.sent: list[str] = []
        self.page.on("request", self.note)

    def note(self, request: Request) -> None:
        if request.method != "GET":
            self.sent.append(f"{request.method} {request.url}")

    def refused(self, page: Page, *presses: Locator) -> None:
        """Presses are refused in words while there is no connection, and nothing follows when it is back."""
        self.context.set_offline(True)
        for press in presses:
            press.click()
        expect(page.get_by_role("alert").filter(has_text=AWAY).first).to_be_visible()
        self.context.set_offline(False)
        expect(page.get_by_text("No connection.")).to_have_count(0)
        self.sent.clear()
        page.wait_for_timeout(1500)
        self.assertEqual(self.sent, [])

    def test_what_cannot_be_kept_is_refused_at_once_on_every_screen(self) -> None:
        page = self.page
        page.goto("/inbox")
        page.get_by_role("link", name="Open on the bench").wait_for()
        self.refused(page, page.get_by_role("button", name="in", exact=True))
        self.refused(page, page.get_by_role("button", name="Remove", exact=False).first)
        page.goto("/students")
        page.get_by_role("button", name="New student").click()
        page.get_by_label("Name").fill("Jory Tennick")
        self.refused(page, page.get_by_role("button", name="Add student"))
        expect(page.get_by_label("Name")).to_have_value("Jory Tennick")
        page.goto("/account")
        self.refused(page, page.get_by_role("button", name="Sign out", exact=True))
        self.assertEqual((Student.objects.count(), Swing.objects.filter(removed_at=None).count()), (1, 1))

    def test_the_bench_goes_on_with_what_it_has_and_says_what_it_has_not(self) -> None:
        page = self.page
        page.goto(f"/bench/{self.clip.swing_id}")
        driver = StageDriver(page)
        driver.wait_drawn()
        page.wait_for_timeout(2500)  # the clip is fetched
        self.context.set_offline(True)
        for frame in (60, 5, 100):
            driver.go_to(frame)
        page.keyboard.press("t")
        page.get_by_role("button", name="Begin", exact=False).first.click()
        expect(page.get_by_role("alert").filter(has_text=AWAY)).to_be_visible()
