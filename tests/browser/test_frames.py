"""The frame drawn is the frame named: the strip read back from the stage's canvas."""

import random

import numpy as np
from playwright.sync_api import Page, Route, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.video import strip_clips
from tropometer.golfer import strip
from tropometer.server.bench.models import Peg, Swing
from tropometer.server.clips.models import Clip
from tropometer.server.shelf.models import ReferenceSwing

COUNT = 120
VISITS = 60
BITS = [strip.BLOCK_PX, 8, 16]
STRIP_OF = """const stripOf = (side, [block, margin, bits]) => {
  const stage = document.querySelector(`section[data-side=${side}]`);
  const canvas = stage.querySelector("canvas[data-drawn]");
  const view = canvas.dataset, dense = canvas.width / canvas.clientWidth;
  const turned = stage.textContent.includes("shown mirrored") ? -1 : 1;
  const at = (x, y) => [
    canvas.width / 2 + turned * (x - view.cx) * view.scale * dense,
    canvas.height / 2 + (y - view.cy) * view.scale * dense];
  const context = canvas.getContext("2d");
  let number = 0;
  for (let bit = 0; bit < bits; bit++) {
    const [x, y] = at(margin + bit * block + block / 2, margin + block / 2);
    number = number * 2 + (context.getImageData(Math.round(x), Math.round(y), 1, 1).data[1] > 128 ? 1 : 0);
  }
  return [number, Number(stage.querySelector(`[data-testid=${side}-frame]`).textContent)];
};"""
READ_STRIP = f"([side, bits]) => {{ {STRIP_OF} return stripOf(side, bits); }}"
# Steps through a whole clip by the key and reads every frame.
ALL_FRAMES = f"""async ([last, bits, ways]) => {{ {STRIP_OF}
  const canvas = document.querySelector("section[data-side=student] canvas[data-drawn]");
  const drawn = async (frame) => {{
    const began = performance.now();
    while (canvas.dataset.drawn !== String(frame)) {{
      if (performance.now() - began > 5000) throw new Error(`frame ${{frame}} is never drawn`);
      await new Promise(requestAnimationFrame);
    }}
  }};
  const press = (key) => window.dispatchEvent(new KeyboardEvent("keydown", {{ key, bubbles: true }}));
  const read = [];
  await drawn(0);
  read.push([0, ...stripOf("student", bits)]);
  for (const way of ways)
    for (let step = 1; step <= last; step++) {{
      const frame = way > 0 ? step : last - step;
      press(way > 0 ? "ArrowRight" : "ArrowLeft");
      await drawn(frame);
      read.push([frame, ...stripOf("student", bits)]);
    }}
  return read;
}}"""

# What small pictures of pegs show: the bits of the number in their strip.
GREENS = f"""canvases => canvases.map((canvas) => {{
  const context = canvas.getContext("2d"), scale = canvas.height / {strip_clips.SIZE[1]};
  let bits = "";
  for (let bit = 0; bit < {BITS[2]}; bit++) {{
    const x = ({BITS[1]} + (bit + 0.5) * {BITS[0]}) * scale, y = ({BITS[1]} + {BITS[0]} / 2) * scale;
    bits += context.getImageData(Math.round(x), Math.round(y), 1, 1).data[1] > 128 ? 1 : 0;
  }}
  return bits;
}})"""
# Takes each decoder away after its third flush, as browsers do when it was not used for a while.
TAKEN_AWAY = """
self.VideoDecoder = class extends self.VideoDecoder {
  constructor(init) { super(init); this.told = init.error; this.flushes = 0; }
  async flush() {
    await super.flush();
    if (++this.flushes < 3) return;
    this.close();
    this.told(new DOMException("Codec reclaimed due to inactivity.", "QuotaExceededError"));
  }
};
"""


