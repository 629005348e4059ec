"""Who signs in from where: what the lock on wrong passwords goes by."""

from typing import Any

from allauth.core.internal.httpkit import get_client_ip
from django.http import HttpRequest, HttpResponse

from tropometer.server.problems import problem


def address_of(request: HttpRequest) -> str | None:
    """The sender's address; what a header says of it counts only as far as our own proxies wrote it."""
    found: str | None = get_client_ip(request)
    return found


def account_of(request: HttpRequest, credentials: dict[str, Any] | None) -> str | None:
    """The account that somebody tries to sign in to, in small letters."""
    said = (credentials or {}).get("email") or (credentials or {}).get("username")
    return str(said).strip().lower() if said else None


def locked_out(
    request: HttpRequest, original: HttpResponse | None = None, credentials: dict[str, Any] | None = None
) -> HttpResponse:
    """What somebody reads after too many wrong passwords."""
    return problem(429, "Too many wrong passwords from here. Wait a quarter of an hour.")
