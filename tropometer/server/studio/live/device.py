"""The end of the line that a device talks to."""

from __future__ import annotations

import asyncio
import contextlib
import json
import math
import time
import uuid
from collections.abc import Callable, Coroutine, Iterable
from dataclasses import asdict
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Any, cast

import structlog
from channels.db import database_sync_to_async
from channels.generic.websocket import AsyncWebsocketConsumer
from django.core.exceptions import ObjectDoesNotExist
from django.db import DatabaseError
from django.utils import timezone
from redis.exceptions import RedisError

from tropometer.server.studio.live import strikes
from tropometer.server.studio.live.told import Told, event, group_of, tile_of
from tropometer.swing.clocks.tied import Exchange, TiedClock
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.formats.live import Cells, ClockAnswer, Hello, Message, Pressure, Shot, read_line
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.live.cells import Prints
from tropometer.swing.live.frames import Frame, Frames
from tropometer.swing.live.strikes import StrikeWatch
from tropometer.swing.names import Hand

if TYPE_CHECKING:
    from tropometer.server.studio.models import StudioHour

log = structlog.get_logger(__name__)

FIRST_QUESTIONS, QUICK_S, SLOW_S = 8, 0.15, 2.0  # the clock is asked often at first
OPEN_QUESTIONS = 20  # that a device may owe an answer to
TILE_S = 0.024  # between two tiles: more than twenty a second, whatever the packets' own pace is
LOOK_S = 0.25  # between two looks for a strike
TOLD_S = 1.0  # between two accounts of the device
TROUBLE_S = 0.5  # so that a device that sends nonsense is not drowned in answers
CHECKED_S = 5.0  # between two looks whether the line is still open
FARTHEST_S = 3 * 3600.0  # from now that anything was struck
KEEP_TRIES, KEEP_AGAIN_S = 20, 3.0  # a database that is killed comes back within a minute


