"""A studio hour out of a day's swings: what was changed is said, and stands against the tries before."""

import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.server import making
from tests.swings import DEMO_CLIPS
from tropometer.server.bench.models import Shot, Swing
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.server.studio.models import StudioHour, Try

USUAL, NARROW = (30.0, 31.0, 29.0, 30.5), (37.0, 38.0, 36.5, 37.5)


class StudioTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.tobin = making.student(self.owner)
        began = timezone.now() - timedelta(days=400)  # long ago: nothing else is of that day
        self.day = timezone.localtime(began).date().isoformat()
        for number, value in enumerate((*USUAL, *NARROW)):
            swing = Swing.objects.create(
                instructor=self.owner, student=self.tobin, received_at=began + timedelta(milliseconds=number)
            )
            LoggedSwing.objects.create(swing=swing, core="test")
            about = {"provisional": False, "set_up_share": 0.5, "core": "test", "u95": 2.0}
            LoggedReading.objects.create(swing=swing, reading="pelvis_turn", at="top", value=value, **about)
        self.sign_in()

    def test_a_change_is_said_at_its_tries_and_held_against_the_first_ones(self) -> None:
        page = self.page
        page.goto(f"/students/{self.tobin.pk}")
        page.get_by_label("Day of the hour").fill(self.day)
        page.get_by_role("button", name="New hour").click()
        page.get_by_label("What this hour is for").fill("How wide to stand")
        page.get_by_label("Watch a reading").select_option(label="Pelvis turn, top")
        expect(page.get_by_text("+30 ± 2°").first).to_be_visible()
        for number in range(5, 9):
            field = page.get_by_label(f"What was changed at try {number}")
            field.fill("Narrower stance")
            field.press("Enter")
            expect(field).to_be_focused()  # keys that follow mean no ball
        step = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Narrower stance"))
        expect(step).to_contain_text("so far apart by chance once in 35 times")
        expect(step).to_contain_text("Go back once without the change")
        check_axe(self, page, "studio hour")
        page.emulate_media(media="print")
        expect(page.get_by_role("cell").get_by_text("Narrower stance")).to_have_count(4)
        expect(page.get_by_role("cell").get_by_text("Narrower stance").first).to_be_visible()
        expect(page.get_by_label("What was changed at try 5")).not_to_be_visible()
        page.emulate_media(media="screen")
        page.get_by_label("How try 1 was struck").select_option("heavy")
        page.get_by_label("How try 5 was struck").select_option("clean")
        expect(step).to_contain_text("heavy: 1 of 1, with it 0 of 1; that can be chance")
        page.get_by_label("Why try 8 does not count").fill("slipped")
        page.get_by_label("Why try 8 does not count").press("Enter")
        expect(step).to_contain_text("seems so, but of too few")
        page.get_by_role("button", name="Take try 7 out").click()
        expect(page.get_by_role("row")).to_have_count(8)  # seven tries, and the head
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("row")).to_have_count(9)
        expect(page.get_by_label("What was changed at try 7")).to_have_value("Narrower stance")
        self.assertEqual(Try.objects.get(left_out="slipped").position, 7)
        self.assertEqual(StudioHour.objects.get().about, "How wide to stand")
        page.get_by_role("button", name="Forget this hour").click()
        self.assertTrue(Try.objects.exists())  # what was said at them would be gone
        page.get_by_role("button", name="Forget it with all that was said").click()
        expect(page.get_by_text("An hour holds the tries of one day")).to_be_visible()
        self.assertFalse(Try.objects.exists())
        self.assertEqual(Swing.objects.count(), len(USUAL) + len(NARROW))

    def test_what_is_said_without_a_connection_is_there_in_the_next_tab_and_arrives(self) -> None:
        page = self.page
        about = {"content_type": "application/json"}
        begun = self.client.post(f"/api/students/{self.tobin.pk}/hours", {"day": self.day}, **about).json()
        page.goto(f"/hours/{begun['id']}")
        expect(page.get_by_label("What this hour is for")).to_be_visible()
        self.context.set_offline(True)
        felt = page.get_by_label("What they felt at try 2")
        felt.fill("weight in the toes")
        felt.press("Enter")
        page.get_by_label("How try 2 was struck").select_option("thin")
        page.get_by_label("What this hour is for").fill("How wide to stand")
        page.get_by_label("What this hour is for").press("Enter")
        expect(felt).to_have_value("weight in the toes")
        page.close()
        self.assertFalse(Try.objects.exclude(felt="").exists())
        self.context.set_offline(False)
        page = self.new_page()
        page.goto(f"/hours/{begun['id']}")
        expect(page.get_by_label("What they felt at try 2")).to_have_value("weight in the toes")
        expect(page.get_by_label("How try 2 was struck")).to_have_value("thin")
        expect(page.get_by_label("What this hour is for")).to_have_value("How wide to stand")
        self.saved(page)
        second = Try.objects.get(position=1)
        self.assertEqual((second.felt, second.struck), ("weight in the toes", "thin"))
        self.assertEqual(StudioHour.objects.get().about, "How wide to stand")

    def test_two_tabs_on_one_hour_take_nothing_from_each_other(self) -> None:
        about = {"content_type": "application/json"}
        begun = self.client.post(f"/api/students/{self.tobin.pk}/hours", {"day": self.day}, **about).json()
        pages = [self.page, self.new_page()]
        for page in pages:
            page.goto(f"/hours/{begun['id']}")
            expect(page.get_by_label("What was changed at try 1", exact=True)).to_be_visible()
        for page, label, words in (
            (pages[0], "What was changed at try 1", "Flared foot"),
            (pages[1], "What they felt at try 1", "Freer"),
        ):
            page.get_by_label(label, exact=True).fill(words)
            page.get_by_label(label, exact=True).press("Enter")
            self.saved(page)
        tried = Try.objects.get(position=0)
        self.assertEqual((tried.changed, tried.felt), ("Flared foot", "Freer"))
        expect(pages[1].get_by_label("What was changed at try 1", exact=True)).to_have_value("Flared foot")
        begun_word = pages[1].get_by_label("What they felt at try 2")
        begun_word.fill("Tall")
        pages[1].reload()  # while it is still in hand
        expect(begun_word).to_have_value("Tall")
        self.saved(pages[1])
        self.assertEqual(Try.objects.get(position=1).felt, "Tall")

    def test_a_try_is_put_on_the_bench_with_the_first_one_beside_it(self) -> None:
        page = self.page
        swings = list(Swing.objects.order_by("received_at"))
        for swing in (swings[0], swings[4]):
            self.clip_from(DEMO_CLIPS / "tobin_first_face.mp4", swing)
        about = {"content_type": "application/json"}
        begun = self.client.post(f"/api/students/{self.tobin.pk}/hours", {"day": self.day}, **about)
        page.goto(f"/hours/{begun.json()['id']}")
        both = page.get_by_role("link", name=re.compile("on the bench, try 1 beside it"))
        expect(both).to_have_count(1)  # of the others no clip is there
        both.click()
        expect(page).to_have_url(re.compile(f"/bench/{swings[4].pk}.*beside={swings[0].pk}"))
        for side in ("student", "reference"):
            StageDriver(page, side).wait_drawn()

    def test_shots_of_a_table_are_put_to_the_tries_once_its_columns_are_said(self) -> None:
        page = self.page
        page.goto(f"/students/{self.tobin.pk}")
        page.get_by_label("Day of the hour").fill(self.day)
        page.get_by_role("button", name="New hour").click()
        page.get_by_role("button", name="Shots from a table").click()
        sheet = page.get_by_role("dialog", name="Shots of a launch monitor")
        paths = (-3.0, -2.5, -3.5, -2.8, 1.5, 2.0, 1.8, 2.4)
        lines = [f"{path};{140 + number}" for number, path in enumerate(paths)]
        table = self.folder / "lane two.csv"
        table.write_text("\n".join(["Way of the club;Carry (yd)", *lines]).replace(".", ","))
        bad = self.folder / "notes.csv"
        bad.write_text("no table")
        sheet.get_by_label("Choose the table").set_input_files(bad)
        expect(sheet.get_by_role("alert")).to_contain_text("line 1: there is no line that names columns")
        sheet.get_by_label("Choose the table").set_input_files(table)
        shots = sheet.get_by_role("region", name="The shots as they are understood")
        expect(shots.get_by_role("columnheader")).to_have_text(["Line", "Shot of", "Carry, m"])
        sheet.get_by_label("Way of the club is").select_option(label="club path")
        expect(shots.get_by_role("row").nth(1)).to_contain_text("−3")
        sheet.get_by_label("Way of the club: which side").select_option(label="plus is left")
        expect(shots.get_by_role("row").nth(1)).to_contain_text("+3")
        expect(sheet.get_by_label("Line 9 is the shot of")).to_contain_text("8: As before")
        sheet.get_by_label("Keep what the columns are as").fill("Lane two")
        check_axe(self, page, "launch table")
        sheet.get_by_role("button", name="Take in 8 shots").click()
        page.get_by_label("Watch a reading").select_option(label="Carry")
        expect(page.get_by_text("128 ± 3 m")).to_be_visible()  # of 140 yards
        page.get_by_role("button", name="Shots from a table").click()
        expect(sheet.get_by_role("region", name="Tables that are known")).to_contain_text("Lane two")
        sheet.get_by_label("Choose the table").set_input_files(table)
        expect(sheet.get_by_label("Way of the club is", exact=True)).to_have_value("club_path_deg")
        expect(sheet.get_by_text("8 of these tries have shots already")).to_be_visible()
        sheet.get_by_role("button", name="Close").click()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("not read").first).to_be_visible()
        self.assertFalse(Shot.objects.exists())
