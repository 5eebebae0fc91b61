"""Is the membrane tiring? Rejection from feed and permeate pairs, its trend, the day it falls below the floor."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import OutOfRange, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MembraneState = Literal["sound", "ageing", "below the floor"]

DEFAULT_FLOOR_PCT = 90.0  # usual: below it replace or inspect
JUMP_SHARE = 0.3  # rise of the newest permeate over the one before, at about the same feed
LEAST_FOR_TREND = 3
WARN_DAYS = 60
LONGEST_DAYS = 3650


@dataclass(frozen=True)
class MembranePair:
    """Feed and permeate read on one day at one temperature. [µS/cm]"""

    on: date
    feed_uS_cm: float
    permeate_uS_cm: float


@dataclass(frozen=True)
class Rejection:
    """A pair's rejection. [%]"""

    on: date
    rejection_pct: float


@dataclass(frozen=True, kw_only=True)
class MembraneTrend:
    """Rejection now and where it goes. Dates are None while no fall shows or fewer than three pairs are known."""

    rejections: tuple[Rejection, ...]
    now_pct: float
    trend_pct_month: float | None
    trend_low_pct_month: float | None
    trend_high_pct_month: float | None
    floor_pct: float
    below_floor_on: date | None
    below_floor_earliest: date | None
    below_floor_latest: date | None
    recovery_pct: float | None
    concentrate_L_per_L: float | None
    concentrate_uS_cm: float | None
    state: MembraneState
    alarm: bool
    sentence: str


def _rejection(ledger: Ledger, pair: MembranePair, n: int) -> float:
    ledger.take(f"F{n}", f"feed on {pair.on.isoformat()}", pair.feed_uS_cm, "µS/cm", "measured")
    ledger.take(f"P{n}", f"permeate on {pair.on.isoformat()}", pair.permeate_uS_cm, "µS/cm", "measured")
    return ledger.step(f"R{n}", f"100 * (1 - P{n} / F{n})", "%", "rejection")


def rejection_pct(feed_uS_cm: float, permeate_uS_cm: float) -> float:
    """Share of the salt a membrane keeps back. [%]

    >>> round(rejection_pct(310, 16), 1)
    94.8
    """
    return 100 * (1 - permeate_uS_cm / feed_uS_cm)


@calculation("membrane-trend", title="Is the membrane tiring?", station="water")
def membrane_trend(
    *,
    pairs: list[MembranePair],
    today: date,
    floor_pct: float = DEFAULT_FLOOR_PCT,
    permeate_L: float | None = None,
    concentrate_L: float | None = None,
) -> Computed[MembraneTrend]:
    """Rejection of a reverse-osmosis membrane, its trend and the day it is expected below the floor.

    Parameters
    ----------
    pairs : list
        Feed and permeate read together. [µS/cm]
    today : date
        The day the answer is for.
    floor_pct : float
        Rejection below which the grower replaces or inspects, 50 to 99.9. [%]
    permeate_L : float
        Permeate caught in one run. [L]
    concentrate_L : float
        Concentrate (waste) caught in the same run. [L]

    Returns
    -------
    Computed
        Rejections, trend with its 95 % interval, dates, recovery ratio and concentrate. [%, %/month, L]

    Raises
    ------
    Underspecified
        If there is no pair, or only one of the two volumes is given.
    OutOfRange
        If a permeate reads more than its feed.

    Notes
    -----
    Rejection by conductivity: nitrate, ammonium, boron and carbon dioxide pass more than it says.
    The trend is a straight line from three pairs on.

    References
    ----------
    membrane-rejection; linear-regression; mass-balance
    """
    require(floor_pct, "Floor", "%", low=50, high=99.9, pointer="/floor_pct")
    if not pairs:
        raise Underspecified(
            "No pair yet. Read the feed and the permeate on the same day and enter both.", pointer="/pairs"
        )
    ordered = sorted(pairs, key=lambda p: p.on)
    ledger = Ledger(
        "Is the membrane tiring?",
        "By conductivity; at one temperature and pressure. The line holds for months, not years.",
        ("membrane-rejection", "linear-regression", "mass-balance"),
    )
    for p in ordered:
        require_not_future(p.on, today, "Date of the pair", pointer="/pairs")
        require(p.feed_uS_cm, "Feed", "µS/cm", low=10, high=50_000, pointer="/feed_uS_cm")
        require(p.permeate_uS_cm, "Permeate", "µS/cm", low=0, high=50_000, pointer="/permeate_uS_cm")
        if p.permeate_uS_cm > p.feed_uS_cm:
            raise OutOfRange(
                f"Permeate {p.permeate_uS_cm:g} µS/cm reads more than its feed, {p.feed_uS_cm:g} µS/cm. "
                "See whether the two are swapped.",
                pointer="/permeate_uS_cm",
            )
    shown = ordered[-12:]
    values = [_rejection(ledger, p, i) for i, p in enumerate(shown, 1)]
    now = values[-1]
    rejections = tuple(Rejection(p.on, rejection_pct(p.feed_uS_cm, p.permeate_uS_cm)) for p in ordered)
    ledger.take("floor", "the grower's floor", floor_pct, "%")
    trend = _trend(ledger, rejections, today, floor_pct)
    jump = len(ordered) > 1 and _jumped(ordered[-2], ordered[-1])
    if jump:
        ledger.caution("The permeate jumped since the pair before: look for a leaking seal or a torn membrane.")
    recovered, waste, strength = _recovery(ledger, permeate_L, concentrate_L, ordered[-1])
    soon = trend.earliest is not None and trend.earliest <= today + timedelta(days=WARN_DAYS)
    state: MembraneState = "below the floor" if now < floor_pct else "ageing" if soon or jump or now < 95 else "sound"
    return ledger.close(
        MembraneTrend(
            rejections=rejections,
            now_pct=now,
            trend_pct_month=trend.rate,
            trend_low_pct_month=trend.low,
            trend_high_pct_month=trend.high,
            floor_pct=floor_pct,
            below_floor_on=trend.on,
            below_floor_earliest=trend.earliest,
            below_floor_latest=trend.latest,
            recovery_pct=recovered,
            concentrate_L_per_L=waste,
            concentrate_uS_cm=strength,
            state=state,
            alarm=now < floor_pct or soon or jump,
            sentence=_sentence(now, floor_pct, trend, jump),
        )
    )


