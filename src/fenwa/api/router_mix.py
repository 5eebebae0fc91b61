"""The Mix station: feeds by label, doses, cans and their readings."""

from __future__ import annotations

from dataclasses import asdict, fields
from datetime import date
from functools import lru_cache
from typing import Any, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.router_readings import ShownIn, make_reading
from fenwa.api.settings import read_settings
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.writing import Reading, Stored, Today, Writing, get_row, ready, stored_working
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.mix.batch import BatchCheck, batch_check
from fenwa.core.mix.dose import Dose, StrengthMode, dose
from fenwa.core.mix.elements import Elements, label_to_elements
from fenwa.core.mix.label import Basis, Form, Label, Oxides, check_label
from fenwa.core.units import to_canonical
from fenwa.core.water.kinds import BaseWater, WaterKind
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.collection import PotToday, pots_today
from fenwa.store.water_state import waters_today

router = APIRouter(prefix="/api", tags=["mix"])


class ProductIn(BaseModel):
    """A label as typed. Empty: not stated."""

    name: str
    form: Form = "powder"
    basis: Basis = "w/w"
    density_g_mL: TypedOrNone = None
    n_total_pct: TypedOrNone = None
    n_nitrate_pct: TypedOrNone = None
    n_ammonium_pct: TypedOrNone = None
    n_urea_pct: TypedOrNone = None
    p_pct: TypedOrNone = None
    k_pct: TypedOrNone = None
    pk_as: Oxides = "oxide"
    ca_pct: TypedOrNone = None
    mg_pct: TypedOrNone = None
    s_pct: TypedOrNone = None
    label_rate: TypedOrNone = None
    label_rate_unit: str | None = None


class ProductOut(BaseModel):
    """A feed on the shelf."""

    id: int
    name: str
    label: Label
    elements: Elements


class MixWater(BaseModel):
    """A base water; null EC needs a reading first."""

    id: int
    name: str
    kind: WaterKind
    ec25_uS_cm: float | None
    read_on: date | None


class MixPot(BaseModel):
    """A pot that could be fed."""

    id: int
    code: str
    name: str
    volume_L: float
    feed_ceiling_uS_cm: float | None
    feeds_at_root: bool
    held: str


class BatchOut(BaseModel):
    """A can made."""

    id: int
    made_on: date
    name: str
    volume_L: float
    dose_g_L: float
    nitrogen_mg_L: float
    predicted_uS_cm: float
    predicted_low_uS_cm: float
    predicted_high_uS_cm: float
    measured_uS_cm: float | None
    verdict: str
    verdict_sentence: str


class MixPage(BaseModel):
    """All the Mix station offers."""

    today: date
    products: list[ProductOut]
    waters: list[MixWater]
    pots: list[MixPot]
    batches: list[BatchOut]


class DoseIn(BaseModel):
    """A can to be worked out. ``product_id`` null: plain water."""

    product_id: int | None = None
    water_id: int
    pot_ids: list[int] = []
    volume: Typed
    volume_unit: Literal["L", "US gal", "imp gal"] = "L"
    strength: StrengthMode = "nitrogen"
    value: Typed = 0.0


class BatchIn(DoseIn):
    """A can that was made."""

    made_on: date
    name: str = ""


def label_of_row(row: models.Product) -> Label:
    """Stored label as the core reads it."""
    known = {f.name for f in fields(Label)}
    return Label(**{k: v for k, v in row.label.items() if k in known})


def product_out(row: models.Product) -> ProductOut:
    """A feed for the interface."""
    label = label_of_row(row)
    return ProductOut(id=row.id, name=row.name, label=label, elements=label_to_elements(label=label).result)


def open_products(session: Session) -> list[models.Product]:
    """Feeds on the shelf in the order they were added."""
    return list(
        session.scalars(select(models.Product).where(models.Product.archived_at.is_(None)).order_by(models.Product.id))
    )


def batch_out(b: models.Batch) -> BatchOut:
    """A can for the interface."""
    return BatchOut(**{name: getattr(b, name) for name in BatchOut.model_fields})


