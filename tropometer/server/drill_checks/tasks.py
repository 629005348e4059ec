"""Jobs of checked drills."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.drill_checks import answering


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2))
def answer_drill(swing_id: str) -> None:
    """Say whether a filmed drill was done as its camera check says."""
    answering.answer(UUID(swing_id))
