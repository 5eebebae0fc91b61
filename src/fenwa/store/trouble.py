"""What keeps a database from being read or written, in plain words with the way out."""

from __future__ import annotations

import errno
import sqlite3
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy.exc import DBAPIError


@dataclass(frozen=True)
class Trouble:
    """Something outside of Fenwa stands in the way. ``passes``: what was sent can be sent again once it is gone."""

    code: str
    sentence: str
    passes: bool = True


_NOTHING = "Nothing was stored."
_BY_NAME = {
    "SQLITE_FULL": Trouble("disk-full", f"The disk is full. {_NOTHING} Make room on it, then send again."),
    "SQLITE_READONLY": Trouble(
        "read-only",
        f"The database can only be read. {_NOTHING} Give its file and folder back to your account to write, then send "
        "again.",
    ),
    "SQLITE_BUSY": Trouble(
        "locked",
        f"Another program holds the database. {_NOTHING} Close it (a database viewer, a copy that runs), then send "
        "again.",
    ),
    "SQLITE_CORRUPT": Trouble(
        "corrupt",
        "The database file is damaged: part of it cannot be read. Stop Fenwa and take the newest backup: "
        "./fenwa restore FILE. What stands now is kept beside it.",
        passes=False,
    ),
    "SQLITE_IOERR": Trouble(
        "disk", f"The disk does not answer as it should. {_NOTHING} Check the disk and its cable, then send again."
    ),
    "SQLITE_CANTOPEN": Trouble(
        "gone", f"The database file cannot be opened. {_NOTHING} Check that its folder is still there, then send again."
    ),
}
_ALIKE = {"SQLITE_LOCKED": "SQLITE_BUSY", "SQLITE_NOTADB": "SQLITE_CORRUPT", "SQLITE_PERM": "SQLITE_READONLY"}
_BY_ERRNO = {
    errno.ENOSPC: "SQLITE_FULL",
    errno.EDQUOT: "SQLITE_FULL",
    errno.EROFS: "SQLITE_READONLY",
    errno.EACCES: "SQLITE_READONLY",
    errno.EPERM: "SQLITE_READONLY",
    errno.EIO: "SQLITE_IOERR",
    errno.ENOENT: "SQLITE_CANTOPEN",
}


def trouble_of(error: BaseException) -> Trouble | None:
    """What stands in the way, or None where the error is our own."""
    if isinstance(error, DBAPIError) and error.orig is not None:
        error = error.orig
    if isinstance(error, sqlite3.Error):
        name = getattr(error, "sqlite_errorname", "") or ""
        name = next((n for n in (*_BY_NAME, *_ALIKE) if name.startswith(n)), "")
        return _BY_NAME.get(_ALIKE.get(name, name))
    if isinstance(error, OSError) and error.errno in _BY_ERRNO:
        return _BY_NAME[_BY_ERRNO[error.errno]]
    return None


def said_at_start(error: BaseException, path: Path) -> str | None:
    """The same for the terminal, with the file; None where the error is our own."""
    found = trouble_of(error)
    return (
        f"{path}: {found.sentence.replace(f' {_NOTHING}', '').replace('send again', 'start again')}" if found else None
    )
