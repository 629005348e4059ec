"""Runs the screens' own code for a walk, so that the student's page, the worker and the bench never disagree.

What a score means, how a cut joins and what is drawn over a picture is written once, in `web/src/walk`, for
browsers; here Node, which builds the screens anyway, runs the same in a process of its own.
"""

from __future__ import annotations

import json
import subprocess
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from threading import Timer
from typing import Any

from django.conf import settings

from tropometer.server.rooms import RoomFailed

BUILT = "server/walk.js"
MOST_MB = 512
# One question a line, one answer a line.
ANSWERING = """
const fs = require("fs"), vm = require("vm");
vm.runInThisContext(fs.readFileSync(process.argv[1], "utf8"));
require("readline").createInterface({ input: process.stdin }).on("line", (line) => {
  process.stdout.write(walk.run(line) + "\\n");
});
"""

Ask = Callable[..., Any]


@contextmanager
def screens_code(seconds: int) -> Iterator[Ask]:
    """Something to ask functions of `web/src/walk/server.ts` with; question and answer are what JSON can say.

    RoomFailed where the process ends, or is not done after so many seconds.
    """
    process = subprocess.Popen(
        ["node", f"--max-old-space-size={MOST_MB}", "-e", ANSWERING, str(settings.WEB_BUILD / BUILT)],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        start_new_session=True,  # a signal that stops the worker lets what is in hand be finished
    )
    clock = Timer(seconds, process.kill)
    clock.start()

    def ask(name: str, *arguments: Any) -> Any:
        assert process.stdin and process.stdout and process.stderr
        try:
            process.stdin.write(json.dumps([name, arguments]) + "\n")
            process.stdin.flush()
        except BrokenPipeError:
            pass  # it says below how it ended
        line = process.stdout.readline()
        if not line:
            last = process.stderr.read().strip().splitlines()[-1:]
            raise RoomFailed(last[0][:200] if last else f"the screens' code broke off at {name}")
        return json.loads(line)

    try:
        yield ask
    finally:
        clock.cancel()
        process.kill()
        process.communicate()
