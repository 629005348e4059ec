"""How fast a student's months are drawn, and how soon a swing is there again in the mirror.

Run by ./tropo bench months.
"""

from __future__ import annotations

import time
from datetime import timedelta

import numpy as np
from django.test import tag
from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.base import BrowserCase
from tests.browser.test_mirror import NAME, CameraCase
from tests.server import making
from tests.swings import truth
from tropometer.golfer import strip
from tropometer.server.bench.models import Swing
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.over_time.series import Point
from tropometer.teaching.over_time.together import together
from tropometer.teaching.over_time.typical import typical_scatter

SWINGS, READINGS, TIMES, A_DAY = 300, 60, 7, 20
FIRST_SHOWN = 6  # of web/src/card/TrendBoard.tsx
DRAWN_MS, DAY_MS, REPLAY_S = 100, 300, 1.0
# From the answer's last byte to the picture that shows every chart in sight.
DRAWN = """() => {
  const inSight = () => {
    const charts = [...document.querySelectorAll("[data-testid^=trend-]")];
    const seen = charts.filter((chart) => chart.parentElement.getBoundingClientRect().top + 40 < innerHeight);
    return charts.length >= FIRST_SHOWN && seen.every((chart) => chart.querySelector("svg"));
  };
  const drawn = async () => {
    while (!inSight()) await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    const asked = performance.getEntriesByType("resource").filter(({ name }) => name.includes("/trends"));
    return performance.now() - asked.at(-1).responseEnd;
  };
  window.drawn = drawn();
}"""
# From a jump to the end to the picture that shows what is there: nothing of it was drawn before.
JUMPED = """async (all) => {
  const charts = () => [...document.querySelectorAll("[data-testid^=trend-]")];
  while (charts().length < all) await new Promise(requestAnimationFrame);
  const last = charts().at(-1);
  if (last.querySelector("svg")) throw new Error("it was drawn before");
  const from = performance.now();
  last.scrollIntoView({ block: "end", behavior: "instant" });
  while (!last.querySelector("svg")) await new Promise(requestAnimationFrame);
  await new Promise(requestAnimationFrame);
  return performance.now() - from;
}"""
# Keeps when the camera showed the finish, and how long after it a clip of the swing was there to be played:
# a swing may be known to be over before it stands still at the finish, and that is 0.
LATE = """([block, margin, bits, finish, live]) => {
  const video = document.querySelector(`[aria-label='${live}']`);
  const context = new OffscreenCanvas(1280, 720).getContext("2d", { willReadFrequently: true });
  const look = () => {
    context.drawImage(video, 0, 0);
    let number = 0;
    for (let bit = 0; bit < bits; bit++) {
      const x = margin + bit * block + block / 2;
      number = number * 2 + (context.getImageData(x, margin + block / 2, 1, 1).data[1] > 128 ? 1 : 0);
    }
    if (number < finish) window.finished = undefined;
    else window.finished ??= performance.now();
    video.requestVideoFrameCallback(look);
  };
  video.requestVideoFrameCallback(look);
  const address = URL.createObjectURL.bind(URL);
  URL.createObjectURL = (what) => {
    window.late = performance.now() - (window.finished ?? performance.now());
    return address(what);
  };
}"""


@tag("bench")
class MonthsBench(BrowserCase):
    def test_drawing(self) -> None:
        tobin = making.student(self.owner)
        keys = [(reading, "top") for reading in list(KINDS)[:READINGS]]
        random, now = np.random.default_rng(4), timezone.now()
        swings = Swing.objects.bulk_create(
            Swing(
                instructor=self.owner,
                student=tobin,
                club="7 iron",
                club_class="iron",
                swing_length="full",
                received_at=now - timedelta(days=360 * (1 - number / SWINGS)),
            )
            for number in range(SWINGS)
        )
        LoggedSwing.objects.bulk_create(LoggedSwing(swing=swing, core="bench") for swing in swings)
        LoggedReading.objects.bulk_create(
            LoggedReading(
                swing=swing,
                reading=reading,
                at=at,
                value=random.normal(),
                u95=0.4,
                provisional=False,
                set_up_share=0.5,
                core="bench",
            )
            for swing in swings
            for reading, at in keys
        )
        self.sign_in()
        taken = np.array([self._drawn(f"/students/{tobin.pk}?show=all") for _ in range(TIMES)])
        for words, each in zip(("opened", "after a jump to the end"), taken.T, strict=True):
            print(
                f"\n{SWINGS} swings of {READINGS} readings, {words}: all in sight drawn after "
                f"{np.median(each):.0f} ms ({each.min():.0f} to {each.max():.0f}; asked {DRAWN_MS})"
            )

    def _drawn(self, path: str) -> tuple[float, float]:
        page = self.new_page()
        page.add_init_script(f"const FIRST_SHOWN = {FIRST_SHOWN}; ({DRAWN})()")
        page.goto(path)
        opened: float = page.evaluate("window.drawn")
        jumped: float = page.evaluate(JUMPED, READINGS)
        page.close()
        return opened, jumped

    def test_a_day_read_together(self) -> None:
        random, taken = np.random.default_rng(5), []
        for _ in range(TIMES):
            days = [
                [Point(value=random.normal(), u95=0.5, day=1, set_up_share=0.5) for _ in range(A_DAY)]
                for _ in range(READINGS)
            ]
            began = time.perf_counter()
            for points in days:
                together(points, typical_scatter("pelvis_sway"))
            taken.append((time.perf_counter() - began) * 1000)
        told = f"{A_DAY} swings of a day read together, {READINGS} readings"
        print(f"\n{told}: {np.median(taken):.0f} ms (asked {DAY_MS})")


@tag("bench")
class MirrorBench(CameraCase):
    """The camera's frames are numbered: the finish is known by its own."""

    numbered = True

    def test_how_soon_a_swing_is_there_again(self) -> None:
        page = self.opened()
        page.get_by_role("button", name="Open the camera").click()
        expect(page.get_by_role("slider").first).to_be_visible()
        finish = truth(NAME)["checkpoints"]["finish"]
        page.evaluate(LATE, [strip.BLOCK_PX, strip.MARGIN_PX, strip.BITS, finish, "You, live"])
        page.get_by_role("button", name="Watch my swings").click()
        late = []
        for number in range(TIMES):
            page.get_by_test_id("replay").wait_for()
            late.append(page.evaluate("window.late") / 1000)
            if number + 1 < TIMES:
                page.get_by_role("button", name="Next swing").click()
                expect(page.get_by_test_id("replay")).to_have_count(0)
        print(
            f"\na swing is there again {np.median(late):.2f} s after its finish "
            f"({min(late):.2f} to {max(late):.2f}; asked {REPLAY_S:.0f})"
        )
