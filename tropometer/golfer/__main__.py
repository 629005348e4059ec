"""`python -m tropometer.golfer FOLDER [NAME…]` draws the demo clips anew."""

import argparse
import time
from pathlib import Path

from tropometer.golfer.cast import CAST
from tropometer.golfer.clips import write_clip

parser = argparse.ArgumentParser(prog="tropo golfer", description=__doc__)
parser.add_argument("folder", type=Path)
parser.add_argument("names", nargs="*", help="only these parts of the cast")
arguments = parser.parse_args()
for part in CAST:
    if arguments.names and part.name not in arguments.names:
        continue
    started = time.monotonic()
    path = write_clip(part, arguments.folder)
    print(f"{path.name}: {path.stat().st_size / 1e6:.2f} MB, {time.monotonic() - started:.0f} s", flush=True)
