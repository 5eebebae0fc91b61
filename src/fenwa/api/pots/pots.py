"""Pots: the list, one pot's strata, its flush, and keeping a new one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, timedelta

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.entered import PotIn, store_pots
from fenwa.api.pots.shown import LookOut, PhaseOut, PotRow, one_pot, pot_row
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, as_json
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.api.windowed import WINDOW, Count, Skip, numbers, window
from fenwa.core.care.prills import Prills
from fenwa.core.errors import NotFound
from fenwa.core.pot.flush import FlushPlan, flush_plan
from fenwa.core.pot.fold import fold
from fenwa.core.pot.folded import Point
from fenwa.core.pot.methods import Method
from fenwa.core.pot.root_zone import HORIZON_DAYS, RootZone, report, told_apart
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.collection import kept_of_pots, pots_today
from fenwa.store.flush_state import flush_totals
from fenwa.store.pot_balance import PotBalance, balance_of
from fenwa.store.pot_rows import candidate_of, corrected_pours, decisions_of, happened, looks_until
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import water_of_pot
from fenwa.store.salt_of_pots import medium_of
from fenwa.store.summary import open_pours, phases
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api", tags=["pots"])

SHOWN_DAYS = 430  # the longest window of the chart, fourteen months
SHOWN_AT_LEAST = 6  # last pours, however long ago


class PotsPage(Model):
    """A window of the pots found: ``total`` are found, ``kept`` there are in all."""

    today: date
    total: int
    kept: int
    pots: list[PotRow]


class PotName(Model):
    """A pot to be chosen in a form."""

    id: int
    code: str
    name: str
    profile: str
    place: str


class PourOut(Model):
    """A pour as the chart draws it."""

    id: int
    on: date
    job: str
    route: str
    volume_L: float | None
    ec_uS_cm: float | None
    ec_estimated: bool
    runoff_L: float | None
    runoff_ec_uS_cm: float | None
    runoff_method: Method | None
    note: str
    felt: str
    by: str
    gave: str
    plant_id: int | None
    corrected: bool
    flush_L: float | None  # of a flush, on its first pass: all that was poured; None: no flush, or a later pass
    broken_off: bool


class PoursPage(Model):
    """A window of a pot's pours."""

    total: int
    pours: list[PourOut]


class EventOut(Model):
    """Something dated that confounds what is read off the chart: at the pot, or at its place."""

    on: date
    what: str
    at_place: bool


class PotPage(Model):
    """One pot: facts, salt balance with working, and the log for the strata."""

    today: date
    row: PotRow
    medium: str
    pot_volume_L: float
    interval_days: float
    plain_every: int
    hazard: str
    profile_id: str
    profile_name: str
    own_figures: bool
    confidence: str
    arrived_on: date | None
    pour_water_id: int | None
    pour_water: str
    water_note: str
    root_zone: RootZone
    working: Working
    pours_total: int
    pours: list[PourOut]  # those of the months a chart shows, the last few in any case
    looks: list[LookOut]
    phases: list[PhaseOut]
    events: list[EventOut]
    bought_on: str  # the verdict it was bought on; empty: none was asked
    by_medium: Point | None  # the reading its medium alone would have told; None: nothing was read
    read_sentence: str
    prills_sentence: str
    prills: Prills | None


@router.get("/pots", response_model=PotsPage)
def list_pots(
    session: ReadSession, today: Today, find: str = "", ids: str = "", skip: Skip = 0, count: Count = WINDOW
) -> Response:
    """Pots in walking order with today's predicted reading: those that every word is found in, or those named."""
    every = pots_today(session, today)
    named, words = numbers(ids, "/ids"), find.lower().split()
    found = [p for p in every if (not named or p.pot.id in named) and (not words or _is_found(p, words))]
    rows = [pot_row(p) for p in window(found, skip, count)]
    return as_json(PotsPage(today=today, total=len(found), kept=len(every), pots=rows))


