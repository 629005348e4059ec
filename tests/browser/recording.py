"""A walk that is recorded on the bench by a microphone that hears exactly what a test says."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path
from typing import Any

import numpy as np
from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, StageDriver
from tests.video import strip_clips
from tropometer.golfer import strip
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.sending import send
from tropometer.server.walks.making import make
from tropometer.server.walks.models import Walk
from tropometer.video.voice import read_voice

COUNT = 40
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


class RecordingCase(BrowserCase):
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

    def phone(self) -> Page:
        """The lesson is sent; its student has it open on a phone."""
        self.owner.students.update(email="tobin@skerrow.example")
        send(self.lesson)
        phone = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 390, "height": 844}, has_touch=True
        )
        self.addCleanup(phone.close)
        return phone.new_page()

    def played_strip(self, page: Page) -> int:
        """The number in the student's stage of a walk that plays."""
        read = page.evaluate(PLAYED_STRIP, ["student", strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS])
        return int(read)
