"""How soon a try is there again in the studio, and what is lost and grows meanwhile.

Run by ./tropo bench studio: a plate sends 200 frames a second while two cameras see an hour's tries.
"""

from __future__ import annotations

import re
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import av
import numpy as np
from django.db import connection
from django.test import tag
from playwright.sync_api import expect
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.browser.cameras import CamerasNotThere
from tests.browser.test_studio_cameras import DrawnCameras
from tests.server.lines import Splice, serve_lines
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.glance import glance
from tropometer.server.bench.models import FirstLook
from tropometer.server.clips.models import Clip
from tropometer.standins.bay import GOOD_LINE, Bay
from tropometer.standins.plate import swings
from tropometer.video.probe import probe

TRIES, REPLAY_S, READ_S, GLANCES = 60, 1.0, 8.0, 6
SETTLED_MS = 3000  # both sides of a try are shown
LINES = 10  # of the table that says what grows
# How long after its strike each try's first replay is there, ms: strikes go by the machine's clock.
LATE = """() => {
  const address = URL.createObjectURL.bind(URL);
  const { struckMs, everyMs } = window.notThere;
  window.late = [];
  let before;
  URL.createObjectURL = (what) => {
    const now = performance.timeOrigin + performance.now() - struckMs;
    const ball = Math.floor(now / everyMs);
    if (what instanceof File && ball !== before) window.late.push(now - ball * everyMs);
    before = ball;
    return address(what);
  };
}"""
MOVES = """() => {
  const tile = document.querySelector("[data-testid=now-pressure_lead_share]");
  window.moves = 0;
  window.since = performance.now();
  new MutationObserver(() => { window.moves += 1; }).observe(
    tile, { subtree: true, attributes: true, attributeFilter: ["cx"] });
}"""


def page_memory() -> float:
    """What the browser's pages hold of the machine's memory, MB."""
    held = 0
    for process in Path("/proc").glob("[0-9]*"):
        try:
            if b"--type=renderer" in (process / "cmdline").read_bytes():
                held += int((process / "statm").read_text().split()[1])
        except OSError:  # it has just ended
            continue
    return held * 4096 / 2**20


def timed_glance(job: ProcrastinateJob) -> float:
    """How long one takes, s."""
    began = time.perf_counter()
    glance(**job.args)
    connection.close()
    return time.perf_counter() - began


def spread(values: list[float]) -> str:
    """The middle one, the least and the most."""
    return f"{np.median(values):.2f} ({min(values):.2f} to {max(values):.2f})"


@tag("bench")
class StudioBench(DrawnCameras):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.cameras = cls.enterClassContext(CamerasNotThere(high_px=540))
        splice = cls.enterClassContext(Splice(cls.live_server_url, cls.enterClassContext(serve_lines())))
        cls.live_server_url = splice.url

    def test_how_soon_a_try_is_there_again(self) -> None:
        page = self.with_both()
        live = page.get_by_role("region", name="Live")
        live.get_by_role("button", name="Open the line").click()
        bay = Bay(swings(DEMO_CLIPS.parent / "hour.json.gz"))
        self.addCleanup(bay.go_off)
        bay.go_on(live.get_by_label("Devices send to").input_value(), GOOD_LINE)
        expect(live.get_by_text("Plate that is not there")).to_be_visible()
        page.evaluate(LATE)
        page.evaluate(MOVES)
        devtools = self.context.new_cdp_session(page)
        grows: list[tuple[float, float]] = []
        while len(grows) < TRIES:
            page.wait_for_function("(had) => window.late.length > had", arg=len(grows))
            page.wait_for_timeout(SETTLED_MS)
            devtools.send("HeapProfiler.collectGarbage")
            grows.append((devtools.send("Runtime.getHeapUsage")["usedSize"] / 2**20, page_memory()))
        late = [each / 1000 for each in page.evaluate("window.late")]
        rate = page.evaluate("window.moves * 1000 / (performance.now() - window.since)")
        page.get_by_role("button", name="Close both").click()
        expect(page.get_by_role("status", name="Tries on their way")).to_have_text("", timeout=600_000)
        told = live.get_by_role("status").inner_text()
        came, lost = (re.search(rf"(\d+) {what}", told) for what in ("frames", "lost"))
        bay.go_off()
        page.goto("about:blank")
        jobs = list(ProcrastinateJob.objects.filter(queue_name="at_once").order_by("id"))
        alone = [timed_glance(job) for job in jobs[:GLANCES]]
        with ThreadPoolExecutor(2) as both:
            at_once = list(both.map(timed_glance, jobs[GLANCES : 2 * GLANCES]))
        seen = [each for kept in FirstLook.objects.all() for each in (kept.glanced or {}).values()]
        tries = self.hour.tries.count()
        lines = (
            f"a try is there again {spread(late)} s after its strike (asked {REPLAY_S:.0f})",
            f"pressure frames: {came and came[1]} came, {lost[1] if lost else 0} were lost (asked 0)",
            f"tiles move {rate:.0f} times a second (asked 20)",
            f"tries in the hour: {tries} of {len(late) + 1} balls, {Clip.objects.count()} clips; "
            f"pictures a second in them: {spread([*map(pictures_a_second, Clip.objects.all())])}",
            "after tries          " + "".join(f"{number:6}" for number in range(LINES, TRIES + 1, LINES)),
            "heap, MB             " + "".join(f"{grows[i][0]:6.0f}" for i in range(LINES - 1, TRIES, LINES)),
            "the pages hold, MB   " + "".join(f"{grows[i][1]:6.0f}" for i in range(LINES - 1, TRIES, LINES)),
            f"a clip is glanced at in {spread(alone)} s, two at once in {spread(at_once)} s; it is there "
            f"2 s and its way after its strike (asked {READ_S:.0f} after the strike); "
            f"{sum(len(each['readings']) for each in seen)} readings of {len(seen)} clips",
        )
        print("", *lines, sep="\n")


def pictures_a_second(clip: Clip) -> float:
    """What a camera's clip has of them."""
    with av.open(clip.original.path) as opened:
        count = sum(1 for _ in opened.demux(video=0)) - 1  # the last packet is empty
    return count / probe(Path(clip.original.path)).seconds
