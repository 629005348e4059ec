"""The phone as a mirror: the camera is Chromium's own, fed with a made-up golfer's swing over and over."""

from __future__ import annotations

import tempfile
import wave
from pathlib import Path

import av
import cv2
import numpy as np
from playwright.sync_api import Page, expect

from tests.browser.base import FLAGS, BrowserCase
from tests.browser.test_accessible import check_axe
from tests.server import making
from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer import strip
from tropometer.server.bench.models import Swing
from tropometer.server.people.student_page import page_of

NAME = "tobin_first_face"
EVERY = 2  # of 60 frames a second a camera of 30 shows
STILL_FRAMES = 60  # before and after the swing
# All frame numbers that a replay shows, from its beginning to its end.
SHOWN_FRAMES = """async ([block, margin, bits]) => {
  const video = document.querySelector("[data-testid=replay]");
  video.pause();
  while (video.readyState < 2) await new Promise((done) => setTimeout(done, 20)); // shown before it is read
  const canvas = new OffscreenCanvas(video.videoWidth, video.videoHeight), context = canvas.getContext("2d");
  const found = [];
  for (let at = 0; at < video.duration; at += 1 / 30) {
    video.currentTime = at;
    await new Promise((done) => video.addEventListener("seeked", done, { once: true }));
    context.drawImage(video, 0, 0);
    let number = 0;
    for (let bit = 0; bit < bits; bit++) {
      const x = margin + bit * block + block / 2;
      number = number * 2 + (context.getImageData(x, margin + block / 2, 1, 1).data[1] > 128 ? 1 : 0);
    }
    found.push(number);
  }
  return found;
}"""


def as_camera(folder: Path, numbered: bool) -> Path:
    """A swing with stillness about it, as a file that Chromium shows for a camera: pictures in JPEG."""
    with av.open(str(DEMO_CLIPS / f"{NAME}.mp4")) as clip:
        frames = [frame.to_ndarray(format="bgr24") for frame in clip.decode(video=0)]
    if numbered:
        for number, frame in enumerate(frames):
            strip.paint(frame, number)
    shown = frames[::EVERY]
    shown = [shown[0]] * STILL_FRAMES + shown + [shown[-1]] * STILL_FRAMES
    target = folder / "camera.mjpeg"
    with target.open("wb") as out:
        for frame in shown:
            out.write(cv2.imencode(".jpg", frame, [cv2.IMWRITE_JPEG_QUALITY, 90])[1].tobytes())
    return target


def as_microphone(folder: Path) -> Path:
    """A room in which nobody makes a sound: Chromium's own would beep every second."""
    target = folder / "silence.wav"
    with wave.open(str(target), "wb") as out:
        out.setparams((1, 2, 48_000, 0, "NONE", ""))
        out.writeframes(bytes(2 * 48_000))
    return target


class CameraCase(BrowserCase):
    """A browser whose camera shows a swing over and over."""

    numbered = False  # its strip would move, where nothing but the golfer should

    @classmethod
    def setUpClass(cls) -> None:
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.flags = [
            *FLAGS,
            "--use-fake-ui-for-media-stream",
            "--use-fake-device-for-media-stream",
            f"--use-file-for-fake-video-capture={as_camera(Path(folder.name), cls.numbered)}",
            f"--use-file-for-fake-audio-capture={as_microphone(Path(folder.name))}",
        ]
        super().setUpClass()

    def opened(self) -> Page:
        self.student = making.student(self.owner)
        self.token = page_of(self.student).token
        phone = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 390, "height": 844}, permissions=["camera"]
        )
        self.addCleanup(phone.close)
        page = phone.new_page()
        page.on("pageerror", lambda error: self.fail(f"The page broke: {error}"))
        page.goto(f"/p/{self.token}")
        page.get_by_role("link", name="See yourself with lines").click()
        return page


