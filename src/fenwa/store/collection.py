"""The whole collection on a day, as core types: pots with today's predicted reading."""

from __future__ import annotations

import gc
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from typing import Any

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.habit import look_is_due, usual_pour_L
from fenwa.core.care.holds import Condition, Hold, holds
from fenwa.core.data.loader import PhaseFeeding, Profile, get_profile, habits
from fenwa.core.pot.balance import State
from fenwa.core.pot.fold import reading_of, rested
from fenwa.core.pot.specification import PotSpec, band, capacity_L, members_of
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.store.models import Place, Plant, Pot, PotSummary
from fenwa.store.session import Store
from fenwa.store.summary import CORE_VERSION, pot_spec, refresh


def _day(text: str | None) -> date | None:
    return date.fromisoformat(text) if text else None


@dataclass(frozen=True, eq=False)  # one object for one state of a pot: compared by identity
class PotToday:
    """A pot, its plant and where its log leaves it today."""

    pot: Pot
    plant: Plant
    place: str
    profile: Profile
    spec: PotSpec
    data: dict[str, Any]
    reading: float | None
    reading_low: float | None
    reading_high: float | None
    holds: tuple[Hold, ...]
    today: date

    @property
    def name(self) -> str:
        """What the grower calls it, or its kind."""
        return self.pot.name or self.profile.short

    @property
    def phase(self) -> str:
        """Phase of the leading growth."""
        return str(self.data["phase"])

    @cached_property
    def phase_feeding(self) -> PhaseFeeding | None:
        """Feeding figures of the present phase; an unnamed phase feeds nothing."""
        return self.profile.phases.get(self.phase)

    @property
    def feed_ceiling_uS_cm(self) -> float | None:
        """Most a feed poured on this pot may read."""
        if self.profile.feeding.root_pour_ec_max_uS_cm is not None:
            return self.profile.feeding.root_pour_ec_max_uS_cm
        return self.phase_feeding.ec_ceiling_uS_cm if self.phase_feeding else None

    @cached_property
    def feeds_at_root(self) -> bool:
        """Whether the default route is the root: carnivores' is not."""
        return self.profile.feeding.routes[0] == "root" and bool(self.phase_feeding and self.phase_feeding.feed)

    @cached_property
    def volume_L(self) -> float:
        """Usual pour, by the core's rule. [L]"""
        logged = self.data["usual_volume_L"]
        return usual_pour_L(
            self.pot.usual_volume_L, logged, self.spec.loss_per_day, self.pot.interval_days, capacity_L(self.spec),
            habits()[self.profile.habit].LF,
        )  # fmt: skip

    @property
    def look_is_due(self) -> bool:
        """Whether the plant has gone unseen too long, on the day of this row."""
        return look_is_due(_day(self.data["last_look_on"]), self.today)


def needs_of(profile: Profile) -> PlantNeeds:
    """What a profile asks of water."""
    s = profile.source_water
    return PlantNeeds(
        s.ec_max_uS_cm, s.ec_short_term_max_uS_cm, s.alkalinity_ceiling_mg_L, profile.sensitivity.fluoride,
        profile.sensitivity.chlorine, profile.sensitivity.sodium, profile.sensitivity.boron, profile.short,
    )  # fmt: skip


def stale_summaries(session: Session) -> list[int]:
    """Pots whose folded row is missing or made by other figures."""
    rows = session.execute(
        select(Pot.id).outerjoin(PotSummary, PotSummary.pot_id == Pot.id).where(
            Pot.archived_at.is_(None),
            (PotSummary.pot_id.is_(None)) | (PotSummary.core_version != CORE_VERSION),
        )
    )  # fmt: skip
    return [r[0] for r in rows]


def refresh_stale(session: Session) -> int:
    """Fold again what is stale; returns how many."""
    stale = stale_summaries(session)
    for pot_id in stale:
        refresh(session, pot_id)
    return len(stale)


def pots_today(session: Session, today: date, only: set[int] | None = None) -> list[PotToday]:
    """Every pot kept, in walking order, with today's predicted reading.

    A reading session uses what was computed before and loads only the pots written since.
    """
    store = session.info.get("store")
    if store is None:
        return _load_pots(session, today, only)
    known = _remembered(store, today)
    if only is not None:
        return [known[i] for i in known if i in only]
    return list(known.values())


def _remembered(store: Store, today: date) -> dict[int, PotToday]:
    memory = store.changed.memory
    with store.changed.filling:
        changed = store.changed.take()  # before the snapshot below, so that no committed write is missed
        known: dict[int, PotToday] | None = memory.get("pots") if memory.get("day") == today else None
        if known is not None and not changed:
            return known
        with store.reading() as fresh:
            loaded = _load_pots(fresh, today, changed if known is not None else None)
        kept = [p for i, p in (known or {}).items() if i not in changed]
        ordered = sorted([*kept, *loaded], key=lambda p: (p.pot.shelf_order, p.pot.code))
        memory["pots"], memory["day"] = {p.pot.id: p for p in ordered}, today
        if known is None:
            gc.collect()
            gc.freeze()  # lasting objects by the thousand: the collector would walk them at every turn
        return dict(memory["pots"])


def _load_pots(session: Session, today: date, only: set[int] | None) -> list[PotToday]:
    """Pots from the database; all go through the core in one call."""
    query = (
        select(Pot, Plant, Place.name, PotSummary.data)
        .join(Plant, (Plant.pot_id == Pot.id) & Plant.archived_at.is_(None))
        .join(Place, Place.id == Pot.place_id)
        .join(PotSummary, PotSummary.pot_id == Pot.id)
        .where(Pot.archived_at.is_(None))
        .order_by(Pot.shelf_order, Pot.code)
    )
    if only is not None:
        query = query.where(Pot.id.in_(only))
    rows = session.execute(query).all()
    if not rows:
        return []
    found = [(pot, plant, place, data, get_profile(plant.profile_id)) for pot, plant, place, data in rows]
    specs = [pot_spec(pot, profile, data["phase"]) for pot, _, _, data, profile in found]
    members = members_of(specs)
    stacked = np.array([data["state"] for *_, data, _ in found])
    as_of = [_day(data["as_of"]) for *_, data, _ in found]
    days = [max(0, (today - d).days) if d else 0 for d in as_of]
    state = rested(specs, members, State(stacked[:, 0], stacked[:, 1], stacked[:, 2]), days)
    middle, low, high = band(reading_of(members, state))
    out = []
    for i, (pot, plant, place, data, profile) in enumerate(found):
        known = as_of[i] is not None
        out.append(
            PotToday(
                pot, plant, place, profile, specs[i], data,
                float(middle[i]) if known else None, float(low[i]) if known else None,
                float(high[i]) if known else None, holds(_condition(pot, plant, profile, data), today),
                today,
            )
        )  # fmt: skip
    return out


def _condition(pot: Pot, plant: Plant, profile: Profile, data: dict[str, Any]) -> Condition:
    new_leaf, flushed = _day(data["new_leaf_on"]), _day(data["last_flush_on"])
    measured_on = _day(data["last_equivalent_on"])
    measured = data["last_equivalent"] if measured_on and (flushed is None or measured_on > flushed) else None
    return Condition(
        data["phase"], _day(data["phase_since"]), profile.rest, profile.restart, plant.arrived_on, pot.repotted_on,
        bool(new_leaf and plant.arrived_on and new_leaf > plant.arrived_on), _day(data["crust_on"]),
        flushed, measured, measured_on, profile.root_zone.ec_ceiling_uS_cm,
    )  # fmt: skip
