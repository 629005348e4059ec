"""Cameras and a microphone that are not there, put into a test's pages: see web/standins/camera.js."""

from __future__ import annotations

import json
import re
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import BrowserContext, Route

from tests.swings import ROOT
from tropometer.standins.camera import FPS, write_tries

SCRIPT = ROOT / "web" / "standins" / "camera.js"
STRUCK_FRAME = round(4.5 * FPS)  # as numbered pictures count, from a ball's first
HIGH_PX = 360  # as large as two cores can draw and encode twice, beside all else


class CamerasNotThere:
    """What they play lies in a folder of its own until this is left."""

    def __init__(self, high_px: int = HIGH_PX) -> None:
        self._high_px = high_px

    def __enter__(self) -> CamerasNotThere:
        self._folder = tempfile.TemporaryDirectory()
        write_tries(Path(self._folder.name), ["dag_first"], self._high_px)
        return self

    def __exit__(self, *_: object) -> None:
        self._folder.cleanup()

    def put_into(self, context: BrowserContext, **wishes: Any) -> None:
        """Every page of the context finds them beside what is there; `wishes` are the script's."""
        folder = Path(self._folder.name)

        def play(route: Route) -> None:
            route.fulfill(path=folder / route.request.url.rsplit("/", 1)[1])

        context.route(re.compile("/stand-in/tries/"), play)
        context.add_init_script(f"window.notThere = {json.dumps(wishes)};")
        context.add_init_script(path=SCRIPT)
