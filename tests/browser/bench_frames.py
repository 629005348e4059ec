"""Measures stepping and seeking on the bench beside a plain video element, on the same clip in one run.

Run by ./tropo bench; prints a table and fails on nothing but a wrong frame.
"""

import os
import re
from pathlib import Path
from statistics import median
from time import monotonic
from typing import Any

import cv2
import numpy as np
from django.test import tag
from playwright.sync_api import Page, Response

from tests.browser.base import BrowserCase, StageDriver
from tests.server import making
from tests.swings import DEMO_CLIPS, ROOT
from tests.video import strip_clips
from tropometer.golfer.formats import Recording, write
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip
from tropometer.server.demo.drawn import put_on
from tropometer.server.shelf.models import ReferenceSwing

STEPS, SEEKS = 120, 80
JSON = "application/json; charset=utf-8"
# Each step is timed from the key or the click to the frame standing on the canvas.
ON_BENCH = """async ([steps, seeks, frames]) => {
  const stage = document.querySelector("section[data-side=student]");
  const canvas = stage.querySelector("canvas[data-drawn]");
  const rule = document.querySelector("[role=slider]");
  const now = () => Number(canvas.dataset.drawn);
  // Told by the change itself: a polling clock would add its own tick.
  const until = (there) => new Promise((done) => {
    if (there()) return done();
    const watch = new MutationObserver(() => { if (there()) { watch.disconnect(); done(); } });
    watch.observe(document.body, { attributes: true, childList: true, characterData: true, subtree: true });
  });
  const step = [], seek = [];
  const parts = { asking: [], reading: [], decoding: [], copying: [], messages: [], drawing: [] };
  for (let i = 0; i < steps; i++) {
    const wanted = now() + 1 < frames ? now() + 1 : now();
    const start = performance.now();
    window.dispatchEvent(new KeyboardEvent("keydown", { key: ".", bubbles: true }));
    await until(() => now() === wanted);
    step.push(performance.now() - start);
    await new Promise((r) => setTimeout(r, 25));
  }
  const box = rule.getBoundingClientRect();
  let seed = 7;
  for (let i = 0; i < seeks; i++) {
    seed = (seed * 48271) % 2147483647;
    const x = box.left + 80 + (seed / 2147483647) * (box.width - 110);
    const before = now();
    const start = performance.now();
    const at = { clientX: x, clientY: box.top + 30, pointerId: 1, buttons: 1, bubbles: true };
    rule.dispatchEvent(new PointerEvent("pointermove", at));
    const wanted = () => Number(rule.getAttribute("aria-valuenow"));
    const there = until(() => wanted() !== before && wanted() === now()).then(() => true);
    const moved = await Promise.race([there, new Promise((r) => setTimeout(r, 2000))]);
    const end = performance.now();
    if (moved) seek.push(end - start);  // else it fell on the same frame
    if (moved && window.asked > start && window.heard.number === now()) {
      const { at, reading, decoding, copying } = window.heard;
      parts.asking.push(window.asked - start);
      parts.reading.push(reading);
      parts.decoding.push(decoding);
      parts.copying.push(copying);
      parts.messages.push(at - window.asked - reading - decoding - copying);
      parts.drawing.push(end - at);
    }
    await new Promise((r) => setTimeout(r, 120));
  }
  return { step, seek, parts };
}"""
# Hears what the stages ask of their workers, and when the answers come.
LISTEN = """
const Plain = window.Worker;
window.Worker = class extends Plain {
  constructor(...given) {
    super(...given);
    this.addEventListener("message", ({ data }) => {
      if (data.kind === "picture" && data.height === null)
        window.heard = { at: performance.now(), number: data.number, ...data.took };
    });
  }
  postMessage(asked, ...rest) {
    if (asked.kind === "decode" && asked.first === asked.last) window.asked = performance.now();
    super.postMessage(asked, ...rest);
  }
};
"""
ON_VIDEO = """async ([url, steps, seeks, frames]) => {
  const video = document.createElement("video");
  video.muted = true;
  video.src = url;
  document.body.append(video);
  await new Promise((done) => { video.onloadeddata = done; });
  const canvas = document.createElement("canvas");
  canvas.width = video.videoWidth; canvas.height = video.videoHeight;
  const context = canvas.getContext("2d");
  const go = async (frame) => {
    const start = performance.now();
    video.currentTime = (frame + 0.5) / 30;
    await new Promise((done) => { video.onseeked = done; });
    context.drawImage(video, 0, 0);
    return performance.now() - start;
  };
  const step = [], seek = [];
  for (let i = 1; i <= Math.min(steps, frames - 1); i++) step.push(await go(i));
  let seed = 7;
  for (let i = 0; i < seeks; i++) {
    seed = (seed * 48271) % 2147483647;
    seek.push(await go(Math.floor((seed / 2147483647) * frames)));
  }
  video.remove();
  return { step, seek };
}"""


