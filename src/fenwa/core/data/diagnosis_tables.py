"""Causes, signs, findings, checks and readings of the diagnosis, from their reviewed files."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import Field

from fenwa.core.data.tables import DATA, DaySpan, Named, Share, build_row, by_id, one_of, read_toml

Side = Literal["pot", "water", "moisture", "air", "light", "warmth", "feed", "change", "age", "life", "hand"]
Forbidden = Literal["water", "feed", "flush"]
Ratio = Annotated[float, Field(gt=0, le=100)]
Chance = Annotated[float, Field(gt=0, lt=1)]
Harm = Annotated[int, Field(ge=0, le=4)]


@dataclass(frozen=True)
class Cause:
    """A file of data/causes. ``harmful``: what does harm where it is the cause; ``lag_days``: until it shows.

    ``forbids``: what waits while it leads; ``signs``: P(sign | cause); ``findings``: likelihood ratios.
    """

    id: Named
    name: Named
    short: Named
    side: Side
    prior: Chance
    decides: Named
    correction: Named
    forbids: tuple[Forbidden, ...]
    harmful: Literal["", "water", "feed", "flush"]
    lag_days: DaySpan
    spreads: bool
    source: Named
    confidence: Literal["high", "medium", "low"]
    checked_by: Named
    signs: dict[str, Chance]
    findings: dict[str, Ratio]


@dataclass(frozen=True)
class Sign:
    """A sign in words; ``on_leaf``: seen on a leaf, so that the days it formed in date it."""

    id: Named
    words: Named
    on_leaf: bool


@dataclass(frozen=True)
class FindingRow:
    """A finding in words."""

    id: Named
    words: Named


@dataclass(frozen=True)
class Outcome:
    """How a check can come out, and how often it does."""

    finding: Named
    share: Share


@dataclass(frozen=True)
class Check:
    """A check: harm to the plant 0 to 4, cost 0 to 4, minutes it takes, what it separates."""

    id: Named
    name: Named
    how: Named
    harm: Harm
    cost: Harm
    minutes: Annotated[int, Field(ge=0, le=100_000)]
    separates: tuple[Named, ...]
    costs_plant: Named
    source: Named
    outcomes: tuple[Outcome, ...] = ()
    needs_sign: str = ""  # done only where this sign is seen


@dataclass(frozen=True)
class School:
    """One way to read a sign: its name, what it says, and what it thinks likelier."""

    name: Named
    says: Named
    factors: dict[str, Ratio]


@dataclass(frozen=True)
class ReadingRow:
    """Signs that growers read two ways, and what separates the two."""

    id: Named
    title: Named
    signs: tuple[Named, ...]
    check: Named
    separated_by: Named
    first: School
    second: School


@lru_cache(maxsize=1)
def causes(folder: Path = DATA / "causes") -> dict[str, Cause]:
    """Causes by id, in the order of their files' names; each knows every sign, and only findings there are."""
    known, findings_known = set(signs()), findings()
    rows = []
    for path in sorted(folder.glob("*.toml")):
        row = build_row(Cause, read_toml(path), path.name)
        for sign in row.signs:
            one_of(sign, known, path.name, "signs")
        for sign in known - set(row.signs):
            one_of(sign, row.signs, path.name, "signs")  # every cause says how likely every sign is
        for finding in row.findings:
            one_of(finding, findings_known, path.name, "findings")
        rows.append((path.name, row))
    return by_id(rows)


def _named(file: str, table: str, kind: type) -> dict[str, Any]:
    raw = read_toml(DATA / file)[table]
    return {key: build_row(kind, {"id": key, **row}, file) for key, row in raw.items()}


@lru_cache(maxsize=1)
def signs() -> dict[str, Sign]:
    """Signs by id."""
    return _named("signs.toml", "signs", Sign)


@lru_cache(maxsize=1)
def findings() -> dict[str, FindingRow]:
    """Findings by id."""
    return _named("findings.toml", "findings", FindingRow)


@lru_cache(maxsize=1)
def checks() -> dict[str, Check]:
    """Checks by id, gentlest first."""
    rows = []
    for raw in read_toml(DATA / "checks.toml")["checks"]:
        where = f"checks.toml [{raw.get('id')}]"
        outcomes = [build_row(Outcome, o, where) for o in raw.pop("outcomes", [])]
        if raw.get("needs_sign"):
            one_of(raw["needs_sign"], signs(), where, "needs_sign")
        for o in outcomes:
            one_of(o.finding, findings(), where, "finding")
        rows.append((where, build_row(Check, {**raw, "outcomes": outcomes}, where)))
    found = by_id(rows)
    return dict(sorted(found.items(), key=lambda item: (item[1].harm, item[1].cost)))


@lru_cache(maxsize=1)
def readings() -> dict[str, ReadingRow]:
    """Signs read two ways, by id."""
    rows = []
    for raw in read_toml(DATA / "readings.toml")["readings"]:
        where = f"readings.toml [{raw.get('id')}]"
        for key in ("first", "second"):
            raw[key] = build_row(School, raw[key], where)
            for cause in raw[key].factors:
                one_of(cause, causes(), where, key)
        for sign in raw["signs"]:
            one_of(sign, signs(), where, "signs")
        one_of(raw["check"], checks(), where, "check")
        rows.append((where, build_row(ReadingRow, raw, where)))
    return by_id(rows)
