"""Cans: made, read, judged, rescued, and what is left of them."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.mixing import Asked, DoseIn, base_of, litres, named, strictest, water_base
from fenwa.api.router_readings import ShownIn, make_reading
from fenwa.api.settings import read_settings
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.writing import Reading, Today, Writing, get_row, stored_working
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.batch import BatchCheck, batch_check
from fenwa.core.mix.label import label_from
from fenwa.core.mix.rescue import Rescue, batch_rescue
from fenwa.core.water.blended import blended
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.mix_state import batches_left, slope_of

router = APIRouter(prefix="/api", tags=["batches"])


class BatchIn(DoseIn):
    """A can that was made. ``recipe``: the name of the recipe it follows, if it has one."""

    made_on: date
    name: str = ""
    recipe: str = ""


class BatchOut(BaseModel):
    """A can made: predicted, measured and by which meter, what is left and how old it is."""

    id: int
    made_on: date
    age_days: int
    name: str
    volume_L: float
    left_L: float
    dose_g_L: float
    nitrogen_mg_L: float
    predicted_uS_cm: float
    predicted_low_uS_cm: float
    predicted_high_uS_cm: float
    measured_uS_cm: float | None
    measured_by: str
    verdict: str
    verdict_sentence: str
    route: str
    recipe: str
    recipe_version: int | None


def _outs(session: Session, batches: list[models.Batch], today: date) -> list[BatchOut]:
    left = batches_left(session, batches)
    ids = [b.id for b in batches]
    recipes: dict[int, tuple[str, int]] = {
        v: (name, version)
        for v, name, version in session.execute(
            select(models.RecipeVersion.id, models.Recipe.name, models.RecipeVersion.version)
            .join(models.Recipe, models.Recipe.id == models.RecipeVersion.recipe_id)
            .where(models.RecipeVersion.id.in_([b.recipe_version_id for b in batches]))
        )
    }
    read_by = session.execute(
        select(models.Reading.batch_id, models.Meter.name)
        .join(models.Meter, models.Meter.id == models.Reading.meter_id)
        .where(models.Reading.batch_id.in_(ids), models.Reading.archived_at.is_(None))
        .order_by(models.Reading.id)
    )
    meters: dict[int | None, str] = {row.batch_id: row.name for row in read_by}
    own = (
        "id",
        "made_on",
        "name",
        "volume_L",
        "dose_g_L",
        "nitrogen_mg_L",
        "predicted_uS_cm",
        "predicted_low_uS_cm",
        "predicted_high_uS_cm",
        "measured_uS_cm",
        "verdict",
        "verdict_sentence",
        "route",
    )
    out = []
    for b in batches:
        recipe, version = recipes.get(b.recipe_version_id or 0, ("", None))
        out.append(
            BatchOut(
                **{k: getattr(b, k) for k in own},
                age_days=(today - b.made_on).days,
                left_L=left[b.id],
                measured_by=meters.get(b.id, ""),
                recipe=recipe,
                recipe_version=version,
            )
        )
    return out


def batches_out(session: Session, today: date, most: int) -> list[BatchOut]:
    """The newest cans."""
    rows = session.scalars(
        select(models.Batch)
        .where(models.Batch.archived_at.is_(None), models.Batch.made_on <= today)
        .order_by(models.Batch.made_on.desc(), models.Batch.id.desc())
        .limit(most)
    )
    return _outs(session, list(rows), today)


def _also_rows(asked: Asked) -> list[dict[str, Any]]:
    return [
        {"product_id": part.product_id, "name": feed.label.name, "label": asdict(feed.label), "dose_g_L": feed.dose_g_L}
        for part, feed in zip(asked.body.also, asked.also, strict=True)
    ]


def own_name(product: str, strength: str) -> str:
    """Name of the recipe of a single can that follows no named one."""
    return f"{product}, {strength}"


def keep_version(session: Session, asked: Asked, value: float, on: date, name: str) -> models.RecipeVersion:
    """The version of a recipe this can uses: a changed label, product or strength opens the next one."""
    body, product = asked.body, asked.product
    recipe = session.scalars(
        select(models.Recipe).where(models.Recipe.name == name, models.Recipe.archived_at.is_(None))
    ).first()
    if recipe is None:
        recipe = models.Recipe(name=name)
        session.add(recipe)
        session.flush()
    last = session.scalars(
        select(models.RecipeVersion)
        .where(models.RecipeVersion.recipe_id == recipe.id)
        .order_by(models.RecipeVersion.version.desc())
    ).first()
    now = {
        "product_id": product.id,
        "label": product.label,
        "strength": body.strength,
        "value": value,
        "also": _also_rows(asked),
        "element": body.element,
        "route": body.route,
        "school_id": body.school_id,
    }
    if last is not None and all(getattr(last, key) == wanted for key, wanted in now.items()):
        return last
    version = models.RecipeVersion(recipe_id=recipe.id, version=last.version + 1 if last else 1, made_on=on, **now)
    session.add(version)
    session.flush()
    return version


def store_batch(session: Session, body: BatchIn, today: date) -> models.Batch:
    """A can as a row: plain water, or feed with its prediction and working."""
    require_not_future(body.made_on, today, "Date", pointer="/made_on")
    base = base_of(session, body, today)
    first = body.blend[0].water_id if body.blend else body.water_id
    row = models.Batch(
        made_on=body.made_on,
        water_id=first,
        water_ec_uS_cm=base.ec25_uS_cm,
        volume_L=litres(body.volume, body.volume_unit),
        route=body.route,
        waters=[part.model_dump() for part in body.blend],
    )
    if body.product_id is None:
        if body.also:
            raise Underspecified(
                "A leading feed is not chosen. Choose it, or leave the other products out.", pointer="/product_id"
            )
        row.name = body.name or f"{base.name}, nothing added"
        row.dose_g_L = row.nitrogen_mg_L = 0.0
        row.predicted_uS_cm = row.predicted_low_uS_cm = row.predicted_high_uS_cm = base.ec25_uS_cm
    else:
        asked = Asked(session, body, today)
        computed, _, value = asked.work_out()
        d = computed.result
        recipe = body.recipe.strip() or own_name(asked.label.name, body.strength)
        row.name = body.name or f"{body.recipe.strip() or asked.product.name}, {d.nitrogen_mg_L:.0f} mg/L N"
        row.product_id, row.recipe_version_id = (
            asked.product.id,
            keep_version(session, asked, value, body.made_on, recipe).id,
        )
        row.dose_g_L, row.nitrogen_mg_L, row.also = d.dose_g_L, d.nitrogen_mg_L, _also_rows(asked)
        row.predicted_uS_cm, row.predicted_low_uS_cm = d.ec_total_uS_cm, d.ec_low_uS_cm
        row.predicted_high_uS_cm, row.working = d.ec_high_uS_cm, asdict(computed.working)
        row.model_added_uS_cm = d.model_added_uS_cm
        pot = strictest(asked.pots)
        if pot is not None:
            row.ceiling_uS_cm, row.ceiling_of = pot.feed_ceiling_uS_cm, named(pot)
    session.add(row)
    session.flush()
    return row


@router.post("/batches", status_code=201)
def add_batch(body: BatchIn, writer: Writing, today: Today) -> BatchOut:
    """Store a can that was made."""
    answer = writer.once(body, lambda s: _outs(s, [store_batch(s, body, today)], today)[0].model_dump(mode="json"))
    return BatchOut(**answer)


@router.get("/batches")
def list_batches(session: Reading, today: Today, most: int = 60) -> list[BatchOut]:
    """The batch log, newest first."""
    return batches_out(session, today, int(require(most, "Cans", "", low=1, high=500, pointer="/most")))


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
            raise Underspecified(
                reading.refusal or "Measured EC is empty. Enter what the meter shows.",
                pointer="/scale" if reading.refusal else "/value",
            )
        computed = batch_check(
            predicted_uS_cm=batch.predicted_uS_cm,
            predicted_low_uS_cm=batch.predicted_low_uS_cm,
            predicted_high_uS_cm=batch.predicted_high_uS_cm,
            measured_uS_cm=reading.ec25_uS_cm,
            water_uS_cm=batch.water_ec_uS_cm,
            volume_L=batch.volume_L,
            meter_half_width_uS_cm=reading.half_width_uS_cm or 0.0,
            ceiling_uS_cm=batch.ceiling_uS_cm,
            ceiling_of=batch.ceiling_of,
        )
        reading.batch_id, batch.measured_uS_cm = batch.id, reading.ec25_uS_cm
        batch.verdict, batch.verdict_sentence = computed.result.verdict, computed.result.sentence
        session.add(reading)
        session.flush()
        return {
            "batch": _outs(session, [batch], today)[0].model_dump(mode="json"),
            "check": asdict(computed.result),
            "working": asdict(computed.working),
        }

    return Judged.model_validate(writer.once(body, write))


@router.get("/batches/{batch_id}/working")
def batch_working(batch_id: int, session: Reading) -> Working:
    """How a can's prediction came about."""
    row = get_row(session, models.Batch, batch_id, "Can")
    if row.working is None:
        raise Underspecified("Plain water: its EC is the water's own reading.")
    return stored_working(row.working)


