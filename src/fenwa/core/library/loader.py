"""Profiles, fertilizers, media and habits from their reviewed files, strictly checked."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

from fenwa.core.data.tables import DATA, build_row, read_toml
from fenwa.core.errors import NotFound
from fenwa.core.library.profile import Profile, read_profile
from fenwa.core.mix.label import Label, by_formula, check_label
from fenwa.core.mix.school import School
from fenwa.core.pot.specification import Medium


@dataclass(frozen=True)
class Habit:
    """What a group takes between waterings: e and LF shares, u and u_ballast uptake of nutrients and of ballast,
    interval [d].
    """

    id: str
    e: float
    LF: float
    u: float
    u_ballast: float
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
        raise NotFound(
            f"There is no care profile “{profile_id}”. Choose one of the list, or “unknown”.", pointer="/profile_id"
        )
    return found


def get_medium(medium_id: str) -> MediumRow:
    """The medium of that id."""
    found = media().get(medium_id)
    if found is None:
        raise NotFound(f"There is no medium “{medium_id}”. Choose one of the list.", pointer="/medium_id")
    return found
