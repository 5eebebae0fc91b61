"""What a reading teaches: state and parameters of a pot move together, each by as much as it explains.

A small Bayesian fit on the members of the band. All that is uncertain of a pot, its parameters (as shifts from the
defaults) and the logarithms of its water and salts, stands as a best guess with one-SD shifts along eight axes. To
first order that is a Gaussian, and a reading conditions it as in a Kalman filter; the fold goes on with what is left.

References: E3.14 (what is fitted, priors, reading errors); square-root form of the measurement update, textbook.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from fenwa.core.once import once
from fenwa.core.pot.balance import Array, Number, State
from fenwa.core.pot.specification import AXES, PARAMETERS, SPREAD, Members, PotSpec, members_of

LEVEL_SD_A_POUR = 0.045  # of ln salt at each pour: weather, uneven wetting, a can read to its line; judgement
MISFIT = 2.5  # standard deviations beyond which a reading does not fit; it then counts for less
STEP_MOST = 3.0  # standard deviations one reading may move anything
METER_SHARE, METER_uS_cm = 0.02, 10.0  # E3.15: an ordinary pen's error
POOLED_SHARE = 0.5  # of a parameter's prior variance lies between mixes, the rest between pots of one; judgement
ETA_LEAST, ETA_MOST = 0.05, 1.5  # as a pot is checked
N = len(PARAMETERS)


@dataclass(frozen=True)
class Taught:
    """Members and state after a reading."""

    members: Members
    state: State


def _rows(members: Members, state: State) -> Array:
    """Shifts, ln water and ln salts of every member, shape (pots, rows, MEMBERS)."""
    pots, of = members.shifts.shape[:2]
    rows = np.empty((pots, N + 5, of))
    rows[:, :N] = members.shifts.transpose(0, 2, 1)
    rows[:, N] = state.W_m
    rows[:, N + 1], rows[:, N + 2] = state.C_m
    rows[:, N + 3], rows[:, N + 4] = state.C_i
    np.log(np.maximum(rows[:, N:], 1e-6), out=rows[:, N:])
    return rows


def _unfolded(pots: list[PotSpec], rows: Array) -> tuple[Members, State]:
    """Members and state again; no pot holds more water than its capacity."""
    members = members_of(pots, rows[:, :N, :].transpose(0, 2, 1))
    told = np.exp(rows[:, N:]).transpose(1, 0, 2)
    return members, State(np.minimum(told[0], members.soil.W_m_cc), told[1:3], told[3:])


def _axes(values: Array) -> Array:
    """One-SD shifts along each axis, from members on the last dimension."""
    return np.asarray((values[..., 1::2] - values[..., 2::2]) * 0.5)


def _square(axes: Array) -> Array:
    """Squares of the axes, added up. [variance]"""
    return np.asarray(np.einsum("pa,pa->p", axes, axes))


def conditioned(rows: Array, expected: Array, measured: Array, sd: Array, narrows_sd: Array | None = None) -> Array:
    """Rows given a measurement; ``expected``: what every member says it should be. Shapes (pots, ...).

    ``narrows_sd``: its standard deviation as far as it narrows, where that is another than as far as it moves.
    """
    g = _axes(expected)
    explained = _square(g)
    whole = explained + sd**2
    step = g * ((measured - expected[:, 0]) / whole)[:, None]
    step *= np.minimum(1.0, STEP_MOST / np.maximum(np.sqrt(_square(step)), 1e-12))[:, None]
    d = _axes(rows)
    middle = rows[..., 0] + np.einsum("pra,pa->pr", d, step)
    if narrows_sd is not None:
        sd, whole = narrows_sd, explained + narrows_sd**2
    alpha = (1 - sd / np.sqrt(whole)) / np.maximum(explained, 1e-12)
    d = d - alpha[:, None, None] * np.einsum("pra,pa->pr", d, g)[..., None] * g[:, None, :]
    d = _turned(d, g, alpha, explained)
    out = np.empty_like(rows)
    out[..., 0] = middle
    out[..., 1::2], out[..., 2::2] = middle[..., None] + d, middle[..., None] - d
    return out


def _turned(d: Array, g: Array, alpha: Array, explained: Array) -> Array:
    """The axes mirrored so that the last one holds no parameter: what no parameter explains goes on growing there.

    Before the measurement the last axis held none; the direction that holds none after it follows in closed form.
    """
    none = g * (alpha / np.maximum(1 - alpha * explained, 1e-12) * g[:, -1])[:, None]
    none[:, -1] += 1.0
    none /= np.sqrt(_square(none))[:, None]
    w = -none
    w[:, -1] += 1.0
    size = _square(w)
    factor = np.where(size > 1e-20, 2.0 / np.maximum(size, 1e-20), 0.0)
    return np.asarray(d - factor[:, None, None] * np.einsum("pra,pa->pr", d, w)[..., None] * w[:, None, :])


def reading_sd(spread_ln: Number, expected_uS_cm: Number) -> Array:
    """Standard deviation of ln(reading) where so much is expected: the method's, and the meter's."""
    meter = METER_SHARE + METER_uS_cm / np.maximum(expected_uS_cm, 1.0)
    return np.asarray(np.sqrt(spread_ln**2 + meter**2))


def off_sds(expected: Array, measured: Array, sd: Array) -> Array:
    """By how many standard deviations a reading of each pot is off what its members expect of it."""
    ln = np.log(np.maximum(expected, 1e-6))
    return np.asarray((np.log(measured) - ln[:, 0]) / np.sqrt(sd**2 + _square(_axes(ln))))


def taught(
    pots: list[PotSpec],
    members: Members,
    state: State,
    expected: Array,
    measured: Array,
    sd: Array,
    off_before: Array | None = None,
) -> Taught:
    """What one reading leaves of each pot; ``expected``: the reading each member predicts. [µS/cm]

    A reading that does not fit counts for less, the farther off it is; unless the one before was off the same way, by
    ``off_before``: two that agree are believed.
    """
    ln, told = np.log(np.maximum(expected, 1e-6)), np.log(measured)
    off = off_sds(expected, measured, sd)
    far = np.maximum(1.0, np.abs(off) / MISFIT)
    if off_before is not None:
        far = np.where((off * off_before > 0) & (np.abs(off_before) > MISFIT), 1.0, far)
    told = ln[:, 0] + (told - ln[:, 0]) / far
    rows = conditioned(_rows(members, state), ln, told, sd, sd * far)
    new_members, new_state = _unfolded(pots, rows)
    return Taught(new_members, new_state)


def drifted(state: State) -> State:
    """The salt a little less sure after a pour: the last axis grows by what no parameter knows."""
    both = np.maximum(np.array([state.C_m, state.C_i]), 1e-9)
    middle = both[..., 0]
    level = np.log(both[..., -2] / middle)
    wide = np.exp(np.copysign(np.sqrt(level**2 + LEVEL_SD_A_POUR**2), level))
    both[..., -2], both[..., -1] = middle * wide, middle / wide
    return State(state.W_m, both[0], both[1])


@dataclass(frozen=True)
class Knowledge:
    """A parameter as far as a pot's readings tell it: shift from its default and its SD, and the SD before."""

    name: str
    shift: float
    sd: float
    prior_sd: float

    @property
    def narrowed(self) -> float:
        """How much of the prior's spread is gone, 0..1."""
        return 1 - self.sd / self.prior_sd

    @once
    def tells(self) -> tuple[float, float]:
        """Weight of what the pot's readings say of it to its mix, and the weighted shift; 0 where they say nothing."""
        prior = SPREAD[self.name] ** 2
        told = 1 / self.sd**2 - 1 / prior
        if told <= 1e-3 / prior:
            return 0.0, 0.0
        weight = 1 / (1 / told + (1 - POOLED_SHARE) * prior)
        return weight, weight * (self.shift / self.sd**2) / told


