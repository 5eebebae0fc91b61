"""When a plant was exposed to each cause, read off its log; what the log does not hold is not known, never absent."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import date, timedelta
from itertools import pairwise
from statistics import median

from fenwa.core.diagnosis.evidence import Exposure, Span
from fenwa.core.diagnosis.log_facts import IllLog, IllWater

DRY_POINTS = 10.0  # humidity so far under the kind's range is dry for it
READING_STANDS_DAYS = 30  # a runoff speaks for so long, unless another or a flush comes first; judgement
AIR_STANDS_DAYS = 14  # a reading of the air likewise; judgement
DRY_GAP = 1.6  # times its interval without water: it dried
SETTLING_DAYS = 45  # after a move or repotting
HUNGRY_AFTER_DAYS = 60  # without a feed, in a kind that is fed
SENSITIVE = 2  # from this level a kind minds what disinfects


def _runs(days: Sequence[tuple[date, bool]], stands: int, until: date) -> tuple[Span, ...]:
    """Spans in which it was so: each day stands until the next one, and no longer than it may."""
    spans: list[Span] = []
    for i, (on, so) in enumerate(days):
        nxt = days[i + 1][0] if i + 1 < len(days) else until + timedelta(days=1)
        end = min(nxt - timedelta(days=1), on + timedelta(days=stands), until)
        if so and end >= on:
            if spans and (on - spans[-1].until).days <= 1:
                spans[-1] = Span(spans[-1].since, end)
            else:
                spans.append(Span(on, end))
    return tuple(spans)


def exposures_of(log: IllLog) -> list[Exposure]:
    """Every exposure that the log can tell."""
    found: list[Exposure | None] = [
        _air(log),
        _cold(log),
        _salt(log),
        *_waters(log),
        _dry(log),
        _settling(log),
        _hungry(log),
    ]
    return [e for e in found if e is not None]


def _air(log: IllLog) -> Exposure | None:
    asked = log.profile.climate.humidity_pct
    days = [(a.on, a.humidity_pct) for a in log.air if a.humidity_pct is not None]
    if asked is None or not days:
        return None
    spans = _runs([(on, pct < asked[0] - DRY_POINTS) for on, pct in days], AIR_STANDS_DAYS, log.today)
    low = [pct for on, pct in days if any(s.since <= on <= s.until for s in spans)]
    words = f"{median(low):.0f} % humidity, it asks {asked[0]:g} %" if low else ""
    return Exposure("rh", days[0][0], spans, words)


def _cold(log: IllLog) -> Exposure | None:
    days = [(a.on, a.night_C) for a in log.air if a.night_C is not None]
    if not days:
        return None
    least = log.profile.climate.minimum_C
    spans = _runs([(on, night < least) for on, night in days], AIR_STANDS_DAYS, log.today)
    cold = [night for _, night in days if night < least]
    return Exposure("cold", days[0][0], spans, f"nights to {min(cold):g} °C, its least is {least:g} °C" if cold else "")


def _salt(log: IllLog) -> Exposure | None:
    if not log.runoffs:
        return None
    ceiling = log.profile.root_zone.ec_ceiling_uS_cm
    flushes = [(p.on, False) for p in log.pours if p.flush]
    days = sorted([*((on, ec > ceiling) for on, ec in log.runoffs), *flushes])
    # salt gathers: a reading over the ceiling speaks for the weeks before it too, back to the reading before
    spans = []
    for span in _runs(days, READING_STANDS_DAYS, log.today):
        before = [on for on, _ in days if on < span.since]
        since = max([span.since - timedelta(days=READING_STANDS_DAYS), *(b + timedelta(days=1) for b in before[-1:])])
        spans.append(Span(since, span.until))
    worst = max((ec for _, ec in log.runoffs), default=0.0)
    known = log.runoffs[0][0] - timedelta(days=READING_STANDS_DAYS)
    return Exposure(
        "salt", known, tuple(spans), f"runoff to {worst:.0f} µS/cm, ceiling {ceiling:g} µS/cm" if spans else ""
    )


def _waters(log: IllLog) -> list[Exposure]:
    named = [p for p in log.pours if p.water]
    if not named:
        return []
    facts = {w.name: w for w in log.waters}
    s = log.profile.sensitivity
    minds: dict[str, tuple[bool, Callable[[IllWater], bool | None]]] = {
        "fcl": (max(s.fluoride, s.chlorine) >= SENSITIVE, lambda w: w.treated),
        "hard": (True, lambda w: w.alkaline),
        "na": (True, lambda w: w.softened),
    }
    out = []
    for cause, (asks, told) in minds.items():
        known = [(p.on, told(facts[p.water]) if p.water in facts else None) for p in named]
        if not asks or any(v is None for _, v in known):
            continue  # a water nobody tested neither speaks for nor against
        spans = _runs([(on, bool(v)) for on, v in known], READING_STANDS_DAYS, log.today)
        which = sorted({p.water for p, (_, v) in zip(named, known, strict=True) if v})
        out.append(Exposure(cause, named[0].on, spans, ", ".join(which)))
    return out


def _dry(log: IllLog) -> Exposure | None:
    days = sorted({p.on for p in log.pours})
    if len(days) < 3:
        return None
    usual = max(1.0, log.interval_days)
    spans = [
        Span(a + timedelta(days=round(DRY_GAP * usual)), b)
        for a, b in [*pairwise(days), (days[-1], log.today)]
        if (b - a).days > DRY_GAP * usual
    ]
    spans += [Span(f.on, f.on) for f in log.felt if f.droops and f.moist == "dry"]
    longest = max((b - a).days for a, b in pairwise(days))
    return Exposure("dry", days[0], tuple(sorted(spans, key=lambda s: s.since)), f"longest gap {longest} days")


def _settling(log: IllLog) -> Exposure | None:
    first = min([p.on for p in log.pours[:1]] + [x.on for x in log.looks[:1]], default=None)
    if first is None:
        return None
    moved = [*log.moved, *([(log.arrived_on, "arrived")] if log.arrived_on else [])]
    spans = [Span(on, min(log.today, on + timedelta(days=SETTLING_DAYS))) for on, _ in sorted(moved) if on <= log.today]
    return Exposure("acc", first, tuple(spans), ", ".join(sorted({w for _, w in moved})))


def _hungry(log: IllLog) -> Exposure | None:
    fed = [p.on for p in log.pours if p.feeds]
    if not log.pours or not log.feeds_at_root:
        return None
    marks = [log.pours[0].on, *fed, log.today]
    spans = [
        Span(a + timedelta(days=HUNGRY_AFTER_DAYS), b) for a, b in pairwise(marks) if (b - a).days > HUNGRY_AFTER_DAYS
    ]
    return Exposure("under", log.pours[0].on, tuple(spans), "weeks without feed" if spans else "")
