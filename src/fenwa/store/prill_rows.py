"""Prills that lie in pots, at the warmth of their place."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date

from sqlalchemy import bindparam, or_, select
from sqlalchemy.orm import Session

from fenwa.core.care.interval import mean_C
from fenwa.core.care.kept import Series
from fenwa.core.care.prills import Prills, prills_in
from fenwa.core.mix.label import label_from, nitrogen_pct
from fenwa.store.models import Climate, Feeding, Pot, Product
from fenwa.store.questions import among, columns, listed

_GIVEN = (
    select(Feeding.pot_id, Feeding.on, Feeding.amount, Feeding.unit, Product.label, Pot.place_id)
    .join(Product, Product.id == Feeding.product_id)
    .join(Pot, Pot.id == Feeding.pot_id)
    .where(
        Feeding.archived_at.is_(None),
        Feeding.on <= bindparam("until"),
        or_(Pot.repotted_on.is_(None), Feeding.on >= Pot.repotted_on),
    )
    .order_by(Feeding.on, Feeding.id)
)
_TO_SOME = _GIVEN.where(Feeding.pot_id.in_(among()))


def prills_given(
    session: Session, today: date | None, only: set[int] | None = None, warmth: Mapping[int, Series] | None = None
) -> dict[int, list[Prills]]:
    """Prills of each pot, oldest first; what lay in a mix went with it when the pot was repotted.

    ``today``: the day to tell shares for; None: the day they were given, where only their salt is asked for.
    ``warmth``: means of each place by day; None: read where prills are found.
    """
    until = today or date.max
    if only is None:
        found = columns(session, _GIVEN, until=until)
    else:
        found = columns(session, _TO_SOME, until=until, ids=listed(only))
    out: dict[int, list[Prills]] = {}
    for given in found:
        label = label_from(given.label)
        if label.kind != "prill" or not label.longevity_days:
            continue
        here = _warmth(session, given.place_id) if warmth is None else warmth.get(given.place_id, ())
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
