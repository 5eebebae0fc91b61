"""A reservoir: what was filled, topped up and read, and the day its water is changed."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from fenwa.core.constants import FLUSH_SHARE
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.balance import no_exit
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LONGEST_DAYS = 3650
RESERVOIR_FULL = 2 / 5  # of its room: what clay balls are usually kept filled to
READING_SD = 0.05  # of a stirred reservoir; E4.5's error of a reading

ReservoirDid = Literal["filled", "topped up", "read", "emptied"]


@dataclass(frozen=True)
class ReservoirEvent:
    """What was done at a reservoir. Levels in litres before and after; EC of what went in; a reading. None: not known.

    [L, µS/cm]
    """

    on: date
    did: ReservoirDid
    level_before_L: float | None = None
    added_L: float | None = None
    ec_uS_cm: float | None = None
    reading_uS_cm: float | None = None


@dataclass(frozen=True)
class ReservoirPoint:
    """A reservoir on a day: level and EC with lower and upper bound. [L, µS/cm]"""

    on: date
    level_L: float
    ec_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    measured: bool


@dataclass(frozen=True, kw_only=True)
class ReservoirNow:
    """A reservoir today: level, EC with bounds, refill, and the day to change it. None: cannot be said.

    [L, µS/cm]
    """

    level_L: float | None
    ec_uS_cm: float | None
    low_uS_cm: float | None
    high_uS_cm: float | None
    measured_on: date | None
    keep_L: float
    refill_L: float | None
    loss_L_day: float | None
    change_on: date | None
    change_earliest: date | None
    medium_uS_cm: float | None
    medium_plateau_uS_cm: float | None
    points: tuple[ReservoirPoint, ...]
    sentence: str


@dataclass
class _Level:
    level: float | None = None
    low: float | None = None
    mid: float | None = None
    high: float | None = None
    read_on: date | None = None


@calculation("reservoir", title="A reservoir", station="flush")
def reservoir(
    *,
    room_L: float,
    events: list[ReservoirEvent],
    today: date,
    limit_uS_cm: float | None = None,
    keep_share: float = RESERVOIR_FULL,
    refill_uS_cm: float | None = None,
    medium_water_L: float | None = None,
    medium_start_uS_cm: float | None = None,
    uptake: float = 0.3,
    drawn_L: float | None = None,
) -> Computed[ReservoirNow]:
    """Level and EC of a reservoir from what was filled, topped up and read, and the day its water is changed.

    Parameters
    ----------
    room_L : float
        Litres to the brim, above 0 to 1 000. [L]
    events : list[ReservoirEvent]
        What was done, in any order, at most 2 000. [L, µS/cm]
    today : date
        The day to report for.
    limit_uS_cm : float
        Ceiling, above 0 to 50 000; empty: none, so no day. [µS/cm]
    keep_share : float
        Share of the room it is kept filled to, above 0 to 1.
    refill_uS_cm : float
        EC of what it is topped up with from now on, 0 to 20 000; empty: of the last one. [µS/cm]
    medium_water_L : float
        Water in the medium above it, above 0 to 500; empty: the medium is not reckoned. [L]
    medium_start_uS_cm : float
        EC of the medium at the start, 0 to 50 000. [µS/cm]
    uptake : float
        Uptake fraction of the plant, 0 to 1.
    drawn_L : float
        Litres drawn up so far, 0 to 10 000; empty: what the levels say. [L]

    Returns
    -------
    Computed
        Level, EC between "drawn up as it is" and "only water leaves", refill, day to change. [L, µS/cm]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or more was in it than it holds.

    Notes
    -----
    Lower bound: the plant draws the solution as it is. Upper bound: only water leaves and all salt stays. A reading
    replaces both. The medium above gathers by E3.13.

    References
    ----------
    E3.12; E3.13
    """
    _check_reservoir(room_L, events, today, limit_uS_cm, keep_share, refill_uS_cm, uptake)
    _check_medium(medium_water_L, medium_start_uS_cm, drawn_L)
    ordered = sorted(events, key=lambda e: e.on)
    s, points, drawn, salts = _Level(), [], 0.0, []
    lost: list[tuple[date, float]] = []
    for e in ordered:
        before = _level_before(s, e)
        if before is not None and s.level is not None and before < s.level:
            drawn += s.level - before
            lost.append((e.on, s.level - before))
            if s.mid is not None:
                salts.append((s.level - before, s.mid))
        at = s.level
        _fall(s, before)
        _do(s, e, room_L)
        if e.did == "topped up" and e.level_before_L is None and at is not None and s.level is not None and e.added_L:
            sunk = at + e.added_L - s.level
            if sunk > 1e-9:
                drawn += sunk
                salts.append((sunk, s.mid or 0.0))
        if s.level is not None and s.mid is not None and s.low is not None and s.high is not None:
            points.append(ReservoirPoint(e.on, s.level, s.mid, s.low, s.high, e.reading_uS_cm is not None))
    days = (ordered[-1].on - ordered[0].on).days if ordered else 0
    loss = drawn / days if days > 0 and drawn > 0 else None
    added = [e for e in ordered if e.did in ("filled", "topped up") and e.ec_uS_cm is not None]
    coming = refill_uS_cm if refill_uS_cm is not None else (added[-1].ec_uS_cm if added else None)
    ledger = Ledger("A reservoir", "Between a solution drawn as it is and water alone.", ("mass-balance", "judgement"))
    ledger.take("R", "room to the brim", room_L, "L")
    ledger.take("f", "kept filled to", keep_share, "")
    keep = ledger.step("K", "R * f", "L", "kept filled to")
    change, earliest = None, None
    medium, plateau = _medium(
        ledger, salts, drawn if drawn_L is None else drawn_L, medium_water_L, medium_start_uS_cm, uptake
    )
    refill = None
    if s.level is not None and s.mid is not None and s.high is not None:
        ledger.found("V", "level", s.level, "L", "levels of the log")
        ledger.found("C", "EC", s.mid, "µS/cm", "a reading, else the middle of its bounds")
        ledger.found("C_up", "upper bound, only water left", s.high, "µS/cm", "salt over level, E3.12")
        refill = max(0.0, ledger.step("A", "K - V", "L", "to refill"))
        if limit_uS_cm is not None and loss is not None and coming is not None:
            start = ordered[-1].on
            change = _over_on(start, s.mid, s.level, keep, loss, coming, FLUSH_SHARE * limit_uS_cm, 0.5)
            earliest = _over_on(start, s.high, s.level, keep, loss, coming, FLUSH_SHARE * limit_uS_cm, 1.0)
    return ledger.close(
        ReservoirNow(
            level_L=s.level,
            ec_uS_cm=s.mid,
            low_uS_cm=s.low,
            high_uS_cm=s.high,
            measured_on=s.read_on,
            keep_L=keep,
            refill_L=refill,
            loss_L_day=loss,
            change_on=change,
            change_earliest=earliest,
            medium_uS_cm=medium,
            medium_plateau_uS_cm=plateau,
            points=tuple(points),
            sentence=_of_reservoir(s, refill, change, limit_uS_cm),
        )
    )


def _level_before(s: _Level, e: ReservoirEvent) -> float | None:
    return e.level_before_L if e.level_before_L is not None else s.level


def _fall(s: _Level, to: float | None) -> None:
    """Water went: drawn up as it is, or alone; half of it each is the middle guess."""
    if to is None or s.level is None or s.mid is None or s.high is None or to >= s.level:
        s.level = to if to is not None else s.level
        return
    stays = s.level / max(to, 1e-6)
    s.high *= stays
    s.mid *= math.sqrt(stays)
    s.level = to


def _do(s: _Level, e: ReservoirEvent, room: float) -> None:
    if e.did == "emptied":
        s.level, s.low, s.mid, s.high, s.read_on = 0.0, None, None, None, None
    if e.did == "filled":
        s.low = s.mid = s.high = e.ec_uS_cm
        s.level, s.read_on = e.added_L, None
    if e.did == "topped up" and e.added_L is not None and s.level is not None:
        if e.level_before_L is None and s.level + e.added_L > room:
            _fall(s, room - e.added_L)  # nobody read the level: it had sunk by what went in
        whole = s.level + e.added_L
        if whole > room * 1.02 + 1e-9:
            raise InputError(
                f"{e.added_L:g} L on {e.on.isoformat()} makes {whole:.2f} L: it holds {room:g} L. Check the levels.",
                pointer="/events",
            )
        if e.ec_uS_cm is not None:
            for name in ("low", "mid", "high"):
                old = getattr(s, name)
                if old is not None:
                    setattr(s, name, (s.level * old + e.added_L * e.ec_uS_cm) / whole)
                elif s.level == 0:
                    setattr(s, name, e.ec_uS_cm)
        s.level = whole
    if e.reading_uS_cm is not None:
        s.low, s.mid, s.high = (e.reading_uS_cm * k for k in (1 - 2 * READING_SD, 1.0, 1 + 2 * READING_SD))
        s.read_on = e.on


def _over_on(
    start: date, C: float, level: float, keep: float, loss: float, coming: float, limit: float, stays: float
) -> date | None:
    """The day a reservoir topped up each day reaches a limit; ``stays``: share of drawn salt that stays behind."""
    salt, V = C * level, max(level, keep)
    salt += coming * max(0.0, keep - level)
    for day in range(LONGEST_DAYS):
        C = salt / V
        if C >= limit:
            return start + timedelta(days=day)
        salt += loss * (coming - (1 - stays) * C)
    return None


def _medium(
    ledger: Ledger,
    salts: list[tuple[float, float]],
    drawn: float,
    water: float | None,
    start: float | None,
    uptake: float,
) -> tuple[float | None, float | None]:
    """EC of the medium above and the plateau it tends to, E3.13."""
    if water is None or start is None or not salts or drawn <= 0:
        return None, None
    mean = sum(v * c for v, c in salts) / sum(v for v, _ in salts)
    C = float(no_exit(start, mean, uptake, drawn / water))
    ledger.take("W", "water in the medium", water, "L", "table:media")
    ledger.take("u", "uptake", uptake, "", "table:habits")
    ledger.found("E", "drawn up", drawn, "L", "levels of the log")
    ledger.found("C_r", "mean of what was drawn", mean, "µS/cm", "levels and readings of the log")
    ledger.found("C_M", "medium above", C, "µS/cm", "E3.13")
    plateau = ledger.step("C_P", "C_r / u", "µS/cm", "plateau") if uptake > 0 else None
    return C, plateau


def _of_reservoir(s: _Level, refill: float | None, change: date | None, limit: float | None) -> str:
    if s.level is None or s.mid is None or s.low is None or s.high is None:
        return "Not known yet: note what it was filled with, and how much."
    by = "read" if s.read_on else f"between {s.low:.0f} and {s.high:.0f} µS/cm"
    said = f"{s.level:.2g} L at about {s.mid:.0f} µS/cm ({by})."
    if refill is not None and refill >= 0.01:
        said += f" Top up {refill:.2g} L."
    if change is not None and limit is not None:
        said += f" Empty and rinse it about {change.isoformat()}."
    return said


def _check_reservoir(
    room: float,
    events: list[ReservoirEvent],
    today: date,
    limit: float | None,
    keep: float,
    refill: float | None,
    uptake: float,
) -> None:
    require(room, "Room", "L", low=0, open_low=True, high=1000, pointer="/room_L")
    require(keep, "Kept filled to", "", low=0, open_low=True, high=1, pointer="/keep_share")
    require(uptake, "Uptake fraction", "", low=0, high=1, pointer="/uptake")
    if limit is not None:
        require(limit, "Limit", "µS/cm", low=0, open_low=True, high=50_000, pointer="/limit_uS_cm")
    if refill is not None:
        require(refill, "EC of the refill", "µS/cm", low=0, high=20_000, pointer="/refill_uS_cm")
    if len(events) > 2000:
        raise InputError(f"{len(events)} entries are too many. Give the last 2 000.", pointer="/events")
    for i, e in enumerate(events):
        at = f"/events/{i}"
        if e.on > today:
            raise InputError(f"{e.on.isoformat()} lies after today, {today.isoformat()}.", pointer=f"{at}/on")
        if e.level_before_L is not None:
            require(e.level_before_L, "Level", "L", low=0, high=room, pointer=f"{at}/level_before_L")
        if e.added_L is not None:
            require(e.added_L, "Added", "L", low=0, high=room, pointer=f"{at}/added_L")
        if e.ec_uS_cm is not None:
            require(e.ec_uS_cm, "EC", "µS/cm", low=0, high=20_000, pointer=f"{at}/ec_uS_cm")
        if e.reading_uS_cm is not None:
            require(
                e.reading_uS_cm, "Reading", "µS/cm", low=0, open_low=True, high=50_000, pointer=f"{at}/reading_uS_cm"
            )


def _check_medium(medium: float | None, start: float | None, drawn: float | None) -> None:
    if medium is not None:
        require(medium, "Water in the medium", "L", low=0, open_low=True, high=500, pointer="/medium_water_L")
    if start is not None:
        require(start, "EC of the medium", "µS/cm", low=0, high=50_000, pointer="/medium_start_uS_cm")
    if drawn is not None:
        require(drawn, "Drawn up", "L", low=0, high=10_000, pointer="/drawn_L")
