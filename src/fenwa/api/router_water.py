"""The Water station: sources, readings, and who may drink what."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.writing import Reading, Today, Writing, get_row, ready
from fenwa.core.data.loader import get_profile
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.units import to_canonical
from fenwa.core.water.kind_checks import Disinfectant, KindState
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.tds import TdsScale, possible_conductivities
from fenwa.core.water.temperature import EcUnit, ec_at_25
from fenwa.core.water.verdict import Amount, WaterVerdict, amounts_line, water_verdict
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.collection import WaterToday, needs_of, pots_today, waters_today

router = APIRouter(prefix="/api", tags=["water"])


class EntryIn(BaseModel):
    """What a meter showed, as typed."""

    on: date
    value: Typed
    unit: EcUnit = "µS/cm"
    scale: TdsScale | None = None
    temperature: TypedOrNone = None
    temperature_unit: Literal["°C", "°F"] = "°C"
    compensated: bool = True
    note: str = ""


class ReadingOut(BaseModel):
    """A stored reading. ``ec25_uS_cm`` is null while the scale is not known."""

    id: int
    on: date
    value: float
    unit: str
    scale: str | None
    temperature_C: float | None
    compensated: bool
    ec25_uS_cm: float | None
    half_width_uS_cm: float | None
    refusal: str
    possible_uS_cm: dict[str, float]


class WaterOut(BaseModel):
    """A source on the rail."""

    id: int
    name: str
    kind: WaterKind
    price_per_L: float | None
    disinfectant: str
    ec25_uS_cm: float | None
    half_width_uS_cm: float | None
    read_on: date | None
    age_days: int | None
    newest: ReadingOut | None
    history: list[ReadingOut]
    amounts: str
    kind_line: str


class GroupOut(BaseModel):
    """A kind of plant present, with the most it may drink."""

    profile_id: str
    short: str
    ec_max_uS_cm: float
    confidence: str
    pots: int


class VerdictOut(BaseModel):
    """Both lines for one water and one group."""

    water_id: int
    profile_id: str
    amount: Amount
    amount_line: str
    kind: KindState
    kind_line: str


class WaterPage(BaseModel):
    """All the Water station shows."""

    today: date
    waters: list[WaterOut]
    groups: list[GroupOut]
    verdicts: list[VerdictOut]


def reading_out(r: models.Reading) -> ReadingOut:
    """A stored reading for the interface."""
    options = possible_conductivities(r.value) if r.ec25_uS_cm is None and r.unit == "ppm" else {}
    return ReadingOut(
        id=r.id, on=r.on, value=r.value, unit=r.unit, scale=r.scale, temperature_C=r.temperature_C,
        compensated=r.compensated, ec25_uS_cm=r.ec25_uS_cm, half_width_uS_cm=r.half_width_uS_cm,
        refusal=r.refusal, possible_uS_cm=options,
    )  # fmt: skip


def make_reading(entry: EntryIn, today: date) -> models.Reading:
    """A reading row with its conductivity; an unknown scale is kept with the refusal."""
    require_not_future(entry.on, today, "Date", pointer="/on")
    temperature = None
    if entry.temperature is not None:
        temperature = to_canonical(entry.temperature, "temperature", entry.temperature_unit, pointer="/temperature")
    row = models.Reading(
        on=entry.on, value=entry.value, unit=entry.unit, scale=entry.scale if entry.unit == "ppm" else None,
        temperature_C=temperature, compensated=entry.compensated, note=entry.note, refusal="",
    )  # fmt: skip
    try:
        computed = ec_at_25(value=entry.value, unit=entry.unit, scale=entry.scale, temperature_C=temperature,
                            compensated=entry.compensated)  # fmt: skip
    except Underspecified as refused:
        if not (entry.unit == "ppm" and entry.scale == "unknown"):
            raise
        require(entry.value, "Reading", "ppm", low=0, open_low=True, high=140_000, pointer="/value")
        row.refusal = refused.detail
        return row
    row.ec25_uS_cm = computed.result.ec25_uS_cm
    row.half_width_uS_cm = computed.result.half_width_uS_cm
    row.working = asdict(computed.working)
    return row


def judge(w: WaterToday, profile_id: str) -> Computed[WaterVerdict] | None:
    """The verdict on a water for a group; None while no reading is usable."""
    if w.ec25_uS_cm is None or w.reading is None:
        return None
    return water_verdict(ec25_uS_cm=w.ec25_uS_cm, half_width_uS_cm=w.reading.half_width_uS_cm or 0.0,
                         water=w.known, plant=needs_of(get_profile(profile_id)))  # fmt: skip


@router.get("/water", response_model=WaterPage)
def water_page(session: Reading, today: Today) -> Response:
    """Sources with their newest reading, groups present, verdict on each pair."""
    pots = pots_today(session, today)
    counts: dict[str, int] = {}
    for p in pots:
        counts[p.profile.id] = counts.get(p.profile.id, 0) + 1
    groups = sorted((get_profile(i) for i in counts), key=lambda g: g.source_water.ec_max_uS_cm)
    waters, verdicts = [], []
    for w in waters_today(session, today):
        found = [(g, judge(w, g.id)) for g in groups]
        results = [(g, v.result) for g, v in found if v is not None]
        verdicts += [
            VerdictOut(water_id=w.water.id, profile_id=g.id, amount=v.amount, amount_line=v.amount_line, kind=v.kind,
                       kind_line=v.kind_line)
            for g, v in results
        ]  # fmt: skip
        worst = next((v.kind_line for _, v in results if v.kind == "known bad"), None)
        unknown = next((v.kind_line for _, v in results if v.kind == "unknown"), "nothing known against it")
        waters.append(_water_out(session, w, today, amounts_line([v.amount for _, v in results]), worst or unknown))
    page = WaterPage(
        today=today,
        waters=waters,
        groups=[
            GroupOut(profile_id=g.id, short=g.short, ec_max_uS_cm=g.source_water.ec_max_uS_cm,
                     confidence=g.confidence, pots=counts[g.id])
            for g in groups
        ],
        verdicts=verdicts,
    )  # fmt: skip
    return ready(page)


def _water_out(session: Session, w: WaterToday, today: date, amounts: str, kind_line: str) -> WaterOut:
    rows = session.scalars(
        select(models.Reading)
        .where(models.Reading.water_id == w.water.id, models.Reading.archived_at.is_(None), models.Reading.on <= today)
        .order_by(models.Reading.on.desc(), models.Reading.id.desc())
        .limit(60)
    ).all()
    r = w.reading
    return WaterOut(
        id=w.water.id, name=w.water.name, kind=w.water.kind,
        price_per_L=w.water.price_per_L, disinfectant=w.water.disinfectant, ec25_uS_cm=w.ec25_uS_cm,
        half_width_uS_cm=r.half_width_uS_cm if r else None, read_on=r.on if r else None,
        age_days=(today - r.on).days if r else None, newest=reading_out(w.newest) if w.newest else None,
        history=[reading_out(x) for x in rows], amounts=amounts if w.ec25_uS_cm is not None else "needs a reading",
        kind_line=kind_line if w.ec25_uS_cm is not None else "",
    )  # fmt: skip


class WaterIn(BaseModel):
    """A source and what is known of it. Empty: not measured."""

    name: str
    kind: WaterKind
    preference: int = 100
    price_per_L: TypedOrNone = None
    disinfectant: Disinfectant = "unknown"
    free_chlorine_mg_L: TypedOrNone = None
    sodium_mg_L: TypedOrNone = None
    fluoride_mg_L: TypedOrNone = None
    hardness_mg_L_CaCO3: TypedOrNone = None
    alkalinity_mg_L_CaCO3: TypedOrNone = None


class Stored(BaseModel):
    """What was stored."""

    id: int


@router.post("/waters", status_code=201)
def add_water(body: WaterIn, writer: Writing) -> Stored:
    """Add a source."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the source, for example “Rain cistern”.", pointer="/name")
    for key, words in (("price_per_L", "Price per litre"), ("free_chlorine_mg_L", "Free chlorine"),
                       ("sodium_mg_L", "Sodium"), ("fluoride_mg_L", "Fluoride"),
                       ("hardness_mg_L_CaCO3", "Hardness"), ("alkalinity_mg_L_CaCO3", "Alkalinity")):  # fmt: skip
        value = getattr(body, key)
        if value is not None:
            require(value, words, "mg/L" if "mg" in key else "", low=0, high=10_000, pointer=f"/{key}")

    def write(session: Session) -> dict[str, Any]:
        row = models.Water(**body.model_dump())
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.post("/waters/{water_id}/readings", status_code=201)
def add_reading(water_id: int, body: EntryIn, writer: Writing, today: Today) -> ReadingOut:
    """Store a reading of a source and its conductivity at 25 °C."""

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Water, water_id, "Water")
        row = make_reading(body, today)
        row.water_id = water_id
        session.add(row)
        session.flush()
        return reading_out(row).model_dump(mode="json")

    return ReadingOut(**writer.once(body, write))


@router.get("/waters/{water_id}/verdict/{profile_id}")
def verdict_working(water_id: int, profile_id: str, session: Reading, today: Today) -> Computed[WaterVerdict]:
    """One verdict with its working."""
    w = next((w for w in waters_today(session, today) if w.water.id == water_id), None)
    found = judge(w, profile_id) if w else None
    if found is None:
        raise Underspecified("This water has no usable reading yet. Enter one first.")
    return found


@router.get("/readings/{reading_id}/working")
def reading_working(reading_id: int, session: Reading) -> Working:
    """How a stored reading became EC at 25 °C."""
    row = get_row(session, models.Reading, reading_id, "Reading")
    if row.working is None:
        raise Underspecified(row.refusal or "Nothing was computed from this reading.")
    return stored_working(row.working)


def stored_working(plain: dict[str, Any]) -> Working:
    """A working as it was stored with its number."""
    return TypeAdapter(Working).validate_python(plain)
