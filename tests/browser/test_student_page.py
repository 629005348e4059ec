"""A student answers from a phone, with and without a connection; the instructor finds it and answers."""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase
from tests.browser.recording import MICROPHONE
from tests.browser.test_accessible import PLAN, check_axe
from tests.server.lines import Splice
from tests.server.seen import put_proposals
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Peg, Swing
from tropometer.server.clips.models import Clip
from tropometer.server.demo.drawn import put_on
from tropometer.server.drill_checks.answering import answer
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.sending import link, send
from tropometer.server.lessons.services import add_frame
from tropometer.server.people.models import Student
from tropometer.server.people.student_page import close, page_of
from tropometer.server.talking.models import Message, Practised, Side

DRILL = "Stick by the right (back) hip"


def until(found: Callable[[], Any], seconds: float = 60.0) -> Any:
    """What the server has once it has it."""
    end = time.monotonic() + seconds
    while not (what := found()) and time.monotonic() < end:
        time.sleep(0.1)
    return what


class StudentPageTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_on(clip, "tobin_first_face", whole=True)
        self.lesson = Lesson.objects.create(
            instructor=self.owner, swing=clip.swing, title="Clear of the stick"
        )
        Plan.objects.create(swing=clip.swing, document=PLAN)
        add_frame(self.lesson, clip.pk, Peg.objects.get(clip=clip, name="top").frame, "Look here.")
        send(self.lesson)
        self.student = Student.objects.get()
        self.own = f"/p/{page_of(self.student).token}"
        self.phone = self.browser.new_context(
            base_url=self.live_server_url,
            viewport={"width": 390, "height": 844},
            has_touch=True,
            reduced_motion="reduce",
            permissions=["microphone"],
        )
        self.addCleanup(self.phone.close)

    def opened(self, path: str) -> Page:
        page = self.phone.new_page()
        page.on("pageerror", lambda error: self.fail(f"The page broke: {error}"))
        page.goto(path)
        return page

    def tick(self, page: Page, step: int) -> None:
        page.get_by_role("checkbox", name=f"Done today, up to step {step}: {DRILL}").click()

    def test_ticks_what_was_felt_and_a_question_reach_the_instructor_and_come_back_answered(self) -> None:
        page = self.opened(link(self.lesson) or "")
        self.tick(page, 2)
        expect(
            page.get_by_role("checkbox", name=re.compile("Done today.*" + re.escape(DRILL)), checked=True)
        ).to_have_count(2)
        page.get_by_role("button", name="right (back) seat").click()
        page.get_by_role("button", name="low back").click()
        expect(page.get_by_role("alert").filter(has_text="Stop this drill for today")).to_contain_text(
            "low back"
        )
        page.get_by_label(f"How did it feel: {DRILL}").fill("Tight afterwards.")
        page.get_by_label("To Maren Thole").fill("Do I go on?")
        page.get_by_role("button", name="Ask").click()
        expect(page.get_by_label("What was said with Maren Thole")).to_contain_text("Do I go on?")
        self.assertTrue(
            until(lambda: Practised.objects.filter(step=2, words="Tight afterwards.", speaks_up=True))
        )
        self.assertTrue(until(lambda: Message.objects.filter(words="Do I go on?", lesson=self.lesson)))
        check_axe(self, page, "the sheet of a student who answers")

        self.sign_in()
        self.page.goto("/inbox")
        card = self.page.get_by_role("region", name="Questions")
        expect(card).to_contain_text("Felt in: right (back) seat, low back")
        check_axe(self, self.page, "inbox with questions")
        card.get_by_role("link", name="Answer").click()
        self.page.get_by_label("To Tobin Farrow").fill("Stop for a week.\nThen smaller.")
        self.page.get_by_role("button", name="Say it").click()
        self.saved()
        check_axe(self, self.page, "a student's record")
        self.page.goto("/inbox")
        expect(self.page.get_by_role("heading", name="Inbox")).to_be_visible()
        expect(self.page.get_by_role("region", name="Questions")).to_have_count(0)

        page.goto(self.own)
        expect(page.get_by_label("What was said with Maren Thole")).to_contain_text("Then smaller.")
        check_axe(self, page, "a student's own page")
        self.assertTrue(until(lambda: Message.objects.filter(side=Side.INSTRUCTOR, seen_at__isnull=False)))

    def test_a_drill_is_filmed_checked_by_the_machine_and_corrected_by_the_instructor(self) -> None:
        page = self.opened(self.own)
        page.get_by_role("link", name="Film it and have it checked").click()
        expect(page.get_by_role("heading", name=f"{DRILL}: was it right?")).to_be_visible()
        expect(page.get_by_text("Film one try from the front")).to_be_visible()
        page.get_by_label("Clips", exact=True).set_input_files(DEMO_CLIPS / "dag_first_face.mp4")
        page.get_by_role("button", name="Have it checked").click()
        tried = page.get_by_role("region", name=DRILL.replace("right (back)", "trail"))
        expect(tried).to_contain_text("The clip is being made ready")
        self.looked_at(Swing.objects.exclude(drill="").get(), "dag_first_face")
        expect(tried.get_by_role("heading", name="Inside")).to_be_visible()
        expect(tried).to_contain_text("Going back the hips stay within a few centimetres of where they were.")
        expect(tried).to_contain_text("Maren Thole has not looked at it yet")
        expect(tried.get_by_role("img", name="Frame")).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        check_axe(self, page, "a checked drill")

        self.sign_in()
        self.page.goto(f"/students/{self.student.pk}")
        filmed = self.page.get_by_role("region", name="Filmed drills")
        expect(filmed).to_contain_text("Machine: inside")
        filmed.get_by_role("button", name="I see: outside").click()
        expect(filmed).to_contain_text("Of 1 that you looked at, the machine was right in 0")
        check_axe(self, self.page, "a card with a filmed drill")
        page.reload()
        expect(tried).to_contain_text("Maren Thole has looked: not yet.")

    def looked_at(self, swing: Swing, name: str) -> None:
        """What a worker does with a clip that was sent."""
        clip, made = swing.clips.get(), self.clip_from(DEMO_CLIPS / f"{name}.mp4", swing)
        for field in ("proxy", "state", "width", "height", "played_times_s"):
            setattr(clip, field, getattr(made, field))
        clip.save()
        Clip.objects.filter(pk=made.pk).delete()
        put_proposals(clip, name)
        answer(swing.pk)

    def test_what_was_opened_is_read_and_ticked_without_a_connection_until_the_link_is_closed(self) -> None:
        line = self.enterContext(Splice(self.live_server_url))
        page = self.opened(line.url + self.own)
        expect(page.get_by_role("heading", name="Tobin Farrow")).to_be_visible()
        page.get_by_role("link", name="Clear of the stick").click()
        expect(page.get_by_role("heading", name="Clear of the stick")).to_be_visible()
        kept = (
            "async () => (await Promise.all((await caches.keys()).filter(n => n.includes('own'))"
            ".map(async n => (await (await caches.open(n)).keys()).length))).reduce((a, b) => a + b, 0)"
        )
        self.assertTrue(until(lambda: page.evaluate(kept) >= 4))  # two pages, and what they are made of
        page.wait_for_timeout(500)
        line.cut()
        page.reload()
        expect(page.get_by_role("heading", name="Clear of the stick")).to_be_visible()
        still = page.get_by_role("figure").locator("img").first
        expect(still).to_have_js_property("complete", True)
        self.assertGreater(still.evaluate("image => image.naturalWidth"), 0)
        self.tick(page, 1)
        page.get_by_label("To Maren Thole").fill("On the ferry: more?")
        page.get_by_role("button", name="Ask").click()
        expect(page.get_by_text("kept here, not sent yet")).to_be_visible()
        page.reload()  # the phone was put away meanwhile
        expect(page.get_by_role("checkbox", name=f"Done today, up to step 1: {DRILL}")).to_be_checked()
        expect(page.get_by_text("On the ferry: more?")).to_be_visible()
        self.assertEqual((Practised.objects.count(), Message.objects.count()), (0, 0))
        line.mend()
        self.assertTrue(until(lambda: Practised.objects.filter(step=1) and Message.objects.exists(), 40))

        close(page_of(self.student))
        page.goto(line.url + self.own)
        expect(page.get_by_role("heading", name="This link leads nowhere any more")).to_be_visible()
        self.assertTrue(until(lambda: page.evaluate(kept) == 0))
        self.assertEqual(Practised.objects.count(), 1)

    def test_a_question_is_spoken_heard_again_and_sent(self) -> None:
        self.phone.add_init_script(MICROPHONE)
        page = self.opened(self.own)
        page.get_by_role("button", name="Speak it instead").click()
        expect(page.get_by_role("timer")).to_contain_text("0:01")
        page.get_by_role("button", name="Done", exact=True).click()
        expect(page.get_by_label("What you said")).to_be_visible()
        page.get_by_role("button", name="Send it").click()
        expect(page.get_by_label(re.compile(r"Spoken, [12] seconds"))).to_be_visible()
        self.assertGreater(Message.objects.get().voice_ms, 900)

    def test_without_a_microphone_the_question_is_written(self) -> None:
        refused = "throw new DOMException('no', 'NotAllowedError')"
        self.phone.add_init_script(f"navigator.mediaDevices.getUserMedia = async () => {{ {refused}; }};")
        page = self.opened(self.own)
        page.get_by_role("button", name="Speak it instead").click()
        expect(page.get_by_role("alert")).to_contain_text("not allowed")
        page.get_by_role("button", name="Write it").click()
        expect(page.get_by_label("To Maren Thole")).to_be_visible()

    def test_the_way_to_the_page_by_a_code(self) -> None:
        page = self.opened("/p")
        check_axe(self, page, "the way by a code")
        page.get_by_label("Mail address").fill("tobin@skerrow.example")
        page.get_by_role("button", name="Send me a code").click()
        page.get_by_label("Code").fill("AAAA-AAAA")
        page.get_by_role("button", name="Open").click()
        expect(page.get_by_role("alert")).to_contain_text("not the one that was mailed")
