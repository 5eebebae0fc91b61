"""What a look sees, in the shape both ways of it take."""

from __future__ import annotations

from datetime import date
from typing import Any

from fenwa.api.model import Model
from fenwa.api.typed import TypedOrNone
from fenwa.core.leaf.asked import Precision
from fenwa.core.leaf.marks import Mark, MarkCause, MarkPlace, Texture
from fenwa.core.leaf.organs import Organ, Told


def as_object(value: Any) -> Any:
    """A mark may be told by its word alone."""
    return {"kind": value} if isinstance(value, str) else value


class MarkSeen(Model):
    """A mark: where, how it feels, how large, since when. Empty: not told. ``old``: a scar from before."""

    kind: Mark
    leaf_id: int | None = None
    on_new: bool = False  # on the leaf this look begins
    place: MarkPlace = "unknown"
    texture: Texture = ""
    mm: TypedOrNone = None
    share_pct: TypedOrNone = None
    since: date | None = None
    since_precision: Precision = "day"
    old: bool = False
    cause: MarkCause = ""


class OrganSeen(Model):
    """Root tips, pitchers, dew, flowers, bulbs. Empty: not counted."""

    organ: Organ
    told: Told = "seen"
    count: TypedOrNone = None
    of: TypedOrNone = None
    mm: TypedOrNone = None
    percent: TypedOrNone = None
    lost: TypedOrNone = None
    words: dict[str, str] = {}
