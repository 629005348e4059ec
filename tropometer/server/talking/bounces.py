"""Mail that came back: what a mail server reports of it (RFC 3464), noted at the student."""

from __future__ import annotations

from collections.abc import Iterator
from email import message_from_bytes
from email.message import Message
from email.policy import default
from typing import NamedTuple

from tropometer.server.people.student_page import note_trouble

MOST_WORDS = 160


class Bounce(NamedTuple):
    """An address that mail did not reach, and why."""

    address: str
    why: str


def bounces_in(report: bytes) -> list[Bounce]:
    """The addresses that a delivery report says failed for good; none where it is no such report."""
    message = message_from_bytes(report, policy=default)
    found = {}
    for part in message.walk():
        if part.get_content_type() == "message/delivery-status":
            for bounce in _failed(part):
                found[bounce.address] = bounce
    return list(found.values())


def _failed(status: Message) -> Iterator[Bounce]:
    """One group of fields a recipient (RFC 3464, 2.3)."""
    groups = status.get_payload()
    for group in groups if isinstance(groups, list) else []:
        recipient = group.get("Final-Recipient") or group.get("Original-Recipient")  # type: ignore[union-attr]
        action = str(group.get("Action", "")).strip().lower()  # type: ignore[union-attr]
        if not recipient or action != "failed":
            continue
        said = group.get("Diagnostic-Code") or group.get("Status") or "no reason given"  # type: ignore[union-attr]
        words = " ".join(_value(str(said)).split())[:MOST_WORDS]
        yield Bounce(_value(str(recipient)).strip("<> ").lower(), words)


def _value(field: str) -> str:
    """A field without its type, such as "rfc822;" or "smtp;"."""
    _, sign, value = field.partition(";")
    return (value if sign else field).strip()


def note(report: bytes) -> int:
    """Note what a report says on the pages of whom it concerns; returns on how many."""
    return sum(
        note_trouble(address, f"Mail to {address} does not arrive: {why}")
        for address, why in bounces_in(report)
    )
