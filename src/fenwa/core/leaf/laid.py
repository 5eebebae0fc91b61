"""Lines of leaves laid over each other by a shared start: arrivals, twins and divisions, two seasons of one plant."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import median
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LaidBy = Literal["arrival", "twins", "season"]
MOST_LINES = 60
LONGEST_d = 20_000
YEAR_d = 365
COMPARABLE_DAYS = 30  # a shared age of less shows no leaf of most kinds; judgement


@dataclass(frozen=True)
class AgedLeaf:
    """A leaf by the days since its line's start; ``share`` of the plant's usual, None: not finished. [d]"""

    day: int
    share: float | None = None


@dataclass(frozen=True)
class SharedLine:
    """A line by days since its start, seen for ``days``. [d]"""

    name: str
    days: int
    leaves: tuple[AgedLeaf, ...] = ()


@dataclass(frozen=True)
class AtAge:
    """What a line had at the shared age. None: no finished leaf by then."""

    name: str
    leaves: int
    middle_share: float | None


@dataclass(frozen=True)
class LeavesAtAge:
    """Lines held against each other at the age all of them have reached. [d]"""

    age_days: int
    lines: tuple[AtAge, ...]
    sentence: str


@calculation("leaves-at-age", title="Leaves at one age", station="leaf")
def leaves_at_age(*, lines: list[SharedLine]) -> Computed[LeavesAtAge]:
    """Leaves that each line had opened at the age the youngest of them has reached.

    Parameters
    ----------
    lines : list[SharedLine]
        Two to 60 lines by days since a shared start, 0 to 20 000 days. [d]

    Returns
    -------
    Computed
        The shared age, and leaves and their size of each line at it.

    Raises
    ------
    OutOfRange, InputError
        If a day cannot be, or there are fewer than two lines.

    Notes
    -----
    An older line is cut at the shared age: what it did later is not held against a younger one.

    References
    ----------
    section 7.1
    """
    if not 2 <= len(lines) <= MOST_LINES:
        raise InputError(f"{len(lines)} lines. Give 2 to {MOST_LINES}.", pointer="/lines")
    for i, line in enumerate(lines):
        require(line.days, "Days seen", "d", low=0, high=LONGEST_d, pointer=f"/lines/{i}/days")
        for k, leaf in enumerate(line.leaves):
            require(
                leaf.day, "Day of a leaf", "d", low=-LONGEST_d, high=LONGEST_d, pointer=f"/lines/{i}/leaves/{k}/day"
            )
            if leaf.share is not None:
                require(leaf.share, "Share of usual", "", low=0, high=1000, pointer=f"/lines/{i}/leaves/{k}/share")
    ledger = Ledger("Leaves at one age", "Counted up to the age of the youngest.", ("growth-analysis",))
    for i, line in enumerate(lines):
        ledger.take(f"d{i}", f"{line.name}: days seen", line.days, "d", "log")
    age = int(ledger.step("A", "min(" + ", ".join(f"d{i}" for i in range(len(lines))) + ")", "d", "shared age"))
    rows = []
    for line in lines:
        by_then = [x for x in line.leaves if 0 <= x.day <= age]
        shares = [x.share for x in by_then if x.share is not None]
        rows.append(AtAge(line.name, len(by_then), median(shares) if shares else None))
    counts = [r.leaves for r in rows]
    if age < COMPARABLE_DAYS:
        said = f"Shared age {age} days: too early to hold them against each other."
    elif max(counts) == min(counts):
        said = f"At day {age} each has {counts[0]} {'leaf' if counts[0] == 1 else 'leaves'}."
    else:
        most = max(rows, key=lambda r: r.leaves)
        least = min(rows, key=lambda r: r.leaves)
        said = f"At day {age}: {most.name} has {most.leaves}, {least.name} has {least.leaves}."
    return ledger.close(LeavesAtAge(age, tuple(rows), said))


def season_starts(today: date, days_from_shortest: int | None) -> tuple[date, date]:
    """First days of this season and the one before: the shortest day; where there are no seasons, a year back. [d]"""
    since = YEAR_d if days_from_shortest is None else days_from_shortest % YEAR_d
    this = today - timedelta(days=since)
    return this, this - timedelta(days=YEAR_d)


def aged(opened: Sequence[tuple[date, float | None]], start: date, until: date, name: str) -> SharedLine:
    """A line from its start on: each leaf by its age, nothing from before the start or after the last day."""
    return SharedLine(
        name,
        max(0, (until - start).days),
        tuple(AgedLeaf((on - start).days, share) for on, share in opened if start <= on <= until),
    )
