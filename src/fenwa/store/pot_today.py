"""A pot on a day: its rows beside what the core decided of it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from pydantic import TypeAdapter

from fenwa.core.care.condition import Hold
from fenwa.core.care.day import PotDay
from fenwa.core.care.felt import Felt, Ready, ReadyRule
from fenwa.core.care.kept import Interval, Series
from fenwa.core.care.log import LogFacts
from fenwa.core.care.pattern import FedSoFar, Pattern
from fenwa.core.care.phase import PhaseFound
from fenwa.core.care.standing_rules import InForce
from fenwa.core.library.profile import OptIn, Profile
from fenwa.core.mix.school import School
from fenwa.core.once import once
from fenwa.core.pot.specification import PotSpec
from fenwa.core.pot.weights import PotWater
from fenwa.store.models import Place, Plant, Pot

_FACTS = TypeAdapter(LogFacts)


def facts_as_plain(facts: LogFacts) -> dict[str, Any]:
    """A log's facts as they are stored."""
    plain: dict[str, Any] = _FACTS.dump_python(facts, mode="json")
    return plain


def facts_from_plain(plain: dict[str, Any]) -> LogFacts:
    """A log's facts from what was stored."""
    return _FACTS.validate_python(plain)


@dataclass(frozen=True, eq=False)  # one object for one state of a pot: compared by identity
class PotToday:
    """A pot with its rows, and its day. All that is decided is decided in ``day``; this only passes it on."""

    pot: Pot
    plant: Plant
    plants: tuple[Plant, ...]
    where: Place
    own_figures: bool
    day: PotDay

    @once
    def id(self) -> int:
        """Number of the pot."""
        return self.day.kept.id

    @once
    def salt_share(self) -> float:
        """Its predicted reading over the ceiling of its kind; below 0 where nothing is predicted."""
        return -1.0 if self.reading is None else self.day.share_of_ceiling

    @once
    def plant_id(self) -> int:
        """Number of the leading plant."""
        return self.plant.id

    @once
    def kind(self) -> str:
        """The kind of the leading plant."""
        return self.plant.profile_id

    @property
    def log(self) -> LogFacts:
        """What the log leaves behind."""
        return self.day.log

    @property
    def profile(self) -> Profile:
        """The kind, or the strictest of several, with the grower's own figures."""
        return self.day.profile

    @property
    def spec(self) -> PotSpec:
        """The pot as the salt balance needs it."""
        return self.day.spec

    @property
    def today(self) -> date:
        """The day."""
        return self.day.today

    @property
    def place(self) -> str:
        """Name of the place."""
        return self.where.name

    @property
    def name(self) -> str:
        """What the grower calls it, or its kind."""
        return self.pot.name or self.profile.short

    @property
    def reading(self) -> float | None:
        """Predicted reading; None: never poured. [µS/cm]"""
        return self.day.predicted.reading

    @property
    def reading_low(self) -> float | None:
        """Lower end of its band. [µS/cm]"""
        return self.day.predicted.low

    @property
    def reading_high(self) -> float | None:
        """Upper end of its band. [µS/cm]"""
        return self.day.predicted.high

    @property
    def found(self) -> PhaseFound:
        """The phase and how it was told."""
        return self.day.found

    @property
    def phase(self) -> str:
        """Phase of the leading growth."""
        return self.day.found.phase

    @property
    def holds(self) -> tuple[Hold, ...]:
        """What holds it."""
        return self.day.holds

    @property
    def school(self) -> School | None:
        """The school it is fed by."""
        return self.day.school

    @property
    def school_by(self) -> InForce:
        """Who chose the school."""
        return self.day.chosen.school_by

    @property
    def phase_by(self) -> InForce:
        """Who chose how the phase is told."""
        return self.day.chosen.phase_by

    @property
    def pattern(self) -> Pattern:
        """Its feeding rhythm."""
        return self.day.pattern

    @property
    def fed(self) -> FedSoFar:
        """What the log says of feeding."""
        return self.day.fed

    @property
    def interval(self) -> Interval:
        """Days to the next look."""
        return self.day.interval

    @property
    def warmth(self) -> Series:
        """Warmth of its place, day by day."""
        return self.day.place.warmth

    @property
    def water(self) -> PotWater | None:
        """Water left by weight."""
        return self.day.kept.water

    @property
    def rule(self) -> ReadyRule:
        """Its rule of readiness."""
        return self.day.kept.rule

    @property
    def felt(self) -> Felt:
        """What was found of it."""
        return self.day.kept.felt

    @property
    def skipped_until(self) -> date | None:
        """The day it is felt again, if it was left."""
        return self.day.kept.skipped_until

    @property
    def feed_ceiling_uS_cm(self) -> float | None:
        """Most a feed poured on it may read."""
        return self.day.feed_ceiling_uS_cm

    @property
    def feeds_at_root(self) -> bool:
        """Whether the root is fed."""
        return self.day.feeds_at_root

    @property
    def nitrogen_range(self) -> tuple[float, float]:
        """Nitrogen its feed may have. [mg/L]"""
        return self.day.nitrogen_range

    @property
    def volume_L(self) -> float:
        """Usual pour. [L]"""
        return self.day.volume_L

    @property
    def ready(self) -> Ready:
        """Water, wait or check."""
        return self.day.ready

    @property
    def look_is_due(self) -> bool:
        """Whether it has gone unseen too long."""
        return self.day.look_is_due

    def opted(self, route: str) -> OptIn | None:
        """The way of feeding a carnivore its grower chose."""
        return self.day.opted(route)
