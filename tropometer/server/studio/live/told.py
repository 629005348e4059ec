"""What the pages that look at an hour are told over the channel layer."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal, TypedDict
from uuid import UUID

if TYPE_CHECKING:
    from tropometer.swing.live.frames import Place, Stands
    from tropometer.swing.names import Hand


class Tile(TypedDict):
    """How the student stands now: shares of 1, places in each shoe; null: not told."""

    kind: Literal["tile"]
    lead_share: float | None
    lead: Place | None
    trail: Place | None


class DeviceTold(TypedDict):
    """A device on the line: whether it is there, what it sent, and how well its clock is known."""

    kind: Literal["device"]
    id: str
    device: str
    name: str
    there: bool
    counts: dict[str, int]
    clock_u95_s: float | None


class StrikeTold(TypedDict):
    """A strike was told of, or put to a try: the page asks for the hour anew."""

    kind: Literal["strike"]


Told = Tile | DeviceTold | StrikeTold


def group_of(hour_id: UUID) -> str:
    """The channel group of all that look at an hour or send to it."""
    return f"hour.{hour_id}"


def tile_of(stands: Stands | None, hand: Hand) -> Tile:
    """How somebody stands, by lead and trail."""
    if stands is None:
        return {"kind": "tile", "lead_share": None, "lead": None, "trail": None}
    leads_left = hand == "right"
    share = stands.left_share if leads_left else 1 - stands.left_share
    lead, trail = (stands.left, stands.right) if leads_left else (stands.right, stands.left)
    return {"kind": "tile", "lead_share": _fine(share), "lead": _place(lead), "trail": _place(trail)}


def _place(place: Place | None) -> Place | None:
    return place and (_fine(place[0]), _fine(place[1]))


def _fine(value: float) -> float:
    return round(value, 4)


def event(told: Told) -> dict[str, Any]:
    """The same as a message of the channel layer, which the consumers' `tell` takes."""
    return {"type": "tell", "told": told}
