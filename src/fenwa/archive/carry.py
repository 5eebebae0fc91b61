"""Export and import of a whole collection, for the page and the command line alike."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from functools import partial
from pathlib import Path
from typing import IO
from uuid import uuid4

import fenwa
from fenwa.archive.tables import (
    OWN,
    Choice,
    RowBeside,
    beside,
    build,
    check_choice,
    counted_rows,
    is_empty,
    merge,
    read_out,
)
from fenwa.core.errors import DomainError
from fenwa.formats.data_package import Collection, Sheet, read_json, read_package, write_json, write_package
from fenwa.formats.photo import read_photo
from fenwa.store.backup import Backups
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store

MOST_CONFLICTS_SHOWN = 200


@dataclass(frozen=True)
class Preview:
    """What an import would do: rows by state and table, conflicts row by row, photos that would come."""

    becomes: bool  # the collection is empty: the file becomes it
    counts: dict[str, dict[str, int]]
    conflicts: tuple[RowBeside, ...]
    photos_new: int
    photos_missing: int
    sentence: str

    @property
    def anything(self) -> bool:
        """Whether it would store a row or a photo."""
        return self.becomes or self.photos_new > 0 or any(n["new"] or n["conflict"] for n in self.counts.values())


def collection_of(store: Store, now: datetime) -> Collection:
    """Everything, as of this moment."""
    schema, sheets = read_out(store.path)
    folder = PhotoFolder(store.path)
    photos = {}
    for name, media in _photos(sheets).items():
        if folder.has(name, media):  # a file that is gone is named by its row all the same
            photos[folder.file_name(name, media)] = partial(_whole, folder, name, media)
    return Collection(schema, fenwa.__version__, now.isoformat(timespec="seconds"), sheets, photos)


def _whole(folder: PhotoFolder, name: str, media: str) -> bytes:
    return folder.read(name, "whole", media)[0]


def _photos(sheets: list[Sheet]) -> dict[str, str]:
    """Hash and media type of every photo the tables speak of."""
    for s in sheets:
        if s.name == "photo":
            names = [c.name for c in s.columns]
            at, kind = names.index("sha256"), names.index("media")
            return {str(r[at]): str(r[kind]) for r in s.rows}
    return {}


def export_package(store: Store, out: IO[bytes], now: datetime) -> None:
    """The zip."""
    write_package(collection_of(store, now), out)


def export_json(store: Store, now: datetime) -> str:
    """The tables as one JSON."""
    return write_json(collection_of(store, now))


def read_file(file: IO[bytes] | Path) -> Collection:
    """A collection from a zip or a JSON, told apart by its first bytes."""
    if isinstance(file, Path):
        with file.open("rb") as opened:
            head = opened.read(1)
        return read_json(file.read_bytes()) if head == b"{" else read_package(file)
    head = file.read(1)
    file.seek(0)
    return read_json(file.read()) if head == b"{" else read_package(file)


def _laid_out(store: Store, read: Collection, then: Callable[[Path], None]) -> None:
    """A database of the file beside the collection's own, while ``then`` looks at it."""
    half = store.path.with_name(f"{store.path.stem}.import-{uuid4().hex}.sqlite")
    try:
        build(half, read.schema, read.sheets)
        then(half)
    finally:
        for left in half.parent.glob(f"{half.stem}*"):
            left.unlink(missing_ok=True)


def preview(store: Store, read: Collection) -> Preview:
    """What an import would do; nothing is stored.

    Raises
    ------
    DomainError
        If a row of the file does not fit its schema, or the file is of a newer Fenwa.
    """
    seen: list[list[RowBeside]] = []

    def look(half: Path) -> None:
        seen.append(beside(read_out(store.path)[1], read_out(half)[1]))

    _laid_out(store, read, look)
    rows, empty = seen[0], is_empty(store)
    counts: dict[str, dict[str, int]] = {}
    for r in rows:
        counts.setdefault(r.table, {"new": 0, "same": 0, "conflict": 0})[r.state] += 1
    conflicts = [r for r in rows if r.state == "conflict"]
    named, folder = _photos(read.sheets), PhotoFolder(store.path)
    missing = sum(folder.file_name(n, m) not in read.photos and not folder.has(n, m) for n, m in named.items())
    new = sum(folder.file_name(n, m) in read.photos and not folder.has(n, m) for n, m in named.items())
    return Preview(
        empty, counts, tuple(conflicts[:MOST_CONFLICTS_SHOWN]), new, missing, _sentence(rows, empty, len(conflicts))
    )


def _sentence(rows: list[RowBeside], empty: bool, conflicts: int) -> str:
    n = Counter(r.state for r in rows)
    if empty:
        return f"This collection is empty: the file becomes it, {counted_rows(len(rows))}."
    if not conflicts:
        return f"{n['new']} rows are new, {n['same']} are here already. None is in conflict."
    told = f"{n['new']} rows are new, {n['same']} are here already, {conflicts} are in conflict."
    if conflicts > n["same"]:
        told += " This looks like another collection: import it into an empty one."
    return told


@dataclass(frozen=True)
class Taken:
    """What an import did."""

    written: int
    photos: int
    before: str
    sentence: str


def take(store: Store, backups: Backups, read: Collection, choice: Choice, now: datetime) -> Taken:
    """Import all or nothing; what stands now is backed up first. An empty collection becomes the file's.

    Raises
    ------
    DomainError
        If the file does not fit, or rows are in conflict and nothing was chosen: nothing is stored.
    """
    done: list[Taken] = []

    def pour_in(half: Path) -> None:
        theirs = read_out(half)[1]
        found = beside(read_out(store.path)[1], theirs)
        empty = is_empty(store)
        if not empty:
            check_choice(found, choice)
        before = backups.make("before-import", now).name  # of what is changed only: a refused file thins none out
        kept: list[tuple[str, str]] = []
        try:
            keep_photos(store, read, kept)
            if empty:
                written = sum(len(s.rows) for s in theirs)
                store.replace_with(half, OWN)
            else:
                written = merge(store, theirs, found, choice)
        except BaseException:
            for name, media in kept:
                PhotoFolder(store.path).forget(name, media)
            raise
        pictures = f", {len(kept)} photos" if kept else ""
        said = f"{counted_rows(written)} imported{pictures}. What stood before is a backup."
        done.append(Taken(written, len(kept), before, said))

    _laid_out(store, read, pour_in)
    prepare_store(store)
    store.forget()
    return done[0]


def keep_photos(store: Store, read: Collection, kept: list[tuple[str, str]]) -> None:
    """Files come before the rows that speak of them; ``kept`` names those that were not there before."""
    folder = PhotoFolder(store.path)
    for name, media in _photos(read.sheets).items():
        reader = read.photos.get(folder.file_name(name, media))
        if reader is None or folder.has(name, media):
            continue
        data = reader()
        try:
            small = read_photo(data)
        except DomainError as error:
            error.detail = f"photos/{folder.file_name(name, media)}: {error.detail}"
            raise
        kept.append((name, media))
        folder.put(name, media, data, for_list=small.for_list, for_screen=small.for_screen)
