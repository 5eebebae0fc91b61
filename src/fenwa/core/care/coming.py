"""The rounds of the coming weeks, as far as they can be known: each pot by its interval, holds as they stand."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from operator import attrgetter

from fenwa.core.care.due import RoundPot, job_of, water_due_on, whole_days
from fenwa.core.care.holds import blocked
from fenwa.core.entry import require
from fenwa.core.once import once_for
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

SHORTEST_d, LONGEST_d = 0.2, 366
MAX_DAYS = 120


@dataclass(frozen=True)
class ComingPot:
    """A pot with the day it wants water next. None: held dry, or it is not watered by days. [d]"""

    id: int
    code: str
    interval_days: float
    first_on: date | None = None
    isolated: bool = False


@dataclass(frozen=True)
class ComingRound:
    """A day and the pots it will likely ask for, in the order given."""

    on: date
    pot_ids: tuple[int, ...]
    codes: tuple[str, ...]


@dataclass(frozen=True)
class Coming:
    """Days with work, the nearest first, and the most pots on one day."""

    rounds: tuple[ComingRound, ...]
    busiest: int


@once_for
def coming_pot(p: RoundPot, today: date) -> ComingPot:
    """A pot of the round as the calendar needs it."""
    first = None
    if job_of(p, today) is not None:
        first = today
    elif not blocked(p.holds, "water"):
        # what the round of today leaves alone comes tomorrow at the earliest
        first = max(water_due_on(p, today), p.skipped_until or today, today + timedelta(days=1))
    return ComingPot(p.id, p.code, p.interval_days, first, p.isolated)


def next_job(p: RoundPot, today: date) -> str:
    """What the next watering is, as the round would have it then."""
    on = coming_pot(p, today).first_on
    if on is None:
        return "no water"
    return job_of(p, on) or "look"


@calculation("coming-rounds", title="Rounds of the coming weeks", station="round", many_rows=True)
def coming_rounds(*, pots: list[ComingPot], today: date, days: int = 28) -> Computed[Coming]:
    """Days of the coming weeks on which pots will want water.

    Parameters
    ----------
    pots : list[ComingPot]
        Pots with their next day and their interval. [d]
    today : date
        The first day told.
    days : int
        How many days ahead, 1 to 120. [d]

    Returns
    -------
    Computed
        Days with their pots. [d]

    Raises
    ------
    OutOfRange
        If an interval or the number of days cannot be.

    Notes
    -----
    Each pot is watered on its day and comes again after its interval. A hold that ends, a season
    that turns or a pot that is felt heavy moves the days: they are worked out anew from the log.

    References
    ----------
    judgement
    """
    require(days, "Days ahead", "d", low=1, high=MAX_DAYS, pointer="/days")
    first, last = today.toordinal(), today.toordinal() + int(days) - 1
    wanted: list[list[ComingPot]] = [[] for _ in range(int(days))]
    for i, p in enumerate(pots):
        if not SHORTEST_d <= p.interval_days <= LONGEST_d:  # what is refused is named only then
            at = f"/pots/{i}/interval_days"
            require(p.interval_days, f"Interval of {p.code}", "d", low=SHORTEST_d, high=LONGEST_d, pointer=at)
        if p.first_on is not None:
            for on in range(max(p.first_on.toordinal(), first), last + 1, whole_days(p.interval_days)):
                wanted[on - first].append(p)
    rounds = tuple(
        ComingRound(date.fromordinal(first + n), tuple([p.id for p in here]), tuple([p.code for p in here]))
        for n, found in enumerate(wanted)
        if found
        for here in [sorted(found, key=attrgetter("isolated"))]
    )
    ledger = Ledger(
        "Rounds of the coming weeks", "Each pot by its interval; holds as they stand today.", ("judgement",)
    )
    ledger.take("days", "days ahead", days, "d")
    ledger.take("n", "pots", len(pots), "")
    ledger.take("dry", "held dry", sum(p.first_on is None for p in pots), "")
    ledger.take("rounds", "days with work", len(rounds), "")
    ledger.step("free", "days - rounds", "d", "days without a round")
    ledger.assume("Every pot is watered on its day. What is felt, a season or a hold moves it.")
    return ledger.close(Coming(rounds, max((len(r.pot_ids) for r in rounds), default=0)))
