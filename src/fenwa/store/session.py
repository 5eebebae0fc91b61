"""Opening the database: one writer at a time, foreign keys on, write-ahead log."""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from sqlalchemy.orm import Session, sessionmaker

from fenwa.store.engine import make_engine
from fenwa.store.file import APPLICATION_ID, check_ours, close_to_others, make_private
from fenwa.store.giving_way import entry
from fenwa.store.memory import Beside, Changed, Readable, hear_reads
from fenwa.store.migrate import upgrade
from fenwa.store.standing_rows import set_triggers


@dataclass(frozen=True)
class _ComingDay:
    """A store as of a coming day."""

    day: date
    changed: Beside
    open: Callable[[Readable], AbstractContextManager[Session]]

    def reading(self) -> AbstractContextManager[Session]:
        """A session that cannot write, whose readers keep what is of this day."""
        return self.open(self)


class Store:
    """The database of one collection."""

    def __init__(self, path: Path, say: Callable[[str], None] | None = None) -> None:
        """Open the database, and bring it to this schema; ``say`` hears how far that is."""
        check_ours(path)
        make_private(path)
        self.path = path
        self.engine = make_engine(path, writing=True)
        upgrade(path, self.engine, say)
        if self._driver_says("PRAGMA application_id") != APPLICATION_ID:
            self._driver_says(f"PRAGMA application_id={APPLICATION_ID}")
        set_triggers(self.engine)
        close_to_others(path)
        self._reader = make_engine(path, writing=False)
        self._read = sessionmaker(self._reader)
        self._write = sessionmaker(self.engine)
        self._lock = threading.Lock()
        self.changed = Changed()
        self.changed.hear_writes(self.engine)
        hear_reads(self._reader)
        self._coming: _ComingDay | None = None
        self.folding = (0, 0)  # pots whose logs were folded anew since the start, and how many have to be

    def reading(self) -> AbstractContextManager[Session]:
        """A session that cannot write."""
        return self._reading(self)

    @contextmanager
    def _reading(self, kept_by: Readable) -> Iterator[Session]:
        with self._read() as session:
            session.info["store"], session.info["writes"] = kept_by, self.changed.writes
            session.info["tables"] = self.changed.tables
            try:
                yield session
            finally:
                session.expunge_all()  # rows that a cache keeps stay readable
                session.rollback()

    def as_of(self, day: date) -> Readable:
        """This store as its readers see it on a coming day: what they work out of it is kept apart from what is of
        today, for one such day at a time, the one asked for last.
        """
        coming = self._coming
        if coming is None or coming.day != day:
            coming = self._coming = _ComingDay(day, Beside(self.changed), self._reading)
        return coming

    def forget(self) -> None:
        """What readers keep is of a collection that is not here any more."""
        self.changed.memory.clear()
        self._coming = None

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """One transaction: everything inside is stored together or not at all."""
        with self._lock, entry():
            with self._write.begin() as session:
                session.info["behind"] = self
                yield session
                touched, every = session.info.get("touched_pots", set()), session.info.get("touched_all", False)
            self.changed.note(touched, every)

    def replace_with(self, path: Path, kept: str) -> None:
        """Everything here becomes what another database of the same schema holds, in one transaction.

        ``kept``: settings whose key begins so stay as they are here.
        """
        mine = (f"{kept}%",)
        with self._lock:
            with closing(sqlite3.connect(path)) as new, closing(sqlite3.connect(self.path, timeout=30)) as live:
                settings = live.execute("SELECT key, value FROM setting WHERE key LIKE ?", mine).fetchall()
                new.execute("DELETE FROM setting WHERE key LIKE ?", mine)
                new.executemany("INSERT INTO setting (key, value) VALUES (?, ?)", settings)
                new.commit()
                live.execute("PRAGMA synchronous=FULL")
                new.backup(live)
            self.forget()
        self.changed.note(set(), whole=True)

    def carry_over(self) -> None:
        """Bring what was committed from the write-ahead log into the file; readers and writers go on meanwhile."""
        self._driver_says("PRAGMA wal_checkpoint(PASSIVE)")

    def close(self) -> None:
        """Let go of the file, with everything in it and nothing left in the write-ahead log."""
        self._reader.dispose()
        with suppress(sqlite3.Error):  # a full disk or a damaged file: what was committed stays in the log beside it
            self._driver_says("PRAGMA wal_checkpoint(TRUNCATE)")
        self.engine.dispose()

    def _driver_says(self, pragma: str) -> object:
        """What a pragma answers outside any transaction."""
        connection = self.engine.raw_connection()
        try:
            row = connection.cursor().execute(pragma).fetchone()
            return row[0] if row else None
        finally:
            connection.close()


def look_ahead(session: Session, day: date) -> None:
    """From now on what this session's readers keep is of a coming day, apart from what is of today."""
    store: Store = session.info["store"]
    session.info["store"] = store.as_of(day)
