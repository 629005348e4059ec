"""`python -m tropometer.video probe FILE` and `… proxy FILE TARGET`, one JSON object a line.

Foreign files are opened in this process of their own, so that a crash in a decoder stays here.
Ends 0 with the result as the last line, or 3 with {"refused": reason}.
"""

from __future__ import annotations

import argparse
import json
import resource
from dataclasses import asdict
from pathlib import Path

from tropometer.video.opening import NotAClip
from tropometer.video.probe import probe

MEMORY_BYTES = 4 * 1024**3
CPU_SECONDS = 900
OUTPUT_BYTES = 2 * 1024**3


def main() -> int:
    """Run one command on one file."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS))
    resource.setrlimit(resource.RLIMIT_FSIZE, (OUTPUT_BYTES, OUTPUT_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    parser = argparse.ArgumentParser(prog="python -m tropometer.video")
    parser.add_argument("command", choices=["probe", "proxy"])
    parser.add_argument("source", type=Path)
    parser.add_argument("target", type=Path, nargs="?")
    parser.add_argument("--flip", action="store_true", help="filmed in a mirror: turn it round")
    arguments = parser.parse_args()
    try:
        found = probe(arguments.source)
        if arguments.command == "probe":
            print(json.dumps(asdict(found)))
        else:
            # A probe is waited for by a person: what only the proxy needs is loaded only for it.
            from tropometer.video.proxy import make_proxy
            from tropometer.video.strike import hear_strike

            said = 0

            def progress(share: float) -> None:
                nonlocal said
                if int(share * 100) > said:
                    said = int(share * 100)
                    print(json.dumps({"progress": said}), flush=True)

            made = make_proxy(arguments.source, arguments.target, found, progress, arguments.flip)
            strike = hear_strike(arguments.source)
            print(json.dumps(asdict(made) | {"strike": asdict(strike) if strike else None}))
    except NotAClip as refusal:
        print(json.dumps({"refused": str(refusal)}))
        return 3
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
