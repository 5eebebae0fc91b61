"""The database file itself: whose it is, who may read it, and who holds it open."""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing, suppress
from pathlib import Path

from filelock import FileLock, Timeout

from fenwa.core.errors import Conflict

APPLICATION_ID = 0x46454E57  # "FENW", in the header of every database of ours
OUR_TABLES = frozenset({"alembic_version", "pot", "water", "pour", "submission"})  # since the first schema
_HEADER = b"SQLite format 3\x00"
_HEADER_BYTES, _ID_AT = 100, 68
PRIVATE_FILE, PRIVATE_FOLDER = 0o600, 0o700  # the file holds the secret that signs sessions
COMPANIONS = ("", "-wal", "-shm")


def check_ours(path: Path) -> None:
    """Refuse a file that is not a database of Fenwa's, without touching it.

    Raises
    ------
    Conflict
        If the file is no SQLite database, or another program's.
    """
    if not path.exists() or path.stat().st_size == 0:
        return
    if not path.is_file():
        raise Conflict(f"{path.name} is not a file. Name a database file, or leave --database out.")
    with path.open("rb") as file:
        header = file.read(_HEADER_BYTES)
    if not header.startswith(_HEADER):
        raise Conflict(f"{path.name} is not a database of Fenwa’s: it was left as it is. Name another file.")
    owner = int.from_bytes(header[_ID_AT : _ID_AT + 4], "big")
    if owner == APPLICATION_ID:
        return
    tables = _tables(path) if owner == 0 else frozenset()
    if owner != 0 or (tables and not tables >= OUR_TABLES):
        raise Conflict(
            f"{path.name} is another program’s database: it was left as it is. Name another file with --database."
        )


def _tables(path: Path) -> frozenset[str]:
    """Names of the tables, read without making any companion file."""
    log = path.with_name(f"{path.name}-wal")
    way = "mode=ro" if log.exists() else "immutable=1"
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?{way}", uri=True)) as connection:
        try:
            rows = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'").fetchall()
        except sqlite3.DatabaseError as error:
            raise Conflict(f"{path.name} cannot be read as a database ({error}). Name another file.") from error
    return frozenset(name for (name,) in rows)


def make_private(path: Path) -> None:
    """Only the owner reads and writes the file, its companions and a folder made for it."""
    if not path.parent.exists():
        path.parent.mkdir(parents=True, mode=PRIVATE_FOLDER)
    os.close(os.open(path, os.O_CREAT | os.O_RDWR, PRIVATE_FILE))
    close_to_others(path)


def close_to_others(path: Path) -> None:
    """Take the file and its companions from everybody else."""
    for companion in COMPANIONS:
        with suppress(FileNotFoundError):
            path.with_name(path.name + companion).chmod(PRIVATE_FILE)


def hold(path: Path) -> FileLock:
    """Hold the database for one server; let go of when the process ends, however it ends.

    Raises
    ------
    Conflict
        If another server holds it.
    """
    check_ours(path)
    if not path.parent.exists():
        path.parent.mkdir(parents=True, mode=PRIVATE_FOLDER)
    lock = FileLock(path.with_name(f"{path.name}.lock"), timeout=0, mode=PRIVATE_FILE)
    try:
        lock.acquire()
    except Timeout as taken:
        raise Conflict(
            f"Another Fenwa already serves {path.name}. Use that one, stop it first, or name another --database."
        ) from taken
    return lock
