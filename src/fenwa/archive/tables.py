"""A whole collection out of the database and into one: everything, all or nothing."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from sqlalchemy import Column as Declared
from sqlalchemy import Table, select
from sqlalchemy.orm import Session

from fenwa.core.errors import Conflict, InputError
from fenwa.formats.data_package import Column, Kind, Sheet
from fenwa.store.collection import stale_summaries
from fenwa.store.migrate import KNOWN, to_revision
from fenwa.store.models import Base
from fenwa.store.session import Store
from fenwa.store.summary import clear_summaries, refresh, touch_all

LEFT_OUT = {
    "submission": "keys of requests that were answered: of this machine",
    "pot_summary": "worked out from the log",
    "pot_standing": "worked out from the log",
}
OWN = "lan."  # settings of who may come in to this machine
SHIPPED = {"product", "place", "setting", *LEFT_OUT}  # have rows in an empty collection
Choice = Literal["refuse", "mine", "theirs"]
State = Literal["new", "same", "conflict"]
KINDS: dict[str, Kind] = {
    "INTEGER": "integer",
    "DOUBLE": "number",
    "BOOLEAN": "boolean",
    "DATE": "date",
    "DATETIME": "datetime",
}


def _kind(column: Declared[Any], values: Sequence[Any]) -> Kind:
    declared = str(column.type)
    if declared != "JSON":
        return KINDS.get(declared, "string")
    shapes = {text.lstrip()[:1] for text in values if text is not None}
    return "object" if shapes == {"{"} else "array" if shapes == {"["} else "any"


def _about(name: str) -> str:
    docs = {m.local_table.name: m.class_.__doc__ for m in Base.registry.mappers if isinstance(m.local_table, Table)}
    return (docs.get(name) or "").strip().split("\n")[0]


def read_out(path: Path) -> tuple[str, list[Sheet]]:
    """Schema and every table of a database, as of one moment, the tables others point at first."""
    with closing(sqlite3.connect(path, isolation_level=None)) as c:
        c.execute("BEGIN")
        schema = str(c.execute("SELECT version_num FROM alembic_version").fetchone()[0])
        return schema, [_table(c, t) for t in Base.metadata.sorted_tables if t.name not in LEFT_OUT]


def _table(c: sqlite3.Connection, table: Table) -> Sheet:
    names = [col.name for col in table.columns]
    key = tuple(col.name for col in table.primary_key)
    quoted, order = ", ".join(f'"{n}"' for n in names), ", ".join(f'"{n}"' for n in key)
    rows = c.execute(f'SELECT {quoted} FROM "{table.name}" ORDER BY {order}').fetchall()  # noqa: S608 - our own names
    if table.name == "setting":
        rows = [r for r in rows if not r[names.index("key")].startswith(OWN)]
    columns = []
    for i, col in enumerate(table.columns):
        refers = next(((f.column.table.name, f.column.name) for f in col.foreign_keys), None)
        columns.append(Column(col.name, _kind(col, [r[i] for r in rows]), refers))
    return Sheet(table.name, _about(table.name), tuple(columns), key, rows)


def build(path: Path, schema: str, sheets: Sequence[Sheet]) -> None:
    """A database of the present schema from tables of an older or the same one.

    Raises
    ------
    Conflict
        If the schema is newer than this Fenwa.
    InputError
        If a table, a column or a row does not fit, with the place.
    """
    if schema not in KNOWN:
        raise Conflict(
            f"The file was made by a newer Fenwa (schema {schema}, this one knows {KNOWN[-1]}). Update Fenwa."
        )
    to_revision(path, schema)  # readable by its owner only
    with closing(sqlite3.connect(path, isolation_level=None)) as c:
        c.execute("PRAGMA foreign_keys=OFF")
        c.execute("BEGIN")
        there = {n for (n,) in c.execute("SELECT name FROM sqlite_master WHERE type = 'table'")} - {"alembic_version"}
        for name in sorted(there):
            c.execute(f'DELETE FROM "{name}"')  # noqa: S608 - the schema's own names; its first rows come with the file
        for sheet in sheets:
            _fill(c, there, sheet)
        broken = c.execute("PRAGMA foreign_key_check").fetchone()
        if broken:
            raise InputError(f"{broken[0]}, row {broken[1]}: points at a row of {broken[2]} that is not in the file.")
        c.execute("COMMIT")
    store = Store(path)
    try:
        _read_through(store)
    finally:
        store.close()


def _read_through(store: Store) -> None:
    """Read every row as the pages would, and fold every log: what breaks here would break a page."""
    with store.writing() as session:
        for mapper in Base.registry.mappers:
            try:
                for _ in session.scalars(select(mapper.class_).execution_options(yield_per=1000)):
                    pass
            except (ValueError, TypeError, LookupError) as error:
                raise _unreadable(mapper.local_table.description, error) from error
        session.expunge_all()
        fold_all(session)


def fold_all(session: Session) -> None:
    clear_summaries(session)
    for pot_id in stale_summaries(session):
        try:
            refresh(session, pot_id)
        except (ValueError, TypeError, LookupError, AttributeError, ArithmeticError) as error:
            raise _unreadable(f"The log of pot {pot_id}", error) from error


def _unreadable(where: str, error: Exception) -> InputError:
    return InputError(
        f"{where}: holds a value that cannot be read ({type(error).__name__}: {error}). Nothing was imported.",
        pointer="/file",
    )


def _fill(c: sqlite3.Connection, there: set[str], sheet: Sheet) -> None:
    name, columns = sheet.name, [x.name for x in sheet.columns]
    if name not in there or name in LEFT_OUT:
        raise InputError(f"{name}: is no table of a collection. Export the file again.", pointer="/file")
    known = {row[1] for row in c.execute(f'PRAGMA table_info("{name}")')}
    unknown = [n for n in columns if n not in known]
    if unknown:
        raise InputError(f"{name}, column {unknown[0]}: is not known. Export the file again.", pointer="/file")
    quoted, marks = ", ".join(f'"{n}"' for n in columns), ", ".join("?" * len(columns))
    for number, row in enumerate(sheet.rows, start=1):
        try:
            c.execute(f'INSERT INTO "{name}" ({quoted}) VALUES ({marks})', row)  # noqa: S608 - checked just above
        except (sqlite3.IntegrityError, sqlite3.InterfaceError, sqlite3.ProgrammingError, OverflowError) as error:
            raise InputError(
                f"{name}, row {number}: does not fit ({error}). Nothing was imported.", pointer="/file"
            ) from error


@dataclass(frozen=True)
class RowBeside:
    """A row of the file beside the collection's own. ``fields``: those that differ, mine and theirs."""

    table: str
    key: str
    words: str
    state: State
    fields: tuple[tuple[str, str, str], ...] = ()


