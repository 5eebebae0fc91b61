"""A sum of a feed that becomes a can of the collection; the other sums are saved where such things are entered."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.mix.made import BatchIn, store_batch
from fenwa.api.model import Model
from fenwa.api.sums.told import FeedSumIn
from fenwa.api.transactions import OneWrite, Today
from fenwa.api.ways import Ways
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.grade import label_of_grade
from fenwa.core.mix.label import Label
from fenwa.core.mix.rates import RATE_UNITS
from fenwa.store import models
from fenwa.store.mix_state import label_of, open_products

router = Ways(prefix="/api/sums", tags=["sums"])


class CanOfSum(Model):
    """A feed as it was worked out, and the water of the collection the can is filled with."""

    feed: FeedSumIn
    water_id: int


class CanSaved(Model):
    """The can, and whether its feed is new on the shelf. [µS/cm]"""

    id: int
    name: str
    feed: str
    feed_added: bool
    predicted_uS_cm: float
    predicted_low_uS_cm: float
    predicted_high_uS_cm: float


@router.post("/feed/can", status_code=201)
def save_can(body: CanOfSum, writer: OneWrite, today: Today) -> CanSaved:
    """Store the can of a sum; a feed that the shelf does not have by its numbers is put there by its label."""
    answer = writer.once(body, lambda s: _saved(s, body, today).model_dump(mode="json"))
    return CanSaved(**answer)


def _saved(session: Session, body: CanOfSum, today: date) -> CanSaved:
    f = body.feed
    label, _ = label_of_grade(f.grade, f.form == "liquid", f.label_rate, f.label_rate_unit)
    product, added = _product(session, label)
    can: dict[str, Any] = {
        "product_id": product.id,
        "water_id": body.water_id,
        "volume": f.volume,
        "volume_unit": f.volume_unit,
        "strength": f.strength,
        "value": f.value,
    }
    row = store_batch(session, BatchIn(**can, made_on=today), today)
    return CanSaved(
        id=row.id,
        name=row.name,
        feed=product.name,
        feed_added=added,
        predicted_uS_cm=row.predicted_uS_cm,
        predicted_low_uS_cm=row.predicted_low_uS_cm,
        predicted_high_uS_cm=row.predicted_high_uS_cm,
    )


def _numbers(label: Label) -> tuple[object, ...]:
    rate = (label.label_rate, label.label_rate_unit) if label.label_rate is not None else None
    return label.form, label.n_total_pct, label.p_pct, label.k_pct, rate


def _product(session: Session, label: Label) -> tuple[models.Product, bool]:
    """The feed with these numbers: one whose label says the same and no more, else a new one."""
    for row in open_products(session):
        known = label_of(row)
        if _numbers(known) == _numbers(label) and known.n_nitrate_pct is None and known.ca_pct is None:
            return row, False
    if label.label_rate is not None:
        require(label.label_rate, "Label rate", "", low=0, open_low=True, high=1_000, pointer="/feed/label_rate")
        if label.label_rate_unit not in RATE_UNITS:
            raise InputError("The unit of the label rate is not known. Choose one.", pointer="/feed/label_rate_unit")
    row = models.Product(name=f"Feed {label.name}", label=asdict(label), owned=True)
    row.label["name"] = row.name
    session.add(row)
    session.flush()
    return row, True
