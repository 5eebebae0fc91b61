"""What a changed plant is held against, and what else changed of either: one rule for a question and a trial."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from fenwa.core.climate.light import day_length_h
from fenwa.core.evidence.answer import Against, Other
from fenwa.core.evidence.changes import LoggedChange
from fenwa.core.evidence.measures import MeasureFacts
from fenwa.core.evidence.samples import Sample, own_trend

SAME_TIME_DAYS = 10  # the same thing done to both so near is one change of both; judgement
NEAR_DAYS = 30  # another change so long before the one asked about still speaks in the answer; judgement
YEAR = timedelta(days=365)
LIGHT_APART_h = 1.0  # days that differ by less are alike; judgement


def had_both(change: LoggedChange, theirs: Sequence[LoggedChange]) -> bool:
    """Whether the other plant had the same kind of change at the same time."""
    return any(t.kind == change.kind and abs((t.on - change.on).days) <= SAME_TIME_DAYS for t in theirs)


def last_year(values: Sequence[Sample]) -> list[Sample]:
    """The same plant a year earlier, on this year's dates."""
    return [replace(s, on=s.on + YEAR, begun_on=s.begun_on + YEAR if s.begun_on else None, number=None) for s in values]


def held_against(
    values: Sequence[Sample], twin: Sequence[Sample] | None, change_on: date, today: date, facts: MeasureFacts
) -> tuple[Against, list[Sample]]:
    """A twin over the same dates, else last year's same season, else the plant's own trend."""
    if twin is not None:
        return "twin", list(twin)
    shifted = [s for s in last_year(values) if s.on <= today]
    formed = [s for s in shifted if (s.begun_on or s.on) >= change_on]
    if formed and any(s.on < change_on for s in shifted):
        return "last year", shifted
    return "own trend", own_trend(values, change_on, facts)


def others_of(
    asked: LoggedChange, mine: Sequence[LoggedChange], twins: Sequence[LoggedChange] | None, until: date
) -> list[Other]:
    """What else changed about then: of the plant, of its twin, of both. ``twins`` None: nothing stands beside it."""
    since = asked.on - timedelta(days=NEAR_DAYS)
    theirs = [c for c in twins or () if since <= c.on <= until]
    near = [c for c in mine if since <= c.on <= until and c.key != asked.key]
    out = [Other(c.on, c.words, "both" if twins is None or had_both(c, theirs) else "one") for c in near]
    out += [Other(t.on, t.words, "twin") for t in theirs if not had_both(t, near)]
    return sorted(out, key=lambda o: o.on)


def light_of_season(latitude_deg: float, change_on: date, until: date) -> list[Other]:
    """Days that grew or shrank meanwhile: both plants had them; empty where they stayed alike."""
    then, now = day_length_h(latitude_deg, change_on), day_length_h(latitude_deg, until)
    return [Other(until, f"days {then:.1f} to {now:.1f} h", "both")] if abs(then - now) >= LIGHT_APART_h else []


@dataclass(frozen=True)
class Noticed:
    """Something else that changed since a trial began; ``one_sided``: on one plant of a pair only."""

    on: date
    pots: tuple[int, ...]
    words: str
    one_sided: bool


def noticed(
    changes: Mapping[int, Sequence[LoggedChange]],
    partner: Mapping[int, int],
    changed: Mapping[int, bool],
    tried: str,
    began: date,
    until: date,
) -> list[Noticed]:
    """What else changed of the plants of a trial: not what is tried; what several had stands in one line.

    ``changes`` by pot; ``partner``: the other of its pair; ``changed``: pots of the trial, whether each is changed;
    ``tried``: the kind of change the trial is about.
    """
    found: dict[tuple[date, str, bool], list[int]] = {}
    for pot, is_changed in changed.items():
        theirs = changes.get(partner.get(pot, 0), ())
        for c in changes.get(pot, ()):
            if began < c.on <= until and not (is_changed and c.kind == tried and c.whose == "pot"):
                found.setdefault((c.on, c.words, not had_both(c, theirs)), []).append(pot)
    return [Noticed(on, tuple(pots), words, one) for (on, words, one), pots in sorted(found.items())]
