"""Sizes of leaves: growth between two lengths, one leaf against the one before, and what is usual for a plant."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from statistics import median

from fenwa.core.constants import Z80
from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LONGEST_mm = 10_000.0
WITHIN_PLANT_SD = 0.12  # of ln length between leaves of one plant, E7.8; judgement
BETWEEN_PLANTS_SD = 0.35  # of ln length between plants of one kind; judgement
SEASON_DAYS = 60  # of another year's leaf: so many days about the same day of the year
SEASON_LEAST = 3  # leaves of the season, else all are taken
DONE_GROWING = 0.03  # two lengths alike to so much, SAME_LENGTH_DAYS apart, are finished; judgement
SAME_LENGTH_DAYS = 10


@dataclass(frozen=True)
class LeafLength:
    """A length on a day; ``growing``: whether it was seen to grow still. None: not said. [mm]"""

    on: date
    mm: float
    growing: bool | None = None


@dataclass(frozen=True)
class SeenLeaf:
    """A leaf with its lengths, in any order. ``number``: in order on its growth; ``lost_on`` empty: it lives."""

    opened_on: date
    lengths: tuple[LeafLength, ...] = ()
    id: int | None = None
    number: int | None = None
    lost_on: date | None = None


@dataclass(frozen=True)
class FinishedLeaf:
    """A leaf at its finished size. [mm]"""

    opened_on: date
    mm: float


def finished_mm(leaf: SeenLeaf) -> float | None:
    """Its finished length; None: not measured, or still growing when it was. A first size never stands for it. [mm]"""
    ordered = sorted(leaf.lengths, key=lambda x: x.on)
    if not ordered:
        return None
    last = ordered[-1]
    if last.growing is not True:
        return last.mm
    alike = [x for x in ordered[:-1] if (last.on - x.on).days >= SAME_LENGTH_DAYS]
    return last.mm if alike and abs(math.log(last.mm / alike[-1].mm)) <= DONE_GROWING else None


def finished(leaves: Sequence[SeenLeaf]) -> list[FinishedLeaf]:
    """Leaves whose finished size is known, in the order they opened."""
    found = [(x.opened_on, finished_mm(x)) for x in sorted(leaves, key=lambda x: x.opened_on)]
    return [FinishedLeaf(on, mm) for on, mm in found if mm is not None]


@dataclass(frozen=True)
class Growth:
    """How fast something grew, in shares of itself; days to double. None: it did not grow. [1/d, d]"""

    per_day: float
    percent_week: float
    doubles_days: float | None
    sentence: str


@calculation("relative-growth", title="Relative growth", station="leaf")
def relative_growth(*, first: float, second: float, days: float) -> Computed[Growth]:
    """Relative growth between two lengths of one leaf, root or shoot, in any unit as long as it is one.

    Parameters
    ----------
    first : float
        The length before, above 0 to 10 000. [mm or cm]
    second : float
        The length after, above 0 to 10 000. [mm or cm]
    days : float
        Days between them, 0.5 to 3 650. [d]

    Returns
    -------
    Computed
        Growth a day and a week as a share of itself. [1/d]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    References
    ----------
    E7.1
    """
    require(first, "First length", "mm", low=0, open_low=True, high=LONGEST_mm, pointer="/first")
    require(second, "Second length", "mm", low=0, open_low=True, high=LONGEST_mm, pointer="/second")
    require(days, "Days between", "d", low=0.5, high=3650, pointer="/days")
    ledger = Ledger("Relative growth", "Between two lengths of the same thing.", ("growth-analysis",))
    ledger.take("x_1", "first length", first, "")
    ledger.take("x_2", "second length", second, "")
    ledger.take("t", "days between", days, "d")
    r = ledger.step("r", "ln(x_2 / x_1) / t", "1/d", "relative growth")
    week = ledger.step("p", "100 * (exp(7 * r) - 1)", "%", "a week")
    doubles = math.log(2) / r if r > 1e-9 else None
    if r < 0:
        ledger.caution("Shorter than before: measure again, or it was another leaf.")
    said = f"{signed(week, 1)} % a week" + (f", doubles in {doubles:.0f} days." if doubles and doubles < 1000 else ".")
    return ledger.close(Growth(r, week, doubles, said))


@dataclass(frozen=True)
class LeafRatio:
    """A finished leaf against the finished one before it. [ln, %]"""

    ln_ratio: float
    percent: float
    sentence: str


@calculation("leaf-ratio", title="A leaf against the one before", station="leaf")
def leaf_ratio(*, new: float, previous: float) -> Computed[LeafRatio]:
    """A finished leaf against the finished leaf before it, as a ratio that is the same in centimetres and inches.

    Parameters
    ----------
    new : float
        Finished length of the new leaf, above 0 to 10 000. [mm or cm]
    previous : float
        Finished length of the leaf before it, above 0 to 10 000. [mm or cm]

    Returns
    -------
    Computed
        Logarithm of the ratio, and the difference in percent.

    Raises
    ------
    OutOfRange
        If a length cannot be.

    References
    ----------
    E7.2
    """
    require(new, "New leaf", "mm", low=0, open_low=True, high=LONGEST_mm, pointer="/new")
    require(previous, "Leaf before", "mm", low=0, open_low=True, high=LONGEST_mm, pointer="/previous")
    ledger = Ledger("A leaf against the one before", "Finished lengths only.", ("growth-analysis",))
    ledger.take("L_n", "new leaf, finished", new, "")
    ledger.take("L_p", "leaf before, finished", previous, "")
    ratio = ledger.step("q", "ln(L_n / L_p)", "", "ln ratio")
    percent = ledger.step("p", "100 * (L_n / L_p - 1)", "%", "longer")
    usual = abs(ratio) <= WITHIN_PLANT_SD
    word = "longer" if percent >= 0 else "shorter"
    said = f"{abs(percent):.0f} % {word}" + (": within what leaves of one plant differ." if usual else ".")
    return ledger.close(LeafRatio(ratio, percent, said))


@dataclass(frozen=True)
class LeafUsual:
    """What is usual for a plant, the 80 % range of one more leaf, and from what. None: nothing is known. [mm]"""

    usual_mm: float | None
    low_mm: float | None
    high_mm: float | None
    leaves: int
    of_season: bool
    sentence: str


def usual_of(
    leaves: Sequence[FinishedLeaf], on: date, kind_mm: float | None = None
) -> tuple[float, float, int, bool] | None:
    """ln of the usual length, its SD, leaves used, and whether those of the season alone; None: nothing is known."""
    about = [x for x in leaves if _days_of_year_apart(x.opened_on, on) <= SEASON_DAYS]
    of_season = len(about) >= SEASON_LEAST and len(about) < len(leaves)
    used = about if of_season else list(leaves)
    if not used:
        return None if kind_mm is None else (math.log(kind_mm), BETWEEN_PLANTS_SD, 0, False)
    middle = median(math.log(x.mm) for x in used)
    own = len(used) / WITHIN_PLANT_SD**2
    if kind_mm is None:
        return middle, WITHIN_PLANT_SD / math.sqrt(len(used)), len(used), of_season
    prior = 1 / BETWEEN_PLANTS_SD**2
    shrunk = (own * middle + prior * math.log(kind_mm)) / (own + prior)
    return shrunk, 1 / math.sqrt(own + prior), len(used), of_season


def usual_length(leaves: Sequence[SeenLeaf], on: date) -> float | None:
    """A plant's usual length at a time of year; None: no finished leaf is known. [mm]"""
    found = usual_of(finished(leaves), on)
    return math.exp(found[0]) if found is not None else None


