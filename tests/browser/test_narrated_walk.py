"""A walk is recorded on the bench, mended there and played on a phone: voice and picture together."""

from __future__ import annotations

import re
import time

import numpy as np
from playwright.sync_api import expect

from tests.browser.recording import RecordingCase
from tests.browser.test_accessible import check_axe
from tests.server.voices import RATE, tones
from tests.swings import DEMO_CLIPS
from tropometer.server.demo.drawn import put_on
from tropometer.server.lessons.models import Lesson
from tropometer.server.walks.models import Piece, Take

TOGETHER_S, DRIFT_S = 0.12, 0.04  # the made-up microphone is 0.01 late by itself, up to 0.085 under load


class NarratedWalkTests(RecordingCase):
    def test_voice_and_picture_go_together_from_the_bench_to_a_phone(self) -> None:
        page = self.page
        driver = self.record(page)
        for _ in range(5):
            page.evaluate("say('ArrowRight')")
            page.wait_for_timeout(700)
        self.assertEqual(driver.frame(), 5)
        page.get_by_role("toolbar", name="Chalk").get_by_role("button", name="Arrow").click()
        driver.drag((200, 200), (300, 260))
        page.wait_for_timeout(600)
        check_axe(self, page, "recording")
        self.end(page)
        walk, voice = self.made()
        steps = [e["at"] / 1000 for e in walk.score if e["kind"] == "frame"]
        heard = tones(voice)
        self.assertEqual(len(heard), 5)
        for at, step in zip(heard, steps, strict=True):
            self.assertLess(abs(at - step), TOGETHER_S)
        late = np.array(heard) - np.array(steps)
        self.assertLess(late.max() - late.min(), DRIFT_S)

        student = self.phone()
        student.goto(f"/l/{Lesson.objects.get().token}")
        student.get_by_role("button", name="Walk through your swing").click()
        expect(student.get_by_role("button", name="Pause")).to_be_visible()  # it speaks at once
        student.get_by_role("button", name="Pause").click()
        bar = student.get_by_role("slider", name="Where in the walk")
        stage = student.locator("[data-walk-stage=student]")
        for number, at in enumerate(steps, start=1):
            for ms, frame in ((at * 1000 + 150, number), (at * 1000 - 100, number - 1)):
                bar.fill(str(round(ms / 100) * 100))
                expect(stage).to_have_attribute("data-drawn", str(frame))
                self.assertEqual(self.played_strip(student), frame)
        check_axe(self, student, "a walk that plays")
        student.get_by_role("button", name="One frame on").click()
        expect(stage).to_have_attribute("data-drawn", str(len(steps)))
        bar.fill(str(walk.length_ms // 100 * 100))
        expect(stage.locator("[data-chalk=arrow]")).to_be_visible()
        bar.fill("0")
        student.get_by_role("button", name="Play").click()
        expect(stage).to_have_attribute("data-drawn", "5")
        student.get_by_role("button", name="Pause").click()

    def test_what_lay_open_on_the_bench_lies_open_on_the_phone(self) -> None:
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_on(self.clip, "tobin_first_face", whole=True)
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=self.clip.swing, title="Your 7 iron")
        page = self.page
        self.record(page)
        page.keyboard.press("r")
        page.keyboard.press("1")
        expect(page.get_by_test_id("curves").get_by_role("status")).to_contain_text("student:")
        page.get_by_test_id("tape-pelvis_sway-top").click()
        page.wait_for_timeout(900)
        page.keyboard.press("3")
        expect(page.get_by_role("region", name="Floor plan").get_by_role("img")).to_be_visible()
        page.wait_for_timeout(900)
        page.keyboard.press("t")
        self.end(page)
        walk, _ = self.made()
        opened = [(e["at"], e["drawer"]) for e in walk.score if e["kind"] == "drawer"]
        self.assertEqual([drawer and drawer["part"] for _, drawer in opened], ["curves", "floor", None])
        student = self.phone()
        student.goto(f"/l/{Lesson.objects.get(pk=self.lesson.pk).token}")
        student.get_by_role("button", name="Walk through your swing").click()
        student.get_by_role("button", name="Pause").click()
        bar = student.get_by_role("slider", name="Where in the walk")
        drawer = student.locator("[data-drawer]")
        (_, _), (floor, _), (closed, _) = opened
        bar.fill(str(floor // 100 * 100 - 100))
        expect(drawer).to_have_attribute("data-drawer", "curves")
        expect(drawer).to_contain_text(re.compile(r"your hips: 12\.\d cm away from the target"))
        expect(student.locator("[data-tape]")).to_have_attribute("data-tape", "pelvis_sway top")
        bar.fill(str(floor // 100 * 100 + 200))
        expect(drawer).to_have_attribute("data-drawer", "floor")
        check_axe(self, student, "a walk with the floor plan open")
        bar.fill(str(closed // 100 * 100 + 100))
        expect(drawer).to_have_count(0)

    def test_what_was_said_outlives_the_connection_and_the_tab(self) -> None:
        page = self.page
        self.record(page)
        self.context.set_offline(True)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(6000)
        self.context.set_offline(False)
        page.evaluate("say('ArrowRight')")
        deadline = time.time() + 30
        while Piece.objects.count() < 4 and time.time() < deadline:
            page.wait_for_timeout(500)
        page.close(run_before_unload=False)  # as when the lid is closed
        self.assertFalse(Take.objects.get().ended)
        walk, voice = self.made()
        self.assertGreater(walk.length_ms, 6000)
        self.assertGreaterEqual(len(tones(voice)), 1)
        again = self.new_page()
        self.bench(again)
        expect(again.get_by_role("button", name="Record more")).to_be_enabled()
        expect(again.get_by_role("region", name="Walk through your swing")).to_be_visible()

    def test_a_microphone_that_is_refused_or_unplugged_is_said_and_loses_nothing(self) -> None:
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(2500)
        page.evaluate("unplug()")
        expect(page.get_by_role("alert")).to_contain_text("What was said before is kept")
        self.saved()
        self.assertTrue(Take.objects.get().ended)
        _, voice = self.made()
        self.assertEqual(len(tones(voice)), 1)
        refuse = "navigator.mediaDevices.getUserMedia = async () => { throw new DOMException('', '%s') }"
        for name, words in (("NotAllowedError", "not allowed"), ("NotFoundError", "No microphone is there")):
            page.evaluate(f"() => {{ {refuse % name}; }}")
            page.keyboard.press("Shift+R")
            expect(page.get_by_role("alert")).to_contain_text(words)

    def test_a_browser_without_any_codec_records_as_well(self) -> None:
        self.context.add_init_script("delete window.AudioEncoder;")
        page = self.page
        self.record(page)
        page.evaluate("say('ArrowRight')")
        page.wait_for_timeout(1500)
        self.end(page)
        self.assertEqual(Take.objects.get().container, "wav")
        walk, voice = self.made()
        (step,) = [e["at"] / 1000 for e in walk.score if e["kind"] == "frame"]
        (heard,) = tones(voice)
        self.assertLess(abs(heard - step), TOGETHER_S)

    def test_a_stretch_is_cut_out_and_brought_back(self) -> None:
        page = self.page
        self.record(page)
        for _ in range(3):
            page.evaluate("say('ArrowRight')")
            page.wait_for_timeout(900)
        self.end(page)
        before, _ = self.made()
        bar = page.get_by_role("slider", name="Where in the walk")
        bar.fill("1500")
        page.get_by_role("button", name="From here …").click()
        bar.fill("2500")
        page.get_by_role("button", name="Cut out 0:01 to 0:02").click()
        self.saved()
        cut, voice = self.made()
        self.assertAlmostEqual(cut.length_ms, before.length_ms - 1000, delta=40)
        self.assertAlmostEqual(len(voice) / RATE, cut.length_ms / 1000, delta=0.04)
        page.get_by_role("button", name="Undo the last change of the walk").click()
        self.saved()
        self.assertAlmostEqual(self.made()[0].length_ms, before.length_ms, delta=10)

    def test_a_stretch_is_said_anew_and_the_old_one_comes_back_after_a_reload(self) -> None:
        page = self.page
        self.record(page)
        page.wait_for_timeout(3200)
        self.end(page)
        before, _ = self.made()
        bar = page.get_by_role("slider", name="Where in the walk")
        bar.fill("1000")
        page.get_by_role("button", name="From here …").click()
        bar.fill("2000")
        page.get_by_role("button", name="Say it anew").click()
        expect(page.get_by_role("button", name="End", exact=True)).to_be_visible()
        page.wait_for_timeout(2500)
        self.end(page)
        self.assertEqual(Take.objects.count(), 2)
        anew, _ = self.made()
        self.assertEqual([stretch["from"] for stretch in anew.cut], [0, 0, 2000])
        said = next(take for take in Take.objects.all() if str(take.pk) == anew.cut[1]["take"])
        self.assertAlmostEqual(anew.length_ms, before.length_ms - 1000 + said.length_ms, delta=60)
        page.reload()
        page.get_by_role("button", name="Undo the last change of the walk").click()
        self.saved()
        self.assertAlmostEqual(self.made()[0].length_ms, before.length_ms, delta=10)
