"""How far so many plants can see, and how much of an improvement would have come by itself."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.working import Computed, Ledger

POWER, LEVEL = 0.80, 0.05
MOST_PLANTS = 200
REPEATABILITY = 0.45  # of a single leaf's length against its plant's own usual, section 7.3; judgement
PRIOR_VALUES = 4.0  # what is usual counts as so many of the plant's own values
TABLE = (3, 4, 6, 12)


@lru_cache(maxsize=512)
def detectable_sds(n: int, paired: bool) -> float | None:
    """Smallest difference, in SDs, that shows four times in five at 5 %; None: with so few none does, E7.7."""
    from scipy.special import nctdtr, stdtrit  # loaded on first use; scipy.stats would take seconds

    if n < 2:
        return None
    df = n - 1 if paired else 2 * (n - 1)
    root = math.sqrt(n if paired else n / 2)
    critical = float(stdtrit(df, 1 - LEVEL / 2))

    def short(delta: float) -> float:
        return 1 - float(nctdtr(df, delta * root, critical)) - POWER  # the far tail adds nothing near this power

    high = 1.0
    while short(high) < 0:  # beyond the answer the law is not computable: grow towards it
        high *= 1.5
    return root_between(short, 0.01, high, xtol=1e-6)


@dataclass(frozen=True)
class Detectable:
    """Smallest difference that would show four times in five. None: one pair shows none. [SD, %]"""

    sds: float | None
    percent: float | None
    least_p: float
    sentence: str


@calculation("detectable-effect", title="How far these plants can see", station="leaf")
def detectable_effect(*, plants: int, paired: bool = True, sd_ln: float = 0.15) -> Computed[Detectable]:
    """The smallest difference that so many pairs, or plants a group, would show four times in five.

    Parameters
    ----------
    plants : int
        Pairs, or plants in each group, 1 to 200.
    paired : bool
        Whether they are pairs.
    sd_ln : float
        SD of the difference of a pair, or of a plant, as a logarithm, above 0 to 2.

    Returns
    -------
    Computed
        The difference in SDs and in percent, and the smallest p these plants can give.

    Raises
    ------
    OutOfRange, InputError
        If there are no plants, too many, or no whole number of them, or the SD cannot be.

    References
    ----------
    E7.7; section 7.4
    """
    require(plants, "Plants", "", low=1, high=MOST_PLANTS, pointer="/plants")
    if plants != int(plants):
        raise InputError(f"Plants {plants:g} is not a whole number.", pointer="/plants")
    require(sd_ln, "SD", "", low=0, open_low=True, high=2, pointer="/sd_ln")
    n = int(plants)
    what = "pairs" if paired else "plants a group"
    ledger = Ledger("How far these plants can see", "Power 0.80, two-sided 5 %.", ("permutation", "judgement"))
    ledger.take("n", what, n, "")
    ledger.take("SD", "scatter of a difference, as a logarithm", sd_ln, "", "default:E7.5")
    least = (
        ledger.step("p_0", "min(1, 2 / 2**n)", "", "smallest p of an exact test")
        if paired
        else ledger.found(
            "p_0", "smallest p of an exact test", min(1.0, 2 / math.comb(2 * n, n)), "", "2 over the relabelings, E7.4b"
        )
    )
    sds = detectable_sds(n, paired)
    if sds is None:
        ledger.step("d", "0 * n", "", "one shows none")
        said = "One pair: no difference would show." if paired else "One plant a group: no difference would show."
        return ledger.close(Detectable(None, None, least, said))
    ledger.found("d", "smallest difference, in SDs", sds, "SD", "noncentral t test, E7.7")
    percent = ledger.step("q", "100 * (exp(d * SD) - 1)", "%", "as a share")
    return ledger.close(
        Detectable(sds, percent, least, f"{n} {what} show a difference of {percent:.0f} % or more, four times in five.")
    )


@dataclass(frozen=True)
class ByItself:
    """What would have come with no treatment at all, in the unit of the values."""

    expected: float
    repeatability: float
    sentence: str


def mean_repeatability(one: float, readings: int) -> float:
    """Repeatability of the mean of so many readings from that of one."""
    return readings * one / (1 + (readings - 1) * one)


def own_repeatability(values: Sequence[float], prior: float = REPEATABILITY) -> float:
    """How much of a value comes again, learnt from a plant's values in order: their lag-one correlation, shrunk.

    What is usual counts as four values; 0 to 1. E7.16
    """
    n = len(values)
    if n < 3:
        return prior
    middle = sum(values) / n
    off = [v - middle for v in values]
    whole = sum(d * d for d in off)
    if whole <= 0:
        return prior
    again = sum(a * b for a, b in pairwise(off)) / whole
    return min(1.0, max(0.0, (PRIOR_VALUES * prior + (n - 1) * again) / (PRIOR_VALUES + n - 1)))


@calculation("regression-to-mean", title="What comes by itself", station="leaf")
def regression_to_mean(
    *, chosen_at: float, usual: float, repeatability: float = REPEATABILITY, readings: int = 1
) -> Computed[ByItself]:
    """What a plant chosen on a bad day is expected to gain by itself.

    Parameters
    ----------
    chosen_at : float
        Its value when it was chosen, -1 000 to 100 000.
    usual : float
        Its own usual, or the mean of the bed, -1 000 to 100 000.
    repeatability : float
        Of one reading, 0 to 1.
    readings : int
        Readings whose mean ``chosen_at`` is, 1 to 100.

    Returns
    -------
    Computed
        Expected change with no treatment, in the unit of the values.

    Raises
    ------
    OutOfRange
        If a figure cannot be.

    References
    ----------
    section 7.3
    """
    require(chosen_at, "Value when chosen", "", low=-1000, high=100_000, pointer="/chosen_at")
    require(usual, "Usual", "", low=-1000, high=100_000, pointer="/usual")
    require(repeatability, "Repeatability", "", low=0, high=1, pointer="/repeatability")
    require(readings, "Readings", "", low=1, high=100, pointer="/readings")
    ledger = Ledger(
        "What comes by itself", "Plants chosen for looking bad improve anyway.", ("regression", "judgement")
    )
    ledger.take("x", "when it was chosen", chosen_at, "")
    ledger.take("u", "usual", usual, "")
    ledger.take("r", "repeatability of one reading", repeatability, "", "default:7.3")
    ledger.take("k", "readings in it", readings, "")
    r = ledger.step("R", "k * r / (1 + (k - 1) * r)", "", "repeatability of their mean")
    expected = ledger.step("e", "(1 - R) * (u - x)", "", "comes by itself")
    way = "gain" if expected > 0 else "loss"
    said = (
        "It was as usual: nothing is expected by itself."
        if expected == 0
        else f"A {way} of {abs(expected):.3g} is expected with no treatment."
    )
    return ledger.close(ByItself(expected, r, said))
