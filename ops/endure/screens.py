"""A scripted instructor at the real screens, whose browser is killed in the middle of it."""

from __future__ import annotations

import os
import random
import re
from pathlib import Path
from threading import Event
from uuid import uuid4

from playwright.sync_api import BrowserContext, Error, Page, Playwright, expect, sync_playwright

from ops.endure.calls import Caller
from ops.endure.practice import Instructor

CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")
FLAGS = ["--no-sandbox", "--disable-dev-shm-usage", "--disable-background-networking"]
WAIT_MS = 30_000
PEGS = {"address": "Shift+A", "top": "Shift+T", "impact": "Shift+I"}
STEPS_A_PEG = 7


class AtScreens(Caller):
    """Pegs on the bench and writes on the desk; what the screen says is saved counts as acknowledged."""

    def __init__(self, address: str, mail: str, stop: Event, folder: Path) -> None:
        super().__init__(address, mail)
        self.stop, self.folder = stop, folder
        self.under_way = Event()
        self._dice = random.Random(mail)
        self._clip = self._swing = self._lesson = ""

    def work(self) -> None:
        """Until told to stop; a browser that is gone is opened anew, on what it left behind."""
        maker = Instructor(self.address, self.mail, 0, self.stop)
        maker.has = self.has
        maker.sign_in()
        self._swing, self._clip = maker.take_in("At the screens")
        self._lesson = maker.until(200, "POST", f"/api/swings/{self._swing}/lesson", json={})["id"]
        self._web = maker._web
        with sync_playwright() as playwright:
            while not self.stop.is_set():
                try:
                    self._sit_down(playwright)
                except (Error, AssertionError):
                    self.failed_calls += 1  # the browser is gone, or the server does not answer for long

    def _sit_down(self, playwright: Playwright) -> None:
        browser = playwright.chromium.launch_persistent_context(
            self.folder, executable_path=CHROMIUM, args=FLAGS, viewport={"width": 1280, "height": 800}
        )
        try:
            browser.set_default_timeout(WAIT_MS)
            self._sign_in(browser)
            page = browser.pages[0]
            while not self.stop.is_set():
                self._write(page)
                if self.get(f"/api/clips/{self._clip}")["state"] == "ready":
                    self._peg(page)
                    self.under_way.set()
        finally:
            browser.close()

    def _sign_in(self, browser: BrowserContext) -> None:
        self.get("/api/lessons")  # signs in where the session is gone
        for cookie in self._web.cookies:
            browser.add_cookies([{"name": cookie.name, "value": cookie.value or "", "url": self.address}])

    def _write(self, page: Page) -> None:
        page.goto(f"{self.address}/lessons/{self._lesson}")
        words = f"One thing: {uuid4()}"
        self.has.begun[self._lesson].add(words)
        page.get_by_label("Opening words").fill(words)
        self._saved(page)
        self.has.told["words in the browser"] += 1
        self.has.words[self._lesson] = words
        self.has.begun[self._lesson].clear()

    def _peg(self, page: Page) -> None:
        page.goto(f"{self.address}/bench/{self._swing}")
        page.locator("canvas[data-drawn]:not([data-drawn=''])").wait_for()
        for checkpoint, key in PEGS.items():
            peg = self._clip, checkpoint
            for _ in range(self._dice.randrange(1, STEPS_A_PEG)):
                page.keyboard.press("ArrowRight")
            # Where it may be already, nothing would be sent, and nothing said.
            while (frame := self._stands(page)) in {self.has.pegs.get(peg), *self.has.begun[peg]}:
                page.keyboard.press("ArrowRight")
            self.has.begun[peg].add(frame)
            page.keyboard.press(key)
            self._saved(page)
            self.has.told["pegs in the browser"] += 1
            self.has.pegs[peg] = frame
            self.has.begun[peg].clear()

    def _stands(self, page: Page) -> int:
        """Where the stage stands is what is pegged: the picture may still be on its way."""
        rule = page.get_by_role("slider", name="Swing rule")
        return int(rule.get_attribute("aria-valuenow") or -1)

    def _saved(self, page: Page) -> None:
        said = page.get_by_role("status").filter(has_text=re.compile("^Saved$"))
        expect(said).to_be_visible(timeout=WAIT_MS)
