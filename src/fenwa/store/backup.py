"""Copies of the collection: made while the server runs, read back, thinned by age, restored in one transaction."""

from __future__ import annotations

import errno
import hashlib
import os
import re
import shutil
import sqlite3
import threading
import time
from collections.abc import Callable, Sequence
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from uuid import uuid4

from fenwa.core.errors import Conflict, NotFound
from fenwa.store.file import PRIVATE_FOLDER, check_ours, make_private
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.session import Store

KEPT_ALL, KEPT_DAYS, KEPT_WEEKS, KEPT_MONTHS = 3, 7, 4, 12
OLD = timedelta(days=2)  # the newest older than this is warned of
DAILY = timedelta(hours=24)
SPARE_BYTES = 50_000_000  # what the disk keeps free beside a copy
HALF_IS_LOST_s = 3600  # half a copy older than this was left by a machine that stopped
OWN = "lan."  # settings of who may come in: not turned back by a restore
_NAME = re.compile(r"fenwa-(\d{8}T\d{6})Z-([a-z-]+)\.sqlite")
_FULL = "The disk of {folder} is full: no backup was made. Free some space, or name another folder with --backups."


@dataclass(frozen=True)
class Backup:
    """A copy: when it was made (UTC) and why, its size and schema."""

    name: str
    at: datetime
    why: str
    bytes: int
    schema: str


def to_keep(made: Sequence[datetime]) -> set[datetime]:
    """The newest three, and the newest of each of seven days, four weeks and twelve months that have one."""
    newest = sorted(made, reverse=True)
    kept = set(newest[:KEPT_ALL])
    for most, name in ((KEPT_DAYS, "%Y-%m-%d"), (KEPT_WEEKS, "%G-%V"), (KEPT_MONTHS, "%Y-%m")):
        first: dict[str, datetime] = {}
        for at in newest:
            first.setdefault(at.strftime(name), at)
        kept |= set(list(first.values())[:most])
    return kept


def check_whole(path: Path) -> dict[str, int]:
    """Read a database through; its rows by table.

    Raises
    ------
    Conflict
        If it is another program's, damaged, or holds rows whose parent is missing.
    """
    check_ours(path)
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as c:
            said = c.execute("PRAGMA integrity_check(1)").fetchone()[0]
            if said == "ok" and (lost := len(c.execute("PRAGMA foreign_key_check").fetchall())):
                said = f"{lost} rows without their parent"
            rows = counted(c) if said == "ok" else {}
    except sqlite3.DatabaseError as error:
        said = str(error)
    if said != "ok":
        raise Conflict(f"{path.name} is damaged ({said}). Choose another backup; nothing was changed.")
    if "alembic_version" not in rows:
        raise Conflict(f"{path.name} holds no collection. Choose another file; nothing was changed.")
    return rows


def counted(connection: sqlite3.Connection) -> dict[str, int]:
    """Rows of each table."""
    names = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    return {
        n: connection.execute(f'SELECT count(*) FROM "{n}"').fetchone()[0]  # noqa: S608 - the database's own names
        for (n,) in names.fetchall()
    }


def _schema(path: Path) -> str:
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as c:
        return str(c.execute("SELECT version_num FROM alembic_version").fetchone()[0])


