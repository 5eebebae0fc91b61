"""What pots, places and kinds are ruled by beside their log: own profiles, climate, holds set aside, prills, skips."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.core.care.holds import PRILL_DONE, Override
from fenwa.core.care.together import own_version
from fenwa.core.data.loader import get_profile
from fenwa.core.data.profile import Profile
from fenwa.core.mix.school import School, days_until_released, released_share
from fenwa.store.mix_state import label_of, schools_in_force
from fenwa.store.models import Climate, Decision, Event, Feeding, HoldOverride, Place, Product, ProfileCopy, Weight

SKIPPED = "skipped"  # a decision not to pour today
TREATED = "leaves treated"
USUAL_C = 21.0  # where nobody measured


@dataclass(frozen=True)
class Prills:
    """Prills in a pot: the share they have given and the day they are spent."""

    share_out: float
    until: date


@dataclass
class CareRows:
    """Rows by pot, place or plant, loaded in a handful of queries."""

    places: dict[int, Place]
    climate: dict[int, Climate]
    copies: dict[tuple[str, int | None], ProfileCopy]
    overrides: dict[int, tuple[Override, ...]]
    weights: dict[int, list[Weight]]
    prills: dict[int, Prills]
    treated: dict[int, Event]
    skipped: dict[int, date]
    look_again: dict[int, Decision]
    schools: dict[str, School]

    def profile(self, profile_id: str, plant_id: int) -> Profile:
        """The kind with the grower's own figures: the plant's version first, then the kind's."""
        copy = self.copies.get((profile_id, plant_id)) or self.copies.get((profile_id, None))
        return _own(profile_id, _frozen(copy.figures)) if copy else get_profile(profile_id)

    def is_own(self, profile_id: str, plant_id: int) -> bool:
        """Whether the figures in force are the grower's."""
        return (profile_id, plant_id) in self.copies or (profile_id, None) in self.copies


def _frozen(figures: dict[str, Any]) -> tuple[Any, ...]:
    return tuple(
        (k, _frozen(v) if isinstance(v, dict) else tuple(v) if isinstance(v, list) else v)
        for k, v in sorted(figures.items())
    )


def _thawed(figures: tuple[Any, ...]) -> dict[str, Any]:
    def value(v: Any) -> Any:
        nested = (
            isinstance(v, tuple)
            and v
            and all(isinstance(x, tuple) and len(x) == 2 and isinstance(x[0], str) for x in v)
        )
        return _thawed(v) if nested else v

    return {k: value(v) for k, v in figures}


@lru_cache(maxsize=256)
def _own(profile_id: str, figures: tuple[Any, ...]) -> Profile:
    return own_version(get_profile(profile_id), _thawed(figures))


def load_care(session: Session, today: date, only: set[int] | None = None) -> CareRows:
    """Everything of the day that is not in a pot's own log."""

    def of_pots(query: Any, column: Any) -> Any:
        return query if only is None else query.where(column.in_(only))

    overrides: dict[int, list[Override]] = {}
    for o in session.scalars(
        of_pots(
            select(HoldOverride).where(HoldOverride.archived_at.is_(None), HoldOverride.on <= today),
            HoldOverride.pot_id,
        )
    ):
        overrides.setdefault(o.pot_id, []).append(Override(o.hold_id, o.on, o.word))
    weights: dict[int, list[Weight]] = {}
    rows = select(Weight).where(Weight.archived_at.is_(None), Weight.on <= today).order_by(Weight.on, Weight.id)
    for w in session.scalars(of_pots(rows, Weight.pot_id)):
        weights.setdefault(w.pot_id, []).append(w)
    treated = (
        select(Event).where(Event.archived_at.is_(None), Event.kind == TREATED, Event.on <= today).order_by(Event.on)
    )
    decisions = select(Decision).where(
        Decision.archived_at.is_(None), Decision.on <= today, Decision.look_again_on.is_not(None)
    )
    skipped: dict[int, date] = {}
    look_again: dict[int, Decision] = {}
    for d in session.scalars(of_pots(decisions.order_by(Decision.on, Decision.id), Decision.pot_id)):
        if d.pot_id is not None and d.look_again_on is not None:
            if d.what == SKIPPED:
                skipped[d.pot_id] = d.look_again_on
            else:
                look_again[d.pot_id] = d
    climate = _newest_climate(session, today)
    return CareRows(
        places={p.id: p for p in session.scalars(select(Place))},
        climate=climate,
        copies={(c.profile_id, c.plant_id): c for c in session.scalars(
            select(ProfileCopy).where(ProfileCopy.archived_at.is_(None)).order_by(ProfileCopy.id))},
        overrides={k: tuple(v) for k, v in overrides.items()},
        weights=weights,
        prills=_prills(session, today, only),
        treated={e.pot_id: e for e in session.scalars(of_pots(treated, Event.pot_id)) if e.pot_id is not None},
        skipped=skipped,
        look_again=look_again,
        schools={s.school.id: s.school for s in schools_in_force(session)},
    )  # fmt: skip


def _newest_climate(session: Session, today: date) -> dict[int, Climate]:
    newest = (
        select(Climate.place_id, func.max(Climate.on).label("on"))
        .where(Climate.archived_at.is_(None), Climate.on <= today)
        .group_by(Climate.place_id)
        .subquery()
    )
    query = select(Climate).join(newest, (Climate.place_id == newest.c.place_id) & (Climate.on == newest.c.on))
    return {c.place_id: c for c in session.scalars(query.where(Climate.archived_at.is_(None)).order_by(Climate.id))}


def _prills(session: Session, today: date, only: set[int] | None) -> dict[int, Prills]:
    """The newest prills of each pot, by thermal time at the usual warmth of a room."""
    query = (
        select(Feeding, Product)
        .join(Product, Product.id == Feeding.product_id)
        .where(Feeding.archived_at.is_(None), Feeding.on <= today)
        .order_by(Feeding.on, Feeding.id)
    )
    if only is not None:
        query = query.where(Feeding.pot_id.in_(only))
    out: dict[int, Prills] = {}
    for given, product in session.execute(query):
        label = label_of(product)
        if label.kind == "prill" and label.longevity_days:
            at = label.longevity_at_C if label.longevity_at_C is not None else USUAL_C
            share = released_share((today - given.on).days, label.longevity_days, USUAL_C, at)
            days = days_until_released(PRILL_DONE, label.longevity_days, USUAL_C, at)
            out[given.pot_id] = Prills(share, given.on + timedelta(days=round(days)))
    return out


def own_row(session: Session, profile_id: str, plant_id: int | None = None) -> ProfileCopy | None:
    """The grower's own figures of a kind, or of one plant of it, if there are any."""
    whose = ProfileCopy.plant_id.is_(None) if plant_id is None else ProfileCopy.plant_id == plant_id
    mine = select(ProfileCopy).where(ProfileCopy.archived_at.is_(None), ProfileCopy.profile_id == profile_id, whose)
    return session.scalars(mine.order_by(ProfileCopy.id.desc()).limit(1)).first()


def profile_in_force(session: Session, profile_id: str, plant_id: int | None = None) -> Profile:
    """A kind with the grower's own figures: the plant's, else the whole kind's, else as shipped."""
    copy = own_row(session, profile_id, plant_id) or own_row(session, profile_id)
    return _own(profile_id, _frozen(copy.figures)) if copy else get_profile(profile_id)
