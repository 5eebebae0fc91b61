"""Coated fertilizer by thermal time: what prills have given, and the salt they give a pot between two days."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from fenwa.core.entry import require

Q10, WEIBULL_m, LABEL_SHARE_OUT, T_REF_C = 2.0, 1.3, 0.8, 21.0  # table of controlled release
Q10_LOW, Q10_HIGH = 1.7, 2.5  # E3.11: how much faster prills of other makes give for 10 °C more
RELEASE_SD = 0.3  # of ln release: makes differ, and a warmth is guessed; science, list of what is uncertain


def released_share(days: float, label_days: float, celsius: float, label_celsius: float = T_REF_C) -> float:
    """Share of the nitrogen prills have given up after some days at a temperature, E3.11."""
    thermal = days * Q10 ** ((celsius - label_celsius) / 10)
    scale = label_days / math.log(1 / (1 - LABEL_SHARE_OUT)) ** (1 / WEIBULL_m)
    return 1 - math.exp(-((thermal / scale) ** WEIBULL_m))


def days_until_released(
    share: float, label_days: float, celsius: float, label_celsius: float = T_REF_C, times_for_10_C: float = Q10
) -> float:
    """Days until prills have given up a share of what they hold, E3.11 turned round. [d]"""
    scale = label_days / math.log(1 / (1 - LABEL_SHARE_OUT)) ** (1 / WEIBULL_m)
    warmer = times_for_10_C ** ((celsius - label_celsius) / 10)
    return float(scale * (-math.log(1 - share)) ** (1 / WEIBULL_m) / warmer)


def range_until_released(share: float, label_days: float, celsius: float, label_celsius: float) -> tuple[float, float]:
    """The earliest and the latest such day: makes differ in how warmth drives them, E3.11. [d]"""
    ends = [days_until_released(share, label_days, celsius, label_celsius, q) for q in (Q10_LOW, Q10_HIGH)]
    return min(ends), max(ends)


@dataclass(frozen=True)
class PrillSalt:
    """Prills in a pot as the salt balance needs them.

    ``salt_uS_L``: all they hold, as EC times litres [µS/cm · L]; ``label_days`` at ``label_celsius``, and the mean
    warmth of the pot. [d, °C]
    """

    given_on: date
    salt_uS_L: float
    label_days: float
    celsius: float
    label_celsius: float = T_REF_C

    def given(self, days: float) -> float:
        """Salt given up so many days after they were given. [µS/cm · L]"""
        if days <= 0:
            return 0.0
        return self.salt_uS_L * released_share(days, self.label_days, self.celsius, self.label_celsius)

    def between(self, since: float, until: float) -> float:
        """Salt given up between two days after they were given. [µS/cm · L]"""
        return self.given(until) - self.given(since)


def salt_given(prills: Sequence[PrillSalt], since: date, until: date) -> float:
    """Salt all prills of a pot give up between two days. [µS/cm · L]"""
    return sum(p.between((since - p.given_on).days, (until - p.given_on).days) for p in prills)


def check_prills(prills: Sequence[PrillSalt], pointer: str) -> None:
    """Refuse prills that cannot be, naming the field."""
    for i, p in enumerate(prills):
        at = f"{pointer}/{i}"
        require(p.salt_uS_L, "Salt in the prills", "µS/cm · L", low=0, high=5_000_000, pointer=f"{at}/salt_uS_L")
        require(p.label_days, "Longevity", "d", low=7, high=1000, pointer=f"{at}/label_days")
        require(p.celsius, "Warmth", "°C", low=-5, high=45, pointer=f"{at}/celsius")
        require(p.label_celsius, "Warmth of the label", "°C", low=10, high=35, pointer=f"{at}/label_celsius")
