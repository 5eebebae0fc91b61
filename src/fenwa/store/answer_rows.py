"""Logs of many plants as evidence reads them: pours, notes, and values of each measure by plant."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from functools import cache
from itertools import pairwise
from statistics import mean

from sqlalchemy import Executable, bindparam, or_, select
from sqlalchemy.orm import Session

from fenwa.core.care.vocabulary import DONE, LATER, TREATED, is_skip
from fenwa.core.evidence.changes import Noted, Poured
from fenwa.core.evidence.samples import Sample
from fenwa.core.leaf.line import UNKNOWN_LEAF_DAYS
from fenwa.core.leaf.marks import BROWN
from fenwa.core.leaf.sizes import SeenLeaf, finished_mm
from fenwa.core.leaf.timing import begun_on, plastochron
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.look_rows import of_leading
from fenwa.store.models import (
    Batch,
    CheckDone,
    Decision,
    Event,
    IllCase,
    Look,
    MarkRow,
    OrganRow,
    Photo,
    Pot,
    Pour,
    Rating,
    Water,
)
from fenwa.store.questions import among, columns, listed


@cache
def _poured() -> Executable:
    return (
        select(Pour.pot_id, Pour.on, Pour.job, Water.name, Batch.nitrogen_mg_L)
        .outerjoin(Water, Water.id == Pour.water_id)
        .outerjoin(Batch, Batch.id == Pour.batch_id)
        .where(Pour.pot_id.in_(among()), Pour.archived_at.is_(None))
        .where(Pour.on >= bindparam("since"), Pour.on <= bindparam("until"))
        .order_by(Pour.on, Pour.id)
    )


def poured_by(session: Session, pot_ids: Iterable[int], since: date, until: date) -> dict[int, list[Poured]]:
    """Pours of each pot, oldest first, with their water by name and the nitrogen of their can."""
    out: dict[int, list[Poured]] = {}
    rows = columns(session, _poured(), ids=listed(pot_ids), since=since, until=until)
    for pot_id, on, job, water, nitrogen in rows:
        out.setdefault(pot_id, []).append(Poured(on, job, water or "", nitrogen))
    return out


@cache
def _happened() -> Executable:
    return (
        select(Event.pot_id, Event.place_id, Event.on, Event.kind, Event.note)
        .where(Event.archived_at.is_(None), Event.kind.not_in((DONE, LATER)))
        .where(or_(Event.pot_id.in_(among()), Event.place_id.in_(among("places"))))
        .where(Event.on >= bindparam("since"), Event.on <= bindparam("until"))
        .order_by(Event.on, Event.id)
    )


@cache
def _decided() -> Executable:
    return (
        select(Decision.pot_id, Decision.on, Decision.what, Decision.look_again_on)
        .where(Decision.archived_at.is_(None), Decision.pot_id.in_(among()))
        .where(Decision.on >= bindparam("since"), Decision.on <= bindparam("until"))
        .order_by(Decision.on, Decision.id)
    )


def noted_by(session: Session, pots: Sequence[Pot], since: date, until: date) -> dict[int, list[Noted]]:
    """Events of each pot and its place, treatments and decisions, oldest first."""
    out: dict[int, list[Noted]] = {p.id: [] for p in pots}
    at_place: dict[int, list[int]] = {}
    for p in pots:
        at_place.setdefault(p.place_id, []).append(p.id)
    ids = listed(out)
    events = columns(session, _happened(), ids=ids, places=listed(at_place), since=since, until=until)
    for e in events:
        kind = "treated" if e.kind == TREATED else e.kind
        words = f"{e.kind}: {e.note}" if e.note and e.note != e.kind else e.kind
        for pot_id in [e.pot_id] if e.pot_id is not None else at_place.get(e.place_id or 0, []):
            if pot_id in out:
                out[pot_id].append(Noted(e.on, kind, words, "pot" if e.pot_id is not None else "place"))
    for d in columns(session, _decided(), ids=ids, since=since, until=until):
        if not is_skip(d.what):
            out[d.pot_id].append(Noted(d.on, "decision", d.what, "pot", d.look_again_on))
    return out


def values_of(
    session: Session, plant_ids: Sequence[int], measures: Iterable[str], today: date
) -> dict[str, dict[int, list[Sample]]]:
    """Values of each measure by plant, oldest first; nothing that was not measured. What several measures are read
    off is read once.
    """
    ids, asked = listed(plant_ids), list(measures)
    by_leaf = leaves_of(session, plant_ids, today) if set(asked) & _BY_LEAF else {}
    return {measure: _values_of(session, ids, by_leaf, measure, today) for measure in asked}


_BY_LEAF = {"leaf length", "leaves gained", "new burn"}


def _values_of(
    session: Session, ids: str, leaves: dict[int, list[SeenLeaf]], measure: str, today: date
) -> dict[int, list[Sample]]:
    if measure in ("leaf length", "leaves gained"):
        read = _lengths if measure == "leaf length" else _gained
        return {plant: read(rows) for plant, rows in leaves.items()}
    if measure == "root tips":
        return _root_tips(session, ids, today)
    if measure == "new burn":
        return _marked(session, ids, leaves, today)
    if measure == "height":
        return _heights(session, ids, today)
    return _ratings(session, ids, today)


def _lengths(leaves: Sequence[SeenLeaf]) -> list[Sample]:
    found = plastochron([x.opened_on for x in leaves])
    gap = found[0] if found else UNKNOWN_LEAF_DAYS
    out = []
    for i, leaf in enumerate(leaves, 1):
        mm = finished_mm(leaf)
        if mm is not None:
            out.append(Sample(leaf.opened_on, mm, begun_on(leaf.opened_on, gap), leaf.number or i))
    return out


def _gained(leaves: Sequence[SeenLeaf]) -> list[Sample]:
    days = sorted({x.opened_on for x in leaves})
    return [Sample(b, 100 / (b - a).days, a, i) for i, (a, b) in enumerate(pairwise(days), 2)]


@cache
def _tips_counted() -> Executable:
    return (
        select(Look.plant_id, Look.on, OrganRow.count, OrganRow.of)
        .join(OrganRow, OrganRow.look_id == Look.id)
        .where(Look.plant_id.in_(among()), Look.archived_at.is_(None), Look.on <= bindparam("today"))
        .where(OrganRow.archived_at.is_(None), OrganRow.organ == "root tips")
        .where(OrganRow.count.is_not(None), OrganRow.of > 0)
        .order_by(Look.on, Look.id)
    )


def _root_tips(session: Session, ids: str, today: date) -> dict[int, list[Sample]]:
    out: dict[int, list[Sample]] = {}
    for plant, on, count, of in columns(session, _tips_counted(), ids=ids, today=today):
        out.setdefault(plant, []).append(Sample(on, count / of))
    return out


@cache
def _looked_for_marks() -> Executable:
    return (
        select(Look.plant_id, Look.on)
        .where(Look.plant_id.in_(among()), Look.archived_at.is_(None), Look.on <= bindparam("today"))
        .where(Look.marks_looked_for)
        .order_by(Look.on)
    )


@cache
def _marks_that_count() -> Executable:
    return (
        select(MarkRow.leaf_id)
        .join(Look, Look.id == MarkRow.look_id)
        .where(Look.plant_id.in_(among()), Look.archived_at.is_(None), Look.on <= bindparam("today"))
        .where(MarkRow.leaf_id.is_not(None), MarkRow.archived_at.is_(None), ~MarkRow.old, MarkRow.cause == "")
        .where(MarkRow.kind.in_(BROWN))
    )


def _marked(session: Session, ids: str, by_plant: dict[int, list[SeenLeaf]], today: date) -> dict[int, list[Sample]]:
    """Each leaf that was looked at: 1 where it has a mark that counts, 0 where it has none.

    A mark belongs to its leaf and so to the days that leaf formed in: an old leaf's mark says nothing of today.
    """
    looked: dict[int, date] = dict(columns(session, _looked_for_marks(), ids=ids, today=today))
    marked = {row[0] for row in columns(session, _marks_that_count(), ids=ids, today=today)}
    out: dict[int, list[Sample]] = {}
    for plant, leaves in by_plant.items():
        found = plastochron([x.opened_on for x in leaves])
        gap = found[0] if found else UNKNOWN_LEAF_DAYS
        for i, x in enumerate(leaves, 1):
            if plant in looked and (x.id in marked or looked[plant] > x.opened_on):
                value = 1.0 if x.id in marked else 0.0
                out.setdefault(plant, []).append(Sample(x.opened_on, value, begun_on(x.opened_on, gap), x.number or i))
    return out


@cache
def _heights_seen() -> Executable:
    return (
        select(Look.plant_id, Look.on, Look.growth_cm)
        .where(Look.plant_id.in_(among()), Look.archived_at.is_(None), Look.on <= bindparam("today"))
        .where(Look.growth_cm > 0, of_leading())
        .order_by(Look.on, Look.id)
    )


def _heights(session: Session, ids: str, today: date) -> dict[int, list[Sample]]:
    out: dict[int, list[Sample]] = {}
    for plant, on, cm in columns(session, _heights_seen(), ids=ids, today=today):
        out.setdefault(plant, []).append(Sample(on, cm))
    return out


@cache
def _scores() -> Executable:
    return (
        select(Photo.plant_id, Photo.on, Photo.id, Rating.score)
        .join(Rating, Rating.photo_id == Photo.id)
        .where(Photo.plant_id.in_(among()), Photo.archived_at.is_(None), Photo.on <= bindparam("today"))
        .where(Rating.archived_at.is_(None))
        .order_by(Photo.on, Photo.id)
    )


def _ratings(session: Session, ids: str, today: date) -> dict[int, list[Sample]]:
    by_photo: dict[tuple[int, date, int], list[int]] = {}
    for plant, on, photo, score in columns(session, _scores(), ids=ids, today=today):
        by_photo.setdefault((plant, on, photo), []).append(score)
    out: dict[int, list[Sample]] = {}
    for (plant, on, _), scores in by_photo.items():
        out.setdefault(plant, []).append(Sample(on, mean(scores)))
    return out


def cases_of(session: Session, pot_id: int | None = None) -> Sequence[IllCase]:
    """Cases of ill plants, the newest first; of one pot, or all."""
    mine = select(IllCase).where(IllCase.archived_at.is_(None))
    if pot_id is not None:
        mine = mine.where(IllCase.pot_id == pot_id)
    return session.scalars(mine.order_by(IllCase.opened_on.desc(), IllCase.id.desc())).all()


def checks_of(session: Session, pot_id: int, since: date, until: date) -> Sequence[CheckDone]:
    """Checks done at a pot, oldest first."""
    mine = select(CheckDone).where(CheckDone.pot_id == pot_id, CheckDone.archived_at.is_(None))
    return session.scalars(
        mine.where(CheckDone.on >= since, CheckDone.on <= until).order_by(CheckDone.on, CheckDone.id)
    ).all()
