"""How soon a try is there again in the studio, and what is lost and grows meanwhile.

Run by ./tropo bench studio: a plate sends 200 frames a second while tries come in one after the other.
"""

from __future__ import annotations

import re
import time

import numpy as np
from django.test import tag
from playwright.sync_api import expect
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.browser.bench_months import LATE
from tests.browser.test_mirror import NAME
from tests.browser.test_studio_camera import StudioCamera
from tests.server.lines import Splice, serve_lines
from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer import strip
from tropometer.server.bench.glance import glance
from tropometer.server.bench.models import FirstLook
from tropometer.server.studio.models import Try
from tropometer.standins.bay import GOOD_LINE, Bay
from tropometer.standins.plate import swings

TRIES, REPLAY_S, READ_S, GLANCES = 12, 1.0, 8.0, 5
ANOTHER = "(before) => window.late !== undefined && window.late !== before"
MOVES = """() => {
  const tile = document.querySelector("[data-testid=now-pressure_lead_share]");
  window.moves = 0;
  window.since = performance.now();
  new MutationObserver(() => { window.moves += 1; }).observe(
    tile, { subtree: true, attributes: true, attributeFilter: ["cx"] });
}"""


@tag("bench")
class StudioBench(StudioCamera):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        splice = cls.enterClassContext(Splice(cls.live_server_url, cls.enterClassContext(serve_lines())))
        cls.live_server_url = splice.url

    def glances(self) -> str:
        """How long a glance takes, the browser standing still."""
        took = []
        for job in ProcrastinateJob.objects.filter(queue_name="at_once").order_by("id")[:GLANCES]:
            began = time.perf_counter()
            glance(**job.args)
            took.append(time.perf_counter() - began)
        seen = [each for kept in FirstLook.objects.all() for each in (kept.glanced or {}).values()]
        read = sum(len(each["readings"]) for each in seen)
        return f"{np.median(took):.1f} ({min(took):.1f} to {max(took):.1f}; {read} readings in all)"

    def test_how_soon_a_try_is_there_again(self) -> None:
        page = self.opened()
        live = page.get_by_role("region", name="Live")
        live.get_by_role("button", name="Open the line").click()
        bay = Bay(swings(DEMO_CLIPS.parent / "hour.json.gz"))
        self.addCleanup(bay.go_off)
        bay.go_on(live.get_by_label("Devices send to").input_value(), GOOD_LINE)
        expect(live.get_by_text("Plate that is not there")).to_be_visible()
        impact = truth(NAME)["checkpoints"]["impact"]
        shown = [strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS, impact, "The camera, live"]
        page.evaluate(LATE, shown)
        page.evaluate(MOVES)
        devtools = self.context.new_cdp_session(page)
        late: list[float] = []
        heap: list[float] = []
        before = None
        while len(late) < TRIES:
            page.wait_for_function(
                "(before) => window.late !== undefined && window.late !== before", arg=before
            )
            before = page.evaluate("window.late")
            late.append(before / 1000)
            devtools.send("HeapProfiler.collectGarbage")
            heap.append(devtools.send("Runtime.getHeapUsage")["usedSize"] / 2**20)
        rate = page.evaluate("window.moves * 1000 / (performance.now() - window.since)")
        page.get_by_role("button", name="Close the camera").click()
        expect(page.get_by_label(f"What was changed at try {TRIES}", exact=True)).to_be_visible()
        told = live.get_by_role("status").inner_text()
        came, lost = (re.search(rf"(\d+) {what}", told) for what in ("frames", "lost"))
        lines = (
            f"a try is there again {np.median(late):.2f} s after its strike "
            f"({min(late):.2f} to {max(late):.2f}; asked {REPLAY_S:.0f})",
            f"pressure frames: {came and came[1]} came, {lost[1] if lost else 0} were lost (asked 0)",
            f"tiles move {rate:.0f} times a second (asked 20)",
            f"heap after each try, MB: {', '.join(f'{each:.0f}' for each in heap)}",
            f"tries in the hour: {Try.objects.filter(hour=self.hour).count()}",
            f"a try is read {self.glances()} s after its clip has come, which is 2 s and its way after its "
            f"strike (asked {READ_S:.0f} after the strike)",
        )
        print("", *lines, sep="\n")
