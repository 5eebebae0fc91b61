"""Folding the logs of pots through the salt balance: many at once, step by step, each by its own log.

One pot is folded by the same rules as five hundred: the k-th pour of each is one step, on arrays of pots and members.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta
from typing import Any

import numpy as np

from fenwa.core.constants import POUR_PER_REFILL
from fenwa.core.pace import step_done
from fenwa.core.pot.balance import (
    Array,
    Soil,
    State,
    at_capacity,
    bone_dry,
    dry,
    held_with,
    no_exit,
    pour_through_reading,
    root_zone_ec,
    soak,
    water,
)
from fenwa.core.pot.folded import (
    Folded,
    Observation,
    Standing,
    has_exit,
    points_of,
    reading_of,
    rows_of,
    salt,
    should_read,
    state_of,
)
from fenwa.core.pot.happened import LAST_EC_STANDS, Happened, PotLog, happened, in_order, start_of
from fenwa.core.pot.learning import MISFIT, drifted, off_sds, reading_sd, taught
from fenwa.core.pot.methods import CRUST_SPREAD_LN, MOIST_LEFT, MOIST_SPREAD_LN, SPREAD_LN, CRUST_uS_cm, Moist
from fenwa.core.pot.release import salt_given
from fenwa.core.pot.specification import (
    MEMBERS,
    Members,
    PotReading,
    PotSpec,
    WaterEvent,
    band,
    members_of,
    two_salts_of,
)

CONFIRM_DAYS = 30  # a crust and a reading far above what was expected confirm each other; judgement


def fold(
    pot: PotSpec, events: list[WaterEvent], today: date, readings: Sequence[PotReading] = (), learn: bool = True
) -> Folded:
    """State of the pot today: its log, then the days since the last pour. ``learn``: whether readings teach it."""
    return rest_until(pot, fold_log(pot, events, today, readings, learn), today)


def rest_until(pot: PotSpec, out: Folded, today: date) -> Folded:
    """The days between the last pour and today."""
    if out.begun:
        days_open = (today - out.as_of).days if pot.drains else 0
        if bone_dry(out.members.soil, out.state, out.members.loss_L_day * days_open)[..., 0].any():
            out.was_dry(today)
        out.state = rested([pot], out.members, out.state, [out.as_of], today)
        out.points += points_of([(today, out.members, out.state)])
    out.as_of = today
    return out


def rested(pots: list[PotSpec], members: Members, state: State, since: Sequence[date | None], until: date) -> State:
    """Many pots after days without water; trays and reservoirs are kept topped up, and rest but for their prills.

    ``since``: the day each stood so; None: nothing is known of it, and it stays.
    """
    days = [0 if d is None else max(0, (until - d).days) for d in since]
    open_days = np.array([d if p.drains else 0 for p, d in zip(pots, days, strict=True)], float)[:, None]
    given = _given(pots, members, [until - timedelta(days=d) for d in days], [until] * len(pots))
    loss = members.loss_L_day * open_days * members.E_factor
    return dry(members.soil, state, loss, 24.0 * open_days, given)


def _given(pots: Sequence[PotSpec], members: Members, since: Sequence[date], until: Sequence[date]) -> Array | float:
    """Salt that prills give each pot between two days, for every member. [µS/cm · L]"""
    if not any(p.prills for p in pots):
        return 0.0
    given = [salt_given(p.prills, a, b) for p, a, b in zip(pots, since, until, strict=True)]
    return np.asarray(np.array(given)[:, None] * members.release_factor)


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
    return fold_logs([PotLog(pot, events, readings)], today, learn, members)[0]


def fold_logs(logs: Sequence[PotLog], today: date, learn: bool = True, members: Members | None = None) -> list[Folded]:
    """The same for many pots; each by its own log, and none knows of another."""
    if not logs:
        return []
    pots = [x.pot for x in logs]
    steps = [happened(x, today) for x in logs]
    if members is None:
        members, state = _begun(logs, steps, today)
    else:
        state = _from_start(pots, logs, steps, members, today)
    run = _Fold(pots, members, state, steps, learn)
    for k in range(max(len(h.steps) for h in steps)):
        run.step(k)
        step_done()
    return run.finished()


def _begun(logs: Sequence[PotLog], steps: Sequence[Happened], today: date) -> tuple[Members, State]:
    """Members and states to go on from: of those whose fold stood already, and of those that begin."""
    pots = [x.pot for x in logs]
    new = [i for i, x in enumerate(logs) if x.since is None]
    mine = [pots[i] for i in new]
    fresh = members_of(mine) if new else None
    begun = _from_start(mine, [logs[i] for i in new], [steps[i] for i in new], fresh, today) if fresh else None
    if fresh is not None and begun is not None and len(new) == len(logs):
        return fresh, begun
    blank = [[1.0] * MEMBERS] * 5
    members, state = state_of(pots, [x.since.rows if x.since else blank for x in logs])
    if fresh is not None and begun is not None:
        members, state = members.put(new, fresh), state.put(new, begun)
    return members, state


def _from_start(
    pots: list[PotSpec], logs: Sequence[PotLog], steps: Sequence[Happened], members: Members, today: date
) -> State:
    start = [start_of(x, today) for x in logs]
    C0 = two_salts_of(members, np.array([[ec] for ec, _ in start]), [s for _, s in start]) * members.start_factor
    before = [min([h.first, *(p.given_on for p in pot.prills)]) for pot, h in zip(pots, steps, strict=True)]
    given = _given(pots, members, before, [h.first for h in steps])
    C0 = held_with(C0, given, members.soil.W_m_cc + members.soil.W_i)
    return State(members.soil.W_m_cc * 1.0, C0, C0)


class _Some:
    """Some of the pots in one step: their own arrays, put back when the step is done."""

    def __init__(self, run: _Fold, which: list[int]) -> None:
        self.which, self.whole = which, len(which) == len(run.pots)
        self.pots = run.pots if self.whole else [run.pots[i] for i in which]
        self.outs = run.outs if self.whole else [run.outs[i] for i in which]
        self.members = run.members if self.whole else run.members.at(which)
        self.state = run.state if self.whole else run.state.at(which)


class _Fold:
    """Many pots on their way through their logs."""

    def __init__(self, pots: list[PotSpec], members: Members, state: State, steps: list[Happened], learn: bool) -> None:
        self.pots, self.members, self.state, self.happened, self.learn = pots, members, state, steps, learn
        self.outs = [  # members and state of each are its own once all are through
            Folded(
                members,
                state,
                h.first,
                observations=[h.since.before] if h.since and h.since.before else [],
                cautions=list(h.cautions),
                used=h.since.used if h.since else 0,
                crust_on=h.since.crust_on if h.since else None,
                dry_times=h.since.dry_times if h.since else 0,
                dry_on=h.since.dry_on if h.since else None,
            )
            for h in steps
        ]
        self.noted: list[tuple[list[tuple[int, date] | None], Members, State]] = []

    def step(self, k: int) -> None:
        """What happened k-th to each pot: pours that drain, baths, tops-up and readings, each kind in one go."""
        kinds: dict[str, list[int]] = {}
        for i, h in enumerate(self.happened):
            if k < len(h.steps):
                kinds.setdefault(self._kind(i, h.steps[k]), []).append(i)
        for kind, which in kinds.items():
            some = _Some(self, which)
            steps: list[Any] = [self.happened[i].steps[k] for i in which]
            if kind == "read":
                self._read(some, steps)
            else:
                self._pour(some, [e for e, _ in steps], [ec for _, ec in steps], kind)
            self.members = some.members if some.whole else self.members.put(which, some.members)
            self.state = some.state if some.whole else self.state.put(which, some.state)
        for which in kinds.values():
            for i in which:
                if self.happened[i].mark_after(k):
                    self._keep(i, k)

    def _keep(self, i: int, k: int) -> None:
        """Note where this pot stands after its k-th step."""
        h, out = self.happened[i], self.outs[i]
        last_ec = h.known_ec[k]
        assert last_ec is not None
        out.standings.append(
            Standing(
                out.as_of,
                h.before + k + 1,
                rows_of(self.members.at([i]), self.state.at([i])),
                out.used,
                last_ec,
                h.unsure[k + 1],
                tuple(in_order(out.cautions)),
                out.crust_on,
                out.observations[-1] if out.observations else None,
                out.dry_times,
                out.dry_on,
            )
        )

    def _kind(self, i: int, what: tuple[WaterEvent, float] | PotReading) -> str:
        if isinstance(what, PotReading):
            return "read"
        if not has_exit(self.pots[i], what[0]):
            return "no exit"
        return "soak" if what[0].route == "soak" else "drain"

    def finished(self) -> list[Folded]:
        """Each pot with what its log left, and its bands drawn."""
        points = iter(points_of([(date.min, m, s) for _, m, s in self.noted]))
        for whose, _, _ in self.noted:
            for noted in whose:
                point = next(points)
                if noted is not None:
                    i, on = noted
                    self.outs[i].points.append(type(point)(on, point.reading, point.low, point.high))
        alone = len(self.outs) == 1
        for i, (out, h) in enumerate(zip(self.outs, self.happened, strict=True)):
            out.members = self.members if alone else self.members.at([i])
            out.state = self.state if alone else self.state.at([i])
            out.cautions, out.steps = in_order(out.cautions, h.unsure[-1]), h.before + len(h.steps)
            if h.since and h.since.before:
                out.observations = out.observations[1:]  # the one it went on from is kept where it was drawn
        return self.outs

    def _note(self, some: _Some, days: Sequence[date | None], state: State | None = None) -> None:
        whose = [None if on is None else (i, on) for i, on in zip(some.which, days, strict=True)]
        if any(whose):
            self.noted.append((whose, some.members, some.state if state is None else state))

    def _pour(self, some: _Some, events: list[WaterEvent], ecs: list[float], kind: str) -> None:
        members, soil, state = some.members, some.members.soil, some.state
        gaps = [(e.on - out.as_of).days for e, out in zip(events, some.outs, strict=True)]
        days = np.array(gaps, float)[:, None]
        C_in = two_salts_of(members, np.array(ecs)[:, None], [e.ballast_share for e in events])
        given = _given(some.pots, members, [out.as_of for out in some.outs], [e.on for e in events])
        loss = members.loss_L_day * days * members.E_factor
        for e, out in zip(events, some.outs, strict=True):
            out.as_of = e.on
            out.used += 1
            if e.ec_uS_cm is None:
                out.cautions.append(LAST_EC_STANDS)
        known = np.array([e.volume_L is not None for e in events])[:, None]
        volume = np.array([e.volume_L or 0.0 for e in events])[:, None]
        measured = [i for i, e in enumerate(events) if e.runoff_ec_uS_cm is not None]
        if kind == "no exit":
            volume = volume if known.all() else np.where(known, volume, loss)
            store = soil.W_m_cc + soil.W_i + members.tray_L
            C = no_exit(held_with(root_zone_ec(soil, state), given, store), C_in, soil.u, volume / store)
            some.state = drifted(State(soil.W_m_cc * 1.0, C, C))
            self._observe(some, measured, [_as_reading(events[i]) for i in measured], salt(C))
            self._note(some, [e.on for e in events])
            return
        told = [
            e.runoff_L is not None and e.volume_L is not None and gap > 0 for e, gap in zip(events, gaps, strict=True)
        ]
        if any(told):  # measured, so not guessed
            left = [max((e.volume_L or 0.0) - (e.runoff_L or 0.0), 0.0) for e in events]
            loss = np.where(np.array(told)[:, None], np.array(left)[:, None], loss)
        for i in np.nonzero(bone_dry(soil, state, loss)[..., 0])[0]:
            some.outs[i].was_dry(events[i].on)
        dried = dry(soil, state, loss, 24.0 * days + np.array([e.soak_h for e in events])[:, None], given)
        self._note(some, [e.on if gap > 0 else None for e, gap in zip(events, gaps, strict=True)], dried)
        if not known.all():
            volume = np.where(known, volume, POUR_PER_REFILL * (soil.W_m_cc - dried.W_m))
            for e, out in zip(events, some.outs, strict=True):
                if e.volume_L is None:
                    out.cautions.append("A pour's volume was not measured: the refill and a quarter more is taken.")
        after, drained = (soak if kind == "soak" else water)(soil, dried, volume, C_in)
        if all(gap > 0 for gap in gaps):
            after = drifted(after)
        elif any(gap > 0 for gap in gaps):
            after = after.where(days > 0, drifted(after))
        some.state = after
        if measured:
            expected = np.empty(np.shape(soil.W_m_cc))
            for method in {events[i].method for i in measured}:
                reads = should_read(members, method, dried, after, drained, volume, C_in)
                mine = [i for i in measured if events[i].method == method]
                expected[mine] = np.broadcast_to(reads, expected.shape)[mine]
            self._observe(some, measured, [_as_reading(events[i]) for i in measured], expected)
        self._note(some, [e.on for e in events])

    def _read(self, some: _Some, readings: list[PotReading]) -> None:
        """Readings between pours, or crusts: the days until them, then what they teach."""
        for i, r in enumerate(readings):
            one = _Some(self, [some.which[i]]) if len(readings) > 1 else some
            out = one.outs[0]
            one.state = rested(one.pots, one.members, one.state, [out.as_of], r.on)
            out.as_of = r.on
            if r.ec_uS_cm is not None:
                if r.method == "squeezed":
                    expected = salt(root_zone_ec(one.members.soil, one.state))
                elif r.method == "reservoir":
                    expected = salt(one.state.C_m)
                else:
                    expected = reading_of(one.members, one.state)
                self._observe(one, [0], [r], expected)
            if r.crust in CRUST_uS_cm and self.learn and not r.left_out:
                self._crust(one, r)
            if r.moist is not None and one.pots[0].drains and self.learn and not r.left_out:
                self._felt(one, r.moist)
            self._note(one, [r.on])
            if one is not some:
                some.members, some.state = some.members.put([i], one.members), some.state.put([i], one.state)

    def _crust(self, one: _Some, r: PotReading) -> None:
        out = one.outs[0]
        assert r.crust is not None
        told = CRUST_uS_cm[r.crust]
        t = taught(
            one.pots, one.members, one.state, reading_of(one.members, one.state), _one(told), _one(CRUST_SPREAD_LN)
        )
        one.members, one.state = t.members, t.state
        out.crust_on = r.on
        last = out.observations[-1] if out.observations else None
        if last is not None and last.taught and last.off_sd > MISFIT and (r.on - last.on).days <= CONFIRM_DAYS:
            expected = reading_of(one.members, one.state)
            sd = reading_sd(_one(SPREAD_LN[last.method]), expected[:, 0])
            t = taught(one.pots, one.members, one.state, expected, _one(last.equivalent_reading), sd, _one(last.off_sd))
            one.members, one.state = t.members, t.state
        out.cautions.append("A crust counts as weak evidence: it says little of how much salt lies below.")

    def _felt(self, one: _Some, moist: Moist) -> None:
        """A finger tells, weakly, how much water is left: what it loses a day and holds follow."""
        left = np.broadcast_to(one.state.W_m / one.members.soil.W_m_cc, one.members.E_factor.shape)
        t = taught(one.pots, one.members, one.state, left, _one(MOIST_LEFT[moist]), _one(MOIST_SPREAD_LN))
        one.members, one.state = t.members, t.state
        one.outs[0].cautions.append("What a finger felt counts as weak evidence of how much water is left.")

    def _observe(self, some: _Some, rows: list[int], readings: list[PotReading], expected: Array) -> None:
        """Let readings teach their pots; one left out is kept with what was expected of it, and moves nothing."""
        if not rows:
            return
        every = len(rows) == len(some.which)
        members = some.members if every else some.members.at(rows)
        state = some.state if every else some.state.at(rows)
        outs, pots = [some.outs[i] for i in rows], [some.pots[i] for i in rows]
        expected = expected if every else expected[rows]
        middle, low, high = band(expected)
        before = _best_now(members, state)
        measured = np.array([r.ec_uS_cm for r in readings], float)
        off_before = np.array([_off_before(o, r, m) for o, r, m in zip(outs, readings, middle, strict=True)])
        sd = reading_sd(np.array([SPREAD_LN[r.method] for r in readings]), middle)
        off = off_sds(expected, measured, sd)
        counts = [self.learn and not r.left_out for r in readings]
        which = [j for j, c in enumerate(counts) if c]
        if len(which) == len(rows):
            t = taught(pots, members, state, expected, measured, sd, off_before)
            some_state = _not_against(t.members, t.state, before, measured - middle)
            members, state = t.members, some_state
        elif which:
            t = taught(
                [pots[j] for j in which],
                members.at(which),
                state.at(which),
                expected[which],
                measured[which],
                sd[which],
                off_before[which],
            )
            told = _not_against(t.members, t.state, (before[0][which], before[1][which]), (measured - middle)[which])
            members, state = members.put(which, t.members), state.put(which, told)
        if which:
            some.members = members if every else some.members.put(rows, members)
            some.state = state if every else some.state.put(rows, state)
        columns = (measured, before[1] * measured / middle, middle, low, high, off)
        for out, r, count, row in zip(outs, readings, counts, np.stack(columns, axis=1).tolist(), strict=True):
            ec, stands_for, m, a, b, o = row
            out.observations.append(Observation(r.on, ec, stands_for, m, r.method, a, b, o, taught=count))


def _one(value: float) -> Array:
    return np.array([value])


def _as_reading(e: WaterEvent) -> PotReading:
    return PotReading(e.on, e.runoff_ec_uS_cm, e.method, left_out=e.left_out)


def _off_before(out: Folded, r: PotReading, middle: float) -> float:
    """How far the reading before was off; a crust seen lately confirms one that is higher than expected."""
    assert r.ec_uS_cm is not None
    if out.crust_on is not None and (r.on - out.crust_on).days <= CONFIRM_DAYS and r.ec_uS_cm > middle:
        return 2 * MISFIT
    return out.off_before


def _not_against(members: Members, state: State, before: tuple[Array, Array], told: Array) -> State:
    """A reading lower than expected never raises root zone or predicted reading, nor the other way round."""
    for which in (0, 1):
        for _ in range(3):  # a reading holds a little of the pure water poured for it: once is not quite enough
            was, now = before[which], _best_now(members, state)[which]
            against = (now - was) * told < 0
            if not against.any():
                break
            back = np.where(against, was / now, 1.0)[:, None]
            state = State(state.W_m, state.C_m * back, state.C_i * back)
    return state


def _best_now(members: Members, state: State) -> tuple[Array, Array]:
    """Root zone and pour-through reading of the best guess of each pot alone. [µS/cm]"""
    soil = members.soil
    W_cc, W_i, eta = soil.W_m_cc[:, 0], soil.W_i[:, 0], soil.eta[:, 0]
    best = Soil(W_cc, W_i, eta, 0.0, 0.0, 1.0)
    now = State(state.W_m[:, 0], state.C_m[0, :, 0] + state.C_m[1, :, 0], state.C_i[0, :, 0] + state.C_i[1, :, 0])
    reading = pour_through_reading(at_capacity(best, now), eta, members.leachate_L[:, 0] / W_cc)
    return np.asarray(root_zone_ec(best, now)), np.asarray(reading)
