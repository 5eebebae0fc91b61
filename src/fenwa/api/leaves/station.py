"""The Leaf station: a line a plant, each leaf against that plant's own usual, and what its newest change did."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.files import csv_answer
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today, as_json
from fenwa.api.ways import Ways
from fenwa.api.windowed import WINDOW, Count, Skip, window
from fenwa.core.leaf.headings import GroupBy, Looked, Shown, is_folded, under_headings
from fenwa.core.leaf.line import LeafLine, flush_changes, leaf_line
from fenwa.core.working import Computed
from fenwa.formats.table import write_table
from fenwa.store.collection import AT_ONCE, batched, kept_of_pots, pots_today
from fenwa.store.leaf_rows import leaves_of, poured_days
from fenwa.store.pot_today import PotToday

router = Ways(prefix="/api", tags=["leaves"])

NOT_POURED: dict[str, list[date]] = {"feed": [], "flush": []}
LEAST_OF_A_GROUP = 5
WINDOW_DAYS = 425  # fourteen months: a leaf of the same season last year stands on the line too


class PlantLine(Model):
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


class LeafGroup(Model):
    """Plants under one heading, the longest unseen first: ``total`` of them, and the first few."""

    key: str
    folds: bool
    total: int
    plants: list[PlantLine]


class FirstToLook(Model):
    """The plant to look at first."""

    pot_id: int
    code: str


class LeafPage(Model):
    """Plants in groups, each a line over the last fourteen months. ``first`` None: no plant is kept."""

    today: date
    since: date
    total: int
    first: FirstToLook | None
    groups: list[LeafGroup]


class LeafRows(Model):
    """More plants of a group."""

    total: int
    plants: list[PlantLine]


@dataclass(frozen=True)
class _Drawn:
    p: PotToday
    computed: Computed[LeafLine]


def _lines(session: Session, pots: Sequence[PotToday], today: date) -> list[_Drawn]:
    leaves = leaves_of(session, [p.plant.id for p in pots], today)
    poured = poured_days(session, [p.pot.id for p in pots], today - timedelta(days=WINDOW_DAYS), today)
    out = []
    for p in pots:
        computed = leaf_line(
            leaves=leaves.get(p.plant.id, []),
            changes=flush_changes(poured.get(p.pot.id, NOT_POURED)["flush"], p.profile.lag_days.overfeeding),
            today=today,
            phase=p.phase,
            look_due=p.look_is_due,
        )
        out.append(_Drawn(p, computed))
    return out


def _lines_kept(session: Session, pots: Sequence[PotToday], today: date) -> dict[int, tuple[LeafLine, Looked]]:
    """The line of every pot and what sorts it, worked out anew where something of it was written."""

    def made(new: Sequence[PotToday]) -> dict[int, tuple[LeafLine, Looked]]:
        drawn = (x for some in batched(new, AT_ONCE) for x in _lines(session, some, today))
        return {x.p.id: (x.computed.result, _looked(x.p, x.computed.result)) for x in drawn}

    return kept_of_pots(session, "leaf lines", pots, made)


def _looked(p: PotToday, line: LeafLine) -> Looked:
    return Looked(
        id=p.id,
        question=line.group,
        marked=bool(p.log.marks),
        last_on=p.log.last_look_on,
        kind=p.profile.short,
        place=p.place,
        school=_school(p),
    )


def _grouped(
    pots: Sequence[PotToday], lines: dict[int, tuple[LeafLine, Looked]], by: GroupBy, show: Shown
) -> dict[str, list[PotToday]]:
    """Pots under the headings of their plants."""
    by_id = {p.id: p for p in pots}
    looked = [lines[p.id][1] for p in pots]
    return {heading: [by_id[i] for i in ids] for heading, ids in under_headings(looked, by, show).items()}


def _school(p: PotToday) -> str:
    return p.school.name if p.school else "its own rhythm"


def _plants(
    session: Session, pots: Sequence[PotToday], lines: dict[int, tuple[LeafLine, Looked]], today: date
) -> list[PlantLine]:
    def made(new: Sequence[PotToday]) -> dict[int, PlantLine]:
        poured = poured_days(session, [p.id for p in new], today - timedelta(days=WINDOW_DAYS), today)
        return {p.id: _plant(p, lines[p.id][0], poured.get(p.id, NOT_POURED)) for p in new}

    kept = kept_of_pots(session, "leaf rows", pots, made)
    return [kept[p.id] for p in pots]


def _plant(p: PotToday, line: LeafLine, poured: Mapping[str, list[date]]) -> PlantLine:
    return PlantLine(
        pot_id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        profile_id=p.plant.profile_id,
        profile=p.profile.short,
        place=p.place,
        school=_school(p),
        last_look_on=p.log.last_look_on,
        marks=list(p.log.marks),
        leaves_count=p.log.leaves_count,
        newest_leaf_mm=p.log.newest_leaf_mm,
        line=line,
        fed=poured["feed"],
        flushed=poured["flush"],
    )


@router.get("/leaves", response_model=LeafPage)
def leaf_station(session: ReadSession, today: Today, by: GroupBy = "question", show: Shown = "all") -> Response:
    """Plants in groups, those to look at first; of each group the first few."""
    pots = pots_today(session, today)
    lines = _lines_kept(session, pots, today)
    groups = _grouped(pots, lines, by, show)
    asked = groups if (by, show) == ("question", "all") else _grouped(pots, lines, "question", "all")
    first = next((mine[0] for mine in asked.values()), None)
    total = sum(map(len, groups.values()))
    each = total if total <= WINDOW else max(LEAST_OF_A_GROUP, WINDOW // len(groups))
    shown = {x.pot_id: x for x in _plants(session, [p for mine in groups.values() for p in mine[:each]], lines, today)}
    page = LeafPage(
        today=today,
        since=today - timedelta(days=WINDOW_DAYS),
        total=total,
        first=FirstToLook(pot_id=first.pot.id, code=first.pot.code) if first else None,
        groups=[
            LeafGroup(
                key=key,
                folds=is_folded(key, by),
                total=len(mine),
                plants=[shown[p.pot.id] for p in mine[:each]],
            )
            for key, mine in groups.items()
        ],
    )
    return as_json(page)


@router.get("/leaves/more", response_model=LeafRows)
def more_of_group(
    session: ReadSession,
    today: Today,
    group: str,
    by: GroupBy = "question",
    show: Shown = "all",
    skip: Skip = 0,
    count: Count = WINDOW,
) -> Response:
    """More plants of a group; none of a group there is not."""
    pots = pots_today(session, today)
    lines = _lines_kept(session, pots, today)
    mine = _grouped(pots, lines, by, show).get(group, [])
    return as_json(LeafRows(total=len(mine), plants=_plants(session, window(mine, skip, count), lines, today)))


@router.get("/pots/{pot_id}/leaf-line")
def leaf_line_of(pot_id: int, session: ReadSession, today: Today) -> Computed[LeafLine]:
    """The line of one plant with its working."""
    return _lines(session, [one_pot(session, pot_id, today)], today)[0].computed


@router.get("/leaves.csv", response_class=Response)
def export_leaves(session: ReadSession, today: Today) -> Response:
    """Every leaf, one row each: the table behind the drawing."""
    pots = pots_today(session, today)
    lines = _lines_kept(session, pots, today)
    rows = [
        [
            p.pot.code,
            p.name,
            leaf.opened_on.isoformat(),
            leaf.mm,
            "yes" if leaf.growing else "no",
            None if leaf.share is None else round(100 * leaf.share),
            leaf.formed or "",
            lines[p.id][0].word,
        ]
        for p in pots
        for leaf in lines[p.id][0].leaves
    ]
    head = ["pot", "plant", "opened", "length (mm)", "growing", "of usual (%)", "against the newest change", "verdict"]
    return csv_answer(write_table(head, rows), "leaves.csv")
