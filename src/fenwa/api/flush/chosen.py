"""What of a pot the flush asks for: its waters, its ways, how near it is, what holds it."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from fenwa.core.care.errands import medium_old_on
from fenwa.core.care.holds import blocked
from fenwa.core.care.prills import PRILL_DONE
from fenwa.core.errors import Underspecified
from fenwa.core.library.loader import media
from fenwa.core.pot.flush_methods import FlushMethods, FlushWater, flush_methods
from fenwa.core.pot.flush_schools import FlushSchools, flush_schools
from fenwa.core.working import Computed
from fenwa.store.pot_balance import balance_of
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import water_of_pot
from fenwa.store.water_state import waters_today


def held_by(p: PotToday) -> tuple[str, str]:
    """What holds a flush, and what ends that."""
    if not blocked(p.holds, "flush"):
        return "", ""
    hold = next(h for h in p.holds if "flush" in h.blocks and not h.word)
    return hold.reason, hold.release


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
        root_zone_uS_cm=b.root_zone_uS_cm,
        target_reading_uS_cm=target if target is not None else p.profile.root_zone.ec_ideal_uS_cm[1],
        waters=waters,
        deficit_L=b.deficit_L,
        from_above=p.profile.flush.from_above,
        crust=any(h.id == "crust" for h in p.holds),
        prills=prills is not None and prills.share_out < PRILL_DONE,
        lime=p.pot.medium_limed is True,
        medium_old=old_on is not None and old_on <= today,
    )


def schools_of(session: Session, p: PotToday, today: date) -> Computed[FlushSchools]:
    """What each school of flushing would have done with a pot's own log over the last year."""
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
