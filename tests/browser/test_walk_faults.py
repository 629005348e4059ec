"""What happens while somebody speaks, or listens, costs nothing that was said."""

from __future__ import annotations

import io
import json
import zipfile

from playwright.sync_api import FilePayload, Page, Route, expect

from tests.browser.recording import RecordingCase
from tests.browser.test_accessible import check_axe
from tests.server.voices import tones
from tropometer.server.lessons.models import Lesson
from tropometer.server.walks.models import Piece, Take
from tropometer.server.walks.playing import record_files


class WalkFaultTests(RecordingCase):
    def test_a_server_without_its_database_costs_nothing_that_is_said_meanwhile(self) -> None:
        """Killed for good they are by `./tropo endure`; here the screens are seen to wait for them."""
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(2500)

        def broken(route: Route) -> None:
            route.fulfill(
                status=503, content_type="application/problem+json", body='{"detail": "no database"}'
            )

        self.context.route("**/api/lessons/**", broken)
        before = Piece.objects.count()
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(5000)
        self.assertLessEqual(Piece.objects.count(), before + 1)  # one may have been under way
        self.context.unroute("**/api/lessons/**")
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(700)
        self.end(page)
        walk, voice = self.made()
        self.assertEqual(len(tones(voice)), 3)
        self.assertEqual([e["frame"] for e in walk.score if e["kind"] == "frame"], [1, 2, 3])

    def test_two_tabs_that_record_one_lesson_keep_both_voices(self) -> None:
        one, other = self.page, self.new_page()
        self.record(one)
        self.record(other)
        for page, times in ((one, 1), (other, 2)):
            for _ in range(times):
                page.evaluate("say('ArrowRight')")
                page.wait_for_timeout(900)
        for page in (one, other):
            page.get_by_role("button", name="End", exact=True).click()
            self.saved(page)
        self.assertEqual(Take.objects.filter(ended=True).count(), 2)
        walk, voice = self.made()
        self.assertEqual(len(walk.cut), 2)
        self.assertEqual(len(tones(voice)), 3)
        self.assertAlmostEqual(
            walk.length_ms, sum(take.length_ms or 0 for take in Take.objects.all()), delta=60
        )

    def test_a_walk_opens_again_from_its_file_and_one_that_is_none_is_said_to_be_none(self) -> None:
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(900)
        self.end(page)
        walk, _ = self.made()
        (step,) = [e["at"] for e in walk.score if e["kind"] == "frame"]
        files = dict(record_files(walk))
        elsewhere = self.new_page()
        self.client.logout()
        self.context.clear_cookies()
        elsewhere.goto("/w")
        self.choose(elsewhere, files)
        elsewhere.get_by_role("slider", name="Where in the walk").fill(str(round((step + 150) / 100) * 100))
        expect(elsewhere.locator("[data-walk-stage=student]")).to_have_attribute("data-drawn", "1")
        self.assertEqual(self.played_strip(elsewhere), 1)
        check_axe(self, elsewhere, "a walk from a file")
        record = json.loads(files["walk.json"])
        wild = {**record, "score": [{"at": 0, "kind": "unheard"}, *record["score"]]}
        self.choose(elsewhere, files | {"walk.json": json.dumps(wild).encode()})
        expect(elsewhere.get_by_role("alert")).to_contain_text("says what no walk says")
        self.choose(elsewhere, {name: content for name, content in files.items() if name != "voice.m4a"})
        expect(elsewhere.get_by_role("alert")).to_contain_text("walk.zip: walk/voice.m4a is missing")

    def choose(self, page: Page, files: dict[str, bytes]) -> None:
        """Hand the page a record of these files."""
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w") as archive:
            for name, content in files.items():
                archive.writestr(f"walk/{name}", content)
        chosen: FilePayload = {"name": "walk.zip", "mimeType": "application/zip", "buffer": packed.getvalue()}
        page.get_by_label("File of a lesson").set_input_files(chosen)

    def test_a_student_without_a_decoder_sees_the_same_frames_as_stills(self) -> None:
        page = self.page
        driver = self.record(page)
        for _ in range(3):
            page.evaluate("say('ArrowRight')")
            page.wait_for_timeout(700)
        self.assertEqual(driver.frame(), 3)
        self.end(page)
        walk, _ = self.made()
        steps = [e["at"] for e in walk.score if e["kind"] == "frame"]
        student = self.phone()
        student.add_init_script("delete window.VideoDecoder;")
        student.goto(f"/l/{Lesson.objects.get().token}")
        student.get_by_role("button", name="Walk through your swing").click()
        student.get_by_role("button", name="Pause").click()
        stage = student.locator("[data-walk-stage=student]")
        for number, at in enumerate(steps, start=1):
            student.get_by_role("slider", name="Where in the walk").fill(str(round((at + 150) / 100) * 100))
            expect(stage).to_have_attribute("data-drawn", str(number))
            self.assertEqual(self.played_strip(student), number)