class DeviceLine(AsyncWebsocketConsumer):
    """Takes what a device sends, ties its clock, keeps its strikes, and tells the hour's pages."""

    hour: StudioHour

    async def connect(self) -> None:
        """Refused before it opens where the token is of no open hour."""
        self.token: str = self.scope["url_route"]["kwargs"]["token"]
        hour = await self._hour()
        if hour is None:
            await self.close()
            return
        self.hour = hour
        self.hello: Hello | None = None
        self.id = uuid.uuid4().hex
        self.frames, self.watch, self.clock = Frames(), StrikeWatch(), TiedClock()
        self.prints: Prints | None = None
        self.nonsense = 0
        self.asked: dict[int, float] = {}
        self.told_at = {"tile": 0.0, "device": 0.0, "trouble": 0.0}
        self.looked_s = -math.inf
        self.tasks: set[asyncio.Task[None]] = set()
        await self.channel_layer.group_add(group_of(hour.pk), self.channel_name)
        await self.accept()
        self.asking = [self._begin(self._ask()), self._begin(self._check())]

    async def disconnect(self, code: int) -> None:
        """Tell the pages; what is being kept is kept."""
        if not hasattr(self, "id"):
            return
        for task in self.asking:
            task.cancel()
        await self._tell_device(there=False)
        await self.channel_layer.group_discard(group_of(self.hour.pk), self.channel_name)

    @property
    def hand(self) -> Hand:
        """The student's."""
        return cast(Hand, self.hour.student.hand)

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        """Lines of a device; one that makes no sense is named, counted and dropped."""
        if text_data is None:
            await self._trouble("line", "text is understood, bytes are not")
            return
        for line in text_data.splitlines():
            if not line.strip():
                continue
            try:
                message = read_line(line)
            except RecordError as error:
                field, _, why = str(error).partition(": ")
                await self._trouble(field, why)
                continue
            if self.hello is None and not isinstance(message, Hello | ClockAnswer):
                await self._trouble("type", "say hello first")
                continue
            await self._take(message)

    async def _take(self, message: Message) -> None:
        if isinstance(message, Hello):
            self.hello = message
            await self._tell_device()
        elif isinstance(message, ClockAnswer):
            asked = self.asked.pop(message.asked, None)
            if asked is not None:
                heard = time.monotonic()
                self.clock.hear(Exchange(asked_s=asked, heard_s=heard, theirs_s=message.theirs_s))
        elif isinstance(message, Pressure):
            await self._felt(message.frames)
        elif isinstance(message, Cells):
            await self._felt_cells(message)
        else:
            await self._keep_shot(message)
        if self._due("device", TOLD_S):
            await self._tell_device()

    async def _felt(self, frames: Iterable[Frame]) -> None:
        self.frames.take(frames)
        if self._due("tile", TILE_S):
            await self._tell(tile_of(self.frames.stands(), self.hand))
        await self._look()

    async def _felt_cells(self, message: Cells) -> None:
        grid = self.hello.grid if self.hello else None
        if grid is None or message.felt.shape[1] != grid.across * grid.along:
            wanted = f"{grid.across * grid.along} a frame" if grid else "a grid in its hello"
            await self._trouble("cells.cells", f"this mat has said {wanted}")
            return
        if self.prints is None or self.prints.grid != grid:
            self.prints = Prints(grid)
        await self._felt(self.prints.frames(message.times_s, message.felt))

    async def _look(self) -> None:
        """By the plate's own time, so that what comes all at once after a gap is looked at too."""
        now_s = self.frames.last_s
        if now_s is None or 0 <= now_s - self.looked_s < LOOK_S:
            return
        self.looked_s = now_s
        swung = self.watch.look(self.frames, self.hand)
        if swung is None or self.hello is None:
            return
        when = await self._when(swung.strike.at_s, swung.strike.sd_s)
        if when is None:
            return
        name, plate = self.hello.name, swung.plate(self.hand)
        self._begin(self._keep(lambda: strikes.felt(self.hour, name, *when, plate)))

    async def _keep_shot(self, shot: Shot) -> None:
        when = await self._when(shot.t_s, 0.0)
        if when is None or self.hello is None:
            return
        name, launch = self.hello.name, shot.launch(self.hand)
        self._begin(self._keep(lambda: strikes.said(self.hour, name, *when, launch)))

    async def _when(self, theirs_s: float, sd_s: float) -> tuple[datetime, float] | None:
        """A time of the device on the server's, with its error; None, and said so, where that cannot be."""
        if self.clock.tie is None:
            await self._trouble("clock", "answer the questions for your time: nothing can be kept without")
            return None
        ours_s, tie_sd_s = self.clock.tie.ours(theirs_s)
        since_s = ours_s - time.monotonic()
        if abs(since_s) > FARTHEST_S:
            await self._trouble("t", "not on the clock that your answers are from: hours away from now")
            return None
        return timezone.now() + timedelta(seconds=since_s), float((sd_s**2 + tie_sd_s**2) ** 0.5)

    async def _keep(self, keep: Callable[[], Any]) -> None:
        """Keep a strike, and try again while the database is away: it is nowhere else."""
        for _ in range(KEEP_TRIES):
            try:
                await database_sync_to_async(keep)()
            except DatabaseError as error:
                log.warning("strike waits for the database", error=str(error))
                await asyncio.sleep(KEEP_AGAIN_S)
            except strikes.FullHour as error:
                await self._trouble("hour", str(error))
                return
            except ObjectDoesNotExist:  # the hour was removed meanwhile
                await self._end()
                return
            else:
                await self._tell({"kind": "strike"})
                return
        log.error("strike is lost: the database did not come back", hour=str(self.hour.pk))

    async def _ask(self) -> None:
        """Ask for the device's time while it is there."""
        number = 0
        while True:
            number += 1
            self.asked = dict([*self.asked.items()][-OPEN_QUESTIONS:])
            self.asked[number] = time.monotonic()
            try:
                await self.send(json.dumps({"type": "clock", "asked": number}))
            except OSError:  # it is gone
                return
            await asyncio.sleep(QUICK_S if number < FIRST_QUESTIONS else SLOW_S)

    async def _check(self) -> None:
        """Close what was closed, or whose hour is gone."""
        while True:
            await asyncio.sleep(CHECKED_S)
            try:
                is_open = await self._hour() is not None
            except DatabaseError:  # away for a while: nobody has closed anything
                continue
            if not is_open:
                await self._end()
                return

    async def _end(self) -> None:
        with contextlib.suppress(OSError):  # gone by itself meanwhile
            await self.close()

    async def _hour(self) -> StudioHour | None:
        return await database_sync_to_async(strikes.hour_of_line)(self.token)

    async def _trouble(self, field: str, why: str) -> None:
        self.nonsense += 1
        if self._due("trouble", TROUBLE_S):
            await self.send(json.dumps({"type": "trouble", "field": field, "why": why}))

    async def _tell_device(self, there: bool = True) -> None:
        if self.hello is None:
            return
        counts = asdict(self.frames.counts)
        counts["nonsense"] += self.nonsense
        counts["jumps"] = self.clock.jumps  # the frames' own jumps follow from it
        tie = self.clock.tie
        await self._tell(
            {
                "kind": "device",
                "id": self.id,
                "device": self.hello.device,
                "name": self.hello.name,
                "there": there,
                "counts": counts,
                "clock_u95_s": round(NORMAL_95 * tie.ours(tie.about_s)[1], 5) if tie else None,
            }
        )

    async def _tell(self, told: Told) -> None:
        try:
            await self.channel_layer.group_send(group_of(self.hour.pk), event(told))
        except (OSError, RedisError) as error:
            # Pages miss a tile; what the device sends is looked at and kept all the same.
            log.warning("pages of an hour cannot be told", error=str(error))

    def _due(self, what: str, every_s: float) -> bool:
        now = time.monotonic()
        if now - self.told_at[what] < every_s:
            return False
        self.told_at[what] = now
        return True

    def _begin(self, work: Coroutine[Any, Any, None]) -> asyncio.Task[None]:
        task = asyncio.create_task(work)
        self.tasks.add(task)
        task.add_done_callback(self.tasks.discard)
        return task

    async def tell(self, event: dict[str, Any]) -> None:
        """What is told to pages is none of a device's."""

    async def look(self, event: dict[str, Any]) -> None:
        """Somebody looks at the hour."""
        await self._tell_device()
        await self.send(json.dumps({"type": "watched"}))
