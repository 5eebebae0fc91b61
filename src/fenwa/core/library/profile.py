"""A care profile: what a group of plants may drink, be fed and rest; one reviewed file each."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Literal, get_args

from pydantic import Field

from fenwa.core.data.tables import (
    EC,
    AciditySpan,
    Amount,
    Amounts,
    DaySpan,
    ECs,
    Level,
    Named,
    PercentSpan,
    Warmth,
    WarmthSpan,
    Window,
    build_row,
    one_of,
    read_toml,
)
from fenwa.core.pot.flush import FromAbove

RestKind = Literal["none", "plain", "dry", "summer"]
Confidence = Literal["high", "medium", "low"]
KindRoute = Literal["root", "foliar", "cup", "prey", "none"]
KindGroup = Literal["orchid", "carnivore", "foliage", "aroid", "fern", "flowering", "bromeliad", "unknown"]
KindPhase = Literal["active", "flowering", "slowing", "rest", "dormant", "establishing", "stressed"]
ReadingMethod = Literal["pour_through", "soak", "tank_reading"]
CrownCare = Literal["", "dry", "cup"]  # water in it rots it; its cup is kept filled
KindOrgan = Literal[
    "leaves", "root tips", "pitchers", "dew", "spikes", "buds", "flowers", "internodes", "bulbs", "nub"
]  # what a look may ask of a kind
PetHazard = Literal["none_known", "unknown", "mild", "toxic"]


@dataclass(frozen=True)
class SourceWater:
    """Most a plant may drink. [µS/cm; mg/L as CaCO3]"""

    ec_ideal_max_uS_cm: EC
    ec_max_uS_cm: EC
    ec_short_term_max_uS_cm: EC
    alkalinity_ceiling_mg_L: Amount
    alkalinity_ideal_max_mg_L: Amount
    confidence: Confidence


@dataclass(frozen=True)
class RootZoneLimits:
    """Limits for readings, not for root-zone concentrations. [µS/cm]

    With the method ``soak`` there is no pot: the limits are for the water a plant is soaked in.
    """

    ec_low_warn_uS_cm: EC
    ec_ideal_uS_cm: ECs
    ec_ceiling_uS_cm: EC
    pH: AciditySpan
    confidence: Confidence


@dataclass(frozen=True)
class Sensitivity:
    """0 none known, 1 low, 2 moderate, 3 high."""

    fluoride: Level
    chlorine: Level
    sodium: Level
    boron: Level


@dataclass(frozen=True)
class Feeding:
    """Routes in order, the first is the default; pour limit of carnivores; the source the EC ranges are told for.

    [µS/cm]
    """

    routes: tuple[KindRoute, ...]
    reference_source_uS_cm: EC
    confidence: Confidence
    root_pour_ec_max_uS_cm: EC | None = None


@dataclass(frozen=True)
class FlushHabit:
    """How this kind may be rinsed, and how often by habit. [d]"""

    from_above: FromAbove
    how: Named
    cadence_days: DaySpan | None = None


@dataclass(frozen=True)
class Hazard:
    """To pets and people; "unknown" and "none_known" never mean safe."""

    pets: PetHazard
    people: Named
    agent: str
    confidence: Confidence

    @property
    def poisonous(self) -> bool:
        """Whether it is known to harm pets."""
        return self.pets in ("mild", "toxic")

    @property
    def to_pets(self) -> str:
        """In words: not known to harm is no promise."""
        return "none known, which is no promise" if self.pets == "none_known" else self.pets


@dataclass(frozen=True)
class Lag:
    """First visible response in active growth, and where it shows. [d]"""

    underfeeding: DaySpan
    overfeeding: DaySpan
    first_sign: Named


@dataclass(frozen=True)
class Climate:
    """What the kind likes. [°C, % relative humidity]"""

    day_C: WarmthSpan
    night_C: WarmthSpan
    minimum_C: Warmth
    humidity_pct: PercentSpan | None = None  # not told for what lives in water


@dataclass(frozen=True)
class Rest:
    """How a kind rests and how it wakes.

    ``window_days`` and ``slowing_days`` count from the shortest day, so that they hold on both
    hemispheres; a window may run past the turn of the year. ``root_gate_cm``: roots a new growth must
    have before a dry rest ends; None where waking needs no roots; ``gate_roots`` how many of them,
    ``gate_growth_cm`` how long the growth itself. ``needs_cold``: lamps cannot
    replace this rest. ``optional``: growers differ whether it is needed. [d, cm]
    """

    kind: RestKind
    enter: str
    restart: str
    window_days: Window | None = None
    slowing_days: Window | None = None
    root_gate_cm: Annotated[float, Field(ge=0, le=50)] | None = None
    gate_roots: Annotated[int, Field(ge=1, le=20)] = 1
    gate_growth_cm: Annotated[float, Field(ge=0, le=200)] = 0.0
    needs_cold: bool = False
    optional: bool = False


@dataclass(frozen=True)
class Words:
    """What no number says: how it is watered, a note, and where growers differ."""

    watering: str
    note: str = ""
    disputed: str = ""


@dataclass(frozen=True)
class OptIn:
    """A way of feeding a carnivore that a grower may choose, with its own ceiling. [mg/L N, µS/cm]"""

    route: Literal["leaf spray", "cup", "root"]
    n_max_mg_L: Amount
    ec_ceiling_uS_cm: EC
    note: str


@dataclass(frozen=True)
class PhaseFeeding:
    """Feeding in one phase. Nitrogen [mg/L], EC of the feed [µS/cm], interval [d]."""

    feed: bool
    n_ideal_mg_L: Amounts
    n_ceiling_mg_L: Amount | None = None
    ec_ideal_uS_cm: ECs | None = None
    ec_ceiling_uS_cm: EC | None = None
    interval_days: DaySpan | None = None


@dataclass(frozen=True)
class Profile:
    """A care profile: one file in data/profiles. ``shows``: what a look asks of this kind, in this order."""

    id: Named
    name: Named
    short: Named
    group: KindGroup
    habit: Named
    method: ReadingMethod
    source: Named
    checked_by: Named
    confidence: Confidence
    carnivore: bool
    source_water: SourceWater
    root_zone: RootZoneLimits
    sensitivity: Sensitivity
    feeding: Feeding
    flush: FlushHabit
    hazard: Hazard
    lag_days: Lag
    climate: Climate
    rest: Rest
    words: Words
    phases: dict[str, PhaseFeeding]
    opt_in: tuple[OptIn, ...] = ()
    crown: CrownCare = ""
    shows: tuple[KindOrgan, ...] = ("leaves",)


_PARTS: dict[str, Any] = {
    "source_water": SourceWater,
    "root_zone": RootZoneLimits,
    "sensitivity": Sensitivity,
    "feeding": Feeding,
    "flush": FlushHabit,
    "hazard": Hazard,
    "lag_days": Lag,
    "climate": Climate,
    "rest": Rest,
    "words": Words,
}


def read_profile(path: Path) -> Profile:
    """One profile file; an error names file, key and way out."""
    return profile_from(read_toml(path), path.name)


def profile_from(raw: dict[str, Any], where: str, *, checked: bool = True) -> Profile:
    """A profile from plain values, as a file or a grower's own version holds them."""
    raw = dict(raw)
    for key, kind in _PARTS.items():
        if key in raw:
            raw[key] = build_row(kind, raw[key], f"{where} [{key}]", checked=checked)
    for name in raw.get("phases", {}):
        one_of(name, get_args(KindPhase), where, "phases")
    raw["phases"] = {
        name: build_row(PhaseFeeding, row, f"{where} [phases.{name}]", checked=checked)
        for name, row in raw.get("phases", {}).items()
    }
    raw["opt_in"] = tuple(build_row(OptIn, row, f"{where} [opt_in]", checked=checked) for row in raw.get("opt_in", ()))
    return build_row(Profile, raw, where, checked=checked)
