"""A can as it is poured: its conductivity, what pouring it is called, what is left of it and of its packs."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Literal

FIRST_CAN_L = 3.0  # a can before any pot is chosen
SPARE = 1.05  # a can holds a little more than the pots take

CanJob = Literal["feed", "plain", "flush"]


def ec_of_can(measured_uS_cm: float | None, predicted_uS_cm: float) -> float:
    """What a can reads: measured where it was, else predicted. [µS/cm]"""
    return predicted_uS_cm if measured_uS_cm is None else measured_uS_cm


def job_of_pour(dose_g_L: float | None, flush: bool) -> CanJob:
    """What a pour does: a flush where it is said to be one, feed where the can holds any, else plain water.

    Parameters
    ----------
    dose_g_L
        Leading product in the can; None for a water poured as it is. [g/L]
    """
    if flush:
        return "flush"
    return "feed" if dose_g_L is not None and dose_g_L > 0 else "plain"


def left_of_can(volume_L: float, seen_L: float | None, poured_L: float) -> float:
    """What was made, or last seen, less what was poured since; never below nothing. [L]"""
    return max(0.0, (volume_L if seen_L is None else seen_L) - poured_L)


def decimal_asked(value: float, most: float) -> str:
    """The question behind a figure that is too large: whether its decimal point is missing.

    >>> decimal_asked(250, 240)
    'Is the decimal point missing: 25?'
    """
    if most <= 0 or not most < value < math.inf:
        return ""
    while value > most:
        value /= 10
    return f"Is the decimal point missing: {value:g}?"


def left_of_pack(seen: float, used_g: float, density_g_mL: float | None) -> float:
    """What was seen of a pack less what cans took since. ``density_g_mL``: of a liquid, whose pack is told in mL.

    [g, or mL]
    """
    return max(0.0, seen - (used_g if density_g_mL is None else used_g / density_g_mL))


def litres_for(pours_L: Iterable[float]) -> float:
    """A can for some pours: a little more than they take, to the next tenth of a litre. [L]"""
    return math.ceil(round(sum(pours_L) * SPARE * 10, 6)) / 10
