"""A stored water watched: when to read it again, whether it rises and why, how long it keeps; what a treatment
removed.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import WaterKind
from fenwa.core.working import Computed, Ledger

Concern = Literal["fine", "look", "stop"]

WATCHED_DAYS = 120
LEAST_READINGS = 4
RISE_SHARE = 0.15  # over the days watched; below it a rise changes no verdict
T_CLEAR = 2.5  # slope over its standard error
RISING_RETEST = 0.5  # a rising water is read twice as often
NO_SALT_PCT, PART_PCT = 10.0, 80.0


@dataclass(frozen=True)
class PastReading:
    """A reading of the water at 25 °C. [µS/cm]"""

    on: date
    ec25_uS_cm: float


@dataclass(frozen=True, kw_only=True)
class WaterWatch:
    """What the grower should know of a stored water before using it. Rise in µS/cm a month."""

    retest_on: date | None
    retest_due: bool
    rising: bool
    rise_uS_cm_month: float | None
    keeps_until: date | None
    too_old: bool
    short_term: bool
    concern: Concern
    sentences: tuple[str, ...]


@calculation("water-watch", title="Watching a stored water", station="water")
def water_watch(
    *, kind: WaterKind, readings: list[PastReading], today: date, collected_on: date | None = None
) -> Computed[WaterWatch]:
    """Re-test day, rise with its likely reason, and age limit of a source.

    Parameters
    ----------
    kind : str
        Kind of source; its intervals and reasons come from data/water_kinds.toml.
    readings : list
        Readings at 25 °C, any order. [µS/cm]
    today : date
        The day the answer is for.
    collected_on : date
        When this batch was collected, if it is a batch.

    Returns
    -------
    Computed
        Dates, rise and sentences. [µS/cm a month]

    Raises
    ------
    OutOfRange
        If a reading cannot be.

    Notes
    -----
    A rise counts when it is 15 % over the last 120 days and 2.5 times its own standard error.

    References
    ----------
    judgement; linear-regression
    """
    row = water_kinds()[kind]
    for r in readings:
        require(r.ec25_uS_cm, "Reading", "µS/cm", low=0, high=200_000, pointer="/readings")
    ordered = sorted(readings, key=lambda r: r.on)
    ledger = Ledger(
        "Watching a stored water", "Intervals are a judgement for a household.", ("judgement", "linear-regression")
    )
    sentences: list[str] = []
    rise = _rise(ledger, ordered, today)
    rising = rise is not None and rise > 0
    interval = ledger.take("days", f"re-test interval of {row.label}", row.retest_days, "d", "table:water_kinds")
    interval = ledger.step(
        "until",
        f"days * {RISING_RETEST}" if rising else "days",
        "d",
        "sooner, because it rises" if rising else "days from one reading to the next",
    )
    if rising:
        sentences.append(f"Rises by {rise:.0f} µS/cm a month. Likely: {row.rising}.")
    retest = ordered[-1].on + timedelta(days=round(interval)) if ordered else None
    due = retest is None or retest <= today
    if due and ordered:
        sentences.append(f"Last read {(today - ordered[-1].on).days} days ago: read it again before use.")
    elif not ordered:
        sentences.append("Nobody has read it yet.")
    keeps = collected_on + timedelta(days=row.most_age_days) if collected_on and row.most_age_days else None
    old = keeps is not None and keeps < today
    if old and collected_on:
        sentences.append(
            f"Collected {(today - collected_on).days} days ago, kept at most {row.most_age_days}: pour it out."
        )
    elif row.most_age_days and collected_on is None:
        sentences.append(f"Keeps {row.most_age_days} days: enter when it was collected.")
    if row.short_term:
        sentences.append(row.note)
    concern: Concern = "stop" if old else "look" if due or rising else "fine"
    return ledger.close(
        WaterWatch(
            retest_on=retest,
            retest_due=due,
            rising=rising,
            rise_uS_cm_month=rise,
            keeps_until=keeps,
            too_old=old,
            short_term=row.short_term,
            concern=concern,
            sentences=tuple(sentences),
        )
    )


def _rise(ledger: Ledger, ordered: list[PastReading], today: date) -> float | None:
    """Slope of the last months if it is clear, µS/cm a month."""
    recent = [r for r in ordered if 0 <= (today - r.on).days <= WATCHED_DAYS]
    x = np.array([(r.on - today).days for r in recent], float)
    if len(recent) < LEAST_READINGS or len(set(x)) < LEAST_READINGS - 1:
        return None
    y = np.array([r.ec25_uS_cm for r in recent])
    centred = x - x.mean()
    sxx = float(centred @ centred)
    slope = float(centred @ y) / sxx
    residual = y - y.mean() - slope * centred
    error = float(np.sqrt(max(residual @ residual, 1e-9) / (len(y) - 2) / sxx))
    ledger.take("b", "slope of the readings", slope, "µS/cm/d", "fitted: least squares")
    ledger.take("se", "its standard error", error, "µS/cm/d", "fitted: least squares")
    ledger.take("mean", "mean of these readings", float(y.mean()), "µS/cm", "measured")
    ledger.take("span", "days they span", float(x.max() - x.min()), "d", "measured")
    share = ledger.step("share", "b * span / max(mean, 1)", "", "change over these days")
    clear = slope > T_CLEAR * error and share > RISE_SHARE
    return ledger.step("rise", f"b * {DAYS_A_MONTH}", "µS/cm/month", "rise a month") if clear else None


@dataclass(frozen=True)
class TreatmentEffect:
    """What a treatment really removed. [%]"""

    removed_pct: float
    low_pct: float
    high_pct: float
    seen: bool
    sentence: str


@calculation("treatment-effect", title="What did the treatment remove?", station="water")
def treatment_effect(
    *, before_uS_cm: float, after_uS_cm: float, half_width_pct: float = 2.0
) -> Computed[TreatmentEffect]:
    """Salt removed by a treatment, from a reading before and one after.

    Parameters
    ----------
    before_uS_cm : float
        Before the treatment, at 25 °C, above 0 to 200 000. [µS/cm]
    after_uS_cm : float
        After it, at 25 °C, 0 to 200 000. [µS/cm]
    half_width_pct : float
        Half-width of each reading with the same pen, 0 to 20. [%]

    Returns
    -------
    Computed
        Removed with its range, and what that means. [%]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Disinfectant, taste and most of a jug filter's work carry no charge: a pen cannot see them leave.

    References
    ----------
    mass-balance
    """
    require(before_uS_cm, "Reading before", "µS/cm", low=0.1, high=200_000, pointer="/before_uS_cm")
    require(after_uS_cm, "Reading after", "µS/cm", low=0, high=200_000, pointer="/after_uS_cm")
    require(half_width_pct, "Half-width", "%", low=0, high=20, pointer="/half_width_pct")
    ledger = Ledger("What did the treatment remove?", "Dissolved salt only.", ("mass-balance",))
    ledger.take("B", "before", before_uS_cm, "µS/cm", "measured")
    ledger.take("A", "after", after_uS_cm, "µS/cm", "measured")
    ledger.take("u", "half-width of a reading", half_width_pct, "%")
    removed = ledger.step("removed", "100 * (1 - A / B)", "%", "removed")
    half = ledger.step("U", "A / B * sqrt(2) * u", "%", "half-width of that")
    seen = abs(removed) > half
    if removed < -half:
        sentence = f"It reads {-removed:.0f} % more than before: the treatment adds salt."
    elif not seen:
        sentence = f"{removed:.0f} %, no more than the meter can err: it may change taste, it takes out no salt."
    elif removed < NO_SALT_PCT:
        sentence = f"{removed:.0f} %: it changes taste, not salt."
    elif removed < PART_PCT:
        sentence = f"{removed:.0f} %: it takes out a part of the salt."
    else:
        sentence = f"{removed:.0f} %: it takes out nearly all salt."
    return ledger.close(TreatmentEffect(removed, removed - half, removed + half, seen, sentence))
