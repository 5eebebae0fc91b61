"""Photos as pages show them, and the folder they lie in."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any

from fastapi import Depends, Request

from fenwa.api.collections import store_of
from fenwa.api.model import Model
from fenwa.core.leaf.photo import PhotoPoint, PhotoScale, RimTaps, photo_scale, tap_error
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.photo_files import PhotoFolder


async def get_folder(request: Request) -> PhotoFolder:
    """The folder of this collection's photos."""
    return PhotoFolder(store_of(request).path)


Folder = Annotated[PhotoFolder, Depends(get_folder)]


class PhotoOut(Model):
    """A photo of a plant. ``scale`` None: nobody has set it. [px, bytes]"""

    id: int
    pot_id: int
    plant_id: int
    look_id: int | None
    on: date
    width_px: int
    height_px: int
    bytes: int
    scale: PhotoScale | None
    rim: RimTaps | None
    note: str


_AS_STORED = ("id", "pot_id", "plant_id", "look_id", "on", "width_px", "height_px", "bytes", "note")


def photo_out(row: models.Photo) -> PhotoOut:
    """A stored photo as a page shows it."""
    taps = rim_of(row.scale)
    return PhotoOut(
        **{
            k: getattr(row, k)
            for k in ("id", "pot_id", "plant_id", "look_id", "on", "width_px", "height_px", "bytes", "note")
        },
        scale=scale_of(row, taps, float((row.scale or {}).get("shown_px", 1000))).result if taps else None,
        rim=taps,
    )


def rim_of(plain: dict[str, Any] | None) -> RimTaps | None:
    """The taps a photo keeps; None: nobody set its scale."""
    if not plain:
        return None
    return RimTaps(PhotoPoint(**plain["first"]), PhotoPoint(**plain["second"]), plain["known_mm"])


def scale_of(row: models.Photo, taps: RimTaps, shown_px: float) -> Computed[PhotoScale]:
    """Scale from taps on the photo as it was shown. [mm/px]"""
    return photo_scale(
        first=taps.first, second=taps.second, known_mm=taps.known_mm, tap_px=tap_error(row.width_px, shown_px)
    )
