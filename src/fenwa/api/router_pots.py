"""Pots: the list, one pot's strata, its flush, and keeping a new one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from functools import lru_cache
from typing import Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.writing import Reading, Stored, Today, Writing, ready
from fenwa.core.care.holds import Hold, Phase
from fenwa.core.data.loader import get_medium, get_profile
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, NotFound, Underspecified
from fenwa.core.pot.flush import FlushPlan, flush_plan
from fenwa.core.pot.fold import rest_until
from fenwa.core.pot.geometry import pot_volume
from fenwa.core.pot.root_zone import HORIZON_DAYS, RootZone, report, root_zone
from fenwa.core.pot.specification import Drainage, Route
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.collection import pots_today
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import as_event, open_pours, phases, refresh, stored_fold
from fenwa.store.water_state import waters_today

router = APIRouter(prefix="/api", tags=["pots"])

Mark = Literal["tip", "rim", "spot", "yellow oldest", "crust", "limp", "rot"]
ReadingUnit = Literal["µS/cm", "mS/cm"]


class PotRow(BaseModel):
    """A pot in a list: limits are readings, and so is the figure compared with them."""

    id: int
    code: str
    name: str
    place: str
    spot: str
    profile: str
    phase: str
    isolated: bool
    drainage: Drainage
    reading_uS_cm: float | None
    reading_low_uS_cm: float | None
    reading_high_uS_cm: float | None
    ideal_low_uS_cm: float
    ideal_high_uS_cm: float
    ceiling_uS_cm: float
    measured_uS_cm: float | None
    measured_on: date | None
    last_pour_on: date | None
    last_look_on: date | None
    marks: list[str]
    newest_leaf_mm: float | None
    leaves_count: int | None
    holds: list[Hold]
    volume_L: float
    route: Route


class PotsPage(BaseModel):
    """All pots."""

    today: date
    pots: list[PotRow]


class PourOut(BaseModel):
    """A pour as the chart draws it."""

    id: int
    on: date
    job: str
    route: str
    volume_L: float | None
    ec_uS_cm: float | None
    runoff_L: float | None
    runoff_ec_uS_cm: float | None
    note: str
    felt: str
    by: str
    corrected: bool


class LookOut(BaseModel):
    """A look as the chart draws it."""

    id: int
    on: date
    leaves_count: int | None
    newest_leaf_mm: float | None
    new_leaf: bool
    marks: list[str]
    unknown: list[str]
    note: str


class PhaseOut(BaseModel):
    """A phase from a day on."""

    phase: Phase
    since: date


class PotPage(BaseModel):
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
    root_zone: RootZone
    working: Working
    pours: list[PourOut]
    looks: list[LookOut]
    phases: list[PhaseOut]


@lru_cache(maxsize=8192)
def pot_row(p: PotToday) -> PotRow:
    """A pot for a list."""
    rz = p.profile.root_zone
    return PotRow(
        id=p.pot.id, code=p.pot.code, name=p.name, place=p.place, spot=p.pot.spot, profile=p.profile.short,
        phase=p.phase, isolated=p.pot.isolated, drainage=p.pot.drainage,
        reading_uS_cm=p.reading, reading_low_uS_cm=p.reading_low, reading_high_uS_cm=p.reading_high,
        ideal_low_uS_cm=rz.ec_ideal_uS_cm[0], ideal_high_uS_cm=rz.ec_ideal_uS_cm[1],
        ceiling_uS_cm=rz.ec_ceiling_uS_cm, measured_uS_cm=p.data["last_equivalent"],
        measured_on=p.data["last_equivalent_on"], last_pour_on=p.data["last_pour_on"],
        last_look_on=p.data["last_look_on"], marks=p.data["marks"], newest_leaf_mm=p.data["newest_leaf_mm"],
        leaves_count=p.data["leaves_count"], holds=list(p.holds), volume_L=p.volume_L,
        route=p.pot.route,
    )  # fmt: skip


def one_pot(session: Session, pot_id: int, today: date) -> PotToday:
    """One pot today, or NotFound."""
    found = pots_today(session, today, {pot_id})
    if not found:
        raise NotFound(f"Pot {pot_id} is not there. It may have been archived.", pointer="/pot_id")
    return found[0]


@router.get("/pots", response_model=PotsPage)
def list_pots(session: Reading, today: Today) -> Response:
    """Every pot kept with today's predicted reading."""
    return ready(PotsPage(today=today, pots=[pot_row(p) for p in pots_today(session, today)]))


