"""Folding a pot's log through the salt balance, and running its present rhythm forward."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field
from datetime import date
from statistics import median
from typing import Any

import numpy as np

from fenwa.core.constants import POUR_PER_REFILL, Z80
from fenwa.core.pot.balance import (
    Array,
    Drained,
    Soil,
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
from fenwa.core.pot.methods import SPREAD_LN, Method, PT_WAIT_h
from fenwa.core.pot.specification import (
    WETTING_ROUTES,
    Members,
    PotSpec,
    WaterEvent,
    band,
    capacity_L,
    members_of,
    two_salts,
)

BONE_DRY = "By the usual losses the pot was bone dry by {}: the last tenth of its water is kept, and salt is less sure."

START_MIN_uS_cm = 50.0
RHYTHM_POURS, RHYTHM_DAYS = 8, 120


@dataclass(frozen=True)
class Point:
    """The reading a pour-through would give on a day, with its 80 % band. [µS/cm]"""

    on: date
    reading: float
    low: float
    high: float


@dataclass(frozen=True)
class Observation:
    """A measured runoff, the pour-through reading it stands for, and how it was caught. [µS/cm]"""

    on: date
    runoff_ec: float
    equivalent_reading: float
    expected_runoff_ec: float
    method: Method = "runoff"


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


def fold(pot: PotSpec, events: list[WaterEvent], today: date) -> Folded:
    """State of the pot today: its log, then the days since the last pour."""
    return rest_until(pot, fold_log(pot, events, today), today)


def rest_until(pot: PotSpec, out: Folded, today: date) -> Folded:
    """The days between the last pour and today."""
    if out.used:
        days_open = (today - out.as_of).days if pot.drainage == "drains" else 0
        if bone_dry(out.members.soil, out.state, out.members.loss_L_day * days_open)[..., 0].any():
            out.cautions.append(BONE_DRY.format(today.isoformat()))
        out.state = rested([pot], out.members, out.state, [(today - out.as_of).days])
        _note(out, today)
    out.as_of = today
    return out


def rested(pots: list[PotSpec], members: Members, state: State, days: list[int]) -> State:
    """Many pots after days without water; trays and reservoirs are kept topped up and rest as they are."""
    open_days = np.array([d if p.drainage == "drains" else 0 for p, d in zip(pots, days, strict=True)], float)[:, None]
    return dry(members.soil, state, members.loss_L_day * open_days * members.E_factor, 24.0 * open_days)


def fold_log(pot: PotSpec, events: list[WaterEvent], today: date) -> Folded:
    """State after the last pour up to today (E3.10, E3.12), taking in measured runoffs."""
    members = members_of([pot])
    soil = members.soil
    pours = wetting(events, today)
    known = [e.ec_uS_cm for e in pours if e.ec_uS_cm is not None]
    start = pot.start_uS_cm if pot.start_uS_cm is not None else max(START_MIN_uS_cm, known[0] if known else 0.0)
    C0 = two_salts(members, start, pours[0].ballast_share if pours else None) * members.start_factor
    out = Folded(members, State(soil.W_m_cc * 1.0, C0, C0), pours[0].on if pours else today)
    if pot.start_uS_cm is None:
        out.cautions.append("What the medium held at the start is not known: the first water is taken, ±50 %.")
    last_ec = known[0] if known else None
    last_on = out.as_of
    for event in pours:
        if event.ec_uS_cm is None and last_ec is None:
            out.cautions.append("Pours whose EC is not known were left out.")
            continue
        ec = event.ec_uS_cm if event.ec_uS_cm is not None else last_ec
        if event.ec_uS_cm is None:
            out.cautions.append("A pour's EC was not measured: the last known one stands for it.")
        assert ec is not None
        last_ec = ec
        days = (event.on - last_on).days
        last_on = event.on
        out.used += 1
        _apply(pot, out, event, ec, days)
    if any(e.ballast_share is None for e in pours) and pot.u_ballast not in (None, pot.u):
        out.cautions.append(
            "What of the salt is nutrient and what ballast is not known for every pour: the range is wider."
        )
    out.cautions = list(dict.fromkeys(out.cautions))
    out.as_of = last_on
    return out


def _apply(pot: PotSpec, out: Folded, event: WaterEvent, ec: float, days: int) -> None:
    members, soil = out.members, out.members.soil
    C_in = two_salts(members, ec, event.ballast_share)
    loss = members.loss_L_day * days * members.E_factor
    if not has_exit(pot, event):
        volume = event.volume_L if event.volume_L is not None else loss
        store = soil.W_m_cc + soil.W_i + members.tray_L
        C = no_exit(root_zone_ec(soil, out.state), C_in, soil.u, volume / store)
        out.state = State(soil.W_m_cc * 1.0, C, C)
        if event.runoff_ec_uS_cm is not None:
            _observe(out, event, salt(C))
        _note(out, event.on)
        return
    if event.runoff_L is not None and event.volume_L is not None:
        loss = np.maximum(event.volume_L - event.runoff_L, 0.0) * np.ones_like(loss)  # measured, so not guessed
    if bone_dry(soil, out.state, loss)[..., 0].any():
        out.cautions.append(BONE_DRY.format(event.on.isoformat()))
    dried = dry(soil, out.state, loss, 24.0 * days)
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
    if event.runoff_ec_uS_cm is not None:
        _observe(out, event, should_read(members, event.method, dried, out.state, drained, volume, C_in))
    _note(out, event.on)


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


def _observe(out: Folded, event: WaterEvent, predicted: Array) -> None:
    """Move the state towards a measured runoff; parameters keep their spread (they are not calibrated here)."""
    assert event.runoff_ec_uS_cm is not None
    middle, low, high = band(predicted)
    spread = float((np.log(high) - np.log(low))[0] / (2 * Z80))
    gain = spread**2 / (spread**2 + SPREAD_LN[event.method] ** 2)
    shift = gain * (np.log(event.runoff_ec_uS_cm) - np.log(middle[0]))
    narrow = np.sqrt(1 - gain)

    def moved(C: Array) -> Array:
        ln = np.log(np.maximum(C, 1e-6))
        return np.asarray(np.exp(ln[..., :1] + shift + narrow * (ln - ln[..., :1])))

    before = reading_of(out.members, out.state)[0, 0]
    out.state = State(out.state.W_m, moved(out.state.C_m), moved(out.state.C_i))
    ratio = event.runoff_ec_uS_cm / float(middle[0])
    out.observations.append(
        Observation(event.on, event.runoff_ec_uS_cm, float(before) * ratio, float(middle[0]), event.method)
    )


def _note(out: Folded, on: date) -> None:
    middle, low, high = band(reading_of(out.members, out.state))
    out.points.append(Point(on, float(middle[0]), float(low[0]), float(high[0])))


@dataclass(frozen=True)
class Rhythm:
    """How a pot is watered at present: days between pours, and the repeating pours."""

    interval_d: float
    volumes_L: tuple[float, ...]
    ecs_uS_cm: tuple[float, ...]
    ballast_shares: tuple[float | None, ...] = ()


def present_rhythm(events: list[WaterEvent], today: date, pot: PotSpec) -> Rhythm | None:
    """Interval and sequence of the last pours, at most 8 of the last 120 days; None below two."""
    recent = [e for e in wetting(events, today) if (today - e.on).days <= RHYTHM_DAYS and e.ec_uS_cm is not None]
    recent = recent[-RHYTHM_POURS:]
    gaps = [(b.on - a.on).days for a, b in itertools.pairwise(recent) if b.on > a.on]
    if not gaps:
        return None
    interval = float(median(gaps))
    usual = POUR_PER_REFILL * pot.loss_per_day * interval * capacity_L(pot)
    return Rhythm(
        interval,
        tuple(e.volume_L if e.volume_L is not None else usual for e in recent),
        tuple(float(e.ec_uS_cm or 0.0) for e in recent),
        tuple(e.ballast_share for e in recent),
    )


@dataclass(frozen=True)
class Forecast:
    """Readings after each coming pour. days (pots, pours); readings (pots, pours, members)."""

    days: Array
    readings: Array


def forecast(pots: list[PotSpec], members: Members, state: State, rhythms: list[Rhythm], horizon_d: float) -> Forecast:
    """Run many pots' rhythms forward at once. Pots × members are one array; the loop is over pours."""
    soil = members.soil
    interval = np.array([r.interval_d for r in rhythms])[:, None]
    longest = max(len(r.volumes_L) for r in rhythms)
    volumes = np.array([[r.volumes_L[k % len(r.volumes_L)] for k in range(longest)] for r in rhythms])
    salts = _salts_ahead(members, rhythms, longest)
    if np.ndim(state.C_m) == 2:  # told as one salt: split evenly, so that an uptake of one kind serves both
        state = State(state.W_m, np.stack([0.5 * state.C_m] * 2), np.stack([0.5 * state.C_i] * 2))
    open_pot = np.array([p.drainage == "drains" for p in pots])[:, None]
    pours = int(np.ceil(horizon_d / interval.min()))
    E = members.loss_L_day * members.E_factor * interval
    store = soil.W_m_cc + soil.W_i + members.tray_L
    hours = 24.0 * interval
    readings = np.empty((len(pots), pours, soil.W_m_cc.shape[1]))
    all_open, none_open = bool(open_pot.all()), not bool(open_pot.any())
    x = members.leachate_L / soil.W_m_cc
    gain = (1 - np.exp(-soil.eta * x)) / x  # of the pour-through, constant over the run
    decay = Soil(soil.W_m_cc, soil.W_i, soil.eta, soil.u, soil.k_h, soil.R)
    for n in range(pours):
        V, C_in = volumes[:, n % longest, None], salts[n % longest]
        if none_open:
            C = no_exit(root_zone_ec(soil, state), C_in, soil.u, V / store)
            state = State(soil.W_m_cc, C, C)
        else:
            poured, _ = water(decay, dry(decay, state, E, hours), V, C_in)
            if not all_open:
                C = no_exit(root_zone_ec(soil, state), C_in, soil.u, V / store)
                poured = State(
                    np.where(open_pot, poured.W_m, soil.W_m_cc),
                    np.where(open_pot, poured.C_m, C),
                    np.where(open_pot, poured.C_i, C),
                )
            state = poured
        readings[:, n, :] = 1.0 + (salt(at_capacity(soil, state)) - 1.0) * gain
    days = interval * np.arange(1.0, pours + 1)[None, :]
    return Forecast(days, readings)


