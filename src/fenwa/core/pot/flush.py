"""How many litres in how many rounds bring a pot's reading down, and when that cannot work."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.pot.balance import Soil, State, exchange, leach, pour_through_reading, root_zone_from_reading
from fenwa.core.pot.specification import PotSpec, capacity_L, check_pot, leachate_L
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FlushStatus = Literal["not needed", "same day", "separate days", "impossible", "forbidden"]
FromAbove = Literal["yes", "yes_or_dunk", "rim_only", "tray_change", "water_change", "soak_rinse", "never"]

NOT_FROM_ABOVE: tuple[FromAbove, ...] = ("never", "tray_change", "water_change")
ROUNDS_A_DAY = 8
MAX_DAYS = 40  # more waterings than that are no flush: repot
MIN_ROUND_L = 0.01  # less cannot be poured
ROUND_SHARE = 2 / 3  # of the water held: the first guess for one round's water
PAUSE_HALF_TIMES = 1.5  # a pause of 1 to 2 half times lets the immobile water give back


@dataclass(frozen=True)
class FlushRound:
    """One round: water poured, mobile EC straight after, mean after the pause. [L, µS/cm]"""

    number: int
    volume_L: float
    runoff_uS_cm: float
    evened_out_uS_cm: float


@dataclass(frozen=True, kw_only=True)
class FlushPlan:
    """Litres, rounds and pauses; runoff to stop at; what one round can never pass."""

    status: FlushStatus
    sentence: str
    rounds: int
    round_L: float
    total_L: float
    pause_min: float
    stop_runoff_uS_cm: float | None
    end_reading_uS_cm: float | None
    one_round_floor_uS_cm: float
    separate_days: int | None
    schedule: tuple[FlushRound, ...]


def litres_at_once(C_0: float, C_t: float, C_w: float, eta: float, W_m_L: float) -> float:
    """Drained volume of one continuous flush, E4.1; infinity when the target cannot be met. [L]"""
    if C_0 <= C_t:
        return 0.0
    if C_t <= C_w:
        return math.inf
    return math.log((C_0 - C_w) / (C_t - C_w)) / eta * W_m_L


def stop_runoff_uS_cm(C_t: float, C_w: float, eta: float) -> float:
    """Runoff reading at which the mobile water has reached C_t, E4.2. [µS/cm]"""
    return C_w + eta * (C_t - C_w)


def flush_rounds(
    soil: Soil, C_0: float, C_w: float, volumes_L: list[float], pause_h: float
) -> tuple[State, list[FlushRound]]:
    """Rounds with pauses between, E4.3; the pot starts and stays at capacity."""
    state = State(float(soil.W_m_cc), C_0, C_0)
    out = []
    weight = soil.R * soil.W_i
    for n, V in enumerate(volumes_L, 1):
        after, runoff = leach(state.C_m, C_w, soil.eta, V / soil.W_m_cc)
        state = State(state.W_m, float(after), state.C_i)
        mean = (state.W_m * state.C_m + weight * state.C_i) / (state.W_m + weight)
        out.append(FlushRound(n, V, float(runoff), float(mean)))
        if n < len(volumes_L):
            state = exchange(soil, state, pause_h)
    return state, out


def separate_day_rounds(C_0: float, C_t: float, C_w: float, q: float) -> int:
    """Rounds with so long between each that all water evens out, E4.3c."""
    return math.ceil(math.log((C_t - C_w) / (C_0 - C_w)) / math.log(q) - 1e-9)


def rounds_a_day_apart(soil: Soil, C_0: float, C_t: float, C_w: float, volume_L: float) -> list[FlushRound] | None:
    """Rounds on days that follow each other, with the exchange a day allows, E4.3; None if too many are needed."""
    for n in (*range(1, 9), *range(10, MAX_DAYS + 1, 2)):
        _, schedule = flush_rounds(soil, C_0, C_w, [volume_L] * n, 24.0)
        if schedule[-1].evened_out_uS_cm <= C_t:
            return schedule
    return None


def _refusal(status: FlushStatus, sentence: str, floor: float) -> FlushPlan:
    return FlushPlan(
        status=status,
        sentence=sentence,
        rounds=0,
        round_L=0.0,
        total_L=0.0,
        pause_min=0.0,
        stop_runoff_uS_cm=None,
        end_reading_uS_cm=None,
        one_round_floor_uS_cm=floor,
        separate_days=None,
        schedule=(),
    )


def usual_round_L(pot: PotSpec) -> float:
    """Water of one round where nobody chose it: two thirds of the pot's own water, to 50 mL. [L]"""
    return max(0.05, math.ceil(capacity_L(pot) * ROUND_SHARE / 0.05) * 0.05)


def usual_pause_min(pot: PotSpec) -> float:
    """Soak between rounds where nobody chose it: one and a half half times, 10 minutes to 3 hours. [min]"""
    return min(max(PAUSE_HALF_TIMES * pot.medium.t_half_h * 60, 10.0), 180.0)


