"""Going away: which plants will not last until a day, and what a helper has to do."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass
from datetime import date, timedelta
from operator import itemgetter
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Risk = Literal["none", "low", "high", "leave alone"]

MAX_DAYS = 120


@dataclass(frozen=True, kw_only=True)
class AwayPot:
    """A pot before a journey. Interval with its 80 % range; how long the kind stands dry beyond it. [d, mL]"""

    id: int
    code: str
    name: str
    place: str
    shelf_order: int
    interval_days: float
    low_days: float
    high_days: float
    amount_mL: float
    water: str
    route: str
    hold: str = ""
    keep_dry: bool = False
    never_dry: bool = False
    first_on: date | None = None  # the next watering as the round has it
    then: str = ""
    not_do: str = "No feed."


@dataclass(frozen=True)
class AwayVisit:
    """A day a helper should come, and the pots for that day."""

    on: date
    pot_ids: tuple[int, ...]


@dataclass(frozen=True, kw_only=True)
class AwayRow:
    """One pot: when it wants water, its risk, a helper's days. ``plain_only``: a hold keeps feed off it."""

    pot_id: int
    code: str
    name: str
    place: str
    risk: Risk
    dry_from: date | None
    dry_to: date | None
    days: tuple[date, ...]
    amount_mL: float
    water: str
    route: str
    sentence: str
    then: str = ""
    not_do: str = ""
    plain_only: bool = False


@dataclass(frozen=True)
class AwayPlan:
    """The journey: pots at risk first, and the fewest visits that serve them."""

    rows: tuple[AwayRow, ...]
    visits: tuple[AwayVisit, ...]
    at_risk: int
    sentence: str


def _waters(p: AwayPot, leaving: date, back: date) -> list[date]:
    """Days the pot would be watered while nobody is home: from its next watering on, else from one on leaving."""
    step = max(1, int(p.low_days if p.never_dry else p.interval_days))
    days, on = [], _first(p, leaving, step)
    while on < back:
        days.append(on)
        on += timedelta(days=step)
    return days


def _first(p: AwayPot, leaving: date, step: int) -> date:
    """The first watering after leaving: as the round has it, else an interval after the day of leaving."""
    return p.first_on if p.first_on is not None and p.first_on > leaving else leaving + timedelta(days=step)


def _row(p: AwayPot, leaving: date, back: date) -> AwayRow:
    if p.keep_dry:
        return AwayRow(
            pot_id=p.id,
            code=p.code,
            name=p.name,
            place=p.place,
            risk="leave alone",
            dry_from=None,
            dry_to=None,
            days=(),
            amount_mL=0.0,
            water="",
            route=p.route,
            sentence=f"{p.hold} Do not water.",
            not_do="No water, no feed.",
        )
    start = _first(p, leaving, 0) - timedelta(days=int(p.interval_days)) if p.first_on else leaving
    since = start if p.first_on is not None and p.first_on > leaving else leaving
    first, last = since + timedelta(days=int(p.low_days)), since + timedelta(days=int(p.high_days))
    days = _waters(p, leaving, back)
    if last <= back - timedelta(days=1) and days:
        risk: Risk = "high"
        said = f"Dry between {first.day} {first:%b} and {last.day} {last:%b}: needs a helper."
    elif first < back and (p.never_dry or days):
        risk, said = "low", f"May be dry from {first.day} {first:%b}; a helper should feel it."
    else:
        risk, said, days = "none", "Lasts until you are back.", []
    note = f" {p.hold} Plain water only." if p.hold else ""
    return AwayRow(
        pot_id=p.id,
        code=p.code,
        name=p.name,
        place=p.place,
        risk=risk,
        dry_from=first,
        dry_to=last,
        days=tuple(days),
        amount_mL=p.amount_mL,
        water=p.water,
        route=p.route,
        sentence=said + note,
        then=p.then,
        not_do=p.not_do,
        plain_only=bool(p.hold),
    )


def _visits(rows: list[AwayRow], order: dict[int, int]) -> tuple[AwayVisit, ...]:
    """The fewest days that serve every watering: each visit as late as the first pot waiting allows, the others
    come with it.
    """
    waiting = sorted((on, r.pot_id) for r in rows if r.risk in ("high", "low") for on in r.days)
    visits: list[AwayVisit] = []
    while waiting:
        day = waiting[0][0]
        served = bisect_right(waiting, day + timedelta(days=1), key=itemgetter(0))
        here = {pot for _, pot in waiting[:served]}
        visits.append(AwayVisit(day, tuple(sorted(here, key=lambda i: order[i]))))
        waiting = waiting[served:]
    return tuple(visits)


@calculation("away-risk", title="Going away", station="round", many_rows=True)
def away_risk(*, pots: list[AwayPot], leaving: date, back: date) -> Computed[AwayPlan]:
    """Which pots will not last until you are back, and when a helper should come.

    Parameters
    ----------
    pots : list[AwayPot]
        Pots with their interval, its range and their next watering; what is due by the day you leave is watered then.
        [d, mL]
    leaving : date
        The day you leave.
    back : date
        The day you are back, up to 120 days later.

    Returns
    -------
    Computed
        Pots by risk with the helper's days and amounts. [mL]

    Raises
    ------
    InputError
        If you are back before you leave, or away too long.
    OutOfRange
        If an interval cannot be.

    Notes
    -----
    A helper gives plain water and no feed. Pots kept dry are left alone.

    References
    ----------
    robust-median; judgement
    """
    days = (back - leaving).days
    if not 1 <= days <= MAX_DAYS:
        raise InputError(
            f"Away from {leaving} to {back} is {days} days. Choose a return 1 to {MAX_DAYS} days after leaving.",
            pointer="/back",
        )
    for i, p in enumerate(pots):
        require(p.interval_days, f"Interval of {p.code}", "d", low=0.2, high=366, pointer=f"/pots/{i}/interval_days")
        require(p.low_days, f"Shortest interval of {p.code}", "d", low=0.1, high=366, pointer=f"/pots/{i}/low_days")
        require(p.high_days, f"Longest interval of {p.code}", "d", low=0.1, high=366, pointer=f"/pots/{i}/high_days")
    order = {p.id: p.shelf_order for p in pots}
    rank = {"high": 0, "low": 1, "none": 2, "leave alone": 3}
    rows = sorted((_row(p, leaving, back) for p in pots), key=lambda r: (rank[r.risk], order[r.pot_id], r.code))
    visits = _visits(rows, order)
    risky = sum(r.risk == "high" for r in rows)
    due_first = "What is due by then is watered on the day you leave."
    ledger = Ledger("Going away", due_first, ("robust-median", "judgement"))
    ledger.take("days", "days away", days, "d")
    ledger.take("n", "pots", len(pots), "")
    ledger.take("risk", "pots that will be dry", risky, "")
    ledger.take("visits", "visits of a helper", len(visits), "")
    ledger.step("safe", "n - risk", "", "pots that last or need no water")
    ledger.assume("A helper gives plain water; a feed left out for a few weeks harms nothing.")
    said = (
        f"{risky} of {len(pots)} pots will be dry before you are back; {len(visits)} visits serve them."
        if visits
        else "Every pot lasts until you are back."
    )
    return ledger.close(AwayPlan(tuple(rows), visits, risky, said))
