"""What folding a pot's log leaves: points, observations, the state of every member; and what each method reads."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

import numpy as np

from fenwa.core.pace import in_steps
from fenwa.core.pot.balance import (
    Array,
    Drained,
    State,
    at_capacity,
    exchange,
    first_drops,
    pour_through_reading,
    root_zone_ec,
    soak,
)
from fenwa.core.pot.learning import MISFIT
from fenwa.core.pot.methods import Method, PT_WAIT_h
from fenwa.core.pot.specification import WETTING_ROUTES, Members, PotSpec, WaterEvent, band, members_of, prior_shifts


@dataclass(frozen=True)
class Point:
    """The reading a pour-through would give on a day, with its 80 % band. [µS/cm]"""

    on: date
    reading: float
    low: float
    high: float


@dataclass(frozen=True)
class Observation:
    """A reading, the pour-through reading it stands for, and what was expected of it then with its 80 % band. [µS/cm]

    ``off_sd``: how many standard deviations it was off; ``taught``: whether it counts.
    """

    on: date
    runoff_ec: float
    equivalent_reading: float
    expected_runoff_ec: float
    method: Method = "runoff"
    expected_low: float = 0.0
    expected_high: float = 0.0
    off_sd: float = 0.0
    taught: bool = True

    @property
    def fits(self) -> bool:
        """Whether it lies within what pot, method and meter allow."""
        return abs(self.off_sd) <= MISFIT


@dataclass
class Folded:
    """Where the log leaves a pot today."""

    members: Members
    state: State
    as_of: date
    points: list[Point] = field(default_factory=list)
    observations: list[Observation] = field(default_factory=list)
    cautions: list[str] = field(default_factory=list)
    used: int = 0
    crust_on: date | None = None  # last seen: it and a high reading confirm each other
    standings: list[Standing] = field(default_factory=list)  # days on the way from which it can go on
    steps: int = 0  # pours and readings in all
    dry_times: int = 0  # how often it was bone dry by the usual losses
    dry_on: date | None = None  # and when last

    def was_dry(self, on: date) -> None:
        """Count a day on which it was bone dry; a day counts once."""
        if self.dry_on != on:
            self.dry_times, self.dry_on = self.dry_times + 1, on

    @property
    def said(self) -> list[str]:
        """Everything to mind of the fold, each once: a pot that dries out between all its pours says so in one line."""
        if self.dry_on is None:
            return self.cautions
        often = f"{self.dry_times} times, last " if self.dry_times > 1 else ""
        return [*self.cautions, BONE_DRY.format(often, self.dry_on.isoformat())]

    @property
    def begun(self) -> bool:
        """Whether anything is known of its salt: a pour, or a reading."""
        return self.used > 0 or bool(self.observations)

    @property
    def off_before(self) -> float:
        """By how many standard deviations the last reading that counts was off; 0: none was."""
        last = self.observations[-1] if self.observations else None
        return last.off_sd if last is not None and last.taught else 0.0


BONE_DRY = (
    "By the usual losses the pot was bone dry {}by {}: the last tenth of its water is kept, and salt is less sure."
)
DRAWN_MONTHS = 24  # further back the last day of each month is drawn


def as_line(p: Point) -> str:
    """A point as it is stored: its ISO day, reading and band with blanks between. A line of text, for a pour keeps
    hundreds of them as they are, and to take each apart and put it together again took longer than to fold the pour.
    """
    return " ".join((p.on.isoformat(), *(repr(float(x)) for x in (p.reading, p.low, p.high))))


def from_line(line: str) -> Point:
    """A stored point, to the last digit."""
    on, *band_of = line.split(" ")
    return Point(date.fromisoformat(on), *map(float, band_of))


def day_of(line: str) -> str:
    """The ISO day of a stored point."""
    return line[: len("2026-11-23")]


def drawn_since(as_of: date) -> date:
    """The first of the months of which every point is drawn."""
    months = max(12, as_of.year * 12 + as_of.month - 1 - DRAWN_MONTHS)  # the calendar begins with the year 1
    return date(months // 12, months % 12 + 1, 1)


def thinned(lines: Sequence[str], as_of: date) -> list[str]:
    """Stored points as they are drawn, oldest first: all of the last months, of months further back the last of each.
    A log of ten years is drawn with a few hundred points.
    """
    recent = bisect_left(lines, drawn_since(as_of).isoformat(), key=day_of)
    old = {line[: len("2026-11")]: line for line in lines[:recent]}
    return [*old.values(), *lines[recent:]]


@dataclass(frozen=True)
class Standing:
    """Where a fold stood at the end of a day, with all that the next steps need; what was drawn before is kept apart.

    ``steps``: pours and readings so far. ``rows``: members and state as plain rows. ``last_ec``: of the last pour whose
    EC is known; without one nothing can go on from here. ``before``: the last observation. ``dry_times``, ``dry_on``:
    how often it was bone dry, and when last.
    """

    on: date
    steps: int
    rows: list[list[float]]
    used: int
    last_ec: float
    unsure: bool
    cautions: tuple[str, ...]
    crust_on: date | None = None
    before: Observation | None = None
    dry_times: int = 0
    dry_on: date | None = None


CHUNK = 6  # steps between two standings


def worth_keeping(mark: int, newest: int) -> bool:
    """Whether the standing after so many chunks of steps is kept once there are ``newest`` chunks.

    The last few are, then every second, every fourth and so on: an entry that falls n steps back costs about n steps,
    and a log of any length keeps a number of standings that grows with its logarithm.
    """
    return mark > 0 and newest - mark <= 2 * (mark & -mark)


def salt(C: Any) -> Array:
    """Nutrients and ballast together. [µS/cm]"""
    total: Array = np.asarray(C).sum(axis=0)
    return total


def reading_of(members: Members, state: State) -> Array:
    """Pour-through reading of every member once pure water has brought the pot to capacity. [µS/cm]"""
    root = salt(at_capacity(members.soil, state))
    x = members.leachate_L / members.soil.W_m_cc
    return np.asarray(pour_through_reading(root, members.soil.eta, x))


def points_of(noted: Iterable[tuple[date, Members, State]]) -> list[Point]:
    """Readings with their bands of one or many pots on many days, all in one go; a row of ``noted`` may hold many."""
    noted = list(noted)
    if not noted:
        return []
    readings = np.concatenate([_fields(m, s) for _, m, s in in_steps(noted)], axis=1)
    W_m, W_cc, W_i, eta, leachate, C_m, C_i = readings
    filled = np.maximum(W_cc, W_m) + W_i  # pure water brings the pot to capacity, as in ``reading_of``
    bands = zip(
        *(v.tolist() for v in band(pour_through_reading((W_m * C_m + W_i * C_i) / filled, eta, leachate / W_cc))),
        strict=True,
    )
    days = [on for on, m, _ in noted for _ in range(len(m.shifts))]
    return [Point(on, *b) for on, b in zip(days, bands, strict=True)]


def _fields(members: Members, state: State) -> Array:
    soil = members.soil
    out = np.empty((7, *members.shifts.shape[:2]))
    for row, value in enumerate(
        (state.W_m, soil.W_m_cc, soil.W_i, soil.eta, members.leachate_L, salt(state.C_m), salt(state.C_i))
    ):
        out[row] = value
    return out


def wetting(events: Iterable[WaterEvent], today: date) -> list[WaterEvent]:
    """Pours that reach the roots, up to today, in order."""
    return sorted((e for e in events if e.route in WETTING_ROUTES and e.on <= today), key=lambda e: e.on)


def has_exit(pot: PotSpec, event: WaterEvent) -> bool:
    """Does this pour carry salt out of the pot?"""
    if pot.drains:
        return event.route not in ("tray", "reservoir")
    return event.runoff_L is not None and event.route in ("top", "soak")


def should_read(
    members: Members, method: Method, dried: State, after: State, drained: Drained, volume_L: Any, C_in: Any
) -> Array:
    """What a runoff caught by a method reads, for every member; never below what the water itself brings, mixed.

    [µS/cm]
    """
    soil = members.soil
    if method in ("runoff", "reservoir"):
        return salt(drained.C)
    if method == "first drops":
        refill = np.minimum(volume_L, np.maximum(soil.W_m_cc - dried.W_m, 0.0))
        mixed = (dried.W_m * dried.C_m + refill * C_in) / (dried.W_m + refill)
        return salt(first_drops(mixed, C_in, soil.eta))
    if method == "last":
        return salt(first_drops(after.C_m, C_in, soil.eta))
    if method == "dunk":
        return salt(soak(soil, dried, volume_L, C_in)[1].C)
    if method == "squeezed":
        return salt(root_zone_ec(soil, after))
    rested_state = exchange(soil, after, PT_WAIT_h)
    x = members.leachate_L / soil.W_m_cc
    return np.asarray(pour_through_reading(salt(root_zone_ec(soil, rested_state)), soil.eta, x))


def rows_of(members: Members, state: State) -> list[list[float]]:
    """One pot as plain rows: mobile water, nutrients and ballast of the mobile and of the immobile water, then the
    shift of every parameter where its readings taught any.
    """
    shape = np.shape(state.W_m)
    C_m, C_i = np.broadcast_to(state.C_m, (2, *shape)), np.broadcast_to(state.C_i, (2, *shape))
    rows = [np.asarray(state.W_m)[0], C_m[0, 0], C_m[1, 0], C_i[0, 0], C_i[1, 0]]
    if not np.array_equal(members.shifts[0], prior_shifts()):
        rows += list(members.shifts[0].T)
    return [row.tolist() for row in rows]


def state_of(specs: list[PotSpec], rows: list[list[list[float]]]) -> tuple[Members, State]:
    """Many pots from their rows: what was learnt of each, and how it stood."""
    default = prior_shifts()
    shifts = np.stack([np.array(r[5:]).T if len(r) > 5 else default for r in rows])
    stacked = np.array([r[:5] for r in rows])
    state = State(stacked[:, 0], np.stack([stacked[:, 1], stacked[:, 2]]), np.stack([stacked[:, 3], stacked[:, 4]]))
    return members_of(specs, shifts), state
