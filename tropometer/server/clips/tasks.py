"""Jobs of the clips app."""

from uuid import UUID

from django.utils import timezone
from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.clips.proposing import look
from tropometer.server.clips.services import process
from tropometer.server.clips.uploads import forget_old

STALLED_S = 30  # a worker that has not been heard of for so long is taken for dead


@app.task(retry=RetryStrategy(max_attempts=4, exponential_wait=2))
def make_ready(clip_id: str) -> None:
    """Make a clip's proxy."""
    process(UUID(clip_id))


@app.task(retry=RetryStrategy(max_attempts=3, exponential_wait=2), priority=-1)
def look_at(clip_id: str) -> None:
    """Propose what a ready clip shows; clips that nobody can see yet go first."""
    look(UUID(clip_id))


@app.periodic(cron="* * * * *")
@app.task(queueing_lock="retry_stalled", pass_context=False)
async def retry_stalled(timestamp: int) -> None:
    """Give the jobs of workers that were killed to the living ones."""
    for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_S):
        await app.job_manager.retry_job(job, retry_at=timezone.now())


@app.periodic(cron="17 * * * *")
@app.task(queueing_lock="forget_old_uploads", pass_context=False)
def forget_old_uploads(timestamp: int) -> None:
    """Forget uploads that nobody finished."""
    forget_old()