def _days_of_year_apart(a: date, b: date) -> int:
    d = abs(a.timetuple().tm_yday - b.timetuple().tm_yday)
    return min(d, 365 - d)


@calculation("leaf-usual", title="A plant's usual leaf", station="leaf")
def leaf_usual(*, leaves: list[FinishedLeaf], on: date, kind_mm: float | None = None) -> Computed[LeafUsual]:
    """What length is usual for a plant's leaves at a time of year, and where one more would lie.

    Parameters
    ----------
    leaves : list[FinishedLeaf]
        Its finished leaves with the day each opened, above 0 to 10 000, at most 1 000. [mm]
    on : date
        The day asked about: leaves of its season count alone once there are three.
    kind_mm : float
        What is usual for the kind, above 0 to 10 000; empty: not known. Few leaves are drawn towards it. [mm]

    Returns
    -------
    Computed
        Usual length and the 80 % range of one more leaf. [mm]

    Raises
    ------
    OutOfRange, InputError
        If a length cannot be, or there are too many leaves.

    Notes
    -----
    The median, so that one torn leaf moves nothing. Leaves of one plant differ by 12 % (SD), plants of a kind by 35 %.

    References
    ----------
    E7.2; E7.8
    """
    if len(leaves) > 1000:
        raise InputError(f"{len(leaves)} leaves. Give at most 1000.", pointer="/leaves")
    for i, x in enumerate(leaves):
        require(x.mm, "Leaf", "mm", low=0, open_low=True, high=LONGEST_mm, pointer=f"/leaves/{i}/mm")
    if kind_mm is not None:
        require(kind_mm, "Usual of the kind", "mm", low=0, open_low=True, high=LONGEST_mm, pointer="/kind_mm")
    ledger = Ledger("A plant's usual leaf", "Median of finished leaves.", ("robust-median", "judgement"))
    found = usual_of(leaves, on, kind_mm)
    ledger.take("n", "finished leaves", float(found[2] if found else 0), "", "log")
    ledger.take("s", "leaves of one plant differ by (SD of ln)", WITHIN_PLANT_SD, "", "default:E7.8")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    if found is None:
        ledger.step("m", "n", "", "leaves known")
        return ledger.close(LeafUsual(None, None, None, 0, False, "No finished leaf is measured yet."))
    ln, sd, n, of_season = found
    ledger.found("mu", "ln of the usual length", ln, "", "median of ln length, drawn towards the kind")
    ledger.found("e", "how well that is known (SD)", sd, "", "leaves of the plant, and the kind")
    usual = ledger.step("U", "exp(mu)", "mm", "usual length")
    ledger.step("w", "sqrt(s ** 2 + e ** 2)", "", "spread of one more leaf")
    low = ledger.step("low", "exp(mu - z * w)", "mm", "80 % of leaves are longer than the lowest tenth")
    high = ledger.step("high", "exp(mu + z * w)", "mm", "and shorter than the highest tenth")
    which = (
        f"{n} finished {'leaf' if n == 1 else 'leaves'}{' of this season' if of_season else ''}" if n else "its kind"
    )
    said = f"Usually {usual:.0f} mm, {low:.0f} to {high:.0f} mm, from {which}."
    return ledger.close(LeafUsual(usual, low, high, n, of_season, said))
