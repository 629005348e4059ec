"""Nothing an instructor puts on a clip is lost: no connection, a closed tab, two tabs."""

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Mark, Peg


class KeepingTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        self.sign_in()
        self.driver = self.open_bench(self.page)

    def open_bench(self, page: Page) -> StageDriver:
        page.goto(f"/bench/{self.clip.swing_id}")
        driver = StageDriver(page)
        driver.wait_drawn()
        return driver

    def put(self, driver: StageDriver, key: str, x: float) -> None:
        driver.page.keyboard.press(key)
        driver.click(x, 350)
        driver.page.keyboard.press("Escape")

    def test_a_lost_connection_is_said_and_made_good(self) -> None:
        page, driver = self.page, self.driver
        self.context.set_offline(True)
        page.keyboard.press("Shift+A")
        self.put(driver, "2", 660)
        expect(page.get_by_role("alert")).to_contain_text("No connection. What you do here is kept")
        self.put(driver, "3", 590)
        self.assertEqual(Mark.objects.count(), 0)
        self.context.set_offline(False)
        self.saved(page)
        self.assertEqual({m.name for m in Mark.objects.all()}, {"lead_hip_edge", "trail_hip_edge"})
        self.assertEqual(Peg.objects.get().frame, 0)

    def test_a_tab_closed_without_connection_loses_nothing(self) -> None:
        self.context.set_offline(True)
        self.put(self.driver, "2", 660)
        expect(self.page.get_by_role("alert")).to_contain_text("No connection")
        self.page.close()
        self.context.set_offline(False)
        self.assertEqual(Mark.objects.count(), 0)
        page = self.new_page()
        self.open_bench(page)
        self.saved(page)
        expect(page.locator("[data-mark=lead_hip_edge]")).to_be_visible()
        self.assertAlmostEqual(Mark.objects.get().x, 660, delta=1)

    def test_two_tabs_keep_each_other_s_marks(self) -> None:
        second = self.new_page()
        other = self.open_bench(second)
        self.put(self.driver, "2", 660)
        self.saved(self.page)
        self.put(other, "3", 590)
        expect(second.locator("[data-mark]")).to_have_count(2)
        self.saved(second)
        self.assertEqual(Mark.objects.count(), 2)

    def test_an_answer_that_was_overtaken_by_a_mark_does_not_take_it_back(self) -> None:
        page, driver, late = self.page, self.driver, []
        self.put(driver, "2", 660)
        self.saved(page)
        swing = f"/api/swings/{self.clip.swing_id}"
        page.route(f"**{swing}", lambda route: late.append((route, route.fetch())), times=1)
        with page.expect_request(f"**{swing}"):  # as another tab's doing has it asked for
            page.evaluate(
                "id => new BroadcastChannel('tropometer.edits').postMessage(id)", str(self.clip.swing_id)
            )
        driver.drag((660, 350), (690, 350))
        self.saved(page)
        moved = Mark.objects.get().x
        self.assertAlmostEqual(moved, 690, delta=1)
        route, answer = late.pop()
        with page.expect_response(f"**{swing}"):  # the late one; it is asked for once more by itself
            route.fulfill(response=answer)
        page.keyboard.press("Delete")
        self.saved(page)
        self.assertFalse(Mark.objects.exists())
        page.keyboard.press("Control+z")
        self.saved(page)
        self.assertAlmostEqual(Mark.objects.get().x, moved, places=2)

    def test_a_reload_stands_where_it_stood(self) -> None:
        page, driver = self.page, self.driver
        driver.go_to(37)
        page.get_by_text("1/16", exact=True).click()
        page.keyboard.press("o")
        page.keyboard.press("a")
        page.reload()
        driver.wait_drawn(37)
        expect(page.get_by_role("radio", name="1/16")).to_be_checked()
        for name in ("Peg to peg", "Alone"):
            expect(page.get_by_role("button", name=name)).to_have_attribute("aria-pressed", "true")

    def test_playing_runs_in_real_time_and_loops_between_pegs(self) -> None:
        page, driver = self.page, self.driver
        driver.go_to(20)
        page.keyboard.press("Shift+A")
        driver.go_to(60)
        page.keyboard.press("Shift+T")
        driver.go_to(20)
        page.get_by_text("1/4", exact=True).click()
        began = page.evaluate("performance.now()")
        page.keyboard.press("Space")
        page.wait_for_timeout(1500)
        page.keyboard.press("Space")
        seconds = (page.evaluate("performance.now()") - began) / 1000
        moved = driver.frame() - 20
        self.assertAlmostEqual(moved, seconds * 60 / 4, delta=8)  # 60 a second, at a quarter of real time
        driver.go_to(58)
        page.keyboard.press("o")
        page.keyboard.press("Space")
        page.wait_for_timeout(1000)
        page.keyboard.press("Space")
        self.assertTrue(20 <= driver.frame() <= 60)
        self.assertLess(driver.frame(), 58)  # it went round

    def test_impact_between_two_frames_is_named_on_both(self) -> None:
        page, driver = self.page, self.driver
        driver.go_to(76)
        page.keyboard.press("Shift+I")
        expect(page.get_by_test_id("student-time")).to_have_text("+0 ms")
        page.get_by_role("button", name="between this and the next").click()
        expect(page.get_by_test_id("student-time")).to_have_text("−8 ms")  # half of a sixtieth of a second
        expect(driver.stage).to_contain_text("Impact, the frame before")
        page.keyboard.press("ArrowRight")
        expect(driver.stage).to_contain_text("Impact, the frame after")
        expect(page.get_by_test_id("student-time")).to_have_text("+8 ms")
        self.saved(page)
        self.assertEqual((Peg.objects.get().frame, Peg.objects.get().between), (76, True))
        page.keyboard.press("Control+z")
        page.keyboard.press("ArrowLeft")
        expect(page.get_by_test_id("student-time")).to_have_text("+0 ms")

    def test_undo_goes_back_to_the_start(self) -> None:
        page = self.page
        page.keyboard.press("Shift+A")
        self.put(self.driver, "2", 660)
        self.driver.drag((660, 350), (700, 340))
        self.saved(page)
        for _ in range(3):
            page.keyboard.press("Control+z")
        expect(page.locator("[data-mark]")).to_have_count(0)
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        self.saved(page)
        self.assertEqual((Mark.objects.count(), Peg.objects.count()), (0, 0))
        page.keyboard.press("Control+y")
        page.keyboard.press("Control+y")
        expect(page.locator("[data-mark]")).to_have_count(1)
