"""What comes in: bodies bounded while they are read, and JSON that every layer behind can hold."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from contextlib import nullcontext
from typing import Any
from urllib.parse import parse_qsl, unquote

from anyio import fail_after
from starlette.requests import ClientDisconnect
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fenwa.api.patience import PATIENCE_S
from fenwa.api.problems import FieldError, problem
from fenwa.core.entry import check_plain
from fenwa.core.errors import InputError
from fenwa.formats.photo import MOST_BYTES
from fenwa.formats.photo import too_large as photo_too_large
from fenwa.store.giving_way import entry

BODY_LIMIT = 1_000_000  # bytes; the largest form is a few kilobytes
ARCHIVE_LIMIT = 300_000_000  # a collection through the page; ./fenwa import reads larger ones from the disk
_ARCHIVES = ("/api/archive/preview", "/api/archive/import", "/api/archive/pots")
_PHOTOS = re.compile(r"/api/(pots|looks)/\d+/photos")  # the body is the file itself, read by formats.photo
OWN_READERS = ("/api/inbox/senml", "/sign-in")  # a pack names line and record; the passphrase is a form
_LONG_NUMBER = re.compile(r"[+-]?\d{16,}")  # no id, count or amount has so many digits; SQLite takes nineteen


class Intake:
    """Reads a body whole, never beyond the limit, and refuses what no handler could take.

    The one place where lists, half surrogates, numbers beyond any measure and days beyond any
    calendar are met: behind it every handler and every row can hold what it is given.
    """

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer with a problem, or pass the request on with its body read."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        refused = _long_number(scope)
        if refused is not None or scope["method"] in ("GET", "HEAD"):
            await (refused or self._app)(scope, receive, send)
            return
        keyed = any(name == b"idempotency-key" for name, _ in scope["headers"])
        with entry() if keyed else nullcontext():  # what is only worked out for a form waits its turn like a page
            await self._enter(scope, receive, send)

    async def _enter(self, scope: Scope, receive: Receive, send: Send) -> None:
        refused: Response | None = None
        try:
            body = await _read(receive, body_limit(scope["path"]))
        except TimeoutError:
            refused = _half_sent(scope)
        except ClientDisconnect:
            return  # nobody hears an answer, and what came may read whole and not be
        else:
            if body is None:
                refused = too_large(scope["path"])
            else:
                receive = _again(body, receive)
                refused = _checked(scope, body) if not _reads_itself(scope["path"]) else None
        await (refused or self._app)(scope, receive, send)


def _reads_itself(path: str) -> bool:
    return path in OWN_READERS or path in _ARCHIVES or _PHOTOS.fullmatch(path) is not None


def body_limit(path: str) -> int:
    """The most a body sent there may hold. [bytes]"""
    if path in _ARCHIVES:
        return ARCHIVE_LIMIT
    return MOST_BYTES if _PHOTOS.fullmatch(path) else BODY_LIMIT


def too_large(path: str) -> Response:
    """The refusal of a body over the limit."""
    if _PHOTOS.fullmatch(path):
        return _refused_at(path, photo_too_large(), "/photo")
    if path in _ARCHIVES:
        told = f"The file is larger than {ARCHIVE_LIMIT // 1_000_000} MB. Stop Fenwa and use ./fenwa import FILE."
        return problem(413, "Request refused", told, "too-large")
    return problem(413, "Request refused", f"At most {BODY_LIMIT} bytes are taken at once.", "too-large")


async def _read(receive: Receive, limit: int) -> bytes | None:
    """The whole body, or None as soon as it is over the limit, whatever length was promised.

    Raises ``ClientDisconnect`` where the line broke off before its end.
    """
    parts: list[bytes] = []
    size = 0
    while True:
        with fail_after(PATIENCE_S):
            message = await receive()
        if message["type"] != "http.request":
            raise ClientDisconnect
        parts.append(message.get("body", b""))
        size += len(parts[-1])
        if size > limit:
            return None
        if not message.get("more_body", False):
            return b"".join(parts)


def _half_sent(scope: Scope) -> Response:
    told = f"The rest of the request did not come within {PATIENCE_S:.0f} s. Nothing was stored. Send it again."
    return problem(408, "Request refused", told, "half-sent", instance=scope["path"])


def _again(body: bytes, receive: Receive) -> Receive:
    """A receiver that gives the body once, then whatever the connection says."""
    waiting = [body]

    async def give() -> Message:
        if waiting:
            return {"type": "http.request", "body": waiting.pop(), "more_body": False}
        return await receive()

    return give


def _words(scope: Scope) -> Iterator[str]:
    yield from scope["path"].split("/")
    for name, value in parse_qsl(scope["query_string"].decode("latin-1")):
        yield unquote(name)
        yield unquote(value)


def _long_number(scope: Scope) -> Response | None:
    for word in _words(scope):
        if _LONG_NUMBER.fullmatch(word):
            return _refusal(scope, f"“{word[:20]}…” is too large a number. Check the address.", "")
    return None


def _checked(scope: Scope, body: bytes) -> Response | None:
    try:
        content: Any = json.loads(body) if body else None
    except (ValueError, RecursionError):
        return problem(
            400,
            "The entry cannot be used",
            "The request is not valid JSON. Send a JSON object.",
            "input-error",
            instance=scope["path"],
        )
    try:
        check_plain(content)
    except InputError as refused:
        return _refusal(scope, refused.detail, refused.pointer)
    return None


def _refusal(scope: Scope, detail: str, pointer: str) -> Response:
    return _refused_at(scope["path"], detail, pointer)


def _refused_at(path: str, detail: str, pointer: str) -> Response:
    return problem(
        422,
        "The entry cannot be used",
        detail,
        "input-error",
        instance=path,
        errors=[FieldError(pointer=pointer, detail=detail)],
    )
