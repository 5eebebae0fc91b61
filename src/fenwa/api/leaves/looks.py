"""A look: what is asked of a plant by its kind, and what was seen."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator
from sqlalchemy.orm import Session

from fenwa.api.leaves.look_shapes import MarkSeen, OrganSeen, as_object
from fenwa.api.model import Model
from fenwa.api.pots.shown import LookOut, one_pot
from fenwa.api.transactions import OneWrite, Today
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.log import opens_leaf
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError
from fenwa.core.leaf.asked import (
    NUB_AGAIN_DAYS,
    NUB_WORDS,
    Precision,
    Surface,
    check_length,
    check_look,
    same_as_last,
    shows_spike,
)
from fenwa.core.leaf.balance import LossWhy
from fenwa.core.leaf.marks import MarkCause, SeenMark, check_mark, counted_kinds, place_of
from fenwa.core.leaf.organs import SeenOrgan, asks_again
from fenwa.core.leaf.sizes import usual_length
from fenwa.store import models
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.look_rows import as_before, last_look, leaf_of, leaf_rows, next_number
from fenwa.store.pot_rows import leading_growth, newest_leaf, plants_with, side_growth
from fenwa.store.summary import refresh

router = Ways(prefix="/api", tags=["leaves"])


class LookIn(Model):
    """A look. Empty: not measured; named in ``unknown``: asked, and not known (``marks``: nobody can tell).

    ``as_last``: what is not told is as at the look before.
    """

    on: date
    leaves_count: TypedOrNone = None
    newest_leaf: TypedOrNone = None
    newest_leaf_unit: Literal["mm", "cm"] = "mm"
    leaf_growing: bool | None = None  # whether it grows still; empty: not said
    new_leaf: bool = False
    opened_on: date | None = None  # of the new leaf; empty: the day of the look
    opened_precision: Precision = "day"
    gained: TypedOrNone = None
    lost: TypedOrNone = None
    lost_why: LossWhy = ""
    new_growth: bool = False
    growth_stopped: bool = False
    spike: bool = False
    root: TypedOrNone = None
    growth: Literal["lead", "side"] = "lead"
    growth_length: TypedOrNone = None
    roots: list[Typed] = []
    roots_working: bool | None = None
    marks: list[Annotated[MarkSeen, BeforeValidator(as_object)]] = []
    marks_looked_for: bool = True
    organs: list[OrganSeen] = []
    posture: TypedOrNone = None
    hour: TypedOrNone = None
    pests: TypedOrNone = None
    surface: Surface = ""
    as_last: bool = False
    by: str = ""
    unknown: list[str] = []
    note: str = ""
    plant_id: int | None = None  # of several in the pot; empty: the one that leads


def _whole(value: float | None, label: str, pointer: str) -> int | None:
    if value is not None and value != int(value):
        raise InputError(f"{label} {value:g} is not a whole number. Count whole ones.", pointer=pointer)
    return None if value is None else int(value)


def _lengths(body: LookIn) -> float | None:
    """The newest leaf's length in millimetres; every length of the look refused where it cannot be."""
    count = body.leaves_count
    if count is not None:
        require(count, "Leaves counted", "", low=0, high=10_000, pointer="/leaves_count")
        if count != int(count):
            raise InputError(
                f"Leaves counted {count:g} is not a whole number. Count whole leaves.", pointer="/leaves_count"
            )
    if body.root is not None:
        require(body.root, "Longest new root", "cm", low=0, high=200, pointer="/root")
    if body.growth_length is not None:
        require(body.growth_length, "Length of the growth", "cm", low=0, high=500, pointer="/growth_length")
    for i, cm in enumerate(body.roots):
        require(cm, "Root", "cm", low=0, high=200, pointer=f"/roots/{i}")
    length = body.newest_leaf
    if length is not None:
        length *= 10 if body.newest_leaf_unit == "cm" else 1
        require(length, "Newest leaf", "mm", low=0, open_low=True, high=5000, pointer="/newest_leaf")
    return length


def _organs(body: LookIn) -> list[SeenOrgan]:
    return [SeenOrgan(o.organ, o.told, o.count, o.of, o.mm, o.percent, o.words, o.lost) for o in body.organs]


def _marks(session: Session, body: LookIn, plant_id: int) -> list[tuple[SeenMark, int | None, MarkSeen | None]]:
    """Marks as told, each with its leaf."""
    out: list[tuple[SeenMark, int | None, MarkSeen | None]] = []
    for i, m in enumerate(body.marks):
        leaf = leaf_of(session, plant_id, m.leaf_id, f"/marks/{i}/leaf_id") if m.leaf_id is not None else None
        cause: MarkCause = "rubbed" if m.kind == "rubbed" else m.cause
        seen = SeenMark(
            m.kind, m.since or body.on, leaf.number if leaf else None, m.place, m.texture, m.mm, None, m.old, cause
        )
        check_mark(seen, f"/marks/{i}")
        if m.share_pct is not None:
            require(m.share_pct, "Share of the leaf", "%", low=0, high=100, pointer=f"/marks/{i}/share_pct")
        if m.since is not None:
            require_not_future(m.since, body.on, "Since", pointer=f"/marks/{i}/since")
        out.append((seen, m.leaf_id, m))
    return out


