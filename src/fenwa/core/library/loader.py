"""Profiles, fertilizers, media and habits from their reviewed files, strictly checked."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field

from fenwa.core.data.tables import DATA, DaySpan, Named, Rising, Share, build_row, by_id, one_of, read_toml
from fenwa.core.errors import DomainError, InputError, NotFound
from fenwa.core.library.profile import Confidence, Profile, read_profile
from fenwa.core.mix.label import Label, by_formula, check_label
from fenwa.core.mix.school import School, SchoolPot, school_load
from fenwa.core.pot.specification import Medium

SCHOOL_GROUPS = ("rhythm", "season", "leaf", "carnivore")
Months = Annotated[int, Field(ge=1, le=240)]


@dataclass(frozen=True)
class Habit:
    """What a group takes between waterings: e and LF shares, u and u_ballast uptake of nutrients and of ballast,
    interval [d]. ``usual_medium``: what it mostly stands in; empty: a way of watering, of no group.
    """

    id: Named
    e: Share
    LF: Share
    u: Share
    u_ballast: Share
    interval_days: DaySpan
    source: Named
    confidence: Confidence
    checked_by: Named
    usual_medium: str = ""

    @property
    def loss_per_day(self) -> float:
        """Share of the water held that is lost in a day."""
        return self.e / (sum(self.interval_days) / 2)


@dataclass(frozen=True)
class MediumRow:
    """A row of data/media.toml."""

    id: Named
    name: Named
    theta_cc: Annotated[float, Field(gt=0, lt=1)]
    phi: Annotated[float, Field(ge=0, lt=1)]
    t_half_h: Annotated[float, Field(gt=0, le=1_000)]
    eta: Annotated[float, Field(gt=0, le=1)]
    R: Annotated[float, Field(ge=1, le=20)]
    life_months: Annotated[tuple[Months, Months], Rising]
    source: Named
    confidence: Confidence
    checked_by: Named

    def medium(self) -> Medium:
        """What the salt balance needs of it."""
        return Medium(self.theta_cc, self.phi, self.t_half_h, self.eta, self.R, self.name)


@dataclass(frozen=True)
class Fertilizer:
    """A product of the shipped library: one file in data/fertilizers."""

    id: Named
    label: Label
    source: Named
    checked_by: Named


def _in_file(where: str, error: DomainError) -> InputError:
    """A refusal of the core with the file and the key it is about."""
    key = (error.pointer or "").rpartition("/")[2]
    return InputError(f"{where}: key “{key}”: {error.detail}" if key else f"{where}: {error.detail}")


def read_fertilizer(path: Path) -> Fertilizer:
    """One fertilizer file; its label is checked like one a grower types."""
    raw, where = read_toml(path), path.name
    own: dict[str, Any] = {key: raw.pop(key) for key in ("id", "source", "checked_by") if key in raw}
    typed = build_row(Label, raw, where)
    try:
        label = by_formula(typed)
        check_label(label)
    except DomainError as error:
        raise _in_file(where, error) from error
    return build_row(Fertilizer, {**own, "label": label}, where)


def read_school(path: Path) -> School:
    """One school file; figures that cannot be fed by are refused like a grower's own."""
    school = build_row(School, read_toml(path), path.name)
    one_of(school.group, SCHOOL_GROUPS, path.name, "group")
    one_of(school.confidence, ("H", "M", "L"), path.name, "confidence")
    try:
        school_load(school=school, pot=SchoolPot())
    except DomainError as error:
        raise _in_file(path.name, error) from error
    return school


@lru_cache(maxsize=8)
def profiles(folder: Path = DATA / "profiles") -> dict[str, Profile]:
    """All profiles by id."""
    found = [(p.name, read_profile(p)) for p in sorted(folder.glob("*.toml"))]
    for where, row in found:
        one_of(row.habit, habits(), where, "habit")
        one_of(row.source, sources(), where, "source")
    return by_id(found)


@lru_cache(maxsize=8)
def fertilizers(folder: Path = DATA / "fertilizers") -> dict[str, Fertilizer]:
    """The shipped library by id."""
    found = [(p.name, read_fertilizer(p)) for p in sorted(folder.glob("*.toml"))]
    for where, row in found:
        one_of(row.source, sources(), where, "source")
    return by_id(found)


@lru_cache(maxsize=8)
def schools(folder: Path = DATA / "schools") -> dict[str, School]:
    """Schools of feeding by id."""
    found = [(p.name, read_school(p)) for p in sorted(folder.glob("*.toml"))]
    for where, row in found:
        one_of(row.source, sources(), where, "source")
    return by_id(found)


@lru_cache(maxsize=8)
def media(path: Path = DATA / "media.toml") -> dict[str, MediumRow]:
    """Media by id."""
    return by_id((path.name, build_row(MediumRow, raw, path.name)) for raw in read_toml(path)["media"])


@lru_cache(maxsize=8)
def habits(path: Path = DATA / "habits.toml") -> dict[str, Habit]:
    """Watering habits by id."""
    return by_id((path.name, build_row(Habit, raw, path.name)) for raw in read_toml(path)["habits"])


@lru_cache(maxsize=1)
def kind_words() -> dict[str, tuple[str, ...]]:
    """What growers call kinds besides their names: word to profile ids."""
    words = {w.lower(): tuple(ids) for w, ids in read_toml(DATA / "kind_words.toml")["words"].items()}
    for word, ids in words.items():
        for i in ids:
            one_of(i, profiles(), "kind_words.toml", word)
    return words


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