# Scrubs to and fro across the whole rule, a new place each screen refresh, as a fast hand does.
SCRUB = """async ([seconds]) => {
  const rule = document.querySelector("[role=slider]");
  const canvas = document.querySelector("section[data-side=student] canvas[data-drawn]");
  const box = rule.getBoundingClientRect();
  const wanted = () => Number(rule.getAttribute("aria-valuenow"));
  const behind = [], drawn = new Set();
  const end = performance.now() + seconds * 1000;
  for (let i = 0; performance.now() < end; i++) {
    const share = Math.abs(((i / 180) % 2) - 1);  // once across in three seconds
    const x = box.left + 74 + share * (box.width - 100);
    const at = { clientX: x, clientY: box.top + 30, pointerId: 1, buttons: 1, bubbles: true };
    rule.dispatchEvent(new PointerEvent("pointermove", at));
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    behind.push(Math.abs(wanted() - Number(canvas.dataset.drawn)));
    drawn.add(canvas.dataset.drawn);
  }
  return { behind, drawn: drawn.size };
}"""
SCRUB_SECONDS = float(os.environ.get("TROPO_SCRUB_SECONDS", "30"))


def processes_mb() -> float:
    """Memory of the browser's processes, proportional share, MB."""
    total = 0
    for folder in Path("/proc").iterdir():
        try:
            if b"chromium" not in (folder / "cmdline").read_bytes():
                continue
            total += int(re.search(rb"Pss:\s+(\d+)", (folder / "smaps_rollup").read_bytes()).group(1))  # type: ignore[union-attr]
        except (OSError, AttributeError):
            continue
    return total / 1024


def row(name: str, bench: list[float], video: list[float]) -> str:
    def p95(values: list[float]) -> float:
        return sorted(values)[int(0.95 * (len(values) - 1))]

    ratio = median(video) / median(bench)
    cells = f"{median(bench):8.1f} {p95(bench):8.1f} {median(video):10.1f} {p95(video):8.1f} {ratio:7.1f}x"
    return f"{name:<14}{cells}"


TWO_STAGES = """async (steps) => {
  const canvases = ["student", "reference"].map((side) =>
    document.querySelector(`section[data-side=${side}] canvas[data-drawn]`));
  const named = (side) => Number(document.querySelector(`[data-testid=${side}-frame]`).textContent);
  const took = [];
  const rule = document.querySelector("[role=slider]");
  for (let i = 0; i < steps; i++) {
    const before = canvases.map((canvas) => canvas.dataset.drawn).join();
    const start = performance.now();
    window.dispatchEvent(new KeyboardEvent("keydown", { key: i % 90 < 45 ? "." : ",", bubbles: true }));
    await new Promise((done) => {
      const look = () => {
        const now = canvases.map((canvas) => canvas.dataset.drawn).join();
        const there = Number(canvases[0].dataset.drawn) === Number(rule.getAttribute("aria-valuenow"));
        return now !== before && there && named("reference") === Number(canvases[1].dataset.drawn);
      };
      if (look()) return done();
      const watch = new MutationObserver(() => { if (look()) { watch.disconnect(); done(); } });
      watch.observe(document.body, { attributes: true, childList: true, characterData: true, subtree: true });
    });
    took.push(performance.now() - start);
    await new Promise((r) => setTimeout(r, 25));
  }
  return took;
}"""


