"""The lanes of the job queue: beside all others, those that must never wait behind them."""

UPKEEP = "upkeep"
AT_ONCE = "at_once"  # somebody stands there and waits for a few seconds' work; the upkeep's process does it
FIRST = 1000  # the priority of what goes before all that waits
WATCHED = 500  # of what somebody stands and waits for, with the page open


def priority(watched: bool, usual: int) -> int:
    """The priority of a job: its usual one, unless somebody waits for what it makes."""
    return WATCHED if watched else usual
