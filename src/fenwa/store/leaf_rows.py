"""Leaves of many plants with their lengths, and the days they were fed and flushed."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from functools import cache

from sqlalchemy import Executable, bindparam, select
from sqlalchemy.orm import Session

from fenwa.core.leaf.changes import Happened
from fenwa.core.leaf.sizes import LeafLength, SeenLeaf
from fenwa.store.models import Decision, Event, Growth, Leaf, LeafLengthRow, Look, Plant, Pour, Series
from fenwa.store.questions import among, columns, listed


@cache
def _leaves() -> Executable:
    return (
        select(Growth.plant_id, Leaf.id, Leaf.opened_on, Leaf.number, Leaf.lost_on)
        .join(Leaf, Leaf.growth_id == Growth.id)
        .where(Growth.plant_id.in_(among()), Leaf.archived_at.is_(None), Leaf.opened_on <= bindparam("today"))
        .where(Leaf.organ == "leaf")
        .order_by(Leaf.opened_on, Leaf.id)
    )


@cache
def _looks() -> Executable:
    return (
        select(Look.leaf_id, Look.on, Look.newest_leaf_mm, Look.leaf_growing)
        .where(Look.plant_id.in_(among()), Look.archived_at.is_(None), Look.on <= bindparam("today"))
        .where(Look.leaf_id.is_not(None), Look.newest_leaf_mm.is_not(None))
        .order_by(Look.on, Look.id)
    )


@cache
def _beside() -> Executable:
    return (
        select(LeafLengthRow.leaf_id, LeafLengthRow.on, LeafLengthRow.mm, LeafLengthRow.growing)
        .where(LeafLengthRow.archived_at.is_(None), LeafLengthRow.on <= bindparam("today"))
        .where(LeafLengthRow.leaf_id.in_(among()))
        .order_by(LeafLengthRow.id)
    )


def leaves_of(session: Session, plant_ids: Iterable[int], today: date) -> dict[int, list[SeenLeaf]]:
    """Leaves of each plant with what was measured of them, up to today."""
    ids = listed(plant_ids)
    rows = columns(session, _leaves(), ids=ids, today=today)
    lengths: dict[int, list[LeafLength]] = {}
    for leaf_id, on, mm, growing in columns(session, _looks(), ids=ids, today=today):
        lengths.setdefault(leaf_id, []).append(LeafLength(on, mm, growing))
    for leaf_id, on, mm, growing in columns(session, _beside(), ids=listed(r[1] for r in rows), today=today):
        lengths.setdefault(leaf_id, []).append(LeafLength(on, mm, growing))
    out: dict[int, list[SeenLeaf]] = {}
    for plant_id, leaf_id, opened_on, number, lost_on in rows:
        seen = SeenLeaf(opened_on, tuple(lengths.get(leaf_id, ())), leaf_id, number, lost_on)
        out.setdefault(plant_id, []).append(seen)
    return out


def changes_between(session: Session, pot_id: int, since: date, until: date) -> list[Happened]:
    """What happened to a pot from one day to another, both counted: flushes, feeds together, events, decisions."""
    mine = poured_days(session, [pot_id], since, until).get(pot_id, {"feed": [], "flush": []})
    out = [Happened(on, "flush", True) for on in mine["flush"]]
    fed = mine["feed"]
    if fed:
        out.append(Happened(fed[0], f"{len(fed)} feed{'s' if len(fed) > 1 else ''} from here"))
    events = session.scalars(
        select(Event).where(Event.pot_id == pot_id, Event.archived_at.is_(None), Event.on >= since, Event.on <= until)
    )
    out += [Happened(e.on, e.note or e.kind) for e in events]
    decided = session.scalars(
        select(Decision).where(
            Decision.pot_id == pot_id, Decision.archived_at.is_(None), Decision.on >= since, Decision.on <= until
        )
    )
    out += [Happened(d.on, d.what) for d in decided]
    return sorted(out, key=lambda x: x.on)


def poured_days(session: Session, pot_ids: Sequence[int], since: date, today: date) -> dict[int, dict[str, list[date]]]:
    """Days each pot was fed and flushed, each day once."""
    rows = session.execute(
        select(Pour.pot_id, Pour.job, Pour.on)
        .where(
            Pour.pot_id.in_(pot_ids),
            Pour.archived_at.is_(None),
            Pour.job.in_(("feed", "flush")),
            Pour.on >= since,
            Pour.on <= today,
        )
        .order_by(Pour.on)
        .distinct()
    )
    out: dict[int, dict[str, list[date]]] = {}
    for pot_id, job, on in rows:
        out.setdefault(pot_id, {"feed": [], "flush": []})[job].append(on)
    return out


def opened_days(session: Session, until: date, plant_ids: Sequence[int] | None = None) -> dict[int, list[date]]:
    """Days on which leaves opened, of every plant or of those named."""
    mine = (
        select(Growth.plant_id, Leaf.opened_on)
        .join(Leaf, Leaf.growth_id == Growth.id)
        .where(Leaf.archived_at.is_(None), Leaf.opened_on <= until, Leaf.organ == "leaf")
    )
    rows = session.execute(mine if plant_ids is None else mine.where(Growth.plant_id.in_(plant_ids)))
    out: dict[int, list[date]] = {}
    for plant_id, on in rows:
        out.setdefault(plant_id, []).append(on)
    return out


def series_kept(session: Session) -> Sequence[Series]:
    """Series of treatments that are not archived, oldest first."""
    return session.scalars(select(Series).where(Series.archived_at.is_(None)).order_by(Series.on, Series.id)).all()


def plants_ever(session: Session) -> Sequence[Plant]:
    """Every plant there was, the dead too; what was entered by mistake and archived alive is none."""
    mine = select(Plant).where((Plant.archived_at.is_(None)) | (Plant.died_on.is_not(None)))
    return session.scalars(mine.order_by(Plant.id)).all()
