"""A whole Tropometer in a folder of its own, to be killed piece by piece or asked from many sides."""

from __future__ import annotations

import os
import random
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).parents[1]
LINKED = ("var/venv", "var/models", "web/node_modules", "web/dist", "demo")
PATIENCE_S = 400
OURS = ("TROPO_", "DATABASE_")  # what names another instance
PASSWORD = "endure-and-keep"
# What a line of /proc/PID/cmdline holds that tells one kind of process from the others.
VICTIMS = {
    "web server": "gunicorn tropometer.server.wsgi",
    "worker": "procrastinate worker --queues default",
    "upkeep": "procrastinate worker --queues upkeep",
    "decoder": "tropometer.video",
    "database": "/postgres -D",
    "proxy": "nginx: worker",
    "browser": "chromium",
}


def free_port() -> int:
    """A port that nobody listens on."""
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        port: int = found.getsockname()[1]
        return port


class Instance:
    """What runs in the folder: ./tropo serve, with mail going to a folder beside it."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder / "tropometer"
        self.mails = folder / "mails"
        self.browser = folder / "browser"  # what the scripted browser keeps of its own
        self.killed: Counter[str] = Counter()
        self._copy()
        port, self.smtp = free_port(), free_port()
        self.address = f"http://127.0.0.1:{port}"
        self.environment = {
            **{name: value for name, value in os.environ.items() if not name.startswith(OURS)},
            "TROPO_BIND": f"127.0.0.1:{port}",
            "TROPO_URL": self.address,
            "TROPO_LOG": "warning",
            "TROPO_TAKE_BACK_SECONDS": "1",
            "EMAIL_URL": f"smtp://127.0.0.1:{self.smtp}",
            "TROPO_PASSWORD": PASSWORD,
        }
        self.log = (folder / "log").open("ab")
        self._processes: list[subprocess.Popen[bytes]] = []

    def _copy(self) -> None:
        listed = subprocess.run(
            ["git", "ls-files", "-z", "--cached", "--others", "--exclude-standard"],
            cwd=ROOT, capture_output=True, check=True,
        )  # fmt: skip
        for name in filter(None, listed.stdout.decode().split("\0")):
            if not name.startswith("demo/") and (ROOT / name).is_file():
                (self.folder / name).parent.mkdir(parents=True, exist_ok=True)
                shutil.copy2(ROOT / name, self.folder / name)
        for name in LINKED:
            (self.folder / name).parent.mkdir(parents=True, exist_ok=True)
            (self.folder / name).symlink_to(ROOT / name)

    def start(self) -> None:
        """Start all, and wait until it is ready."""
        mail = [sys.executable, "-m", "tropometer.standins.mail", "--smtp", str(self.smtp)]
        self._run([*mail, "--web", str(free_port()), "--folder", str(self.mails)])
        self._run(["bash", "tropo", "serve"])
        self.wait_ready()

    def _run(self, command: list[str]) -> None:
        started = subprocess.Popen(
            command, cwd=self.folder, env=self.environment, stdout=self.log, stderr=self.log,
            start_new_session=True,
        )  # fmt: skip
        self._processes.append(started)

    def wait_ready(self) -> None:
        """Until database, disk and worker are there; TimeoutError when that takes too long."""
        end = time.monotonic() + PATIENCE_S
        while time.monotonic() < end:
            try:
                with urllib.request.urlopen(f"{self.address}/readyz", timeout=5) as answer:
                    if answer.status == 200:
                        return
            except OSError:
                pass
            time.sleep(0.5)
        raise TimeoutError("It did not become ready.")

    def manage(self, *arguments: str) -> str:
        """One of Django's commands on this instance."""
        done = subprocess.run(
            ["bash", "tropo", "manage", *arguments],
            cwd=self.folder, env=self.environment, capture_output=True, text=True, check=True,
        )  # fmt: skip
        return done.stdout

    def running(self) -> list[tuple[int, str]]:
        """Processes of this instance, by their kind."""
        found = []
        for entry in Path("/proc").glob("[0-9]*"):
            try:
                words = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
                here = os.readlink(entry / "cwd")
            except OSError:
                continue
            for kind, words_of in VICTIMS.items():
                mine = any(here.startswith(each) or each in words for each in self._folders())
                if words_of in words and mine:
                    found.append((int(entry.name), kind))
        return found

    def _folders(self) -> tuple[str, str, str]:
        """Where its processes stand: its own folder, its database's, which may lie outside, its browser's."""
        return str(self.folder), str((self.folder / "var" / "pg").resolve()), str(self.browser)

    def kill_one(self, dice: random.Random) -> None:
        """Kill one process of a kind drawn at random, without a word."""
        running = self.running()
        kinds = sorted({kind for _, kind in running})
        if not kinds:
            return
        kind = dice.choice(kinds)
        pid = dice.choice([pid for pid, each in running if each == kind])
        try:
            os.kill(pid, signal.SIGKILL)
        except ProcessLookupError:
            return
        self.killed[kind] += 1

    def stop(self) -> None:
        """Stop all and wait for it."""
        for process in reversed(self._processes):
            os.killpg(process.pid, signal.SIGTERM) if process.poll() is None else None
        for process in self._processes:
            process.wait(PATIENCE_S)
        self.log.close()
