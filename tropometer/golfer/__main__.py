"""`python -m tropometer.golfer FOLDER [NAME…]` draws the demo clips anew, on all processors."""

import argparse
import os
import time
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

from tropometer.golfer.cast import TAKES, Take
from tropometer.golfer.clips import write_clip
from tropometer.golfer.hour_truth import HOUR_FILE, write_hour
from tropometer.golfer.usual import write_usual
from tropometer.swing.doubts import usual_swings
from tropometer.swing.scene import usual_places


def draw(take: Take, folder: Path, numbered: bool) -> str:
    """Draw one take and say how long it took."""
    started = time.monotonic()
    path = write_clip(take, folder, numbered)
    return f"{path.name}: {path.stat().st_size / 1e6:.2f} MB, {time.monotonic() - started:.0f} s"


def main() -> None:
    """Read the command line and draw."""
    parser = argparse.ArgumentParser(prog="tropo golfer", description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("names", nargs="*", metavar="NAME", help="only takes whose name starts so")
    parser.add_argument("--strip", action="store_true", help="paint each frame's number into the picture")
    parser.add_argument("--usual", action="store_true", help="write where marks usually are; draw nothing")
    parser.add_argument("--hour", action="store_true", help="write what is true of an hour; draw nothing")
    arguments = parser.parse_args()
    if arguments.usual:
        write_usual(Path(usual_places.__file__), Path(usual_swings.__file__))
        return
    if arguments.hour:
        arguments.folder.mkdir(parents=True, exist_ok=True)
        write_hour(arguments.folder / HOUR_FILE)
        return
    wanted = tuple(arguments.names) or ("",)
    takes = sorted((t for t in TAKES if t.name.startswith(wanted)), key=lambda t: -t.recording.capture_fps)
    if not takes:
        parser.error(f"no take is called {' or '.join(wanted)}")
    arguments.folder.mkdir(parents=True, exist_ok=True)
    os.environ.setdefault(
        "LP_NUM_THREADS", "1"
    )  # the drawing library would otherwise fight over the processors
    job = partial(draw, folder=arguments.folder, numbered=arguments.strip)
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for line in pool.map(job, takes):
            print(line, flush=True)


if __name__ == "__main__":
    main()
