"""Where the data are and when they were last backed up; backups made and restored by hand."""

from __future__ import annotations

import shutil
from datetime import datetime

from fastapi import Request

from fenwa.api.collections import backups_of, store_of
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, now
from fenwa.api.typed import Moment
from fenwa.api.ways import Ways
from fenwa.core.errors import Conflict
from fenwa.store.backup import OLD, SPARE_BYTES, Backup
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.prepare import prepare_store

router = Ways(prefix="/api/backups", tags=["backups"])
WHY = {
    "start": "at a start",
    "daily": "daily",
    "by-hand": "by hand",
    "before-restore": "before a restore",
    "before-import": "before an import",
}


class BackupOut(Model):
    """A backup. ``at``: UTC."""

    name: str
    at: Moment
    age_h: float
    age: str
    why: str
    bytes: int
    schema_: str


class DataOut(Model):
    """Where the data are, how large, and what is kept of them. ``warning``: empty where all is well."""

    database: str
    database_bytes: int
    photos_bytes: int
    folder: str
    free_bytes: int
    backups: list[BackupOut]
    warning: str
    sentence: str


def _aged(hours: float) -> str:
    if hours < 1:
        return "less than an hour ago"
    if hours < 48:
        return f"{hours:.0f} hours ago" if hours >= 1.5 else "an hour ago"
    return f"{hours / 24:.0f} days ago"


def _out(b: Backup, at: datetime) -> BackupOut:
    age_h = max(0.0, (at - b.at).total_seconds() / 3600)
    return BackupOut(
        name=b.name, at=b.at, age_h=age_h, age=_aged(age_h), why=WHY.get(b.why, b.why), bytes=b.bytes, schema_=b.schema
    )


@router.get("")
def list_backups(request: Request) -> DataOut:
    """Where the data are, and every backup, the newest first."""
    kept, at = backups_of(request), now()
    made = kept.listed()
    shown = [_out(b, at) for b in made]
    there = kept.folder if kept.folder.is_dir() else kept.database.parent
    free = shutil.disk_usage(there).free
    warning = kept.problem
    if not warning and not made:
        warning = "There is no backup yet. Make one."
    elif not warning and at - made[0].at > OLD:
        warning = f"The newest backup is {(at - made[0].at).days} days old. Make one."
    elif not warning and free < kept.database.stat().st_size + SPARE_BYTES:
        warning = f"The disk of {kept.folder} is nearly full: the next backup will fail. Free some space."
    return DataOut(
        database=str(kept.database),
        database_bytes=kept.database.stat().st_size,
        photos_bytes=PhotoFolder(kept.database).bytes_used(),
        folder=str(kept.folder),
        free_bytes=free,
        backups=shown,
        warning=warning,
        sentence=f"Last backup {shown[0].age}, read back and whole." if shown else "No backup yet.",
    )


@router.post("")
def make_backup(request: Request, writer: OneWrite) -> BackupOut:
    """Make a backup now; it is read back before it counts."""
    made = backups_of(request).make("by-hand", now())
    return BackupOut(**writer.once(None, lambda _: _out(made, now()).model_dump(mode="json")))


class Restored(Model):
    """What the collection was turned back to, and the backup of what stood before."""

    restored: str
    before: str
    sentence: str


@router.post("/{name}/restore")
def restore_backup(name: str, request: Request) -> Restored:
    """Turn the collection back to a backup. What stands now is kept as a backup first.

    Not kept by submission key: the record of submissions is turned back as well. Restored twice, it is the same.
    """
    kept, store = backups_of(request), store_of(request)
    path = kept.place(name)
    before = kept.restore(store, path, now(), prepare_store)
    prepare_store(store)
    if kept.problem:
        raise Conflict(kept.problem)
    said = "The collection is as it was then. What stood before is a backup of its own: restore that to go back."
    return Restored(restored=name, before=before.name, sentence=said)
