"""Words and marks on their way: reloads, lost connections, full storage, refusals, an ended session."""

import re

from playwright.sync_api import Route, expect

from tests.browser.base import PASSWORD, BrowserCase, StageDriver
from tests.server import making
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.lessons.models import Lesson, LessonFrame
from tropometer.server.people.models import Student

KEPT = re.compile("No connection. What you do here is kept")


class OutboxTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=self.clip.swing)
        self.desk = f"/lessons/{self.lesson.pk}"
        self.bench = f"/bench/{self.clip.swing_id}"
        self.sign_in()

    def opening(self) -> str:
        return Lesson.objects.get(pk=self.lesson.pk).opening

    def open_desk(self) -> None:
        self.page.goto(self.desk)
        expect(self.page.get_by_label("Opening words")).to_be_visible()

    def write(self, words: str) -> None:
        self.page.get_by_label("Opening words").fill(words)

    def test_words_written_just_before_a_reload_are_kept(self) -> None:
        self.open_desk()
        self.write("One thing for a month.")
        self.page.reload()  # within the half second in which nothing was sent yet
        expect(self.page.get_by_label("Opening words")).to_have_value("One thing for a month.")
        expect(self.page.get_by_text("One thing for a month.").last).to_be_visible()
        self.assertEqual(self.opening(), "One thing for a month.")

    def test_words_written_without_a_connection_are_sent_when_it_is_back(self) -> None:
        self.open_desk()
        self.context.set_offline(True)
        self.write("Kept in the browser.")
        expect(self.page.get_by_role("alert").filter(has_text=KEPT)).to_be_visible()
        expect(self.page.get_by_role("button", name="Send to")).to_be_disabled()
        self.assertEqual(self.opening(), "")
        self.context.set_offline(False)
        self.saved()
        self.assertEqual(self.opening(), "Kept in the browser.")

    def test_a_server_that_is_away_is_tried_again(self) -> None:
        self.open_desk()
        answers = [502, 500]

        def stumble(route: Route) -> None:
            if route.request.method == "PATCH" and answers:
                route.fulfill(status=answers.pop(0), body="away")
            else:
                route.continue_()

        self.page.route("**/api/lessons/**", stumble)
        self.write("Third time lucky.")
        self.saved()
        self.assertEqual(self.opening(), "Third time lucky.")

    def test_marks_go_to_the_server_though_the_browser_s_storage_is_full(self) -> None:
        self.page.goto(self.bench)
        driver = StageDriver(self.page)
        driver.wait_drawn()
        self.page.evaluate(
            "() => { Storage.prototype.setItem = () => { throw new DOMException('', 'QuotaExceededError') } }"
        )
        self.page.keyboard.press("2")
        driver.click(660, 350)
        self.saved()
        self.assertEqual(Mark.objects.count(), 1)
        self.context.set_offline(True)
        self.page.keyboard.press("3")
        driver.click(590, 350)
        expect(self.page.get_by_text("This browser's storage is full: keep this tab open")).to_be_visible()
        self.context.set_offline(False)
        self.saved()
        self.assertEqual(Mark.objects.count(), 2)

    def test_what_is_refused_is_set_aside_and_in_nobody_s_way(self) -> None:
        frame = LessonFrame.objects.create(lesson=self.lesson, frame=3, position=0, drawn=DRAWN)
        self.open_desk()
        LessonFrame.objects.filter(pk=frame.pk).delete()  # in another tab
        self.page.get_by_label("Words under Tobin Farrow, top").fill("Nowhere to go.")
        self.write("These go through.")
        aside = self.page.get_by_role("region", name="Set aside")
        expect(aside).to_contain_text("Nowhere to go.")
        expect(aside).to_contain_text("all else is saved")
        self.saved()
        self.assertEqual(self.opening(), "These go through.")
        self.page.reload()
        expect(aside).to_contain_text("Nowhere to go.")  # until somebody has seen to it
        aside.get_by_role("button", name="Let go of the words under Tobin Farrow, top").click()
        expect(aside).to_have_count(0)

    def test_a_frame_picked_without_a_connection_arrives_once_and_moves_nobody(self) -> None:
        self.page.goto(self.bench)
        StageDriver(self.page).wait_drawn()
        self.context.set_offline(True)
        self.page.keyboard.press("p")
        expect(self.page.get_by_text("The frame is on its way.")).to_be_visible()
        self.page.get_by_role("link", name="Students").click()
        expect(self.page.get_by_role("heading", name="Students")).to_be_visible()
        self.context.set_offline(False)
        self.saved()
        self.page.wait_for_timeout(1000)
        self.assertEqual(LessonFrame.objects.count(), 1)
        self.assertTrue(self.page.url.endswith("/students"))

    def test_a_lesson_waits_for_the_frames_that_are_on_their_way(self) -> None:
        held: list[Route] = []
        self.page.route("**/api/lessons/*/frames", lambda route: held.append(route))
        self.page.goto(f"{self.bench}?station=tell")
        StageDriver(self.page).wait_drawn()
        send = self.page.get_by_role("button", name="Send to")
        expect(send).to_be_enabled()
        self.page.keyboard.press("p")
        expect(send).to_be_disabled()
        expect(self.page.get_by_text("Something of it is still on its way.")).to_be_visible()
        while not held:
            self.page.wait_for_timeout(50)
        held.pop().continue_()
        expect(send).to_be_enabled()
        self.assertEqual(LessonFrame.objects.count(), 1)

    def test_without_a_connection_every_screen_says_so(self) -> None:
        self.page.goto("/inbox")
        expect(self.page.get_by_role("link", name="Tobin Farrow", exact=True)).to_be_visible()
        self.page.wait_for_timeout(1500)  # what comes in pieces of its own is fetched meanwhile
        self.context.set_offline(True)
        note = self.page.get_by_role("alert").filter(has_text=KEPT)
        for name in ("Students", "Shelf", "Lessons", "Bin", "Inbox"):
            self.page.get_by_role("link", name=name, exact=True).click()
            expect(note).to_be_visible()
        expect(
            self.page.get_by_role("link", name="Tobin Farrow", exact=True)
        ).to_be_visible()  # the inbox is not blank
        self.context.set_offline(False)
        expect(note).to_have_count(0)

    def test_a_form_outlives_a_reload_and_a_lost_answer_makes_nobody_twice(self) -> None:
        page = self.page
        page.goto("/students")
        page.get_by_role("button", name="New student").click()
        expect(page.get_by_label("Guardian who consented")).to_be_hidden()
        page.get_by_label("Name").fill("Ilse Brand")
        page.get_by_label("Under age").check()
        page.get_by_label("Guardian who consented").fill("Odo Brand")
        page.reload()
        page.get_by_role("button", name="New student").click()
        expect(page.get_by_text("What you had typed is still here")).to_be_visible()
        expect(page.get_by_label("Guardian who consented")).to_have_value("Odo Brand")
        page.get_by_label("Consent given on").fill("2026-11-01")

        def lose(route: Route) -> None:
            route.fetch()
            route.abort()

        page.route("**/api/students", lose)
        page.get_by_role("button", name="Add student").click()
        expect(page.get_by_role("alert").first).to_be_visible()
        page.unroute("**/api/students")
        page.get_by_label("Name").fill("Ilse Brandt")
        page.get_by_role("button", name="Add student").click()
        expect(page.get_by_role("heading", name="Ilse Brandt")).to_be_visible()
        self.assertEqual(Student.objects.filter(guardian="Odo Brand").count(), 1)
        page.get_by_role("button", name="New student").click()
        expect(page.get_by_label("Name")).to_have_value("")

    def test_an_ended_session_leads_to_signing_in_and_back_with_all_that_was_done(self) -> None:
        self.open_desk()
        self.context.clear_cookies()
        self.write("Written while signed out.")
        note = self.page.get_by_role("alert").filter(has_text="You are signed out.")
        expect(note).to_be_visible()
        note.get_by_role("link", name="sign in").click()
        self.page.get_by_label("Mail address").fill("Maren@Skerrow.example")
        self.page.get_by_label("Password").fill(PASSWORD)
        self.page.get_by_role("button", name="Sign in").click()
        expect(self.page.get_by_label("Opening words")).to_have_value("Written while signed out.")
        self.assertTrue(self.page.url.endswith(self.desk))
        self.saved()
        self.assertEqual(self.opening(), "Written while signed out.")


