"""Settling in by steps: a bag opened a quarter more every second day, lamps an hour longer, with a pause on stress."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FIRM_DAYS = 2  # firm looks after a stress before the steps go on; judgement
MAX_STEPS = 200


@dataclass(frozen=True, kw_only=True)
class Ramp:
    """A ramp from ``start`` to ``target`` by ``step`` every so many days. [unit as named, d]"""

    what: str
    unit: str
    start_on: date
    start: float
    step: float
    target: float
    every_days: int = 2


@dataclass(frozen=True)
class RampStep:
    """A step of a ramp: from this day on at this level."""

    on: date
    level: float


@dataclass(frozen=True)
class RampDay:
    """A ramp on a day: its level, the next step, where it ends if nothing comes between, and whether it waits."""

    level: float
    next_on: date | None
    next_level: float | None
    ends_on: date | None
    paused: bool
    steps: tuple[RampStep, ...]
    sentence: str
    begun_on: date | None = None  # the step it stands on, if it is past the start

    @property
    def asked_on(self) -> tuple[date, ...]:
        """The steps to do: the one it stands on by the calendar, and the next."""
        return tuple(on for on in (self.begun_on, self.next_on) if on is not None)


def run(ramp: Ramp, stressed: tuple[date, ...], firm: tuple[date, ...], today: date) -> RampDay:
    """The steps up to a day and those to come.

    Stress takes it back to the start; after two firm days seen it goes on from there.
    """
    level, due, waiting, firm_seen = ramp.start, ramp.start_on + timedelta(days=ramp.every_days), False, 0
    steps, on = [RampStep(ramp.start_on, ramp.start)], ramp.start_on
    bad, good = set(stressed), set(firm)
    last = max(today, ramp.start_on)
    while on < last:
        on += timedelta(days=1)
        if on in bad:
            waiting, firm_seen = True, 0
            if level != ramp.start:
                level = ramp.start
                steps.append(RampStep(on, level))
        elif waiting:
            if firm_seen >= FIRM_DAYS:
                waiting, due = False, on
            firm_seen += on in good
        if not waiting and on == due and level < ramp.target and on not in bad:
            level = _up(ramp, level)
            steps.append(RampStep(on, level))
            due = on + timedelta(days=ramp.every_days)
    if waiting and firm_seen >= FIRM_DAYS:
        waiting, due = False, on + timedelta(days=1)
    told = _told(ramp, level, due, waiting, steps, today)
    stood = steps[-1].on if len(steps) > 1 and not waiting else None
    return replace(told, begun_on=stood)


def _with_unit(level: float, unit: str) -> str:
    one = unit.endswith("s") and level == 1
    return f"{level:g} {unit[:-1] if one else unit}".rstrip()


def _up(ramp: Ramp, level: float) -> float:
    return min(round(level + ramp.step, 9), ramp.target)


def _told(ramp: Ramp, level: float, due: date, waiting: bool, steps: list[RampStep], today: date) -> RampDay:
    at = f"{ramp.what}: {_with_unit(level, ramp.unit)}"
    if level >= ramp.target:
        return RampDay(level, None, None, steps[-1].on, False, tuple(steps), f"{at}, at its target.")
    if waiting:
        said = f"{at}, waiting: it showed stress. Two firm days, each noted in a look, let it go on."
        return RampDay(level, None, None, None, True, tuple(steps), said)
    ahead, ends, up = [], due, level
    while up < ramp.target:
        up = _up(ramp, up)
        ahead.append(RampStep(ends, up))
        ends += timedelta(days=ramp.every_days)
    first = ahead[0]
    said = f"{at}; from {first.on.day} {first.on:%b} {_with_unit(first.level, ramp.unit)}"
    said += f", at {ramp.target:g} on {ahead[-1].on.day} {ahead[-1].on:%b}."
    begun = today < ramp.start_on
    return RampDay(
        level, ramp.start_on if begun else first.on, first.level, ahead[-1].on, False, (*steps, *ahead), said
    )


def checked_ramp(ramp: Ramp) -> Ramp:
    """The ramp, if it can be.

    Raises
    ------
    InputError, OutOfRange
        If it does not rise, or its steps cannot be.
    """
    for value, words, key in (
        (ramp.start, "Start", "start"),
        (ramp.step, "Step", "step"),
        (ramp.target, "Target", "target"),
    ):
        require(value, words, ramp.unit, low=0, high=1000, pointer=f"/ramp/{key}")
    require(ramp.every_days, "Days between steps", "d", low=1, high=60, pointer="/ramp/every_days")
    if not ramp.start < ramp.target:
        raise InputError(
            f"From {ramp.start:g} to {ramp.target:g} is no rise. Put the target above the start.",
            pointer="/ramp/target",
        )
    if ramp.step <= 0 or (ramp.target - ramp.start) / ramp.step > MAX_STEPS:
        raise InputError(f"A step of {ramp.step:g} never gets there. Choose a larger one.", pointer="/ramp/step")
    return ramp


@calculation("arrival-ramp", title="Settling in, step by step", station="pots")
def arrival_ramp(
    *, ramp: Ramp, stressed_on: tuple[date, ...] = (), firm_on: tuple[date, ...] = (), today: date
) -> Computed[RampDay]:
    """Where a ramp of humidity, light or air stands, and when its next step is.

    Parameters
    ----------
    ramp : Ramp
        From where to where, by what step, every how many days (1 to 60). [as named, d]
    stressed_on : tuple[date]
        Days on which the plant was seen limp: it goes back to the start.
    firm_on : tuple[date]
        Days on which it was looked at and stood firm; two of them let it go on.
    today : date
        The day asked about.

    Returns
    -------
    Computed
        Level today, next step, end if nothing comes between, and every step. [as named]

    Raises
    ------
    OutOfRange
        If a level or a number of days cannot be.
    InputError
        If it does not rise.

    References
    ----------
    judgement; table of holds, arrivals
    """
    ramp = checked_ramp(ramp)
    found = run(ramp, stressed_on, firm_on, today)
    ledger = Ledger("Settling in, step by step", "Stress takes it back to the start.", ("judgement",))
    ledger.take("a", "start", ramp.start, ramp.unit, "entered")
    ledger.take("s", "step", ramp.step, ramp.unit, "entered")
    ledger.take("b", "target", ramp.target, ramp.unit, "entered")
    ledger.take("e", "days between steps", ramp.every_days, "d", "entered")
    ledger.step("whole", "(b - a) / s * e", "d", "from start to target without a pause, about")
    ledger.found("now", "level today", found.level, ramp.unit, "the steps, day by day")
    return ledger.close(found)