def _flush(path: Path) -> None:
    """Down to the disk: a file, or a folder with the names in it."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


class Backups:
    """The copies of one collection, in a folder of their own; only its owner reads it."""

    def __init__(self, database: Path, folder: Path | None = None) -> None:
        self.database = database
        self.folder = folder or database.with_suffix(".backups")
        self.problem = ""  # why the last one could not be made
        self._unreadable: list[str] = []
        self._one = threading.Lock()

    def listed(self) -> list[Backup]:
        """Every copy, the newest first."""
        found = []
        for path in self.folder.glob("fenwa-*.sqlite") if self.folder.is_dir() else ():
            if named := _NAME.fullmatch(path.name):
                at = datetime.strptime(named[1], "%Y%m%dT%H%M%S")
                with suppress(sqlite3.DatabaseError, FileNotFoundError):
                    found.append(Backup(path.name, at, named[2], path.stat().st_size, _schema(path)))
        return sorted(found, key=lambda b: (b.at, b.why), reverse=True)

    def place(self, name: str) -> Path:
        """Where a copy lies.

        Raises
        ------
        NotFound
            If there is none of that name.
        """
        path = self.folder / name
        if not _NAME.fullmatch(name) or not path.is_file():
            raise NotFound(f"Backup {name} is not there. Reload the page: it may have been thinned out.")
        return path

    def make(self, why: str, now: datetime) -> Backup:
        """Copy what is committed, read the copy back, name it, and thin out older ones. Others may write meanwhile.

        Raises
        ------
        Conflict
            If the disk is full, the folder cannot be written, or the copy does not read back as it was.
        """
        with self._one:
            try:
                made = self._make(why, now)
            except (OSError, sqlite3.Error) as error:
                self.problem = self._sentence(error)
                raise Conflict(self.problem) from error
            except Conflict as error:
                self.problem = error.detail
                raise
            self.problem = ""
            if self._unreadable:
                named = ", ".join(self._unreadable[:3])
                self.problem = f"The backup holds everything but {len(self._unreadable)} damaged photos: {named}."
            return made

    def _make(self, why: str, now: datetime) -> Backup:
        self.folder.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
        self._sweep()
        if shutil.disk_usage(self.folder).free < self.database.stat().st_size + SPARE_BYTES:
            raise OSError(errno.ENOSPC, "no space left")
        path = self.folder / f"fenwa-{now:%Y%m%dT%H%M%S}Z-{why}.sqlite"
        half = path.with_name(f"{path.name}.{os.getpid()}.half")
        try:
            rows = copy_of(self.database, half)
            if check_whole(half) != rows:
                raise Conflict("The backup does not read back as the collection is: it was not kept. Check the disk.")
            self._keep_photos(half)
            half.replace(path)
        finally:
            half.unlink(missing_ok=True)
        _flush(self.folder)
        self._thin()
        return Backup(path.name, now, why, path.stat().st_size, _schema(path))

    def _sentence(self, error: Exception) -> str:
        full = getattr(error, "errno", None) in (errno.ENOSPC, errno.EDQUOT) or "is full" in str(error)
        if full:
            return _FULL.format(folder=self.folder)
        return f"No backup was made in {self.folder}: {error}. Name a folder that can be written to with --backups."

    def _sweep(self) -> None:
        for half in self.folder.rglob("*.half*"):
            with suppress(FileNotFoundError):
                if time.time() - half.stat().st_mtime > HALF_IS_LOST_s:
                    half.unlink()

    def _photos(self) -> Path:
        return self.folder / "photos"

    def _keep_photos(self, copy: Path) -> None:
        """Photos of a copy, each once for all copies, checked against the hash in its name."""
        self._unreadable = copy_photos(photo_names(copy), PhotoFolder(self.database).path, self._photos())

    def _thin(self) -> None:
        made = self.listed()
        kept = to_keep([b.at for b in made])
        for b in made:
            if b.at not in kept:
                (self.folder / b.name).unlink(missing_ok=True)
        wanted = {n for b in self.listed() for n in photo_names(self.folder / b.name)}
        for file in self._photos().rglob("*") if self._photos().is_dir() else ():
            if file.is_file() and file.name.split(".")[0] not in wanted:
                file.unlink(missing_ok=True)

    def restore(
        self, store: Store, path: Path, now: datetime, ready: Callable[[Store], None] = lambda _: None
    ) -> Backup:
        """Turn the collection back to a copy, in one transaction; what stands now is kept as a backup first.

        An older schema is brought to the present one on a copy of the copy. Who may come in stays as it is. Killed at
        any moment, the collection is the old one or the new one. ``ready``: what a store needs before it is
        served, done on the copy: what breaks there never reaches the collection.

        Raises
        ------
        Conflict
            If the file is damaged, another program's, made by a newer Fenwa, or holds what cannot be read: nothing
            was changed.
        """
        check_whole(path)
        self.folder.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
        self._sweep()
        half = self.folder / f"restore.{uuid4().hex}.half.sqlite"
        try:
            copy_of(path, half)
            _make_ready(half, path.name, ready)
            kept = self.make("before-restore", now)
            copy_photos(photo_names(half), path.parent / "photos", PhotoFolder(self.database).path)
            store.replace_with(half, OWN)
        finally:
            for left in self.folder.glob(f"{half.stem}*"):
                left.unlink(missing_ok=True)
        return kept


def _make_ready(half: Path, name: str, ready: Callable[[Store], None]) -> None:
    own = Store(half)  # to the present schema
    try:
        ready(own)
    except (ValueError, TypeError, LookupError, AttributeError, ArithmeticError) as error:
        told = f"{type(error).__name__}: {error}"
        raise Conflict(
            f"{name} holds a value that cannot be read ({told}). Choose another; nothing changed."
        ) from error
    finally:
        own.close()


def copy_of(source: Path, to: Path) -> dict[str, int]:
    """Copy all that is committed into a new file; its rows by table, counted at the same moment."""
    to.unlink(missing_ok=True)
    make_private(to)
    with closing(sqlite3.connect(source, timeout=10, isolation_level=None)) as old, closing(sqlite3.connect(to)) as new:
        old.execute("BEGIN")
        rows = counted(old)
        old.backup(new)
        new.execute("PRAGMA journal_mode=DELETE")  # one file, without companions
    _flush(to)
    return rows


def photo_names(path: Path) -> list[str]:
    """Hashes of the photos a database speaks of; none in a schema before photos."""
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as c:
        there = c.execute("SELECT 1 FROM sqlite_master WHERE name = 'photo'").fetchone()
        return sorted({str(n) for (n,) in c.execute("SELECT sha256 FROM photo")}) if there else []


def copy_photos(names: Sequence[str], source: Path, to: Path) -> list[str]:
    """Files of photos in all their sizes, those that are not there yet; names of those that are damaged."""
    damaged = []
    for name in names:
        for file in sorted((source / name[:2]).glob(f"{name}.*")):
            if not file.name.endswith(".half") and not _copy_photo(file, to / name[:2] / file.name):
                damaged.append(file.name)
    return damaged


def _copy_photo(source: Path, to: Path) -> bool:
    """Whether its content is what its name says; half a file never stands under its name."""
    if to.exists():
        return True
    data = source.read_bytes()
    name, _, kind = source.name.partition(".")
    if "." not in kind and hashlib.sha256(data).hexdigest() != name:  # a small size has a kind of two parts
        return False
    to.parent.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
    half = to.with_name(f"{to.name}.{os.getpid()}.half")
    make_private(half)
    half.write_bytes(data)
    _flush(half)
    half.replace(to)
    return True
