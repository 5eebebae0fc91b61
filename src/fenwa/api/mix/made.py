"""A can that was made, as it is stored: at the station, or by a pour whose feed was mixed by the way."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date

from sqlalchemy.orm import Session

from fenwa.api.mix.asked import Asked, DoseIn, base_of, ceilings_of, litres
from fenwa.api.mix.recipes import also_rows, keep_version
from fenwa.api.model import Model
from fenwa.core.entry import require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.mix.headroom import strictest
from fenwa.core.mix.recipe import own_name
from fenwa.core.mix.strength import in_words, read_share
from fenwa.store import models


class BatchIn(DoseIn):
    """A can that was made. ``recipe``: the name of the recipe it follows, if it has one."""

    made_on: date
    name: str = ""
    recipe: str = ""


def store_batch(session: Session, body: BatchIn, today: date) -> models.Batch:
    """A can as a row: plain water, or feed with its prediction and working."""
    require_not_future(body.made_on, today, "Date", pointer="/made_on")
    base = base_of(session, body, today)
    first = body.blend[0].water_id if body.blend else body.water_id
    row = models.Batch(
        made_on=body.made_on,
        water_id=first,
        water_ec_uS_cm=base.ec25_uS_cm,
        water_estimated=not base.measured,
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
        row.predicted_uS_cm = base.ec25_uS_cm
        row.predicted_low_uS_cm = max(0.0, base.ec25_uS_cm - base.half_width_uS_cm)
        row.predicted_high_uS_cm = base.ec25_uS_cm + base.half_width_uS_cm
    else:
        asked = Asked(session, body, today)
        asked.product.owned = True
        computed, _, value = asked.work_out()
        d = computed.result
        recipe = body.recipe.strip() or own_name(asked.label.name, body.strength)
        row.name = body.name or f"{body.recipe.strip() or asked.product.name}, {d.nitrogen_mg_L:.0f} mg/L N"
        row.product_id, row.recipe_version_id = (
            asked.product.id,
            keep_version(session, asked, value, body.made_on, recipe).id,
        )
        row.dose_g_L, row.nitrogen_mg_L, row.also = d.dose_g_L, d.nitrogen_mg_L, also_rows(asked)
        row.predicted_uS_cm, row.predicted_low_uS_cm = d.ec_total_uS_cm, d.ec_low_uS_cm
        row.predicted_high_uS_cm, row.working = d.ec_high_uS_cm, asdict(computed.working)
        row.model_added_uS_cm = d.model_added_uS_cm
        pot = strictest(ceilings_of(asked.pots))
        if pot is not None:
            row.ceiling_uS_cm, row.ceiling_of = pot.ceiling_uS_cm, pot.name
    session.add(row)
    session.flush()
    return row


class FedIn(Model):
    """A feed given without a can of the log: its label, how much of the label rate, the water it was mixed with."""

    product_id: int
    water_id: int
    share: float | str = 0.5


def store_fed(session: Session, body: FedIn, each_L: float, pots: int, on: date, today: date) -> models.Batch:
    """The can of such a pour: as much as was poured, and nothing left of it. [L]"""
    share = read_share(body.share, pointer="/fed/share").share
    batch = store_batch(
        session,
        BatchIn(
            product_id=body.product_id,
            water_id=body.water_id,
            volume=each_L * pots,
            strength="fraction",
            value=share,
            made_on=on,
        ),
        today,
    )
    name = session.get_one(models.Product, body.product_id).name
    batch.name = f"{in_words(share)} strength of {name}"[:120]
    batch.left_L, batch.left_on = 0.0, on
    return batch
