"""The house keeps its own rules: types, lint, layers, and an API client that matches the API."""

import json
import pickle
import subprocess
import sys
from pathlib import Path
from threading import Lock
from types import SimpleNamespace
from unittest import TestCase

from ops import method_pages
from tests.runner import ToldResult
from tests.swings import ROOT
from tropometer.swing.readings.register import KINDS

BIN = Path(sys.executable).parent
WEB = ROOT / "web"
NODE_BIN = WEB / "node_modules" / ".bin"


class HouseTests(TestCase):
    def check(self, *command: str | Path, cwd: Path = ROOT) -> str:
        done = subprocess.run(list(map(str, command)), cwd=cwd, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, f"{done.stdout[-4000:]}\n{done.stderr[-2000:]}")
        return done.stdout

    def test_python_lint_and_format(self) -> None:
        self.check(BIN / "ruff", "check", ".")
        self.check(BIN / "ruff", "format", "--check", ".")

    def test_python_types(self) -> None:
        self.check(BIN / "mypy")

    def test_arrows_go_down_only(self) -> None:
        self.check(BIN / "lint-imports")

    def test_an_error_that_cannot_leave_its_process_fails_its_test_alone(self) -> None:
        class Stuck(Exception):
            def __init__(self) -> None:
                super().__init__("stuck")
                self.held = Lock()

        result = ToldResult()
        try:
            raise Stuck
        except Stuck:
            result.addError(self, sys.exc_info())
            result.addSubTest(self, SimpleNamespace(held=Lock()), sys.exc_info())
        told = pickle.loads(pickle.dumps(result.events))
        self.assertEqual(str(told).count("Stuck: stuck"), 2)

    def test_every_reading_is_explained(self) -> None:
        pages = {}
        for name, made in method_pages.pages().items():
            pages[name] = (method_pages.PAGES / f"{name}.md").read_text()
            self.assertEqual(pages[name], method_pages.written(name, made), "run ./tropo method")
        for name, kind in KINDS.items():
            self.assertIn(f"`{name}`", pages[kind.group])

    def test_web_lint_and_format(self) -> None:
        self.check(NODE_BIN / "biome", "ci", "--error-on-warnings", ".", cwd=WEB)

    def test_web_types(self) -> None:
        self.check(NODE_BIN / "tsc", "--noEmit", cwd=WEB)

    def test_migrations_match_the_models(self) -> None:
        self.check(sys.executable, "manage.py", "makemigrations", "--check", "--dry-run")

    def test_the_client_is_typed_from_this_api(self) -> None:
        written = self.check(
            sys.executable, "manage.py", "export_openapi_schema", "--api", "tropometer.server.api.api"
        )
        kept = WEB / "src" / "api" / "openapi.json"
        self.assertEqual(json.loads(written), json.loads(kept.read_text()), "run ./tropo api")
        walk = self.check(sys.executable, "manage.py", "walk_schema")
        self.assertEqual(walk, (ROOT / "docs" / "formats" / "walk.schema.json").read_text())
        types = self.check(NODE_BIN / "openapi-typescript", kept, cwd=WEB)
        self.assertEqual(types, (WEB / "src" / "api" / "schema.d.ts").read_text(), "run ./tropo api")