@router.get("/mix", response_model=MixPage)
def mix_page(session: Reading, today: Today) -> Response:
    """Feeds, waters, pots and the last cans."""
    batches = session.scalars(
        select(models.Batch)
        .where(models.Batch.archived_at.is_(None), models.Batch.made_on <= today)
        .order_by(models.Batch.made_on.desc(), models.Batch.id.desc())
        .limit(8)
    )
    page = MixPage(
        today=today,
        products=[product_out(p) for p in open_products(session)],
        waters=[
            MixWater(id=w.water.id, name=w.water.name, kind=w.water.kind, ec25_uS_cm=w.ec25_uS_cm,
                     read_on=w.reading.on if w.reading else None)
            for w in waters_today(session, today)
        ],
        pots=[
            _mix_pot(p)
            for p in pots_today(session, today)
        ],
        batches=[batch_out(b) for b in batches],
    )  # fmt: skip
    return ready(page)


@lru_cache(maxsize=8192)
def _mix_pot(p: PotToday) -> MixPot:
    return MixPot(id=p.pot.id, code=p.pot.code, name=p.name, volume_L=p.volume_L, feeds_at_root=p.feeds_at_root,
                  feed_ceiling_uS_cm=p.feed_ceiling_uS_cm, held=p.holds[0].reason if p.holds else "")  # fmt: skip


