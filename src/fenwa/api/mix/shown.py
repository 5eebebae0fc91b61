"""Feeds, vessels and cans in the shapes pages print."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.core.mix.acidity import acidity_of
from fenwa.core.mix.elements import Elements, label_to_elements
from fenwa.core.mix.label import Label
from fenwa.store import models
from fenwa.store.mix_rows import meters_of, newest_cans, recipes_of
from fenwa.store.mix_state import batches_left, label_of


class ProductOut(Model):
    """A feed on the shelf. Elements are null for a feed without a ppm."""

    id: int
    name: str
    label: Label
    elements: Elements
    acidity_kg_t: float | None
    shipped: bool
    owned: bool


def product_out(row: models.Product) -> ProductOut:
    """A feed for the interface."""
    label = label_of(row)
    return ProductOut(
        id=row.id,
        name=row.name,
        label=label,
        elements=label_to_elements(label=label).result,
        acidity_kg_t=acidity_of(label),
        shipped=row.library_id is not None,
        owned=row.owned,
    )


class VesselOut(Model):
    """A can or mist bottle."""

    id: int
    name: str
    kind: str
    volume_L: float


def vessel_out(v: models.Vessel) -> VesselOut:
    """A vessel for the interface."""
    return VesselOut(id=v.id, name=v.name, kind=v.kind, volume_L=v.volume_L)


class BatchOut(Model):
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


def cans_out(session: Session, cans: Sequence[models.Batch], today: date) -> list[BatchOut]:
    """Cans with what is left of them, their recipe and their meter."""
    left, recipes, meters = batches_left(session, list(cans)), recipes_of(session, cans), meters_of(session, cans)
    own = [k for k in BatchOut.model_fields if hasattr(models.Batch, k) and k != "left_L"]
    out = []
    for b in cans:
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


def newest_cans_out(session: Session, today: date, most: int) -> list[BatchOut]:
    """The newest cans."""
    return cans_out(session, newest_cans(session, today, most), today)
