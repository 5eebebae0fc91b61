"""Profiles, fertilizers, media and habits from their reviewed files, strictly checked."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

from fenwa.core.data.tables import DATA, build_row, read_toml
from fenwa.core.errors import NotFound
from fenwa.core.mix.label import Label, by_formula, check_label
from fenwa.core.mix.school import School
from fenwa.core.pot.flush import FromAbove
from fenwa.core.pot.specification import Medium


@dataclass(frozen=True)
class SourceWater:
    """Most a plant may drink. [µS/cm; mg/L as CaCO3]"""

    ec_ideal_max_uS_cm: float
    ec_max_uS_cm: float
    ec_short_term_max_uS_cm: float
    alkalinity_ceiling_mg_L: float


@dataclass(frozen=True)
class RootZoneLimits:
    """Limits for readings, not for root-zone concentrations. [µS/cm]"""

    ec_low_warn_uS_cm: float
    ec_ideal_uS_cm: tuple[float, float]
    ec_ceiling_uS_cm: float
    pH: tuple[float, float]


@dataclass(frozen=True)
class Sensitivity:
    """0 none known, 1 low, 2 moderate, 3 high."""

    fluoride: int
    chlorine: int
    sodium: int
    boron: int


@dataclass(frozen=True)
class Feeding:
    """Routes in order, the first is the default; pour limit of carnivores. [µS/cm]"""

    routes: tuple[str, ...]
    root_pour_ec_max_uS_cm: float | None = None


@dataclass(frozen=True)
class FlushHabit:
    """How this kind may be rinsed, and how often by habit. [d]"""

    from_above: FromAbove
    cadence_days: tuple[int, int] | None = None


@dataclass(frozen=True)
class Hazard:
    """To pets and people; "unknown" and "none_known" never mean safe."""

    pets: str
    people: str
    agent: str


@dataclass(frozen=True)
class Lag:
    """First visible response in active growth. [d]"""

    underfeeding: tuple[int, int]
    overfeeding: tuple[int, int]


@dataclass(frozen=True)
class PhaseFeeding:
    """Feeding in one phase. Nitrogen [mg/L], ceiling of the feed [µS/cm], interval [d]."""

    feed: bool
    n_ideal_mg_L: tuple[float, float]
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
    confidence: str
    carnivore: bool
    rest: str
    restart: str
    source_water: SourceWater
    root_zone: RootZoneLimits
    sensitivity: Sensitivity
    feeding: Feeding
    flush: FlushHabit
    hazard: Hazard
    lag_days: Lag
    phases: dict[str, PhaseFeeding]


@dataclass(frozen=True)
class Habit:
    """What a group takes between waterings: e and LF shares, u uptake, interval [d]."""

    id: str
    e: float
    LF: float
    u: float
    interval_days: tuple[float, float]
    source: str
    confidence: str
    checked_by: str

    @property
    def loss_per_day(self) -> float:
        """Share of the water held that is lost in a day."""
        return self.e / (sum(self.interval_days) / 2)


@dataclass(frozen=True)
class MediumRow:
    """A row of data/media.toml."""

    id: str
    name: str
    theta_cc: float
    phi: float
    t_half_h: float
    eta: float
    R: float
    life_months: tuple[int, int]
    source: str
    confidence: str
    checked_by: str

    def medium(self) -> Medium:
        """What the salt balance needs of it."""
        return Medium(self.theta_cc, self.phi, self.t_half_h, self.eta, self.R, self.name)


@dataclass(frozen=True)
class Fertilizer:
    """A product of the shipped library: one file in data/fertilizers."""

    id: str
    label: Label
    source: str
    checked_by: str


def read_profile(path: Path) -> Profile:
    """One profile file; an error names file, key and way out."""
    raw, where = read_toml(path), path.name
    parts: dict[str, Any] = {
        "source_water": SourceWater, "root_zone": RootZoneLimits, "sensitivity": Sensitivity,
        "feeding": Feeding, "flush": FlushHabit, "hazard": Hazard, "lag_days": Lag,
    }  # fmt: skip
    for key, kind in parts.items():
        if key in raw:
            raw[key] = build_row(kind, raw[key], f"{where} [{key}]")
    raw["phases"] = {
        name: build_row(PhaseFeeding, row, f"{where} [phases.{name}]") for name, row in raw.get("phases", {}).items()
    }
    return build_row(Profile, raw, where)


def read_fertilizer(path: Path) -> Fertilizer:
    """One fertilizer file; its label is checked like one a grower types."""
    raw, where = read_toml(path), path.name
    own: dict[str, Any] = {key: raw.pop(key) for key in ("id", "source", "checked_by") if key in raw}
    label = by_formula(build_row(Label, raw, where), pointer=where)
    check_label(label)
    return build_row(Fertilizer, {**own, "label": label}, where)


@lru_cache(maxsize=8)
def profiles(folder: Path = DATA / "profiles") -> dict[str, Profile]:
    """All profiles by id."""
    rows = [read_profile(p) for p in sorted(folder.glob("*.toml"))]
    return {row.id: row for row in rows}


@lru_cache(maxsize=8)
def fertilizers(folder: Path = DATA / "fertilizers") -> dict[str, Fertilizer]:
    """The shipped library by id."""
    rows = [read_fertilizer(p) for p in sorted(folder.glob("*.toml"))]
    return {row.id: row for row in rows}


@lru_cache(maxsize=8)
def schools(folder: Path = DATA / "schools") -> dict[str, School]:
    """Schools of feeding by id."""
    rows = [build_row(School, read_toml(p), p.name) for p in sorted(folder.glob("*.toml"))]
    return {row.id: row for row in rows}


@lru_cache(maxsize=1)
def media() -> dict[str, MediumRow]:
    """Media by id."""
    rows = [build_row(MediumRow, raw, "media.toml") for raw in read_toml(DATA / "media.toml")["media"]]
    return {row.id: row for row in rows}


@lru_cache(maxsize=1)
def habits() -> dict[str, Habit]:
    """Watering habits by id."""
    rows = [build_row(Habit, raw, "habits.toml") for raw in read_toml(DATA / "habits.toml")["habits"]]
    return {row.id: row for row in rows}


@lru_cache(maxsize=1)
def sources() -> dict[str, str]:
    """Named sources by id."""
    return dict(read_toml(DATA / "sources.toml")["sources"])


def get_profile(profile_id: str) -> Profile:
    """The profile of that id."""
    found = profiles().get(profile_id)
    if found is None:
        raise NotFound(f"There is no care profile “{profile_id}”. Choose one of the list, or “unknown”.",
                       pointer="/profile_id")  # fmt: skip
    return found


def get_medium(medium_id: str) -> MediumRow:
    """The medium of that id."""
    found = media().get(medium_id)
    if found is None:
        raise NotFound(f"There is no medium “{medium_id}”. Choose one of the list.", pointer="/medium_id")
    return found
