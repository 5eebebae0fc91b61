"""Leaves as records, marks against the day of arrival, pieces, flowers, and how a plant stands against its usual."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, now, plain_row
from fenwa.api.typed import Typed
from fenwa.api.ways import Ways
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, InputError
from fenwa.core.leaf.asked import Precision, check_length
from fenwa.core.leaf.balance import (
    MOST,
    LeafBalance,
    LeafCount,
    LeafTrend,
    LossWhy,
    Offset,
    Pieces,
    TrendLeaf,
    division_bulbs,
    leaf_balance,
    leaf_trend,
    offset_ready,
)
from fenwa.core.leaf.line import RESTING
from fenwa.core.leaf.marks import MOST_MARKS, FirstReading, NewMarks, SeenMark, first_reading, new_marks
from fenwa.core.leaf.organs import Bloom, LookFigures, SeenOrgan, bloom, bloom_of, measures_now, organ_share
from fenwa.core.leaf.score import ResponseScore, response_score
from fenwa.core.leaf.sizes import finished_mm, usual_length
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.look_rows import leaf_rows, lengths_beside, looks_at, marks_at, organs_at
from fenwa.store.pot_rows import children_of, growths_of
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import refresh

router = Ways(prefix="/api", tags=["leaves"])
_WHY: TypeAdapter[LossWhy] = TypeAdapter(LossWhy)


class LengthShown(Model):
    """A length of a leaf on a day, by ruler or from a photo. [mm]"""

    on: date
    mm: float
    low_mm: float | None
    high_mm: float | None
    origin: str


class LeafRecord(Model):
    """A leaf with its history. ``finished_mm`` None: not measured, or it grows still. [mm]"""

    id: int
    number: int
    opened_on: date
    opened_precision: Precision
    lengths: list[LengthShown]
    finished_mm: float | None
    lost_on: date | None
    lost_precision: Precision
    lost_why: LossWhy
    marks: list[SeenMark]
    note: str


class LeafRecords(Model):
    """Every leaf of a plant, how they run, which marks are new, and what their texture says first."""

    leaves: list[LeafRecord]
    trend: Computed[LeafTrend]
    marks: Computed[NewMarks]
    readings: list[FirstReading]


def _seen_marks(session: Session, plant_id: int, today: date) -> list[SeenMark]:
    """Every mark of a plant, with the length of its leaf where that is known."""
    looks = looks_at(session, plant_id, today)
    lengths = {x.number: finished_mm(x) for x in leaves_of(session, [plant_id], today).get(plant_id, [])}
    found = marks_at(session, looks)
    seen = [m for look in looks for m in found.get(look.id, [])][-MOST_MARKS:]  # of a long log the newest
    return [SeenMark(**{**vars(m), "leaf_mm": lengths.get(m.leaf) if m.leaf is not None else None}) for m in seen]


@router.get("/pots/{pot_id}/leaves")
def leaves_of_pot(pot_id: int, session: ReadSession, today: Today) -> LeafRecords:
    """Every leaf of a pot's plant with its lengths, marks and loss; how sizes run."""
    p = one_pot(session, pot_id, today)
    rows = leaf_rows(session, p.plant.id)
    seen = {x.id: x for x in leaves_of(session, [p.plant.id], today).get(p.plant.id, [])}
    photo = {(x.leaf_id, x.on, x.mm): x for x in lengths_beside(session, [r.id for r in rows], today)}
    marks = _seen_marks(session, p.plant.id, today)
    looks = looks_at(session, p.plant.id, today)
    pale = {m.leaf for m in marks if m.kind == "pale"}
    newest = max((r.opened_on for r in rows), default=None)
    since_newest = [x for x in looks if newest is None or x.on >= newest]
    since = p.plant.arrived_on or (looks[0].on if looks else today)
    trend = leaf_trend(
        leaves=[
            TrendLeaf(r.opened_on, finished_mm(seen[r.id]), r.number in pale) for r in rows[-MOST:] if r.id in seen
        ],
        since=min(since, today),
        until=today,
        crust_answered=any(x.marks_looked_for for x in since_newest),
        roots_answered=any(x.roots_working is not None for x in since_newest),
    )
    records = []
    for i, r in enumerate(rows, 1):
        lengths = sorted(seen[r.id].lengths, key=lambda x: x.on) if r.id in seen else []
        shown = []
        for x in lengths:
            beside = photo.get((r.id, x.on, x.mm))
            shown.append(
                LengthShown(
                    on=x.on,
                    mm=x.mm,
                    low_mm=beside.low_mm if beside else None,
                    high_mm=beside.high_mm if beside else None,
                    origin=beside.origin if beside else "ruler",
                )
            )
        records.append(
            LeafRecord(
                id=r.id,
                number=r.number or i,
                opened_on=r.opened_on,
                opened_precision=r.opened_precision,
                lengths=shown,
                finished_mm=finished_mm(seen[r.id]) if r.id in seen else None,
                lost_on=r.lost_on,
                lost_precision=r.lost_precision,
                lost_why=r.lost_why,
                marks=[m for m in marks if m.leaf == (r.number or i)],
                note=r.note,
            )
        )
    readings = [found for t in sorted({m.texture for m in marks}) if (found := first_reading(t)) is not None]
    judged = new_marks(marks=marks, arrived_on=p.plant.arrived_on)
    return LeafRecords(leaves=records, trend=trend, marks=judged, readings=readings)


