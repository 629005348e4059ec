"""Jobs of the clips app."""

from uuid import UUID

from django.utils import timezone
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app
from procrastinate.exceptions import JobAborted, UniqueViolation
from procrastinate.jobs import Status

from tropometer.server.clips.closer import LAST_PRIORITY
from tropometer.server.clips.closer import look_closer as closer
from tropometer.server.clips.models import MOST_TRIES
from tropometer.server.clips.proposing import look
from tropometer.server.clips.services import HandedBack, process
from tropometer.server.lanes import FIRST, UPKEEP

LOOK_PRIORITY = -1000  # clips that nobody can see yet go first
STALLED_S = 25  # a worker that has not been heard of for so long is taken for dead; it beats every 10 s


@app.task(retry=RetryStrategy(max_attempts=MOST_TRIES, exponential_wait=2), pass_context=True)
def make_ready(context: JobContext, clip_id: str) -> None:
    """Make a clip's proxy; a worker that is told to stop hands it back."""
    try:
        process(UUID(clip_id), context.should_abort)
    except HandedBack as back:
        raise JobAborted from back


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2), priority=LOOK_PRIORITY)
def look_at(clip_id: str) -> None:
    """Propose what a ready clip shows."""
    look(UUID(clip_id))


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2), priority=LAST_PRIORITY)
def look_closer(clip_id: str) -> None:
    """See the player's body again with the closer network."""
    closer(UUID(clip_id))


@app.periodic(cron="* * * * * */15")
@app.task(queue=UPKEEP, queueing_lock="retry_stalled", pass_context=False)
async def retry_stalled(timestamp: int) -> None:
    """Give the jobs of workers that were killed to the living ones, before all that waits."""
    for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_S):
        try:
            await app.job_manager.retry_job(job, retry_at=timezone.now(), priority=FIRST)
        except UniqueViolation:  # the same waits already, asked for since; that one does the work
            await app.job_manager.finish_job(job, Status.FAILED, delete_job=True)
