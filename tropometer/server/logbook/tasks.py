"""Jobs of the log."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.lanes import UPKEEP
from tropometer.server.logbook import keeping


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2))
def log_swing(swing_id: str) -> None:
    """Put what is read of a swing into the log."""
    keeping.keep(UUID(swing_id))


@app.periodic(cron="*/10 * * * *")
@app.task(queue=UPKEEP, queueing_lock="log_what_is_old", pass_context=False)
def log_what_is_old(timestamp: int) -> None:
    """Read anew what another core had read, or what was never read."""
    keeping.log_what_is_old()