def knowledge(shifts: Array) -> dict[str, Knowledge]:
    """What is known of each parameter, from the shifts of one pot's members."""
    axes = np.ascontiguousarray(_axes(shifts.T))  # whatever way it lies in memory, a pot is told to the same digit
    sds = np.sqrt(np.sum(axes**2, axis=1)).tolist()
    told = zip(PARAMETERS, shifts[0].tolist(), sds, strict=True)
    return {name: Knowledge(name, shift, sd, SPREAD[name]) for name, shift, sd in told}


def learnt_spec(pot: PotSpec, members: Members) -> PotSpec:
    """The pot with what its readings taught in place of the defaults: water held, efficiency, uptake, loss."""
    k = {name: v.shift for name, v in knowledge(members.shifts[0]).items()}

    def moved(share: float) -> float:
        return share if share in (0.0, 1.0) else float(1 / (1 + (1 - share) / share * np.exp(-k["logit_u"])))

    eta = float(np.clip(pot.medium.eta * np.exp(k["ln_eta"]), ETA_LEAST, ETA_MOST))
    return replace(
        pot,
        volume_L=min(pot.volume_L * float(np.exp(k["ln_W"])), 500.0),
        medium=replace(pot.medium, eta=eta),
        u=moved(pot.u),
        u_ballast=None if pot.u_ballast is None else moved(pot.u_ballast),
        loss_per_day=min(1.0, pot.loss_per_day * float(np.exp(k["ln_E"] - k["ln_W"]))),
    )


