"""What is felt, seen or read of a pot, and a grower's rule for it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from fenwa.core.pot.methods import Moist

ReadyBy = Literal["days", "weight", "probe", "finger", "roots", "droop", "signs"]
Roots = Literal["green", "silver"]
DryEnd = Literal["low", "high"]
Wall = Literal["misted", "clear"]
Heft = Literal["heavy", "light"]
Sign = Literal["roots", "wall", "finger", "leaves", "heft"]
State = Literal["water", "wait", "check"]

SIGNS: tuple[Sign, ...] = ("roots", "wall", "finger", "leaves", "heft")
SIGNS_AGAIN_DAYS = 2  # a contrary sign is looked at again after so long; judgement

MOIST: tuple[Moist, ...] = ("wet", "moist", "barely damp", "dry")  # from wet to dry
USUAL_MOIST: Moist = "barely damp"  # most kinds are watered then; judgement
USUAL_AT = {"weight": 0.1, "finger": 2.0}  # share of the water left; "barely damp": judgement


@dataclass(frozen=True)
class Probe:
    """A soil probe with the scale printed on it, and which end of it is dry."""

    name: str
    lowest: float = 1.0
    highest: float = 10.0
    dry_end: DryEnd = "low"

    def moisture(self, value: float) -> float:
        """Share of the scale from its dry end, 0 to 1. It ranks; it is no water content."""
        share = (value - self.lowest) / (self.highest - self.lowest)
        return share if self.dry_end == "low" else 1.0 - share


@dataclass(frozen=True)
class ReadyRule:
    """A rule and its threshold: share of water left, value on the probe's own scale, or place in ``MOIST``.

    By signs: those looked at, and how many of them must say dry.
    """

    by: ReadyBy = "days"
    at: float | None = None
    probe: Probe | None = None
    signs: tuple[Sign, ...] = ()
    least: int = 2


@dataclass(frozen=True, kw_only=True)
class Felt:
    """What was felt, seen or read of a pot, each with its day. None: not done. [share, probe's scale]"""

    left_share: float | None = None
    weighed_on: date | None = None
    probe_value: float | None = None
    probed_on: date | None = None
    moist: Moist | None = None
    moist_on: date | None = None
    roots: Roots | None = None
    roots_on: date | None = None
    droops: bool | None = None
    droop_on: date | None = None
    wall: Wall | None = None
    wall_on: date | None = None
    heft: Heft | None = None
    heft_on: date | None = None


@dataclass(frozen=True)
class Ready:
    """Water it, wait, or check: nobody has looked since the last watering, or not today."""

    state: State
    sentence: str
    again_on: date | None = None  # of one that waits: the day it is looked at again


def says(rule: ReadyRule) -> str:
    """The rule in a few words, as the round tells it."""
    if rule.by == "weight":
        return f"water at {100 * (rule.at or 0):.0f} % of its water left, by weight"
    if rule.by == "probe" and rule.probe is not None:
        side = "or less" if rule.probe.dry_end == "low" else "or more"
        return f"water at {rule.at:g} {side} on {rule.probe.name}"
    if rule.by == "finger":
        return f"water when {MOIST[int(rule.at or 2)]} to the finger"
    if rule.by == "roots":
        return "water when the roots are silver"
    if rule.by == "droop":
        return "water at the first droop"
    if rule.by == "signs":
        return f"water when {rule.least} of {len(rule.signs)} signs say dry ({', '.join(rule.signs)})"
    return "by days; feel it first"


def since_pour(on: date | None, last_pour_on: date | None) -> bool:
    """Whether something was found after the last watering."""
    return on is not None and (last_pour_on is None or on > last_pour_on)
