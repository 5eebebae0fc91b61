"""A season on paper: per plant what it was given and became, what changed, what helped; and a plant's passport."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.answers.desk import Desk, briefs_of, desk_of
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today, as_json
from fenwa.api.ways import Ways
from fenwa.api.windowed import WINDOW, Count, Skip, window
from fenwa.core.entry import require, require_not_future
from fenwa.core.evidence.seasons import SeasonSum, season_sum
from fenwa.store.answer_rows import poured_by
from fenwa.store.collection import AT_ONCE, batched, kept_of_pots
from fenwa.store.leaf_rows import plants_ever
from fenwa.store.pot_today import PotToday
from fenwa.store.salt_of_pots import medium_of
from fenwa.store.season_rows import phases_noted, season_logs

router = Ways(prefix="/api", tags=["answers"])

YEAR_DAYS, MOST_DAYS = 365, 3660
LEARNT = ("a hint", "weak", "fair", "firm")  # an answer that says something


class Dated(Model):
    """Something on a day."""

    on: date
    words: str


class Told(Model):
    """A change and what the log could say of it; ``at_place``: of its place; empty: nothing yet."""

    on: date
    words: str
    at_place: bool
    sentence: str


class PlantYear(Model):
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


class Loss(Model):
    """A plant that died."""

    on: date
    code: str
    name: str
    cause: str


class SeasonReport(Model):
    """The collection between two days. ``total``: plants there are; those sent are a window of them."""

    since: date
    until: date
    total: int
    plants: list[PlantYear]
    losses: list[Loss]


class Passport(Model):
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


@dataclass(frozen=True)
class _Lived:
    """What of a plant's year rests on its own log."""

    sum: SeasonSum
    flushed: list[date]
    flowers: float | None
    waters: list[str]


def _lived(session: Session, pots: Sequence[PotToday], since: date, until: date) -> dict[int, _Lived]:
    """Years of plants, worked out together: a few questions to the database, however many there are."""
    out: dict[int, _Lived] = {}
    for some in batched(pots, AT_ONCE):
        poured = poured_by(session, [p.id for p in some], since, until)
        logs = season_logs(session, some, since, until)
        for p in some:
            mine, log = poured.get(p.id, []), logs[p.id]
            out[p.id] = _Lived(
                season_sum(log, log.days, p.profile.climate.night_C[0]),
                sorted({x.on for x in mine if x.job == "flush"}),
                log.flowers,
                sorted({x.water for x in mine if x.water}),
            )
    return out


def _year(session: Session, desk: Desk, p: PotToday, lived: _Lived, since: date, until: date) -> PlantYear:
    said = {
        (b.on, b.words): b.sentence
        for b in briefs_of(desk, session, p)
        if since <= b.on <= until and b.measured is not None and b.grade in LEARNT
    }
    own = {(c.on, c.words) for c in desk.changes.get(p.id, []) if since <= c.on <= until and c.whose == "pot"}
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
        sum=lived.sum,
        flushes=len(lived.flushed),
        last_flush_on=lived.flushed[-1] if lived.flushed else None,
        flowers=lived.flowers,
        waters=lived.waters,
        told=told,
    )


def _since(since: date | None, until: date) -> date:
    if since is None:
        return until - timedelta(days=YEAR_DAYS)
    require_not_future(since, until, "First day", pointer="/since")
    require((until - since).days, "Days of the report", "d", low=1, high=MOST_DAYS, pointer="/since")
    return since


@router.get("/season-report", response_model=SeasonReport)
def season_report(
    session: ReadSession, today: Today, since: date | None = None, skip: Skip = 0, count: Count = WINDOW
) -> Response:
    """Every plant since a day, a year if none is named: fed, flushed, leaves, flowers, losses, changes, what helped."""
    first, desk = _since(since, today), desk_of(session, today)
    rows = window(sorted(desk.pots.values(), key=lambda p: p.pot.shelf_order), skip, count)
    losses = [
        Loss(on=x.died_on, code=x.pot.code, name=x.label or x.pot.name, cause=x.death_cause or "")
        for x in plants_ever(session)
        if x.died_on is not None and first <= x.died_on <= today
    ]

    def made(new: Sequence[PotToday]) -> dict[int, _Lived]:
        return _lived(session, new, first, today)

    # the usual year is kept, so that a report looked at again costs what was written since
    lived = kept_of_pots(session, "years", rows, made, ("water", "batch", "climate")) if since is None else made(rows)
    page = SeasonReport(
        since=first,
        until=today,
        total=len(desk.pots),
        plants=[_year(session, desk, p, lived[p.id], first, today) for p in rows],
        losses=sorted(losses, key=lambda x: x.on),
    )
    return as_json(page)


@router.get("/pots/{pot_id}/passport")
def passport(pot_id: int, session: ReadSession, today: Today) -> Passport:
    """What whoever has this plant next should know: its year, its phases, its limits, what was learnt of it."""
    p = one_pot(session, pot_id, today)
    desk, year_ago = desk_of(session, today), today - timedelta(days=YEAR_DAYS)
    return Passport(
        today=today,
        year=_year(session, desk, p, _lived(session, [p], year_ago, today)[p.id], year_ago, today),
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
