"""Engines on database files: the pragmas every connection needs, and statements compiled once for all of them."""

from __future__ import annotations

import sqlite3
from functools import cache
from pathlib import Path
from typing import Any

from pydantic_core import from_json, to_json
from sqlalchemy import Dialect, Engine, create_engine, event, make_url
from sqlalchemy.pool import QueuePool
from sqlalchemy.util import LRUCache

CARRIED_AT_pages = 8_000  # 32 MB of write-ahead log, where no quiet moment came before (SQLite's own: 1,000)

# An engine keeps what it compiled to itself. Readers, the writer and a second collection, as while looking around, ask
# the same questions: to compile them for each took longer than to answer them.
_COMPILED: LRUCache[Any, Any] = LRUCache(1_500)


@cache
def _dialect() -> Dialect:
    """How SQLite is spoken to; statements are kept by the dialect that compiled them, so all engines have this one."""
    engine = create_engine(
        "sqlite://",
        json_serializer=lambda value: to_json(value).decode(),  # histories are long: five times as fast as json
        json_deserializer=from_json,
    )
    with engine.connect():  # by which the dialect learns what this SQLite can
        pass
    engine.dispose()
    return engine.dialect


def make_engine(path: Path, writing: bool) -> Engine:
    """Engine on a database file with the pragmas every connection needs; a reading one cannot write."""

    def connect() -> Any:
        connection = sqlite3.connect(path, check_same_thread=False)
        connection.isolation_level = None  # we say BEGIN ourselves, so that reads and writes can differ
        try:
            for pragma in (
                "foreign_keys=ON",
                "journal_mode=WAL",
                "busy_timeout=5000",
                "synchronous=FULL",
                f"wal_autocheckpoint={CARRIED_AT_pages}",
                f"query_only={'OFF' if writing else 'ON'}",
            ):
                connection.execute(f"PRAGMA {pragma}").close()
        except sqlite3.Error:  # locked or damaged
            connection.close()
            raise
        return connection

    # a reader that makes a value reads it by another connection: to wait for one would be a knot
    pool = QueuePool(connect, max_overflow=-1, dialect=_dialect())
    at = make_url("sqlite://").set(database=str(path))
    engine = Engine(pool, _dialect(), at, execution_options={"compiled_cache": _COMPILED})

    @event.listens_for(engine, "begin")
    def _begin(connection: Any) -> None:
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")

    return engine
