"""The straight line through the runoffs of a flush: ln(runoff - water) over drained litres, E4.5."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from fenwa.core.constants import Z80
from fenwa.core.pot.balance import Array

READING_SHARE, READING_uS_cm = 0.05, 5.0  # E4.5: error of a runoff reading
SLOPE_SPREAD = 0.5  # E4.5: prior spread of the slope, as a share of it


@dataclass(frozen=True)
class CurvePoint:
    """Runoff expected after so many drained litres, with its 80 % range. [L, µS/cm]"""

    litres: float
    runoff_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float


@dataclass(frozen=True)
class Trend:
    """A straight line of ln(EC - water) over drained litres, with its covariance, E4.5."""

    a: float
    b: float
    covariance: Array

    def at(self, litres: float, water: float) -> CurvePoint:
        """Runoff after so many litres. [µS/cm]"""
        r = np.array([1.0, -litres])
        ln, sd = self.a - self.b * litres, float(np.sqrt(max(0.0, r @ self.covariance @ r)))
        return CurvePoint(
            litres, water + math.exp(ln), water + math.exp(ln - Z80 * sd), water + math.exp(ln + Z80 * sd)
        )

    @property
    def slope_sd(self) -> float:
        """Standard deviation of the slope. [1/L]"""
        return float(np.sqrt(self.covariance[1, 1]))

    def until(self, stop: float, water: float) -> tuple[float, float]:
        """Drained litres at which the line meets the stop, and their standard error."""
        litres = (self.a - math.log(stop - water)) / self.b
        gradient = np.array([1 / self.b, -litres / self.b])
        return litres, float(np.sqrt(gradient @ self.covariance @ gradient))


def trend(
    litres: list[float], readings: list[float], water: float, slope: float, spread: float = SLOPE_SPREAD
) -> Trend:
    """Weighted line through runoff readings with a prior on its slope, normal equations of E4.5."""
    P = np.diag([1e-12, 1 / (spread * slope) ** 2])
    h = np.array([0.0, slope / (spread * slope) ** 2])
    for V, EC in zip(litres, readings, strict=True):
        sd = math.hypot(READING_SHARE * EC, READING_uS_cm) / (EC - water)
        r = np.array([1.0, -V]) / sd
        P += np.outer(r, r)
        h += r * math.log(EC - water) / sd
    covariance = np.linalg.inv(P)
    a, b = covariance @ h
    return Trend(float(a), float(b), covariance)


def tailing_of(litres: list[float], readings: list[float], water: float) -> float | None:
    """Slope between the last two readings over that between the first two, E4.5b; None below three."""
    if len(readings) < 3:
        return None
    ln = [math.log(max(r - water, 1e-6)) for r in readings]
    first = (ln[0] - ln[1]) / max(litres[1] - litres[0], 1e-9)
    last = (ln[-2] - ln[-1]) / max(litres[-1] - litres[-2], 1e-9)
    return last / first if first > 0 else None