# Steps to and fro, each given two screen refreshes: with no watcher, whose own work would be counted.
TO_AND_FRO = """async (steps) => {
  for (let i = 0; i < steps; i++) {
    window.dispatchEvent(new KeyboardEvent("keydown", { key: i % 90 < 45 ? "." : ",", bubbles: true }));
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
  }
}"""


# What the same sum takes tells how quick the machine is just now.
YARDSTICK = """() => {
  const began = performance.now();
  let sum = 0;
  for (let i = 0; i < 2e7; i++) sum += Math.sqrt(i) % 7;
  return sum ? performance.now() - began : 0;
}"""


@tag("bench")
class FrameBench(BrowserCase):
    def test_stepping_and_seeking(self) -> None:
        clip = self.student_clip(DEMO_CLIPS / "ilse_face.mov")
        self.sign_in()
        page: Page = self.page
        page.add_init_script(LISTEN)
        opened: list[float] = []
        for _ in range(5):
            page.goto("/inbox")
            page.get_by_role("link", name="Open on the bench").wait_for()
            page.wait_for_timeout(1000)  # a moment to read it
            began = monotonic()
            page.get_by_role("link", name="Open on the bench").click()
            StageDriver(page).wait_picture()
            opened.append((monotonic() - began) * 1000)
        page.wait_for_timeout(1500)
        bench: dict[str, Any] = page.evaluate(ON_BENCH, [STEPS, SEEKS, clip.frame_count])
        url = f"/api/clips/{clip.pk}/proxy.mp4"
        video: dict[str, Any] = page.evaluate(ON_VIDEO, [url, STEPS, SEEKS, clip.frame_count])
        two = self.two_stages(page, clip.swing_id)
        print(f"\n{clip.frame_count} frames of {clip.width} x {clip.height}; milliseconds")
        print(f"{'':<14}{'bench':>8} {'p95':>8} {'video el.':>10} {'p95':>8} {'ratio':>8}")
        print(row("frame step", bench["step"], video["step"]))
        print(row("random seek", bench["seek"], video["seek"]))
        took = bench["parts"]
        print("a seek that decodes:", ", ".join(f"{name} {median(each):.1f}" for name, each in took.items()))
        print(row("two stages", two, [2 * step for step in video["step"]]), "(video element taken twice)")
        print(f"click to first frame {median(opened):.0f} ms, worst of {len(opened)} {max(opened):.0f};")
        print(f"  with nothing in the browser's cache {self.cold():.0f}")
        print(f"a fixed sum takes this machine {page.evaluate(YARDSTICK):.0f} ms, with nothing beside it")
        self.script_of_a_step(page)
        self.opening(page)
        self.scrub(page)
        for script in sorted((ROOT / "web/dist/assets").glob("*.js")):
            print(f"{script.name:<28}{script.stat().st_size / 1024:8.0f} KiB")

    def cold(self) -> float:
        """From the click to the first frame in a browser that has loaded the inbox and nothing else, ms."""
        context = self.browser.new_context(base_url=self.live_server_url, viewport=self.viewport)  # type: ignore[arg-type]
        context.add_cookies(self.context.cookies())  # type: ignore[arg-type]
        page = context.new_page()
        page.goto("/inbox")
        page.get_by_role("link", name="Open on the bench").wait_for()
        page.wait_for_timeout(1000)
        began = monotonic()
        page.get_by_role("link", name="Open on the bench").click()
        StageDriver(page).wait_picture()
        took = (monotonic() - began) * 1000
        context.close()
        return took

    def two_stages(self, page: Page, swing_id: object) -> list[float]:
        """Stepping with a reference beside, both linked by their pegs."""
        model = Swing.objects.create(instructor=self.owner, reference_hand="right", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        put_on(self.clip_from(DEMO_CLIPS / "model_loaded_face.mp4", model), "model_loaded_face", whole=False)
        page.goto(f"/bench/{swing_id}")
        StageDriver(page).wait_drawn()
        StageDriver(page, "reference").wait_drawn()
        page.wait_for_timeout(2500)
        took: list[float] = page.evaluate(TWO_STAGES, STEPS)
        return took

    def script_of_a_step(self, page: Page) -> None:
        """What the browser works for one step of two linked stages, at each station."""
        client = page.context.new_cdp_session(page)
        client.send("Performance.enable")

        def spent() -> dict[str, float]:
            found = client.send("Performance.getMetrics")["metrics"]
            return {each["name"]: each["value"] for each in found}

        for key, station in zip("mrj", ("mark", "read", "judge"), strict=True):
            page.keyboard.press(key)
            page.wait_for_timeout(1500)
            page.evaluate(TO_AND_FRO, 180)  # there and back twice, so that frames and code are warm
            before = spent()
            page.evaluate(TO_AND_FRO, 90)
            after = spent()
            script, layout = (
                sum(after[name] - before[name] for name in names) * 1000 / 90
                for names in (("ScriptDuration",), ("LayoutDuration", "RecalcStyleDuration"))
            )
            print(f"a step at {station:<6} {script:5.1f} ms of script, {layout:4.1f} of style and layout")

    def opening(self, page: Page) -> None:
        """What comes over the line when two swings marked from both sides are opened, and after an edit."""
        student = making.seen_from_both(self.owner, "tobin_first_face", "tobin_first_line")
        model = making.seen_from_both(self.owner, "model_loaded_face", "model_loaded_line")
        ReferenceSwing.objects.all().delete()
        model.student = None
        model.reference_hand = "right"
        model.save()
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        for swing in (student, model):
            swing.one_swing = True
            swing.save()
            for clip in swing.clips.all():
                making.with_picture(clip, self.folder)
        page.goto("/inbox")
        link = page.locator(f"a[href='/bench/{student.pk}']")
        link.first.wait_for()
        page.wait_for_timeout(1500)
        answers: dict[str, Response] = {}  # one each: whether marks were followed is asked again and again
        page.on("response", lambda answer: answers.setdefault(answer.url, answer))
        link.first.evaluate("link => link.click()")
        StageDriver(page, "reference").wait_drawn()
        page.wait_for_timeout(2500)
        clips = [each for url, each in answers.items() if url.endswith(".mp4")]
        told = [each for each in answers.values() if each.headers.get("content-type", "") == JSON]
        plain = sum(len(each.body()) for each in told) / 1024
        packed = sum(int(each.headers.get("content-length", 0)) for each in told) / 1024
        moved = sum(int(each.headers.get("content-length", 0)) for each in clips) / 1024**2
        print(
            f"opening the bench, both swings marked from both sides: {len(answers)} requests;\n"
            f"  {len(clips)} of them for {moved:.1f} MB of clips;\n"
            f"  {len(told)} answers of {plain:.0f} KiB of JSON, {packed:.0f} compressed"
        )
        page.keyboard.press("m")
        StageDriver(page).go_to(5)
        with page.expect_response("**/edits") as answered:
            page.keyboard.press("Shift+T")
        print(f"  an edit is answered with {len(answered.value.body()) / 1024:.0f} KiB")

    def scrub(self, page: Page) -> None:
        """Across a swing of 720 frames, and what the browser holds meanwhile."""
        frames = strip_clips.numbered_frames(120)
        large = [np.asarray(cv2.resize(frame, (1280, 720)), np.uint8) for frame in frames]
        source = self.folder / "long.mp4"
        write(
            source, (large[n % 120] for n in range(720)), 720, Recording(capture_fps=240, played_fps=30), []
        )
        clip = self.student_clip(source, name="Wynn Osk", email="wynn@skerrow.example")
        Clip.objects.filter(pk=clip.pk).update(capture_fps=240)
        page.goto(f"/bench/{clip.swing_id}")
        StageDriver(page).wait_drawn()
        StageDriver(page, "reference").wait_drawn()
        page.wait_for_timeout(1000)
        held = []
        lag: list[int] = []
        seen = 0
        for _ in range(6):
            found = page.evaluate(SCRUB, [SCRUB_SECONDS / 6])
            lag += found["behind"]
            seen = max(seen, found["drawn"])
            held.append(processes_mb())
        late = sorted(lag)[int(0.95 * (len(lag) - 1))]
        print(f"scrubbing across 720 frames, 240 a second, for {SCRUB_SECONDS:.0f} s:")
        print(f"  frames behind the pointer {median(lag):.0f}, p95 {late}")
        print(f"  {seen} different frames drawn; browser holds, MB: {' '.join(f'{mb:.0f}' for mb in held)}")
