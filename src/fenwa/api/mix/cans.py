"""Cans: made, read, judged, rescued, and what is left of them."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.house.choices import read_settings
from fenwa.api.mix.asked import water_base
from fenwa.api.mix.made import BatchIn, store_batch
from fenwa.api.mix.shown import BatchOut, cans_out, newest_cans_out
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row, stored_working
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.water.entries import ShownIn, make_reading
from fenwa.api.ways import Ways
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.batch import BatchCheck, batch_check
from fenwa.core.mix.can import decimal_asked
from fenwa.core.mix.label import label_from
from fenwa.core.mix.rescue import Rescue, batch_rescue
from fenwa.core.water.blended import blended
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.mix_state import batches_left, slope_of

router = Ways(prefix="/api", tags=["batches"])


@router.post("/batches", status_code=201)
def add_batch(body: BatchIn, writer: OneWrite, today: Today) -> BatchOut:
    """Store a can that was made."""
    answer = writer.once(body, lambda s: cans_out(s, [store_batch(s, body, today)], today)[0].model_dump(mode="json"))
    return BatchOut(**answer)


@router.get("/batches")
def list_batches(session: ReadSession, today: Today, most: int = 60) -> list[BatchOut]:
    """The batch log, newest first."""
    return newest_cans_out(session, today, int(require(most, "Cans", "", low=1, high=500, pointer="/most")))


class Judged(Model):
    """A can after its reading."""

    batch: BatchOut
    check: BatchCheck
    working: Working


@router.post("/batches/{batch_id}/reading", status_code=201)
def read_batch(batch_id: int, body: ShownIn, writer: OneWrite, today: Today) -> Judged:
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
            "batch": cans_out(session, [batch], today)[0].model_dump(mode="json"),
            "check": asdict(computed.result),
            "working": asdict(computed.working),
        }

    return Judged.model_validate(writer.once(body, write))


@router.get("/batches/{batch_id}/working")
def batch_working(batch_id: int, session: ReadSession) -> Working:
    """How a can's prediction came about."""
    row = get_row(session, models.Batch, batch_id, "Can")
    if row.working is None:
        raise Underspecified("Plain water: its EC is the water's own reading.")
    return stored_working(row.working)


class RescueIn(Model):
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
def rescue(batch_id: int, body: RescueIn, session: ReadSession, today: Today) -> Computed[Rescue]:
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


class LeftIn(Model):
    """What is left of a can, as seen. [L]"""

    left: Typed
    on: date


@router.post("/batches/{batch_id}/left")
def note_left(batch_id: int, body: LeftIn, writer: OneWrite, today: Today) -> BatchOut:
    """Note what is left; the count of pours goes on from there."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        batch = get_row(session, models.Batch, batch_id, "Can")
        asked = decimal_asked(body.left, batch.volume_L)
        batch.left_L = require(
            body.left,
            "Left",
            "L",
            low=0,
            high=batch.volume_L,
            pointer="/left",
            hint=" ".join((f"The can held {batch.volume_L:g} L: enter 0 to that.", asked)).strip(),
        )
        batch.left_on = body.on
        session.flush()
        return cans_out(session, [batch], today)[0].model_dump(mode="json")

    return BatchOut(**writer.once(body, write))
