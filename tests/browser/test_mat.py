"""The mat is clicked, and the bench says where the camera stood: for a left-hander, by key, with undo."""

from playwright.sync_api import Route, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import Mat

NAME = "model_lead_line"


class MatTests(BrowserCase):
    def test_four_clicks_say_where_the_camera_stood(self) -> None:
        known = truth(NAME)
        clip = self.student_clip(DEMO_CLIPS / f"{NAME}.mp4", hand="left")
        clip.view = "down_the_line"
        clip.save(update_fields=["view"])
        self.sign_in()
        page = self.page
        page.goto(f"/bench/{clip.swing_id}")
        driver = StageDriver(page)
        driver.wait_drawn()
        page.keyboard.press("0")
        page.keyboard.press("c")
        driver.click(*known["mat_corners"]["pixels"][2])
        page.keyboard.press("Escape")  # put down, and begun again from the first
        page.keyboard.press("c")
        held: list[Route] = []
        page.route(
            "**/edits", lambda route: held.append(route)
        )  # the answer comes while the size is being typed
        for number, (x, y) in enumerate(known["mat_corners"]["pixels"], start=1):
            expect(page.get_by_text(f"Click a corner of the mat ({number} of 4)")).to_be_visible()
            driver.click(x, y)
        panel = page.get_by_role("form", name="Mat and camera")
        expect(panel.get_by_text("How large is this mat?")).to_be_visible()
        panel.get_by_label("along").fill("156,0")
        held[0].continue_()
        page.unroute("**/edits")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertIsNone(Mat.objects.get().along_m)  # nobody has said, and nothing is assumed
        expect(panel.get_by_text("nothing is measured by it before")).to_be_visible()
        expect(panel.get_by_label("along")).to_have_value("156,0")
        panel.get_by_label("across").fill("156")
        page.keyboard.press("Enter")
        expect(panel.get_by_text(f"{known['camera']['height_m']:.2f} ±")).to_be_visible()
        expect(panel.get_by_role("img", name="Plan of where the camera stood")).to_be_visible()
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        mat = Mat.objects.get()
        self.assertEqual((round(mat.along_m or 0, 3), round(mat.across_m or 0, 3)), (1.56, 1.56))
        x, y = known["mat_corners"]["pixels"][0]
        driver.drag((x, y), (x + 60, y - 40))  # no camera sees a mat of that size so
        expect(panel.get_by_role("alert").or_(panel.get_by_text("Off square"))).to_be_visible()
        page.keyboard.press("Control+z")
        expect(panel.get_by_text(f"{known['camera']['height_m']:.2f} ±")).to_be_visible()
        panel.get_by_label("lies in").fill("the range's bay 4")
        page.keyboard.press("Enter")
        page.reload()
        driver.wait_drawn()
        page.keyboard.press("c")
        expect(panel.get_by_text("Off square")).to_be_visible()
        expect(panel.get_by_label("lies in")).to_have_value("the range's bay 4")
        page.keyboard.press("Delete")
        expect(panel).to_have_count(0)
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertFalse(Mat.objects.exists())
