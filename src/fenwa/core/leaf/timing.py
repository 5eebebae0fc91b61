"""When leaves come, when each was formed, and from when on a change may be read off them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise
from statistics import median
from typing import Literal

from fenwa.core.constants import MAD_TO_SD, Z80
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

RHYTHM_LEAST_SD = 0.15  # of ln days between leaves, however regular few of them looked; judgement
RHYTHM_GAPS = 8  # newest gaps that count
RHYTHM_LEAST_LEAVES = 3  # two gaps, until a round asks for a leaf that did not come; judgement
SLOW_PHASE = 2.0  # E7.3: a plant that hardly grows answers half as fast
IN_BUD = 1.0  # plastochrons from the bud's laying down to the open leaf: fixed one leaf ahead, section 7.2

Formed = Literal["formed before", "begun before", "formed after"]


@dataclass(frozen=True)
class LeafRhythm:
    """Days between leaves, and when the next one is expected. None: fewer than two leaves. [d]"""

    days: float | None
    next_on: date | None
    earliest_on: date | None
    latest_on: date | None
    late: bool
    sentence: str


def plastochron(opened: Sequence[date]) -> tuple[float, float] | None:
    """Days between leaves and the SD of their logarithm; None: fewer than two leaves."""
    days = sorted(set(opened))
    gaps = [math.log((b - a).days) for a, b in pairwise(days)][-RHYTHM_GAPS:]
    if not gaps:
        return None
    middle = median(gaps)
    spread = MAD_TO_SD * median(abs(g - middle) for g in gaps)
    return math.exp(middle), max(RHYTHM_LEAST_SD, spread)


@calculation("leaf-rhythm", title="The next leaf", station="leaf")
def leaf_rhythm(*, opened: list[date], today: date, resting: bool = False) -> Computed[LeafRhythm]:
    """Days between a plant's leaves, and the day the next is expected with its 80 % range.

    Parameters
    ----------
    opened : list[date]
        Days its leaves opened, in any order, at most 1 000.
    today : date
        The day asked on.
    resting : bool
        Whether it rests: then no leaf is expected.

    Returns
    -------
    Computed
        Days between leaves, next leaf with its range, whether it is late. [d]

    Raises
    ------
    InputError
        If a leaf opened after today, or there are too many.

    References
    ----------
    section 7.1; robust median
    """
    if len(opened) > 1000:
        raise InputError(f"{len(opened)} leaves. Give at most 1000.", pointer="/opened")
    for i, on in enumerate(opened):
        if on > today:
            raise InputError(
                f"A leaf of {on.isoformat()} lies after today, {today.isoformat()}. Check its date.",
                pointer=f"/opened/{i}",
            )
    ledger = Ledger("The next leaf", "By the plant's own rhythm.", ("robust-median", "judgement"))
    ledger.take("n", "leaves dated", float(len(set(opened))), "", "log")
    found = plastochron(opened)
    if found is None:
        ledger.step("k", "max(n - 1, 0)", "", "gaps between leaves")
        return ledger.close(LeafRhythm(None, None, None, None, False, "Two dated leaves tell a rhythm."))
    days, sd = found
    ledger.found("D", "days between leaves", days, "d", "median of the newest gaps, on the log scale")
    ledger.found("s", "their spread (SD of ln)", sd, "", "median absolute deviation, no less than 0.15")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    low = ledger.step("low", "D * exp(-z * s)", "d", "after the last one at the earliest")
    high = ledger.step("high", "D * exp(z * s)", "d", "at the latest")
    last = max(opened)
    on, early, late = (last + timedelta(days=round(d)) for d in (days, low, high))
    if resting:
        said = f"A leaf in {days:.0f} days in growth; it rests, so none is expected."
        return ledger.close(LeafRhythm(days, None, None, None, False, said))
    overdue = today > late
    said = f"A leaf in {days:.0f} days: the next about {on.isoformat()}, {early.isoformat()} to {late.isoformat()}."
    if overdue:
        said = f"A leaf in {days:.0f} days: the next was due by {late.isoformat()}. Look for it."
    return ledger.close(LeafRhythm(days, on, early, late, overdue, said))


def expected_by(opened: Sequence[date]) -> date | None:
    """The last day the next leaf is expected by a plant's own rhythm; None: fewer than three leaves tell none."""
    found = plastochron(opened)
    if found is None or len(set(opened)) < RHYTHM_LEAST_LEAVES:
        return None
    days, sd = found
    return max(opened) + timedelta(days=round(days * math.exp(Z80 * sd)))


@dataclass(frozen=True)
class LeafFormed:
    """When a leaf was laid down and how it stands to a change: its weight as an answer, 0 to 1."""

    begun_on: date
    formed: Formed
    weight: float
    sentence: str


def begun_on(opened_on: date, plastochron_days: float) -> date:
    """The day a leaf's size was fixed in the bud: about one leaf before it opened."""
    return opened_on - timedelta(days=round(IN_BUD * plastochron_days))


