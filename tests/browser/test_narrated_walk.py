"""A walk is spoken on the bench and played on a phone, voice and picture together, whatever happens."""

from __future__ import annotations

import re
import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np
from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.server.voices import RATE
from tests.video import strip_clips
from tropometer.golfer import strip
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.sending import send
from tropometer.server.walks.making import make
from tropometer.server.walks.models import Piece, Take, Walk
from tropometer.video.voice import read_voice

COUNT = 40
TOGETHER_S, DRIFT_S = 0.12, 0.04  # the made-up microphone is 0.01 late by itself, up to 0.085 under load
# A microphone that hears a tone exactly when a key is pressed.
MICROPHONE = """
navigator.mediaDevices.getUserMedia = async () => {
  const context = new AudioContext({ sampleRate: 48000 });
  const tone = new OscillatorNode(context, { frequency: 700 });
  const loud = new GainNode(context, { gain: 0 });
  const out = new MediaStreamAudioDestinationNode(context, { channelCount: 1 });
  tone.connect(loud).connect(out);
  tone.start();
  await context.resume();
  window.unplug = () => {
    const [track] = out.stream.getAudioTracks();
    track.stop();
    track.dispatchEvent(new Event("ended"));
  };
  window.say = (key) => {
    loud.gain.value = 0.4;
    if (key) window.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
    setTimeout(() => { loud.gain.value = 0; }, 200);
  };
  return out.stream;
};
"""
# The number in the strip of a stage that plays: bits that lie beyond its edge are naught.
PLAYED_STRIP = """([side, block, margin, bits]) => {
  const canvas = document.querySelector(`[data-walk-stage=${side}] canvas`);
  const view = canvas.dataset, dense = canvas.width / canvas.clientWidth, context = canvas.getContext("2d");
  let number = 0;
  for (let bit = 0; bit < bits; bit++) {
    const x = canvas.width / 2 + (margin + bit * block + block / 2 - view.cx) * view.scale * dense;
    const y = canvas.height / 2 + (margin + block / 2 - view.cy) * view.scale * dense;
    const green = x < 0 ? 0 : context.getImageData(Math.round(x), Math.round(y), 1, 1).data[1];
    number = number * 2 + (green > 128 ? 1 : 0);
  }
  return number;
}"""


def tones(voice: Any) -> list[float]:
    """When a tone begins, seconds."""
    loud = np.abs(voice) > 0.25 * np.abs(voice).max()
    at = np.flatnonzero(loud)
    return [at[i] / RATE for i in range(len(at)) if i == 0 or at[i] - at[i - 1] > 0.1 * RATE]


class NarratedWalkTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        source = strip_clips.write(self.folder, "h264_b_frames.mp4", strip_clips.numbered_frames(COUNT))
        self.clip = self.student_clip(source)
        self.sign_in()
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=self.clip.swing, title="Your 7 iron")
        self.context.add_init_script(MICROPHONE)

    def bench(self, page: Page) -> StageDriver:
        page.goto(f"/bench/{self.clip.swing_id}?station=tell")
        driver = StageDriver(page)
        driver.wait_drawn()
        expect(page.get_by_role("button", name=re.compile("^Record"))).to_be_enabled()
        page.keyboard.press("0")  # the strip is seen in the whole picture only
        return driver

    def record(self, page: Page) -> StageDriver:
        driver = self.bench(page)
        page.keyboard.press("Shift+R")
        expect(page.get_by_role("timer")).to_have_text(re.compile(r"0:0[1-9]"))
        return driver

    def end(self, page: Page) -> None:
        page.get_by_role("button", name="End", exact=True).click()
        expect(page.get_by_role("button", name="Record more")).to_be_enabled()
        self.saved(page)

    def made(self) -> tuple[Walk, Any]:
        make(self.lesson.pk)
        walk = Walk.objects.get()
        with tempfile.NamedTemporaryFile(suffix=".m4a") as file:
            Path(file.name).write_bytes(walk.voice.read())
            return walk, np.concatenate(list(read_voice(Path(file.name))))

    def test_voice_and_picture_go_together_from_the_bench_to_a_phone(self) -> None:
        page = self.page
        driver = self.record(page)
        for _ in range(5):
            page.evaluate("say('ArrowRight')")
            page.wait_for_timeout(700)
        self.assertEqual(driver.frame(), 5)
        page.get_by_role("toolbar", name="Chalk").get_by_role("button", name="Arrow").click()
        driver.drag((200, 200), (300, 260))
        page.wait_for_timeout(600)
        check_axe(self, page, "recording")
        self.end(page)
        walk, voice = self.made()
        steps = [e["at"] / 1000 for e in walk.score if e["kind"] == "frame"]
        heard = tones(voice)
        self.assertEqual(len(heard), 5)
        for at, step in zip(heard, steps, strict=True):
            self.assertLess(abs(at - step), TOGETHER_S)
        late = np.array(heard) - np.array(steps)
        self.assertLess(late.max() - late.min(), DRIFT_S)

        self.owner.students.update(email="tobin@skerrow.example")
        send(self.lesson)
        phone = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 390, "height": 844}, has_touch=True
        )
        self.addCleanup(phone.close)
        student = phone.new_page()
        student.goto(f"/l/{Lesson.objects.get().token}")
        student.get_by_role("button", name="Walk through your swing").click()
        expect(student.get_by_role("button", name="Pause")).to_be_visible()  # it speaks at once
        student.get_by_role("button", name="Pause").click()
        bar = student.get_by_role("slider", name="Where in the walk")
        stage = student.locator("[data-walk-stage=student]")
        for number, at in enumerate(steps, start=1):
            for ms, frame in ((at * 1000 + 150, number), (at * 1000 - 100, number - 1)):
                bar.fill(str(round(ms / 100) * 100))
                expect(stage).to_have_attribute("data-drawn", str(frame))
                read = student.evaluate(
                    PLAYED_STRIP, ["student", strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS]
                )
                self.assertEqual(read, frame)
        check_axe(self, student, "a walk that plays")
        student.get_by_role("button", name="One frame on").click()
        expect(stage).to_have_attribute("data-drawn", str(len(steps)))
        bar.fill(str(walk.length_ms // 100 * 100))
        expect(stage.locator("[data-chalk=arrow]")).to_be_visible()
        bar.fill("0")
        student.get_by_role("button", name="Play").click()
        expect(stage).to_have_attribute("data-drawn", "5")
        student.get_by_role("button", name="Pause").click()

    def test_what_was_said_outlives_the_connection_and_the_tab(self) -> None:
        page = self.page
        self.record(page)
        self.context.set_offline(True)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(6000)
        self.context.set_offline(False)
        page.evaluate("say('ArrowRight')")
        deadline = time.time() + 30
        while Piece.objects.count() < 4 and time.time() < deadline:
            page.wait_for_timeout(500)
        page.close(run_before_unload=False)  # as when the lid is closed
        self.assertFalse(Take.objects.get().ended)
        walk, voice = self.made()
        self.assertGreater(walk.length_ms, 6000)
        self.assertGreaterEqual(len(tones(voice)), 1)
        again = self.new_page()
        self.bench(again)
        expect(again.get_by_role("button", name="Record more")).to_be_enabled()
        expect(again.get_by_role("region", name="Walk through your swing")).to_be_visible()

    def test_a_microphone_that_is_refused_or_unplugged_is_said_and_loses_nothing(self) -> None:
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(2500)
        page.evaluate("unplug()")
        expect(page.get_by_role("alert")).to_contain_text("What was said before is kept")
        self.saved()
        self.assertTrue(Take.objects.get().ended)
        _, voice = self.made()
        self.assertEqual(len(tones(voice)), 1)
        refuse = "navigator.mediaDevices.getUserMedia = async () => { throw new DOMException('', '%s') }"
        for name, words in (("NotAllowedError", "not allowed"), ("NotFoundError", "No microphone is there")):
            page.evaluate(f"() => {{ {refuse % name}; }}")
            page.keyboard.press("Shift+R")
            expect(page.get_by_role("alert")).to_contain_text(words)

    def test_a_browser_without_any_codec_records_as_well(self) -> None:
        self.context.add_init_script("delete window.AudioEncoder;")
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(1500)
        self.end(page)
        self.assertEqual(Take.objects.get().container, "wav")
        walk, voice = self.made()
        (step,) = [e["at"] / 1000 for e in walk.score if e["kind"] == "frame"]
        (heard,) = tones(voice)
        self.assertLess(abs(heard - step), TOGETHER_S)

    def test_a_stretch_is_cut_out_and_brought_back(self) -> None:
        page = self.page
        self.record(page)
        for _ in range(3):
            page.evaluate("say('ArrowRight')")
            page.wait_for_timeout(900)
        self.end(page)
        before, _ = self.made()
        bar = page.get_by_role("slider", name="Where in the walk")
        bar.fill("1500")
        page.get_by_role("button", name="From here …").click()
        bar.fill("2500")
        page.get_by_role("button", name="Cut out 0:01 to 0:02").click()
        self.saved()
        cut, voice = self.made()
        self.assertAlmostEqual(cut.length_ms, before.length_ms - 1000, delta=40)
        self.assertAlmostEqual(len(voice) / RATE, cut.length_ms / 1000, delta=0.04)
        page.get_by_role("button", name="Undo the last change of the walk").click()
        self.saved()
        self.assertAlmostEqual(self.made()[0].length_ms, before.length_ms, delta=10)

    def test_a_stretch_is_said_anew_and_the_old_one_comes_back_after_a_reload(self) -> None:
        page = self.page
        self.record(page)
        page.wait_for_timeout(3200)
        self.end(page)
        before, _ = self.made()
        bar = page.get_by_role("slider", name="Where in the walk")
        bar.fill("1000")
        page.get_by_role("button", name="From here …").click()
        bar.fill("2000")
        page.get_by_role("button", name="Say it anew").click()
        expect(page.get_by_role("button", name="End", exact=True)).to_be_visible()
        page.wait_for_timeout(2500)
        self.end(page)
        self.assertEqual(Take.objects.count(), 2)
        anew, _ = self.made()
        self.assertEqual([stretch["from"] for stretch in anew.cut], [0, 0, 2000])
        said = next(take for take in Take.objects.all() if str(take.pk) == anew.cut[1]["take"])
        self.assertAlmostEqual(anew.length_ms, before.length_ms - 1000 + said.length_ms, delta=60)
        page.reload()
        page.get_by_role("button", name="Undo the last change of the walk").click()
        self.saved()
        self.assertAlmostEqual(self.made()[0].length_ms, before.length_ms, delta=10)