def is_empty(store: Store) -> bool:
    """Whether nothing of the grower's is in it: an import becomes the collection."""
    with closing(sqlite3.connect(store.path)) as c:
        for table in Base.metadata.sorted_tables:
            own = "WHERE library_id IS NULL" if table.name == "product" else ""
            if (table.name == "product" or table.name not in SHIPPED) and c.execute(
                f'SELECT 1 FROM "{table.name}" {own} LIMIT 1'  # noqa: S608 - our own names
            ).fetchone():
                return False
    return True


def beside(mine: Sequence[Sheet], theirs: Sequence[Sheet]) -> list[RowBeside]:
    """Every row of a file, new, the same or in conflict with the row of the same key."""
    own = {t.name: t for t in mine}
    found = []
    for t in theirs:
        names = [c.name for c in t.columns]
        at = [names.index(k) for k in t.key]
        known = {tuple(r[i] for i in at): r for r in own[t.name].rows}
        for row in t.rows:
            key = tuple(row[i] for i in at)
            there = known.get(key)
            state: State = "new" if there is None else "same" if there == row else "conflict"
            fields: tuple[tuple[str, str, str], ...] = ()
            if there is not None and state == "conflict":
                fields = tuple((n, _said(a), _said(b)) for n, a, b in zip(names, there, row, strict=True) if a != b)
            found.append(RowBeside(t.name, " ".join(map(str, key)), _words(names, row), state, fields))
    return found


def _said(plain: Any) -> str:
    return "not known" if plain is None else str(plain)[:80]


def _words(names: Sequence[str], row: Sequence[Any]) -> str:
    told = dict(zip(names, row, strict=True))
    parts = [told.get(n) for n in ("code", "name", "label", "on", "at", "what", "kind", "job")]
    return ", ".join(str(p)[:40] for p in parts if p)[:100]


def counted_rows(n: int) -> str:
    """A count of rows in words."""
    return "1 row" if n == 1 else f"{n} rows"


def check_choice(found: Sequence[RowBeside], choice: Choice) -> None:
    """Refuse rows in conflict for which nothing was chosen.

    Raises
    ------
    Conflict
        With the first of them.
    """
    conflicts = [r for r in found if r.state == "conflict"]
    if conflicts and choice == "refuse":
        are = "is" if len(conflicts) == 1 else "are"
        raise Conflict(
            f"{counted_rows(len(conflicts))} {are} in conflict, the first in {conflicts[0].table}, {conflicts[0].key}. "
            "Choose whether yours or the file’s stay. Nothing was imported."
        )


def merge(store: Store, theirs: Sequence[Sheet], found: Sequence[RowBeside], choice: Choice) -> int:
    """Store what is new, and what is in conflict where the file's rows are chosen; how many rows were written.

    Raises
    ------
    Conflict
        If rows are in conflict and nothing was chosen, or a row does not fit beside the others: nothing is stored.
    """
    check_choice(found, choice)
    wanted = {(r.table, r.key) for r in found if r.state == "new" or (r.state == "conflict" and choice == "theirs")}
    written = 0
    with store.writing() as session:
        c: Any = session.connection().connection.driver_connection
        c.execute("PRAGMA defer_foreign_keys=ON")
        for t in theirs:
            names = [c.name for c in t.columns]
            at = [names.index(k) for k in t.key]
            quoted, marks = ", ".join(f'"{n}"' for n in names), ", ".join("?" * len(names))
            others = ", ".join(f'"{n}" = excluded."{n}"' for n in names if n not in t.key)
            into = ", ".join(f'"{n}"' for n in t.key)
            words = f'INSERT INTO "{t.name}" ({quoted}) VALUES ({marks}) ON CONFLICT ({into}) DO UPDATE SET {others}'  # noqa: S608
            for row in t.rows:
                key = " ".join(str(row[i]) for i in at)
                if (t.name, key) in wanted:
                    try:
                        c.execute(words, row)
                    except sqlite3.IntegrityError as error:
                        raise Conflict(
                            f"{t.name}, {key}: does not fit beside your own ({error}). Nothing was imported."
                        ) from error
                    written += 1
        broken = c.execute("PRAGMA foreign_key_check").fetchone()
        if broken:
            raise Conflict(
                f"{broken[0]}, row {broken[1]}: points at a row of {broken[2]} that is not there. Nothing was imported."
            )
        touch_all(session)
        session.expire_all()
        fold_all(session)
    return written
