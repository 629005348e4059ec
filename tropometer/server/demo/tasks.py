"""Jobs of the demo: what can only be told of a swing once its clips are ready."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.demo.telling import tell


@app.task(retry=RetryStrategy(max_attempts=90, wait=10), priority=-900)
def tell_more(swing_id: str) -> None:
    """Put pictures and a walk into a lesson of the demo's past."""
    tell(UUID(swing_id))
