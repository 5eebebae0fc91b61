"""The cheapest change of rhythm that keeps a pot's reading under its ceiling, each drawn ahead."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import capital, require
from fenwa.core.errors import InputError
from fenwa.core.pot.ahead import Rhythm, forecast, present_rhythm
from fenwa.core.pot.balance import State
from fenwa.core.pot.fold import fold
from fenwa.core.pot.folded import Point, reading_of
from fenwa.core.pot.rhythms import feed_share, larger, litres_month, other_water, rinse_L, rinsed, thinner
from fenwa.core.pot.root_zone import check_events, check_readings
from fenwa.core.pot.specification import Members, PotReading, PotSpec, WaterEvent, band, check_pot
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Change = Literal["as it is", "larger pours", "thinner feed", "other water", "a rinse now and then"]

MOST_TIMES, LEAST_FEED = 4.0, 0.2  # of a pour and of a feed: beyond that it is another way of growing
RINSES = (2, 3, 4, 6, 8)  # every so many pours one is plain and larger
STEPS = 12
DRIFT_LEAST = 0.02  # a month: less is no drift


@dataclass(frozen=True)
class RhythmOption:
    """A change of rhythm with what it costs more each month and the reading ahead. [L, mg, µS/cm]"""

    change: Change
    holds: bool
    sentence: str
    amount: float | None
    litres_month: float
    feed_share: float
    crosses_on: date | None
    ahead: tuple[Point, ...]


@dataclass(frozen=True)
class RhythmChange:
    """How fast readings drift, when they cross, and what holds them; the cheapest first. [1/month]"""

    drift_month: float | None
    sentence: str
    crosses_on: date | None
    cheapest: Change | None
    options: tuple[RhythmOption, ...]


@calculation("rhythm-change", title="What would hold the ceiling", station="flush")
def rhythm_change(
    *,
    pot: PotSpec,
    events: list[WaterEvent],
    today: date,
    ceiling_uS_cm: float,
    readings: list[PotReading] | None = None,
    waters_uS_cm: list[float] | None = None,
    base_uS_cm: float | None = None,
    horizon_days: int = 365,
) -> Computed[RhythmChange]:
    """How a pot's reading drifts under its present rhythm, and the cheapest change that keeps it under its ceiling.

    Parameters
    ----------
    pot : PotSpec
        Volume, medium, uptake and losses. [L, 1/d]
    events : list[WaterEvent]
        Pours in any order. [L, µS/cm]
    today : date
        The day to look ahead from.
    ceiling_uS_cm : float
        The pot's ceiling, a reading, above 0 to 20 000. [µS/cm]
    readings : list[PotReading]
        Readings between pours. [µS/cm]
    waters_uS_cm : list[float]
        EC of other waters at hand, each 0 to 20 000, at most twenty. [µS/cm]
    base_uS_cm : float
        EC of the water the feed is mixed in, 0 to 20 000; empty: the purest pour of the rhythm. [µS/cm]
    horizon_days : int
        How far to look, 30 to 730. [d]

    Returns
    -------
    Computed
        Drift a month, and for each change whether it holds, what it costs, and the reading ahead with its band.

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or there is no rhythm yet.

    References
    ----------
    E3.8c; E3.9; E3.10; E3.15
    """
    check_pot(pot)
    check_events(events, today)
    check_readings(readings or [], today)
    require(ceiling_uS_cm, "Ceiling", "µS/cm", low=0, open_low=True, high=20_000, pointer="/ceiling_uS_cm")
    require(horizon_days, "Horizon", "d", low=30, high=730, pointer="/horizon_days")
    waters = waters_uS_cm or []
    if len(waters) > 20:
        raise InputError(f"{len(waters)} waters. Give at most twenty.", pointer="/waters_uS_cm")
    for i, w in enumerate(waters):
        require(w, "Water", "µS/cm", low=0, high=20_000, pointer=f"/waters_uS_cm/{i}")
    if base_uS_cm is not None:
        require(base_uS_cm, "Water of the feed", "µS/cm", low=0, high=20_000, pointer="/base_uS_cm")
    rhythm = present_rhythm(events, today, pot)
    if rhythm is None:
        raise InputError("There is no rhythm yet. Log two pours first.", pointer="/events")
    folded = fold(pot, events, today, readings or [])
    run = _Run(pot, folded.members, folded.state, today, horizon_days, ceiling_uS_cm)
    now = run.option("as it is", rhythm, rhythm, "")
    base = min([*rhythm.ecs_uS_cm, *([] if base_uS_cm is None else [base_uS_cm])])
    drift = _drift(now.ahead)
    options = [now]
    if now.crosses_on is not None:
        options += [
            o
            for o in (
                _larger(run, rhythm),
                _thinner(run, rhythm, base),
                _other_water(run, rhythm, base, waters),
                _rinsed(run, rhythm, base),
            )
            if o is not None
        ]
    ledger = Ledger("What would hold the ceiling", "The present rhythm repeated; bands as known today.", ("judgement",))
    ledger.take("L", "ceiling", ceiling_uS_cm, "µS/cm", "profile")
    ledger.take("t", "days between pours", rhythm.interval_d, "d", "log")
    start = float(band(reading_of(folded.members, folded.state))[0][0])
    ledger.take("C", "reading today", start, "µS/cm", "computed:root-zone")
    ledger.step("share", "C / L", "", "of the ceiling")
    if drift is not None:
        ledger.found(
            "g", "drift a month", 100 * drift, "%", "slope of ln(reading) over the first half of the look ahead"
        )
    helping = sorted((o for o in options[1:] if o.holds), key=_cost)
    return ledger.close(
        RhythmChange(
            drift,
            _sentence(start, drift, now, ceiling_uS_cm, helping),
            now.crosses_on,
            helping[0].change if helping else None,
            (now, *helping, *(o for o in options[1:] if not o.holds)),
        )
    )


@dataclass(frozen=True)
class _Run:
    pot: PotSpec
    members: Members
    state: State
    today: date
    horizon: int
    ceiling: float

    def readings(self, rhythm: Rhythm) -> tuple[np.ndarray, np.ndarray]:
        f = forecast([self.pot], self.members, self.state, [rhythm], self.horizon, self.today)
        return f.days[0], f.readings[0]

    def holds(self, rhythm: Rhythm) -> bool:
        """Whether the later half of the look ahead stays at or under the ceiling: salt there now takes its time."""
        _, r = self.readings(rhythm)
        return bool((r[len(r) // 2 :, 0] <= self.ceiling).all())

    def option(
        self, change: Change, rhythm: Rhythm, before: Rhythm, sentence: str, amount: float | None = None
    ) -> RhythmOption:
        days, r = self.readings(rhythm)
        middle, low, high = band(r)
        ahead = tuple(
            Point(self.today + timedelta(days=round(d)), float(m), float(a), float(b))
            for d, m, a, b in zip(days, middle, low, high, strict=True)
        )
        return RhythmOption(
            change,
            self.holds(rhythm),
            sentence,
            amount,
            litres_month(rhythm),
            feed_share(rhythm, before),
            next((p.on for p in ahead if p.reading >= self.ceiling), None),
            ahead,
        )


def _cost(o: RhythmOption) -> tuple[float, float]:
    """Litres first, then feed given up: water is what a grower carries."""
    return o.litres_month, -o.feed_share


def _least(run: _Run, changed: object, low: float, high: float, rising: bool = True) -> float | None:
    """The smallest change that holds, by bisection; None if the largest does not."""
    assert callable(changed)
    if not run.holds(changed(high)):
        return None
    for _ in range(STEPS):
        middle = (low + high) / 2
        low, high = (low, middle) if run.holds(changed(middle)) else (middle, high)
    return high


def _larger(run: _Run, r: Rhythm) -> RhythmOption | None:
    if not run.pot.drains:
        return None

    def changed(times: float) -> Rhythm:
        return larger(r, times)

    times = _least(run, changed, 1.0, MOST_TIMES)
    if times is None:
        return run.option("larger pours", changed(MOST_TIMES), r, f"{MOST_TIMES:g} times the pour does not hold it.")
    more = litres_month(changed(times)) - litres_month(r)
    mL = 1000 * times * sum(r.volumes_L) / len(r.volumes_L)
    return run.option(
        "larger pours", changed(times), r, f"{mL:.0f} mL a pour instead: {more:.2g} L more a month.", times
    )


def _thinner(run: _Run, r: Rhythm, base: float) -> RhythmOption | None:
    if max(r.ecs_uS_cm) <= base * 1.05:
        return None

    def changed(cut: float) -> Rhythm:
        return thinner(r, 1 - cut, base)

    cut = _least(run, changed, 0.0, 1 - LEAST_FEED)
    if cut is None:
        return run.option("thinner feed", changed(1 - LEAST_FEED), r, "A fifth of the feed does not hold it.")
    return run.option("thinner feed", changed(cut), r, f"{100 * (1 - cut):.0f} % of the feed instead.", 1 - cut)


def _other_water(run: _Run, r: Rhythm, base: float, waters: list[float]) -> RhythmOption | None:
    purer = sorted((w for w in waters if w < 0.9 * base), reverse=True)
    for w in purer:
        changed = other_water(r, w, base)
        if run.holds(changed):
            return run.option("other water", changed, r, f"Water of {w:.0f} µS/cm instead of {base:.0f} µS/cm.", w)
    if not purer:
        return None
    changed = other_water(r, purer[-1], base)
    return run.option("other water", changed, r, f"Water of {purer[-1]:.0f} µS/cm does not hold it.", purer[-1])


def _rinsed(run: _Run, r: Rhythm, base: float) -> RhythmOption | None:
    if not run.pot.drains:
        return None
    for every in reversed(RINSES):
        changed = rinsed(r, every, run.pot, base)
        if run.holds(changed):
            said = f"Every {every}th pour plain, {1000 * rinse_L(r, run.pot):.0f} mL, draining freely."
            return run.option("a rinse now and then", changed, r, said, float(every))
    return None


def _drift(ahead: tuple[Point, ...]) -> float | None:
    """Slope of ln(reading) a month over the first half of the look ahead, None where it is no drift."""
    half = ahead[: max(2, len(ahead) // 2)]
    if len(half) < 2 or half[-1].on == half[0].on:
        return None
    x = np.array([(p.on - half[0].on).days / DAYS_A_MONTH for p in half])
    y = np.log(np.maximum([p.reading for p in half], 1e-6))
    slope = float(np.polyfit(x, y, 1)[0])
    return slope if abs(slope) >= DRIFT_LEAST else None


def _sentence(start: float, drift: float | None, now: RhythmOption, ceiling: float, helping: list[RhythmOption]) -> str:
    if start >= ceiling:
        said = f"Over {ceiling:.0f} µS/cm already: flush it."
        return said + (f" What holds it afterwards: {helping[0].sentence}" if helping else "")
    if now.crosses_on is None:
        return f"Stays under {ceiling:.0f} µS/cm for as far as this looks, at the present rhythm."
    climb = f"Readings climb {100 * drift:.0f} % a month at this rhythm: " if drift is not None and drift > 0 else ""
    over = f"over {ceiling:.0f} µS/cm about {now.crosses_on.isoformat()}."
    said = climb + (over if climb else capital(over))
    if not helping:
        return said + " Nothing tried here holds it: flush, or repot."
    return f"{said} What holds it with least water: {helping[0].sentence}"