class RescueIn(BaseModel):
    """A can as it stands now. Empty dose: bring it to what it was made for."""

    reading: Typed
    left: TypedOrNone = None
    wanted: TypedOrNone = None
    vessel: TypedOrNone = None
    target_g_L: TypedOrNone = None
    stood: bool = False


def _base_then(session: Session, batch: models.Batch, today: date) -> BaseWater:
    """The water a can was made with, at the conductivity it had then."""
    if batch.waters:
        now = blended([(water_base(session, part["water_id"], today), part["share"]) for part in batch.waters])
    else:
        now = water_base(session, batch.water_id, today)
    return BaseWater(batch.water_ec_uS_cm, now.kind, now.ions, now.name)


@router.post("/batches/{batch_id}/rescue")
def rescue(batch_id: int, body: RescueIn, session: Reading, today: Today) -> Computed[Rescue]:
    """Water or feed that brings a can, or what is left of it, to its strength; nothing is stored."""
    batch = get_row(session, models.Batch, batch_id, "Can")
    if batch.recipe_version_id is None or batch.dose_g_L <= 0:
        raise InputError("This can is plain water: there is no feed in it to bring to a strength.", pointer="/batch_id")
    if batch.also:
        raise InputError(
            "This can holds several products: add water by the check's own figure, or mix anew.", pointer="/batch_id"
        )
    version = get_row(session, models.RecipeVersion, batch.recipe_version_id, "Recipe")
    settings = read_settings(session)
    product = session.get(models.Product, batch.product_id)  # it may be archived: the version keeps its label
    own = slope_of(session, product) if product is not None and product.label == version.label else None
    return batch_rescue(
        slope=own.result if own else None,
        label=label_from(version.label),
        base=_base_then(session, batch, today),
        volume_L=body.left if body.left is not None else batches_left(session, [batch])[batch.id],
        measured_uS_cm=body.reading,
        target_g_L=batch.dose_g_L if body.target_g_L is None else body.target_g_L,
        wanted_L=body.wanted,
        vessel_L=body.vessel,
        made_g_L=batch.dose_g_L if body.stood else None,
        read_when_made_uS_cm=batch.measured_uS_cm if body.stood else None,
        age_days=(today - batch.made_on).days,
        scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
    )


class LeftIn(BaseModel):
    """What is left of a can, as seen. [L]"""

    left: Typed
    on: date


@router.post("/batches/{batch_id}/left")
def note_left(batch_id: int, body: LeftIn, writer: Writing, today: Today) -> BatchOut:
    """Note what is left; the count of pours goes on from there."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        batch = get_row(session, models.Batch, batch_id, "Can")
        batch.left_L = require(
            body.left,
            "Left",
            "L",
            low=0,
            high=batch.volume_L,
            pointer="/left",
            hint=f"The can held {batch.volume_L:g} L: enter 0 to that.",
        )
        batch.left_on = body.on
        session.flush()
        return _outs(session, [batch], today)[0].model_dump(mode="json")

    return BatchOut(**writer.once(body, write))
