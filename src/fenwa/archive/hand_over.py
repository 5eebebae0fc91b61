"""Plants that go to another grower with their history: out as a file, and in beside what is there, under new keys."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import date, datetime
from functools import partial
from typing import Any
from uuid import uuid4

from sqlalchemy import Table
from sqlalchemy.orm import Session

import fenwa
from fenwa.archive.carry import keep_photos
from fenwa.archive.tables import build, counted_rows, fold_all, read_out
from fenwa.core.care.descent import first_code
from fenwa.core.errors import InputError, Underspecified
from fenwa.formats.data_package import Collection, Sheet
from fenwa.store.backup import Backups
from fenwa.store.models import Base
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.session import Store
from fenwa.store.summary import touch_all

STAYS = {"timer", "pot_summary", "pot_standing", "trial"}  # of this house, or worked out anew
ARRIVALS = "New arrivals"  # a place of its own: what comes in stands apart for a while
Row = dict[str, Any]


def _refers(table: Table) -> dict[str, str]:
    return {c.name: next(iter(c.foreign_keys)).column.table.name for c in table.columns if c.foreign_keys}


def _carried() -> tuple[str, ...]:
    """Tables whose rows hang on a pot, however far, those that are pointed at first."""
    found = ["pot"]
    for table in Base.metadata.sorted_tables:
        if table.name not in found and table.name not in STAYS and set(_refers(table).values()) & set(found):
            found.append(table.name)
    return tuple(t for t in found if t != "reading" and t != "finding" and t != "inbox_entry")


CARRIED = _carried()
MEANT = ("place", "probe", "water", "product", "recipe", "recipe_version", "batch")  # what their rows point at


def _rows(sheet: Sheet) -> list[Row]:
    names = [c.name for c in sheet.columns]
    return [dict(zip(names, row, strict=True)) for row in sheet.rows]


def part_of(sheets: list[Sheet], pot_ids: Iterable[int]) -> list[Sheet]:
    """The rows of some pots, all that hangs on them and all they point at; a pointer out of that is empty."""
    tables = {t.name: t for t in Base.metadata.sorted_tables}
    every = {s.name: _rows(s) for s in sheets}
    kept: dict[str, dict[Any, Row]] = {"pot": {r["id"]: r for r in every["pot"] if r["id"] in set(pot_ids)}}
    for name in CARRIED[1:]:
        refers = {c: t for c, t in _refers(tables[name]).items() if t in CARRIED and t != name}
        # what belongs to a pot or to a part of it; of two pointers the pot's own decides
        owner = next((c for c in refers if refers[c] == "pot"), None)
        mine = {
            r["id"]: r
            for r in every.get(name, ())
            if (r[owner] in kept["pot"] if owner and r[owner] is not None else _held(r, refers, kept))
        }
        kept[name] = mine
    for name in reversed(MEANT):
        asked = {
            r[c]
            for t, rows in kept.items()
            for c, to in _refers(tables[t]).items()
            if to == name
            for r in rows.values()
        }
        if name == "product":
            mixed = [*kept.get("batch", {}).values(), *kept.get("recipe_version", {}).values()]
            asked |= {product for r in mixed for product in _also(r)}
        if name == "water":
            asked |= {w["water_id"] for r in kept.get("batch", {}).values() for w in json.loads(r["waters"] or "[]")}
        kept[name] = {r["id"]: r for r in every.get(name, ()) if r["id"] in asked}
    out = []
    for s in sheets:
        rows = kept.get(s.name, {})
        refers = _refers(tables[s.name])
        if s.name == "correction":
            rows = {r["id"]: r for r in every["correction"] if r["row_id"] in kept.get(r["table_name"], ())}
        plain = []
        for r in rows.values():
            gone = {c for c, to in refers.items() if r[c] is not None and r[c] not in kept.get(to, ())}
            plain.append(tuple(None if c.name in gone else r[c.name] for c in s.columns))
        out.append(Sheet(s.name, s.about, s.columns, s.key, plain))
    return out


def _held(row: Row, refers: dict[str, str], kept: dict[str, dict[Any, Row]]) -> bool:
    return any(row[c] is not None and row[c] in kept.get(to, ()) for c, to in refers.items())


def _also(row: Row) -> list[int]:
    return [part["product_id"] for part in json.loads(row.get("also") or "[]") if part.get("product_id")]


def hand_over(store: Store, pot_ids: list[int], now: datetime) -> Collection:
    """A file of some pots with their history, for another Fenwa.

    Raises
    ------
    Underspecified, InputError
        If none is named, or one is not there.
    """
    if not pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")
    schema, sheets = read_out(store.path)
    there = {r["id"] for s in sheets if s.name == "pot" for r in _rows(s)}
    missing = [i for i in pot_ids if i not in there]
    if missing:
        raise InputError(f"Pot {missing[0]} is not there.", pointer="/pot_ids")
    part = part_of(sheets, pot_ids)
    folder, photos = PhotoFolder(store.path), {}
    for r in next(_rows(s) for s in part if s.name == "photo"):
        if folder.has(r["sha256"], r["media"]):
            photos[folder.file_name(r["sha256"], r["media"])] = partial(_whole, folder, r["sha256"], r["media"])
    return Collection(schema, fenwa.__version__, now.isoformat(timespec="seconds"), part, photos)


def _whole(folder: PhotoFolder, name: str, media: str) -> bytes:
    return folder.read(name, "whole", media)[0]


@dataclass
class Arrived:
    """Pots that came in, under their codes here."""

    codes: list[str] = field(default_factory=list)
    rows: int = 0
    photos: int = 0
    before: str = ""

    @property
    def sentence(self) -> str:
        """What happened, to be shown."""
        pots = f"{len(self.codes)} pots" if len(self.codes) != 1 else "1 pot"
        pictures = f", {self.photos} photos" if self.photos else ""
        return (
            f"{pots} came in: {', '.join(self.codes[:6])}{' ...' if len(self.codes) > 6 else ''}, with "
            f"{counted_rows(self.rows)} of history{pictures}. They stand isolated at {ARRIVALS}."
        )


Once = Callable[[Callable[[Session], dict[str, Any]]], dict[str, Any]]  # a write that happens once for its key


def receive(store: Store, backups: Backups, read: Collection, today: date, now: datetime, once: Once) -> dict[str, Any]:
    """Add the pots of a file beside what is there: new keys, free codes, isolated; all of them, or nothing.

    Waters and cans of the giver come archived: the log speaks of them, no round pours them. A feed of the shipped
    labels is the one that is here.

    Raises
    ------
    DomainError
        If the file holds no pot, or does not fit: nothing is stored.
    """
    half = store.path.with_name(f"{store.path.stem}.import-{uuid4().hex}.sqlite")
    kept: list[tuple[str, str]] = []
    try:
        build(half, read.schema, read.sheets)
        theirs = read_out(half)[1]
        if not any(s.name == "pot" and s.rows for s in theirs):
            raise InputError("The file holds no pot. Choose a file that was handed over.", pointer="/file")
        before = backups.make("before-import", now).name
        keep_photos(store, read, kept)

        def bring(session: Session) -> dict[str, Any]:
            arrived = Arrived(photos=len(kept), before=before)
            c: Any = session.connection().connection.driver_connection
            _Incoming(c, theirs, today, now, arrived).store()
            touch_all(session)
            session.expire_all()
            fold_all(session)
            return {"codes": arrived.codes, "before": before, "sentence": arrived.sentence}

        answer = once(bring)
    except BaseException:
        for name, media in kept:
            PhotoFolder(store.path).forget(name, media)
        raise
    finally:
        for left in half.parent.glob(f"{half.stem}*"):
            left.unlink(missing_ok=True)
    store.forget()
    return answer


class _Incoming:
    """Rows of another house on their way in: each gets a key of this one."""

    def __init__(self, c: sqlite3.Connection, sheets: list[Sheet], today: date, now: datetime, to: Arrived) -> None:
        self.c, self.today, self.now, self.to = c, today, now, to
        self.sheets = {s.name: s for s in sheets}
        self.tables = {t.name: t for t in Base.metadata.sorted_tables}
        self.new: dict[str, dict[Any, Any]] = {}
        self.place = self._arrivals()

    def store(self) -> None:
        """Everything, what is pointed at first."""
        self.c.execute("PRAGMA defer_foreign_keys=ON")
        order = [t.name for t in Base.metadata.sorted_tables if t.name in (*MEANT, *CARRIED)]
        for name in order:
            for row in _rows(self.sheets[name]):
                self._take(name, row)
        for row in _rows(self.sheets["correction"]):
            there = self.new.get(row["table_name"], {}).get(row["row_id"])
            if there is not None:
                self._insert("correction", row | {"row_id": there})

    def _take(self, name: str, row: Row) -> None:
        same = self._same(name, row)
        old = row["id"]
        if same is None:
            own = self._own(name, self._pointed(name, row))
            same = self._insert(name, own)
            if name in CARRIED:
                self.to.rows += 1
        self.new.setdefault(name, {})[old] = same

    def _same(self, name: str, row: Row) -> Any:
        """The row here that means the same; None: it comes in as a new one."""
        if name == "place":
            return self.place
        if name == "product" and row["library_id"]:
            found = self.c.execute("SELECT id FROM product WHERE library_id = ?", (row["library_id"],)).fetchone()
            return found[0] if found else None
        return None

    def _pointed(self, name: str, row: Row) -> Row:
        moved = {c: self.new.get(to, {}).get(row[c]) for c, to in _refers(self.tables[name]).items()}
        for column, key in (("waters", "water_id"), ("also", "product_id")):
            if name in ("batch", "recipe_version") and row.get(column):
                table = key.removesuffix("_id")
                parts = [p | {key: self.new.get(table, {}).get(p.get(key))} for p in json.loads(row[column])]
                moved[column] = json.dumps(parts, ensure_ascii=False)
        return row | moved

    def _own(self, name: str, row: Row) -> Row:
        """What differs here: codes that are free, what is put away, where the pots stand."""
        if name in ("water", "recipe", "probe") and "archived_at" in row:
            row["archived_at"] = row["archived_at"] or self.now.isoformat(sep=" ")
        if name == "product":
            row["owned"] = 0
        if name == "batch":
            row |= {"left_L": 0.0, "left_on": row["made_on"]}
        if name == "pot":
            taken = {code for (code,) in self.c.execute("SELECT code FROM pot WHERE archived_at IS NULL")}
            code = first_code(row["code"], taken)
            last = self.c.execute("SELECT coalesce(max(shelf_order), -1) FROM pot").fetchone()[0]
            row |= {
                "code": code,
                "shelf_order": last + 1,
                "isolated": 1,
                "isolated_since": self.today.isoformat(),
                "water_id": None,
                "spot": "",
            }
            self.to.codes.append(code)
        return row

    def _insert(self, name: str, row: Row) -> int:
        names = [n for n in row if n != "id"]
        quoted, marks = ", ".join(f'"{n}"' for n in names), ", ".join("?" * len(names))
        words = f'INSERT INTO "{name}" ({quoted}) VALUES ({marks})'  # noqa: S608 - columns of our own schema
        return int(self.c.execute(words, [row[n] for n in names]).lastrowid or 0)

    def _arrivals(self) -> int:
        found = self.c.execute("SELECT id FROM place WHERE name = ? AND archived_at IS NULL", (ARRIVALS,)).fetchone()
        if found:
            return int(found[0])
        here = self.c.execute("SELECT hemisphere FROM place WHERE archived_at IS NULL ORDER BY id LIMIT 1").fetchone()
        hemisphere = here[0] if here else "north"
        made = self.c.execute("INSERT INTO place (name, hemisphere, indoors) VALUES (?, ?, 1)", (ARRIVALS, hemisphere))
        return int(made.lastrowid or 0)
