"""Looks with their marks and organs, and the leaves of a plant as records."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date

from sqlalchemy import ColumnElement, or_, select
from sqlalchemy.orm import Session

from fenwa.core.errors import NotFound
from fenwa.core.leaf.asked import NUB_WORDS, LookBefore
from fenwa.core.leaf.marks import SeenMark, counted_kinds
from fenwa.core.leaf.organs import UNSURE, SeenOrgan, asks_again
from fenwa.store.models import Decision, Growth, Leaf, LeafLengthRow, Look, MarkRow, OrganRow, Photo
from fenwa.store.summary import refresh


def of_leading() -> ColumnElement[bool]:
    """Looks at the growth that leads its plant: those that name none, and those that name it."""
    return or_(Look.growth_id.is_(None), Look.growth_id.in_(select(Growth.id).where(Growth.leads)))


def last_look(session: Session, plant_id: int, until: date) -> Look | None:
    """The newest look at a plant up to a day."""
    mine = select(Look).where(Look.plant_id == plant_id, Look.archived_at.is_(None), Look.on <= until)
    return session.scalars(mine.order_by(Look.on.desc(), Look.id.desc()).limit(1)).first()


def looks_at(session: Session, plant_id: int, until: date) -> Sequence[Look]:
    """Every look at a plant up to a day, oldest first."""
    mine = select(Look).where(Look.plant_id == plant_id, Look.archived_at.is_(None), Look.on <= until)
    return session.scalars(mine.order_by(Look.on, Look.id)).all()


def marks_at(session: Session, looks: Sequence[Look]) -> dict[int, list[SeenMark]]:
    """Marks of looks, each with the number of its leaf."""
    days = {x.id: x.on for x in looks}
    rows = session.execute(
        select(MarkRow, Leaf.number)
        .outerjoin(Leaf, Leaf.id == MarkRow.leaf_id)
        .where(MarkRow.look_id.in_(days), MarkRow.archived_at.is_(None))
        .order_by(MarkRow.id)
    )
    out: dict[int, list[SeenMark]] = {}
    for row, number in rows:
        out.setdefault(row.look_id, []).append(as_mark(row, number, days[row.look_id]))
    return out


def as_mark(row: MarkRow, number: int | None, on: date) -> SeenMark:
    """One stored mark as the core reads it."""
    return SeenMark(
        kind=row.kind,  # type: ignore[arg-type]
        on=row.since or on,
        leaf=number,
        place=row.place,  # type: ignore[arg-type]
        texture=row.texture,  # type: ignore[arg-type]
        mm=row.mm,
        old=row.old,
        cause=row.cause,  # type: ignore[arg-type]
    )


def organs_at(session: Session, look_ids: Iterable[int]) -> dict[int, list[SeenOrgan]]:
    """Organs of looks."""
    rows = session.scalars(
        select(OrganRow)
        .where(OrganRow.look_id.in_(list(look_ids)), OrganRow.archived_at.is_(None))
        .order_by(OrganRow.id)
    )
    out: dict[int, list[SeenOrgan]] = {}
    for row in rows:
        seen = SeenOrgan(row.organ, row.told, row.count, row.of, row.mm, row.percent, dict(row.words or {}), row.lost)  # type: ignore[arg-type]
        out.setdefault(row.look_id, []).append(seen)
    return out


def as_before(session: Session, look: Look) -> LookBefore:
    """A look as the next one may take it over."""
    marks = marks_at(session, [look]).get(look.id, [])
    organs = organs_at(session, [look.id]).get(look.id, [])
    return LookBefore(look.on, look.leaves_count, tuple(marks), tuple(organs))


def leaf_rows(session: Session, plant_id: int) -> Sequence[Leaf]:
    """Leaves of a plant, oldest first, lost ones too."""
    mine = select(Leaf).join(Growth, Growth.id == Leaf.growth_id).where(Growth.plant_id == plant_id)
    kept = mine.where(Leaf.archived_at.is_(None), Leaf.organ == "leaf", Growth.archived_at.is_(None))
    return session.scalars(kept.order_by(Leaf.opened_on, Leaf.id)).all()


def leaf_of(session: Session, plant_id: int, leaf_id: int, pointer: str) -> Leaf:
    """A leaf of this plant; refused where it is another's."""
    found = next((x for x in leaf_rows(session, plant_id) if x.id == leaf_id), None)
    if found is None:
        raise NotFound(f"Leaf {leaf_id} is none of this plant’s. Choose one of its leaves.", pointer=pointer)
    return found


def next_number(session: Session, growth_id: int) -> int:
    """The number of the next leaf of a growth."""
    numbers = session.scalars(select(Leaf.number).where(Leaf.growth_id == growth_id, Leaf.archived_at.is_(None)))
    return max((n for n in numbers if n is not None), default=0) + 1


def lengths_beside(session: Session, leaf_ids: Iterable[int], until: date) -> Sequence[LeafLengthRow]:
    """Lengths that were measured beside the newest leaf of a look, by ruler or in a photo."""
    mine = select(LeafLengthRow).where(LeafLengthRow.leaf_id.in_(list(leaf_ids)), LeafLengthRow.archived_at.is_(None))
    return session.scalars(mine.where(LeafLengthRow.on <= until).order_by(LeafLengthRow.on, LeafLengthRow.id)).all()


def with_look(session: Session, look: Look) -> list[MarkRow | OrganRow | Decision | Leaf | Photo]:
    """What a look brought along, archived or not: it goes and comes with it."""
    marks = session.scalars(select(MarkRow).where(MarkRow.look_id == look.id)).all()
    organs = session.scalars(select(OrganRow).where(OrganRow.look_id == look.id)).all()
    photos = session.scalars(select(Photo).where(Photo.look_id == look.id)).all()
    opened: list[Leaf] = []
    if look.leaf_id is not None and look.new_leaf:
        leaf = session.get_one(Leaf, look.leaf_id)
        others = select(Look.id).where(Look.leaf_id == leaf.id, Look.id != look.id, Look.archived_at.is_(None))
        if session.scalars(others.limit(1)).first() is None:
            opened.append(leaf)
    return [*marks, *organs, *photos, *_left_open(session, look), *opened]


def _left_open(session: Session, look: Look) -> list[Decision]:
    """The question a look left open: each look at a nub of which nobody was sure asked one as it was stored, so that
    looks and questions of a pot's day belong together in their order, archived or not.
    """
    nubs = session.execute(
        select(OrganRow.look_id, OrganRow.words)
        .join(Look, Look.id == OrganRow.look_id)
        .where(Look.pot_id == look.pot_id, Look.on == look.on, OrganRow.organ == UNSURE)
        .order_by(OrganRow.look_id)
    )
    asking = dict.fromkeys(i for i, words in nubs if asks_again([SeenOrgan(UNSURE, words=words or {})]))
    asked = session.scalars(
        select(Decision)
        .where(Decision.pot_id == look.pot_id, Decision.on == look.on, Decision.what == NUB_WORDS)
        .order_by(Decision.id)
    )
    return [question for look_id, question in zip(asking, asked, strict=False) if look_id == look.id]


def recount_marks(session: Session, look_id: int) -> None:
    """The kinds a look counts, told anew from its marks; its pot is folded again."""
    look = session.get_one(Look, look_id)
    look.marks = list(counted_kinds(marks_at(session, [look]).get(look_id, [])))
    session.flush()
    refresh(session, look.pot_id)
