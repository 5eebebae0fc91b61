"""A pot's present rhythm, and many pots' rhythms run forward at once."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import median

import numpy as np

from fenwa.core.constants import POUR_PER_REFILL
from fenwa.core.pace import step_done
from fenwa.core.pot.balance import Array, Soil, State, at_capacity, dry, held_with, no_exit, root_zone_ec, water
from fenwa.core.pot.folded import salt, wetting
from fenwa.core.pot.specification import Members, PotSpec, WaterEvent, band, capacity_L, two_salts_of

RHYTHM_POURS, RHYTHM_DAYS = 8, 120


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


def forecast(
    pots: list[PotSpec], members: Members, state: State, rhythms: list[Rhythm], horizon_d: float, today: date
) -> Forecast:
    """Run many pots' rhythms forward at once from today. Pots × members are one array; the loop is over pours."""
    soil = members.soil
    interval = np.array([r.interval_d for r in rhythms])[:, None]
    longest = max(len(r.volumes_L) for r in rhythms)
    volumes = np.array([[r.volumes_L[k % len(r.volumes_L)] for k in range(longest)] for r in rhythms])
    salts = _salts_ahead(members, rhythms, longest)
    if np.ndim(state.C_m) == 2:  # told as one salt: split evenly, so that an uptake of one kind serves both
        state = State(state.W_m, np.stack([0.5 * state.C_m] * 2), np.stack([0.5 * state.C_i] * 2))
    open_pot = np.array([p.drains for p in pots])[:, None]
    pours = int(np.ceil(horizon_d / interval.min()))
    E = members.loss_L_day * members.E_factor * interval
    store = soil.W_m_cc + soil.W_i + members.tray_L
    hours = 24.0 * interval
    readings = np.empty((len(pots), pours, soil.W_m_cc.shape[1]))
    all_open, none_open = bool(open_pot.all()), not bool(open_pot.any())
    x = members.leachate_L / soil.W_m_cc
    gain = (1 - np.exp(-soil.eta * x)) / x  # of the pour-through, constant over the run
    decay = Soil(soil.W_m_cc, soil.W_i, soil.eta, soil.u, soil.k_h, soil.R)
    given = _given_ahead(pots, members, interval, pours, today)
    for n in range(pours):
        V, C_in = volumes[:, n % longest, None], salts[n % longest]
        if none_open:
            C = no_exit(held_with(root_zone_ec(soil, state), given[n], store), C_in, soil.u, V / store)
            state = State(soil.W_m_cc, C, C)
        else:
            poured, _ = water(decay, dry(decay, state, E, hours, given[n]), V, C_in)
            if not all_open:
                C = no_exit(held_with(root_zone_ec(soil, state), given[n], store), C_in, soil.u, V / store)
                poured = State(
                    np.where(open_pot, poured.W_m, soil.W_m_cc),
                    np.where(open_pot, poured.C_m, C),
                    np.where(open_pot, poured.C_i, C),
                )
            state = poured
        step_done()
        readings[:, n, :] = 1.0 + (salt(at_capacity(soil, state)) - 1.0) * gain
    days = interval * np.arange(1.0, pours + 1)[None, :]
    return Forecast(days, readings)


def _given_ahead(
    pots: list[PotSpec], members: Members, interval: Array, pours: int, today: date
) -> list[Array | float]:
    """Salt that prills give each pot between its coming pours, for every member. [µS/cm · L]"""
    if not any(p.prills for p in pots):
        return [0.0] * pours
    out = np.zeros((pours, len(pots)))
    for i, pot in enumerate(pots):
        gap = float(interval[i, 0])
        for p in pot.prills:
            so_far = (today - p.given_on).days
            out[:, i] += [p.between(so_far + n * gap, so_far + (n + 1) * gap) for n in range(pours)]
    return list(out[:, :, None] * members.release_factor)


def _salts_ahead(members: Members, rhythms: list[Rhythm], longest: int) -> list[Array]:
    """Nutrients and ballast of each coming pour of the sequence: arrays of salts, pots and members. [µS/cm]"""
    out = []
    for k in range(longest):
        shares = [r.ballast_shares[k % len(r.ballast_shares)] if r.ballast_shares else None for r in rhythms]
        ecs = np.array([r.ecs_uS_cm[k % len(r.ecs_uS_cm)] for r in rhythms])[:, None]
        out.append(two_salts_of(members, ecs, shares))
    return out


@dataclass(frozen=True)
class YearAhead:
    """A pot's reading as a share of its ceiling over the coming year, and when it crosses. None: not within it."""

    crosses_on: date | None
    earliest_on: date | None
    latest_on: date | None
    days: tuple[date, ...]
    shares: tuple[float, ...]


AHEAD_POINTS = 26  # drawn of a year: one a fortnight


def year_ahead(
    pots: list[PotSpec],
    members: Members,
    state: State,
    rhythms: list[Rhythm],
    ceilings_uS_cm: list[float],
    today: date,
    horizon_d: int = 365,
) -> list[YearAhead]:
    """When each of many pots crosses its ceiling at its present rhythm, all in one run."""
    if not pots:
        return []
    run = forecast(pots, members, state, rhythms, horizon_d, today)
    middle, low, high = band(run.readings)
    out = []
    for i, ceiling in enumerate(ceilings_uS_cm):
        within = run.days[i] <= horizon_d
        days, share = run.days[i][within], middle[i][within] / ceiling

        def first(values: Array, days: Array = days) -> date | None:
            over = np.nonzero(values >= 1.0)[0]
            return today + timedelta(days=round(float(days[over[0]]))) if over.size else None

        picked = np.unique(np.linspace(0, len(days) - 1, min(AHEAD_POINTS, len(days))).astype(int))
        out.append(
            YearAhead(
                first(share),
                first(high[i][within] / ceiling),
                first(low[i][within] / ceiling),
                tuple(today + timedelta(days=round(float(days[k]))) for k in picked),
                tuple(float(share[k]) for k in picked),
            )
        )
    return out