def _salts_ahead(members: Members, rhythms: list[Rhythm], longest: int) -> list[Array]:
    """Nutrients and ballast of each coming pour of the sequence: arrays of salts, pots and members. [µS/cm]"""
    out = []
    for k in range(longest):
        rows = []
        for r in rhythms:
            share = r.ballast_shares[k % len(r.ballast_shares)] if r.ballast_shares else None
            rows.append(two_salts(members, r.ecs_uS_cm[k % len(r.ecs_uS_cm)], share)[:, 0, :])
        out.append(np.stack(rows, axis=1))
    return out


def rows_of(state: State) -> list[list[float]]:
    """One pot's state as plain rows: mobile water, then nutrients and ballast of the mobile and of the immobile
    water.
    """
    shape = np.shape(state.W_m)
    C_m, C_i = np.broadcast_to(state.C_m, (2, *shape)), np.broadcast_to(state.C_i, (2, *shape))
    return [row.tolist() for row in (np.asarray(state.W_m)[0], C_m[0, 0], C_m[1, 0], C_i[0, 0], C_i[1, 0])]


def state_of(rows: list[list[list[float]]]) -> State:
    """The state of many pots from their rows."""
    stacked = np.array(rows)
    return State(stacked[:, 0], np.stack([stacked[:, 1], stacked[:, 2]]), np.stack([stacked[:, 3], stacked[:, 4]]))
