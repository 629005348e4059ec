"""Jobs of the walks."""

from contextlib import suppress
from uuid import UUID

from django.db import transaction
from procrastinate import RetryStrategy
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued

from tropometer.server.walks import filming, making

SOON_S = 1.0  # one who mends changes more than once
BROKEN_OFF_S = 20  # without a last piece a take is made from what has come, after so long


@app.task(retry=RetryStrategy(max_attempts=6, exponential_wait=3), priority=20)
def make_walk(lesson_id: str) -> None:
    """Make a walk's voice and score anew; while somebody speaks, once they have stopped."""
    id = UUID(lesson_id)
    if making.is_being_said(id, BROKEN_OFF_S):
        make_soon(id, BROKEN_OFF_S)
    else:
        try:
            making.make(id)
        except Exception as trouble:  # whatever it is, who waits for the walk is told; then it is tried again
            making.note_trouble(id, str(trouble) or type(trouble).__name__)
            raise
        if making.is_sent(id):
            film_soon(id)


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=5), priority=-500)
def film_walk(lesson_id: str) -> None:
    """Make a walk's film; nobody waits for it."""
    filming.film(UUID(lesson_id))


def film_soon(lesson_id: UUID) -> None:
    """Have the film made of a walk as it is, once; one that waits for it already is enough."""

    def ask() -> None:
        with suppress(AlreadyEnqueued):
            film_walk.configure(queueing_lock=f"film {lesson_id}", lock=f"film {lesson_id}").defer(
                lesson_id=str(lesson_id)
            )

    transaction.on_commit(ask)


def make_soon(lesson_id: UUID, in_s: float = SOON_S) -> None:
    """Have a walk made once what is being done is kept; one that waits for it already is enough."""

    def ask() -> None:
        wanted = make_walk.configure(
            queueing_lock=f"walk {lesson_id} {in_s}",
            lock=f"walk {lesson_id}",
            schedule_in={"seconds": round(in_s)},
        )
        with suppress(AlreadyEnqueued):
            wanted.defer(lesson_id=str(lesson_id))

    transaction.on_commit(ask)
