"""The live line of a studio hour on its page; the bay that is not there is on its other end."""

import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect
from websockets.exceptions import InvalidStatus

from tests.browser.base import BrowserCase
from tests.browser.test_accessible import check_axe
from tests.server import making
from tests.server.lines import Splice, serve_lines
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Shot, Swing
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.server.studio.models import Strike, StudioHour
from tropometer.standins.bay import BAD_LINE, GOOD_LINE, Bay
from tropometer.standins.plate import swings

COUNT_MOVES = """() => {
  const tile = document.querySelector("[data-testid=now-pressure_lead_share]");
  window.moves = 0;
  new MutationObserver(() => { window.moves += 1; }).observe(
    tile, { subtree: true, attributes: true, attributeFilter: ["cx"] });
}"""


class StudioLineTests(BrowserCase):
    splice: Splice

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        lines = cls.enterClassContext(serve_lines())
        cls.splice = cls.enterClassContext(Splice(cls.live_server_url, lines))
        cls.live_server_url = cls.splice.url

    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner)
        began = timezone.now() - timedelta(days=400)  # long ago: nothing else is of that day
        for number in range(2):
            at = began + timedelta(milliseconds=number)
            swing = Swing.objects.create(instructor=self.owner, student=self.tobin, received_at=at)
            LoggedSwing.objects.create(swing=swing, core="test")
            about = {"provisional": False, "set_up_share": 0.5, "core": "test", "u95": 0.05}
            LoggedReading.objects.create(
                swing=swing, reading="stance_ratio", at="address", value=1.3, **about
            )
        self.sign_in()
        self.bay = Bay(swings(DEMO_CLIPS.parent / "hour.json.gz"))
        self.addCleanup(self.bay.go_off)
        begun = self.client.post(
            f"/api/students/{self.tobin.pk}/hours",
            {"day": timezone.localtime(began).date().isoformat()},
            content_type="application/json",
        )
        self.hour = StudioHour.objects.get(pk=begun.json()["id"])

    def test_a_ball_is_hit_and_what_was_felt_and_said_of_it_is_put_to_a_try(self) -> None:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        live = page.get_by_role("region", name="Live")
        live.get_by_role("button", name="Open the line").click()
        expect(live.get_by_role("status")).to_have_text("The line is open. No device is on it yet.")
        address = live.get_by_label("Devices send to").input_value()
        self.bay.go_on(address, GOOD_LINE)
        expect(live.get_by_text("Plate that is not there")).to_be_visible()
        share = live.get_by_test_id("now-pressure_lead_share")
        expect(share).to_contain_text(re.compile(r"(4\d|5\d) %"))
        expect(share).to_contain_text("Taught: 47 to 55 %")
        expect(live.get_by_role("list", name="The set-up now")).to_contain_text("130 ± 5 %")
        page.evaluate(COUNT_MOVES)
        page.wait_for_function("() => window.moves > 40")
        check_axe(self, page, "live line")
        self.bay.hit()
        strikes = live.get_by_role("region", name="Strikes")
        row = strikes.get_by_role("row").nth(1)
        expect(row).to_contain_text("yes")  # it was felt,
        expect(row).to_contain_text(re.compile(r"\d\d\.\d ± \d\.\d m/s"))  # and what the ball did was said
        strike = Strike.objects.get()
        self.assertIsNone(strike.tried)  # both swings came in long before
        whose = strikes.get_by_label(re.compile("^The strike at .* is of"))
        whose.select_option(label="2: As before")
        expect(page.get_by_label("Watch a reading").locator("option", has_text="Carry")).to_have_count(1)
        second = self.hour.tries.order_by("position")[1]
        self.assertEqual(Shot.objects.get(swing=second.swing).said, strike.said)
        page.get_by_role("button", name="Undo").click()
        expect(whose).to_have_value("")
        self.bay.go_off()
        expect(live.get_by_role("status")).to_contain_text("pressure plate: gone")
        expect(share).to_contain_text("Nobody")
        forget = strikes.get_by_role("button", name=re.compile("Forget the strike at"))
        forget.click()
        self.assertTrue(Strike.objects.exists())
        forget.click()
        expect(strikes).to_have_count(0)
        live.get_by_role("button", name="Close the line").click()
        live.get_by_role("button", name="Close it?").click()
        expect(live.get_by_role("button", name="Open the line")).to_be_visible()
        with self.assertRaises(InvalidStatus):
            self.bay.go_on(address, GOOD_LINE)

    def test_a_bad_line_is_counted_and_a_broken_one_comes_back(self) -> None:
        page = self.page
        page.goto(f"/hours/{self.hour.pk}")
        live = page.get_by_role("region", name="Live")
        live.get_by_role("button", name="Open the line").click()
        self.bay.go_on(live.get_by_label("Devices send to").input_value(), BAD_LINE)
        status = live.get_by_role("status")
        expect(status).to_contain_text(re.compile(r"\d+ lost, \d+ late, \d+ doubled"))
        self.splice.cut()
        expect(status).to_contain_text("No connection to the line: trying again")
        self.splice.mend()
        expect(status).to_contain_text("The line is open")
        self.bay.go_on(live.get_by_label("Devices send to").input_value(), GOOD_LINE)
        expect(status).to_contain_text("Plate that is not there")
