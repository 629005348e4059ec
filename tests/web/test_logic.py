"""The screens' pure logic: each of its vitest cases is a test here."""

import json
import re
import subprocess
from collections.abc import Callable
from typing import Any
from unittest import TestCase

from tests.swings import ROOT

WEB = ROOT / "web"
VITEST = WEB / "node_modules" / ".bin" / "vitest"


def vitest(*arguments: str) -> Any:
    """What vitest says, as JSON."""
    done = subprocess.run([VITEST, *arguments], cwd=WEB, capture_output=True, text=True, check=False)
    start = min((at for at in (done.stdout.find("["), done.stdout.find("{")) if at >= 0), default=-1)
    if start < 0:
        raise AssertionError(f"vitest said nothing: {done.stderr[-2000:]}")
    return json.loads(done.stdout[start:])


class LogicTests(TestCase):
    results: dict[str, dict[str, Any]] = {}

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        ran = vitest("run", "--reporter=json")
        cls.results = {
            case["fullName"]: case for file in ran["testResults"] for case in file["assertionResults"]
        }

    def check(self, name: str) -> None:
        found = self.results.get(name)
        self.assertIsNotNone(found, f"{name} did not run")
        assert found is not None
        self.assertEqual(found["status"], "passed", "\n".join(found["failureMessages"]))


def _case(name: str) -> Callable[[LogicTests], None]:
    return lambda self: self.check(name)


for _listed in vitest("list", "--json"):
    _name = _listed["name"].replace(" > ", " ")
    setattr(LogicTests, "test_" + re.sub(r"\W+", "_", _name).lower(), _case(_name))
