"""`./tropo judge` and `./tropo check`, as somebody types them."""

import json
from contextlib import redirect_stderr, redirect_stdout
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tests.strangers.injected import with_fault
from tests.strangers.trials import BOTH
from tropometer.swing.formats.swing_record import to_document
from tropometer.teaching.__main__ import main


class CommandTest(TestCase):
    folder: Path
    record: Path

    @classmethod
    def setUpClass(cls) -> None:
        cls.folder = Path(cls.enterClassContext(TemporaryDirectory()))
        filmed = film(BOTH, "mat", np.random.default_rng(4), change=lambda swing: with_fault(swing, "sways"))
        cls.record = cls.folder / "swing.json"
        cls.record.write_text(json.dumps(to_document(filmed.record)), "utf-8")

    def run_it(self, *arguments: object) -> tuple[int, str, str]:
        out, errors = StringIO(), StringIO()
        with redirect_stdout(out), redirect_stderr(errors):
            code = main([str(each) for each in arguments])
        return code, out.getvalue(), errors.getvalue()

    def test_a_swing_that_sways_is_said_to_sway(self) -> None:
        code, out, _ = self.run_it("judge", self.record, "--model", "centred")
        told = json.loads(out)
        verdicts = {each["fault"]: each["verdict"] for each in told["findings"]}
        self.assertEqual((code, verdicts["sways"]), (0, "shown"))
        self.assertIn("sways", told["chain"]["faults"])
        self.assertTrue(told["plan"]["focus"])

    def test_a_page_of_one_s_own_counts(self) -> None:
        own = self.folder / "own_fault.toml"
        own.write_text(
            'kind = "fault"\nid = "own_fault"\nname = "My own"\nmoment = "top"\nno_drill = "Not yet."\n'
            'evidence = { reading = "pelvis_turn", at = "top", below = 44.0 }\n'
            '[words]\nteacher = "Mine: {pelvis_turn.top}."\nstudent = "Mine."\nline = "Mine."\n'
        )
        code, out, _ = self.run_it("judge", self.record, "--page", own, "--text")
        self.assertEqual(code, 0)
        self.assertRegex(out, r"shown.*Mine: about \d+°")

    def test_what_hurts_is_read_from_the_student_s_page(self) -> None:
        student = self.folder / "student.toml"
        student.write_text('hand = "left"\nmisses = ["heavy"]\naches = [{trouble = "dizziness"}]\n')
        out = self.run_it("judge", self.record, "--student", student, "--text")[1]
        self.assertIn("until a physician", out)
        self.assertNotIn("!", out)

    def test_bad_pages_and_models_get_one_line(self) -> None:
        bad = self.folder / "bad.toml"
        bad.write_text(
            'kind = "model"\nid = "mine"\nname = "Mine"\nabout = "Mine."\n[chosen]\ntrail_flare = "out"\n'
        )
        for arguments, words in (
            (("check", bad), "model mine: chosen."),
            (("judge", self.record, "--model", "nobody"), "model nobody: there is none"),
            (("judge", self.folder / "none.json"), "none.json: No such file"),
            (("check", self.folder / "none.toml"), "none.toml: No such file"),
        ):
            code, _, errors = self.run_it(*arguments)
            self.assertEqual((code, errors.count("\n")), (2, 1))
            self.assertIn(words, errors)
