"""What folding a pot's log leaves: points, observations, the state of every member; and what each method reads."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import date
from typing import Any

import numpy as np

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
from fenwa.core.pot.specification import WETTING_ROUTES, Members, PotSpec, WaterEvent, band


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

    @property
    def begun(self) -> bool:
        """Whether anything is known of its salt: a pour, or a reading."""
        return self.used > 0 or bool(self.observations)

    @property
    def off_before(self) -> float:
        """By how many standard deviations the last reading that counts was off; 0: none was."""
        last = self.observations[-1] if self.observations else None
        return last.off_sd if last is not None and last.taught else 0.0


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
    readings = np.concatenate([_fields(m, s) for _, m, s in noted], axis=1)
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
