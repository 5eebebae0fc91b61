"""When to flush: by calendar, by a measured reading, by the forecast, and what each would have done with a log."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import FLUSH_SHARE, POUR_PER_REFILL
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.balance import (
    Soil,
    State,
    at_capacity,
    dry,
    no_exit,
    pour_through_reading,
    root_zone_ec,
    soak,
    water,
)
from fenwa.core.pot.flush import NOT_FROM_ABOVE, FromAbove, flush_plan
from fenwa.core.pot.flush_methods import SOAK_TIMES
from fenwa.core.pot.fold import fold_log
from fenwa.core.pot.folded import has_exit, salt, wetting
from fenwa.core.pot.release import salt_given
from fenwa.core.pot.root_zone import check_events, check_readings
from fenwa.core.pot.specification import (
    SPLIT_UNKNOWN,
    PotReading,
    PotSpec,
    WaterEvent,
    capacity_L,
    check_pot,
    leachate_L,
    members_of,
    tray_L,
)
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FlushSchool = Literal["as logged", "by calendar", "by reading", "by forecast"]
SCHOOLS: tuple[FlushSchool, ...] = ("as logged", "by calendar", "by reading", "by forecast")
WORDS: dict[FlushSchool, str] = {
    "as logged": "As it was done",
    "by calendar": "By calendar",
    "by reading": "By a measured reading",
    "by forecast": "By the forecast",
}
READ_DAYS = 30  # where nobody read, the school that reads is taken to read so often; judgement
CALENDAR_DAYS = 56  # where the kind names no cadence: eight weeks


@dataclass(frozen=True)
class SchoolYear:
    """What a school would have done: flushes, litres, days over the ceiling, and the course. [L, d, µS/cm]"""

    school: FlushSchool
    words: str
    flushes: tuple[date, ...]
    litres: float
    days_over: int
    highest_uS_cm: float
    days: tuple[date, ...]
    readings: tuple[float, ...]
    sentence: str


@dataclass(frozen=True)
class FlushSchools:
    """The schools over the same log, and the days looked at."""

    since: date
    days: int
    schools: tuple[SchoolYear, ...]
    sentence: str


@calculation("flush-schools", title="Schools of flushing", station="flush")
def flush_schools(
    *,
    pot: PotSpec,
    events: list[WaterEvent],
    today: date,
    ceiling_uS_cm: float,
    target_uS_cm: float,
    water_uS_cm: float,
    cadence_days: float | None = None,
    readings: list[PotReading] | None = None,
    from_above: FromAbove = "yes",
    days: int = 365,
) -> Computed[FlushSchools]:
    """What three schools of flushing would have done over the last year with a pot's own log.

    Parameters
    ----------
    pot : PotSpec
        Volume, medium, uptake and losses. [L, 1/d]
    events : list[WaterEvent]
        Pours in any order; flushes are marked. [L, µS/cm]
    today : date
        The last day looked at.
    ceiling_uS_cm : float
        The pot's ceiling, a reading, above 0 to 20 000. [µS/cm]
    target_uS_cm : float
        Reading wanted after a flush, above 0 to 20 000. [µS/cm]
    water_uS_cm : float
        EC of the flush water, 0 to 20 000. [µS/cm]
    cadence_days : float
        Days between flushes by calendar, 7 to 730; empty: eight weeks. [d]
    readings : list[PotReading]
        Readings between pours: their days are those of the school that reads. [µS/cm]
    from_above : str
        How the kind may be rinsed: one that must not is soaked from below.
    days : int
        Days looked at, 14 to 1 460. [d]

    Returns
    -------
    Computed
        For each school its flushes, litres, days over the ceiling and the course of the reading. [L, d, µS/cm]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or nothing was poured.

    Notes
    -----
    The balance runs with what the pot's readings taught of it, over its own pours without its flushes. The schools
    by reading and by forecast flush at four fifths of the ceiling; growers who flush by calendar do it regardless.

    References
    ----------
    section 4.5; E3.10; E4.3
    """
    check_pot(pot)
    check_events(events, today)
    check_readings(readings or [], today)
    require(ceiling_uS_cm, "Ceiling", "µS/cm", low=0, open_low=True, high=20_000, pointer="/ceiling_uS_cm")
    require(target_uS_cm, "Target", "µS/cm", low=0, open_low=True, high=20_000, pointer="/target_uS_cm")
    require(water_uS_cm, "EC of the flush water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(days, "Days", "d", low=14, high=1460, pointer="/days")
    if cadence_days is not None:
        require(cadence_days, "Cadence", "d", low=7, high=730, pointer="/cadence_days")
    pours = wetting(events, today)
    if not pours:
        raise InputError("Nothing was poured yet. Log a pour first.", pointer="/events")
    since = max(today - timedelta(days=days), pours[0].on)
    replay = _Replay.of(
        pot,
        events,
        readings or [],
        today,
        since,
        ceiling_uS_cm,
        target_uS_cm,
        water_uS_cm,
        from_above,
        cadence_days or CALENDAR_DAYS,
    )
    years = tuple(replay.run(s) for s in SCHOOLS)
    ledger = Ledger("Schools of flushing", "The pot's own pours, with what its readings taught.", ("judgement",))
    ledger.take("L", "ceiling", ceiling_uS_cm, "µS/cm", "profile")
    ledger.step("L_8", f"{FLUSH_SHARE:g} * L", "µS/cm", "flushed at")
    ledger.take("D", "days by calendar", cadence_days or CALENDAR_DAYS, "d", "profile")
    for i, y in enumerate(years):
        ledger.found(f"n{i}", f"{y.words}: flushes", len(y.flushes), "", "replay of the log")
        ledger.found(f"o{i}", f"{y.words}: days over", y.days_over, "d", "replay of the log")
    if not any(r.ec_uS_cm for r in readings or []) and not any(e.runoff_ec_uS_cm for e in events):
        ledger.assume(f"Nothing was read: the school that reads is taken to read every {READ_DAYS} days.")
    return ledger.close(FlushSchools(since, (today - since).days, years, _verdict(years)))


@dataclass
class _Replay:
    """A year played again with one member of the band: the best guess as learnt."""

    pot: PotSpec
    soil: Soil
    start: State
    pours: list[WaterEvent]
    read_on: set[date]
    since: date
    today: date
    ceiling: float
    target: float
    water_ec: float
    from_above: FromAbove
    cadence: float
    loss_L_day: float
    flushed_before: date

    @staticmethod
    def of(
        pot: PotSpec,
        events: list[WaterEvent],
        readings: list[PotReading],
        today: date,
        since: date,
        ceiling: float,
        target: float,
        water_ec: float,
        from_above: FromAbove,
        cadence: float,
    ) -> _Replay:
        learnt = members_of([pot], fold_log(pot, events, today, readings).members.shifts)
        before = fold_log(pot, [e for e in events if e.on < since], since, [r for r in readings if r.on < since])
        s, full = learnt.soil, before.members.soil.W_m_cc
        soil = Soil(s.W_m_cc[:, :1], s.W_i[:, :1], s.eta[:, :1], s.u[..., :1], s.k_h[:, :1], s.R[:, :1])
        W = before.state.W_m / full
        state = State(
            np.asarray(W)[:, :1] * soil.W_m_cc,
            np.broadcast_to(before.state.C_m, (2, 1, full.shape[1]))[..., :1],
            np.broadcast_to(before.state.C_i, (2, 1, full.shape[1]))[..., :1],
        )
        read = {r.on for r in readings if r.ec_uS_cm} | {e.on for e in events if e.runoff_ec_uS_cm}
        if not read:
            read = {since + timedelta(days=d) for d in range(READ_DAYS, (today - since).days + 1, READ_DAYS)}
        past = [e.on for e in events if e.flush and e.on < since]
        return _Replay(
            pot,
            soil,
            state,
            [e for e in wetting(events, today) if e.on >= since],
            read,
            since,
            today,
            ceiling,
            target,
            water_ec,
            from_above,
            cadence,
            float(learnt.loss_L_day[0, 0] * learnt.E_factor[0, 0]),
            max(past, default=since),
        )

    def run(self, school: FlushSchool) -> SchoolYear:
        """One school over the log."""
        state, last, flushed = self.start, self.since, self.flushed_before
        days: list[date] = []
        readings: list[float] = []
        flushes: list[date] = []
        litres, over, last_ec, read_due = 0.0, 0, None, False
        for e in self.pours:
            if e.flush and school != "as logged":
                continue
            ec = e.ec_uS_cm if e.ec_uS_cm is not None else last_ec
            if ec is None:
                continue
            last_ec = ec
            gap = (e.on - last).days
            read_due = read_due or any(last < d <= e.on for d in self.read_on)
            state, at_start, at_end = self._rest(state, last, e.on)
            over += _days_over(at_start, at_end, gap, self.ceiling)
            last = e.on
            state = self._pour(state, e, ec)
            now = self._reading(state)
            if e.flush:
                flushes.append(e.on)
                litres += e.volume_L or 0.0
            elif self._is_due(school, now, e.on, flushed, read_due):
                state, used = self._flush(state)
                if used > 0:
                    litres += used
                    flushes.append(e.on)
                    flushed, now = e.on, self._reading(state)
            if school == "by reading":
                read_due = False
            days.append(e.on)
            readings.append(now)
        gap = (self.today - last).days
        _, at_start, at_end = self._rest(state, last, self.today)
        over += _days_over(at_start, at_end, gap, self.ceiling)
        n = len(flushes)
        said = (
            f"{WORDS[school]}: {n} flush{'es' if n != 1 else ''}, {litres:.1f} L, "
            f"{over} day{'s' if over != 1 else ''} over {self.ceiling:.0f} µS/cm."
        )
        highest = max(readings, default=0.0)
        return SchoolYear(
            school, WORDS[school], tuple(flushes), litres, over, highest, tuple(days), tuple(readings), said
        )

    def _is_due(self, school: FlushSchool, now: float, on: date, flushed: date, read_due: bool) -> bool:
        if school == "by calendar":
            return (on - flushed).days >= self.cadence
        high = now >= FLUSH_SHARE * self.ceiling
        return high and (school == "by forecast" or (school == "by reading" and read_due))

    def _reading(self, s: State) -> float:
        C = salt(at_capacity(self.soil, s))
        return float(pour_through_reading(C, self.soil.eta, leachate_L(self.pot) / self.soil.W_m_cc)[0, 0])

    def _rest(self, s: State, since: date, until: date) -> tuple[State, float, float]:
        before, days = self._reading(s), (until - since).days
        if days <= 0:
            return s, before, before
        open_days = days if self.pot.drains else 0
        given = np.array([[salt_given(self.pot.prills, since, until)]]) if self.pot.prills else 0.0
        s = dry(self.soil, s, self.loss_L_day * open_days, 24.0 * open_days, given)
        return s, before, self._reading(s)

    def _salts(self, ec: float, share: float | None) -> np.ndarray:
        b = SPLIT_UNKNOWN if share is None else share
        return ec * np.array([[[1 - b]], [[b]]])

    def _pour(self, s: State, e: WaterEvent, ec: float) -> State:
        C_in = self._salts(ec, e.ballast_share)
        volume = e.volume_L if e.volume_L is not None else POUR_PER_REFILL * (self.soil.W_m_cc - s.W_m)
        if not has_exit(self.pot, e):
            C = no_exit(
                root_zone_ec(self.soil, s), C_in, self.soil.u, volume / (capacity_L(self.pot) + tray_L(self.pot))
            )
            return State(self.soil.W_m_cc, C, C)
        return soak(self.soil, s, volume, C_in)[0] if e.route == "soak" else water(self.soil, s, volume, C_in)[0]

    def _flush(self, s: State) -> tuple[State, float]:
        """A flush as the plan has it; from below where the kind must stay dry on top."""
        C_in = self._salts(self.water_ec, None)
        if self.from_above in NOT_FROM_ABOVE or not self.pot.drains:
            bath = SOAK_TIMES * capacity_L(self.pot)
            return soak(self.soil, s, bath, C_in)[0], bath
        plan = flush_plan(
            pot=self.pot,
            root_zone_uS_cm=float(salt(root_zone_ec(self.soil, s))[0, 0]),
            target_reading_uS_cm=self.target,
            water_uS_cm=self.water_ec,
        ).result
        rounds = plan.rounds if plan.status in ("same day", "separate days") else 0
        if plan.status == "not needed":  # by calendar it is done all the same, with one round
            rounds, volume = 1, capacity_L(self.pot)
        else:
            volume = plan.round_L
        used = 0.0
        for i in range(rounds):
            if i:
                s = dry(self.soil, s, 0.0, max(plan.pause_min / 60, 0.2))
            s = water(self.soil, s, volume, C_in)[0]
            used += volume
        return s, used


def _days_over(start: float, end: float, days: int, ceiling: float) -> int:
    """Days of a span over the ceiling, the reading going straight from start to end."""
    if days <= 0:
        return 0
    if start >= ceiling and end >= ceiling:
        return days
    if start < ceiling and end < ceiling:
        return 0
    share = (max(start, end) - ceiling) / (max(start, end) - min(start, end))
    return round(days * share)


def _verdict(years: tuple[SchoolYear, ...]) -> str:
    asked = [y for y in years if y.school != "as logged"]
    best = min(asked, key=lambda y: (y.days_over, len(y.flushes), y.litres))
    same = all(y.days_over == best.days_over for y in asked)
    if same:
        thrifty = min(asked, key=lambda y: y.litres)
        return f"All three keep it alike; {thrifty.words.lower()} takes the least water, {thrifty.litres:.1f} L."
    return f"{best.words} has the fewest days over: {best.days_over}, with {len(best.flushes)} flushes."
