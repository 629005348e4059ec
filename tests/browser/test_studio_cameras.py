"""Two cameras and a sound in the studio that are not there: a golfer is drawn for both on one clock."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, Request, expect

from tests.browser.base import BrowserCase
from tests.browser.cameras import STRUCK_FRAME, CamerasNotThere
from tests.browser.test_accessible import check_axe
from tests.server import making
from tropometer.golfer import strip
from tropometer.server.bench.models import Swing
from tropometer.server.studio.models import StudioHour, Try
from tropometer.video.proxy import upright_frames
from tropometer.video.strike import hear_strikes

MOST_WAITS = 90  # seconds, of a ball every eight
HIDE = """() => {
  Object.defineProperty(document, "hidden", { value: true, configurable: true });
  document.dispatchEvent(new Event("visibilitychange"));
}"""
SHOW = """() => {
  delete document.hidden;
  document.dispatchEvent(new Event("visibilitychange"));
}"""


class DrawnCameras(BrowserCase):
    """An hour's page beside drawn cameras."""

    cameras: CamerasNotThere

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.cameras = cls.enterClassContext(CamerasNotThere())

    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner)
        self.sign_in()
        begun = self.client.post(f"/api/students/{self.tobin.pk}/hours", {}, content_type="application/json")
        self.hour = StudioHour.objects.get(pk=begun.json()["id"])

    def opened(self, **wishes: Any) -> Page:
        """One camera of the hour's page; `wishes` as the cameras take them."""
        self.cameras.put_into(self.context, **wishes)
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_text("A swing is found by its sound and how it moves")).to_be_visible()
        return page

    def with_both(self, **wishes: Any) -> Page:
        """Both cameras open, and what both saw of the first ball shown."""
        page = self.opened(**wishes)
        page.get_by_role("button", name="Open a second camera").click()
        expect(page.get_by_label("The second camera stands")).to_have_value("down_the_line")
        expect(page.get_by_test_id("replay")).to_have_count(2)
        return page