class MirrorTests(CameraCase):
    def test_a_swing_is_kept_at_once_played_slowly_with_the_lines_and_sent(self) -> None:
        page = self.opened()
        expect(page.get_by_text("Nothing is sent unless you send it.")).to_be_visible()
        check_axe(self, page, "mirror, before")
        page.get_by_role("button", name="Open the camera").click()
        line = page.get_by_role("slider", name="Line at the right hip")
        expect(line).to_be_visible()
        before = int(line.get_attribute("aria-valuenow") or 0)
        line.focus()
        for _ in range(6):
            page.keyboard.press("PageUp")
        expect(line).not_to_have_attribute("aria-valuenow", str(before))
        moved_to = line.get_attribute("aria-valuenow") or ""
        expect(page.get_by_role("status")).to_contain_text("nothing is kept")
        check_axe(self, page, "mirror, live")
        page.get_by_role("button", name="Watch my swings").click()
        expect(page.get_by_role("timer")).to_be_visible()
        replay = page.get_by_test_id("replay")
        expect(replay).to_be_visible()
        expect(replay).to_have_js_property("playbackRate", 0.25)
        check_axe(self, page, "mirror, replay")
        page.get_by_role("button", name="Send this one").click()
        expect(page.get_by_text("100 %").or_(page.get_by_text("MB, here"))).to_be_visible()
        page.get_by_role("button", name="Send", exact=True).click()
        expect(page.get_by_role("heading", name="Your swing is on its way")).to_be_visible()
        swing = Swing.objects.get(student=self.student)
        self.assertTrue(swing.clips.get().original_name.startswith("swing-1."))
        page.get_by_role("button", name="Back to the mirror").click()
        page.get_by_role("button", name="Open the camera").click()
        expect(line).to_have_attribute("aria-valuenow", moved_to)

    def test_it_opens_without_a_connection_and_says_what_it_cannot_do(self) -> None:
        page = self.opened()
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_role("slider").first).to_be_visible()
        page.wait_for_function(KEPT, arg=f"/p/{self.token}/mirror")
        page.context.set_offline(True)
        page.reload()
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_role("slider", name="Line at the right hip")).to_be_visible()
        page.get_by_role("button", name="Watch my swings").click()
        expect(page.get_by_test_id("replay")).to_be_visible()
        page.get_by_role("button", name="Send this one").click()
        expect(page.get_by_role("alert")).to_be_visible()
        page.get_by_role("button", name="Not now").click()
        self.assertEqual(Swing.objects.count(), 0)

    def test_a_camera_that_is_not_allowed_is_said(self) -> None:
        page = self.opened()
        page.evaluate(NOT_ALLOWED)
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_role("alert")).to_contain_text("The camera is not allowed for this page")


class MirrorFramesTests(CameraCase):
    numbered = True

    def test_what_is_played_again_is_the_swing_from_before_the_top_to_after_the_strike(self) -> None:
        page = self.opened()
        page.get_by_role("button", name="Open the camera").click()
        page.get_by_role("button", name="Watch my swings").click()
        expect(page.get_by_test_id("replay")).to_be_visible()
        frames = page.evaluate(SHOWN_FRAMES, [strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS])
        pegs = truth(NAME)["checkpoints"]
        self.assertLess(min(frames), pegs["top"])
        self.assertGreater(max(frames), pegs["impact"])
        moving = np.diff([number for number in frames if pegs["shaft_back"] < number < pegs["shaft_through"]])
        self.assertTrue((moving >= 0).all() and moving.max() <= 4 * EVERY, moving)


NOT_ALLOWED = """() => {
  navigator.mediaDevices.getUserMedia = async () => { throw new DOMException("", "NotAllowedError"); };
}"""
# Whether the page itself lies ready to be opened without a connection.
KEPT = """async (path) => {
  for (const name of await caches.keys())
    if (await (await caches.open(name)).match(location.origin + path)) return true;
  return false;
}"""
