"""A flush as it runs: where its runoff readings lead, how much water is left, and when to stop."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.pot.live_fit import Fit, FlushedPot, Poured, fit, litres_left, run, spread_of
from fenwa.core.pot.live_passes import FlushPass, check_flush
from fenwa.core.pot.runoff_line import READING_SHARE, SLOPE_SPREAD, CurvePoint, READING_uS_cm, Trend, tailing_of, trend
from fenwa.core.pot.specification import PotSpec, capacity_L, check_pot
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LiveStatus = Literal[
    "no reading", "no trend", "falling", "soak first", "read once more", "target reached", "flattened out"
]

FIT_SHARE = 0.02  # of a rinsed pen read twice in one flush; the line takes the wider one of E4.5
ALIKE = 0.05  # two readings are alike within that share
TAILING, STALLED = 0.5, 0.3  # E4.5b: last slope over first slope
FALL_DUE = 0.2  # a pass that should lower ln(runoff - water) by so much, and did not, has flattened out; judgement
LEAST_PASS = 0.03  # of all that was poured: the smallest pass worth pouring
CONFIRM_SHARE = 0.02  # of all that was poured: enough to read once more after a soak
LEAST_L = 0.01
CURVE_POINTS = 13
FIRST_SHARE, FIRST_MOST = 0.2, 0.5  # of a round: the first pass is a probe, its reading says how to go on
AHEAD = 3  # rounds drawn beyond the next pass
ROUNDS_WIDE = 24  # stands for "no number of rounds" at the far end of a range


@dataclass(frozen=True, kw_only=True)
class LiveFlush:
    """Where a flush stands. None: cannot be said yet. [L, µS/cm, min]"""

    status: LiveStatus
    sentence: str
    stop: bool
    poured_L: float
    drained_L: float
    left_L: float | None
    left_se_L: float | None
    left_low_L: float | None
    left_high_L: float | None
    next_pass_L: float
    next_soak_min: float
    next_runoff: CurvePoint | None
    slope_per_L: float
    tailing: float | None
    alike: float | None
    under: int
    drained_after: tuple[float, ...]
    curve: tuple[CurvePoint, ...]


@calculation("flush-session", title="A flush as it runs", station="flush")
def flush_session(
    *,
    passes: list[FlushPass],
    water_uS_cm: float,
    stop_runoff_uS_cm: float,
    slope_per_L: float,
    round_L: float,
    pause_min: float,
    expected_first_uS_cm: float | None = None,
    refill_L: float = 0.0,
    pot: PotSpec | None = None,
    root_zone_uS_cm: float | None = None,
) -> Computed[LiveFlush]:
    """Litres left of a flush with their range, what the next runoff should read, and whether to stop.

    Parameters
    ----------
    passes : list[FlushPass]
        What was poured so far, in order, at most 60. [L, µS/cm, min]
    water_uS_cm : float
        EC of the flush water, 0 to 20 000. [µS/cm]
    stop_runoff_uS_cm : float
        Runoff at which to stop, above the water's own EC, to 20 000. [µS/cm]
    slope_per_L : float
        Expected fall of ln(runoff - water) a drained litre: efficiency over mobile water, 0.001 to 1000. [1/L]
    round_L : float
        Planned water of a pass, 0.01 to 1000. [L]
    pause_min : float
        Planned soak between passes, 0 to 2880. [min]
    expected_first_uS_cm : float
        What the first runoff should read, 0 to 50 000; empty: nobody knows. [µS/cm]
    refill_L : float
        What the pot takes up before it drains, 0 to 500. [L]
    pot : PotSpec
        The pot, so that a soak's rebound is reckoned; empty: the straight line stands. [L]
    root_zone_uS_cm : float
        Its root zone once full, before the flush, 0 to 50 000; with ``pot``. [µS/cm]

    Returns
    -------
    Computed
        Litres left with standard error and 80 % range, the next pass, the curve, the stop. [L, µS/cm, min]

    Raises
    ------
    OutOfRange
        If a number cannot be.
    InputError
        If more ran out than was poured, a pass lies before the one it follows, the stop is no higher than the
        water, or a runoff is ten times what is expected and was not read twice.

    Notes
    -----
    Readings closer to the water than three times their error are left out of the line. Stop after two readings at or
    under the stop, alike within 5 %; or when readings stay alike above it: then this water can do no more.

    References
    ----------
    E3.3; E3.4; E4.2; E4.5; E4.5b
    """
    if pot is not None:
        check_pot(pot)
    if root_zone_uS_cm is not None:
        require(root_zone_uS_cm, "Root zone", "µS/cm", low=0, high=50_000, pointer="/root_zone_uS_cm")
    check_flush(passes, water_uS_cm, stop_runoff_uS_cm, slope_per_L, round_L, pause_min, expected_first_uS_cm, refill_L)
    litres, readings, poured, drained, refill = [], [], 0.0, 0.0, refill_L
    done: list[Poured] = []
    after: list[float] = []
    for p in passes:
        poured += p.volume_L
        taken = min(refill, p.volume_L)
        refill -= taken
        ran = p.drained_L if p.drained_L is not None else p.volume_L - taken
        drained += ran
        after.append(drained)
        done.append(Poured(p.soaked_min / 60, ran, p.runoff_uS_cm))
        if p.runoff_uS_cm is not None:
            litres.append(drained)
            readings.append(p.runoff_uS_cm)
    ledger = Ledger("A flush as it runs", "One mobile water; a soak brings salt back.", ("pour-through", "judgement"))
    ledger.take("C_w", "flush water", water_uS_cm, "µS/cm", "measured")
    ledger.take("C_s", "runoff to stop at", stop_runoff_uS_cm, "µS/cm")
    ledger.take("b_0", "fall expected, efficiency over mobile water", slope_per_L, "1/L", "computed:flush-plan")
    ledger.take("V", "drained so far", drained, "L", "log")
    kept = [
        (v, r)
        for v, r in zip(litres, readings, strict=True)
        if r - water_uS_cm >= 3 * math.hypot(READING_SHARE * r / 2, READING_uS_cm / 2)
    ]
    if len(kept) < len(readings):
        ledger.caution("Readings that differ from the water by less than their error are left out of the line.")
    under = 0
    for r in reversed(readings):
        if r > stop_runoff_uS_cm:
            break
        under += 1
    alike = abs(readings[-1] / readings[-2] - 1) if len(readings) > 1 else None
    line = (
        trend([v for v, _ in kept], [r for _, r in kept], water_uS_cm, slope_per_L)
        if kept
        else _planned(expected_first_uS_cm, water_uS_cm, slope_per_L)
    )
    left = se = None
    if line is not None and line.b > 0:
        _, se = line.until(stop_runoff_uS_cm, water_uS_cm)
        ledger.found("a", "line at the first litre", line.a, "", "weighted line, E4.5")
        ledger.found("b", "fall a litre", line.b, "1/L", "weighted line, E4.5")
        ledger.step("V_s", "(a - ln(C_s - C_w)) / b", "L", "drained when it meets the stop")
        left = max(0.0, ledger.step("left", "V_s - V", "L", "litres left"))
        ledger.found("se", "standard error of them", se, "L", "gradient of the line, E4.5")
    tail = tailing_of(litres, readings, water_uS_cm)
    low_L = None if left is None or se is None else max(0.0, left - Z80 * se)
    high_L = None if left is None or se is None else left + Z80 * se
    within = None
    if pot is not None and root_zone_uS_cm is not None and root_zone_uS_cm > water_uS_cm:
        within = _Within(pot, root_zone_uS_cm, done, water_uS_cm, stop_runoff_uS_cm, round_L, pause_min / 60)
        left, low_L, high_L = within.left()
        se = None if left is None or low_L is None else (left - low_L) / Z80
        if left is not None:
            ledger.found(
                "fit", "litres left", left, "L", "the pot fitted to its runoffs, soaks reckoned, E3.3 and E3.4"
            )
    status, sentence, stop = _status(
        readings, stop_runoff_uS_cm, under, alike, tail, line, passes, pause_min, slope_per_L, within, left
    )
    nxt, soak = _next(status, left, se, poured, round_L, pause_min, refill)
    following: CurvePoint | None
    if within is not None:
        curve, following = within.curve(nxt, soak / 60, drained, refill)
    else:
        reach = drained + max(left or 0.0, nxt) + nxt
        points = [reach * k / (CURVE_POINTS - 1) for k in range(CURVE_POINTS)]
        curve = tuple(line.at(x, water_uS_cm) for x in points) if line is not None else ()
        following = None if line is None else line.at(drained + nxt - min(refill, nxt), water_uS_cm)
    return ledger.close(
        LiveFlush(
            status=status,
            sentence=sentence,
            stop=stop,
            poured_L=poured,
            drained_L=drained,
            left_L=left,
            left_se_L=se,
            left_low_L=low_L,
            left_high_L=high_L,
            next_pass_L=nxt,
            next_soak_min=soak,
            next_runoff=None if stop else following,
            slope_per_L=line.b if line is not None else slope_per_L,
            tailing=tail,
            alike=alike,
            under=under,
            drained_after=tuple(after),
            curve=curve,
        )
    )


class _Within:
    """The pot behind the runoffs: what is left, and the readings to come."""

    def __init__(
        self,
        pot: PotSpec,
        root_zone: float,
        done: list[Poured],
        water: float,
        stop: float,
        round_L: float,
        pause_h: float,
    ) -> None:
        W, m = capacity_L(pot), pot.medium
        believed = FlushedPot(root_zone, m.eta, (1 - m.phi) * W, m.phi * W, math.log(2) / m.t_half_h, m.R)
        self.done, self.water, self.stop, self.round_L, self.pause_h = done, water, stop, round_L, pause_h
        self.fit: Fit = fit(believed, done, water, FIT_SHARE, READING_uS_cm)

    def left(self) -> tuple[float | None, float | None, float | None]:
        """Litres left with their 80 % range; None: no number of rounds reaches the stop."""

        def of(p: FlushedPot) -> float | None:
            return litres_left(p, self.done, self.water, self.stop, self.round_L, self.pause_h)

        centre = of(self.fit.centre)
        if centre is None:
            return None, None, None
        most = ROUNDS_WIDE * self.round_L
        shifted = [most if x is None else x for x in (of(p) for p in self.fit.shifted)]
        low, high = spread_of(centre, shifted)
        return centre, max(0.0, low), high

    def curve(
        self, nxt: float, soak_h: float, drained: float, refill: float
    ) -> tuple[tuple[CurvePoint, ...], CurvePoint]:
        """The last runoff along the coming passes, with its 80 % range; the next one apart."""
        coming = [Poured(soak_h if self.done else 0.0, max(nxt - refill, 1e-6), None)]
        coming += [Poured(self.pause_h, self.round_L, None)] * AHEAD
        every = [*self.done, *coming]
        told = [run(p, every, self.water)[0] for p in (self.fit.centre, *self.fit.shifted)]
        litres, at = 0.0, []
        for one in every:
            litres += one.litres
            at.append(litres)
        points = []
        for i, x in enumerate(at):
            ln = [math.log(max(t[i], 1e-6)) for t in told]
            low, high = spread_of(ln[0], ln[1:])
            points.append(CurvePoint(x, told[0][i], math.exp(low), math.exp(high)))
        n = len(self.done)
        return tuple(points), points[n]


def _planned(first: float | None, water: float, slope: float) -> Trend | None:
    """Before the first reading: the line as planned, wide."""
    if first is None or first <= water:
        return None
    return Trend(math.log(first - water), slope, np.diag([0.3**2, (SLOPE_SPREAD * slope) ** 2]))


def _status(
    readings: list[float],
    stop: float,
    under: int,
    alike: float | None,
    tail: float | None,
    line: Trend | None,
    passes: list[FlushPass],
    pause_min: float,
    slope: float,
    within: _Within | None,
    left: float | None,
) -> tuple[LiveStatus, str, bool]:
    if not readings:
        return "no reading", "No runoff read yet: the plan stands.", False
    if under >= 2 and alike is not None and alike <= ALIKE:
        return (
            "target reached",
            f"Target reached: the last two, {readings[-2]:.0f} and {readings[-1]:.0f} µS/cm, agree.",
            True,
        )
    soaked = passes[-1].soaked_min >= 0.5 * pause_min
    flat = alike is not None and len(readings) > 2 and alike <= ALIKE and under == 0
    due = line is not None and slope * passes[-1].volume_L >= FALL_DUE if within is None else left is None
    if flat and due and soaked and readings[-1] > stop * (1 + ALIKE):
        return (
            "flattened out",
            f"Flattened out at {readings[-1]:.0f} µS/cm, above {stop:.0f} µS/cm: this water can do no more today. "
            "Rest it a day, use a purer water, or repot.",
            True,
        )
    if under >= 1:
        return "read once more", "Under the stop. Soak, pour a little, and read once more: two must agree.", False
    if within is None and tail is not None and tail < TAILING and not soaked:
        return (
            "soak first",
            "It falls slower than at first: salt sits inside the particles. Soak, then go on.",
            False,
        )
    if within is None and line is not None and line.b - Z80 * line.slope_sd <= 0:
        return "no trend", "No trend yet: the readings do not fall. Pour another pass and read again.", False
    return "falling", f"Falling: {readings[-1]:.0f} µS/cm, until {stop:.0f} µS/cm.", False


def _next(
    status: LiveStatus,
    left: float | None,
    se: float | None,
    poured: float,
    round_L: float,
    pause_min: float,
    refill: float,
) -> tuple[float, float]:
    """Litres of the next pass and the soak before it: never far past what is left."""
    if status in ("target reached", "flattened out"):
        return 0.0, 0.0
    if status == "read once more":
        return max(LEAST_L, CONFIRM_SHARE * poured), pause_min
    if poured == 0:
        probe = None if left is None or se is None else max(left - se, FIRST_SHARE * round_L)
        first = round_L if probe is None else min(FIRST_MOST * round_L, probe)
        return first + refill, 0.0
    if left is None:
        return round_L, pause_min
    return min(round_L, max(left - (se or 0.0), LEAST_PASS * poured, LEAST_L)), pause_min
