"""A million rows of an earlier schema brought to this one, and what it costs that a commit waits for the disk."""

from __future__ import annotations

import sqlite3
import tempfile
import time
from contextlib import closing
from pathlib import Path
from statistics import median

from fenwa.store.migrate import KNOWN, to_revision

ROWS = 1_000_000
EARLIER = (KNOWN[0], KNOWN[4], KNOWN[9], KNOWN[-2])
POTS = 5_000
COMMITS = 200


def filled(path: Path, revision: str, rows: int) -> None:
    """An earlier schema with so many pours, every column that must be there filled."""
    to_revision(path, revision)
    with closing(sqlite3.connect(path)) as c:
        c.execute("PRAGMA synchronous=OFF")
        for table, many in (("place", 1), ("pot", POTS), ("pour", rows)):
            columns = c.execute(f"PRAGMA table_info({table})").fetchall()
            needed = [(n, k.upper()) for _, n, k, must, default, key in columns if must and default is None and not key]
            names = ", ".join(["id", *(f'"{n}"' for n, _ in needed)])
            values = ", ".join(["i", *(_value(n, k) for n, k in needed)])
            c.execute(
                f"WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < {many}) "  # noqa: S608
                f"INSERT INTO {table} ({names}) SELECT {values} FROM n"
            )
        c.commit()


def _value(name: str, kind: str) -> str:
    if name == "pot_id":
        return f"1 + i % {POTS}"
    if name == "code":
        return "'P-' || i"
    if kind.startswith("DATE"):
        return "date('2017-01-01', (i % 3600) || ' days')"
    return "1" if kind.startswith(("INT", "DOUBLE", "FLOAT", "BOOL", "NUM")) else "'plain'"


def migrated_s(revision: str, rows: int = ROWS) -> float:
    """How long an opening takes that brings them to this schema. [s]"""
    from fenwa.store.session import Store

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "earlier.sqlite"
        filled(path, revision, rows)
        begun = time.perf_counter()
        Store(path).close()
        return time.perf_counter() - begun


def commit_ms(synchronous: str) -> float:
    """A commit of one row with a full write-ahead log behind it, in the middle. [ms]"""
    with tempfile.TemporaryDirectory() as folder, closing(sqlite3.connect(Path(folder) / "one.sqlite")) as c:
        c.execute("PRAGMA journal_mode=WAL")
        c.execute(f"PRAGMA synchronous={synchronous}")
        c.execute("CREATE TABLE t (x)")
        times = []
        for i in range(COMMITS):
            begun = time.perf_counter()
            c.execute("INSERT INTO t VALUES (?)", (str(i) * 100,))
            c.commit()
            times.append(1000 * (time.perf_counter() - begun))
        return median(times)
