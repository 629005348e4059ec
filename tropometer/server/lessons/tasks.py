"""Jobs of the lessons."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.lessons import sending as going_out


@app.task(retry=RetryStrategy(max_attempts=8, exponential_wait=4), priority=10)
def mail_lesson(lesson_id: str, sending: str) -> None:
    """Mail a lesson's link; what is in the way stands on the desk until it has gone."""
    try:
        going_out.mail(UUID(lesson_id), sending)
    except OSError as trouble:  # smtplib's exceptions are among them
        going_out.note_trouble(UUID(lesson_id), str(trouble) or type(trouble).__name__)
        raise


@app.task(priority=10)
def send_lesson(lesson_id: str, at: str) -> None:
    """Send a draft whose time has come."""
    going_out.send_planned(UUID(lesson_id), at)
