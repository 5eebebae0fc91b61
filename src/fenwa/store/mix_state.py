"""The shelf and the cans as the core sees them: labels, own slopes, what is left, schools in force."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from sqlalchemy import func, or_, select
from sqlalchemy.orm import Session

from fenwa.core.care.round_parts import RoundFeed
from fenwa.core.library.loader import schools
from fenwa.core.mix.can import left_of_can, left_of_pack
from fenwa.core.mix.elements import feeds_alone, only_feed
from fenwa.core.mix.feed import ProductSlope
from fenwa.core.mix.label import Label, density_of, label_from
from fenwa.core.mix.school import School
from fenwa.core.mix.slope import NEWEST_CANS, TELLING, MeasuredCan, slope_from_cans
from fenwa.core.working import Computed
from fenwa.store.memory import remembered
from fenwa.store.models import Batch, Measure, Pour, Product, RecipeVersion, SchoolCopy, Vessel

ALL_FROM = 500  # cans: from here one sum over all is quicker than a list of them


def label_of(row: Product) -> Label:
    """Stored label as the core reads it."""
    return label_from(row.label)


def open_products(session: Session) -> list[Product]:
    """Feeds on the shelf in the order they were added."""
    query = select(Product).where(Product.archived_at.is_(None)).order_by(Product.id)
    return list(remembered(session, "products", None, lambda s: s.scalars(query).all()))


def owned_products(session: Session) -> list[Product]:
    """Feeds the grower has; the others are labels to choose from."""
    return [p for p in open_products(session) if p.owned]


def first_feed(session: Session) -> Product | None:
    """The feed a desk begins with: the only one that feeds by itself, else the first owned, else the first label."""
    owned = owned_products(session)
    only = only_feed([label_of(p) for p in owned])
    if only is not None:
        return owned[only]
    return next((p for shelf in (owned, open_products(session)) for p in shelf if feeds_alone(label_of(p))), None)


def round_feeds(session: Session) -> list[RoundFeed]:
    """What the round may weigh: what is owned, each with its own slope."""
    out = []
    for product in owned_products(session):
        label = label_of(product)
        if label.kind == "soluble":
            slope = slope_of(session, product)
            out.append(RoundFeed(product.id, product.name, label, slope.result if slope else None))
    return out


def slope_of(session: Session, product: Product) -> Computed[ProductSlope] | None:
    """The product's own slope from its measured cans with the present label; None before the third."""
    return remembered(session, f"slope {product.id}", product.label, lambda s: _fitted(s, product))


def _fitted(session: Session, product: Product) -> Computed[ProductSlope] | None:
    now = label_of(product)
    versions = session.execute(
        select(RecipeVersion.id, RecipeVersion.label).where(RecipeVersion.product_id == product.id)
    )
    same = [v.id for v in versions if label_from(v.label) == now]
    rows = session.execute(
        select(
            Batch.dose_g_L,
            Batch.model_added_uS_cm,
            Batch.predicted_uS_cm,
            Batch.water_ec_uS_cm,
            Batch.measured_uS_cm,
            Batch.also,
        )
        .where(
            Batch.recipe_version_id.in_(same),
            Batch.archived_at.is_(None),
            Batch.measured_uS_cm.is_not(None),
            Batch.dose_g_L > 0,
            Batch.verdict.in_(TELLING),
        )
        .order_by(Batch.made_on.desc(), Batch.id.desc())
        .limit(NEWEST_CANS)
    )
    cans = [
        MeasuredCan(
            dose_g_L=b.dose_g_L,
            model_added_uS_cm=b.model_added_uS_cm,
            predicted_uS_cm=b.predicted_uS_cm,
            water_uS_cm=b.water_ec_uS_cm,
            measured_uS_cm=b.measured_uS_cm,
            alone=not b.also,
        )
        for b in rows
    ]
    return slope_from_cans(cans)


