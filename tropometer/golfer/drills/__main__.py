"""`python -m tropometer.golfer.drills FOLDER [NAME…]` draws the book's drills anew, on all processors."""

import argparse
import os
import time
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

from tropometer.golfer.drills.catalogue import DRILLS
from tropometer.golfer.drills.drawing import Drawing, DrawnDrill


def draw(drill: DrawnDrill, folder: Path) -> str:
    """Draw one drill and say how large it has become."""
    started = time.monotonic()
    sizes = ", ".join(f"{path.stat().st_size / 1e3:.0f}" for path in Drawing(drill).write(folder))
    return f"{drill.id}: {sizes} kB, {time.monotonic() - started:.0f} s"


def main() -> None:
    """Read the command line and draw."""
    parser = argparse.ArgumentParser(prog="tropo golfer drills", description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("names", nargs="*", metavar="NAME", help="only drills whose id starts so")
    arguments = parser.parse_args()
    wanted = tuple(arguments.names) or ("",)
    drills = [drill for drill in DRILLS if drill.id.startswith(wanted)]
    if not drills:
        parser.error(f"no drill is called {' or '.join(wanted)}")
    arguments.folder.mkdir(parents=True, exist_ok=True)
    os.environ.setdefault("LP_NUM_THREADS", "1")
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for line in pool.map(partial(draw, folder=arguments.folder), drills):
            print(line, flush=True)


if __name__ == "__main__":
    main()
