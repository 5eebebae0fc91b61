"""Folding a pot's log through the salt balance, and running its present rhythm forward."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

import numpy as np

from fenwa.core.constants import POUR_PER_REFILL
from fenwa.core.pot.balance import (
    Array,
    Drained,
    State,
    at_capacity,
    bone_dry,
    dry,
    exchange,
    first_drops,
    no_exit,
    pour_through_reading,
    root_zone_ec,
    soak,
    water,
)
from fenwa.core.pot.learning import MISFIT, Taught, drifted, reading_sd, taught
from fenwa.core.pot.methods import CRUST_SPREAD_LN, SPREAD_LN, CRUST_uS_cm, Method, PT_WAIT_h
from fenwa.core.pot.specification import (
    WETTING_ROUTES,
    Members,
    PotReading,
    PotSpec,
    WaterEvent,
    band,
    members_of,
    prior_shifts,
    two_salts,
)

BONE_DRY = "By the usual losses the pot was bone dry by {}: the last tenth of its water is kept, and salt is less sure."

START_MIN_uS_cm = 50.0
CONFIRM_DAYS = 30  # a crust and a reading far above what was expected confirm each other; judgement


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
    noted: list[tuple[date, Members, State]] = field(default_factory=list)  # not yet drawn as points
    observations: list[Observation] = field(default_factory=list)
    cautions: list[str] = field(default_factory=list)
    used: int = 0
    crust_on: date | None = None  # last seen: it and a high reading confirm each other

    @property
    def begun(self) -> bool:
        """Whether anything is known of its salt: a pour, or a reading."""
        return self.used > 0 or bool(self.observations)


def salt(C: Any) -> Array:
    """Nutrients and ballast together. [µS/cm]"""
    total: Array = np.asarray(C).sum(axis=0)
    return total


def reading_of(members: Members, state: State) -> Array:
    """Pour-through reading of every member once pure water has brought the pot to capacity. [µS/cm]"""
    root = salt(at_capacity(members.soil, state))
    x = members.leachate_L / members.soil.W_m_cc
    return np.asarray(pour_through_reading(root, members.soil.eta, x))


def wetting(events: list[WaterEvent], today: date) -> list[WaterEvent]:
    """Pours that reach the roots, up to today, in order."""
    return sorted((e for e in events if e.route in WETTING_ROUTES and e.on <= today), key=lambda e: e.on)


def has_exit(pot: PotSpec, event: WaterEvent) -> bool:
    """Does this pour carry salt out of the pot?"""
    if pot.drainage == "drains":
        return event.route not in ("tray", "reservoir")
    return event.runoff_L is not None and event.route in ("top", "soak")


def fold(
    pot: PotSpec, events: list[WaterEvent], today: date, readings: Sequence[PotReading] = (), learn: bool = True
) -> Folded:
    """State of the pot today: its log, then the days since the last pour. ``learn``: whether readings teach it."""
    return rest_until(pot, fold_log(pot, events, today, readings, learn), today)


def rest_until(pot: PotSpec, out: Folded, today: date) -> Folded:
    """The days between the last pour and today."""
    if out.begun:
        days_open = (today - out.as_of).days if pot.drainage == "drains" else 0
        if bone_dry(out.members.soil, out.state, out.members.loss_L_day * days_open)[..., 0].any():
            out.cautions.append(BONE_DRY.format(today.isoformat()))
        out.state = rested([pot], out.members, out.state, [(today - out.as_of).days])
        _note(out, today)
        _draw(out)
    out.as_of = today
    return out


def rested(pots: list[PotSpec], members: Members, state: State, days: list[int]) -> State:
    """Many pots after days without water; trays and reservoirs are kept topped up and rest as they are."""
    open_days = np.array([d if p.drainage == "drains" else 0 for p, d in zip(pots, days, strict=True)], float)[:, None]
    return dry(members.soil, state, members.loss_L_day * open_days * members.E_factor, 24.0 * open_days)


def fold_log(
    pot: PotSpec,
    events: list[WaterEvent],
    today: date,
    readings: Sequence[PotReading] = (),
    learn: bool = True,
    members: Members | None = None,
) -> Folded:
    """State after the last pour or reading up to today (E3.10, E3.12), taught by what came out.

    ``members``: begun from these; None: from the defaults of its medium and kind.
    """
    members = members_of([pot]) if members is None else members
    soil = members.soil
    pours = wetting(events, today)
    known = [e.ec_uS_cm for e in pours if e.ec_uS_cm is not None]
    start = pot.start_uS_cm if pot.start_uS_cm is not None else max(START_MIN_uS_cm, known[0] if known else 0.0)
    C0 = two_salts(members, start, pours[0].ballast_share if pours else None) * members.start_factor
    between = sorted((r for r in readings if r.on <= today), key=lambda r: r.on)
    first = min([e.on for e in pours[:1]] + [r.on for r in between[:1]], default=today)
    out = Folded(members, State(soil.W_m_cc * 1.0, C0, C0), first)
    if pot.start_uS_cm is None:
        out.cautions.append("What the medium held at the start is not known: the first water is taken, ±50 %.")
    last_ec = known[0] if known else None
    happened: list[WaterEvent | PotReading] = [*pours, *between]
    for event in sorted(happened, key=lambda e: e.on):  # of one day the pours go first
        if isinstance(event, PotReading):
            _read(pot, out, event, learn)
            continue
        if event.ec_uS_cm is None and last_ec is None:
            out.cautions.append("Pours whose EC is not known were left out.")
            continue
        ec = event.ec_uS_cm if event.ec_uS_cm is not None else last_ec
        if event.ec_uS_cm is None:
            out.cautions.append("A pour's EC was not measured: the last known one stands for it.")
        assert ec is not None
        last_ec = ec
        days = (event.on - out.as_of).days
        out.as_of = event.on
        out.used += 1
        _apply(pot, out, event, ec, days, learn)
    if any(e.ballast_share is None for e in pours) and pot.u_ballast not in (None, pot.u):
        out.cautions.append(
            "What of the salt is nutrient and what ballast is not known for every pour: the range is wider."
        )
    out.cautions = list(dict.fromkeys(out.cautions))
    _draw(out)
    return out


def _apply(pot: PotSpec, out: Folded, event: WaterEvent, ec: float, days: int, learn: bool) -> None:
    members, soil = out.members, out.members.soil
    C_in = two_salts(members, ec, event.ballast_share)
    loss = members.loss_L_day * days * members.E_factor
    if not has_exit(pot, event):
        volume = event.volume_L if event.volume_L is not None else loss
        store = soil.W_m_cc + soil.W_i + members.tray_L
        C = no_exit(root_zone_ec(soil, out.state), C_in, soil.u, volume / store)
        out.state = drifted(State(soil.W_m_cc * 1.0, C, C))
        if event.runoff_ec_uS_cm is not None:
            _observe(pot, out, event.on, event.runoff_ec_uS_cm, event.method, salt(C), learn and not event.left_out)
        _note(out, event.on)
        return
    if event.runoff_L is not None and event.volume_L is not None and days > 0:
        loss = np.maximum(event.volume_L - event.runoff_L, 0.0) * np.ones_like(loss)  # measured, so not guessed
    if bone_dry(soil, out.state, loss)[..., 0].any():
        out.cautions.append(BONE_DRY.format(event.on.isoformat()))
    dried = dry(soil, out.state, loss, 24.0 * days + event.soak_h)
    out.state = dried
    if days > 0:
        _note(out, event.on)
    if event.volume_L is not None:
        volume = event.volume_L
    else:
        volume = POUR_PER_REFILL * (soil.W_m_cc - dried.W_m)
        out.cautions.append("A pour's volume was not measured: the refill and a quarter more is taken.")
    if event.route == "soak":
        out.state, drained = soak(soil, dried, volume, C_in)
    else:
        out.state, drained = water(soil, dried, volume, C_in)
    if days > 0:
        out.state = drifted(out.state)
    if event.runoff_ec_uS_cm is not None:
        expected = should_read(members, event.method, dried, out.state, drained, volume, C_in)
        _observe(pot, out, event.on, event.runoff_ec_uS_cm, event.method, expected, learn and not event.left_out)
    _note(out, event.on)


def _read(pot: PotSpec, out: Folded, r: PotReading, learn: bool) -> None:
    """A reading between pours, or a crust: the days until it, then what it teaches."""
    out.state = rested([pot], out.members, out.state, [(r.on - out.as_of).days])
    out.as_of = r.on
    if r.ec_uS_cm is not None:
        if r.method == "squeezed":
            expected = salt(root_zone_ec(out.members.soil, out.state))
        elif r.method == "reservoir":
            expected = salt(out.state.C_m)
        else:
            expected = reading_of(out.members, out.state)
        _observe(pot, out, r.on, r.ec_uS_cm, r.method, expected, learn and not r.left_out)
    if r.crust in CRUST_uS_cm and learn and not r.left_out:
        t = taught(
            pot, out.members, out.state, reading_of(out.members, out.state), CRUST_uS_cm[r.crust], CRUST_SPREAD_LN
        )
        out.members, out.state = t.members, t.state
        out.crust_on = r.on
        last = out.observations[-1] if out.observations else None
        if last is not None and last.taught and last.off_sd > MISFIT and (r.on - last.on).days <= CONFIRM_DAYS:
            expected = reading_of(out.members, out.state)
            sd = reading_sd(SPREAD_LN[last.method], float(expected[0, 0]))
            t = taught(pot, out.members, out.state, expected, last.equivalent_reading, sd, last.off_sd)
            out.members, out.state = t.members, t.state
        out.cautions.append("A crust counts as weak evidence: it says little of how much salt lies below.")
    _note(out, r.on)


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


def _observe(
    pot: PotSpec, out: Folded, on: date, measured: float, method: Method, expected: Array, learn: bool
) -> None:
    """Let a reading teach the pot; one left out is kept with what was expected of it, and moves nothing."""
    middle, low, high = (float(v[0]) for v in band(expected))
    before = _root_zone_now(out.members, out.state), _reading_now(out.members, out.state)
    last = out.observations[-1] if out.observations else None
    off_before = last.off_sd if last is not None and last.taught else 0.0
    if out.crust_on is not None and (on - out.crust_on).days <= CONFIRM_DAYS and measured > middle:
        off_before = 2 * MISFIT
    sd = reading_sd(SPREAD_LN[method], middle)
    t = taught(pot, out.members, out.state, expected, measured, sd, off_before)
    if learn:
        out.members, out.state = t.members, _not_against(t, before, measured - middle)
    out.observations.append(
        Observation(on, measured, before[1] * measured / middle, middle, method, low, high, t.off_sd, taught=learn)
    )


def _not_against(t: Taught, before: tuple[float, float], told: float) -> State:
    """A reading lower than expected never raises root zone or predicted reading, nor the other way round."""
    state = t.state
    for was, of in zip(before, (_root_zone_now, _reading_now), strict=True):
        for _ in range(3):  # a reading holds a little of the pure water poured for it: once is not quite enough
            now = of(t.members, state)
            if (now - was) * told >= 0:
                break
            state = State(state.W_m, state.C_m * (was / now), state.C_i * (was / now))
    return state


def _root_zone_now(members: Members, state: State) -> float:
    return float(salt(root_zone_ec(members.soil, state))[0, 0])


def _reading_now(members: Members, state: State) -> float:
    return float(reading_of(members, state)[0, 0])


def _note(out: Folded, on: date) -> None:
    out.noted.append((on, out.members, out.state))


def _draw(out: Folded) -> None:
    """Bands of everything noted, all at once."""
    if not out.noted:
        return
    soils = [m.soil for _, m, _ in out.noted]
    W_m, W_cc, W_i, eta, C_m, C_i = (
        np.concatenate(rows, axis=0)
        for rows in (
            [s.W_m for _, _, s in out.noted],
            [soil.W_m_cc for soil in soils],
            [soil.W_i for soil in soils],
            [soil.eta for soil in soils],
            [salt(s.C_m) for _, _, s in out.noted],
            [salt(s.C_i) for _, _, s in out.noted],
        )
    )
    filled = np.maximum(W_cc, W_m) + W_i  # pure water brings the pot to capacity, as in ``reading_of``
    readings = pour_through_reading((W_m * C_m + W_i * C_i) / filled, eta, out.members.leachate_L / W_cc)
    bands = zip(*(v.tolist() for v in band(readings)), strict=True)
    out.points += [Point(on, *b) for (on, _, _), b in zip(out.noted, bands, strict=True)]
    out.noted = []


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
