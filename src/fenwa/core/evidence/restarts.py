"""When a plant woke: by its noted phases, else by its growths, else by the turn of the year."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from itertools import pairwise

RESTING = ("rest", "dormant")
MOST_SEASONS = 4


def woke_on(phases: Sequence[tuple[date, str]], since: date | None) -> list[date]:
    """Days a plant gave up its rest, newest first; phases oldest first.

    One that was in growth when its log began counts from that day, if it rested afterwards: its season is whole from
    then on, and told so by its length.
    """
    days = [b for (_, was), (b, now) in pairwise(phases) if was in RESTING and now not in RESTING]
    began_growing = bool(phases) and phases[0][1] not in RESTING
    rested = any(phase in RESTING for _, phase in phases)
    if began_growing and rested and since is not None:
        days.insert(0, max(since, phases[0][0]))
    return sorted(set(days), reverse=True)[:MOST_SEASONS]


def season_spans(starts: Sequence[date], today: date) -> list[tuple[date, date]]:
    """From each waking to the day before the next; newest first."""
    ordered = sorted(starts)
    ends = [date.fromordinal(b.toordinal() - 1) for b in ordered[1:]] + [today]
    return list(reversed(list(zip(ordered, ends, strict=True))))
