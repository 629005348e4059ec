"""The student's card: what changed, which goals are reached, notes, and the way to it from everywhere."""

from __future__ import annotations

import csv
import io
import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.base import BrowserCase
from tests.browser.test_accessible import check_axe
from tests.server import making
from tropometer.server.bench.models import Swing
from tropometer.server.judging.models import Plan
from tropometer.server.logbook.keeping import keep_measured
from tropometer.server.people.models import StudentNote

TURN = ("pelvis_turn", "top")
SWAY = ("pelvis_sway", "impact")


class CardTests(BrowserCase):
    """Tobin's hips turned 26 degrees; after a lesson they turn 46. His driver turned less on one swing."""

    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner)
        first = self.measured(60, [26.0, 26.4, 25.7])[-1]
        goal = {"reading": "pelvis_turn", "at": "top", "low": 38.0, "high": 55.0, "by": None, "unit": "deg"}
        focus = {
            "fault": "restricted_turn",
            "name": "Your hips stop early",
            "drills": [],
            "goal": {**goal, "then": {"value": 25.7, "u95": 2.0}},
        }
        Plan.objects.create(swing=first, document={"focus": []}, as_sent={"focus": [focus]})
        Swing.objects.filter(pk=first.pk).update(answered_at=timezone.now() - timedelta(days=59))
        self.measured(3, [46.0, 45.6, 46.3, 46.1])
        self.measured(2, [31.0], club_class="driver")
        self.sign_in()
        self.card = f"/students/{self.tobin.pk}"

    def measured(self, days_ago: float, turns: list[float], club_class: str = "iron") -> list[Swing]:
        made = []
        for number, turn in enumerate(turns):
            at = timezone.now() - timedelta(days=days_ago, minutes=-number)
            about = {"club": "7 iron", "club_class": club_class, "received_at": at}
            swing = Swing.objects.create(instructor=self.owner, student=self.tobin, **about)
            keep_measured(swing, {TURN: (turn, 2.0), SWAY: (0.03, 0.012)})
            made.append(swing)
        return made

    def test_a_goal_that_was_reached_and_what_changed_are_told_with_their_swings(self) -> None:
        page = self.page
        page.goto(self.card)
        goal = page.get_by_test_id("goal-pelvis_turn")
        expect(goal).to_contain_text("Reached")
        expect(goal).to_contain_text("mean of 3 swings then, 4 now")
        first = page.locator("[data-testid^=trend-]").first
        expect(first).to_have_attribute("data-testid", "trend-pelvis_turn.top")  # goals go first
        check_axe(self, page, "card")
        first.click()
        change = page.get_by_role("region", name="Change")
        expect(change).to_contain_text(
            re.compile("moved toward the band by \\+20 ± [3-9]°, more than 99 % sure")
        )
        rows = page.get_by_role("dialog").get_by_role("row")
        expect(rows).to_have_count(8)
        expect(rows.nth(1)).to_contain_text("+46 ± 2°")
        check_axe(self, page, "a trend")
        page.keyboard.press("Escape")
        page.get_by_label("Which swings").select_option("driver full")
        page.get_by_test_id("trend-pelvis_turn.top").click()
        expect(change).to_contain_text("there is no then and now")

    def test_the_log_is_taken_along_as_a_table(self) -> None:
        self.page.goto(self.card)
        with self.page.expect_download() as taken:
            self.page.get_by_role("link", name="The log as a table").click()
        rows = list(csv.DictReader(io.StringIO(taken.value.path().read_text())))
        turns = [float(row["value"]) for row in rows if row["reading"] == "pelvis_turn"]
        self.assertEqual(turns, [26.0, 26.4, 25.7, 46.0, 45.6, 46.3, 46.1, 31.0])

    def test_a_note_is_kept_while_it_is_written_noted_and_taken_back(self) -> None:
        page = self.page
        page.goto(self.card)
        words = page.get_by_label(re.compile("^A note on"))
        words.fill("Grip first,\nthen the feet.")
        page.reload()
        expect(words).to_have_value("Grip first,\nthen the feet.")
        page.get_by_role("button", name="Note it").click()
        notes = page.get_by_role("region", name="Notes").get_by_role("listitem")
        expect(notes).to_contain_text("then the feet.")
        self.assertEqual(StudentNote.objects.get().words, "Grip first,\nthen the feet.")
        page.get_by_role("button", name=re.compile("^Take away the note")).click()
        expect(notes).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(notes).to_contain_text("then the feet.")

    def test_a_student_is_found_by_keys_from_anywhere_taken_off_the_list_and_brought_back(self) -> None:
        page = self.page
        page.goto("/book")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.keyboard.press("Control+k")
        page.get_by_role("combobox", name="What, where or who?").fill("tobin")
        expect(page.get_by_role("option", name="Tobin Farrow")).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Tobin Farrow", level=1)).to_be_visible()
        page.get_by_role("button", name="Archive").click()
        expect(page.get_by_role("button", name="Bring back")).to_be_visible()
        page.goto("/students")
        expect(page.get_by_text("No students yet")).to_be_visible()
        page.get_by_label("Which students").select_option("archived")
        page.get_by_role("link", name="Tobin Farrow").click()
        page.get_by_role("button", name="Bring back").click()
        expect(page.get_by_role("button", name="Archive")).to_be_visible()

    def test_two_cards_of_one_person_become_one_after_saying_what_that_means(self) -> None:
        other = making.student(self.owner, name="T. Farrow", email="")
        Swing.objects.create(
            instructor=self.owner, student=other, club="Driver", words="From the other card."
        )
        page = self.page
        page.goto(self.card)
        page.get_by_role("button", name="Merge").click()
        page.get_by_label("Which other card is Tobin Farrow too?").fill("farrow")
        page.get_by_role("button", name="T. Farrow").click()
        expect(page.get_by_text("This cannot be undone.")).to_be_visible()
        page.get_by_role("button", name="Make them one card").click()
        expect(page.get_by_text("From the other card.")).to_be_visible()
        self.assertEqual(Swing.objects.filter(student=self.tobin).count(), 9)

    def test_lists_are_filtered_in_the_address_and_filters_go_at_once(self) -> None:
        page = self.page
        page.goto("/students?hand=left&club=driver")
        expect(page.get_by_text("No student is found by that")).to_be_visible()
        page.get_by_role("button", name="No more filters").click()
        expect(page.get_by_role("link", name="Tobin Farrow")).to_be_visible()
        page.get_by_role("button", name="More filters").click()
        page.get_by_label("Club").select_option("driver")
        expect(page).to_have_url(re.compile("club=driver"))
        expect(page.get_by_role("link", name="Tobin Farrow")).to_be_visible()
