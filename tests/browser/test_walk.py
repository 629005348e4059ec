"""The whole job as an instructor does it: from a student's clip to a lesson read on a phone."""

import os
import re
import socket
import subprocess
import sys
import urllib.request
from threading import Thread

from aiosmtpd.controller import Controller
from django.db import connection
from django.test import override_settings
from playwright.sync_api import Locator, Page, expect

from tests.browser.base import PASSWORD, BrowserCase, StageDriver, mark_all
from tests.server.test_sending import run_mail
from tests.swings import DEMO_CLIPS, ROOT, true_reading, truth
from tropometer.server.bench.models import Swing
from tropometer.server.demo.drawn import put_on
from tropometer.server.shelf.models import ReferenceSwing
from tropometer.standins.mail import Folder, serve_page

ILSE, MODEL = "ilse_face", "model_loaded_face"
NEAR_FRAMES = 8  # of 120 a second: what a proposed peg may be off


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


class WalkTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        model = Swing.objects.create(instructor=self.owner, reference_hand="right", club="7 iron")
        ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Range model")
        put_on(self.clip_from(DEMO_CLIPS / f"{MODEL}.mp4", model), MODEL, whole=False)
        self.start_worker()
        self.mail_page = self.start_mail()

    def start_worker(self) -> None:
        """A worker process of its own, on the test's database and media."""
        base = os.environ["DATABASE_URL"].rsplit("/", 1)[0]
        media = str(self.folder / "media")
        worker = subprocess.Popen(
            [sys.executable, "manage.py", "procrastinate", "worker", "--fetch-job-polling-interval", "1"],
            cwd=ROOT,
            env={
                **os.environ,
                "DATABASE_URL": f"{base}/{connection.settings_dict['NAME']}",
                "TROPO_MEDIA": media,
            },
            stderr=subprocess.DEVNULL,
        )

        def stop() -> None:
            worker.terminate()
            worker.wait(120)  # a look at a clip that is in hand is finished first

        self.addCleanup(stop)

    def start_mail(self) -> str:
        folder, port = Folder(self.folder / "mail"), free_port()
        smtp = Controller(folder, hostname="127.0.0.1", port=port)
        smtp.start()
        self.addCleanup(smtp.stop)
        page = serve_page(folder, free_port())
        Thread(target=page.serve_forever, daemon=True).start()
        self.addCleanup(page.shutdown)
        settings = override_settings(
            EMAIL_BACKEND="django.core.mail.backends.smtp.EmailBackend",
            EMAIL_HOST="127.0.0.1",
            EMAIL_PORT=port,
        )
        settings.enable()
        self.addCleanup(settings.disable)
        return f"http://127.0.0.1:{page.server_port}"

    def test_from_a_left_hander_s_clip_to_a_lesson_on_the_phone(self) -> None:
        page = self.page
        self.sign_in_by_form(page)
        expect(page.get_by_text("Three steps to the first lesson")).to_be_visible()
        self.add_student(page)
        self.refuse_what_is_no_video(page)
        self.take_in(page)
        student = self.measure(page)
        self.compare(page, student)
        self.see_the_other_side(page, student)
        self.read_in_inches(page)
        link = self.write_and_send(page)
        self.read_on_a_phone(link)
        self.take_back(page, link)

    def sign_in_by_form(self, page: Page) -> None:
        page.goto("/")
        page.get_by_label("Mail address").fill(self.owner.email)
        page.get_by_label("Password").fill("wrong-password")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_contain_text("not correct")
        page.get_by_label("Password").fill(PASSWORD)
        expect(page).to_have_title("Sign in · Tropometer")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Inbox")).to_be_visible()
        expect(page).to_have_title("Inbox · Tropometer")

    def add_student(self, page: Page) -> None:
        page.get_by_role("link", name="Students").click()
        page.get_by_role("button", name="New student").click()
        page.get_by_label("Name").fill("Ilse Marrin")
        page.get_by_label("Mail address", exact=True).fill("ilse@skerrow.example")
        page.get_by_label("Plays").select_option("left")
        page.get_by_label("Height, cm").fill("5'6 1/2")
        page.get_by_role("button", name="Add student").click()
        expect(page.get_by_role("heading", name="Ilse Marrin")).to_be_visible()
        expect(page.get_by_text("left-handed · 168.9 cm")).to_be_visible()

    def refuse_what_is_no_video(self, page: Page) -> None:
        notes = self.folder / "notes.mp4"
        notes.write_text("These are notes, not a film. " * 40)
        page.get_by_role("link", name="Inbox").click()
        page.get_by_role("button", name="New swing").click()
        page.get_by_label("Student", exact=True).select_option(label="Ilse Marrin")
        page.get_by_label("Clips", exact=True).set_input_files(notes)
        expect(page.get_by_text("MB, here")).to_be_visible()
        page.get_by_role("button", name="Take in").click()
        expect(page.get_by_role("alert")).to_have_text(
            "notes.mp4: This file is not a video, or it is damaged."
        )
        expect(page.get_by_text("MB, here")).to_have_count(0)  # it is no longer waiting there
        self.assertEqual(Swing.objects.filter(student__isnull=False).count(), 0)

    def take_in(self, page: Page) -> None:
        frames = len(truth(ILSE)["times_s"]["frames"])
        page.get_by_label("Clips", exact=True).set_input_files(DEMO_CLIPS / f"{ILSE}.mov")
        page.get_by_label("Slow motion, shot at").fill("120")
        page.get_by_label("Club", exact=True).fill("7 iron")
        page.get_by_label("In the student's words").fill("It felt solid today.")
        page.get_by_label("Usual miss").fill("A push")
        page.get_by_role("button", name="Take in").click()
        expect(page.get_by_text("It felt solid today.")).to_be_visible()
        ready = page.get_by_text(f"{frames} frames at 120/s (slow motion)")
        expect(page.get_by_role("progressbar").or_(ready)).to_be_visible()
        expect(ready).to_be_visible(timeout=90_000)
        page.get_by_role("button", name="Add a view").click()
        page.get_by_label("Clips", exact=True).set_input_files(DEMO_CLIPS / "ilse_line.mov")
        expect(page.get_by_role("combobox", name="View")).to_have_value("down_the_line")
        page.get_by_label("Slow motion, shot at").fill("120")
        page.get_by_label("One swing, filmed by two cameras").check()
        page.get_by_role("button", name="Take in").click()
        expect(page.get_by_text(f"Down the line · {frames} frames")).to_be_visible(timeout=90_000)
        page.get_by_role("link", name="Open on the bench").click()

    def measure(self, page: Page) -> StageDriver:
        student = StageDriver(page)
        student.wait_drawn()
        mark_all(student, ILSE)
        page.keyboard.press("r")
        tape = page.get_by_test_id("tape-pelvis_sway-top")
        read = r"Pelvis sway top: −\d\.\d ± \d\.\d cm, away from target\. Inside the band"
        expect(tape).to_contain_text(re.compile(read))
        self.assert_holds(tape, true_reading(ILSE, "pelvis_sway", "top"))
        top = truth(ILSE)["checkpoints"]["top"]
        tape.click()
        student.wait_drawn(top)
        late = truth(ILSE)["checkpoints"]["impact"] - top
        expect(page.get_by_test_id("student-time")).to_have_text(f"−{late * 1000 / 120:.0f} ms")
        self.assert_holds(
            page.get_by_test_id("tape-trail_hip_gap-top"), true_reading(ILSE, "trail_hip_gap", "top")
        )
        return student

    def assert_holds(self, tape: Locator, true_m: float, unit_m: float = 0.01) -> None:
        """The value on a tape holds the truth within the error it shows."""
        sign, value, u95 = re.findall(r"([−+]?)(\d+\.\d) ± (\d+\.\d)", tape.inner_text())[0]
        measured = float(value) * (-1 if sign == "−" else 1)
        self.assertLessEqual(abs(measured - true_m / unit_m), float(u95))

    def see_the_other_side(self, page: Page, student: StageDriver) -> None:
        """The second view stands at the same moment, takes pegs of its own, and gives the first one back."""
        top = truth(ILSE)["checkpoints"]["top"]
        student.go_to(top)
        page.keyboard.press("v")
        expect(student.stage).to_contain_text("Down the line · left-handed")
        student.wait_drawn()
        # By time, or once a worker has looked at this view too, by its proposed pegs.
        self.assertAlmostEqual(student.frame(), top, delta=NEAR_FRAMES)
        page.keyboard.press("m")
        page.keyboard.press("Shift+T")
        expect(student.stage).to_contain_text("Top")
        page.keyboard.press("v")
        expect(student.stage).to_contain_text("Face-on · left-handed")
        expect(student.stage.locator("[data-mark=lead_hip]")).to_be_visible()
        page.keyboard.press("v")
        page.keyboard.press("Control+z")  # takes the peg off the view it was put on
        expect(student.stage).not_to_contain_text("Top")
        page.keyboard.press("v")
        self.assertEqual(student.frame(), top)  # to and fro ends where it began

    def compare(self, page: Page, student: StageDriver) -> None:
        reference = StageDriver(page, "reference")
        expect(reference.stage).to_contain_text("shown mirrored")
        for at in ("impact", "address", "top"):  # peg to peg, both move
            student.go_to(truth(ILSE)["checkpoints"][at])
            reference.wait_drawn(truth(MODEL)["checkpoints"][at])
        tape = page.get_by_test_id("tape-pelvis_sway-top")
        page.keyboard.press("r")
        before = tape.text_content() or ""
        page.keyboard.press("m")
        place = truth(ILSE)["pixels"]["lead_hip"][student.frame()]
        student.drag(tuple(place), (place[0] + 40, place[1]))
        page.keyboard.press("r")
        expect(tape).not_to_have_text(before)
        page.keyboard.press("Control+z")
        expect(tape).to_have_text(before)
        page.keyboard.press("m")
        student.click(*place)
        page.keyboard.press("ArrowRight")  # a tenth of a screen pixel: too little to be seen in the value
        page.keyboard.press("Control+z")
        page.keyboard.press("Escape")
        expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
        page.keyboard.press("r")
        expect(page).to_have_url(re.compile("station=read"))
        page.reload()  # the address leads back to the tapes
        expect(tape).to_have_text(before)
        student.wait_drawn()
        student.go_to(truth(ILSE)["checkpoints"]["top"])

    def read_in_inches(self, page: Page) -> None:
        page.keyboard.press("r")
        page.get_by_role("button", name="in", exact=True).click()
        tape = page.get_by_test_id("tape-pelvis_sway-top")
        expect(tape).to_contain_text(re.compile(r"−\d\.\d ± \d\.\d in"))
        self.assert_holds(tape, true_reading(ILSE, "pelvis_sway", "top"), 0.0254)
        page.get_by_role("button", name="cm", exact=True).click()

    def choose_what_it_is_about(self, page: Page) -> None:
        page.keyboard.press("j")
        page.get_by_text("Add what you see").click()
        page.get_by_label("Fault").select_option("posed_finish")
        page.get_by_role("button", name="Add", exact=True).click()
        page.get_by_test_id("finding-posed_finish").click()
        page.get_by_role("button", name="Work on it").click()
        expect(page.get_by_role("region", name="The lesson is about")).to_contain_text("Posed finish")

    def write_and_send(self, page: Page) -> str:
        self.choose_what_it_is_about(page)
        page.keyboard.press("p")
        expect(
            page.get_by_text(f"Frame {truth(ILSE)['checkpoints']['top']} is in the lesson (1).")
        ).to_be_visible()
        page.keyboard.press("t")
        page.get_by_label("Opening words").fill("Good posture. One thing for two weeks.")
        page.get_by_label("Words under Ilse Marrin, top").fill("Keep this room.")
        expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
        page.get_by_role("link", name="See it as the student will").click()
        preview = page.get_by_role("complementary", name="Preview of the lesson sheet")
        expect(preview).to_contain_text("Keep this room.")
        expect(preview).to_contain_text("Do this: Pressure across before the turn ends")
        page.get_by_role("button", name="Send to ilse@skerrow.example").click()
        expect(page.get_by_text("Not read yet.")).to_be_visible()
        page.get_by_role("button", name="Take it back").click()
        expect(page.get_by_label("Opening words")).to_have_value("Good posture. One thing for two weeks.")
        page.get_by_role("button", name="Send to ilse@skerrow.example").click()
        expect(page.get_by_role("button", name="Take it back")).to_be_visible()
        run_mail()
        mails = urllib.request.urlopen(self.mail_page, timeout=5).read().decode()
        self.assertIn("To ilse@skerrow.example", mails)
        link = re.search(r'href="([^"]+/l/[^"]+)"', mails)
        assert link is not None
        page.get_by_role("link", name="Inbox").click()
        expect(page.get_by_text("Every swing is answered.")).to_be_visible()
        return link[1]

    def read_on_a_phone(self, link: str) -> None:
        phone = self.browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
        self.addCleanup(phone.close)
        page = phone.new_page()
        page.goto(link)
        expect(page.get_by_text("Keep this room.")).to_be_visible()
        told = re.compile(r"Your left \(back\) hip is \d\.\d cm inside your shoe\.")
        expect(page.get_by_text(told)).to_be_visible()
        expect(
            page.get_by_role("heading", name="Do this: Pressure across before the turn ends")
        ).to_be_visible()
        expect(page.get_by_text("Take care.").first).to_be_visible()
        loaded = page.locator("svg image").first
        self.assertTrue(loaded.evaluate("(i) => fetch(i.href.baseVal).then((r) => r.ok)"))
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)

    def take_back(self, page: Page, link: str) -> None:
        page.get_by_role("link", name="Lessons").click()
        page.get_by_role("link", name="Ilse Marrin").click()
        expect(page.get_by_text("First read")).to_be_visible()
        page.get_by_role("button", name="Take the link back").click()
        expect(page.get_by_text("it leads nowhere now")).to_be_visible()
        other = self.new_page()
        other.goto(link)
        expect(other.get_by_role("heading")).to_have_text("This link no longer leads to a lesson")
