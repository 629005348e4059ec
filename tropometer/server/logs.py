"""Structured logs: one line an event, each request with its id, and no private link in any of them."""

import logging
import re
import time
from collections.abc import Callable
from typing import Any
from uuid import uuid4

import structlog
from django.http import HttpRequest
from django.http.response import HttpResponseBase
from structlog.typing import Processor

# What follows these in an address is the permission itself.
_TOKENS = re.compile(r"(/(?:l|s|p|new-password|api/sheets|api/sent|api/pages)/)[^/\s?\"'>]+")
_KEYS = re.compile(r"((?:password|key|token)[\"']?\s*[=:]\s*[\"']?)[^\s\"'&,}]+", re.IGNORECASE)
_USABLE_ID = re.compile(r"[A-Za-z0-9._-]{1,64}")

ASKED_ALL_THE_TIME = ("/healthz", "/readyz")

log = structlog.get_logger("tropometer")


def without_tokens(text: str) -> str:
    """A text in which private links and secrets are blotted out."""
    return _KEYS.sub(r"\1…", _TOKENS.sub(r"\1…", text))


def blot(_: Any, __: str, event: dict[str, Any]) -> dict[str, Any]:
    """Blots private links out of everything that is logged (a structlog processor)."""
    return {name: without_tokens(value) if isinstance(value, str) else value for name, value in event.items()}


SHARED: list[Processor] = [
    structlog.contextvars.merge_contextvars,
    structlog.stdlib.add_log_level,
    structlog.stdlib.add_logger_name,
    structlog.processors.TimeStamper(fmt="iso"),
]

LOGGING: dict[str, Any] = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "line": {
            "()": structlog.stdlib.ProcessorFormatter,
            "foreign_pre_chain": [structlog.stdlib.ExtraAdder(allow=["status_code"]), *SHARED],
            "processors": [
                structlog.stdlib.ProcessorFormatter.remove_processors_meta,
                structlog.processors.format_exc_info,
                blot,
                structlog.processors.LogfmtRenderer(),
            ],
        }
    },
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {
        "tropometer": {"level": "INFO"},
        # An answer of 404 is no event; each request has a line of its own.
        "django.request": {"level": "ERROR"},
    },
}


def configure() -> None:
    """Have structlog speak through the standard logging, so that all lines look alike."""
    structlog.configure(
        processors=[
            *SHARED,
            structlog.stdlib.PositionalArgumentsFormatter(),
            structlog.stdlib.ProcessorFormatter.wrap_for_formatter,
        ],
        logger_factory=structlog.stdlib.LoggerFactory(),
        wrapper_class=structlog.stdlib.BoundLogger,
        cache_logger_on_first_use=True,
    )


class RequestLog:
    """Gives each request an id, says it in the answer, and logs one line when it is answered."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        given = request.headers.get("X-Request-Id", "")
        request_id = given if _USABLE_ID.fullmatch(given) else uuid4().hex
        began = time.monotonic()
        with structlog.contextvars.bound_contextvars(request_id=request_id):
            answer = self.answer(request)
            level = logging.WARNING if answer.status_code >= 500 else logging.INFO
            if request.path in ASKED_ALL_THE_TIME:
                level = logging.DEBUG
            log.log(
                level,
                "answered",
                method=request.method,
                path=request.path,
                status=answer.status_code,
                ms=round(1000 * (time.monotonic() - began)),
                user=str(request.user.pk) if getattr(request, "user", None) and request.user.pk else None,
            )
        answer["X-Request-Id"] = request_id
        return answer