def used_since(session: Session, product: Product, since: date) -> float:
    """What cans made after a day took of a product, alone or beside others. [g]"""
    rows = session.execute(
        select(Batch.product_id, Batch.dose_g_L, Batch.volume_L, Batch.also).where(
            Batch.archived_at.is_(None), Batch.made_on > since
        )
    )
    whole = 0.0
    for b in rows:
        if b.product_id == product.id:
            whole += b.dose_g_L * b.volume_L
        whole += sum(part["dose_g_L"] * b.volume_L for part in b.also if part.get("product_id") == product.id)
    return whole


def left_of(session: Session, product: Product) -> float | None:
    """What is left of a pack: what was seen, less the cans made since; None when nobody looked. [g or mL]"""
    if product.left_amount is None or product.left_on is None:
        return None
    label = label_of(product)
    density = density_of(label) if label.form == "liquid" else None
    return left_of_pack(product.left_amount, used_since(session, product, product.left_on), density)


def batches_left(session: Session, batches: list[Batch]) -> dict[int, float]:
    """Litres left in each can: what was made or last seen, less what was poured since, in one sum for all. [L]"""
    seen = or_(Batch.left_L.is_(None), Batch.left_on.is_(None), Pour.on > Batch.left_on)
    poured = (
        select(Pour.batch_id, func.sum(Pour.volume_L))
        .join(Batch, Batch.id == Pour.batch_id)
        .where(Pour.archived_at.is_(None), seen)
        .group_by(Pour.batch_id)
    )
    if len(batches) < ALL_FROM:
        poured = poured.where(Pour.batch_id.in_([b.id for b in batches]))
    gone = {batch_id: float(litres or 0.0) for batch_id, litres in session.execute(poured)}
    return {b.id: left_of_can(b.volume_L, b.left_L, gone.get(b.id, 0.0)) for b in batches}


def measures_of(session: Session, product_id: int | None = None) -> list[Measure]:
    """Measures the grower weighed, newest last; of one product if named."""
    query = select(Measure).where(Measure.archived_at.is_(None)).order_by(Measure.on, Measure.id)
    if product_id is not None:
        query = query.where(Measure.product_id == product_id)
    return list(session.scalars(query))


def vessels_of(session: Session) -> list[Vessel]:
    """Cans and mist bottles, smallest first."""
    return list(session.scalars(select(Vessel).where(Vessel.archived_at.is_(None)).order_by(Vessel.volume_L)))


@dataclass(frozen=True)
class SchoolInForce:
    """A school and whether it is the grower's own version."""

    school: School
    edited: bool
    copy_id: int | None


def schools_in_force(session: Session) -> list[SchoolInForce]:
    """The shipped schools, each replaced by the grower's newest copy, and the grower's own ones after them."""
    copies: dict[str, SchoolCopy] = {}
    for row in session.scalars(select(SchoolCopy).where(SchoolCopy.archived_at.is_(None)).order_by(SchoolCopy.id)):
        copies[row.school_id] = row
    out = []
    for school in schools().values():
        copy = copies.pop(school.id, None)
        out.append(
            SchoolInForce(_with(school, copy.name, copy.figures), True, copy.id)
            if copy
            else SchoolInForce(school, False, None)
        )
    blank = School(
        id="",
        name="",
        group="own",
        definition="",
        in_favour="",
        against="",
        n_mg_L=0.0,
        n_low_mg_L=0.0,
        n_high_mg_L=0.0,
        cycle=1,
        feeds=0,
        route="root",
        source="judgement",
        confidence="L",
        checked_by="the grower",
    )
    out += [
        SchoolInForce(replace(_with(blank, c.name, c.figures), id=c.school_id), True, c.id) for c in copies.values()
    ]
    return out


def _with(school: School, name: str, figures: dict[str, Any]) -> School:
    known = {k: v for k, v in figures.items() if hasattr(school, k)}
    return replace(school, name=name, **known)