@router.post("/pots/{pot_id}/looks", status_code=201)
def add_look(pot_id: int, body: LookIn, writer: OneWrite, today: Today) -> LookOut:
    """Log a look at a pot's plant."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if body.opened_on is not None:
        require_not_future(body.opened_on, body.on, "Opened on", pointer="/opened_on")
    length = _lengths(body)
    organs = _organs(body)
    counts = {
        name: _whole(getattr(body, name), label, f"/{name}")
        for name, label in (
            ("posture", "Posture"),
            ("hour", "Hour"),
            ("pests", "Pests on the card"),
            ("gained", "Leaves gained"),
            ("lost", "Leaves lost"),
        )
    }
    check_look(organs=organs, **counts)

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        side = body.growth == "side"
        seen = p.plant.id if body.plant_id is None else body.plant_id
        plants_with(session, pot_id, seen)
        growth = side_growth(session, seen) if side else leading_growth(session, seen)
        leaf = newest_leaf(session, growth.id)
        if length is not None:
            check_length(length, _usual(session, seen, body.on), "/newest_leaf")
        marks = _marks(session, body, seen)
        kept_organs, count = list(organs), body.leaves_count
        told = bool(body.marks) or body.marks_looked_for or "marks" in body.unknown
        before = last_look(session, seen, body.on) if body.as_last else None
        if body.as_last and before is None:
            raise InputError("There is no look before this one. Enter what you see.", pointer="/as_last")
        if before is not None:
            taken = same_as_last(
                as_before(session, before),
                body.on,
                new_leaf=body.new_leaf,
                lost=counts["lost"],
                marks_told=told,
                organs_told=[o.organ for o in organs],
            )
            count = taken.leaves_count if count is None else count
            ids = {x.number: x.id for x in leaf_rows(session, seen)}
            marks += [(m, ids.get(m.leaf), None) for m in taken.marks]
            kept_organs += taken.organs
            told = told or before.marks_looked_for
        if opens_leaf(body.new_leaf, leaf is not None, length):
            leaf = models.Leaf(
                growth_id=growth.id,
                opened_on=body.opened_on or body.on,
                opened_precision=body.opened_precision,
                number=next_number(session, growth.id),
            )
            session.add(leaf)
            session.flush()
        row = models.Look(
            pot_id=pot_id,
            plant_id=seen,
            leaf_id=leaf.id if leaf else None,
            on=body.on,
            leaves_count=None if count is None else int(count),
            newest_leaf_mm=length,
            leaf_growing=body.leaf_growing if length is not None else None,
            new_leaf=body.new_leaf,
            new_growth=body.new_growth,
            growth_stopped=body.growth_stopped,
            spike=body.spike or shows_spike(organs),
            root_cm=max([x for x in (body.root, *body.roots) if x is not None], default=None),
            growth_id=growth.id if side else None,
            growth_cm=body.growth_length,
            roots_cm=list(body.roots) or None,
            roots_working=body.roots_working,
            marks=list(counted_kinds([m for m, _, _ in marks])),
            marks_looked_for=told,
            lost_why=body.lost_why,
            surface=body.surface,
            as_last=body.as_last,
            by=body.by,
            unknown=body.unknown,
            note=body.note,
            **counts,
        )
        session.add(row)
        session.flush()
        session.add_all(_mark_row(row.id, *m, leaf) for m in marks)
        session.add_all(
            models.OrganRow(
                look_id=row.id,
                organ=o.organ,
                told=o.told,
                count=o.count,
                of=o.of,
                mm=o.mm,
                percent=o.percent,
                lost=o.lost,
                words=o.words or None,
            )
            for o in kept_organs
        )
        if asks_again(organs):
            again = body.on + timedelta(days=NUB_AGAIN_DAYS)
            session.add(models.Decision(pot_id=pot_id, on=body.on, what=NUB_WORDS, look_again_on=again))
            session.flush()
        refresh(session, pot_id)
        return LookOut(**{k: getattr(row, k) for k in LookOut.model_fields}).model_dump(mode="json")

    return LookOut(**writer.once(body, write))


def _mark_row(
    look_id: int, seen: SeenMark, leaf_id: int | None, told: MarkSeen | None, new: models.Leaf | None
) -> models.MarkRow:
    if told is not None and told.on_new and new is not None:
        leaf_id = new.id
    return models.MarkRow(
        look_id=look_id,
        leaf_id=leaf_id,
        kind=seen.kind,
        place=place_of(seen.kind, seen.place),
        texture=seen.texture,
        mm=seen.mm,
        share_pct=told.share_pct if told else None,
        since=told.since if told else None,
        since_precision=told.since_precision if told else "day",
        old=seen.old,
        cause=seen.cause,
    )


def _usual(session: Session, plant_id: int, on: date) -> float | None:
    return usual_length(leaves_of(session, [plant_id], on).get(plant_id, []), on)
