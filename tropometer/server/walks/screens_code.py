"""Runs the screens' own code for a walk, so that the student's page, the worker and the bench never disagree.

What a score means, how a cut joins and what is drawn over a picture is written once, in `web/src/walk`,
and built for this machine's JavaScript engine as well as for browsers.
"""

from __future__ import annotations

import json
from functools import lru_cache
from threading import Lock
from typing import Any

from django.conf import settings
from py_mini_racer import MiniRacer

BUILT = "server/walk.js"
MOST_BYTES = 512 * 1024**2
SECONDS = 60.0
_one_at_a_time = Lock()


@lru_cache
def _engine() -> MiniRacer:
    engine = MiniRacer()
    engine.eval((settings.WEB_BUILD / BUILT).read_text())
    return engine


def run(name: str, *arguments: Any) -> Any:
    """What a function of `web/src/walk/server.ts` answers; arguments and answer are what JSON can say."""
    given = json.dumps(json.dumps(arguments))
    with _one_at_a_time:
        said = _engine().eval(
            f"walk.run({json.dumps(name)}, {given})", timeout_sec=SECONDS, max_memory=MOST_BYTES
        )
    return json.loads(str(said))
