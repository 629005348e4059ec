"""Jobs of the bench."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.bench.tracking import follow


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2))
def follow_marks(clip_id: str) -> None:
    """Follow a clip's placed marks through the frames between them."""
    follow(UUID(clip_id))
