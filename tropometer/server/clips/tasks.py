"""Jobs of the clips app."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.clips.services import process
from tropometer.server.clips.uploads import forget_old


@app.task(retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def make_ready(clip_id: str) -> None:
    """Make a clip's proxy."""
    process(UUID(clip_id))


@app.periodic(cron="17 * * * *")
@app.task
def forget_old_uploads(timestamp: int) -> None:
    """Forget uploads that nobody finished."""
    forget_old()
