"""Jobs of the bench."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.bench import first_look as first_looks
from tropometer.server.bench.carrying import carry_marks
from tropometer.server.bench.changed import clip_changed
from tropometer.server.bench.glance import StruckBy
from tropometer.server.bench.glance import glance as glance_at
from tropometer.server.bench.tracking import follow, follow_later

MOST_TRIES = 3


@app.task
def follow_marks(clip_id: str, tries: int = 0) -> None:
    """Follow a clip's placed marks through the frames between them, and carry them to the pegs.

    It asks for itself again when it fails. The queue's own retry would put back this very job, which it
    cannot while the same waits already, and would then keep the clip's lock for ever.
    """
    try:
        follow(UUID(clip_id))
        carry_marks(UUID(clip_id))
        clip_changed(UUID(clip_id))
    except Exception:
        if tries + 1 < MOST_TRIES:
            follow_later(UUID(clip_id), tries + 1)
        raise


@app.task(retry=RetryStrategy(max_attempts=MOST_TRIES, exponential_wait=2))
def first_look(swing_id: str) -> None:
    """Read a swing as a machine sees it, for the inbox."""
    first_looks.keep(UUID(swing_id))


@app.task
def glance(clip_id: str, struck_s: float, by: StruckBy) -> None:
    """Read a try quickly, for whoever stands there and waits."""
    glance_at(UUID(clip_id), struck_s, by)
