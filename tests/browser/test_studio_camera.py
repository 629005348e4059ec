"""A camera in the studio: Chromium's own, fed with a made-up golfer's swing."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.test_accessible import check_axe
from tests.browser.test_mirror import NOT_ALLOWED, SHOWN_FRAMES, CameraCase
from tests.server import making
from tests.swings import truth
from tropometer.golfer import strip
from tropometer.server.bench.models import Swing
from tropometer.server.studio.models import StudioHour, Try
from tropometer.video.probe import probe

NAME = "tobin_first_face"


class StudioCamera(CameraCase):
    """An hour's page with the camera open."""

    numbered = True

    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner)
        self.sign_in()
        self.context.grant_permissions(["camera"])
        about = {"content_type": "application/json"}
        begun = self.client.post(f"/api/students/{self.tobin.pk}/hours", {}, **about)
        self.hour = StudioHour.objects.get(pk=begun.json()["id"])

    def opened(self) -> Page:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_test_id("gives")).to_have_text(re.compile(r"^1280 . 720, \d+ pictures a second$"))
        return page


class StudioCameraTests(StudioCamera):
    def test_a_swing_comes_back_at_once_and_becomes_a_try_with_seconds_about_it(self) -> None:
        page = self.opened()
        page.get_by_label("Club", exact=True).fill("8 iron")
        page.get_by_label("What is changed at the tries").fill("Narrower stance")
        replay = page.get_by_test_id("replay")
        expect(replay).to_have_js_property("playbackRate", 0.25)
        frames = page.evaluate(SHOWN_FRAMES, [strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS])
        pegs = truth(NAME)["checkpoints"]
        self.assertLess(min(frames), pegs["top"])
        self.assertGreater(max(frames), pegs["impact"])
        check_axe(self, page, "studio camera")
        expect(page.get_by_label("What was changed at try 1")).to_have_value("Narrower stance")
        tried = Try.objects.get(position=0)
        self.assertEqual((tried.swing.club, tried.swing.club_class), ("8 iron", "iron"))
        clip = tried.swing.clips.get()
        self.assertEqual(clip.view, "face_on")
        self.assertGreater(probe(Path(clip.original.path)).seconds, 3.0)

    def test_a_try_that_was_not_sent_is_there_after_a_restart_and_goes_then(self) -> None:
        page = self.opened()
        page.route("**/api/uploads**", lambda route: route.abort())
        waits = page.get_by_role("status", name="Tries on their way")
        page.get_by_role("button", name="Struck now").click()
        expect(waits).to_contain_text("They are kept on this machine until they are there.")
        page.close()
        self.assertEqual(Swing.objects.count(), 0)
        page = self.new_page()
        page.goto(f"/hours/{self.hour.pk}")
        expect(page.get_by_label("What was changed at try 1")).to_be_visible()
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("")
        self.assertTrue(Swing.objects.filter(tried__hour=self.hour).exists())

    def test_a_try_that_the_server_refuses_waits_for_a_hand(self) -> None:
        page = self.opened()
        refused = {"status": 422, "json": {"detail": "clips: the disk is full."}}
        page.route("**/filmed", lambda route: route.fulfill(**refused))
        waits = page.get_by_role("status", name="Tries on their way")
        page.get_by_role("button", name="Struck now").click()
        page.get_by_role("button", name="Close the camera").click()
        expect(waits).to_contain_text("was not taken")
        page.unroute("**/filmed")
        again = waits.get_by_role("button", name="Send it again")
        expect(waits).not_to_contain_text("on the way")
        for left in reversed(range(again.count())):
            again.first.click()
            expect(again).to_have_count(left)
        expect(page.get_by_label("What was changed at try 1")).to_be_visible()

    def test_a_camera_that_is_not_allowed_is_said(self) -> None:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.evaluate(NOT_ALLOWED)
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_role("alert")).to_contain_text("The camera is not allowed for this page")
