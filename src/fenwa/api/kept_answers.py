"""Answers that serve again until something is written: the pages of the stations, as they were sent."""

from __future__ import annotations

import re
import threading
from collections import OrderedDict
from datetime import date

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
            head = [(b"content-type", b"application/json"), (b"content-length", str(len(body)).encode())]
            await send({"type": "http.response.start", "status": 200, "headers": head})
            await send({"type": "http.response.body", "body": body})
            return
        whole = False

        async def out(message: Message) -> None:
            nonlocal whole
            if message["type"] == "http.response.start":
                kind = MutableHeaders(raw=message["headers"]).get("content-type", "")
                whole = message["status"] == 200 and kind.startswith("application/json")
            elif whole and not message.get("more_body"):  # a JSON answer leaves the outlet in one piece
                kept.put(key, mark, message["body"])
            await send(message)

        await self._app(scope, receive, out)