@calculation("flush-plan", title="Flush", station="flush")
def flush_plan(
    *,
    pot: PotSpec,
    root_zone_uS_cm: float,
    target_reading_uS_cm: float,
    water_uS_cm: float,
    round_L: float | None = None,
    pause_min: float | None = None,
    deficit_L: float = 0.0,
    from_above: FromAbove = "yes",
) -> Computed[FlushPlan]:
    """Litres and rounds that bring a pot's predicted reading down to a target.

    Parameters
    ----------
    pot : PotSpec
        Volume and medium. [L]
    root_zone_uS_cm : float
        Mean of all water in the pot as it stands now, 0 to 50 000. [µS/cm]
    target_reading_uS_cm : float
        Reading wanted afterwards. [µS/cm]
    water_uS_cm : float
        EC of the flush water. [µS/cm]
    round_L : float
        Water of one round, 0.01 to 1000; two thirds of the pot's own water when empty. [L]
    pause_min : float
        Pause between rounds, 0 to 2880; one and a half half times when empty. [min]
    deficit_L : float
        Water the pot takes up before anything drains, 0 to what its mobile water can be. [L]
    from_above : str
        How this kind of plant may be rinsed.

    Returns
    -------
    Computed
        Rounds, litres, pause, the runoff to stop at; or why it cannot work. [L, min, µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    What counts is the mean after the pause, not the runoff of the moment. A flush never
    gets below its own water, nor one round below what the immobile water gives back.

    References
    ----------
    E2.5; E4.1; E4.1b; E4.2; E4.3; E4.3b; E4.3c
    """
    check_pot(pot)
    require(root_zone_uS_cm, "Root zone", "µS/cm", low=0, high=50_000, pointer="/root_zone_uS_cm")
    require(
        target_reading_uS_cm,
        "Target reading",
        "µS/cm",
        low=0,
        open_low=True,
        high=20_000,
        pointer="/target_reading_uS_cm",
    )
    require(water_uS_cm, "EC of the flush water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    if round_L is not None:
        require(round_L, "Water of one round", "L", low=MIN_ROUND_L, high=1000, pointer="/round_L")
    if pause_min is not None:
        require(pause_min, "Pause", "min", low=0, high=2880, pointer="/pause_min")
    mobile = (1 - pot.medium.phi) * capacity_L(pot)
    require(
        deficit_L,
        "Refill before it drains",
        "L",
        low=0,
        high=mobile,
        pointer="/deficit_L",
        hint=f"This pot holds {mobile:.3g} L of mobile water: enter from 0 to that.",
    )
    ledger = Ledger(
        "Flush",
        "Medium defaults: litres good to a factor of 1.5 in bark and moss.",
        ("van-genuchten-wierenga-1976", "pour-through"),
    )
    ledger.take("W_cc", "water at capacity", capacity_L(pot), "L", "table:media")
    ledger.take("phi", "immobile share", pot.medium.phi, "", "table:media")
    ledger.take("eta", "leaching efficiency", pot.medium.eta, "", "table:media")
    ledger.take("R", "salt held at the particles, over that in the water", pot.medium.R, "", "table:media")
    ledger.take("C_now", "root zone as it stands", root_zone_uS_cm, "µS/cm", "computed:root-zone")
    ledger.take("D", "refill before anything drains", deficit_L, "L", "computed:root-zone")
    ledger.take("C_w", "flush water", water_uS_cm, "µS/cm", "measured")
    ledger.take("T", "reading wanted", target_reading_uS_cm, "µS/cm")
    ledger.take("V_L", "water a pour-through collects", leachate_L(pot), "L", "table:pour-through")
    W_m = ledger.step("W_m", "(1 - phi) * W_cc", "L", "mobile water")
    ledger.step("x", "V_L / W_m", "", "collected over mobile water")
    C_t = ledger.step("C_t", "1 + (T - 1) * x / (1 - exp(-eta * x))", "µS/cm", "root zone that gives this reading")
    # the refill is flush water, with its own salt: it thins the root zone no further than that
    ledger.step("S", "W_m + R * phi * W_cc", "L", "water that carries salt, what is held at the particles included")
    C_0 = ledger.step("C_0", "(C_now * (S - D) + C_w * D) / S", "µS/cm", "root zone once the pot is full")
    floor = ledger.step("C_f", "C_w + R * phi * W_cc / S * (C_0 - C_w)", "µS/cm", "what one round can never pass")
    if from_above in NOT_FROM_ABOVE:
        what = "change the water in the tray" if from_above == "tray_change" else "change its water"
        return ledger.close(_refusal("forbidden", f"Never rinse this kind from above: {what}, or repot.", floor))
    if C_0 <= C_t:
        said = "The reading is at or below the target already."
        if root_zone_uS_cm > C_t:
            said = "Once watered to capacity it reads no more than the target: nothing need drain."
        return ledger.close(_refusal("not needed", said, floor))
    if C_t <= water_uS_cm:
        return ledger.close(
            _refusal(
                "impossible",
                f"Impossible: the flush water itself, {water_uS_cm:.0f} µS/cm, is no purer than the "
                f"root zone wanted, {C_t:.0f} µS/cm. Use a purer water or repot.",
                floor,
            )
        )
    if C_t < water_uS_cm + max(20.0, 0.1 * water_uS_cm):
        ledger.caution("The target lies close to the flush water itself: the last litres do little.")
    ledger.step("V_1", "ln((C_0 - C_w) / (C_t - C_w)) / eta * W_m", "L", "mobile water alone, at once")
    volume = round_L if round_L is not None else usual_round_L(pot)
    half = pot.medium.t_half_h
    pause = pause_min if pause_min is not None else usual_pause_min(pot)
    soil = Soil(W_m, capacity_L(pot) - W_m, pot.medium.eta, pot.u, math.log(2) / half, pot.medium.R)
    stop = ledger.step("C_stop", "C_w + eta * (C_t - C_w)", "µS/cm", "runoff at which to stop, once evened out")
    days = rounds_a_day_apart(soil, C_0, C_t, water_uS_cm, volume)
    apart = len(days) if days else None
    ledger.assume("What counts is the mean once pause and night have evened the water out.")
    ledger.caution("Tip the saucer out afterwards; keep runoff from ponds and storm drains. Local rules go first.")
    ledger.caution("Plain water at the next watering; feed again from the one after, once the reading is in range.")
    for n in range(1, ROUNDS_A_DAY + 1):
        _, schedule = flush_rounds(soil, C_0, water_uS_cm, [volume] * n, pause / 60)
        end = schedule[-1].evened_out_uS_cm
        if end <= C_t:
            return _close(
                ledger=ledger,
                status="same day",
                volume=volume,
                pause=pause,
                deficit=deficit_L,
                stop=stop,
                floor=floor,
                days=apart,
                schedule=schedule,
            )
    if days is None:
        return ledger.close(
            _refusal(
                "impossible",
                f"Not with this water: {MAX_DAYS} rounds of {volume:.2f} L on as many days do not reach the target. "
                "Use larger rounds, a purer water, or repot.",
                floor,
            )
        )
    return _close(
        ledger=ledger,
        status="separate days",
        volume=volume,
        pause=24 * 60.0,
        deficit=deficit_L,
        stop=stop,
        floor=floor,
        days=apart,
        schedule=days,
    )


def _close(
    *,
    ledger: Ledger,
    status: FlushStatus,
    volume: float,
    pause: float,
    deficit: float,
    stop: float,
    floor: float,
    days: int | None,
    schedule: list[FlushRound],
) -> Computed[FlushPlan]:
    n, end = len(schedule), schedule[-1].evened_out_uS_cm
    ledger.found("n", "rounds", n, "", "rounds with pauses, E4.3")
    ledger.take("V", "water of one round", volume, "L")
    total = ledger.step("V_all", "n * V + D", "L", "water in all")
    ledger.found("C_e", "mean after the last round", end, "µS/cm", "rounds with pauses, E4.3")
    reading = ledger.step("reading", "1 + (C_e - 1) * (1 - exp(-eta * x)) / x", "µS/cm", "reading afterwards")
    word = "round" if n == 1 else "rounds"
    gap = f"{pause:.0f} min apart" if status == "same day" else "on separate days"
    if deficit > 0:
        ledger.assume(f"The pot takes up {deficit:.2f} L before it drains: wet it first and wait a quarter hour.")
    sentence = (
        f"{n} {word} of {volume:.2f} L"
        + (f", {gap}" if n > 1 else "")
        + f": {total:.2f} L in all"
        + (f", {deficit:.2f} L of it to refill the pot." if deficit >= 0.005 else ".")
    )
    if status == "separate days" and n > 6:
        sentence += " That is a lot of water for one pot: repotting may be kinder."
    return ledger.close(
        FlushPlan(
            status=status,
            sentence=sentence,
            rounds=n,
            round_L=volume,
            total_L=total,
            pause_min=pause,
            stop_runoff_uS_cm=stop,
            end_reading_uS_cm=reading,
            one_round_floor_uS_cm=floor,
            separate_days=days,
            schedule=tuple(schedule),
        )
    )


def reading_after(pot: PotSpec, root_zone_uS_cm: float) -> float:
    """Pour-through reading for a root zone of this pot, E2.5. [µS/cm]"""
    W_m = (1 - pot.medium.phi) * capacity_L(pot)
    return float(pour_through_reading(root_zone_uS_cm, pot.medium.eta, leachate_L(pot) / W_m))


def root_zone_for(pot: PotSpec, reading_uS_cm: float) -> float:
    """Root zone of this pot behind a pour-through reading; none behind less than the pure water poured. [µS/cm]"""
    W_m = (1 - pot.medium.phi) * capacity_L(pot)
    return max(0.0, float(root_zone_from_reading(reading_uS_cm, pot.medium.eta, leachate_L(pot) / W_m)))
