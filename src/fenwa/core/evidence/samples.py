"""Values of a measure by plant, the trend they were on, and the stages in which an answer comes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import pairwise
from statistics import fmean, median
from typing import Literal

from fenwa.core.evidence.measures import MeasureFacts

GAP_DAYS = 30  # between leaves of a plant with one; judgement
USUAL_LEAST = 4  # values before the change that tell what was usual
SETTLED = 4  # leaves formed after it: later ones add little


@dataclass(frozen=True)
class Sample:
    """A value of the measure: a finished leaf (with the day it was begun in the bud), or a look. [measure's unit]"""

    on: date
    value: float
    begun_on: date | None = None
    number: int | None = None


@dataclass(frozen=True)
class Stage:
    """A stage of knowing: when, and what it has shown. ``state``: past, now or to come."""

    name: str
    since: date
    until: date | None
    says: str
    state: Literal["past", "now", "to come"]


def own_trend(samples: Sequence[Sample], change_on: date, facts: MeasureFacts) -> list[Sample]:
    """The same plant had nothing been changed: its values before, drawn on straight through the days after."""
    earlier = sorted((s for s in samples if s.on < change_on), key=lambda s: s.on)
    after = [s for s in samples if s.on >= change_on]
    if len(earlier) < USUAL_LEAST or not after:
        return []
    days = [(s.on - change_on).days for s in earlier]
    ys = [math.log(s.value) if facts.log else s.value for s in earlier]
    mx, my = fmean(days), fmean(ys)
    spread = sum((d - mx) ** 2 for d in days)
    # half the slope: few values draw a line steeper than it is
    slope = 0.5 * sum((d - mx) * (y - my) for d, y in zip(days, ys, strict=True)) / spread if spread else 0.0
    drawn = []
    for s in after:
        y = my + slope * ((s.on - change_on).days - mx)
        drawn.append(Sample(s.on, math.exp(y) if facts.log else y, s.begun_on, s.number))
    return [*earlier, *drawn]


def stages_of(
    treated: Sequence[Sample],
    change_on: date,
    opens: date,
    closes: date,
    today: date,
    facts: MeasureFacts,
    next_on: date | None,
) -> tuple[Stage, ...]:
    def state(since: date, until: date | None) -> Literal["past", "now", "to come"]:
        if today < since:
            return "to come"
        return "now" if until is None or today <= until else "past"

    early = opens - timedelta(days=1)
    out = [
        Stage("Too early", change_on, early, "nothing counts", state(change_on, early)),
        Stage("Tips and roots", opens, closes, "they answer first", state(opens, closes)),
    ]
    if not facts.by_leaf:
        return tuple(out)
    since = sorted((s for s in treated if s.on >= change_on), key=lambda s: s.on)
    opened = sorted(s.on for s in treated)
    gap = round(median([(b - a).days for a, b in pairwise(opened)])) if len(opened) > 1 else GAP_DAYS
    begun = [s for s in since if s.begun_on is not None and s.begun_on < change_on]
    formed = [s for s in since if s.begun_on is not None and s.begun_on >= change_on]
    for name, rows, i, says in (
        ("Begun before", begun, -1, "weak: its size was fixed before"),
        ("First leaf", formed, 0, "formed after: a hint"),
        ("Second leaf", formed, 1, "the first that counts"),
        ("Settled", formed, SETTLED - 1, "later leaves add little"),
    ):
        there = rows[i] if len(rows) > (i if i >= 0 else 0) else None
        if there is not None:
            out.append(Stage(name, there.on, there.on, says, "past"))
        elif name != "Begun before":
            ahead = timedelta(days=gap * max(0, i - len(formed)))
            due = (
                next_on if next_on is not None and next_on > today else max(today, closes) + timedelta(days=1)
            ) + ahead
            out.append(Stage(name, due, None, says, "to come"))
    return tuple(out)