def _is_found(p: PotToday, words: Sequence[str]) -> bool:
    """Whether every word stands in its code, names, kind, place, phase, school or tags."""
    row = pot_row(p)
    told = (row.code, row.name, row.profile, row.place, row.spot, row.phase, row.school, *row.plants, *row.tags)
    text = " ".join(told).lower()
    return all(word in text for word in words)


@router.get("/pots/names", response_model=list[PotName])
def pot_names(session: ReadSession, today: Today) -> list[PotName]:
    """Every pot by code and name, in walking order: what forms choose from."""
    return [
        PotName(id=p.pot.id, code=p.pot.code, name=p.name, profile=p.profile.short, place=p.place)
        for p in pots_today(session, today)
    ]


def balance(b: PotBalance, p: PotToday, today: date) -> Computed[RootZone]:
    """The salt balance of a pot over its log, with what its readings taught."""
    ceiling = p.profile.root_zone.ec_ceiling_uS_cm
    computed = report(p.spec, b.now, b.events, today, ceiling, HORIZON_DAYS)
    return replace(computed, working=replace(computed.working, formula_id="pot.root_zone.root_zone"))


@router.get("/pots/{pot_id}", response_model=PotPage)
def pot_page(pot_id: int, session: ReadSession, today: Today) -> Response:
    """One pot with its strata."""
    p = one_pot(session, pot_id, today)
    pours = open_pours(session, pot_id)
    b = balance_of(session, p, today, pours)
    computed = balance(b, p, today)
    pours = [x for x in pours if x.on <= today]
    known, since = len(pours), today - timedelta(days=SHOWN_DAYS)
    pours = [x for i, x in enumerate(pours) if x.on >= since or i >= known - SHOWN_AT_LEAST]
    looks = [x for x in looks_until(session, pot_id, today) if x.on >= since]
    corrected = corrected_pours(session, [x.id for x in pours])
    flushes = flush_totals(session, pours)
    choice, water = water_of_pot(session, p, today)
    h = p.profile.hazard
    page = PotPage(
        today=today,
        row=pot_row(p),
        medium=medium_of(p.pot).name,
        pot_volume_L=p.pot.volume_L,
        interval_days=p.interval.days,
        plain_every=p.pot.plain_every,
        hazard=f"Hazard to pets: {h.to_pets}",
        profile_id=p.plant.profile_id,
        own_figures=p.own_figures,
        profile_name=p.profile.name,
        confidence=p.profile.confidence,
        arrived_on=p.plant.arrived_on,
        pour_water_id=water.water.id if water else None,
        pour_water=water.water.name if water else "",
        water_note=choice.note,
        root_zone=computed.result,
        working=computed.working,
        pours_total=known,
        pours=[_pour_out(x, x.id in corrected, flushes) for x in pours],
        looks=[LookOut(**{k: getattr(x, k) for k in LookOut.model_fields}) for x in looks],
        phases=[PhaseOut(phase=s.phase, since=s.since) for s in phases(session, p.plant.id)],
        events=[e for e in _events(session, p, today) if e.on >= since],
        bought_on=_bought_on(session, pot_id),
        by_medium=_by_medium(session, p, b, today) if computed.result.observations else None,
        read_sentence=told_apart(computed.result),
        prills_sentence=p.day.kept.prills.sentence if p.day.kept.prills else "",
        prills=p.day.kept.prills,
    )
    return as_json(page)


@router.get("/pots/{pot_id}/pours", response_model=PoursPage)
def pours_of_pot(pot_id: int, session: ReadSession, today: Today, skip: Skip = 0, count: Count = WINDOW) -> PoursPage:
    """Every pour of a pot, the newest first."""
    one_pot(session, pot_id, today)
    pours = [x for x in reversed(open_pours(session, pot_id)) if x.on <= today]
    shown = window(pours, skip, count)
    corrected, flushes = corrected_pours(session, [x.id for x in shown]), flush_totals(session, pours)
    return PoursPage(total=len(pours), pours=[_pour_out(x, x.id in corrected, flushes) for x in shown])