class StudioCamerasTests(DrawnCameras):
    def test_a_ball_that_two_cameras_see_and_hear_is_one_try_whose_clips_are_tied_by_its_sound(self) -> None:
        sent: list[dict[str, Any]] = []

        def note(request: Request) -> None:
            if request.url.endswith("/filmed"):
                sent.append(json.loads(request.post_data or ""))

        self.page.on("request", note)
        page = self.with_both(numbered=True)
        check_axe(self, page, "two cameras")

        def heard_on_both() -> list[Try]:
            by_sound = {each["clip"]["upload_id"] for each in sent if each["struck_by"] == "sound"}
            seen = [(each, [str(clip.pk) for clip in each.swing.clips.all()]) for each in Try.objects.all()]
            return [each for each, clips in seen if len(clips) == 2 and by_sound.issuperset(clips)]

        # Where a machine draws a ball later than it sounds, it is one of the next.
        for _ in range(MOST_WAITS):
            if heard_on_both():
                break
            page.wait_for_timeout(1000)
        page.get_by_role("button", name="Close both").click()
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("", timeout=40_000)
        swing = heard_on_both()[0].swing
        self.assertTrue(swing.one_swing)
        numbers = []
        for clip in swing.clips.all():
            told = next(each for each in sent if each["clip"]["upload_id"] == str(clip.pk))
            self.assertEqual((told["struck_by"], told["clip"]["view"]), ("sound", clip.view))
            # The server hears in the file what the page heard in the room.
            path = Path(clip.original.path)
            (heard,) = [each for each in hear_strikes(path) if abs(each.played_s - told["struck_s"]) < 0.1]
            self.assertLess(abs(heard.played_s - told["struck_s"]), 0.004)
            shown = [(time_s, strip.read(picture)) for picture, time_s in upright_frames(path)]
            numbers.append(min(shown, key=lambda each: abs(each[0] - heard.played_s))[1])
        # What is seen when it is heard is the strike, to a few pictures of a busy machine.
        for number in numbers:
            self.assertLess(abs(number - STRUCK_FRAME), 4)

    def test_of_two_cameras_one_that_is_unplugged_is_said_and_the_other_goes_on(self) -> None:
        page = self.with_both()
        page.evaluate("window.notThere.unplug('face_on')")
        expect(page.get_by_role("alert")).to_contain_text("The camera was taken away")
        replay = page.get_by_test_id("replay")
        expect(replay).to_have_count(1)
        expect(replay).to_have_attribute("aria-label", re.compile("from the other side"))
        page.get_by_role("alert").get_by_role("button", name="Try again").click()
        expect(page.get_by_role("alert")).to_contain_text("That camera is not there")
        page.get_by_role("button", name="Close both").click()
        expect(page.get_by_label("What was changed at try 2")).to_be_visible(timeout=90_000)
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("", timeout=90_000)
        seen = [[clip.view for clip in each.swing.clips.all()] for each in self.hour.tries.all()]
        self.assertIn("down_the_line", seen[-1])

    def test_a_page_that_was_hidden_says_for_how_long_nothing_was_filmed(self) -> None:
        page = self.opened(idle=True)
        page.evaluate(HIDE)
        page.wait_for_timeout(2000)
        page.evaluate(SHOW)
        expect(page.get_by_text(re.compile(r"This page was hidden for \d+ s"))).to_be_visible()

    def test_a_neighbour_s_ball_is_no_try(self) -> None:
        page = self.opened(knocksMs=[-2700])
        expect(page.get_by_test_id("replay")).to_be_visible()
        page.get_by_role("button", name="Close the camera").click()
        expect(page.get_by_label("What was changed at try 1")).to_be_visible()
        self.assertEqual(Try.objects.count(), 1)

    def test_a_key_says_once_that_a_ball_was_struck_and_typing_does_not(self) -> None:
        page = self.opened(idle=True)
        page.get_by_label("What is changed at the tries").press_sequentially("ab")
        page.wait_for_timeout(1500)  # of the picture, so that there is something to keep
        expect(page.get_by_test_id("replay")).to_have_count(0)
        page.get_by_role("button", name="Close the camera").focus()  # a pedal works there
        page.keyboard.press("b")
        page.keyboard.press("b")
        expect(page.get_by_test_id("replay")).to_be_visible()
        page.get_by_role("button", name="Close the camera").click()  # before all of it was seen
        expect(page.get_by_label("What was changed at try 1")).to_have_value("ab")
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("")
        self.assertEqual(Try.objects.count(), 1)

    def test_a_phone_that_scanned_the_code_films_the_other_side_and_sees_nothing_of_the_hour(self) -> None:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.get_by_role("button", name="A phone as a camera").click()
        expect(page.get_by_role("img", name="The code for the phone")).to_be_visible()
        check_axe(self, page, "code for a phone")
        link = page.get_by_role("link", name=re.compile("^http")).get_attribute("href") or ""
        phone = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 390, "height": 844}
        )
        self.cameras.put_into(phone)
        self.addCleanup(phone.close)
        filming = phone.new_page()
        filming.on("pageerror", lambda error: self.fail(f"The page broke: {error}"))
        filming.goto(f"/f/{link.rsplit('/', 1)[1]}")
        expect(filming.get_by_text("For Maren Thole.")).to_be_visible()
        self.assertNotIn(self.tobin.name, filming.content())
        filming.get_by_role("button", name="Open the camera").click()
        expect(filming.get_by_text("Watching.")).to_be_visible()
        check_axe(self, filming, "phone that films")
        # A server that is away when the page asks again ends no filming.
        whose = re.compile("/api/film/[^/]+$")
        filming.route(
            whose, lambda route: route.abort() if route.request.method == "GET" else route.continue_()
        )
        filming.wait_for_timeout(5200)  # what was asked sooner is not asked again
        with filming.expect_event("requestfailed", lambda request: whose.search(request.url) is not None):
            filming.evaluate("window.dispatchEvent(new Event('visibilitychange'))")
        filming.wait_for_timeout(300)
        expect(filming.get_by_label("The camera, live")).to_be_visible()
        filming.unroute(whose)
        expect(filming.get_by_test_id("replay")).to_be_visible()
        filming.get_by_role("button", name="Close the camera").click()
        expect(page.get_by_label("What was changed at try 1")).to_be_visible(timeout=40_000)
        self.assertEqual(Swing.objects.latest("received_at").clips.get().view, "down_the_line")
        page.get_by_role("button", name="Close the line").click()
        page.get_by_role("button", name="Close it?").click()
        filming.reload()
        expect(filming.get_by_role("alert")).to_contain_text("code is closed")
