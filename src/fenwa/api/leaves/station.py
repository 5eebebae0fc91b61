"""The Leaf station: a line a plant, each leaf against that plant's own usual, and what its newest change did."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy.orm import Session

from fenwa.api.files import csv_answer
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today, as_json
from fenwa.core.leaf.line import LeafLine, flush_changes, leaf_line
from fenwa.core.working import Computed
from fenwa.formats.table import write_table
from fenwa.store.collection import pots_today
from fenwa.store.leaf_rows import leaves_of, poured_days
from fenwa.store.pot_today import PotToday

router = APIRouter(prefix="/api", tags=["leaves"])

WINDOW_DAYS = 425  # fourteen months: a leaf of the same season last year stands on the line too


class PlantLine(BaseModel):
    """A plant with its line of leaves; days it was fed and flushed. Last look None: never looked at."""

    pot_id: int
    code: str
    name: str
    profile_id: str
    profile: str
    place: str
    school: str
    last_look_on: date | None
    marks: list[str]
    leaves_count: int | None
    newest_leaf_mm: float | None
    line: LeafLine
    fed: list[date]
    flushed: list[date]


class LeafPage(BaseModel):
    """Every plant's line over the last fourteen months."""

    today: date
    since: date
    plants: list[PlantLine]


@dataclass(frozen=True)
class _Drawn:
    p: PotToday
    computed: Computed[LeafLine]
    fed: list[date]
    flushed: list[date]


def _lines(session: Session, pots: Sequence[PotToday], today: date) -> list[_Drawn]:
    leaves = leaves_of(session, [p.plant.id for p in pots], today)
    poured = poured_days(session, [p.pot.id for p in pots], today - timedelta(days=WINDOW_DAYS), today)
    out = []
    for p in pots:
        days = poured.get(p.pot.id, {"feed": [], "flush": []})
        computed = leaf_line(
            leaves=leaves.get(p.plant.id, []),
            changes=flush_changes(days["flush"], p.profile.lag_days.overfeeding),
            today=today,
            phase=p.phase,
            look_due=p.look_is_due,
        )
        out.append(_Drawn(p, computed, days["feed"], days["flush"]))
    return out


@router.get("/leaves", response_model=LeafPage)
def leaf_station(session: ReadSession, today: Today) -> Response:
    """Every plant with its line of leaves, those to look at first."""
    plants = [
        PlantLine(
            pot_id=p.pot.id,
            code=p.pot.code,
            name=p.name,
            profile_id=p.plant.profile_id,
            profile=p.profile.short,
            place=p.place,
            school=p.school.name if p.school else "its own rhythm",
            last_look_on=p.log.last_look_on,
            marks=list(p.log.marks),
            leaves_count=p.log.leaves_count,
            newest_leaf_mm=p.log.newest_leaf_mm,
            line=drawn.computed.result,
            fed=drawn.fed,
            flushed=drawn.flushed,
        )
        for drawn in _lines(session, pots_today(session, today), today)
        for p in (drawn.p,)
    ]
    return as_json(LeafPage(today=today, since=today - timedelta(days=WINDOW_DAYS), plants=plants))


@router.get("/pots/{pot_id}/leaf-line")
def leaf_line_of(pot_id: int, session: ReadSession, today: Today) -> Computed[LeafLine]:
    """The line of one plant with its working."""
    return _lines(session, [one_pot(session, pot_id, today)], today)[0].computed


@router.get("/leaves.csv", response_class=Response)
def export_leaves(session: ReadSession, today: Today) -> Response:
    """Every leaf, one row each: the table behind the drawing."""
    rows = [
        [
            x.p.pot.code,
            x.p.name,
            leaf.opened_on.isoformat(),
            leaf.mm,
            "yes" if leaf.growing else "no",
            None if leaf.share is None else round(100 * leaf.share),
            leaf.formed or "",
            x.computed.result.word,
        ]
        for x in _lines(session, pots_today(session, today), today)
        for leaf in x.computed.result.leaves
    ]
    head = ["pot", "plant", "opened", "length (mm)", "growing", "of usual (%)", "against the newest change", "verdict"]
    return csv_answer(write_table(head, rows), "leaves.csv")