def _events(session: Session, p: PotToday, today: date) -> list[EventOut]:
    """What happened to the pot and at its place, oldest first; jobs done or put off are none."""
    found = [
        EventOut(on=e.on, what=e.note if e.kind == "other" and e.note else e.kind, at_place=e.place_id is not None)
        for e in happened(session, p.pot, today)
    ]
    found += [EventOut(on=d.on, what=d.what, at_place=False) for d in decisions_of(session, p.pot.id) if d.on <= today]
    return sorted(found, key=lambda e: e.on)


def _bought_on(session: Session, pot_id: int) -> str:
    row = candidate_of(session, pot_id)
    return f"Judged on {row.on} as “{row.name}”: {row.answer['sentence']}" if row is not None else ""


def _by_medium(session: Session, p: PotToday, b: PotBalance, today: date) -> Point:
    """What its log and its medium alone would tell of today, nothing learnt; worked out once while nothing is new."""

    def made(new: Sequence[PotToday]) -> dict[int, Point]:
        return {p.pot.id: fold(p.spec, b.events, today, b.readings, learn=False).points[-1]}

    return kept_of_pots(session, "by medium", [p], made)[p.pot.id]


def _pour_out(p: models.Pour, corrected: bool, flushes: dict[int, tuple[int, float, bool]]) -> PourOut:
    r = p.runoff if p.runoff is not None and p.runoff.archived_at is None else None
    flush = flushes.get(p.flush_id or 0)
    return PourOut(
        id=p.id,
        on=p.on,
        job=p.job,
        route=p.route,
        volume_L=p.volume_L,
        ec_uS_cm=p.ec_uS_cm,
        ec_estimated=p.ec_estimated,
        runoff_L=r.volume_L if r else None,
        runoff_ec_uS_cm=r.ec_uS_cm if r else None,
        runoff_method=r.method if r else None,
        note=p.note,
        felt=p.felt,
        by=p.by,
        gave=p.gave,
        plant_id=p.plant_id,
        corrected=corrected,
        flush_L=flush[1] if flush and flush[0] == p.id else p.volume_L if flush is None and p.job == "flush" else None,
        broken_off=bool(flush and flush[2]),
    )


@router.get("/pots/{pot_id}/root-zone")
def root_zone_working(pot_id: int, session: ReadSession, today: Today) -> Working:
    """Working of the predicted reading, for lists."""
    p = one_pot(session, pot_id, today)
    return balance(balance_of(session, p, today), p, today).working


class FlushIn(Model):
    """A flush to be worked out. Empty target: the top of the comfortable range."""

    water_id: int
    target_reading: TypedOrNone = None
    round_L: TypedOrNone = None


@router.post("/pots/{pot_id}/flush-plan")
def plan_flush(pot_id: int, body: FlushIn, session: ReadSession, today: Today) -> Computed[FlushPlan]:
    """Litres and rounds that bring this pot down."""
    p = one_pot(session, pot_id, today)
    water = next((w for w in waters_today(session, today) if w.water.id == body.water_id), None)
    if water is None:
        raise NotFound(f"Water {body.water_id} is not there. It may have been archived.", pointer="/water_id")
    z = balance(balance_of(session, p, today), p, today).result
    target = body.target_reading if body.target_reading is not None else p.profile.root_zone.ec_ideal_uS_cm[1]
    return flush_plan(
        pot=p.spec,
        root_zone_uS_cm=z.root_zone_uS_cm,
        target_reading_uS_cm=target,
        water_uS_cm=water.reckoned_uS_cm,
        round_L=body.round_L,
        deficit_L=z.deficit_L,
        from_above=p.profile.flush.from_above,
    )


@router.post("/pots", status_code=201)
def add_pot(body: PotIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a new pot, or several alike; the id is the first one's."""
    return Stored(**writer.once(body, lambda s: {"id": store_pots(s, body, today)[0].id}))
