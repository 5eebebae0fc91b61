"""A season on paper: per plant what it was given and became, what changed, what helped; and a plant's passport."""

from __future__ import annotations

from datetime import date, timedelta

from fastapi import APIRouter
from pydantic import BaseModel
from sqlalchemy.orm import Session

from fenwa.api.answers.desk import Desk, briefs_of, desk_of
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today
from fenwa.core.entry import require, require_not_future
from fenwa.core.evidence.seasons import SeasonLog, SeasonSum, season_sum
from fenwa.store.answer_rows import poured_by
from fenwa.store.leaf_rows import plants_ever
from fenwa.store.pot_today import PotToday
from fenwa.store.salt_of_pots import medium_of
from fenwa.store.season_rows import (
    flowers_between,
    heights_between,
    leaves_between,
    nights_between,
    phases_noted,
    season_pours,
)

router = APIRouter(prefix="/api", tags=["answers"])

YEAR_DAYS, MOST_DAYS = 365, 3660
LEARNT = ("a hint", "weak", "fair", "firm")  # an answer that says something


class Dated(BaseModel):
    """Something on a day."""

    on: date
    words: str


class Told(BaseModel):
    """A change and what the log could say of it; ``at_place``: of its place; empty: nothing yet."""

    on: date
    words: str
    at_place: bool
    sentence: str


class PlantYear(BaseModel):
    """What a plant was given and became between two days."""

    pot_id: int
    code: str
    name: str
    kind: str
    place: str
    sum: SeasonSum
    flushes: int
    last_flush_on: date | None
    flowers: float | None
    waters: list[str]
    told: list[Told]


class Loss(BaseModel):
    """A plant that died."""

    on: date
    code: str
    name: str
    cause: str


class SeasonReport(BaseModel):
    """The collection between two days."""

    since: date
    until: date
    plants: list[PlantYear]
    losses: list[Loss]


class Passport(BaseModel):
    """A plant's own sheet, for whoever has it next."""

    today: date
    year: PlantYear
    kind_name: str
    medium: str
    volume_L: float
    source: str
    arrived_on: date | None
    water_most_uS_cm: float
    feed_most_uS_cm: float | None
    interval_days: float
    interval_by: str
    hazard: str
    phases: list[Dated]


def _year(session: Session, desk: Desk, p: PotToday, since: date, until: date) -> PlantYear:
    pours = poured_by(session, [p.pot.id], since, until).get(p.pot.id, [])
    flushed = sorted({x.on for x in pours if x.job == "flush"})
    log = SeasonLog(
        name=p.name,
        woke_on=since,
        days=(until - since).days,
        pours=season_pours(session, p.pot.id, since, until),
        heights=heights_between(session, p.plant.id, since, until),
        leaves=leaves_between(session, p.plant.id, since, until),
        nights=nights_between(session, p.pot.place_id, since, until),
    )
    said = {
        (b.on, b.words): b.sentence
        for b in briefs_of(desk, session, p)
        if since <= b.on <= until and b.measured is not None and b.grade in LEARNT
    }
    own = {(c.on, c.words) for c in desk.changes.get(p.pot.id, []) if since <= c.on <= until and c.whose == "pot"}
    told = [
        Told(on=on, words=words, at_place=(on, words) not in own, sentence=said.get((on, words), ""))
        for on, words in sorted({*own, *said})
    ]
    return PlantYear(
        pot_id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        kind=p.profile.short,
        place=p.place,
        sum=season_sum(log, log.days, p.profile.climate.night_C[0]),
        flushes=len(flushed),
        last_flush_on=flushed[-1] if flushed else None,
        flowers=flowers_between(session, p.plant.id, since, until),
        waters=sorted({x.water for x in pours if x.water}),
        told=told,
    )


def _since(since: date | None, until: date) -> date:
    if since is None:
        return until - timedelta(days=YEAR_DAYS)
    require_not_future(since, until, "First day", pointer="/since")
    require((until - since).days, "Days of the report", "d", low=1, high=MOST_DAYS, pointer="/since")
    return since


@router.get("/season-report")
def season_report(session: ReadSession, today: Today, since: date | None = None) -> SeasonReport:
    """Every plant since a day, a year if none is named: fed, flushed, leaves, flowers, losses, changes, what helped."""
    first, desk = _since(since, today), desk_of(session, today)
    rows = sorted(desk.pots.values(), key=lambda p: p.pot.shelf_order)
    losses = [
        Loss(on=x.died_on, code=x.pot.code, name=x.label or x.pot.name, cause=x.death_cause or "")
        for x in plants_ever(session)
        if x.died_on is not None and first <= x.died_on <= today
    ]
    return SeasonReport(
        since=first,
        until=today,
        plants=[_year(session, desk, p, first, today) for p in rows],
        losses=sorted(losses, key=lambda x: x.on),
    )


@router.get("/pots/{pot_id}/passport")
def passport(pot_id: int, session: ReadSession, today: Today) -> Passport:
    """What whoever has this plant next should know: its year, its phases, its limits, what was learnt of it."""
    p = one_pot(session, pot_id, today)
    desk = desk_of(session, today)
    return Passport(
        today=today,
        year=_year(session, desk, p, today - timedelta(days=YEAR_DAYS), today),
        kind_name=p.profile.name,
        medium=medium_of(p.pot).name,
        volume_L=p.pot.volume_L,
        source=p.plant.source,
        arrived_on=p.plant.arrived_on,
        water_most_uS_cm=p.profile.source_water.ec_max_uS_cm,
        feed_most_uS_cm=p.feed_ceiling_uS_cm,
        interval_days=p.interval.days,
        interval_by=p.pot.interval_by,
        hazard=p.profile.hazard.to_pets,
        phases=[Dated(on=on, words=phase) for on, phase in phases_noted(session, p.plant.id)],
    )