def balance(session: Session, p: PotToday, today: date, pours: Sequence[models.Pour]) -> Computed[RootZone]:
    """The salt balance of a pot over its log, from the stored fold where it serves."""
    events = [as_event(x) for x in pours if x.on <= today]
    ceiling = p.profile.root_zone.ec_ceiling_uS_cm
    folded = stored_fold(session.get_one(models.PotSummary, p.pot.id), p.spec, today)
    if folded is None:
        return root_zone(pot=p.spec, events=events, today=today, ceiling_uS_cm=ceiling)
    computed = report(p.spec, rest_until(p.spec, folded, today), events, today, ceiling, HORIZON_DAYS)
    return replace(computed, working=replace(computed.working, formula_id="pot.root_zone.root_zone"))


@router.get("/pots/{pot_id}", response_model=PotPage)
def pot_page(pot_id: int, session: Reading, today: Today) -> Response:
    """One pot with its strata."""
    p = one_pot(session, pot_id, today)
    pours = open_pours(session, pot_id)
    computed = balance(session, p, today, pours)
    pours = [x for x in pours if x.on <= today]
    looks = session.scalars(
        select(models.Look)
        .where(models.Look.pot_id == pot_id, models.Look.archived_at.is_(None), models.Look.on <= today)
        .order_by(models.Look.on, models.Look.id)
    )
    corrected = set(
        session.scalars(select(models.Correction.row_id).where(
            models.Correction.table_name == "pour", models.Correction.row_id.in_([x.id for x in pours])))
    )  # fmt: skip
    h = p.profile.hazard
    hazard = {"none_known": "none known, which is no promise"}.get(h.pets, h.pets)
    page = PotPage(
        today=today, row=pot_row(p), medium=get_medium(p.pot.medium_id).name, pot_volume_L=p.pot.volume_L,
        interval_days=p.interval.days, plain_every=p.pot.plain_every, hazard=f"Hazard to pets: {hazard}",
        profile_id=p.plant.profile_id, own_figures=p.own_figures, profile_name=p.profile.name, confidence=p.profile.confidence, arrived_on=p.plant.arrived_on,
        root_zone=computed.result, working=computed.working, pours=[_pour_out(x, x.id in corrected) for x in pours],
        looks=[LookOut(**{k: getattr(x, k) for k in LookOut.model_fields}) for x in looks],
        phases=[PhaseOut(phase=s.phase, since=s.since) for s in phases(session, p.plant.id)],
    )  # fmt: skip
    return ready(page)


def _pour_out(p: models.Pour, corrected: bool) -> PourOut:
    r = p.runoff if p.runoff is not None and p.runoff.archived_at is None else None
    return PourOut(id=p.id, on=p.on, job=p.job, route=p.route, volume_L=p.volume_L, ec_uS_cm=p.ec_uS_cm,
                   runoff_L=r.volume_L if r else None, runoff_ec_uS_cm=r.ec_uS_cm if r else None, note=p.note,
                   felt=p.felt, by=p.by, corrected=corrected)  # fmt: skip


@router.get("/pots/{pot_id}/root-zone")
def root_zone_working(pot_id: int, session: Reading, today: Today) -> Working:
    """Working of the predicted reading, for lists."""
    return balance(session, one_pot(session, pot_id, today), today, open_pours(session, pot_id)).working


class FlushIn(BaseModel):
    """A flush to be worked out. Empty target: the top of the comfortable range."""

    water_id: int
    target_reading: TypedOrNone = None
    round_L: TypedOrNone = None


