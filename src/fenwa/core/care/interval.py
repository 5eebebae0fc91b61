"""How long until a pot wants looking at: learnt from its own log, moved by season, halved while a leaf forms."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import median
from typing import Literal

from fenwa.core.constants import MAD_TO_SD, Z80
from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MIN_GAPS = 3  # below this the log tells nothing yet
NEWEST_GAPS = 12
LEAST_SPREAD = 0.15  # of the interval: nobody waters by the clock
FORMING = 0.5  # a plant pushing a new leaf or spike drinks about twice as fast
REFERENCE_C, TEMPERATURE_DOUBLES_C = 22.0, 20.0
ROOM_C = 21.0  # where nobody measured
NEAR_DAYS = 30  # a reading of the place this near speaks for a day; judgement
SHORTEST_DAYS, LONGEST_DAYS = 0.5, 120.0
SLOWEST_RATE, FASTEST_RATE = 0.2, 5.0


@dataclass(frozen=True)
class Gap:
    """Days between two waterings and how fast water went in that season, relative to 22 °C and 12 h. [d]"""

    days: float
    rate: float = 1.0


@dataclass(frozen=True)
class CheckInterval:
    """Days to the next look with their range, and the word for it. [d]"""

    days: float
    low_days: float
    high_days: float
    next_on: date | None
    learnt_from: int
    word: Literal["check", "water"]
    sentence: str


def feel_again_on(today: date, interval_days: float) -> date:
    """The day to feel a pot again that was still heavy: a quarter of its interval on, at least a day; judgement."""
    return today + timedelta(days=max(1, round(interval_days / 4)))


def left_share(last_on: date | None, interval_days: float, today: date, by_weight: float | None = None) -> float | None:
    """Share of a pot's water that is left: by the scale where it was weighed, else falling evenly over its interval.

    1 on the day of a watering, 0 when it wants the next; None for a pot never watered. Judgement: pots dry
    quicker at first, but nobody reads that from a picture.
    """
    if by_weight is not None:
        return min(max(by_weight, 0.0), 1.0)
    if last_on is None:
        return None
    return min(max(1.0 - (today - last_on).days / interval_days, 0.0), 1.0)


def mean_C(night_C: float | None, day_C: float | None) -> float | None:
    """Mean of a day and its night; None unless both were measured. [°C]"""
    return None if night_C is None or day_C is None else (night_C + day_C) / 2


def warmth_on(readings: Sequence[tuple[date, float]], on: date) -> float | None:
    """How warm a place was on a day: the nearest reading within 30 days, else the place's median. [°C]

    None: never measured.

    A place measured once is then as warm then as now, and its warmth moves no interval.
    """
    if not readings:
        return None
    nearest = min(readings, key=lambda r: abs((r[0] - on).days))
    if abs((nearest[0] - on).days) <= NEAR_DAYS:
        return nearest[1]
    return median(c for _, c in readings)


def warmth_since(readings: Sequence[tuple[date, float]], since: date) -> float:
    """Mean warmth of a place from a day on; that of a room where nobody measured. [°C]"""
    here = [c for on, c in readings if on >= since]
    return sum(here) / len(here) if here else ROOM_C


def drying_rate(celsius: float | None, light_h: float | None) -> float:
    """How fast water goes, relative to 22 °C and 12 h of light; what is not known counts as usual."""
    warm = 1.0 if celsius is None else 2 ** ((celsius - REFERENCE_C) / TEMPERATURE_DOUBLES_C)
    lit = 1.0 if light_h is None else math.sqrt(max(light_h, 1.0) / 12.0)
    return min(max(warm * lit, SLOWEST_RATE), FASTEST_RATE)


def learnt_days(
    gaps: list[Gap], rate_now: float, forming: bool, fallback_days: float
) -> tuple[float, float, float, int]:
    """Days, low, high and how many gaps they rest on; the plain core of the calculation. [d]"""
    kept = [g.days * g.rate for g in gaps[-NEWEST_GAPS:] if g.days > 0]
    if len(kept) < MIN_GAPS:
        middle, spread, n = fallback_days, 0.5 * fallback_days, 0
        rate_now = 1.0
    else:
        middle = median(kept)
        spread = max(Z80 * MAD_TO_SD * median([abs(k - middle) for k in kept]), LEAST_SPREAD * middle)
        n = len(kept)
    share = (FORMING if forming else 1.0) / rate_now
    days = min(max(middle * share, SHORTEST_DAYS), LONGEST_DAYS)
    return days, max(SHORTEST_DAYS, (middle - spread) * share), min(LONGEST_DAYS, (middle + spread) * share), n


@calculation("check-interval", title="Days to the next look", station="pots")
def check_interval(
    *,
    gaps: list[Gap],
    fallback_days: float,
    rate_now: float = 1.0,
    forming: bool = False,
    last_on: date | None = None,
    rule_met: bool = False,
) -> Computed[CheckInterval]:
    """When to feel a pot again, from its own log.

    Parameters
    ----------
    gaps : list[Gap]
        Days between its last waterings, oldest first, each with its season's rate. [d]
    fallback_days : float
        What you set, or the kind's habit, while the log is short, 0.5 to 120. [d]
    rate_now : float
        How fast water goes now, relative to 22 °C and 12 h, 0.2 to 5.
    forming : bool
        Whether a leaf or spike is forming.
    last_on : date
        Last watering, if there was one.
    rule_met : bool
        Whether your own rule (weight, probe, finger) says dry.

    Returns
    -------
    Computed
        Days with an 80 % range, and the word: check, or water. [d]

    Raises
    ------
    OutOfRange
        If an interval or a rate cannot be.

    References
    ----------
    robust-median; interval rule of the scheduling note, low confidence
    """
    require(
        fallback_days, "Days between waterings", "d", low=SHORTEST_DAYS, high=LONGEST_DAYS, pointer="/fallback_days"
    )
    require(rate_now, "Rate now", "", low=SLOWEST_RATE, high=FASTEST_RATE, pointer="/rate_now")
    for i, g in enumerate(gaps):
        require(g.days, "Gap", "d", low=0, high=400, pointer=f"/gaps/{i}/days")
        require(g.rate, "Rate of a gap", "", low=SLOWEST_RATE, high=FASTEST_RATE, pointer=f"/gaps/{i}/rate")
    days, low, high, n = learnt_days(gaps, rate_now, forming, fallback_days)
    ledger = Ledger(
        "Days to the next look", "Median of the log; the middle 80 % as range.", ("robust-median", "judgement")
    )
    if n:
        kept = [g.days * g.rate for g in gaps[-NEWEST_GAPS:] if g.days > 0]
        ledger.take("middle", f"median of {n} gaps at 22 °C and 12 h", median(kept), "d", "log")
    else:
        ledger.take("middle", "days while the log is short", fallback_days, "d")
        ledger.caution("Fewer than three waterings logged: the range is wide.")
    ledger.take("rate", "how fast water goes now", rate_now if n else 1.0, "", "season and climate")
    ledger.take("share", "half while a leaf or spike forms", FORMING if forming else 1.0, "", "judgement")
    ledger.step(
        "days", f"min(max(middle * share / rate, {SHORTEST_DAYS}), {LONGEST_DAYS:g})", "d", "days to the next look"
    )
    on = None if last_on is None else last_on + timedelta(days=max(1, round(days)))
    word: Literal["check", "water"] = "water" if rule_met else "check"
    said = "Your own rule says dry: water." if rule_met else "Feel, lift or probe; water only if it is ready."
    return ledger.close(CheckInterval(days, low, high, on, n, word, said))