class FrameTests(BrowserCase):
    def open_clip(self, name: str) -> Page:
        source = strip_clips.write(self.folder, name, strip_clips.numbered_frames(COUNT))
        clip = self.student_clip(source)
        self.sign_in()
        self.page.goto(f"/bench/{clip.swing_id}")
        self.driver = StageDriver(self.page)
        self.driver.wait_drawn()
        self.page.get_by_role("button", name="Whole").first.click()
        return self.page

    def settle(self, page: Page) -> int:
        """The frame the rule stands on, once it is drawn."""
        wanted = page.get_by_role("slider", name="Swing rule").get_attribute("aria-valuenow")
        self.driver.wait_drawn(int(wanted or -1))
        return int(wanted or -1)

    def check(self, page: Page) -> int:
        wanted = self.settle(page)
        drawn, named = page.evaluate(READ_STRIP, ["student", BITS])
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

    def test_any_frame_is_reached_and_is_the_one_named(self) -> None:
        self.visit("h264_b_frames.mp4")

    def test_every_frame_of_every_format(self) -> None:
        for name in strip_clips.FORMATS:
            with self.subTest(name):
                page = self.open_clip(name)
                first = strip_clips.first_number(name)
                last = COUNT - first - 1
                ways = [1, -1] if name == "h264_b_frames.mp4" else [1]
                read = page.evaluate(ALL_FRAMES, [last, BITS, ways])
                self.assertEqual(len(read), len(ways) * last + 1)
                wrong = [row for row in read if row != [row[0], row[0] + first, row[0]]]
                self.assertEqual(wrong, [])

    def test_two_clips_of_different_size_rate_and_hand_run_together(self) -> None:
        model = Swing.objects.create(instructor=self.owner, reference_hand="left", club="Wedge")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        frames = [np.ascontiguousarray(frame[:, 60:620]) for frame in strip_clips.numbered_frames(COUNT)]
        for number, frame in enumerate(frames):
            strip.paint(frame, number)
        other = self.clip_from(strip_clips.write(self.folder, "rotated.mp4", frames), model, 240)
        page = self.open_clip("h264_b_frames.mp4")
        StageDriver(page, "reference").wait_drawn()
        for clip, pegs in ((Clip.objects.exclude(pk=other.pk).get(), (10, 50, 80)), (other, (4, 60, 118))):
            for name, frame in zip(("address", "top", "impact"), pegs, strict=True):
                Peg.objects.create(clip=clip, name=name, frame=frame)
        page.reload()
        self.driver.wait_drawn()
        reference = StageDriver(page, "reference")
        # Straight between pegs, by real time.
        for frame, follows in ((10, 4), (30, 32), (50, 60), (65, 89), (80, 118), (72, 103), (50, 60)):
            self.driver.go_to(frame)
            reference.wait_drawn(follows)
            self.assertEqual(page.evaluate(READ_STRIP, ["student", BITS]), [frame, frame])
            self.assertEqual(page.evaluate(READ_STRIP, ["reference", BITS]), [follows, follows])

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

    def test_a_clip_is_fetched_once_and_gives_the_pictures_of_its_pegs(self) -> None:
        page = self.open_clip("h264_b_frames.mp4")
        for name, frame in (("address", 9), ("top", 60), ("impact", 88)):
            Peg.objects.create(clip=Clip.objects.get(), name=name, frame=frame)
        asked: list[str] = []
        page.on("request", lambda request: asked.append(request.url))
        page.reload()
        self.driver.wait_drawn()
        pictures = page.get_by_role("list", name="Pegs").locator("canvas[data-drawn]")
        expect(pictures).to_have_count(3)
        for frame in (3, 110, 60):
            self.driver.go_to(frame)
        self.assertEqual(len([url for url in asked if url.endswith("proxy.mp4")]), 1)
        self.assertEqual([url for url in asked if "/stills/" in url], [])
        greens = pictures.evaluate_all(GREENS)
        self.assertEqual(greens, [self.painted(frame) for frame in (9, 60, 88)])

    def painted(self, frame: int) -> str:
        """The bits of a frame's number, as they are painted."""
        return f"{frame:0{BITS[2]}b}"

    def test_a_decoder_that_the_browser_took_away_is_opened_again(self) -> None:
        def taken_away(route: Route) -> None:
            answer = route.fetch()
            route.fulfill(response=answer, body=TAKEN_AWAY + answer.text())

        self.context.route("**/clip.worker-*.js", taken_away)
        page = self.open_clip("h264_b_frames.mp4")
        for frame in (70, 20, 100, 5, 55):
            self.driver.go_to(frame)
            self.assertEqual(page.evaluate(READ_STRIP, ["student", BITS]), [frame, frame])
            page.wait_for_timeout(600)  # time to decode ahead, and to lose the decoder
        expect(page.get_by_role("alert")).to_have_count(0)

    def test_workers_that_could_not_be_loaded_while_they_waited_are_not_used(self) -> None:
        left = [2]  # as many as are made ready

        def gone(route: Route) -> None:
            left[0] -= 1
            if left[0] >= 0:
                route.abort()
            else:
                route.continue_()

        self.context.route("**/clip.worker-*.js", gone)
        page = self.open_clip("h264_b_frames.mp4")
        self.assertLess(left[0], 0)
        self.driver.go_to(30)
        self.assertEqual(page.evaluate(READ_STRIP, ["student", BITS]), [30, 30])

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
