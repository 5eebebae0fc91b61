"""A pot on a day: its plants, its log's end, its phase, its rhythm and what holds it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from functools import cached_property
from typing import Any

from fenwa.core.care.due import feed_range
from fenwa.core.care.habit import look_is_due, usual_pour_L
from fenwa.core.care.holds import Hold
from fenwa.core.care.pattern import FedSoFar, Pattern
from fenwa.core.care.phase import PhaseFound
from fenwa.core.care.readiness import Felt, Ready, ReadyRule, is_ready
from fenwa.core.care.standing import InForce
from fenwa.core.data.loader import habits
from fenwa.core.data.profile import OptIn, PhaseFeeding, Profile
from fenwa.core.mix.school import School
from fenwa.core.pot.specification import PotSpec, capacity_L
from fenwa.core.pot.weights import PotWater
from fenwa.store.models import Place, Plant, Pot


def day_of(text: str | None) -> date | None:
    """A stored day."""
    return date.fromisoformat(text) if text else None


@dataclass(frozen=True)
class Interval:
    """Days to the next look in force, with range; how many gaps they were learnt from, 0 when set by hand. [d]"""

    days: float
    low: float
    high: float
    learnt_from: int


@dataclass(frozen=True, eq=False)  # one object for one state of a pot: compared by identity
class PotToday:
    """A pot, its leading plant and where its log leaves it today."""

    pot: Pot
    plant: Plant
    plants: tuple[Plant, ...]
    where: Place
    profile: Profile
    own_figures: bool
    spec: PotSpec
    data: dict[str, Any]
    reading: float | None
    reading_low: float | None
    reading_high: float | None
    holds: tuple[Hold, ...]
    found: PhaseFound
    school: School | None
    school_by: InForce
    phase_by: InForce
    pattern: Pattern
    interval: Interval
    warmth: tuple[tuple[date, float], ...]
    water: PotWater | None
    rule: ReadyRule
    felt: Felt
    skipped_until: date | None
    today: date

    @property
    def place(self) -> str:
        """Name of the place."""
        return self.where.name

    @property
    def name(self) -> str:
        """What the grower calls it, or its kind."""
        return self.pot.name or self.profile.short

    @property
    def phase(self) -> str:
        """Phase of the leading growth."""
        return self.found.phase

    @property
    def fed(self) -> FedSoFar:
        """What the log says of feeding."""
        d = self.data
        return FedSoFar(
            d["feeds_since_plain"], d["plains_since_feed"], day_of(d["last_feed_on"]), day_of(d["last_spray_on"])
        )

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

    def opted(self, route: str) -> OptIn | None:
        """The way of feeding a carnivore its grower chose by a school, with its own ceiling."""
        chosen = (
            self.school is not None
            and {"root": "root", "leaf": "leaf spray", "cup": "cup"}.get(self.school.route) == route
        )
        if not chosen or not self.profile.carnivore or self.pattern.kind == "none":
            return None
        return next((o for o in self.profile.opt_in if o.route == route), None)

    @cached_property
    def feeds_at_root(self) -> bool:
        """Whether the root is fed: by the kind's default route, or by a school its grower chose. Carnivores only by choice."""
        by_kind = self.profile.feeding.routes[0] == "root" and not self.profile.carnivore
        return (by_kind or self.opted("root") is not None) and bool(self.phase_feeding and self.phase_feeding.feed)

    @cached_property
    def nitrogen_range(self) -> tuple[float, float]:
        """Nitrogen its feed may have in this phase, by its school. [mg/L]"""
        low, high = feed_range(self.phase_feeding, self.school)
        opted = self.opted("root")
        if self.profile.carnivore:
            return (min(low, opted.n_max_mg_L), min(high, opted.n_max_mg_L)) if opted else (0.0, 0.0)
        return low, high

    @cached_property
    def volume_L(self) -> float:
        """Usual pour, by the core's rule. [L]"""
        logged = self.data["usual_volume_L"]
        return usual_pour_L(
            self.pot.usual_volume_L, logged, self.spec.loss_per_day, self.interval.days, capacity_L(self.spec),
            habits()[self.profile.habit].LF,
        )  # fmt: skip

    @cached_property
    def ready(self) -> Ready:
        """Water, wait or check, by the grower's own rule."""
        return is_ready(self.rule, self.felt, day_of(self.data["last_pour_on"]), self.today)

    @property
    def look_is_due(self) -> bool:
        """Whether the plant has gone unseen too long, on the day of this row."""
        return look_is_due(day_of(self.data["last_look_on"]), self.today)
