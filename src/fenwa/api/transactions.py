"""What every handler needs: the store, the day, and writes that happen once.

What is asked for beside a handler is ``async`` though it waits for nothing: else each would be sent through a thread.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import AsyncIterator, Callable
from datetime import UTC, date, datetime
from typing import Annotated, Any, TypeVar

from fastapi import Depends, Header, Request, Response
from pydantic import BaseModel, TypeAdapter
from sqlalchemy.orm import Session

from fenwa.api.collections import store_of
from fenwa.api.model import Model
from fenwa.core.errors import Conflict, NotFound
from fenwa.core.pace import step_done
from fenwa.core.working import Working
from fenwa.store import submissions
from fenwa.store.models import Archivable, Base
from fenwa.store.session import Store
from fenwa.store.summary import touch, touch_all

M = TypeVar("M", bound=Base)


async def get_store(request: Request) -> Store:
    """The collection's database."""
    return store_of(request)


async def get_today(request: Request) -> date:
    """The day, from the clock the server was started with."""
    day: date = request.app.state.clock()
    return day


async def get_reading_session(request: Request) -> AsyncIterator[Session]:
    """A session that cannot write."""
    with store_of(request).reading() as session:
        yield session


Today = Annotated[date, Depends(get_today)]
ReadSession = Annotated[Session, Depends(get_reading_session)]


class Writer:
    """Runs a write in one transaction, and only once for each idempotency key."""

    def __init__(self, request: Request, key: str) -> None:
        self._store, self._key, self._route = store_of(request), key, request.url.path

    def once(self, body: BaseModel | None, write: Callable[[Session], dict[str, Any]]) -> dict[str, Any]:
        """The answer of ``write``, or the stored answer if this key was seen before."""
        plain = body.model_dump(mode="json") if body is not None else None
        text = json.dumps([self._route, plain], sort_keys=True, ensure_ascii=False)
        digest = hashlib.sha256(text.encode()).hexdigest()
        with self._store.writing() as session:
            before = submissions.seen(session, self._key)
            if before is not None:
                sent, known = before
                if sent != digest:
                    raise Conflict("This submission key was used for another entry. Reload the page and send again.")
                return known
            answer = write(session)
            submissions.keep(session, self._key, self._route, digest, answer)
            return answer


async def get_writer(request: Request, idempotency_key: Annotated[str, Header(min_length=8, max_length=100)]) -> Writer:
    """The writer of this request; the Idempotency-Key header is required."""
    return Writer(request, idempotency_key)


OneWrite = Annotated[Writer, Depends(get_writer)]


def as_json(page: BaseModel) -> Response:
    """A page already checked by its model, written once: large lists are not validated a second time."""
    step_done()
    return Response(page.model_dump_json(), media_type="application/json")


class Stored(Model):
    """What was stored."""

    id: int


def stored_working(plain: dict[str, Any]) -> Working:
    """A working as it was stored with its number."""
    return TypeAdapter(Working).validate_python(plain)


def now() -> datetime:
    """This moment, UTC, as stored."""
    return datetime.now(UTC).replace(tzinfo=None, microsecond=0)


def plain_row(row: Base, names: list[str]) -> dict[str, Any]:
    """Fields of a row as plain JSON values, for the record of a correction."""
    values = {name: getattr(row, name) for name in names}
    return {k: v.isoformat() if isinstance(v, date) else v for k, v in values.items()}


def get_row(session: Session, model: type[M], row_id: int, words: str, pointer: str = "") -> M:
    """A row that is there and not archived, or NotFound in plain words."""
    row = session.get(model, row_id)
    if row is None or getattr(row, "archived_at", None) is not None:
        raise not_there(words, row_id, pointer)
    return row


def not_there(words: str, row_id: int, pointer: str) -> NotFound:
    """What is said of a row that was never there, or is archived."""
    return NotFound(f"{words} {row_id} is not there. It may have been archived.", pointer=pointer)


def keep_row(session: Session, row: Archivable) -> dict[str, Any]:
    """Store a new row and say its id; the pot it belongs to, or every pot of its place, shows it from now on."""
    session.add(row)
    session.flush()
    pot_id, place_id = getattr(row, "pot_id", None), getattr(row, "place_id", None)
    if pot_id is not None:
        touch(session, pot_id)
    elif place_id is not None:
        touch_all(session)
    return {"id": row.id}
