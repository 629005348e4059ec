"""Getting one's page again by a code sent by mail: no password, and no word on who has a page."""

from __future__ import annotations

import hashlib
import hmac
from typing import TYPE_CHECKING
from uuid import uuid4

from allauth.account.adapter import get_adapter
from allauth.core import ratelimit
from django.conf import settings
from django.core.cache import cache
from django.core.mail import EmailMessage
from django.http import HttpRequest

from tropometer.server.people.student_page import open_pages_at

if TYPE_CHECKING:
    from tropometer.server.people.models import StudentPage

HOLDS_S = 15 * 60
MOST_TRIES = 5


class TooOften(Exception):
    """More codes or tries than anybody needs."""


def ask(request: HttpRequest, address: str) -> None:
    """Have a code mailed to an address if a page belongs to it; the asker learns nothing of whether."""
    from tropometer.server.talking.tasks import mail_code

    at = address.strip().lower()
    if not ratelimit.consume(request, action="page_code", key=at):
        raise TooOften
    ticket = uuid4().hex  # jobs and their logs are kept, and need no address
    cache.set(f"page-ask-{ticket}", at, HOLDS_S)
    mail_code.defer(ticket=ticket)


def mail(ticket: str) -> None:
    """Mail the code that was asked for; OSError while the mail server does not take it."""
    at = cache.get(f"page-ask-{ticket}", "")
    pages = open_pages_at(at)
    if not pages:
        return
    code = get_adapter().generate_login_code()
    cache.set(_key(at), {"code": _sealed(at, code), "tries": 0}, HOLDS_S)
    whose = ", ".join(page.student.name for page in pages)
    EmailMessage(
        subject="Your code",
        body=(
            f"{code}\n\nFor a quarter of an hour this code opens the page of {whose}:\n"
            f"{settings.SITE_URL}/p\n\n"
            "If you did not ask for it, do nothing: nobody gets in without it.\n"
        ),
        to=[at],
    ).send()


def enter(request: HttpRequest, address: str, code: str) -> list[StudentPage]:
    """The pages that a code opens; none for a wrong or an old one. A code opens once, and bears few tries."""
    at = address.strip().lower()
    if not ratelimit.consume(request, action="page_enter"):
        raise TooOften
    waiting = cache.get(_key(at))
    if waiting is None or waiting["tries"] >= MOST_TRIES:
        return []
    if not hmac.compare_digest(waiting["code"], _sealed(at, code.strip().upper())):
        cache.set(_key(at), {**waiting, "tries": waiting["tries"] + 1}, HOLDS_S)
        return []
    cache.delete(_key(at))
    return open_pages_at(at)


def _key(address: str) -> str:
    return f"page-code-{hashlib.sha256(address.encode()).hexdigest()}"


def _sealed(address: str, code: str) -> str:
    said = f"{address} {code.replace('-', '').replace(' ', '')}".encode()
    return hmac.new(settings.SECRET_KEY.encode(), said, hashlib.sha256).hexdigest()
