"""A pot's log as the diagnosis reads it: looks, leaves, runoffs, waters, air, what was felt, moves."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from fenwa.core.diagnosis.next_checks import DoneCheck
from fenwa.core.leaf.marks import SeenMark
from fenwa.core.library.profile import Profile


@dataclass(frozen=True)
class IllLook:
    """A look. None: not looked at. ``root_share``: tips alive of those seen; ``dewed``: leaves or traps working."""

    on: date
    marks: tuple[SeenMark, ...] = ()
    looked_for: bool = True
    root_share: float | None = None
    roots_work: bool | None = None
    dewed: bool | None = None
    pests: int | None = None
    sour: bool = False


@dataclass(frozen=True)
class IllLeaf:
    """A leaf by when it was begun in the bud and opened, and its length as a share of usual. None: not measured."""

    number: int
    begun_on: date
    opened_on: date
    share: float | None = None


@dataclass(frozen=True)
class IllWater:
    """What is known of a water for this kind. None: not known."""

    name: str
    thin: bool | None = None
    softened: bool | None = None
    alkaline: bool | None = None
    treated: bool | None = None


@dataclass(frozen=True)
class IllPour:
    """A watering with its water's name; ``feeds``: whether it was a feed."""

    on: date
    water: str
    feeds: bool = False
    flush: bool = False


@dataclass(frozen=True)
class IllAir:
    """A day of the place. None: not measured. [°C, %]"""

    on: date
    night_C: float | None = None
    humidity_pct: float | None = None


@dataclass(frozen=True)
class IllFelt:
    """How the pot was found on a day. None: not felt."""

    on: date
    moist: str | None = None
    heavy: bool | None = None
    droops: bool | None = None


@dataclass(frozen=True, kw_only=True)
class IllLog:
    """Everything a log holds that speaks of what is wrong; each list oldest first. [µS/cm, d]"""

    today: date
    profile: Profile
    phase: str
    looks: tuple[IllLook, ...] = ()
    leaves: tuple[IllLeaf, ...] = ()
    runoffs: tuple[tuple[date, float], ...] = ()
    waters: tuple[IllWater, ...] = ()
    pours: tuple[IllPour, ...] = ()
    air: tuple[IllAir, ...] = ()
    felt: tuple[IllFelt, ...] = ()
    moved: tuple[tuple[date, str], ...] = ()
    checks: tuple[DoneCheck, ...] = ()
    interval_days: float = 7.0
    repotted_on: date | None = None
    arrived_on: date | None = None
    gaps_long: bool | None = None
    feeds_at_root: bool = True