@dataclass(frozen=True)
class _Trend:
    rate: float | None = None
    low: float | None = None
    high: float | None = None
    on: date | None = None
    earliest: date | None = None
    latest: date | None = None


def _trend(ledger: Ledger, rejections: tuple[Rejection, ...], today: date, floor: float) -> _Trend:
    days = np.array([(r.on - today).days for r in rejections], float)
    if len(set(days)) < LEAST_FOR_TREND:
        ledger.assume("Fewer than three days with a pair: no trend yet.")
        return _Trend()
    from scipy.special import stdtrit

    y = np.array([r.rejection_pct for r in rejections])
    x = days - days.mean()
    sxx = float(x @ x)
    slope = float(x @ y) / sxx
    residual = y - y.mean() - slope * x
    n = len(y)
    s = float(np.sqrt(max(residual @ residual, 1e-12) / (n - 2)))
    t = float(stdtrit(n - 2, 0.975))
    half = t * s / sxx**0.5
    here = float(y.mean() + slope * (0.0 - days.mean()))
    ledger.take("b", "slope of the line", slope, "%/d", "fitted: least squares")
    ledger.take("bU", "half-width of the slope, 95 %", half, "%/d", "fitted: Student's t")
    ledger.take("here", "the line today", here, "%", "fitted: least squares")
    rate = ledger.step("trend", f"b * {DAYS_A_MONTH}", "%/month", "trend")
    low = ledger.step("trend_low", f"(b - bU) * {DAYS_A_MONTH}", "%/month", "steepest fall")
    high = ledger.step("trend_high", f"(b + bU) * {DAYS_A_MONTH}", "%/month", "slowest fall")
    if here <= floor:
        return _Trend(rate, low, high, today, today, today)

    def crosses(at: float) -> date | None:
        left = (floor - here) / at if at < 0 else float("inf")
        return today + timedelta(days=round(left)) if left <= LONGEST_DAYS else None

    if slope < 0:
        ledger.step("days", "(floor - here) / b", "d", "until the line meets the floor")
    return _Trend(rate, low, high, crosses(slope), crosses(slope - half), crosses(slope + half))


def _jumped(before: MembranePair, now: MembranePair) -> bool:
    same_feed = abs(now.feed_uS_cm / before.feed_uS_cm - 1) < 0.2
    return same_feed and now.permeate_uS_cm > (1 + JUMP_SHARE) * before.permeate_uS_cm + 2


def _recovery(
    ledger: Ledger, permeate_L: float | None, concentrate_L: float | None, pair: MembranePair
) -> tuple[float | None, float | None, float | None]:
    if permeate_L is None and concentrate_L is None:
        return None, None, None
    if permeate_L is None or concentrate_L is None:
        raise Underspecified(
            "Recovery needs both volumes of one run: permeate and concentrate.",
            pointer="/permeate_L" if permeate_L is None else "/concentrate_L",
        )
    require(permeate_L, "Permeate", "L", low=0, open_low=True, high=10_000, pointer="/permeate_L")
    require(concentrate_L, "Concentrate", "L", low=0, high=10_000, pointer="/concentrate_L")
    ledger.take("Vp", "permeate of one run", permeate_L, "L")
    ledger.take("Vc", "concentrate of the same run", concentrate_L, "L")
    ledger.take("Ff", "feed, newest pair", pair.feed_uS_cm, "µS/cm", "measured")
    ledger.take("Pp", "permeate, newest pair", pair.permeate_uS_cm, "µS/cm", "measured")
    recovery = ledger.step("rec", "100 * Vp / (Vp + Vc)", "%", "recovery ratio")
    waste = ledger.step("w", "Vc / Vp", "L/L", "concentrate for each litre of permeate")
    strength = None
    if concentrate_L > 0:
        strength = ledger.step("Cc", "((Vp + Vc) * Ff - Vp * Pp) / Vc", "µS/cm", "concentrate, by mass balance")
    return recovery, waste, strength


def _sentence(now: float, floor: float, trend: _Trend, jump: bool) -> str:
    if now < floor:
        return f"Rejects {now:.1f} %, below your floor of {floor:g} %: replace or inspect the membrane."
    if jump:
        return f"Rejects {now:.1f} %, and the permeate jumped since last time: inspect it."
    if trend.rate is None:
        return f"Rejects {now:.1f} %. Three days with a pair will show where it goes."
    if trend.on is None and trend.earliest is None:
        return f"Rejects {now:.1f} %; no fall towards {floor:g} % shows."
    if trend.on is None:
        return f"Rejects {now:.1f} %; it may reach {floor:g} % by {trend.earliest} at the earliest, or not for years."
    latest = f", at the latest {trend.latest}" if trend.latest else ""
    return (
        f"Rejects {now:.1f} %; expected below {floor:g} % about {trend.on}, at the earliest {trend.earliest}{latest}."
    )
