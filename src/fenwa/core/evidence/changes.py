"""Dated changes of a pot, read off its log: what the grower did, whether or not anybody called it a change."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from itertools import pairwise
from statistics import median
from typing import Literal

from fenwa.core.evidence.windows import EVENT_KINDS, ChangeKind

Whose = Literal["pot", "place"]
FLUSH_PASSES_DAYS = 7  # flushes so near each other are one
STRENGTH_RATIO = 1.3  # feeds apart by less are the same strength, weighed by hand
WATER_RUN = 3  # pours in a row before another water is a change and no exception
RHYTHM_RUN, RHYTHM_RATIO = 4, 1.5  # gaps on either side, and how far apart their middles are
FEED_PAUSE_DAYS = 60  # a feed after so long begins anew


@dataclass(frozen=True)
class Poured:
    """A pour as far as changes go. Nitrogen None: no feed, or not known. [mg/L]"""

    on: date
    job: str
    water: str = ""
    nitrogen_mg_L: float | None = None


@dataclass(frozen=True)
class Noted:
    """An event of the pot or its place, a treatment or a decision, as logged. ``review_on``: when to look again."""

    on: date
    kind: str
    words: str
    whose: Whose = "pot"
    review_on: date | None = None


@dataclass(frozen=True)
class LoggedChange:
    """A change that can be asked about. ``up``: more of it; None: neither more nor less."""

    key: str
    on: date
    kind: ChangeKind
    words: str
    whose: Whose
    up: bool | None = None
    review_days: int | None = None

    @property
    def question(self) -> str:
        """What it has in common with the same change elsewhere."""
        return self.kind if self.up is None else f"{self.kind}, {'more' if self.up else 'less'}"


def _change(on: date, kind: ChangeKind, words: str, whose: Whose = "pot", **more: object) -> LoggedChange:
    return LoggedChange(f"{kind}-{on.isoformat()}", on, kind, words, whose, **more)  # type: ignore[arg-type]


def _flushes(pours: Sequence[Poured]) -> list[LoggedChange]:
    out: list[LoggedChange] = []
    last: date | None = None
    for p in pours:
        if p.job == "flush" and (last is None or (p.on - last).days > FLUSH_PASSES_DAYS):
            out.append(_change(p.on, "flush", "flushed"))
        if p.job == "flush":
            last = p.on
    return out


def _strengths(pours: Sequence[Poured]) -> list[LoggedChange]:
    fed = [p for p in pours if p.job == "feed" and p.nitrogen_mg_L]
    out = []
    for a, b in pairwise(fed):
        was, now = a.nitrogen_mg_L or 0.0, b.nitrogen_mg_L or 0.0
        if (b.on - a.on).days > FEED_PAUSE_DAYS:
            out.append(_change(b.on, "strength", f"fed again, {now:.0f} mg/L N", up=True))
        elif max(was, now) / min(was, now) >= STRENGTH_RATIO:
            out.append(_change(b.on, "strength", f"feed {was:.0f} to {now:.0f} mg/L N", up=now > was))
    if fed:
        last = fed[-1].on
        after = [p for p in pours if p.on > last and p.job == "plain"]
        if after and (pours[-1].on - last).days > FEED_PAUSE_DAYS:
            out.append(_change(after[0].on, "strength", "feed stopped", up=False))
    return out


def _waters(pours: Sequence[Poured]) -> list[LoggedChange]:
    """Another water from a day on, kept for several pours: one exception is none."""
    named = [p for p in pours if p.water]
    out = []
    current = named[0].water if named else ""
    for i, p in enumerate(named):
        if p.water != current and all(x.water == p.water for x in named[i : i + WATER_RUN]):
            if len(named) - i >= WATER_RUN:
                out.append(_change(p.on, "water", f"{current} to {p.water}"))
            current = p.water
    return out


def _rhythms(pours: Sequence[Poured]) -> list[LoggedChange]:
    """Watered markedly oftener or more seldom, held for several gaps on both sides; one change at its sharpest."""
    days = sorted({p.on for p in pours if p.job != "flush"})
    gaps = [(b - a).days for a, b in pairwise(days)]
    found: list[tuple[float, LoggedChange]] = []
    for i in range(RHYTHM_RUN, len(gaps) - RHYTHM_RUN + 1):
        was, now = median(gaps[i - RHYTHM_RUN : i]), median(gaps[i : i + RHYTHM_RUN])
        ratio = max(was, now) / max(1, min(was, now))
        if ratio < RHYTHM_RATIO:
            continue
        words = f"watered every {was:.0f} days, then every {now:.0f}"
        change = _change(days[i], "rhythm", words, up=now < was)
        if found and (change.on - found[-1][1].on).days < 2 * RHYTHM_RUN * max(was, now):
            if ratio > found[-1][0]:
                found[-1] = (ratio, change)
        else:
            found.append((ratio, change))
    return [c for _, c in found]


def _noted(notes: Sequence[Noted]) -> list[LoggedChange]:
    out = []
    for n in notes:
        kind: ChangeKind | None = "decision" if n.kind == "decision" else EVENT_KINDS.get(n.kind)
        if kind is None:
            continue
        days = (n.review_on - n.on).days if n.review_on is not None else None
        out.append(_change(n.on, kind, n.words or n.kind, n.whose, review_days=days))
    return out


def changes_in(pours: Sequence[Poured], notes: Sequence[Noted], since: date, until: date) -> list[LoggedChange]:
    """Every change of a pot between two days, newest first; pours and notes in any order.

    A flush, another strength, another rhythm and another water are read off the pours themselves.
    """
    poured = sorted(pours, key=lambda p: p.on)
    found = [*_flushes(poured), *_strengths(poured), *_waters(poured), *_rhythms(poured), *_noted(notes)]
    seen: dict[str, LoggedChange] = {}
    for c in sorted(found, key=lambda c: (c.on, c.kind)):
        if since <= c.on <= until:
            key = c.key
            while key in seen:  # two of a kind on a day: both can be asked about
                key += "b"
            seen[key] = LoggedChange(key, c.on, c.kind, c.words, c.whose, c.up, c.review_days)
    return sorted(seen.values(), key=lambda c: c.on, reverse=True)
