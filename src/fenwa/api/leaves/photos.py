"""Photos: taken in, shown, exported. They never leave this machine."""

from __future__ import annotations

import hashlib
import io
import zipfile
from datetime import date
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.files import AS_BODY, Sent
from fenwa.api.leaves.photo_shown import Folder, PhotoOut, photo_out
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row
from fenwa.api.ways import Ways
from fenwa.core.entry import require_not_future
from fenwa.formats.photo import read_photo
from fenwa.formats.table import write_table
from fenwa.store import models
from fenwa.store.photo_files import PhotoFolder, Size
from fenwa.store.photo_rows import all_photos, photos_of
from fenwa.store.pot_rows import plants_with

router = Ways(prefix="/api", tags=["photos"])


class PhotosOut(Model):
    """Photos of a plant, oldest first; the rim of its pot, if it is known. [mm]"""

    rim_mm: float | None
    photos: list[PhotoOut]


class DiskUsed(Model):
    """How many photos there are, and what they take on the disk. [bytes]"""

    photos: int
    bytes: int
    folder: str


class _SentPhoto(Model):
    """What identifies a photo that was sent."""

    sha256: str
    on: date | None


def _keep(folder: PhotoFolder, raw: bytes, pot_id: int, plant_id: int, look_id: int | None, on: date) -> models.Photo:
    clean = read_photo(raw)
    return models.Photo(
        pot_id=pot_id,
        plant_id=plant_id,
        look_id=look_id,
        on=on,
        sha256=folder.keep(clean.data, clean.media, for_list=clean.for_list, for_screen=clean.for_screen),
        media=clean.media,
        width_px=clean.width,
        height_px=clean.height,
        bytes=len(clean.data),
    )


@router.post("/looks/{look_id}/photos", status_code=201, openapi_extra=AS_BODY)
def add_photo_of_look(look_id: int, sent: Sent, folder: Folder, writer: OneWrite) -> PhotoOut:
    """Keep a photo of a look; the body is the file itself, at most 25 MB."""

    def write(session: Session) -> dict[str, Any]:
        look = get_row(session, models.Look, look_id, "Look", pointer="/look_id")
        row = _keep(folder, sent, look.pot_id, look.plant_id, look.id, look.on)
        session.add(row)
        session.flush()
        return photo_out(row).model_dump(mode="json")

    return PhotoOut(**writer.once(_SentPhoto(sha256=hashlib.sha256(sent).hexdigest(), on=None), write))


@router.post("/pots/{pot_id}/photos", status_code=201, openapi_extra=AS_BODY)
def add_photo(
    pot_id: int, on: date, sent: Sent, folder: Folder, writer: OneWrite, today: Today, plant_id: int | None = None
) -> PhotoOut:
    """Keep a photo of a pot's plant without a look; the body is the file itself, at most 25 MB."""
    require_not_future(on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        seen = p.plant.id if plant_id is None else plant_id
        plants_with(session, pot_id, seen)
        row = _keep(folder, sent, pot_id, seen, None, on)
        session.add(row)
        session.flush()
        return photo_out(row).model_dump(mode="json")

    return PhotoOut(**writer.once(_SentPhoto(sha256=hashlib.sha256(sent).hexdigest(), on=on), write))


@router.get("/pots/{pot_id}/photos")
def photos_of_pot(pot_id: int, session: ReadSession, today: Today, plant_id: int | None = None) -> PhotosOut:
    """Photos of a pot's plant, oldest first."""
    p = one_pot(session, pot_id, today)
    seen = p.plant.id if plant_id is None else plant_id
    plants_with(session, pot_id, seen)
    rim = p.pot.top_cm
    return PhotosOut(
        rim_mm=None if rim is None else rim * 10, photos=[photo_out(x) for x in photos_of(session, seen, today)]
    )


@router.get("/photos")
def disk_used(session: ReadSession, folder: Folder) -> DiskUsed:
    """How many photos there are and what they take."""
    return DiskUsed(photos=len(all_photos(session)), bytes=folder.bytes_used(), folder=folder.path.name)


@router.get("/photos.zip", response_class=Response)
def export_photos(session: ReadSession, folder: Folder) -> Response:
    """Every photo with a table of what it shows, as one ZIP file."""
    out = io.BytesIO()
    rows: list[list[Any]] = []
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as packed:  # photos are packed already
        for row in all_photos(session):
            pot = session.get_one(models.Pot, row.pot_id)
            data, media = folder.read(row.sha256, "whole", row.media)
            name = f"{pot.code}-{row.on.isoformat()}-{row.id}.{media.rsplit('/', 1)[-1].replace('jpeg', 'jpg')}"
            packed.writestr(name, data)
            rows.append([name, pot.code, row.on.isoformat(), row.width_px, row.height_px, row.sha256, row.note])
        head = ["file", "pot", "date", "width (px)", "height (px)", "sha256", "note"]
        packed.writestr("photos.csv", write_table(head, rows))
    headers = {"Content-Disposition": 'attachment; filename="photos.zip"'}
    return Response(out.getvalue(), media_type="application/zip", headers=headers)


@router.get("/photos/{photo_id}/{size}", response_class=Response)
def photo_file(photo_id: int, size: Size, session: ReadSession, folder: Folder) -> Response:
    """A photo for a list, for the screen, or whole."""
    row = get_row(session, models.Photo, photo_id, "Photo", pointer="/photo_id")
    data, media = folder.read(row.sha256, size, row.media)
    return Response(data, media_type=media, headers={"Cache-Control": "private, max-age=31536000, immutable"})
