"""The end of the line that an hour's page listens on."""

from __future__ import annotations

import asyncio
import contextlib
import json
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

from channels.db import database_sync_to_async
from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError
from django.http import Http404
from redis.exceptions import RedisError

from tropometer.server.studio.live.told import group_of
from tropometer.server.studio.services import hour_of

if TYPE_CHECKING:
    from tropometer.server.people.models import User

LOOKS_S = 15.0  # so often the devices hear that somebody still looks


class Nowhere(AsyncWebsocketConsumer):
    """An address where nothing is."""

    async def connect(self) -> None:
        """Refused before it opens."""
        await self.close()


class PageLine(AsyncWebsocketConsumer):
    """Hands on what the devices of an hour tell to whom it belongs; it takes nothing."""

    async def connect(self) -> None:
        """Refused before it opens to everybody else."""
        id: UUID = self.scope["url_route"]["kwargs"]["id"]
        user = cast("User", self.scope["user"])  # of the session; an anonymous one is not authenticated
        if not user.is_authenticated:
            await self.close()
            return
        self.user, self.id = user, id
        if not await self._may_look():
            await self.close()
            return
        self.group = group_of(id)
        await self.channel_layer.group_add(self.group, self.channel_name)
        await self.accept()
        self.looking = asyncio.ensure_future(self._look())

    async def disconnect(self, code: int) -> None:
        """Leave the group."""
        if hasattr(self, "group"):
            self.looking.cancel()
            await self.channel_layer.group_discard(self.group, self.channel_name)

    async def _look(self) -> None:
        """Say that somebody looks, as long as they may."""
        while await self._may_look():
            with contextlib.suppress(OSError, RedisError):  # away for a while: asked again soon
                await self.channel_layer.group_send(self.group, {"type": "look"})
            await asyncio.sleep(LOOKS_S)
        with contextlib.suppress(OSError):  # gone by itself meanwhile
            await self.close()

    async def _may_look(self) -> bool:
        try:
            await database_sync_to_async(hour_of)(self.user, self.id)
        except Http404:
            return False
        except DatabaseError:  # away for a while: nobody has taken anything from anybody
            return hasattr(self, "looking")
        return True

    async def tell(self, event: dict[str, Any]) -> None:
        """Something a device told."""
        await self.send(json.dumps(event["told"]))

    async def look(self, event: dict[str, Any]) -> None:
        """That somebody looks is for devices."""
