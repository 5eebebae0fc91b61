"""A pot at the Flush station: ways side by side, schools over its log, and what would hold its ceiling."""

from __future__ import annotations

from fenwa.api.flush.chosen import flush_waters_of, methods_of, schools_of
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.core.pot.flush_methods import FlushMethods
from fenwa.core.pot.flush_schools import FlushSchools
from fenwa.core.pot.rhythm_change import RhythmChange, rhythm_change
from fenwa.core.working import Computed
from fenwa.store.pot_balance import balance_of
from fenwa.store.round_state import water_of_pot

router = Ways(prefix="/api", tags=["flush"])


@router.get("/pots/{pot_id}/flush-ways")
def flush_ways(
    pot_id: int, session: ReadSession, today: Today, target: float | None = None, water: str | None = None
) -> Computed[FlushMethods]:
    """Rounds, soaks, baths, fresh water below and repotting side by side, with the water to take."""
    return methods_of(session, one_pot(session, pot_id, today), today, target, water)


@router.get("/pots/{pot_id}/flush-schools")
def schools(pot_id: int, session: ReadSession, today: Today) -> Computed[FlushSchools]:
    """What flushing by calendar, by reading and by forecast would have done over the last year."""
    return schools_of(session, one_pot(session, pot_id, today), today)


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
