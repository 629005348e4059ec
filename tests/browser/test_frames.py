"""The frame drawn is the frame named: the strip read back from the stage's canvas."""

import random

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.video import strip_clips

COUNT = 120
VISITS = 60
READ_STRIP = """([block, margin, bits]) => {
  const stage = document.querySelector("section[data-side=student]");
  const canvas = stage.querySelector("canvas[data-drawn]");
  const view = canvas.dataset, dense = canvas.width / canvas.clientWidth;
  const at = (x, y) => [
    canvas.width / 2 + (x - view.cx) * view.scale * dense,
    canvas.height / 2 + (y - view.cy) * view.scale * dense];
  const context = canvas.getContext("2d");
  let number = 0;
  for (let bit = 0; bit < bits; bit++) {
    const [x, y] = at(margin + bit * block + block / 2, margin + block / 2);
    number = number * 2 + (context.getImageData(Math.round(x), Math.round(y), 1, 1).data[1] > 128 ? 1 : 0);
  }
  return [number, Number(stage.querySelector("[data-testid=student-frame]").textContent)];
}"""


class FrameTests(BrowserCase):
    def open_clip(self, name: str) -> Page:
        source = strip_clips.write(self.folder, name, strip_clips.numbered_frames(COUNT))
        clip = self.student_clip(source)
        self.sign_in()
        self.page.goto(f"/bench/{clip.swing_id}")
        self.driver = StageDriver(self.page)
        self.driver.wait_drawn()
        self.page.get_by_role("button", name="Whole").click()
        return self.page

    def settle(self, page: Page) -> int:
        """The frame the rule stands on, once it is drawn."""
        wanted = page.get_by_role("slider", name="Swing rule").get_attribute("aria-valuenow")
        self.driver.wait_drawn(int(wanted or -1))
        return int(wanted or -1)

    def check(self, page: Page) -> int:
        wanted = self.settle(page)
        drawn, named = page.evaluate(READ_STRIP, [strip_clips.strip.BLOCK_PX, 8, 16])
        self.assertEqual((drawn, named), (wanted, wanted))
        return named

    def visit(self, name: str) -> None:
        page = self.open_clip(name)
        box = page.get_by_role("slider", name="Swing rule").bounding_box()
        assert box is not None
        dice = random.Random(name)
        seen = set()
        for _ in range(VISITS):
            page.mouse.click(box["x"] + dice.uniform(60, box["width"] - 20), box["y"] + 30)
            seen.add(self.check(page))
        self.assertGreater(len(seen), VISITS / 3)
        for key in ["ArrowRight"] * 5 + ["Shift+ArrowLeft", "ArrowLeft", ".", ",", "Shift+ArrowRight"]:
            before = self.settle(page)
            page.keyboard.press(key)
            step = (10 if "Shift" in key else 1) * (1 if "Right" in key or key == "." else -1)
            self.assertEqual(self.check(page), min(max(before + step, 0), COUNT - 1))

    def test_h264_with_b_frames(self) -> None:
        self.visit("h264_b_frames.mp4")

    def test_hevc_in_a_mov(self) -> None:
        self.visit("hevc.mov")

    def test_rotated(self) -> None:
        self.visit("rotated.mp4")

    def test_without_a_decoder_the_server_s_stills_are_as_exact(self) -> None:
        self.context.add_init_script("delete window.VideoDecoder")
        page = self.open_clip("h264_b_frames.mp4")
        expect(page.get_by_text("exact stills from the server")).to_be_visible()
        box = page.get_by_role("slider", name="Swing rule").bounding_box()
        assert box is not None
        dice = random.Random(5)
        for _ in range(VISITS // 4):
            page.mouse.click(box["x"] + dice.uniform(80, box["width"] - 30), box["y"] + 30)
            self.check(page)
        page.keyboard.press("ArrowRight")
        self.check(page)

    def test_scrubbing_ends_on_the_frame_under_the_pointer(self) -> None:
        page = self.open_clip("h264_b_frames.mp4")
        box = page.get_by_role("slider", name="Swing rule").bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 100, box["y"] + 30)
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] - 60, box["y"] + 30, steps=80)
        page.mouse.move(box["x"] + 400, box["y"] + 30, steps=40)
        page.mouse.up()
        self.check(page)
        expect(page.get_by_test_id("student-time")).to_have_text("impact not pegged")
