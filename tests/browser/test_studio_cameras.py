"""Two cameras and a sound in the studio: clips of made-up golfers played as cameras, struck on one clock."""

from __future__ import annotations

import json
import re
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np
from playwright.sync_api import Page, Request, expect

from tests.browser.test_accessible import check_axe
from tests.browser.test_studio_camera import StudioCamera
from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer import strip
from tropometer.server.bench.models import Swing
from tropometer.server.studio.models import Try
from tropometer.video.proxy import upright_frames
from tropometer.video.strike import hear_strikes

FACE, LINE = "dag_first_face", "dag_first_line"
FPS, RATE = 30, 48_000
SECONDS, STRUCK_S = 6, 3.5
SIZE = (640, 360)


def played(folder: Path, name: str, knocks: tuple[float, ...], numbered: bool) -> Path:
    """A demo clip with stillness about it, its ball struck at STRUCK_S, and with knocks.

    Where every frame is numbered something always moves.
    """
    with av.open(str(DEMO_CLIPS / f"{name}.mp4")) as clip:
        swing = [
            frame.reformat(*SIZE).to_ndarray(format="rgb24") for frame in list(clip.decode(video=0))[::2]
        ]
    before = round(STRUCK_S * FPS) - round(truth(name)["checkpoints"]["impact"] / 2)
    shown = ([swing[0]] * before + swing + [swing[-1]] * FPS * SECONDS)[: FPS * SECONDS]
    target = folder / f"{name}-{len(knocks)}.mp4"
    chance = np.random.default_rng(5)
    times = np.arange(SECONDS * RATE) / RATE
    sound = 0.003 * chance.normal(size=len(times))
    for knock in knocks:
        near = (times >= knock) & (times < knock + 0.05)
        sound[near] += 0.5 * chance.normal(size=near.sum()) * np.exp(-(times[near] - knock) / 0.008)
    with av.open(str(target), "w") as out:
        picture: Any = out.add_stream("libx264", rate=FPS, options={"preset": "veryfast", "crf": "16"})
        picture.width, picture.height, picture.pix_fmt = *SIZE, "yuv420p"
        audible: Any = out.add_stream("aac", rate=RATE, options={"b": "192k"})
        audible.layout = "mono"
        for number, frame in enumerate(shown):
            drawn = frame.copy()
            if numbered:
                strip.paint(drawn, number)
            out.mux(picture.encode(av.VideoFrame.from_ndarray(drawn, format="rgb24")))
        out.mux(picture.encode())
        for first in range(0, len(sound), 1024):
            part = av.AudioFrame.from_ndarray(
                sound[None, first : first + 1024].astype(np.float32), "fltp", "mono"
            )
            part.sample_rate, part.pts, part.time_base = RATE, first, Fraction(1, RATE)
            out.mux(audible.encode(part))
        out.mux(audible.encode())
    return target


class StudioCamerasTests(StudioCamera):
    def watched(self, clip: Path) -> Page:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.get_by_label("Play a clip as a camera").set_input_files(clip)
        expect(page.get_by_text("A swing is found by its sound and how it moves")).to_be_visible()
        return page

    def test_a_ball_that_two_cameras_see_and_hear_is_one_try_whose_clips_are_tied_by_its_sound(self) -> None:
        sent: list[dict[str, Any]] = []

        def note(request: Request) -> None:
            if request.url.endswith("/filmed"):
                sent.append(json.loads(request.post_data or ""))

        self.page.on("request", note)
        other = played(self.folder, LINE, (STRUCK_S,), numbered=True)
        page = self.watched(played(self.folder, FACE, (STRUCK_S,), numbered=True))
        page.get_by_label("Play a second clip").set_input_files(other)
        expect(page.get_by_label("The second camera stands")).to_have_value("down_the_line")
        expect(page.get_by_test_id("replay")).to_have_count(2)
        check_axe(self, page, "two cameras")
        expect(page.get_by_label("What was changed at try 1")).to_be_visible(timeout=40_000)
        page.get_by_role("button", name="Close both").click()
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("", timeout=40_000)
        swing = Try.objects.get(position=0).swing
        self.assertTrue(swing.one_swing)
        numbers = []
        for clip in swing.clips.all():
            told = next(each for each in sent if each["clip"]["upload_id"] == str(clip.pk))
            self.assertEqual((told["struck_by"], told["clip"]["view"]), ("sound", clip.view))
            # The server hears in the file what the page heard in the room.
            path = Path(clip.original.path)
            (heard,) = [each for each in hear_strikes(path) if abs(each.played_s - told["struck_s"]) < 0.1]
            self.assertLess(abs(heard.played_s - told["struck_s"]), 0.004)
            shown = [(time_s, strip.read(picture)) for picture, time_s in upright_frames(path)]
            numbers.append(min(shown, key=lambda each: abs(each[0] - heard.played_s))[1])
        # What is seen when it is heard is the strike, to a few pictures of a busy machine.
        for number in numbers:
            self.assertLess(abs(number - STRUCK_S * FPS), 4)

    def test_a_neighbour_s_ball_is_no_try(self) -> None:
        page = self.watched(played(self.folder, FACE, (0.8, STRUCK_S), numbered=False))
        expect(page.get_by_test_id("replay")).to_be_visible()
        page.get_by_role("button", name="Close the camera").click()
        expect(page.get_by_label("What was changed at try 1")).to_be_visible()
        self.assertEqual(Try.objects.count(), 1)

    def test_a_phone_that_scanned_the_code_films_the_other_side_and_sees_nothing_of_the_hour(self) -> None:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        page.get_by_role("button", name="A phone as a camera").click()
        expect(page.get_by_role("img", name="The code for the phone")).to_be_visible()
        check_axe(self, page, "code for a phone")
        link = page.get_by_role("link", name=re.compile("^http")).get_attribute("href") or ""
        phone = self.browser.new_context(
            base_url=self.live_server_url, viewport={"width": 390, "height": 844}, permissions=["camera"]
        )
        self.addCleanup(phone.close)
        filming = phone.new_page()
        filming.on("pageerror", lambda error: self.fail(f"The page broke: {error}"))
        filming.goto(f"/f/{link.rsplit('/', 1)[1]}")
        expect(filming.get_by_text("For Maren Thole.")).to_be_visible()
        self.assertNotIn(self.tobin.name, filming.content())
        filming.get_by_role("button", name="Open the camera").click()
        expect(filming.get_by_text("Watching.")).to_be_visible()
        check_axe(self, filming, "phone that films")
        # A server that is away when the page asks again ends no filming.
        whose = re.compile("/api/film/[^/]+$")
        filming.route(
            whose, lambda route: route.abort() if route.request.method == "GET" else route.continue_()
        )
        filming.wait_for_timeout(5200)  # what was asked sooner is not asked again
        with filming.expect_event("requestfailed", lambda request: whose.search(request.url) is not None):
            filming.evaluate("window.dispatchEvent(new Event('visibilitychange'))")
        filming.wait_for_timeout(300)
        expect(filming.get_by_label("The camera, live")).to_be_visible()
        filming.unroute(whose)
        expect(filming.get_by_test_id("replay")).to_be_visible()
        filming.get_by_role("button", name="Close the camera").click()
        expect(page.get_by_label("What was changed at try 1")).to_be_visible(timeout=40_000)
        self.assertEqual(Swing.objects.latest("received_at").clips.get().view, "down_the_line")
        page.get_by_role("button", name="Close the line").click()
        page.get_by_role("button", name="Close it?").click()
        filming.reload()
        expect(filming.get_by_role("alert")).to_contain_text("code is closed")
