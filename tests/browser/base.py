"""A browser on the real interface, served by the test's own server."""

import os
import re
import tempfile
import time
from pathlib import Path
from typing import Any

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.files.base import ContentFile
from django.core.management.base import CommandError
from django.db import connection
from django.test import override_settings
from playwright.sync_api import Browser, Locator, Page, expect, sync_playwright

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip, State
from tropometer.server.people.models import User
from tropometer.swing.names import View
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy

CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")
FLAGS = [
    "--no-sandbox",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
WAIT_MS = 60_000
FLUSH_TRIES = 5
PASSWORD = "skerrow-island"


class BrowserCase(StaticLiveServerTestCase):
    """One browser a class, one context a test, media in a folder of its own."""

    browser: Browser
    flags = FLAGS
    viewport = {"width": 1280, "height": 800}

    @classmethod
    def setUpClass(cls) -> None:
        # Playwright leaves an event loop running on this thread, which Django would refuse to query from.
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
        super().setUpClass()
        playwright = sync_playwright().start()
        cls.addClassCleanup(playwright.stop)
        cls.browser = playwright.chromium.launch(executable_path=CHROMIUM, args=cls.flags)
        cls.addClassCleanup(cls.browser.close)

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        settings = override_settings(
            MEDIA_ROOT=str(self.folder / "media"),
            UPLOAD_ROOT=str(self.folder / "uploads"),
            SITE_URL=self.live_server_url,
        )
        settings.enable()
        self.addCleanup(settings.disable)
        self.owner = making.instructor()
        self.context = self.browser.new_context(
            base_url=self.live_server_url, viewport=self.viewport, reduced_motion="reduce"
        )  # type: ignore[arg-type]
        self.context.set_default_timeout(WAIT_MS)
        expect.set_options(timeout=WAIT_MS)  # a busy machine is slow, not wrong
        self.addCleanup(self.context.close)
        self.page = self.new_page()

    def _fixture_teardown(self) -> None:
        """Requests of pages that are gone may still be answered; emptying the tables then waits its turn."""
        for tries_left in range(FLUSH_TRIES, 0, -1):
            try:
                super()._fixture_teardown()
                with connection.cursor() as jobs:  # Django empties only the tables that it manages
                    jobs.execute("TRUNCATE procrastinate_jobs CASCADE")
                return
            except CommandError:
                if tries_left == 1:
                    raise
                time.sleep(1)

    def new_page(self) -> Page:
        page = self.context.new_page()
        page.on("pageerror", lambda error: self.fail(f"The page broke: {error}"))
        return page

    def saved(self, page: Page | None = None) -> None:
        """All that was done has reached the server."""
        said = (page or self.page).get_by_role("status").filter(has_text=re.compile("^Saved$"))
        expect(said).to_be_visible()

    def sign_in(self, user: User | None = None) -> None:
        """Put a session into the browser without going through the form."""
        self.client.force_login(user or self.owner)
        session = self.client.cookies["sessionid"].value
        self.context.add_cookies([{"name": "sessionid", "value": session, "url": self.live_server_url}])

    def clip_from(
        self, source: Path, swing: Swing, capture_fps: float | None = None, view: View = "face_on"
    ) -> Clip:
        """A ready clip made from a file as the worker would."""
        target = self.folder / f"{source.name}.proxy.mp4"
        found = probe(source)
        proxy = make_proxy(source, target, found)
        clip = Clip(
            instructor=swing.instructor,
            swing=swing,
            view=view,
            capture_fps=capture_fps,
            original_name=source.name,
            played_fps=found.played_fps,
            state=State.READY,
            width=proxy.width,
            height=proxy.height,
            played_times_s=proxy.played_times_s,
        )
        clip.proxy.save("proxy.mp4", ContentFile(target.read_bytes()), save=False)
        clip.save()
        return clip

    def student_clip(self, source: Path, **about: Any) -> Clip:
        swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner, **about))
        return self.clip_from(source, swing)


class StageDriver:
    """Works a stage as a hand would: by keys, and by the mouse at places of the picture."""

    def __init__(self, page: Page, side: str = "student") -> None:
        self.page, self.side = page, side
        self.stage = page.locator(f"section[data-side={side}]")
        self.canvas: Locator = self.stage.locator("canvas[data-drawn]")
        self.surface = self.stage.get_by_role("application")

    def wait_drawn(self, frame: int | None = None) -> None:
        """The picture, and what is beside the stages: it follows a moment later, and has keys of its own."""
        self.wait_picture(frame)
        self.page.locator("[data-station] > *").first.wait_for()

    def wait_picture(self, frame: int | None = None) -> None:
        wanted = (
            "canvas[data-drawn]:not([data-drawn=''])" if frame is None else f"canvas[data-drawn='{frame}']"
        )
        self.stage.locator(wanted).wait_for()

    def frame(self) -> int:
        return int(self.page.get_by_test_id(f"{self.side}-frame").inner_text())

    def go_to(self, frame: int) -> None:
        """Step there by the keys."""
        now = self.frame()
        while now != frame:
            ten = abs(frame - now) >= 10
            way = 1 if frame > now else -1
            self.page.keyboard.press(f"{'Shift+' if ten else ''}Arrow{'Right' if way > 0 else 'Left'}")
            now += way * (10 if ten else 1)
        self.wait_drawn(frame)

    def place(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the picture is on the screen."""
        box = self.canvas.bounding_box()
        assert box is not None
        scale, cx, cy = (float(self.canvas.get_attribute(f"data-{n}") or 0) for n in ("scale", "cx", "cy"))
        return box["x"] + box["width"] / 2 + (x - cx) * scale, box["y"] + box["height"] / 2 + (y - cy) * scale

    def click(self, x: float, y: float) -> None:
        self.page.mouse.click(*self.place(x, y))

    def drag(self, a: tuple[float, float], b: tuple[float, float]) -> None:
        self.page.mouse.move(*self.place(*a))
        self.page.mouse.down()
        self.page.mouse.move(*self.place(*b), steps=5)
        self.page.mouse.up()


def mark_all(driver: StageDriver, name: str) -> None:
    """Peg and mark a demo clip by hand, on its true places, as the trade's round goes."""
    known = truth(name)
    keys = {"address": "Shift+A", "top": "Shift+T", "impact": "Shift+I"}
    pegs = {at: known["checkpoints"][at] for at in keys}
    for at, frame in pegs.items():
        driver.go_to(frame)
        driver.page.keyboard.press(keys[at])
    round_ = ["trail_foot_outer", "lead_hip_edge", "trail_hip_edge", "lead_hip", "trail_hip"]
    for at, frame in pegs.items():
        driver.go_to(frame)
        places = {mark: rows[frame] for mark, rows in known["pixels"].items()}
        wanted = round_ if at == "address" else round_[1:]
        driver.page.keyboard.press("1" if at == "address" else "2")
        for mark in wanted:  # the next mark is taken in hand by itself
            driver.click(*places[mark])
        driver.page.keyboard.press("Escape")
    driver.page.keyboard.press("k")
    a, b = known["stick"]["pixels"]
    driver.drag(tuple(a), tuple(b))
    asked = driver.page.get_by_role("form", name="Known length")  # nothing is assumed
    asked.get_by_role("button", name="a range stick").click()
