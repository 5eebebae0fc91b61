"""Everything a round is planned from: pots, and for each the waters it may have."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from fenwa.core.care.day import needs_of
from fenwa.core.care.due import RoundPot
from fenwa.core.care.round_pot import round_pot
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.core.water.verdict import may_be_given
from fenwa.store.collection import pots_today
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import WaterToday, waters_today


def drinkable(waters: list[WaterToday], pots: list[PotToday]) -> dict[PlantNeeds, tuple[int, ...]]:
    """For everything the pots present need of water, the waters that may be given, in the grower's order."""
    out = {}
    for needs in {needs_of(p.profile) for p in pots}:
        judged = [(w.water.id, w.verdict(needs)) for w in waters]
        out[needs] = tuple(i for i, v in judged if v is not None and may_be_given(v.result))
    return out


def round_pots(session: Session, today: date) -> tuple[list[RoundPot], list[PotToday], list[WaterToday]]:
    """Everything the round is planned from."""
    waters = [w for w in waters_today(session, today) if w.ec25_uS_cm is not None]
    pots = pots_today(session, today)
    allowed, ec = drinkable(waters, pots), {w.water.id: w.ec25_uS_cm for w in waters}
    first = {needs: ec[ids[0]] if ids else None for needs, ids in allowed.items()}
    asked = [needs_of(p.profile) for p in pots]
    return [round_pot(p.day, allowed[n], first[n]) for p, n in zip(pots, asked, strict=True)], pots, waters