def litres(body: DoseIn) -> float:
    """The can's volume in litres, whatever gallon it was named in."""
    volume = to_canonical(body.volume, "volume", body.volume_unit, pointer="/volume_unit")
    return require(volume, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume")


def base_water(session: Session, water_id: int, today: date) -> BaseWater:
    """A water to mix with, or a sentence that a reading is missing."""
    found = next((w for w in waters_today(session, today) if w.water.id == water_id), None)
    if found is None:
        get_row(session, models.Water, water_id, "Water", "/water_id")
    base = found.base() if found else None
    if base is None:
        raise Underspecified("This water has no usable reading. Enter its EC at the Water station first.",
                             pointer="/water_id")  # fmt: skip
    return base


def strictest(pots: list[PotToday]) -> PotToday | None:
    """The pot with the lowest feed ceiling."""
    limited = [p for p in pots if p.feed_ceiling_uS_cm is not None]
    return min(limited, key=lambda p: p.feed_ceiling_uS_cm or 0.0) if limited else None


def work_out(session: Session, body: DoseIn, today: date) -> Computed[Dose]:
    """The dose for a can as the grower names it."""
    assert body.product_id is not None
    settings = read_settings(session)
    product = get_row(session, models.Product, body.product_id, "Feed", "/product_id")
    pot = strictest(pots_today(session, today, set(body.pot_ids))) if body.pot_ids else None
    return dose(
        label=label_of_row(product), base=base_water(session, body.water_id, today), volume_L=litres(body),
        strength=body.strength, value=body.value, ceiling_uS_cm=pot.feed_ceiling_uS_cm if pot else None,
        ceiling_of=f"{pot.pot.code} {pot.name}" if pot else "", scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
    )  # fmt: skip


@router.post("/mix/dose")
def preview_dose(body: DoseIn, session: Reading, today: Today) -> Computed[Dose]:
    """What to weigh, before anything is stored."""
    if body.product_id is None:
        raise Underspecified("Feed is not chosen. Choose a feed by its label.", pointer="/product_id")
    return work_out(session, body, today)


@router.post("/products", status_code=201)
def add_product(body: ProductIn, writer: Writing) -> Stored:
    """Put a feed on the shelf by its label."""
    label = Label(**body.model_dump())
    check_label(label)

    def write(session: Session) -> dict[str, Any]:
        row = models.Product(name=label.name.strip(), label=asdict(label))
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


def _version(session: Session, product: models.Product, body: BatchIn) -> models.RecipeVersion:
    """The recipe version this can uses: a changed label or strength opens a new one."""
    name = f"{product.name}, {body.strength}"
    recipe = session.scalars(select(models.Recipe).where(models.Recipe.name == name)).first()
    if recipe is None:
        recipe = models.Recipe(name=name)
        session.add(recipe)
        session.flush()
    last = session.scalars(
        select(models.RecipeVersion)
        .where(models.RecipeVersion.recipe_id == recipe.id)
        .order_by(models.RecipeVersion.version.desc())
    ).first()
    if last and last.label == product.label and last.strength == body.strength and last.value == body.value:
        return last
    version = models.RecipeVersion(
        recipe_id=recipe.id, version=last.version + 1 if last else 1, made_on=body.made_on, product_id=product.id,
        label=product.label, strength=body.strength, value=body.value,
    )  # fmt: skip
    session.add(version)
    session.flush()
    return version


def store_batch(session: Session, body: BatchIn, today: date) -> models.Batch:
    """A can as a row: plain water, or feed with its prediction and working."""
    require_not_future(body.made_on, today, "Date", pointer="/made_on")
    base = base_water(session, body.water_id, today)
    row = models.Batch(made_on=body.made_on, water_id=body.water_id, water_ec_uS_cm=base.ec25_uS_cm,
                       volume_L=litres(body))  # fmt: skip
    if body.product_id is None:
        row.name = body.name or f"{base.name}, nothing added"
        row.dose_g_L = row.nitrogen_mg_L = 0.0
        row.predicted_uS_cm = row.predicted_low_uS_cm = row.predicted_high_uS_cm = base.ec25_uS_cm
    else:
        product = get_row(session, models.Product, body.product_id, "Feed", "/product_id")
        computed = work_out(session, body, today)
        d = computed.result
        row.name = body.name or f"{product.name}, {d.nitrogen_mg_L:.0f} mg/L N"
        row.product_id, row.recipe_version_id = product.id, _version(session, product, body).id
        row.dose_g_L, row.nitrogen_mg_L = d.dose_g_L, d.nitrogen_mg_L
        row.predicted_uS_cm, row.predicted_low_uS_cm = d.ec_total_uS_cm, d.ec_low_uS_cm
        row.predicted_high_uS_cm, row.working = d.ec_high_uS_cm, asdict(computed.working)
    session.add(row)
    session.flush()
    return row


@router.post("/batches", status_code=201)
def add_batch(body: BatchIn, writer: Writing, today: Today) -> BatchOut:
    """Store a can that was made."""
    answer = writer.once(body, lambda s: batch_out(store_batch(s, body, today)).model_dump(mode="json"))
    return BatchOut(**answer)


class Judged(BaseModel):
    """A can after its reading."""

    batch: BatchOut
    check: BatchCheck
    working: Working


@router.post("/batches/{batch_id}/reading", status_code=201)
def read_batch(batch_id: int, body: ShownIn, writer: Writing, today: Today) -> Judged:
    """Store the can's reading and judge it."""

    def write(session: Session) -> dict[str, Any]:
        batch = get_row(session, models.Batch, batch_id, "Can")
        reading = make_reading(session, body, today)
        if reading.ec25_uS_cm is None:
            raise Underspecified(reading.refusal or "Measured EC is empty. Enter what the meter shows.",
                                 pointer="/scale" if reading.refusal else "/value")  # fmt: skip
        computed = batch_check(
            predicted_uS_cm=batch.predicted_uS_cm, predicted_low_uS_cm=batch.predicted_low_uS_cm,
            predicted_high_uS_cm=batch.predicted_high_uS_cm, measured_uS_cm=reading.ec25_uS_cm,
            water_uS_cm=batch.water_ec_uS_cm, volume_L=batch.volume_L,
            meter_half_width_uS_cm=reading.half_width_uS_cm or 0.0,
        )  # fmt: skip
        reading.batch_id, batch.measured_uS_cm = batch.id, reading.ec25_uS_cm
        batch.verdict, batch.verdict_sentence = computed.result.verdict, computed.result.sentence
        session.add(reading)
        session.flush()
        return {"batch": batch_out(batch).model_dump(mode="json"), "check": asdict(computed.result),
                "working": asdict(computed.working)}  # fmt: skip

    return Judged.model_validate(writer.once(body, write))


@router.get("/batches/{batch_id}/working")
def batch_working(batch_id: int, session: Reading) -> Working:
    """How a can's prediction came about."""
    row = get_row(session, models.Batch, batch_id, "Can")
    if row.working is None:
        raise Underspecified("Plain water: its EC is the water's own reading.")
    return stored_working(row.working)
