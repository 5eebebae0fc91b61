"""Treatments in series, suppliers with what became of their plants, photos rated by number."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row
from fenwa.api.typed import Typed
from fenwa.api.ways import Ways
from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.leaf.blind import BlindPhoto, blind_order
from fenwa.core.leaf.series import series_days
from fenwa.core.leaf.suppliers import Arrival, Supplier, suppliers_of
from fenwa.store import models
from fenwa.store.leaf_rows import opened_days, plants_ever, series_kept
from fenwa.store.photo_rows import all_photos, ratings_of
from fenwa.store.summary import touch

router = Ways(prefix="/api", tags=["leaves"])


class SeriesIn(Model):
    """A treatment of a pot or a place on several days, counted from 1: "1, 8, 15"."""

    on: date
    what: str = Field(max_length=120)
    days: list[Typed]
    pot_id: int | None = None
    place_id: int | None = None
    note: str = Field(default="", max_length=300)


class SeriesOut(Model):
    """A series that is kept, with its days."""

    id: int
    what: str
    pot_id: int | None
    place_id: int | None
    days: list[date]
    note: str


@router.post("/series", status_code=201)
def add_series(body: SeriesIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a series: each of its days becomes a job of the round."""
    what = body.what.strip()
    if not what:
        raise Underspecified("What is given is empty. Say it, for example “spray against mites”.", pointer="/what")
    if (body.pot_id is None) == (body.place_id is None):
        raise InputError("Choose one pot or one place, not both and not none.", pointer="/pot_id")
    series_days(body.on, body.days)

    def write(session: Session) -> dict[str, Any]:
        if body.pot_id is not None:
            one_pot(session, body.pot_id, today)
        if body.place_id is not None:
            get_row(session, models.Place, body.place_id, "Place", pointer="/place_id")
        return keep_row(
            session,
            models.Series(
                pot_id=body.pot_id,
                place_id=body.place_id,
                what=what,
                on=body.on,
                days=[int(d) for d in body.days],
                note=body.note.strip(),
            ),
        )

    return Stored(**writer.once(body, write))


@router.get("/series")
def series_kept_here(session: ReadSession) -> list[SeriesOut]:
    """Series of treatments, oldest first."""
    return [
        SeriesOut(
            id=r.id,
            what=r.what,
            pot_id=r.pot_id,
            place_id=r.place_id,
            note=r.note,
            days=[d.on for d in series_days(r.on, r.days)],
        )
        for r in series_kept(session)
    ]


@router.get("/suppliers")
def suppliers(session: ReadSession, today: Today) -> list[Supplier]:
    """Where plants came from, and what became of them."""
    opened = opened_days(session, today)
    return suppliers_of(
        [
            Arrival(
                p.source,
                p.arrived_on,
                p.died_on,
                p.death_cause,
                min((d for d in opened.get(p.id, ()) if p.arrived_on is None or d > p.arrived_on), default=None),
            )
            for p in plants_ever(session)
        ],
        today,
    )


class RatingIn(Model):
    """A score of a photo, 0 worst to 10 best, by somebody who sees only its number."""

    score: Typed
    by: str = Field(default="", max_length=60)


@router.get("/photos-blind")
def blind_photos(session: ReadSession, seed: int = 1) -> list[BlindPhoto]:
    """Photos by number in an order drawn by a seed, plant and day not told; those rated least first."""
    photos = all_photos(session)
    return blind_order({p.id: len(ratings_of(session, [p.id]).get(p.id, ())) for p in photos}, seed)


@router.post("/photos/{photo_id}/ratings", status_code=201)
def rate_photo(photo_id: int, body: RatingIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a blind score of a photo."""
    score = require(body.score, "Score", "", low=0, high=10, pointer="/score")
    if score != int(score):
        raise InputError(f"Score {score:g} is not a whole number. Choose 0 to 10.", pointer="/score")

    def write(session: Session) -> dict[str, Any]:
        photo = get_row(session, models.Photo, photo_id, "Photo", pointer="/photo_id")
        touch(session, photo.pot_id)
        return keep_row(session, models.Rating(photo_id=photo_id, on=today, by=body.by.strip(), score=int(score)))

    return Stored(**writer.once(body, write))
