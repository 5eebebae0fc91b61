"""Answers that serve again until something is written: the pages of the stations, as they were sent."""

from __future__ import annotations

import asyncio
import re
import threading
from collections import OrderedDict
from contextlib import suppress
from datetime import date
from typing import ClassVar
from weakref import WeakKeyDictionary

from starlette.datastructures import MutableHeaders
from starlette.requests import Request
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fenwa.api.collections import store_of
from fenwa.store.session import Store

# Pages that rest on the database and the day alone; what rests on a clock, a device or a folder is asked anew.
PAGES = re.compile(
    r"/api/(stations|round|water|mix|pots|pots/names|pots/\d+|days|flush|leaves|leaves/more|looks-asked|changes|kinds)"
)
MOST_BYTES = 24_000_000
AT_ONCE = 1  # pages worked out
PATIENCE_s = 5.0  # a page behind one that takes long begins beside it

Key = tuple[str, bytes, date]


class Kept:
    """Answers of one database, the newest used last; all go when something is written."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._bodies: OrderedDict[Key, bytes] = OrderedDict()
        self._mark = -1

    def get(self, key: Key, mark: int) -> bytes | None:
        """The body of an answer made after ``mark`` writes."""
        with self._lock:
            if self._mark != mark or key not in self._bodies:
                return None
            self._bodies.move_to_end(key)
            return self._bodies[key]

    def put(self, key: Key, mark: int, body: bytes) -> None:
        """Keep an answer; the oldest make room."""
        with self._lock:
            if mark < self._mark:
                return  # made before a write that others have seen
            if mark > self._mark:
                self._bodies, self._mark = OrderedDict(), mark
            self._bodies[key] = body
            while sum(map(len, self._bodies.values())) > MOST_BYTES:
                self._bodies.popitem(last=False)


def kept_of(store: Store) -> Kept:
    """What is kept of a database."""
    found: Kept = store.changed.memory.setdefault("kept answers", Kept())
    return found


class Turn:
    """The turn of a page to be worked out. One process computes one thing at a time: pages asked for
    together are done sooner one after the other, and an entry does not wait behind all of them.
    """

    _turns: ClassVar[WeakKeyDictionary[asyncio.AbstractEventLoop, asyncio.Semaphore]] = WeakKeyDictionary()

    def __init__(self) -> None:
        self._free = self._turns.setdefault(asyncio.get_running_loop(), asyncio.Semaphore(AT_ONCE))
        self._mine = False

    async def taken(self) -> None:
        """Wait until it is this page's turn, or until the one before has taken too long."""
        with suppress(TimeoutError):
            await asyncio.wait_for(self._free.acquire(), PATIENCE_s)
            self._mine = True

    def over(self) -> None:
        """Let the next one begin; twice is once."""
        if self._mine:
            self._mine = False
            self._free.release()


class KeptAnswers:
    """Sends a page again as it was while nothing has been written since; everything else goes through."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """The writes are counted before the page is made: an answer can be newer than its mark, never older."""
        if scope["type"] != "http" or scope["method"] != "GET" or not PAGES.fullmatch(scope["path"]):
            await self._app(scope, receive, send)
            return
        request = Request(scope)
        store = store_of(request)
        kept, mark = kept_of(store), store.changed.writes
        key = (scope["path"], scope["query_string"], request.app.state.clock())
        body = kept.get(key, mark)
        if body is not None:
            await _send_again(body, send)
            return
        turn = Turn()
        await turn.taken()
        whole = False

        async def out(message: Message) -> None:
            nonlocal whole
            if message["type"] == "http.response.start":
                turn.over()  # it is worked out; how fast it is read is the reader's matter
                kind = MutableHeaders(raw=message["headers"]).get("content-type", "")
                whole = message["status"] == 200 and kind.startswith("application/json")
            elif whole and not message.get("more_body"):  # a JSON answer leaves the outlet in one piece
                kept.put(key, mark, message["body"])
            await send(message)

        try:
            # another reader may have been given the same page while this one waited
            mark = store.changed.writes
            body = kept.get(key, mark)
            if body is not None:
                turn.over()
                await _send_again(body, send)
                return
            await self._app(scope, receive, out)
        finally:
            turn.over()


async def _send_again(body: bytes, send: Send) -> None:
    head = [(b"content-type", b"application/json"), (b"content-length", str(len(body)).encode())]
    await send({"type": "http.response.start", "status": 200, "headers": head})
    await send({"type": "http.response.body", "body": body})
