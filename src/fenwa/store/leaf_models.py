"""Tables of what plants answer: looks, leaves with their lengths and marks, other organs, photos, series of jobs."""

from __future__ import annotations

from datetime import date
from typing import Any

from sqlalchemy import ForeignKey, Index
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.store.base import Archivable, Base


class Leaf(Archivable, Base):
    """A leaf, root, spike or pitcher; the response attaches here. ``number``: in order on its growth, from 1."""

    __tablename__ = "leaf"
    growth_id: Mapped[int] = mapped_column(ForeignKey("growth.id"), index=True)
    organ: Mapped[str] = mapped_column(default="leaf")
    opened_on: Mapped[date]
    opened_precision: Mapped[str] = mapped_column(default="day")
    number: Mapped[int | None]
    lost_on: Mapped[date | None]
    lost_precision: Mapped[str] = mapped_column(default="day", server_default="day")
    lost_why: Mapped[str] = mapped_column(default="", server_default="")
    note: Mapped[str] = mapped_column(default="", server_default="")


class LeafLengthRow(Archivable, Base):
    """A length of any leaf beside the newest at a look: by ruler, or from a photo with its 80 % range."""

    __tablename__ = "leaf_length"
    leaf_id: Mapped[int] = mapped_column(ForeignKey("leaf.id"), index=True)
    photo_id: Mapped[int | None] = mapped_column(ForeignKey("photo.id"))
    on: Mapped[date]
    mm: Mapped[float]
    low_mm: Mapped[float | None]
    high_mm: Mapped[float | None]
    growing: Mapped[bool | None]
    origin: Mapped[str] = mapped_column(default="ruler", server_default="ruler")
    working: Mapped[dict[str, Any] | None]
    points: Mapped[list[Any] | None]  # tapped along the midrib [px]


class Look(Archivable, Base):
    """A look at a plant: counts, the newest leaf, marks. ``marks``: kinds that count, as their rows tell them.

    ``gained``, ``lost``: leaves since the look before. ``posture``: 0 stiff to 3 flaccid, at ``hour``. ``pests``:
    counted on a white card. ``as_last``: what was not touched is as at the look before.
    """

    __tablename__ = "look"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    plant_id: Mapped[int] = mapped_column(ForeignKey("plant.id"))
    leaf_id: Mapped[int | None] = mapped_column(ForeignKey("leaf.id"))
    on: Mapped[date]
    leaves_count: Mapped[int | None]
    newest_leaf_mm: Mapped[float | None]
    leaf_growing: Mapped[bool | None]  # None: not said
    new_leaf: Mapped[bool] = mapped_column(default=False)
    new_growth: Mapped[bool] = mapped_column(default=False, server_default="0")
    growth_stopped: Mapped[bool] = mapped_column(default=False, server_default="0")
    spike: Mapped[bool] = mapped_column(default=False, server_default="0")
    root_cm: Mapped[float | None]
    roots_working: Mapped[bool | None]
    growth_id: Mapped[int | None] = mapped_column(ForeignKey("growth.id", name="fk_look_growth_id_growth"))
    growth_cm: Mapped[float | None]
    roots_cm: Mapped[list[Any] | None]
    marks: Mapped[list[str]] = mapped_column(default=list)
    marks_looked_for: Mapped[bool] = mapped_column(default=True)
    unknown: Mapped[list[str]] = mapped_column(default=list)
    note: Mapped[str] = mapped_column(default="")
    gained: Mapped[int | None]
    lost: Mapped[int | None]
    lost_why: Mapped[str] = mapped_column(default="", server_default="")
    posture: Mapped[int | None]
    hour: Mapped[int | None]
    pests: Mapped[int | None]
    surface: Mapped[str] = mapped_column(default="", server_default="")
    as_last: Mapped[bool] = mapped_column(default=False, server_default="0")
    by: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (Index("ix_look_pot_on", "pot_id", "on"), Index("ix_look_plant_on", "plant_id", "on"))


class MarkRow(Archivable, Base):
    """A mark as one look saw it; it comes and goes with its look. ``old``: a scar from before, which never counts."""

    __tablename__ = "mark"
    look_id: Mapped[int] = mapped_column(ForeignKey("look.id"), index=True)
    leaf_id: Mapped[int | None] = mapped_column(ForeignKey("leaf.id"))
    kind: Mapped[str]
    place: Mapped[str] = mapped_column(default="unknown", server_default="unknown")
    texture: Mapped[str] = mapped_column(default="", server_default="")
    mm: Mapped[float | None]
    share_pct: Mapped[float | None]
    since: Mapped[date | None]
    since_precision: Mapped[str] = mapped_column(default="day", server_default="day")
    old: Mapped[bool] = mapped_column(default=False, server_default="0")
    cause: Mapped[str] = mapped_column(default="", server_default="")
    photo_id: Mapped[int | None] = mapped_column(ForeignKey("photo.id"))
    outline: Mapped[list[Any] | None]  # traced around the blade [px]


class OrganRow(Archivable, Base):
    """Root tips, pitchers, dew, flowers or bulbs as one look saw them. NULL: not counted."""

    __tablename__ = "organ"
    look_id: Mapped[int] = mapped_column(ForeignKey("look.id"), index=True)
    organ: Mapped[str]
    told: Mapped[str] = mapped_column(default="seen", server_default="seen")
    count: Mapped[float | None]
    of: Mapped[float | None]
    mm: Mapped[float | None]
    percent: Mapped[float | None]
    lost: Mapped[float | None]
    words: Mapped[dict[str, Any] | None]


class Photo(Archivable, Base):
    """A photo: its file is named by the hash of its content. ``scale``: the two taps and what is between them."""

    __tablename__ = "photo"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"))
    plant_id: Mapped[int] = mapped_column(ForeignKey("plant.id"))
    look_id: Mapped[int | None] = mapped_column(ForeignKey("look.id"), index=True)
    on: Mapped[date]
    sha256: Mapped[str] = mapped_column(index=True)
    media: Mapped[str]
    width_px: Mapped[int]
    height_px: Mapped[int]
    bytes: Mapped[int]
    scale: Mapped[dict[str, Any] | None]
    note: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (Index("ix_photo_pot_on", "pot_id", "on"), Index("ix_photo_plant_on", "plant_id", "on"))


class Rating(Archivable, Base):
    """A photo rated by number, its plant not told. 0 worst to 10 best."""

    __tablename__ = "rating"
    photo_id: Mapped[int] = mapped_column(ForeignKey("photo.id"), index=True)
    on: Mapped[date]
    by: Mapped[str] = mapped_column(default="", server_default="")
    score: Mapped[int]


class Series(Archivable, Base):
    """One treatment given several times, on ``days`` counted from the first: each is a job of its own."""

    __tablename__ = "series"
    pot_id: Mapped[int | None] = mapped_column(ForeignKey("pot.id"), index=True)
    place_id: Mapped[int | None] = mapped_column(ForeignKey("place.id"))
    what: Mapped[str]
    on: Mapped[date]
    days: Mapped[list[Any]]
    note: Mapped[str] = mapped_column(default="", server_default="")
