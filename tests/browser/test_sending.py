"""Clips on their way in: by a student on a phone, over a connection that breaks, from a tab that closes."""

import time

from playwright.sync_api import Page, Route, expect

from tests.browser.base import BrowserCase
from tests.server import making
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Swing, SwingRequest
from tropometer.server.clips.models import Upload

CLIP = DEMO_CLIPS / "jory_top_line.mp4"
OTHER = DEMO_CLIPS / "tobin_first_face.mp4"
PIECE = 256 * 1024


class SendingTests(BrowserCase):
    viewport = {"width": 390, "height": 844}

    def setUp(self) -> None:
        super().setUp()
        self.student = making.student(self.owner, name="Wynn Osk")
        self.asked = SwingRequest.objects.create(
            instructor=self.owner, student=self.student, note="Both views, please."
        )
        self.link = f"/s/{self.asked.token}"

    def open_link(self, page: Page) -> Page:
        page.goto(self.link)
        expect(page.get_by_role("heading", name="Wynn Osk, send your swing")).to_be_visible()
        return page

    def big_clip(self) -> str:
        """A clip of several pieces: the same film with room behind it, as some phones leave."""
        path = self.folder / "long.mp4"
        path.write_bytes(
            CLIP.read_bytes() + (8 * 1024 * 1024).to_bytes(4, "big") + b"free" + bytes(8 * 1024 * 1024 - 8)
        )
        return str(path)

    def settled(self) -> int:
        """How much has arrived, once the server has read what the closed tab still had under way."""
        before = -1
        while before != (now := Upload.objects.get().offset):
            before = now
            time.sleep(0.7)
        return now

    def test_a_student_sends_two_views_from_a_phone(self) -> None:
        page = self.open_link(self.page)
        expect(page.get_by_text("Both views, please.")).to_be_visible()
        expect(page.get_by_role("img", name="From above: the phone stands in front")).to_be_visible()
        expect(page.get_by_role("button", name="Send")).to_be_disabled()
        page.get_by_label("Clips", exact=True).set_input_files([OTHER, CLIP])
        expect(page.get_by_text("MB, here")).to_have_count(2)
        views = page.get_by_role("combobox", name="View")
        expect(views.nth(0)).to_have_value("face_on")
        expect(views.nth(1)).to_have_value("down_the_line")
        views.nth(1).select_option("Up the line")
        page.get_by_label("Slow motion, shot at").nth(1).fill("240")
        page.get_by_label("Club", exact=True).fill("sand wedge")
        expect(page.get_by_label("Kind of club")).to_have_value("wedge")  # a club that is known says its kind
        expect(page.get_by_label("Swing length")).to_have_value("full")
        page.get_by_label("Swing length").select_option("Front arm level")
        page.get_by_label("In your words").fill("I fall off the ball.")
        page.get_by_label("Where the camera stood").fill("On my bag")
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        page.get_by_role("button", name="Send").click()
        one_or_two = page.get_by_role("group", name="Both views show")
        expect(one_or_two.get_by_label("One swing")).to_be_focused()  # it must be said
        one_or_two.get_by_label("Two swings").check()

        def lose(route: Route) -> None:
            route.fetch()
            route.abort()

        page.route("**/api/sent/*", lose)
        page.get_by_role("button", name="Send").click()
        expect(page.get_by_role("alert").first).to_be_visible()  # it is there, but the phone never heard so
        page.unroute("**/api/sent/*")
        page.get_by_role("button", name="Send").click()
        expect(page.get_by_role("heading", name="Thank you, your swing is with Maren Thole")).to_be_visible()
        swing = Swing.objects.get(student=self.student)
        self.assertEqual((swing.words, swing.one_swing), ("I fall off the ball.", False))
        kind = (swing.club, swing.club_class, swing.swing_length)
        self.assertEqual(kind, ("sand wedge", "wedge", "lead_arm_level"))
        rates = {clip.view: clip.capture_fps for clip in swing.clips.all()}
        self.assertEqual(rates, {"face_on": None, "up_the_line": 240})
        self.assertEqual(Upload.objects.count(), 0)

    def test_a_broken_connection_goes_on_where_it_stopped(self) -> None:
        page = self.open_link(self.page)
        offsets: list[int] = []

        def count(route: Route) -> None:
            if route.request.method == "PATCH":
                offsets.append(int(route.request.headers["upload-offset"]))
                if len(offsets) == 3:
                    route.abort("connectionfailed")
                    return
            route.continue_()

        page.route("**/uploads/**", count)
        page.get_by_label("Clips", exact=True).set_input_files(self.big_clip())
        expect(page.get_by_text("MB, here")).to_be_visible()
        self.assertEqual(offsets[0], 0)
        self.assertEqual(offsets[2], offsets[3], "the piece that broke is sent again from where it stopped")
        self.assertGreater(offsets[3], 0)

    def test_a_closed_tab_goes_on_when_the_file_is_chosen_again(self) -> None:
        page = self.open_link(self.page)
        sent = 0

        def stall(route: Route) -> None:
            nonlocal sent
            sent += route.request.method == "PATCH"
            if sent > 2:
                return  # never answered: the connection hangs until the tab is closed
            route.continue_()

        path = self.big_clip()
        page.route("**/uploads/**", stall)
        page.get_by_label("Clips", exact=True).set_input_files(path)
        page.wait_for_timeout(1500)
        page.close()
        here = self.settled()
        self.assertGreater(here, PIECE)
        again = self.open_link(self.new_page())
        offsets: list[int] = []
        again.on(
            "request",
            lambda r: offsets.append(int(r.headers["upload-offset"])) if r.method == "PATCH" else None,
        )
        again.get_by_label("Clips", exact=True).set_input_files(path)
        expect(again.get_by_text("MB, here")).to_be_visible()
        self.assertEqual(offsets[0], here)
        self.assertEqual(Upload.objects.count(), 1)

    def test_taking_a_file_out_leaves_nothing(self) -> None:
        page = self.open_link(self.page)
        page.get_by_label("Clips", exact=True).set_input_files(OTHER)
        expect(page.get_by_text("MB, here")).to_be_visible()
        self.assertEqual(Upload.objects.count(), 1)
        with page.expect_response(lambda answer: answer.request.method == "DELETE"):
            page.get_by_role("button", name="Take tobin_first_face.mp4 out").click()
        self.assertEqual(Upload.objects.count(), 0)

    def test_no_words_for_a_file_that_is_no_film(self) -> None:
        page = self.open_link(self.page)
        page.get_by_label("Clips", exact=True).set_input_files(
            [{"name": "letter.txt", "mimeType": "text/plain", "buffer": b"Dear Maren"}]
        )
        expect(page.get_by_role("alert")).to_contain_text("letter.txt")
        self.assertEqual(Upload.objects.count(), 0)
