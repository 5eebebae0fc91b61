"""A care profile: what a group of plants may drink, be fed and rest; one reviewed file each."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from fenwa.core.data.tables import build_row, read_toml
from fenwa.core.pot.flush import FromAbove

RestKind = Literal["none", "plain", "dry", "summer"]
Confidence = Literal["high", "medium", "low"]


@dataclass(frozen=True)
class SourceWater:
    """Most a plant may drink. [µS/cm; mg/L as CaCO3]"""

    ec_ideal_max_uS_cm: float
    ec_max_uS_cm: float
    ec_short_term_max_uS_cm: float
    alkalinity_ceiling_mg_L: float
    alkalinity_ideal_max_mg_L: float
    confidence: Confidence


@dataclass(frozen=True)
class RootZoneLimits:
    """Limits for readings, not for root-zone concentrations. [µS/cm]

    With the method ``soak`` there is no pot: the limits are for the water a plant is soaked in.
    """

    ec_low_warn_uS_cm: float
    ec_ideal_uS_cm: tuple[float, float]
    ec_ceiling_uS_cm: float
    pH: tuple[float, float]
    confidence: Confidence


@dataclass(frozen=True)
class Sensitivity:
    """0 none known, 1 low, 2 moderate, 3 high."""

    fluoride: int
    chlorine: int
    sodium: int
    boron: int


@dataclass(frozen=True)
class Feeding:
    """Routes in order, the first is the default; pour limit of carnivores; the source the EC ranges are told for.

    [µS/cm]
    """

    routes: tuple[str, ...]
    reference_source_uS_cm: float
    confidence: Confidence
    root_pour_ec_max_uS_cm: float | None = None


@dataclass(frozen=True)
class FlushHabit:
    """How this kind may be rinsed, and how often by habit. [d]"""

    from_above: FromAbove
    how: str
    cadence_days: tuple[int, int] | None = None


@dataclass(frozen=True)
class Hazard:
    """To pets and people; "unknown" and "none_known" never mean safe."""

    pets: str
    people: str
    agent: str
    confidence: Confidence


@dataclass(frozen=True)
class Lag:
    """First visible response in active growth, and where it shows. [d]"""

    underfeeding: tuple[int, int]
    overfeeding: tuple[int, int]
    first_sign: str


@dataclass(frozen=True)
class Climate:
    """What the kind likes. [°C, % relative humidity]"""

    day_C: tuple[float, float]
    night_C: tuple[float, float]
    minimum_C: float
    humidity_pct: tuple[float, float] | None = None  # not told for what lives in water


@dataclass(frozen=True)
class Rest:
    """How a kind rests and how it wakes.

    ``window_days`` and ``slowing_days`` count from the shortest day, so that they hold on both
    hemispheres; a window may run past the turn of the year. ``root_gate_cm``: roots a new growth must
    have before a dry rest ends; None where waking needs no roots. ``needs_cold``: lamps cannot
    replace this rest. ``optional``: growers differ whether it is needed. [d, cm]
    """

    kind: RestKind
    enter: str
    restart: str
    window_days: tuple[int, int] | None = None
    slowing_days: tuple[int, int] | None = None
    root_gate_cm: float | None = None
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
    n_max_mg_L: float
    ec_ceiling_uS_cm: float
    note: str


@dataclass(frozen=True)
class PhaseFeeding:
    """Feeding in one phase. Nitrogen [mg/L], EC of the feed [µS/cm], interval [d]."""

    feed: bool
    n_ideal_mg_L: tuple[float, float]
    n_ceiling_mg_L: float | None = None
    ec_ideal_uS_cm: tuple[float, float] | None = None
    ec_ceiling_uS_cm: float | None = None
    interval_days: tuple[int, int] | None = None


@dataclass(frozen=True)
class Profile:
    """A care profile: one file in data/profiles."""

    id: str
    name: str
    short: str
    group: str
    habit: str
    method: str
    source: str
    checked_by: str
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


def profile_from(raw: dict[str, Any], where: str) -> Profile:
    """A profile from plain values, as a file or a grower's own version holds them."""
    raw = dict(raw)
    for key, kind in _PARTS.items():
        if key in raw:
            raw[key] = build_row(kind, raw[key], f"{where} [{key}]")
    raw["phases"] = {
        name: build_row(PhaseFeeding, row, f"{where} [phases.{name}]") for name, row in raw.get("phases", {}).items()
    }
    raw["opt_in"] = tuple(build_row(OptIn, row, f"{where} [opt_in]") for row in raw.get("opt_in", ()))
    return build_row(Profile, raw, where)
