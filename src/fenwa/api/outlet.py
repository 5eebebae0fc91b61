"""What goes out: the core's sentences are written in the reader's units and order of dates, here and nowhere else."""

from __future__ import annotations

import json
import re
from functools import lru_cache

from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import MutableHeaders
from starlette.requests import Request
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fenwa.api.collections import store_of
from fenwa.api.house.choices import read_settings, reader_of
from fenwa.core.writing import Reader, written
from fenwa.store.giving_way import give_way
from fenwa.store.models import Setting

# Fields that hold sentences of the core. Names and notes a grower typed are in none of them; a line of pots as it was
# typed and a decision told as a change are shown in the reader's units like the rest, and stored as they were.
SPOKEN = (
    "amount_line",
    "amounts",
    "caution",
    "change",
    "clean_hands",
    "cost",
    "definition",
    "detail",
    "echo",
    "ended_why",
    "feed_sentence",
    "flush_sentence",
    "grade_sentence",
    "headline",
    "headroom_refusal",
    "held",
    "held_ends",
    "in_favour",
    "kind_line",
    "leave_out_rule",
    "line",
    "margin_line",
    "missing",
    "moved_by",
    "next",
    "not_do",
    "own_word",
    "phase_sentence",
    "prills_sentence",
    "problem",
    "read_sentence",
    "reason",
    "refusal",
    "release",
    "remedy",
    "risk",
    "saving",
    "says",
    "sentence",
    "separated_by",
    "settles",
    "stock_refusal",
    "then",
    "title",
    "validity",
    "value_said",
    "verdict_sentence",
    "warning",
    "water_note",
    "water_sentence",
    "weighing",
    "window_why",
    "word",
    "words",
)
LISTED = ("assumptions", "causes", "cautions", "fallen_back", "gives", "measures", "safety", "sentences", "sides")
# Names that hold a sentence on some pages and what a grower typed on others.
ALSO = (
    (r"/api/(round|days|flush|mix)", ("why",)),
    (r"/api/stations", ("figure",)),
    (r"/api/kinds", ("watering", "enter", "restart", "note", "disputed")),
    (r"/api/pots/\d+/answers", ("what",)),
    (r"/api/pots/\d+/pair", ("first", "second")),
)
AS_THEY_ARE = ("/api/archive", "/api/openapi.json", "/api/calc")  # files and the calculations themselves
_STRING = rb'"[^"\\]*(?:\\.[^"\\]*)*"'


def _prefixes(words: tuple[str, ...]) -> str:
    """A pattern of these words that looks at each of their beginnings once."""
    by_first: dict[str, list[str]] = {}
    for word in words:
        by_first.setdefault(word[:1], []).append(word[1:])
    ends = by_first.pop("", None) is not None
    branches = "|".join(first + _prefixes(tuple(rest)) for first, rest in by_first.items())
    return f"(?:{branches}){'?' if ends else ''}" if branches else ""


@lru_cache(maxsize=16)
def _fields(also: tuple[str, ...] = ()) -> re.Pattern[bytes]:
    """Fields with a sentence, some of them on this page alone, and lists of sentences. It begins with what every field
    begins with: the search for that one byte is what makes it quick.
    """
    return re.compile(
        rb'"(?:'
        + _prefixes((*SPOKEN, *also)).encode()
        + rb'": ?'
        + _STRING
        + rb"|"
        + _prefixes(LISTED).encode()
        + rb'": ?\[(?:'
        + _STRING
        + rb",? ?)*\])"
    )


_ONE = re.compile(_STRING)


def _said(raw: bytes, reader: Reader) -> bytes:
    text: str = json.loads(raw)
    new = written(text, reader)
    return raw if new == text else json.dumps(new, ensure_ascii=False).encode()


@lru_cache(maxsize=16_384)  # a list says the same of many pots
def _field(whole: bytes, reader: Reader) -> bytes:
    """A field, or a list of them, with its sentences written."""
    name, colon, said = whole.partition(b'":')
    return name + colon + _ONE.sub(lambda one: _said(one[0], reader), said)


def spoken(body: bytes, reader: Reader, path: str = "") -> bytes:
    """A JSON body with its sentences written for this reader; every other byte as it was."""
    fields = _fields(next((names for on, names in ALSO if re.match(on, path)), ()))

    def said(found: re.Match[bytes]) -> bytes:
        give_way()
        return _field(found[0], reader)

    return fields.sub(said, body)


def _reader(request: Request) -> Reader:
    store = store_of(request)
    kept: tuple[int, Reader] | None = store.changed.memory.get("reader")
    mark = store.changed.tables.get(Setting.__tablename__, 0)
    if kept is None or kept[0] != mark:
        try:
            with store.reading() as session:
                kept = mark, reader_of(read_settings(session))
        except SQLAlchemyError:  # an answer that says so must still go out
            return Reader()
        store.changed.memory["reader"] = kept
    return kept[1]


def _for_reader(request: Request, body: bytes, path: str) -> bytes:
    """In a thread: a page of five thousand pots would hold up every entry meanwhile."""
    return spoken(body, _reader(request), path)


class Outlet:
    """Writes the sentences of a JSON answer out; any other answer goes through as it comes."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Hold a JSON answer until it is whole, then send it written."""
        path = scope.get("path", "")
        if scope["type"] != "http" or not path.startswith("/api/") or path.startswith(AS_THEY_ARE):
            await self._app(scope, receive, send)
            return
        start: Message | None = None
        held: list[bytes] = []

        async def out(message: Message) -> None:
            nonlocal start
            if message["type"] == "http.response.start":
                if b"json" not in MutableHeaders(raw=message["headers"]).get("content-type", "").encode():
                    await send(message)
                    return
                start = message
                return
            if start is None:
                await send(message)
                return
            held.append(message.get("body", b""))
            if message.get("more_body"):
                return
            body = b"".join(held)
            if any(c in body for c in (b"-", b"\xc2\xb5", b"\xc2\xb0", b" L", b" g", b"m")):
                body = await run_in_threadpool(_for_reader, Request(scope), body, path)
            MutableHeaders(raw=start["headers"])["content-length"] = str(len(body))
            await send(start)
            await send({"type": "http.response.body", "body": body})

        await self._app(scope, receive, out)
