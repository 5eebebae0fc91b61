"""Exact tests, a scatter shrunk to a prior, and what an effect comes to after it; E7.4 to E7.6."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from statistics import NormalDist, mean, variance

import numpy as np

from fenwa.core.constants import Z80

PRIOR_DF = 4.0  # E7.5: what is known of the scatter counts as so many differences more
EXACT_PAIRS = 20  # two to the power of it are a million patterns
EXACT_LABELS = 200_000
NORMAL = NormalDist()


def sign_flip_p(differences: Sequence[float]) -> float:
    """Share of sign patterns whose mean is at least as far from zero as the observed one, E7.4; 1 to 20 pairs."""
    values = np.asarray(differences, dtype=float)
    observed = abs(values.sum())
    sums = np.zeros(1)
    for v in values:
        sums = np.concatenate([sums + v, sums - v])
    return float(np.mean(np.abs(sums) >= observed - 1e-9 * max(1.0, observed)))


def relabel_p(first: Sequence[float], second: Sequence[float]) -> float:
    """Share of relabelings with means at least as far apart as observed, E7.4b; exact, up to 200 000 of them."""
    every = np.asarray([*first, *second], dtype=float)
    n, k = len(every), len(first)
    chosen = np.array(list(combinations(range(n), k)))
    one = every[chosen].sum(axis=1)
    apart = np.abs(one / k - (every.sum() - one) / (n - k))
    observed = abs(mean(first) - mean(second))
    return float(np.mean(apart >= observed - 1e-9 * max(1.0, observed)))


def labelings(first: int, second: int) -> int:
    """In how many ways so many plants can be told into two groups."""
    return math.comb(first + second, first)


@dataclass(frozen=True)
class Scatter:
    """SD of a difference, shrunk to its prior, with its degrees of freedom; E7.5."""

    sd: float
    df: float


def scatter(differences: Sequence[float], prior_SD: float) -> Scatter:
    """The scatter of paired differences, shrunk to what is usual for the measure."""
    n = len(differences)
    seen = (n - 1) * variance(differences) if n > 1 else 0.0
    df = PRIOR_DF + max(0, n - 1)
    return Scatter(math.sqrt((PRIOR_DF * prior_SD**2 + seen) / df), df)


def pooled_scatter(first: Sequence[float], second: Sequence[float], prior_SD: float) -> Scatter:
    """The scatter of single plants in two groups, shrunk; a plant's SD is a pair's over the root of two."""
    seen = sum((len(g) - 1) * variance(g) for g in (first, second) if len(g) > 1)
    df = PRIOR_DF + sum(max(0, len(g) - 1) for g in (first, second))
    return Scatter(math.sqrt((PRIOR_DF * prior_SD**2 / 2 + seen) / df), df)


@lru_cache(maxsize=256)
def t_over_normal(df: float) -> float:
    """How much wider a t law is than the normal at its central 95 %, E7.6."""
    from scipy.special import stdtrit

    return float(stdtrit(df, 0.975)) / 1.959963984540054


@dataclass(frozen=True)
class Effect:
    """What an effect comes to: its middle and SD, the central 80 %, and how likely it is above zero."""

    middle: float
    sd: float
    low: float
    high: float
    above_zero: float


def posterior(measured: float, se: float, prior_SD: float) -> Effect:
    """A measured difference weighed against effects as they usually are, N(0, prior_SD), E7.6."""
    own, prior = 1 / se**2, 1 / prior_SD**2
    middle, sd = measured * own / (own + prior), math.sqrt(1 / (own + prior))
    return Effect(middle, sd, middle - Z80 * sd, middle + Z80 * sd, NORMAL.cdf(middle / sd))
