"""How heavy a student's page is: scripts as they come over the line, and nothing of the bench among them."""

import gzip
import json
from unittest import TestCase

from tests.swings import ROOT

DIST = ROOT / "web" / "dist"
MOST_BYTES = 90_000
SHEET, PAGE, SENDING = "src/lesson/StudentPage.tsx", "src/page/OwnPage.tsx", "src/send/RequestPage.tsx"


class WeightTests(TestCase):
    def setUp(self) -> None:
        self.built = json.loads((DIST / "manifest.json").read_text())

    def files(self, name: str) -> set[str]:
        """A script and all that it imports."""
        found: set[str] = set()
        wanted = [name]
        while wanted:
            entry = self.built[wanted.pop()]
            if entry["file"] not in found:
                found.add(entry["file"])
                wanted += entry.get("imports", [])
        return found

    def test_the_main_script_of_students_pages_is_small_and_has_no_bench_in_it(self) -> None:
        main = self.files("student.html")
        weight = sum(len(gzip.compress((DIST / name).read_bytes())) for name in main)
        self.assertLess(weight, MOST_BYTES)
        theirs = {self.built["index.html"]["file"]} | {
            entry["file"] for name, entry in self.built.items() if name.startswith(("src/bench/", "src/shelf/"))
        }
        self.assertGreater(len(theirs), 2)
        for screen in (SHEET, PAGE, SENDING):
            self.assertEqual(self.files(screen) & theirs, set(), screen)
