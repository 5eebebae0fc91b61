"""Prills in a pot: how much they have given by thermal time, and the day they are spent."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.care.interval import ROOM_C, warmth_since
from fenwa.core.constants import uS_A_mg_N
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.release import (
    LABEL_SHARE_OUT,
    Q10,
    T_REF_C,
    PrillSalt,
    WEIBULL_m,
    days_until_released,
    range_until_released,
    released_share,
)
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

HOT_C = 32.0  # hotter than that they give at once
PRILL_DONE = 0.85  # the rest comes too slowly to count; judgement


@dataclass(frozen=True)
class Prills:
    """Prills in a pot: the share they have given and the day they are spent."""

    share_out: float
    until: date
    until_early: date
    until_late: date
    given_on: date
    salt: PrillSalt | None = None  # None: nobody weighed them, or their label states no nitrogen

    @property
    def sentence(self) -> str:
        """What they have given and when they are spent."""
        until = ", spent"
        if self.share_out < PRILL_DONE:
            until = f", spent about {self.until.isoformat()}"
            if self.until_early < self.until_late:
                until += f" ({self.until_early.isoformat()} to {self.until_late.isoformat()})"
        said = f"Prills have given {100 * self.share_out:.0f} % of what they hold{until}."
        if self.salt is None:
            said += " Their grams or their nitrogen are not known: their salt is in no figure here."
        return said


def prills_in(
    given_on: date,
    label_days: float,
    label_C: float | None,
    warmth: Sequence[tuple[date, float]],
    today: date,
    grams: float | None = None,
    nitrogen_pct: float | None = None,
) -> Prills:
    """Prills given on a day, E3.11: at the warmth of their place, or of a room where nobody measured.

    Parameters
    ----------
    label_days
        Longevity the label states. [d]
    label_C
        Temperature it is stated at; None: at that of a room. [°C]
    warmth
        Means of the place by day, oldest first. [°C]
    grams, nitrogen_pct
        What was given and its nitrogen, for the salt it adds; None: not known. [g, %]
    """
    warm, at = warmth_since(tuple(warmth), given_on), ROOM_C if label_C is None else label_C
    days = days_until_released(PRILL_DONE, label_days, warm, at)
    salt = None
    if grams is not None and nitrogen_pct:
        salt = PrillSalt(given_on, prill_salt_uS_L(grams, nitrogen_pct), label_days, warm, at)
    out = released_share((today - given_on).days, label_days, warm, at)
    early, late = (given_on + timedelta(days=round(d)) for d in range_until_released(PRILL_DONE, label_days, warm, at))
    return Prills(out, given_on + timedelta(days=round(days)), early, late, given_on, salt)


def prill_salt_uS_L(grams: float, nitrogen_pct: float) -> float:
    """All the salt of some prills, by the nitrogen they hold, E1.6. [g, % -> µS/cm · L]"""
    return uS_A_mg_N * 10 * grams * nitrogen_pct


@dataclass(frozen=True, kw_only=True)
class PrillRelease:
    """Shares given, days to a share at the pot's warmth, nitrogen and salt of the next week. None: amount not known.

    [d, mg, µS/cm]
    """

    share_out: float
    next_week_share: float
    days_to_share: float
    by_label: date
    until: date
    until_early: date
    until_late: date
    nitrogen_mg_week: float | None
    salt_uS_cm_week: float | None
    sentence: str


@calculation("prill-release", title="Prills", station="flush")
def prill_release(
    *,
    given_on: date,
    today: date,
    label_days: float,
    celsius: float,
    label_celsius: float = T_REF_C,
    share: float = LABEL_SHARE_OUT,
    grams: float | None = None,
    nitrogen_pct: float | None = None,
    water_L: float | None = None,
) -> Computed[PrillRelease]:
    """What prills have given, the day they have given a share, and the salt they add in a week.

    Parameters
    ----------
    given_on : date
        The day they were given.
    today : date
        The day to report for.
    label_days : float
        Longevity the label states, 7 to 1 000. [d]
    celsius : float
        Mean warmth of the pot since, -5 to 45. [°C]
    label_celsius : float
        Warmth the label states it for, 10 to 35. [°C]
    share : float
        The share asked about, 0.05 to 0.95; the label means four fifths.
    grams : float
        Prills in the pot, above 0 to 5 000; empty: not known, so no nitrogen is told. [g]
    nitrogen_pct : float
        Nitrogen by the label, 0 to 50; empty: not known. [%]
    water_L : float
        Water in the pot, above 0 to 500; empty: no salt is told. [L]

    Returns
    -------
    Computed
        Shares, end with its range (makes differ in how warmth drives them), nitrogen and salt of a week. [d, mg, µS/cm]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or they were given after today.

    Notes
    -----
    A flush washes out what lies free; it does not stop the rest. Crushed, hot or wet prills give early.

    References
    ----------
    E3.11
    """
    if given_on > today:
        raise InputError(
            f"Prills given on {given_on.isoformat()} lie after today, {today.isoformat()}.", pointer="/given_on"
        )
    require(label_days, "Longevity", "d", low=7, high=1000, pointer="/label_days")
    require(celsius, "Warmth", "°C", low=-5, high=45, pointer="/celsius")
    require(label_celsius, "Warmth of the label", "°C", low=10, high=35, pointer="/label_celsius")
    require(share, "Share", "", low=0.05, high=0.95, pointer="/share")
    if grams is not None:
        require(grams, "Prills", "g", low=0, open_low=True, high=5000, pointer="/grams")
    if nitrogen_pct is not None:
        require(nitrogen_pct, "Nitrogen", "%", low=0, high=50, pointer="/nitrogen_pct")
    if water_L is not None:
        require(water_L, "Water in the pot", "L", low=0, open_low=True, high=500, pointer="/water_L")
    ledger = Ledger("Prills", "By warmth; makes differ, so a range.", ("release-weibull", "judgement"))
    days = (today - given_on).days
    ledger.take("t", "days since", days, "d", "log")
    ledger.take("L", "longevity by the label", label_days, "d", "label")
    ledger.take("T", "warmth of the pot", celsius, "°C", "log")
    ledger.take("T_0", "warmth of the label", label_celsius, "°C", "label")
    ledger.take("Q", "times faster for 10 °C more", Q10, "", "default:E3.11")
    ledger.take("m", "shape", WEIBULL_m, "", "default:E3.11")
    ledger.take("F_L", "share out at the label's day", LABEL_SHARE_OUT, "", "definition")
    ledger.take("F_x", "share asked about", share, "")
    lam = ledger.step("lam", "L / ln(1 / (1 - F_L)) ** (1 / m)", "d", "scale of the release")
    ledger.step("t_eq", "t * Q ** ((T - T_0) / 10)", "d", "days at the label's warmth")
    out = ledger.step("F", "1 - exp(-(t_eq / lam) ** m)", "", "share given so far")
    week = ledger.step(
        "F_7", "1 - exp(-((t + 7) * Q ** ((T - T_0) / 10) / lam) ** m) - F", "", "share of the next week"
    )
    to = ledger.step("t_x", "lam * (-ln(1 - F_x)) ** (1 / m) / Q ** ((T - T_0) / 10)", "d", "days to the share")
    at_label = lam * (-math.log(1 - share)) ** (1 / WEIBULL_m)
    ends = range_until_released(share, label_days, celsius, label_celsius)
    nitrogen = salt = None
    if grams is not None and nitrogen_pct is not None:
        ledger.take("g", "prills", grams, "g")
        ledger.take("N", "nitrogen", nitrogen_pct, "%", "label")
        nitrogen = ledger.step("N_7", "10 * g * N * F_7", "mg", "nitrogen of the next week")
        if water_L is not None:
            ledger.take("W", "water in the pot", water_L, "L")
            ledger.take("s", "EC of a milligram of nitrogen in a litre", uS_A_mg_N, "µS/cm", "default:E1.6")
            salt = ledger.step("S_7", "s * N_7 / W", "µS/cm", "salt of the next week, if none is washed out")
    ledger.caution("A flush washes out what lies free; it does not stop what is still inside.")
    if celsius > HOT_C:
        ledger.caution("Hotter than 32 °C they give much at once: move the pot, and read its runoff weekly.")
    early, late = (given_on + timedelta(days=round(d)) for d in ends)
    until = given_on + timedelta(days=round(to))
    said = (
        f"{100 * out:.0f} % given. {100 * share:.0f} % about {until.isoformat()}, "
        f"between {early.isoformat()} and {late.isoformat()} at {celsius:g} °C."
    )
    return ledger.close(
        PrillRelease(
            share_out=out,
            next_week_share=week,
            days_to_share=to,
            by_label=given_on + timedelta(days=round(at_label)),
            until=until,
            until_early=early,
            until_late=late,
            nitrogen_mg_week=nitrogen,
            salt_uS_cm_week=salt,
            sentence=said,
        )
    )
