"""`python -m tropometer.video probe FILE`, `… proxy|show|voice FILE TARGET`,
`… landmarks|track|carry|motion PROXY TARGET`, `… find PROXY OTHER`, `… ball|shaft PROXY`,
`… markers C3D TARGET`, `… glance|figure FILE TARGET`,
`… walk-voice|film LIST TARGET`.

Each says one JSON object a line.
Foreign files are opened in this process of their own, so that a crash in a decoder stays here.
Ends 0 with the result as the last line, or 3 with {"refused": reason}.
"""

from __future__ import annotations

import argparse
import json
import resource
from dataclasses import asdict
from pathlib import Path
from typing import Any

from tropometer.video.opening import NotAClip
from tropometer.video.parent import die_with_parent
from tropometer.video.probe import probe

MEMORY_BYTES = 4 * 1024**3
CPU_SECONDS = 1500
OUTPUT_BYTES = 2 * 1024**3
COMMANDS = (
    "probe",
    "proxy",
    "glance",
    "landmarks",
    "track",
    "carry",
    "motion",
    "find",
    "ball",
    "shaft",
    "show",
    "voice",
    "walk-voice",
    "film",
    "markers",
    "figure",
)


def main() -> int:
    """Run one command on one file."""
    die_with_parent()
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS))
    resource.setrlimit(resource.RLIMIT_FSIZE, (OUTPUT_BYTES, OUTPUT_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    parser = argparse.ArgumentParser(prog="python -m tropometer.video")
    parser.add_argument("command", choices=list(COMMANDS))
    parser.add_argument("source", type=Path)
    parser.add_argument("target", type=Path, nargs="?")
    parser.add_argument("--flip", action="store_true", help="filmed in a mirror: turn it round")
    parser.add_argument("--models", type=Path, help="folder of the landmark networks")
    parser.add_argument("--shown", type=float, nargs=3, help="frame, x, y: a point on the player")
    parser.add_argument("--squares", type=Path, help="where the player was found: look closer there")
    parser.add_argument("--frames", type=int, nargs=2, metavar=("FIRST", "LAST"), help="both included")
    parser.add_argument("--points", help="JSON: x, y of points of the first file to find in the second")
    parser.add_argument(
        "--box", type=float, nargs=4, help="left, top, right, bottom of the player, or of the ball's room"
    )
    parser.add_argument("--struck", type=float, help="when the ball was struck, seconds of the file")
    parser.add_argument("--last", type=int, help="frame after which nothing is looked at")
    parser.add_argument("--across", type=float, help="how large a ball is in the picture, pixels")
    parser.add_argument("--torso", type=float, help="how long a torso is in the picture, pixels")
    parser.add_argument("--club", type=float, help="how long the club is in the picture, pixels")
    parser.add_argument("--moves", type=Path, help="how the camera moved")
    parser.add_argument("--spans", type=Path, help="JSON: the spans to track, where to carry from, or hands")
    arguments = parser.parse_args()
    try:
        if arguments.command == "probe":
            print(json.dumps(asdict(probe(arguments.source))))
        elif arguments.command == "proxy":
            _proxy(arguments.source, arguments.target, arguments.flip)
        elif arguments.command == "show":
            _show(arguments.source, arguments.target)
        elif arguments.command == "voice":
            _voice(arguments.source, arguments.target)
        elif arguments.command == "walk-voice":
            _walk_voice(arguments.source, arguments.target)
        elif arguments.command == "film":
            _film(arguments.source, arguments.target)
        elif arguments.command == "markers":
            _markers(arguments.source, arguments.target)
        elif arguments.command == "glance":
            _glance(arguments.source, arguments.target, arguments.models, arguments.struck)
        elif arguments.command == "figure":
            _figure(arguments.source, arguments.target)
        elif arguments.command == "find":
            _find(arguments.source, arguments.target, arguments.frames, json.loads(arguments.points))
        elif arguments.command == "track":
            _track(arguments.source, arguments.target, arguments.spans)
        elif arguments.command == "carry":
            _carry(arguments.source, arguments.target, arguments.spans)
        elif arguments.command == "shaft":
            _shaft(arguments.source, json.loads(arguments.spans.read_text()), arguments.torso, arguments.club)
        elif arguments.command == "ball":
            _ball(
                arguments.source,
                arguments.frames,
                arguments.last,
                arguments.box,
                arguments.across,
                arguments.moves,
            )
        elif arguments.command == "motion":
            _motion(arguments.source, arguments.target, arguments.box, arguments.frames[0])
        else:
            _landmarks(
                arguments.source,
                arguments.target,
                arguments.models,
                arguments.frames,
                arguments.squares,
                arguments.shown,
            )
    except NotAClip as refusal:
        print(json.dumps({"refused": str(refusal)}))
        return 3
    return 0


def _proxy(source: Path, target: Path, flip: bool) -> None:
    # A probe is waited for by a person: what only the others need is loaded only for them.
    from tropometer.video.proxy import make_proxy
    from tropometer.video.strike import hear_strikes

    made = make_proxy(source, target, probe(source), Progress(), flip)
    print(json.dumps(asdict(made) | {"strikes": [asdict(strike) for strike in hear_strikes(source)]}))


def _show(source: Path, target: Path) -> None:
    from tropometer.video.showing import make_shown

    print(json.dumps({"kind": make_shown(source, target)}))


def _voice(source: Path, target: Path) -> None:
    from tropometer.video.voice import make_take

    print(json.dumps(asdict(make_take(source, target))))


def _walk_voice(listed: Path, target: Path) -> None:
    from tropometer.video.voice import Stretch, make_voice

    spans = [
        Stretch(Path(each["path"]), each["from_s"], each["to_s"]) for each in json.loads(listed.read_text())
    ]
    print(json.dumps(asdict(make_voice(spans, target))))


def _film(about: Path, target: Path) -> None:
    from tropometer.video.film import make_film

    told = json.loads(about.read_text())
    clips = {id: Path(path) for id, path in told["clips"].items()}
    show = Progress()
    count = make_film(
        Path(told["plan"]), clips, told["fonts"], Path(told["voice"]), target, lambda share: show(share)
    )
    print(json.dumps({"pictures": count}))


def _markers(source: Path, target: Path) -> None:
    import numpy as np

    from tropometer.video.laboratory import open_c3d

    found = open_c3d(source)
    with target.open("wb") as into:
        np.save(into, found.places)
    print(json.dumps({"labels": found.labels, "rate_hz": found.rate_hz, "unit": found.unit}))


def _figure(source: Path, target: Path) -> None:
    from tropometer.video.figure import make_figure

    print(json.dumps(asdict(make_figure(source, target, Progress())) | {"strikes": []}))


def _glance(source: Path, target: Path, models: Path, struck_s: float) -> None:
    from tropometer.video.glance import save_glance

    print(json.dumps(asdict(save_glance(source, target, models, struck_s, Progress()))))


def _landmarks(
    proxy: Path,
    target: Path,
    models: Path,
    frames: tuple[int, int],
    squares: Path | None,
    shown: list[float] | None,
) -> None:
    import numpy as np

    from tropometer.video.player import Shown, save_closer_landmarks, save_landmarks

    if squares:
        looked_in = np.load(squares)
        found = save_closer_landmarks(proxy, target, models, frames[0], looked_in, Progress())
    else:
        player = Shown(int(shown[0]), shown[1], shown[2]) if shown else None
        found = save_landmarks(proxy, target, models, *frames, progress=Progress(), shown=player)
    print(json.dumps({"found": found}))


def _track(proxy: Path, target: Path, asked: Path) -> None:
    import numpy as np

    from tropometer.video.tracking import Span, track_file

    spans = []
    for each in json.loads(asked.read_text()):
        guide = None if each["guide"] is None else np.array(each["guide"], float)
        start, end = (*each["start"],), (*each["end"],)
        grip = None if each["grip"] is None else ((*each["grip"][0],), (*each["grip"][1],))
        spans.append(Span(each["name"], each["first"], each["last"], start, end, guide, each["how"], grip))
    found = track_file(proxy, spans, Progress())
    # One after the other: the lengths are known to whoever asked.
    np.save(target, np.concatenate(found).astype(np.float32))
    print(json.dumps({"tracked": len(found)}))


def _carry(proxy: Path, target: Path, asked: Path) -> None:
    import numpy as np

    from tropometer.video.carrying import Start, carry_file

    starts = [
        Start(each["frame"], each["x"], each["y"], (*each["to"],)) for each in json.loads(asked.read_text())
    ]
    found = carry_file(proxy, starts, Progress())
    np.save(target, np.concatenate(found))
    print(json.dumps({"carried": len(found)}))


def _motion(proxy: Path, target: Path, box: list[float], still_frame: int) -> None:
    from tropometer.video.camera_motion import save_camera_motion

    left, top, right, bottom = box
    bends = save_camera_motion(proxy, target, (left, top, right, bottom), still_frame, Progress())
    print(json.dumps({"bends": bends}))


def _find(here: Path, there: Path, frames: tuple[int, int], points: list[list[float]]) -> None:
    import numpy as np

    from tropometer.video.setup import find_points

    found = find_points(here, frames[0], there, frames[1], np.array(points, float))
    print(json.dumps({"found": [None if np.isnan(row[0]) else row.tolist() for row in found]}))


def _ball(
    proxy: Path, frames: tuple[int, int], last: int, box: list[float], across_px: float, moves: Path | None
) -> None:
    import numpy as np

    from tropometer.video.ball import find_ball
    from tropometer.video.proxy import upright_frames

    pictures = (picture for picture, _ in upright_frames(proxy))
    left, top, right, bottom = box
    known = np.load(moves) if moves else None
    print(
        json.dumps(
            {"ball": find_ball(pictures, (*frames, last), (left, top, right, bottom), across_px, known)}
        )
    )


def _shaft(proxy: Path, asked: list[dict[str, Any]], torso_px: float, club_px: float) -> None:
    import cv2
    import numpy as np

    from tropometer.video.proxy import upright_frames
    from tropometer.video.shaft_line import Hands, club_head

    hands = {each["frame"]: Hands(**each) for each in asked}
    found = {}
    for number, (picture, _) in enumerate(upright_frames(proxy)):
        if number in hands:
            gray = np.asarray(cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY), np.uint8)
            found[number] = club_head(gray, hands[number], torso_px, club_px)
    print(json.dumps({"heads": found}))


class Progress:
    """Says each whole percent once."""

    said = 0

    def __call__(self, share: float) -> None:
        if int(share * 100) > self.said:
            self.said = int(share * 100)
            print(json.dumps({"progress": self.said}), flush=True)


if __name__ == "__main__":
    raise SystemExit(main())
