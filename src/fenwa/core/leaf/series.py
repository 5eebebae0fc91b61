"""A treatment given several times: its days, and which of them are still to come."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.entry import require
from fenwa.core.errors import InputError

MOST_DAYS = 30
LONGEST_DAYS = 730


@dataclass(frozen=True)
class Dose:
    """One treatment of a series: its number of how many, and its day."""

    number: int
    of: int
    on: date


def series_days(first: date, days: Sequence[float]) -> list[Dose]:
    """Each treatment of a series with its day. ``days`` count from 1, the first: "1, 8, 15". [d]

    Raises
    ------
    OutOfRange, InputError
        If there is no day or too many, one cannot be, or they do not rise.
    """
    if not 1 <= len(days) <= MOST_DAYS:
        raise InputError(f"{len(days)} days. Give 1 to {MOST_DAYS}, such as 1, 8, 15.", pointer="/days")
    for i, d in enumerate(days):
        require(d, "Day of the series", "", low=1, high=LONGEST_DAYS, pointer=f"/days/{i}")
        if d != int(d):
            raise InputError(f"Day {d:g} is not a whole number. Count whole days from 1.", pointer=f"/days/{i}")
        if i and d <= days[i - 1]:
            raise InputError(
                f"Day {d:g} does not come after day {days[i - 1]:g}. Give them in order.", pointer=f"/days/{i}"
            )
    return [Dose(i, len(days), first + timedelta(days=int(d) - 1)) for i, d in enumerate(days, 1)]
