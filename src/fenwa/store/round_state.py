"""Everything a round is planned from: pots, and for each the waters it may have."""

from __future__ import annotations

from datetime import date
from typing import get_args

from sqlalchemy.orm import Session

from fenwa.core.care.day import needs_of
from fenwa.core.care.due import RoundPot
from fenwa.core.care.round_pot import round_pot
from fenwa.core.library.profile import Profile
from fenwa.core.water.choice import Offered, Order, WaterChoice, choose_waters
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.store.collection import pots_today
from fenwa.store.models import Setting
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import WaterToday, waters_today

ANY_PLANT_uS_cm = 400.0  # where nothing is kept yet: most house plants


def waters_for(waters: list[WaterToday], pots: list[PotToday]) -> dict[PlantNeeds, list[Offered]]:
    """For everything the pots present need of water, the waters at hand in the grower's order."""
    return {needs: [w.offered(needs) for w in waters] for needs in {needs_of(p.profile) for p in pots}}


def water_order(session: Session) -> Order:
    """How waters that are fit are ranked: the grower's own order unless another was chosen."""
    row = session.get(Setting, "water_order")
    return row.value if row is not None and row.value in get_args(Order) else "own"  # type: ignore[return-value]


def round_pots(session: Session, today: date) -> tuple[list[RoundPot], list[PotToday], list[WaterToday]]:
    """Everything the round is planned from."""
    waters, pots = list(waters_today(session, today)), pots_today(session, today)
    order = water_order(session)
    at_hand, ec = waters_for(waters, pots), {w.water.id: w.reckoned_uS_cm for w in waters}
    remembered: dict[tuple[PlantNeeds, date | None, int | None], WaterChoice] = {}
    out = []
    for p in pots:
        needs, since, always = needs_of(p.profile), p.day.over_since, p.day.kept.water_id
        choice = remembered.get((needs, since, always))
        if choice is None:
            choice = choose_waters(at_hand[needs], needs, today, order=order, since=since, always=always)
            remembered[needs, since, always] = choice
        out.append(round_pot(p.day, choice, ec[choice.ids[0]] if choice.ids else None))
    return out, pots, waters


def waters_of_kind(session: Session, profile: Profile, today: date) -> tuple[WaterChoice, str]:
    """The waters a kind might be given, before it has a pot, and what the first is called."""
    waters, needs = waters_today(session, today), needs_of(profile)
    choice = choose_waters([w.offered(needs) for w in waters], needs, today, order=water_order(session))
    return choice, next((w.water.name for w in waters if choice.ids and w.water.id == choice.ids[0]), "")


def water_of_pot(session: Session, p: PotToday, today: date) -> tuple[WaterChoice, WaterToday | None]:
    """The waters one pot may have today, and the first of them."""
    waters, needs = waters_today(session, today), needs_of(p.profile)
    offered = [w.offered(needs) for w in waters]
    order = water_order(session)
    choice = choose_waters(offered, needs, today, order=order, since=p.day.over_since, always=p.day.kept.water_id)
    first = next((w for w in waters if choice.ids and w.water.id == choice.ids[0]), None)
    return choice, first


def usual_water_id(session: Session, today: date) -> int | None:
    """The water a can is begun with: the one the strictest plant kept may have, else the cheapest of the order."""
    waters, pots = waters_today(session, today), pots_today(session, today)
    kinds = [needs_of(p.profile) for p in pots] or [PlantNeeds(ec_max_uS_cm=ANY_PLANT_uS_cm)]
    needs = min(kinds, key=lambda n: n.ec_max_uS_cm)
    choice = choose_waters([w.offered(needs) for w in waters], needs, today, order=water_order(session))
    return choice.ids[0] if choice.ids else waters[0].water.id if waters else None
