"""The whole collection out as one file, and in again."""

from __future__ import annotations

import io
import os
import tempfile
from pathlib import Path
from typing import Literal

from fastapi import Request, Response
from fastapi.responses import FileResponse
from starlette.background import BackgroundTask

from fenwa.api.collections import backups_of, store_of
from fenwa.api.files import AS_BODY, Sent
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, Today, now
from fenwa.api.ways import Ways
from fenwa.archive import carry
from fenwa.archive import hand_over as over
from fenwa.formats.data_package import write_package

router = Ways(prefix="/api", tags=["archive"])
ZIP = "application/zip"


class FieldBeside(Model):
    """A field that differs."""

    name: str
    mine: str
    theirs: str


class RowOut(Model):
    """A row in conflict."""

    table: str
    key: str
    words: str
    fields: list[FieldBeside]


class TableCount(Model):
    """Rows of a table by what they are beside the collection's own."""

    table: str
    new: int
    same: int
    conflict: int


class ImportPreview(Model):
    """What an import would do. ``anything``: whether it would store a row or a photo."""

    becomes: bool
    tables: list[TableCount]
    conflicts: list[RowOut]
    photos_new: int
    photos_missing: int
    anything: bool
    sentence: str


class ImportDone(Model):
    """What an import did. ``before``: the backup of what stood."""

    written: int
    photos: int
    before: str
    sentence: str


@router.get("/archive.zip", response_class=Response)
def export_zip(request: Request, today: Today) -> FileResponse:
    """Everything as a zip: a Frictionless data package with photos."""
    store = store_of(request)
    handle, name = tempfile.mkstemp(suffix=".zip", prefix="export.", dir=store.path.parent)  # its owner's alone
    try:
        with os.fdopen(handle, "wb") as out:
            carry.export_package(store, out, now())
    except BaseException:
        Path(name).unlink(missing_ok=True)
        raise
    return FileResponse(
        name,
        media_type=ZIP,
        filename=f"fenwa-collection-{today.isoformat()}.zip",
        background=BackgroundTask(Path(name).unlink, missing_ok=True),
    )


@router.get("/archive/pots.zip", response_class=Response)
def hand_over(request: Request, today: Today, pot_ids: str) -> Response:
    """Some pots with their history, for another Fenwa. ``pot_ids``: their ids, with commas between."""
    ids = [int(i) if i.isdecimal() and len(i) < 10 else 0 for i in pot_ids.split(",") if i.strip()]
    out = io.BytesIO()
    write_package(over.hand_over(store_of(request), ids, now()), out)
    name = f"fenwa-plants-{today.isoformat()}.zip"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(out.getvalue(), media_type=ZIP, headers=headers)


class PotsCame(Model):
    """Pots that came in. ``before``: the backup of what stood."""

    codes: list[str]
    before: str
    sentence: str


@router.post("/archive/pots", openapi_extra=AS_BODY)
def receive_pots(data: Sent, request: Request, writer: OneWrite, today: Today) -> PotsCame:
    """Add the pots of a file that was handed over, beside what is here; once for each submission key."""
    store, backups = store_of(request), backups_of(request)
    read = carry.read_file(io.BytesIO(data))
    return PotsCame(**over.receive(store, backups, read, today, now(), lambda write: writer.once(None, write)))


@router.get("/archive.json", response_class=Response)
def export_json(request: Request, today: Today) -> Response:
    """The tables as one JSON; photos by name only."""
    name = f"fenwa-collection-{today.isoformat()}.json"
    return Response(
        carry.export_json(store_of(request), now()),
        media_type="application/json",
        headers={"Content-Disposition": f'attachment; filename="{name}"'},
    )


@router.post("/archive/preview", openapi_extra=AS_BODY)
def preview_import(data: Sent, request: Request) -> ImportPreview:
    """What a file would bring; nothing is stored."""
    seen = carry.preview(store_of(request), carry.read_file(io.BytesIO(data)))
    return ImportPreview(
        becomes=seen.becomes,
        tables=[TableCount(table=t, **n) for t, n in seen.counts.items()],
        conflicts=[
            RowOut(
                table=r.table,
                key=r.key,
                words=r.words,
                fields=[FieldBeside(name=n, mine=a, theirs=b) for n, a, b in r.fields],
            )
            for r in seen.conflicts
        ],
        photos_new=seen.photos_new,
        photos_missing=seen.photos_missing,
        anything=seen.anything,
        sentence=seen.sentence,
    )


@router.post("/archive/import", openapi_extra=AS_BODY)
def import_archive(
    data: Sent, request: Request, conflicts: Literal["refuse", "mine", "theirs"] = "refuse"
) -> ImportDone:
    """Import all or nothing; what stands now is backed up first.

    Not kept by submission key: an import may replace the record of submissions. Imported twice, it is the same.
    """
    taken = carry.take(store_of(request), backups_of(request), carry.read_file(io.BytesIO(data)), conflicts, now())
    return ImportDone(written=taken.written, photos=taken.photos, before=taken.before, sentence=taken.sentence)
