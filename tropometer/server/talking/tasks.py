"""Jobs of the threads."""

from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from tropometer.server.talking import codes, news
from tropometer.server.talking.models import Side


@app.task(retry=RetryStrategy(max_attempts=8, exponential_wait=4), priority=5)
def tell(student_id: str, side: str) -> None:
    """Mail one side of a thread what is new to it."""
    news.mail_news(UUID(student_id), Side(side))


@app.task(retry=RetryStrategy(max_attempts=3, wait=20), priority=30)
def mail_code(ticket: str) -> None:
    """Mail the code that opens a student's page; somebody waits for it."""
    codes.mail(ticket)
