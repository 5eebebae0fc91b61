"""Everything a round is planned from: pots, and for each the waters it may have."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import get_args

from sqlalchemy.orm import Session

from fenwa.core.care.day import needs_of
from fenwa.core.care.due import RoundPot
from fenwa.core.care.round_parts import RoundWater
from fenwa.core.care.round_pot import round_pot
from fenwa.core.library.profile import Profile
from fenwa.core.water.choice import Offered, Order, WaterChoice, choose_waters
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.store.collection import pots_today
from fenwa.store.giving_way import InTurns
from fenwa.store.memory import remembered
from fenwa.store.models import Setting
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import WaterToday, waters_as_found, waters_today

ANY_PLANT_uS_cm = 400.0  # where nothing is kept yet: most house plants


def water_order(session: Session) -> Order:
    """How waters that are fit are ranked: the grower's own order unless another was chosen."""
    row = session.get(Setting, "water_order")
    return row.value if row is not None and row.value in get_args(Order) else "own"  # type: ignore[return-value]


class AtHand:
    """The waters at hand in the grower's order, with what was chosen of them so far: each choice is made once."""

    def __init__(self, waters: Sequence[WaterToday], order: Order, today: date) -> None:
        self._waters, self._order, self._today = waters, order, today
        self._ec = {w.water.id: w.reckoned_uS_cm for w in waters}
        self._offered: dict[PlantNeeds, list[Offered]] = {}
        self._choices: dict[tuple[PlantNeeds, date | None, int | None], WaterChoice] = {}
        self._pots: dict[int, tuple[PotToday, RoundPot]] = {}
        self.round_waters = [RoundWater(w.water.id, w.water.name, w.base()) for w in waters]

    def choice(self, needs: PlantNeeds, since: date | None = None, always: int | None = None) -> WaterChoice:
        """The waters that a plant may have."""
        found = self._choices.get((needs, since, always))
        if found is None:
            offered = self._offered.get(needs)
            if offered is None:
                offered = self._offered[needs] = [w.offered(needs) for w in self._waters]
            found = choose_waters(offered, needs, self._today, order=self._order, since=since, always=always)
            self._choices[needs, since, always] = found
        return found

    def choice_of(self, p: PotToday) -> WaterChoice:
        """The waters that a pot may have."""
        return self.choice(needs_of(p.profile), p.day.over_since, p.day.kept.water_id)

    def round_pots(self, pots: Sequence[PotToday]) -> InTurns[RoundPot]:
        """Pots as the round needs them, each worked out once for one state of it."""
        known, out = self._pots, InTurns[RoundPot]()
        for p in pots:
            found = known.get(p.id)
            if found is None or found[0] is not p:
                choice = self.choice_of(p)
                found = p, round_pot(p.day, choice, self._ec[choice.ids[0]] if choice.ids else None)
                known[p.id] = found
            out.append(found[1])
        return out


def at_hand(session: Session, today: date) -> AtHand:
    """The waters at hand, kept until something of a water is written."""
    return remembered(session, "at hand", today, lambda s: AtHand(waters_as_found(s, today), water_order(s), today))


def round_pots(session: Session, today: date) -> tuple[list[RoundPot], list[PotToday], list[WaterToday]]:
    """Everything the round is planned from."""
    pots, waters = pots_today(session, today), at_hand(session, today)
    return waters.round_pots(pots), pots, list(waters_today(session, today))


def waters_of_kind(session: Session, profile: Profile, today: date) -> tuple[WaterChoice, str]:
    """The waters a kind might be given, before it has a pot, and what the first is called."""
    waters, needs = waters_today(session, today), needs_of(profile)
    choice = at_hand(session, today).choice(needs)
    return choice, next((w.water.name for w in waters if choice.ids and w.water.id == choice.ids[0]), "")


def water_of_pot(session: Session, p: PotToday, today: date) -> tuple[WaterChoice, WaterToday | None]:
    """The waters one pot may have today, and the first of them."""
    choice = at_hand(session, today).choice_of(p)
    first = next((w for w in waters_today(session, today) if choice.ids and w.water.id == choice.ids[0]), None)
    return choice, first


def usual_water_id(session: Session, today: date) -> int | None:
    """The water a can is begun with: the one the strictest plant kept may have, else the cheapest of the order."""
    waters, pots = waters_today(session, today), pots_today(session, today)
    profiles = {id(p.profile): p.profile for p in pots}  # pots of a kind share it
    kinds = [needs_of(x) for x in profiles.values()] or [PlantNeeds(ec_max_uS_cm=ANY_PLANT_uS_cm)]
    needs = min(kinds, key=lambda n: n.ec_max_uS_cm)
    choice = at_hand(session, today).choice(needs)
    return choice.ids[0] if choice.ids else waters[0].water.id if waters else None
