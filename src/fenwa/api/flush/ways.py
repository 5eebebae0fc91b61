"""A pot at the Flush station: ways side by side, schools over its log, and what would hold its ceiling."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter
from sqlalchemy.orm import Session

from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today
from fenwa.core.care.errands import medium_old_on
from fenwa.core.care.prills import PRILL_DONE
from fenwa.core.errors import Underspecified
from fenwa.core.library.loader import media
from fenwa.core.pot.balance import root_zone_ec
from fenwa.core.pot.flush_methods import FlushMethods, FlushWater, flush_methods
from fenwa.core.pot.flush_schools import FlushSchools, flush_schools
from fenwa.core.pot.fold import salt
from fenwa.core.pot.rhythm_change import RhythmChange, rhythm_change
from fenwa.core.working import Computed
from fenwa.store.pot_balance import PotBalance, balance_of
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import water_of_pot
from fenwa.store.water_state import waters_today

router = APIRouter(prefix="/api", tags=["flush"])


def root_zone_now(b: PotBalance) -> float:
    """Mean of all water in the pot as it stands. [µS/cm]"""
    return float(salt(root_zone_ec(b.now.members.soil, b.now.state))[0, 0])


def deficit_now(b: PotBalance) -> float:
    """What the pot takes up before it drains. [L]"""
    return max(0.0, float((b.now.members.soil.W_m_cc - b.now.state.W_m)[0, 0]))


def flush_waters_of(session: Session, p: PotToday, today: date) -> list[FlushWater]:
    """The waters at hand, with those this plant may have; where none is fit, the least bad."""
    choice, _ = water_of_pot(session, p, today)
    return [
        FlushWater(
            w.water.name,
            w.reckoned_uS_cm,
            w.left_L,
            w.water.price_per_L,
            w.water.id in choice.ids,
        )
        for w in waters_today(session, today)
    ]


def methods_of(
    session: Session, p: PotToday, today: date, target: float | None = None, water: str | None = None
) -> Computed[FlushMethods]:
    """Every way to flush a pot today."""
    b = balance_of(session, p, today)
    waters = flush_waters_of(session, p, today)
    if water is not None:
        waters = [w for w in waters if w.name == water] or waters
    if not waters:
        raise Underspecified("No water is kept. Add a water at the Water station first.", pointer="/water_id")
    prills = p.day.kept.prills
    medium = media().get(p.pot.medium_id)
    old_on = medium_old_on(p.pot.medium_since, medium.life_months if medium else None)
    return flush_methods(
        pot=b.learnt,
        root_zone_uS_cm=root_zone_now(b),
        target_reading_uS_cm=target if target is not None else p.profile.root_zone.ec_ideal_uS_cm[1],
        waters=waters,
        deficit_L=min(deficit_now(b), (1 - b.learnt.medium.phi) * b.learnt.medium.theta_cc * b.learnt.volume_L),
        from_above=p.profile.flush.from_above,
        crust=any(h.id == "crust" for h in p.holds),
        prills=prills is not None and prills.share_out < PRILL_DONE,
        medium_old=old_on is not None and old_on <= today,
    )


@router.get("/pots/{pot_id}/flush-ways")
def flush_ways(
    pot_id: int, session: ReadSession, today: Today, target: float | None = None, water: str | None = None
) -> Computed[FlushMethods]:
    """Rounds, soaks, baths, fresh water below and repotting side by side, with the water to take."""
    return methods_of(session, one_pot(session, pot_id, today), today, target, water)


@router.get("/pots/{pot_id}/flush-schools")
def schools(pot_id: int, session: ReadSession, today: Today) -> Computed[FlushSchools]:
    """What flushing by calendar, by reading and by forecast would have done over the last year."""
    p = one_pot(session, pot_id, today)
    b = balance_of(session, p, today)
    _, first = water_of_pot(session, p, today)
    cadence = p.profile.flush.cadence_days
    return flush_schools(
        pot=p.spec,
        events=b.events,
        today=today,
        ceiling_uS_cm=p.profile.root_zone.ec_ceiling_uS_cm,
        target_uS_cm=p.profile.root_zone.ec_ideal_uS_cm[1],
        water_uS_cm=first.reckoned_uS_cm if first else 30.0,
        cadence_days=float(cadence[1]) if cadence else None,
        readings=b.readings,
        from_above=p.profile.flush.from_above,
    )


@router.get("/pots/{pot_id}/rhythm-change")
def rhythm(pot_id: int, session: ReadSession, today: Today) -> Computed[RhythmChange]:
    """How the reading drifts under the present rhythm, and the cheapest change that holds the ceiling."""
    p = one_pot(session, pot_id, today)
    b = balance_of(session, p, today)
    waters = [w.ec_uS_cm for w in flush_waters_of(session, p, today) if w.allowed]
    _, first = water_of_pot(session, p, today)
    return rhythm_change(
        pot=p.spec,
        events=b.events,
        today=today,
        ceiling_uS_cm=p.profile.root_zone.ec_ceiling_uS_cm,
        readings=b.readings,
        waters_uS_cm=waters,
        base_uS_cm=first.reckoned_uS_cm if first else None,
    )