DRAWN = {
    "whose": "student", "name": "Tobin Farrow", "hand": "right", "width": 1280, "height": 720,
    "checkpoint": "top", "time_from_impact_s": -0.3, "gauges": [],
    "crop": {"left": 0, "top": 0, "width": 540, "height": 720},
    "values": [],
}  # fmt: skip


class HandTests(BrowserCase):
    """A hand hits what it means."""

    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        Mark.objects.create(clip=self.clip, name="lead_hip", frame=0, x=640, y=350, sd_px=1)
        Mark.objects.create(clip=self.clip, name="lead_hip_edge", frame=0, x=652, y=350, sd_px=1)
        self.sign_in()
        self.page.goto(f"/bench/{self.clip.swing_id}")
        self.driver = StageDriver(self.page)
        self.driver.wait_drawn()
        expect(self.page.locator("[data-mark]")).to_have_count(2)

    def place(self, name: str) -> tuple[float, float]:
        expect(self.page.get_by_role("status").filter(has_text=re.compile("^Saved$"))).to_be_visible()
        mark = Mark.objects.get(name=name)
        return round(mark.x), round(mark.y)

    def test_dragging_takes_the_nearest_mark_by_where_it_was_held(self) -> None:
        self.driver.drag((641, 350), (641, 380))
        self.assertEqual((self.place("lead_hip"), self.place("lead_hip_edge")), ((640, 380), (652, 350)))
        self.driver.drag((653, 350), (673, 350))
        self.assertEqual(self.place("lead_hip_edge"), (672, 350))

    def test_a_label_under_a_picture_goes_there_and_moving_a_peg_is_said(self) -> None:
        pegs = self.page.get_by_role("list", name="Pegs").first
        self.driver.go_to(20)
        pegs.get_by_role("button", name="Top: not pegged; peg this frame").click()
        self.driver.go_to(25)
        pegs.get_by_role("button", name="Top: go to frame").click()
        self.driver.wait_drawn(20)
        self.driver.go_to(30)
        pegs.get_by_role("button", name="Move the top peg here").click()
        expect(self.page.get_by_text("Top: the peg has moved from frame 20 to 30")).to_be_visible()
        pegs.get_by_role("button", name="Take the top peg away").click()
        expect(self.page.get_by_text("Top: the peg on frame 30 is taken away")).to_be_visible()
        self.page.keyboard.press("Control+z")
        expect(pegs.get_by_role("button", name="Top: go to frame 30")).to_be_visible()

    def test_keys_do_nothing_under_an_open_sheet(self) -> None:
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog")).to_be_visible()
        self.page.keyboard.press("a")
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Escape")
        self.page.wait_for_timeout(300)
        self.assertEqual(self.clip.pegs.count(), 0)
        self.driver.wait_drawn(0)

    def test_a_click_that_draws_nothing_says_so(self) -> None:
        self.page.keyboard.press("k")
        self.driver.click(500, 600)
        expect(self.page.get_by_text("Nothing was drawn: press at one end")).to_be_visible()


class ReferenceTests(BrowserCase):
    def test_an_earlier_swing_can_stand_beside_a_later_one(self) -> None:
        student = making.student(self.owner)
        swings = [
            Swing.objects.create(instructor=self.owner, student=student, club="7 iron") for _ in range(2)
        ]
        for swing in swings:
            self.clip_from(DEMO_CLIPS / "tobin_first_face.mp4", swing)
        self.sign_in()
        self.page.goto(f"/bench/{swings[1].pk}")
        StageDriver(self.page).wait_drawn()
        self.page.get_by_role("combobox", name="Reference").select_option(value=str(swings[0].pk))
        reference = StageDriver(self.page, "reference")
        reference.wait_drawn()
        expect(reference.stage.get_by_text("earlier", exact=True)).to_be_visible()