class Baseline(Model):
    """Marks that were there when the plant came, and what is new against them."""

    arrived_on: date | None
    there: list[SeenMark]
    since: Computed[NewMarks]


@router.get("/pots/{pot_id}/baseline")
def baseline_of(pot_id: int, session: ReadSession, today: Today) -> Baseline:
    """Marks of the day of arrival, which never count, and the new ones since."""
    p = one_pot(session, pot_id, today)
    marks = _seen_marks(session, p.plant.id, today)
    came = p.plant.arrived_on
    there = [m for m in marks if m.old or (came is not None and m.on <= came)]
    return Baseline(arrived_on=came, there=there, since=new_marks(marks=marks, arrived_on=came))


@router.get("/pots/{pot_id}/leaf-balance")
def balance_of(pot_id: int, session: ReadSession, today: Today, since: date | None = None) -> Computed[LeafBalance]:
    """Leaves gained and lost over the looks since a day: as counted at a look, or as the records of leaves tell."""
    p = one_pot(session, pot_id, today)
    looks = [x for x in looks_at(session, p.plant.id, today) if since is None or x.on >= since]
    counted = [x for x in looks if x.gained is not None or x.lost is not None]
    counts = [LeafCount(x.on, x.gained or 0, x.lost or 0, _WHY.validate_python(x.lost_why)) for x in counted]
    if not counts:
        rows = [r for r in leaf_rows(session, p.plant.id) if since is None or r.opened_on >= since or r.lost_on]
        counts += [LeafCount(r.opened_on, 1, 0) for r in rows if since is None or r.opened_on >= since]
        counts += [
            LeafCount(r.lost_on, 0, 1, _WHY.validate_python(r.lost_why))
            for r in rows
            if r.lost_on is not None and (since is None or r.lost_on >= since)
        ]
    had = next((x.leaves_count for x in looks if x.leaves_count is not None), None)
    return leaf_balance(counts=counts[-MOST:], had=had, at_rest=p.phase in (*RESTING, "slowing"))


def _growth_cm(session: Session, p: PotToday, today: date, leads: bool) -> float | None:
    growths = {g.id: g.leads for g in growths_of(session, p.plant.id)}
    seen = [
        x.growth_cm
        for x in looks_at(session, p.plant.id, today)
        if x.growth_cm is not None and growths.get(x.growth_id or 0, True) is leads
    ]
    return seen[-1] if seen else None


@router.get("/pots/{pot_id}/offsets")
def offset_of(pot_id: int, session: ReadSession, today: Today) -> Computed[Offset] | None:
    """Whether the newest side growth that was measured can be taken from its parent; null: nobody measured both."""
    p = one_pot(session, pot_id, today)
    offset, parent = _growth_cm(session, p, today, False), _growth_cm(session, p, today, True)
    if offset is None or parent is None:
        return None
    return offset_ready(offset_cm=offset, parent_cm=parent)


def _bulbs(session: Session, plant_id: int, today: date) -> list[tuple[date, float]]:
    looks = looks_at(session, plant_id, today)
    found = organs_at(session, [x.id for x in looks])
    return [
        (x.on, o.count)
        for x in looks
        for o in found.get(x.id, [])
        if o.organ == "bulbs" and o.told == "seen" and o.count is not None
    ]


@router.get("/pots/{pot_id}/bulbs")
def bulbs_of(pot_id: int, session: ReadSession, today: Today) -> Computed[Pieces] | None:
    """Bulbs of a plant and of its divisions, held against what it had before; null: nobody counted."""
    p = one_pot(session, pot_id, today)
    children = [c for c in children_of(session, p.plant.id) if c.parent_relation == "division"]
    cut = [session.get_one(models.Pot, c.pot_id).repotted_on for c in children]
    cut_on = min((on for on in cut if on is not None), default=None)
    own = _bulbs(session, p.plant.id, today)
    had = [n for on, n in own if cut_on is not None and on < cut_on]
    now_ = [n for on, n in own if cut_on is None or on >= cut_on]
    pieces = [*now_[-1:], *(found[-1][1] for c in children if (found := _bulbs(session, c.id, today)))]
    if not pieces:
        return None
    return division_bulbs(pieces=pieces, had=had[-1] if had else None)


@router.get("/pots/{pot_id}/flowers")
def flowers_of(pot_id: int, session: ReadSession, today: Today) -> Computed[Bloom] | None:
    """Buds that opened at the newest bloom, and what became of the others; null: nobody counted."""
    p = one_pot(session, pot_id, today)
    looks = looks_at(session, p.plant.id, today)
    found = organs_at(session, [x.id for x in looks])
    counted = bloom_of([found.get(x.id, []) for x in looks])
    if counted is None:
        return None
    buds, opened, lost = counted
    return bloom(buds=buds, opened=opened, lost=lost)


