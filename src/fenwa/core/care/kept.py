"""A pot, its place and what was chosen for it, as the core reads them."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date

from fenwa.core.care.condition import Override
from fenwa.core.care.felt import Felt, ReadyRule
from fenwa.core.care.interval import drying_rate, warmth_on
from fenwa.core.care.on_trial import TrialFeed
from fenwa.core.care.plan import FeedingPlan
from fenwa.core.care.prills import Prills
from fenwa.core.care.season import Hemisphere, hemisphere_of
from fenwa.core.care.standing_rules import InForce
from fenwa.core.climate.light import day_length_h
from fenwa.core.mix.school import School
from fenwa.core.pot.specification import Route
from fenwa.core.pot.weights import PotWater

NOBODY, AS_NOTED = InForce("", "none"), InForce("noted", "none")
Series = tuple[tuple[date, float], ...]


@dataclass(frozen=True)
class PlaceFacts:
    """A place on a day. None: not measured. Series are oldest first. [°, h, mol/m² d, °C, %]"""

    name: str = ""
    hemisphere: Hemisphere = "north"
    latitude_deg: float | None = None
    lamp_hours: float | None = None
    lamp_dli: float | None = None
    night_C: float | None = None
    day_C: float | None = None
    medium_C: float | None = None
    humidity_pct: float | None = None
    climate_on: date | None = None
    nights: Series = ()
    days: Series = ()
    warmth: Series = ()
    on_display: bool = False
    lamps_off: str = ""  # HH:MM; empty: not told

    @property
    def half(self) -> Hemisphere:
        """By the latitude where it is known, else as chosen."""
        return hemisphere_of(self.latitude_deg) if self.latitude_deg is not None else self.hemisphere

    def light_h(self, on: date) -> float | None:
        """Hours of light: the lamps', or the day's by latitude; None where neither is known. [h]"""
        if self.lamp_hours:
            return self.lamp_hours
        return day_length_h(self.latitude_deg, on) if self.latitude_deg is not None else None

    def drying_rate(self, on: date) -> float:
        """How fast water goes on a day, by warmth and light."""
        return drying_rate(warmth_on(self.warmth, on), self.light_h(on))


@dataclass(frozen=True)
class KeptPot:
    """A pot as it is kept, without its log. [d, L]"""

    id: int
    code: str = ""
    name: str = ""
    spot: str = ""
    shelf_order: int = 0
    isolated: bool = False
    route: Route = "top"
    interval_days: float = 7.0
    interval_by: str = "set"
    plain_every: int = 4
    usual_volume_L: float | None = None
    medium_charged: bool | None = None
    medium_since: date | None = None
    repotted_on: date | None = None
    entered_on: date | None = None
    watered_on: date | None = None  # told when it was entered
    fed_on: date | None = None
    arrived_on: date | None = None
    trial: str = ""
    trial_feed: TrialFeed = "as planned"
    trial_flush: bool = False  # a phase has just begun: it is flushed
    rule: ReadyRule = field(default_factory=lambda: ReadyRule("days"))
    felt: Felt = field(default_factory=Felt)
    water: PotWater | None = None
    overrides: tuple[Override, ...] = ()
    prills: Prills | None = None
    treated_on: date | None = None
    treated_days: float = 0.0
    skipped_until: date | None = None
    crown: str = ""  # empty: as its kind
    soak_min: float | None = None
    stand_min: float | None = None
    check_most_days: float | None = None
    water_id: int | None = None  # always this one
    filled: str = ""  # by the plant: scarcely; empty: as usual


@dataclass(frozen=True)
class Chosen:
    """What was chosen for a pot, with who chose: a plan or a school of feeding (None: its own rhythm) and how the
    phase is told.
    """

    school: School | None = None
    school_by: InForce = NOBODY
    phase_by: InForce = AS_NOTED
    plan: FeedingPlan | None = None
    products_of: FeedingPlan | None = None  # the nearest plan that names a product


@dataclass(frozen=True)
class Interval:
    """Days to the next look in force, with range; how many gaps they were learnt from, 0 when set by hand. [d]"""

    days: float
    low: float
    high: float
    learnt_from: int


@dataclass(frozen=True)
class Predicted:
    """The reading predicted today, with its 80 % band; None: never poured. [µS/cm]"""

    reading: float | None = None
    low: float | None = None
    high: float | None = None
