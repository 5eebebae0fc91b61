"""Measures of one's own and vessels."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.house.choices import read_settings
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, now
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.mix.label import check_label, label_from
from fenwa.core.mix.spoon import Calibrated, MeasureKind, spoon_calibration
from fenwa.core.working import Computed
from fenwa.store import models

router = Ways(prefix="/api", tags=["shelf"])


class MeasureIn(Model):
    """Weighings of level spoons or caps, or drops counted in a millilitre."""

    name: str
    kind: MeasureKind = "spoon"
    product_id: int | None = None
    weighings: list[TypedOrNone]
    levels_each: int = 1
    volume_mL: TypedOrNone = None

    def calibrated(self, session: Session) -> Computed[Calibrated]:
        """What the weighings say."""
        step = read_settings(session).scale_step_g
        return spoon_calibration(
            kind=self.kind,
            weighings=[w for w in self.weighings if w is not None],
            levels_each=self.levels_each,
            scale_step_g=step,
            volume_mL=self.volume_mL,
        )


@router.post("/measures/preview")
def preview_measure(body: MeasureIn, session: ReadSession) -> Computed[Calibrated]:
    """What weighings say of a measure; nothing is stored."""
    return body.calibrated(session)


@router.post("/measures", status_code=201)
def add_measure(body: MeasureIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a measure; with its volume known the product's bulk density, a drop or a cap goes to its label."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the spoon, cap or dropper.", pointer="/name")
    if body.product_id is None:
        raise Underspecified("Feed is not chosen. A level spoon holds a weight of one product.", pointer="/product_id")

    def write(session: Session) -> dict[str, Any]:
        product = get_row(session, models.Product, body.product_id or 0, "Feed", "/product_id")
        computed = body.calibrated(session)
        c = computed.result
        row = models.Measure(
            name=body.name.strip(),
            kind=body.kind,
            product_id=product.id,
            on=today,
            weighings=[{"weighed": w, "levels": body.levels_each} for w in body.weighings if w is not None],
            volume_mL=body.volume_mL,
            each=c.each,
            unit=c.unit,
            cv=c.cv,
            mean_error_pct=c.mean_error_pct,
            working=asdict(computed.working),
        )
        session.add(row)
        learnt = (
            {"drop_mL": c.each}
            if body.kind == "dropper"
            else {"bulk_density_g_mL": c.bulk_density_g_mL}
            if c.bulk_density_g_mL
            else {}
        )
        if body.kind == "cap" and body.volume_mL is not None:
            learnt = {**learnt, "cap_mL": body.volume_mL}
        if learnt:
            label = {**product.label, **learnt}
            session.add(
                models.Correction(
                    table_name="product",
                    row_id=product.id,
                    at=now(),
                    before={k: product.label.get(k) for k in learnt},
                    after=learnt,
                )
            )
            check_label(label_from(label))  # what a measure teaches must be a label that can be read again
            product.label = label
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class VesselIn(Model):
    """A can or mist bottle. [L]"""

    name: str
    kind: str = "can"
    volume_L: Typed


@router.post("/vessels", status_code=201)
def add_vessel(body: VesselIn, writer: OneWrite) -> Stored:
    """Keep a vessel's size."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the can or bottle.", pointer="/name")
    require(body.volume_L, "Volume", "L", low=0, open_low=True, high=2000, pointer="/volume_L")

    def write(session: Session) -> dict[str, Any]:
        row = models.Vessel(name=body.name.strip(), kind=body.kind, volume_L=body.volume_L)
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))
