"""What readers worked out and may use again, and which writes take it back.

Nobody lists what a value rests on: the statements that were sent while it was made name their tables, and those of a
write name theirs.
"""

from __future__ import annotations

import re
import threading
from collections.abc import Callable, Iterator, Mapping
from contextlib import AbstractContextManager, contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Protocol, TypeVar

from sqlalchemy import Engine, event
from sqlalchemy.orm import Session

from fenwa.store.base import Base
from fenwa.store.giving_way import give_way
from fenwa.store.models import PotStanding

T = TypeVar("T")

EVERYTHING = "*"  # rests on whatever is written
_WRITE = re.compile(
    r'\s*(?:INSERT(?:\s+OR\s+\w+)?\s+INTO|REPLACE\s+INTO|UPDATE(?:\s+OR\s+\w+)?|DELETE\s+FROM)\s+"?(\w+)', re.IGNORECASE
)
_WRITES_NOTHING = re.compile(r"\s*(?:SELECT|BEGIN|COMMIT|ROLLBACK|SAVEPOINT|RELEASE|PRAGMA|EXPLAIN)\b", re.IGNORECASE)
_WORD = re.compile(r"\w+")
_BY_TRIGGER = PotStanding.__tablename__  # the one table that triggers write


def _all_tables() -> frozenset[str]:
    return frozenset(Base.metadata.tables)


@lru_cache(maxsize=4096)
def tables_written(statement: str) -> frozenset[str]:
    """Tables a statement writes; all of them where it cannot be told."""
    found = _WRITE.match(statement)
    if found is not None:
        return frozenset((found[1], _BY_TRIGGER))
    return frozenset() if _WRITES_NOTHING.match(statement) else _all_tables()


@lru_cache(maxsize=4096)
def tables_named(statement: str) -> frozenset[str]:
    """Tables whose names stand in a statement: those it reads, perhaps one more."""
    return _all_tables().intersection(_WORD.findall(statement))


_sent: ContextVar[set[str] | None] = ContextVar("tables read while a value is made", default=None)


def rests_on(tables: frozenset[str] | set[str]) -> None:
    """Tell whoever is making a value what it rests on."""
    sent = _sent.get()
    if sent is not None:
        sent |= tables


@contextmanager
def _noted() -> Iterator[set[str]]:
    """Tables that are read inside."""
    read: set[str] = set()
    outer = _sent.set(read)
    try:
        yield read
    finally:
        _sent.reset(outer)


def hear_reads(engine: Engine) -> None:
    """Note what is read through this engine, and let entries go first."""

    @event.listens_for(engine, "before_cursor_execute")
    def _read(_c: Any, _cursor: Any, statement: str, *_rest: Any) -> None:
        give_way()
        if _sent.get() is not None:
            rests_on(tables_named(statement))


class Changed:
    """What was written since the start. Noted after the commit, never before."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._pots: dict[int, int] = {}  # the count of writes at which each pot was last written
        self._all_pots = 0  # and what rules all of them
        self.touched: set[str] = set()  # tables of the write under way
        self.writes = 0  # committed since the start
        # the count of writes at which each table was last written; replaced at each write, never altered
        self.tables: Mapping[str, int] = {EVERYTHING: 0}
        self.memory: dict[str, Any] = {}  # what readers computed and may use again
        self.filling = threading.Lock()

    def hear_writes(self, engine: Engine) -> None:
        """Note what is written through this engine; it counts once it is committed."""

        @event.listens_for(engine, "before_cursor_execute")
        def _written(_c: Any, _cursor: Any, statement: str, *_rest: Any) -> None:
            self.touched |= tables_written(statement)

    def note(self, pot_ids: set[int], every: bool = False, whole: bool = False) -> None:
        """Pots that a committed write touched; ``every``: what rules all of them was written; ``whole``: all was."""
        with self._lock:
            writes = self.writes + 1
            touched, self.touched = self.touched, set()
            new = dict.fromkeys(_all_tables() if whole else touched, writes)
            self.tables = {**self.tables, **new, EVERYTHING: writes}
            self._pots |= dict.fromkeys(pot_ids, writes)
            if every or whole:
                self._all_pots = writes
            self.writes = writes

    def pots_since(self, writes: int) -> set[int] | None:
        """Pots written since a count of writes; None: all of them."""
        with self._lock:
            return None if self._all_pots > writes else {i for i, n in self._pots.items() if n > writes}


class Beside:
    """The same writes with a memory of its own: for what is worked out as of another day than today."""

    def __init__(self, of: Changed) -> None:
        self._of = of
        self.memory: dict[str, Any] = {}
        self.filling = threading.Lock()

    @property
    def writes(self) -> int:
        """Committed since the start."""
        return self._of.writes

    @property
    def tables(self) -> Mapping[str, int]:
        """The count of writes at which each table was last written."""
        return self._of.tables

    @property
    def touched(self) -> set[str]:
        """Tables of the write under way."""
        return self._of.touched

    def pots_since(self, writes: int) -> set[int] | None:
        """Pots written since a count of writes; None: all of them."""
        return self._of.pots_since(writes)


class Readable(Protocol):
    """A store whose readers keep what they made."""

    @property
    def changed(self) -> Changed | Beside:
        """What was written, and what readers keep."""

    def reading(self) -> AbstractContextManager[Session]:
        """A session that cannot write."""


@dataclass(frozen=True)
class _Kept:
    value: Any
    stamp: object
    marks: Mapping[str, int]

    def holds(self, stamp: object, now: Mapping[str, int]) -> bool:
        """Whether nothing it rests on was written since, as far as a reader that began at ``now`` can see."""
        return self.stamp == stamp and all(n >= now.get(table, 0) for table, n in self.marks.items())


def undisturbed(session: Session) -> Readable | None:
    """The store behind a write that has written nothing yet: what was committed is all there is."""
    store: Readable | None = session.info.get("behind")
    if store is None:
        return None
    session.flush()
    return None if store.changed.touched else store


def _seen_by_write(session: Session, key: str, stamp: object) -> _Kept | None:
    store: Readable | None = session.info.get("behind")
    kept: _Kept | None = None if store is None else store.changed.memory.get(key)
    if store is None or kept is None:
        return None
    session.flush()  # nobody else writes meanwhile: what holds now, and no row of this write bears on, it would read
    touched = store.changed.touched
    bears = bool(touched) and (EVERYTHING in kept.marks or not touched.isdisjoint(kept.marks))
    return kept if not bears and kept.holds(stamp, store.changed.tables) else None


def remembered(
    session: Session, key: str, stamp: object, make: Callable[[Session], T], also_writing: bool = False
) -> T:
    """What ``make`` finds, kept by readers until a table it read is written; ``stamp`` is whatever else it rests on.

    ``make`` is handed a session of its own: what it uses it must read, or it would not be known that it rests on it.
    The marks are taken before that session's snapshot: a value can be newer than its marks, never older.
    A writing session sees its own rows and remembers nothing; what readers keep it may use where ``also_writing``:
    where nobody writes on the rows that are handed out.
    """
    store: Readable | None = session.info.get("store")
    if store is None:
        known = _seen_by_write(session, key, stamp) if also_writing else None
        return make(session) if known is None else known.value
    kept: _Kept | None = store.changed.memory.get(key)
    if kept is None or not kept.holds(stamp, session.info["tables"]):
        with _noted() as read, store.reading() as fresh:
            value = make(fresh)
            marks = {table: fresh.info["tables"].get(table, 0) for table in read}
        kept = store.changed.memory[key] = _Kept(value, stamp, marks)
    rests_on(set(kept.marks))
    found: T = kept.value
    return found
