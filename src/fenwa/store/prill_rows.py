"""Prills that lie in pots, at the warmth of their place."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date

from sqlalchemy import bindparam, or_, select
from sqlalchemy.orm import Session

from fenwa.core.care.interval import mean_C
from fenwa.core.care.kept import Series
from fenwa.core.care.prills import Prills, prills_in
from fenwa.core.mix.label import nitrogen_pct
from fenwa.store.mix_state import label_of
from fenwa.store.models import Climate, Feeding, Pot, Product

# asked at every pour, and built once
_GIVEN = (
    select(Feeding, Product, Pot.place_id)
    .join(Product, Product.id == Feeding.product_id)
    .join(Pot, Pot.id == Feeding.pot_id)
    .where(
        Feeding.archived_at.is_(None),
        Feeding.on <= bindparam("until"),
        or_(Pot.repotted_on.is_(None), Feeding.on >= Pot.repotted_on),
    )
    .order_by(Feeding.on, Feeding.id)
)
_TO_SOME = _GIVEN.where(Feeding.pot_id.in_(bindparam("ids", expanding=True)))


def prills_given(
    session: Session, today: date | None, only: set[int] | None = None, warmth: Mapping[int, Series] | None = None
) -> dict[int, list[Prills]]:
    """Prills of each pot, oldest first; what lay in a mix went with it when the pot was repotted.

    ``today``: the day to tell shares for; None: the day they were given, where only their salt is asked for.
    ``warmth``: means of each place by day; None: read where prills are found.
    """
    asked = {"until": today or date.max}
    found = session.execute(_GIVEN, asked) if only is None else session.execute(_TO_SOME, asked | {"ids": list(only)})
    out: dict[int, list[Prills]] = {}
    for given, product, place_id in found:
        label = label_of(product)
        if label.kind != "prill" or not label.longevity_days:
            continue
        here = _warmth(session, place_id) if warmth is None else warmth.get(place_id, ())
        grams = given.amount if given.unit == "g" else None
        out.setdefault(given.pot_id, []).append(
            prills_in(
                given.on,
                label.longevity_days,
                label.longevity_at_C,
                here,
                today or given.on,
                grams,
                nitrogen_pct(label),
            )
        )
    return out


def _warmth(session: Session, place_id: int) -> Series:
    rows = session.execute(
        select(Climate.on, Climate.night_C, Climate.day_C)
        .where(Climate.archived_at.is_(None), Climate.place_id == place_id)
        .order_by(Climate.on)
    )
    found = [(on, mean_C(night, day)) for on, night, day in rows]
    return tuple((on, c) for on, c in found if c is not None)