@router.get("/pots/{pot_id}/response")
def response_of(pot_id: int, session: ReadSession, today: Today) -> Computed[ResponseScore]:
    """How the plant stands against its own usual, over everything its looks measured."""
    p = one_pot(session, pot_id, today)
    return response_score(measures=measures_now(_figures(session, p, today)))


def _figures(session: Session, p: PotToday, today: date) -> list[LookFigures]:
    looks = looks_at(session, p.plant.id, today)
    organs = organs_at(session, [x.id for x in looks])
    leaves = {x.id: finished_mm(x) for x in leaves_of(session, [p.plant.id], today).get(p.plant.id, [])}
    marks = _seen_marks(session, p.plant.id, today)
    out = []
    told: set[int] = set()
    for x in looks:
        burn = new_marks(marks=[m for m in marks if m.on <= x.on], arrived_on=p.plant.arrived_on).result.burn_points
        length = leaves.get(x.leaf_id) if x.leaf_id is not None and x.leaf_id not in told else None
        if x.leaf_id is not None and length is not None:
            told.add(x.leaf_id)  # a leaf counts once, at its finished size
        figures = LookFigures(x.on, tuple(organs.get(x.id, ())), x.posture, burn, length)
        out.append(figures)
    return out


class LeafChange(Model):
    """What is put right of a leaf, or that it was lost; what is left out stays as it was."""

    opened_on: date | None = None
    opened_precision: Precision | None = None
    lost_on: date | None = None
    lost_precision: Precision | None = None
    lost_why: LossWhy | None = None
    lost: bool | None = None  # false: it lives, whatever was noted
    note: str | None = None


@router.post("/leaves/{leaf_id}/change", status_code=201)
def change_leaf(leaf_id: int, body: LeafChange, writer: OneWrite, today: Today) -> Stored:
    """Put a leaf right, or note that it was lost; what it said before is kept."""
    for name in ("opened_on", "lost_on"):
        on = getattr(body, name)
        if on is not None:
            require_not_future(on, today, name.replace("_", " ").capitalize(), pointer=f"/{name}")

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Leaf, leaf_id, "Leaf", pointer="/leaf_id")
        changes = {k: v for k, v in body.model_dump(exclude={"lost"}).items() if v is not None}
        if body.lost is False:
            changes |= {"lost_on": None, "lost_why": ""}
        if not changes:
            raise InputError("Nothing to change. Change at least one value.")
        before = plain_row(row, list(changes))
        for key, value in changes.items():
            setattr(row, key, value)
        if row.lost_on is not None and row.lost_on < row.opened_on:
            raise Conflict(
                f"It was lost on {row.lost_on.isoformat()}, before it opened on {row.opened_on.isoformat()}. "
                "Put one of the days right.",
                pointer="/lost_on",
            )
        session.add(
            models.Correction(
                table_name="leaf", row_id=row.id, at=now(), before=before, after=plain_row(row, list(changes))
            )
        )
        session.flush()
        growth = session.get_one(models.Growth, row.growth_id)
        refresh(session, session.get_one(models.Plant, growth.plant_id).pot_id)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class RulerLength(Model):
    """A length of any leaf by ruler. [mm]"""

    on: date
    mm: Typed
    growing: bool | None = None


@router.post("/leaves/{leaf_id}/lengths", status_code=201)
def add_length(leaf_id: int, body: RulerLength, writer: OneWrite, today: Today) -> Stored:
    """Keep a length of a leaf that is not the newest."""
    require_not_future(body.on, today, "Date", pointer="/on")
    require(body.mm, "Length", "mm", low=0, open_low=True, high=5000, pointer="/mm")

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Leaf, leaf_id, "Leaf", pointer="/leaf_id")
        if body.on < row.opened_on:
            raise Conflict(
                f"The leaf opened on {row.opened_on.isoformat()}, after {body.on.isoformat()}. Check the day.",
                pointer="/on",
            )
        growth = session.get_one(models.Growth, row.growth_id)
        usual = usual_length(leaves_of(session, [growth.plant_id], today).get(growth.plant_id, []), body.on)
        check_length(body.mm, usual, "/mm")
        kept = models.LeafLengthRow(leaf_id=row.id, on=body.on, mm=body.mm, growing=body.growing)
        session.add(kept)
        session.flush()
        refresh(session, session.get_one(models.Plant, growth.plant_id).pot_id)
        return {"id": kept.id}

    return Stored(**writer.once(body, write))


class OrganHistory(Model):
    """An organ at a look; ``share`` None: it says none, or was not counted. [0 to 1]"""

    on: date
    seen: SeenOrgan
    share: float | None


@router.get("/pots/{pot_id}/organs")
def organs_of(pot_id: int, session: ReadSession, today: Today) -> list[OrganHistory]:
    """What looks saw of root tips, pitchers, dew, flowers and bulbs, oldest first."""
    p = one_pot(session, pot_id, today)
    looks = looks_at(session, p.plant.id, today)
    found = organs_at(session, [x.id for x in looks])
    return [OrganHistory(on=x.on, seen=o, share=organ_share(o)) for x in looks for o in found.get(x.id, [])]