@router.post("/pots/{pot_id}/flush-plan")
def plan_flush(pot_id: int, body: FlushIn, session: Reading, today: Today) -> Computed[FlushPlan]:
    """Litres and rounds that bring this pot down."""
    p = one_pot(session, pot_id, today)
    water = next((w for w in waters_today(session, today) if w.water.id == body.water_id), None)
    if water is None or water.ec25_uS_cm is None:
        raise Underspecified("This water has no usable reading. Choose another or enter its EC.", pointer="/water_id")
    z = balance(session, p, today, open_pours(session, pot_id)).result
    target = body.target_reading if body.target_reading is not None else p.profile.root_zone.ec_ideal_uS_cm[1]
    return flush_plan(pot=p.spec, root_zone_uS_cm=z.at_capacity_uS_cm, target_reading_uS_cm=target,
                      water_uS_cm=water.ec25_uS_cm, round_L=body.round_L, deficit_L=z.deficit_L,
                      from_above=p.profile.flush.from_above)  # fmt: skip


class PotIn(BaseModel):
    """A pot with its plant. Volume, or top diameter and height."""

    code: str
    name: str = ""
    profile_id: str = "unknown"
    place: str = "Home"
    spot: str = ""
    medium_id: str
    medium_charged: bool | None = None
    volume: TypedOrNone = None
    top_cm: TypedOrNone = None
    height_cm: TypedOrNone = None
    drainage: Drainage = "drains"
    route: Route = "top"
    interval_days: Typed
    plain_every: int = 4
    phase: Phase = "active"
    arrived_on: date | None = None
    isolated: bool = False


def pot_litres(body: PotIn) -> float:
    """Volume as entered, or from the pot's measures."""
    if body.volume is not None:
        return require(body.volume, "Volume", "L", low=0, open_low=True, high=500, pointer="/volume")
    if body.top_cm is None or body.height_cm is None:
        raise Underspecified("Volume is empty. Enter litres, or the top diameter and the height.", pointer="/volume")
    return pot_volume(top_cm=body.top_cm, height_cm=body.height_cm).result.volume_L


def store_pot(session: Session, body: PotIn, today: date) -> models.Pot:
    """A pot, its plant, its leading growth and its phase."""
    code = body.code.strip()
    if not code:
        raise Underspecified("Code is empty. Give the pot a short code, for example P-01.", pointer="/code")
    twin = select(models.Pot).where(models.Pot.code == code, models.Pot.archived_at.is_(None))
    if session.scalars(twin).first():
        raise Conflict(f"Code {code} is taken by another pot. Choose another code.", pointer="/code")
    get_profile(body.profile_id), get_medium(body.medium_id)
    require(body.interval_days, "Days between waterings", "d", low=1, high=120, pointer="/interval_days")
    require(body.plain_every, "Plain rinse", "", low=0, high=52, pointer="/plain_every")
    if body.arrived_on:
        require_not_future(body.arrived_on, today, "Arrival", pointer="/arrived_on")
    place = session.scalars(select(models.Place).where(models.Place.name == body.place.strip())).first()
    if place is None:
        place = models.Place(name=body.place.strip() or "Home")
        session.add(place)
        session.flush()
    order = len(session.scalars(select(models.Pot.id)).all())
    pot = models.Pot(
        code=code, name=body.name.strip(), place_id=place.id, spot=body.spot, shelf_order=order,
        isolated=body.isolated, medium_id=body.medium_id, medium_charged=body.medium_charged,
        volume_L=pot_litres(body), drainage=body.drainage, route=body.route, interval_days=body.interval_days,
        plain_every=body.plain_every,
    )  # fmt: skip
    session.add(pot)
    session.flush()
    plant = models.Plant(pot_id=pot.id, profile_id=body.profile_id, arrived_on=body.arrived_on)
    session.add(plant)
    session.flush()
    growth = models.Growth(plant_id=plant.id)
    session.add(growth)
    session.flush()
    session.add(models.PhaseSpan(growth_id=growth.id, phase=body.phase, since=body.arrived_on or today))
    refresh(session, pot.id)
    return pot


@router.post("/pots", status_code=201)
def add_pot(body: PotIn, writer: Writing, today: Today) -> Stored:
    """Keep a new pot."""
    return Stored(**writer.once(body, lambda s: {"id": store_pot(s, body, today).id}))
