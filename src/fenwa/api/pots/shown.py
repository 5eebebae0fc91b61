"""A pot as lists show it, and the shapes its log is told in; whoever prints a pot asks here."""

from __future__ import annotations

from datetime import date
from functools import lru_cache

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.core.care.condition import Hold, Phase
from fenwa.core.care.interval import left_share
from fenwa.core.errors import NotFound
from fenwa.core.library.loader import get_profile
from fenwa.core.pot.specification import Drainage, Route
from fenwa.store.collection import is_being_folded, pots_today
from fenwa.store.pot_today import PotToday


class PotRow(Model):
    """A pot in a list: limits are readings, and so is the figure compared with them."""

    id: int
    code: str
    name: str
    place: str
    spot: str
    profile: str
    profile_id: str
    phase: str
    isolated: bool
    tags: list[str]
    plants: list[str]
    interval_days: float
    left_share: float | None
    school: str
    drainage: Drainage
    drains: bool  # what is poured on top runs away below
    reading_uS_cm: float | None
    reading_low_uS_cm: float | None
    reading_high_uS_cm: float | None
    ideal_low_uS_cm: float
    ideal_high_uS_cm: float
    ceiling_uS_cm: float
    over_ceiling: bool
    measured_uS_cm: float | None
    measured_on: date | None
    last_pour_on: date | None
    last_look_on: date | None
    marks: list[str]
    newest_leaf_mm: float | None
    leaves_count: int | None
    holds: list[Hold]
    volume_L: float
    route: Route


class LookOut(Model):
    """A look as the chart draws it."""

    id: int
    on: date
    leaves_count: int | None
    newest_leaf_mm: float | None
    new_leaf: bool
    marks: list[str]
    unknown: list[str]
    note: str


class PhaseOut(Model):
    """A phase from a day on."""

    phase: Phase
    since: date


@lru_cache(maxsize=8192)
def pot_row(p: PotToday) -> PotRow:
    """A pot for a list."""
    rz = p.profile.root_zone
    return PotRow(
        id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        place=p.place,
        spot=p.pot.spot,
        profile=p.profile.short,
        profile_id=p.plant.profile_id,
        phase=p.phase,
        isolated=p.pot.isolated,
        tags=list(p.pot.tags or []),
        plants=[x.label or get_profile(x.profile_id).short for x in p.plants],
        interval_days=p.interval.days,
        left_share=left_share(p.log.last_pour_on, p.interval.days, p.today, p.water.left_share if p.water else None),
        school=p.school.name if p.school else "",
        drainage=p.pot.drainage,
        drains=p.spec.drains,
        reading_uS_cm=p.reading,
        reading_low_uS_cm=p.reading_low,
        reading_high_uS_cm=p.reading_high,
        ideal_low_uS_cm=rz.ec_ideal_uS_cm[0],
        ideal_high_uS_cm=rz.ec_ideal_uS_cm[1],
        ceiling_uS_cm=rz.ec_ceiling_uS_cm,
        over_ceiling=p.day.over_ceiling,
        measured_uS_cm=p.log.last_equivalent,
        measured_on=p.log.last_equivalent_on,
        last_pour_on=p.log.last_pour_on,
        last_look_on=p.log.last_look_on,
        marks=list(p.log.marks),
        newest_leaf_mm=p.log.newest_leaf_mm,
        leaves_count=p.log.leaves_count,
        holds=list(p.holds),
        volume_L=p.volume_L,
        route=p.pot.route,
    )


def one_pot(session: Session, pot_id: int, today: date) -> PotToday:
    """One pot today, or NotFound."""
    found = pots_today(session, today, {pot_id})
    if not found:
        if is_being_folded(session, pot_id):
            raise NotFound(f"The log of pot {pot_id} is being read anew. Ask again in a minute.", pointer="/pot_id")
        raise NotFound(f"Pot {pot_id} is not there. It may have been archived.", pointer="/pot_id")
    return found[0]
