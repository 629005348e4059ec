"""The upkeep that runs by itself."""

from procrastinate.contrib.django import app

from tropometer.server.clips.services import forget_refused
from tropometer.server.clips.uploads import forget_old
from tropometer.server.lanes import UPKEEP
from tropometer.server.operations.bin import erase_old
from tropometer.server.operations.sweep import sweep


@app.periodic(cron="17 * * * *")
@app.task(queue=UPKEEP, queueing_lock="keep_house", pass_context=False)
def keep_house(timestamp: int) -> None:
    """Erase what is old in the bin and in quarantine, and sweep up what nothing names."""
    erase_old()
    forget_old()
    forget_refused()
    sweep()