@dataclass(frozen=True)
class Pooled:
    """What other pots of the mix tell of a parameter: a shift, and the SD of a pot about it."""

    name: str
    shift: float
    sd: float
    pots: int


class Mix:
    """What the readings of the pots of a mix say of one more of it; partial pooling, E3.14.

    What each pot's own readings said is its posterior with the prior taken off again. Pots of one mix differ by half
    of the prior's variance; the mean of the mix is what the rest of it leaves unknown and they narrow. It is summed up
    once: what all the others say to one of them is the sum without its own part.
    """

    def __init__(self, pots: Iterable[Mapping[str, Knowledge]], names: tuple[str, ...]) -> None:
        self._names = names
        self._sums = dict.fromkeys(names, (0.0, 0.0, 0))
        for pot in pots:
            for name in names:
                weight, weighted = pot[name].tells
                of_all, weighted_of_all, n = self._sums[name]
                self._sums[name] = (of_all + weight, weighted_of_all + weighted, n + (weight > 0))

    def told(self, own: Mapping[str, Knowledge] | None = None) -> tuple[Pooled, ...]:
        """What they tell of each parameter; ``own``: of one of them, to whom only the others tell."""
        out = []
        for name in self._names:
            prior = SPREAD[name] ** 2
            between, of_mix = (1 - POOLED_SHARE) * prior, POOLED_SHARE * prior
            weight, weighted, n = self._sums[name]
            mine = own[name].tells if own is not None else (0.0, 0.0)
            n -= mine[0] > 0
            if n:
                precision = 1 / of_mix + weight - mine[0]
                out.append(Pooled(name, (weighted - mine[1]) / precision, float(np.sqrt(1 / precision + between)), n))
        return tuple(out)


def pooled(others: Sequence[Mapping[str, Knowledge]], names: tuple[str, ...]) -> tuple[Pooled, ...]:
    """What the readings of other pots say of one more of their mix."""
    return Mix(others, names).told()


def with_pooled(
    pots: list[PotSpec], members: Members, state: State, of: list[tuple[Pooled, ...]]
) -> tuple[Members, State]:
    """Members and states of many pots, with what others of their mixes tell of each parameter."""
    rows, changed = _rows(members, state), np.zeros(len(pots), bool)
    for name in PARAMETERS:
        told = [next((p for p in mine if p.name == name), None) for mine in of]
        which = [i for i, p in enumerate(told) if p is not None]
        if not which:
            continue
        prior = SPREAD[name] ** 2
        values, sds = np.zeros(len(which)), np.zeros(len(which))
        for j, i in enumerate(which):
            p = told[i]
            assert p is not None
            precision = 1 / p.sd**2 - 1 / prior  # as a reading of the parameter: what the prior says stands already
            sds[j] = np.sqrt(1 / max(precision, 1e-9))
            values[j] = p.shift / p.sd**2 / max(precision, 1e-9)
        mine = rows[which]
        rows[which] = conditioned(mine, mine[:, PARAMETERS.index(name), :], values, sds)
        changed[which] = True
    if not changed.any():
        return members, state
    new_members, new_state = _unfolded(pots, rows)
    keep = ~changed[:, None]
    pick = State(
        np.where(keep, state.W_m, new_state.W_m),
        np.where(keep, state.C_m, new_state.C_m),
        np.where(keep, state.C_i, new_state.C_i),
    )
    return new_members, pick


assert AXES == N + 1  # the axes turn so that one is left for the salt alone
