"""Server and database go away while a try comes in: nothing seen or felt is lost, or there twice."""

import re

from playwright.sync_api import expect

from tests.browser.test_studio_cameras import DrawnCameras
from tests.server.lines import Splice, serve_lines
from tests.server.processes import WebServer, database_away
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Swing
from tropometer.server.studio.models import Strike, Try
from tropometer.standins.bay import GOOD_LINE, Bay
from tropometer.standins.plate import swings

COUNT_REPLAYS = """() => {
  const address = URL.createObjectURL.bind(URL);
  window.shown = 0;
  URL.createObjectURL = (what) => {
    if (what instanceof File) window.shown += 1;
    return address(what);
  };
}"""


class StudioKilledTests(DrawnCameras):
    def setUp(self) -> None:
        super().setUp()
        self.server = WebServer()
        self.addCleanup(self.server.kill)
        url = self.enterContext(Splice(self.server.url, self.enterContext(serve_lines()))).url
        self.server.public = url
        self.server.start()
        session = self.client.cookies["sessionid"].value
        self.context.add_cookies([{"name": "sessionid", "value": session, "url": url}])
        self.at = f"{url}/hours/{self.hour.pk}"
        self.bay = Bay(swings(DEMO_CLIPS.parent / "hour.json.gz"))
        self.addCleanup(self.bay.go_off)

    def test_a_server_that_is_killed_in_a_try_and_a_database_that_is_away_cost_nothing(self) -> None:
        self.cameras.put_into(self.context)
        page = self.page
        page.goto(self.at)
        live = page.get_by_role("region", name="Live")
        live.get_by_role("button", name="Open the line").click()
        self.bay.go_on(live.get_by_label("Devices send to").input_value(), GOOD_LINE)
        expect(live.get_by_text("Plate that is not there")).to_be_visible()
        page.get_by_role("button", name="Open the camera").click()
        page.get_by_label("What is changed at the tries").fill("Narrower stance")
        page.evaluate(COUNT_REPLAYS)
        replay = page.get_by_test_id("replay")
        with page.expect_request(lambda each: "/api/uploads" in each.url and each.method == "PATCH"):
            expect(replay).to_be_visible()
        self.server.kill()
        waits = page.get_by_role("status", name="Tries on their way")
        with database_away():
            expect(waits).to_contain_text("They are kept on this machine until they are there.")
            self.bay.hit()
            first = replay.get_attribute("src")
            expect(replay).not_to_have_attribute("src", first or "")  # the next ball comes back all the same
            self.server.start()
            page.wait_for_timeout(6000)  # it is asked again, and has no database yet
        expect(page.get_by_label("The camera, live")).to_be_visible()
        page.get_by_role("button", name="Close the camera").click()
        expect(waits).to_have_text("", timeout=90_000)
        shown = page.evaluate("window.shown")
        self.assertGreaterEqual(shown, 2)
        expect(page.get_by_label(re.compile("^What was changed at try"))).to_have_count(shown)
        self.assertEqual((Try.objects.count(), Swing.objects.count()), (shown, shown))
        self.assertEqual({each.changed for each in Try.objects.all()}, {"Narrower stance"})
        for swing in Swing.objects.all():
            clip = swing.clips.get()
            self.assertGreater(clip.original.size, 0)
        expect(live.get_by_role("region", name="Strikes").get_by_role("row")).to_have_count(2)
        self.assertEqual(Strike.objects.count(), 1)
