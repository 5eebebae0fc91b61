"""The pot behind a running flush: its salt, efficiency, water and exchange fitted to the runoffs so far."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwa.core.constants import Z80
from fenwa.core.pot.balance import Array

# ln of starting salt, efficiency, water, exchange rate: what is believed of each before the first runoff (SD)
BELIEVED = (0.30, 0.35, 0.15, 0.70)
ROUNDS_MOST = 24
SETTLING_SOAKS = 1.5  # two readings must agree: by then the water has stood so many soaks; judgement
BISECTIONS = 12


@dataclass(frozen=True)
class Poured:
    """A pass as far as the balance goes: hours of soak before it, litres that drain, reading of its last. [h, L]"""

    soak_h: float
    litres: float
    reading: float | None


@dataclass(frozen=True)
class FlushedPot:
    """A pot in a flush: root zone full, efficiency, mobile and immobile water, exchange, retardation.

    [µS/cm, L, 1/h]
    """

    C: float
    eta: float
    W_m: float
    W_i: float
    k_h: float
    R: float


def _pour(p: FlushedPot, C_m: float, litres: float, water: float) -> float:
    return water + (C_m - water) * math.exp(-p.eta * litres / p.W_m)


def _soak(p: FlushedPot, C_m: float, C_i: float, hours: float) -> tuple[float, float]:
    """Exchange of mobile and immobile water in plain numbers, E3.3."""
    held = p.R * p.W_i
    whole = p.W_m + held
    mean = (p.W_m * C_m + held * C_i) / whole
    gap = (C_i - C_m) * math.exp(-p.k_h * hours)
    return mean - gap * held / whole, mean + gap * p.W_m / whole


def last_runoff(p: FlushedPot, C_m: float, water: float) -> float:
    """The last that runs out of a pass, E3.4. [µS/cm]"""
    return water + p.eta * (C_m - water)


def run(p: FlushedPot, passes: Sequence[Poured], water: float) -> tuple[list[float], float, float]:
    """Last runoff of every pass, then mobile and immobile concentration. [µS/cm]"""
    C_m = C_i = p.C
    out = []
    for x in passes:
        C_m, C_i = _soak(p, C_m, C_i, x.soak_h)
        C_m = _pour(p, C_m, x.litres, water)
        out.append(last_runoff(p, C_m, water))
    return out, C_m, C_i


@dataclass(frozen=True)
class Fit:
    """The most likely pot, and the one-SD shifts of its logarithms along the axes of what is left open."""

    centre: FlushedPot
    shifted: tuple[FlushedPot, ...]


def _moved(p: FlushedPot, d: Sequence[float] | Array) -> FlushedPot:
    W = math.exp(d[2])
    return FlushedPot(p.C * math.exp(d[0]), p.eta * math.exp(d[1]), p.W_m * W, p.W_i * W, p.k_h * math.exp(d[3]), p.R)


def fit(believed: FlushedPot, passes: Sequence[Poured], water: float, share: float, floor: float) -> Fit:
    """Bounded least squares of ln(runoff - water) with what was believed before, E3.14 for one flush.

    ``share`` and ``floor``: error of a reading. [µS/cm]
    """
    from scipy.optimize import least_squares  # loaded on first use: it slows a start by half a second

    sds = np.array(BELIEVED)
    read = [i for i, x in enumerate(passes) if x.reading is not None]

    def residuals(d: Array) -> Array:
        told, _, _ = run(_moved(believed, d), passes, water)
        off = []
        for i in read:
            measured = passes[i].reading or 0.0
            sd = math.hypot(share * measured, floor)
            off.append((measured - told[i]) / sd)
        return np.array([*off, *(d / sds)])

    if read:
        found = least_squares(residuals, np.zeros(4), bounds=(-3 * sds, 3 * sds), x_scale=sds, loss="linear")
        centre, J = found.x, np.asarray(found.jac, dtype=float)
        axes = np.linalg.cholesky(np.linalg.inv(J.T @ J))
    else:
        centre, axes = np.zeros(4), np.diag(sds)
    return Fit(
        _moved(believed, centre), tuple(_moved(believed, centre + s * axes[:, a]) for a in range(4) for s in (1, -1))
    )


def litres_left(
    p: FlushedPot, passes: Sequence[Poured], water: float, stop: float, round_L: float, pause_h: float
) -> float | None:
    """Least litres in rounds with soaks after which, once soaked, the runoff is at the stop; None: no rounds do it."""
    _, C_m, C_i = run(p, passes, water)

    def soaked(m: float, i: float) -> float:
        return last_runoff(p, _soak(p, m, i, SETTLING_SOAKS * pause_h)[0], water)

    if passes and soaked(C_m, C_i) <= stop:
        return 0.0
    for n in range(ROUNDS_MOST):
        m, i = (C_m, C_i) if n == 0 and not passes else _soak(p, C_m, C_i, pause_h)
        after = _pour(p, m, round_L, water)
        if soaked(after, i) <= stop:
            low, high = 0.0, round_L
            for _ in range(BISECTIONS):
                middle = (low + high) / 2
                low, high = (low, middle) if soaked(_pour(p, m, middle, water), i) <= stop else (middle, high)
            return n * round_L + high
        C_m, C_i = after, i
    return None


def spread_of(centre: float, shifted: Sequence[float]) -> tuple[float, float]:
    """80 % range from one-SD shifts in pairs: squares add up on each side."""
    pairs = list(zip(shifted[::2], shifted[1::2], strict=True))
    above = math.sqrt(sum(max(a - centre, b - centre, 0.0) ** 2 for a, b in pairs))
    below = math.sqrt(sum(min(a - centre, b - centre, 0.0) ** 2 for a, b in pairs))
    return centre - Z80 * below, centre + Z80 * above