def formed_against(opened_on: date, begun: date, change_on: date) -> tuple[Formed, float]:
    """How a leaf stands to a change, and what of its formation lies after it, 0 to 1."""
    if opened_on < change_on:
        return "formed before", 0.0
    if begun >= change_on:
        return "formed after", 1.0
    whole = max((opened_on - begun).days, 1)
    return "begun before", (opened_on - change_on).days / whole


@calculation("leaf-formed", title="When a leaf was formed", station="leaf")
def leaf_formed(*, opened_on: date, change_on: date, plastochron_days: float) -> Computed[LeafFormed]:
    """When a leaf was formed, and whether it can answer a change at all.

    Parameters
    ----------
    opened_on : date
        The day it opened.
    change_on : date
        The day of the change: a flush, another strength, another water.
    plastochron_days : float
        Days between leaves of this plant, or of its kind, 1 to 730. [d]

    Returns
    -------
    Computed
        Day it was begun, formed before, begun before or formed after, and its weight as an answer.

    Raises
    ------
    OutOfRange
        If the days cannot be.

    Notes
    -----
    The size of a leaf is fixed in the bud, often one leaf before the change shows.

    References
    ----------
    section 7.2; E7.3
    """
    require(plastochron_days, "Days between leaves", "d", low=1, high=730, pointer="/plastochron_days")
    ledger = Ledger("When a leaf was formed", "Fixed in the bud about one leaf before it opens.", ("judgement",))
    ledger.take("D", "days between leaves", plastochron_days, "d", "log")
    ledger.take("k", "leaves ahead that a bud is laid down", IN_BUD, "", "judgement")
    ledger.take("a", "days from the change to the open leaf", (opened_on - change_on).days, "d", "log")
    ledger.step("F", "k * D", "d", "days from bud to open leaf")
    ledger.step("w", "min(1, max(0, a / F))", "", "of its formation after the change")
    begun = begun_on(opened_on, plastochron_days)
    formed, weight = formed_against(opened_on, begun, change_on)
    said = {
        "formed before": "It had opened before the change: it can answer nothing.",
        "begun before": f"Begun {begun.isoformat()}, before the change: weak, {100 * weight:.0f} % formed after it.",
        "formed after": f"Begun {begun.isoformat()}, after the change: it counts.",
    }[formed]
    return ledger.close(LeafFormed(begun, formed, weight, said))


@dataclass(frozen=True)
class VerdictWindow:
    """From when to when a change can be judged, and where today lies in it."""

    opens_on: date
    closes_on: date
    state: Literal["too early", "open", "over"]
    sentence: str


@calculation("verdict-window", title="When a change can be judged", station="leaf")
def verdict_window(
    *, change_on: date, lag_low_days: float, lag_high_days: float, today: date, slow: bool = False
) -> Computed[VerdictWindow]:
    """The days in which a kind answers a change: before them it is too early, after them it is not credited.

    Parameters
    ----------
    change_on : date
        The day of the change.
    lag_low_days : float
        First day of the kind's answer in active growth, 0 to 1 000; a cut or a raise of a dose by its window for
        too little feed, a flush or an overdose by that for too much. [d]
    lag_high_days : float
        Last day of it, 0 to 1 000. [d]
    today : date
        The day asked on.
    slow : bool
        Whether it hardly grows: then it takes twice as long.

    Returns
    -------
    Computed
        First and last day, and whether today is too early.

    Raises
    ------
    OutOfRange, InputError
        If a lag cannot be, or the last day lies before the first.

    References
    ----------
    E7.3
    """
    require(lag_low_days, "First day", "d", low=0, high=1000, pointer="/lag_low_days")
    require(lag_high_days, "Last day", "d", low=0, high=1000, pointer="/lag_high_days")
    if lag_high_days < lag_low_days:
        raise InputError(
            f"The last day, {lag_high_days:g}, lies before the first, {lag_low_days:g}. Exchange them.",
            pointer="/lag_high_days",
        )
    ledger = Ledger(
        "When a change can be judged", "Lags of the kind, twice as long where growth is slow.", ("profile",)
    )
    ledger.take("a", "first day of an answer", lag_low_days, "d", "profile")
    ledger.take("b", "last day of an answer", lag_high_days, "d", "profile")
    ledger.take("k", "times longer, by the phase", SLOW_PHASE if slow else 1.0, "", "default:E7.3")
    low = ledger.step("low", "k * a", "d", "opens after")
    high = ledger.step("high", "k * b", "d", "closes after")
    opens, closes = (change_on + timedelta(days=round(d)) for d in (low, high))
    state: Literal["too early", "open", "over"] = "open"
    said = f"It can be judged until {closes.isoformat()}."
    if today < opens:
        state, said = "too early", f"Too early until {opens.isoformat()}."
    elif today > closes:
        state, said = "over", f"Its time to answer ended on {closes.isoformat()}."
    return ledger.close(VerdictWindow(opens, closes, state, said))
