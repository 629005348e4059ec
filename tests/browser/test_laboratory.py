"""A laboratory's file on the shelf: its markers are mapped, and the figure stands on the bench."""

import tempfile
from pathlib import Path

import cv2
import numpy as np
from playwright.sync_api import expect

from tests.browser.base import BrowserCase, StageDriver
from tests.browser.test_accessible import check_axe
from tests.laboratory import c3d_file, markers_of
from tests.swings import truth
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.clips.proposing import look
from tropometer.server.clips.services import process

NAME = "ilse_face"


class LaboratoryTests(BrowserCase):
    def test_markers_are_mapped_and_the_figure_stands_on_the_bench(self) -> None:
        page = self.page
        self.sign_in()
        page.goto("/shelf")
        page.get_by_role("button", name="From a laboratory").click()
        with tempfile.TemporaryDirectory() as folder:
            bad, good = Path(folder) / "notes.trc", Path(folder) / "north_room.c3d"
            bad.write_text("no table")
            good.write_bytes(c3d_file(markers_of(NAME), truth(NAME)["capture_fps"]))
            page.get_by_label("Choose the file").set_input_files(bad)
            expect(page.get_by_role("alert")).to_contain_text("notes.trc: line 1")
            page.get_by_label("Choose another file").set_input_files(good)
            expect(page.get_by_text("120 a second")).to_be_visible()
            page.get_by_label("Plays").select_option("left")
            expect(page.get_by_label("R_hip stands for")).to_have_value(
                "lead_hip"
            )  # a left-hander leads right
            for side, mark in (("R", "lead_knee"), ("L", "trail_knee")):
                for where in ("in", "out"):
                    page.get_by_label(f"{side}_knee_{where} stands for").select_option(mark)
            page.get_by_label("L_ankle stands for").select_option("")
            put = page.get_by_role("button", name="Put on the shelf")
            expect(page.get_by_text("Say yet what stands for: trail ankle.")).to_be_visible()
            expect(put).to_be_disabled()
            page.get_by_label("L_ankle stands for").select_option("trail_ankle")
            page.get_by_label("Name", exact=True).fill("North room")
            check_axe(self, page, "laboratory")
            put.click()
            expect(page.get_by_role("heading", name="North room")).to_be_visible()
        swing = Swing.objects.get()
        for clip in swing.clips.all():
            process(clip.pk)
            look(clip.pk)
        page.goto(f"/bench/{swing.pk}?view=face_on")
        driver = StageDriver(page, "reference")
        driver.wait_drawn()
        driver.go_to(0)
        driver.wait_picture(0)
        placed = Mark.objects.filter(clip__swing=swing, clip__view="face_on", frame=0)
        knee, ankle = placed.get(name="lead_knee"), placed.get(name="lead_ankle")
        # The shin is where its marks say, in the picture that is really shown.
        shin = ((knee.x + ankle.x) / 2, (knee.y + ankle.y) / 2)
        self.assertGreater(
            self.brightness(driver, *shin), self.brightness(driver, shin[0] + 40, shin[1]) + 60
        )

    def brightness(self, driver: StageDriver, x: float, y: float) -> float:
        left, top = driver.place(x, y)
        shot = self.page.screenshot(clip={"x": left - 1, "y": top - 1, "width": 2, "height": 2})
        return float(np.mean(cv2.imdecode(np.frombuffer(shot, np.uint8), cv2.IMREAD_GRAYSCALE)))
