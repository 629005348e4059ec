"""The bench under a finger: a tablet held upright and flat, and a phone."""

from typing import ClassVar

from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.demo.drawn import put_on
from tropometer.server.shelf.models import ReferenceSwing

TOBIN, MODEL = "tobin_first_face", "model_loaded_face"
SCREENS: ClassVar = {"tablet": (820, 1180), "tablet, flat": (1180, 820), "phone": (390, 844)}


class TouchTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        model = Swing.objects.create(instructor=self.owner, reference_hand="right", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        self.clip = self.student_clip(DEMO_CLIPS / f"{TOBIN}.mp4")
        for clip, name in ((self.clip, TOBIN), (self.clip_from(DEMO_CLIPS / f"{MODEL}.mp4", model), MODEL)):
            put_on(clip, name, whole=True)
        self.known = truth(TOBIN)

    def test_stepping_reading_and_marking_under_the_thumb(self) -> None:
        for name, (width, height) in SCREENS.items():
            with self.subTest(name):
                self.context = self.browser.new_context(
                    base_url=self.live_server_url, viewport={"width": width, "height": height},
                    has_touch=True, is_mobile=True, reduced_motion="reduce",
                )  # fmt: skip
                self.addCleanup(self.context.close)
                self.sign_in()
                self.page = self.new_page()
                self.work(name, width, height)

    def work(self, name: str, width: int, height: int) -> None:
        page, top = self.page, self.known["checkpoints"]["top"]
        page.goto(f"/bench/{self.clip.swing_id}?station=mark&frame={top - 1}")
        stage = StageDriver(page)
        stage.wait_drawn(top - 1)
        on = page.get_by_role("button", name="One frame on")
        box = on.bounding_box()
        assert box is not None
        self.assertLessEqual(box["y"] + box["height"], height)  # without scrolling
        on.tap()
        stage.wait_drawn(top)
        self.assertEqual(page.evaluate("document.documentElement.scrollWidth"), width)
        # At its end nothing lies half under the bar at the foot.
        page.evaluate("(main => main.scrollTo(0, main.scrollHeight))(document.querySelector('#main'))")
        check_axe(self, page, name)
        # A mark is taken in hand, and put by a tap on the stage.
        Mark.objects.filter(clip=self.clip, frame=top, name="lead_hip").delete()
        page.reload()
        stage.wait_drawn(top)
        page.get_by_role("toolbar", name="Marks of the pelvis").get_by_role(
            "button", name="Lead hip joint"
        ).tap()
        stage.canvas.scroll_into_view_if_needed()
        x, y = self.known["pixels"]["lead_hip"][top]
        page.touchscreen.tap(*stage.place(x, y))
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertAlmostEqual(Mark.objects.get(clip=self.clip, frame=top, name="lead_hip").x, x, delta=1.5)
        page.get_by_role("button", name="Read", exact=True).tap()
        tape = page.get_by_test_id("tape-pelvis_sway-top")
        tape.tap()
        expect(tape).to_have_attribute("aria-expanded", "true")
        self.assertEqual(page.evaluate("document.documentElement.scrollWidth"), width)
        if name == "phone":  # there is room for one stage: the one that is worked on
            stage.stage.get_by_role("button", name="Reference", exact=True).tap()
            expect(page.locator("section[data-side=reference]")).to_be_visible()
            expect(stage.stage).to_have_count(0)
            page.get_by_role("navigation", name="Main").get_by_role("button", name="Go to").tap()
            check_axe(self, page, "places")
            page.get_by_role("menuitem", name="Lessons").tap()
            expect(page.get_by_role("heading", name="Lessons")).to_be_visible()

    def test_two_fingers_that_come_down_with_a_mark_in_hand_put_nothing(self) -> None:
        self.context = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 820, "height": 1180}, has_touch=True
        )
        self.addCleanup(self.context.close)
        self.sign_in()
        page = self.page = self.new_page()
        page.goto(f"/bench/{self.clip.swing_id}?station=mark&frame=40")
        stage = StageDriver(page)
        stage.wait_drawn(40)
        marks = Mark.objects.count()
        page.get_by_role("toolbar", name="Marks of the pelvis").get_by_role(
            "button", name="Lead hip joint"
        ).tap()
        stage.canvas.scroll_into_view_if_needed()
        before = float(stage.canvas.get_attribute("data-scale") or 0)
        box = stage.canvas.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        client = self.context.new_cdp_session(page)
        for kind, apart in (("touchStart", None), ("touchStart", 40), ("touchMove", 120), ("touchEnd", None)):
            fingers = [{"x": x, "y": y, "id": 0}] + ([{"x": x, "y": y + apart, "id": 1}] if apart else [])
            points = [] if kind == "touchEnd" else fingers
            client.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})
        page.wait_for_timeout(500)
        self.assertGreater(float(stage.canvas.get_attribute("data-scale") or 0), 1.5 * before)
        expect(stage.stage.get_by_text("Click the lead hip joint")).to_be_visible()  # it is still in hand
        self.assertEqual(Mark.objects.count(), marks)
        page.touchscreen.tap(x, y)
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual(Mark.objects.count(), marks + 1)
