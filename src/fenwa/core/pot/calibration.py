"""What a pot's own readings teach of it, and how much better the next prediction became."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from statistics import median

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.fold import fold_log, rest_until
from fenwa.core.pot.folded import Folded, reading_of
from fenwa.core.pot.learning import Knowledge, Pooled, knowledge, with_pooled
from fenwa.core.pot.methods import WORDS, Method
from fenwa.core.pot.root_zone import check_events, check_readings
from fenwa.core.pot.specification import LEARNT, PotReading, PotSpec, WaterEvent, band, capacity_L, check_pot
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LEARNT_LITTLE = 0.2  # E3.14: a spread that shrank by less has not been told anything yet
NAMES = {
    "ln_eta": "leaching efficiency",
    "logit_u": "uptake of nutrients",
    "ln_E": "water lost a day",
    "ln_W": "water held",
}
UNITS = {"ln_eta": "", "logit_u": "", "ln_E": "L/d", "ln_W": "L"}
WELL_ABOVE_USUAL = 2.0  # times its own usual: salt; judgement
TOLD_SD = 5.0  # a spread as wide as that is no information


@dataclass(frozen=True)
class LearntValue:
    """A parameter before and after the readings, each with its 80 % range; ``narrowed``: of its spread, 0..1."""

    id: str
    name: str
    unit: str
    default: float
    default_low: float
    default_high: float
    learnt: float
    low: float
    high: float
    narrowed: float
    sentence: str


@dataclass(frozen=True)
class TaughtReading:
    """A reading with what the defaults and what was learnt before it expected of it. [µS/cm]"""

    on: date
    method: Method
    words: str
    measured_uS_cm: float
    expected_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    by_defaults_uS_cm: float
    off_sd: float
    fits: bool
    taught: bool
    sentence: str


@dataclass(frozen=True)
class LearntPot:
    """What was learnt, from how many readings, and the reading it predicts now beside that of the defaults. [µS/cm]"""

    sentence: str
    readings_used: int
    values: tuple[LearntValue, ...]
    readings: tuple[TaughtReading, ...]
    off_by_defaults: float | None
    off_learnt: float | None
    reading_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    default_reading_uS_cm: float
    default_low_uS_cm: float
    default_high_uS_cm: float
    pooled_pots: int
    newest_times_usual: float | None
    usual_uS_cm: float | None


@dataclass(frozen=True)
class OtherPot:
    """What the readings of another pot of the same mix and kind left known: shift from the default and SD."""

    parameter: str
    shift: float
    sd: float
    pots: int = 1


@calculation("calibrate-pot", title="What its readings taught", station="flush")
def calibrate_pot(
    *,
    pot: PotSpec,
    events: list[WaterEvent],
    today: date,
    readings: list[PotReading] | None = None,
    others: list[OtherPot] | None = None,
) -> Computed[LearntPot]:
    """Leaching efficiency, uptake, loss and water held of a pot, from its own readings and those of its like.

    Parameters
    ----------
    pot : PotSpec
        Volume, medium, uptake and losses, by default. [L, 1/d]
    events : list[WaterEvent]
        Pours in any order, with what ran out of them. [L, µS/cm]
    today : date
        The day to report for.
    readings : list[PotReading]
        Readings between pours, and crusts seen. [µS/cm]
    others : list[OtherPot]
        What pots of the same mix and kind tell: shift of a parameter (0 to ±5) and its SD (above 0 to 5).

    Returns
    -------
    Computed
        Each parameter before and after with its 80 % range, each reading with what was expected of it. [µS/cm]

    Raises
    ------
    OutOfRange, InputError
        If a value cannot be.

    Notes
    -----
    A reading moves state and parameters together, each by as much as it explains (a Kalman filter on the members of
    the band). One that is off by more than 2.5 standard deviations counts for less and is named. The salt itself
    stays uncertain by 4.5 % a pour, whatever the readings say.

    References
    ----------
    E3.14; E3.15
    """
    check_pot(pot)
    readings = readings or []
    check_events(events, today)
    check_readings(readings, today)
    for i, o in enumerate(others or []):
        if o.parameter not in LEARNT:
            raise InputError(
                f"“{o.parameter}” is not learnt. Give one of {', '.join(LEARNT)}.", pointer=f"/others/{i}/parameter"
            )
        require(o.shift, "Shift", "", low=-TOLD_SD, high=TOLD_SD, pointer=f"/others/{i}/shift")
        require(o.sd, "SD", "", low=0, open_low=True, high=TOLD_SD, pointer=f"/others/{i}/sd")
    pooled = tuple(Pooled(o.parameter, o.shift, o.sd, o.pots) for o in others or [])
    return told(pot, events, readings, today, fold_log(pot, events, today, readings), pooled)


def told(
    pot: PotSpec,
    events: list[WaterEvent],
    readings: list[PotReading],
    today: date,
    folded: Folded,
    pooled: tuple[Pooled, ...],
) -> Computed[LearntPot]:
    """What a fold that has taken its readings in says of the pot, beside one that took none."""
    plain = fold_log(pot, events, today, readings, learn=False)
    default = [float(o.expected_runoff_ec) for o in plain.observations]
    folded.members, folded.state = with_pooled([pot], folded.members, folded.state, [pooled])
    known = knowledge(folded.members.shifts[0])
    values = tuple(_value(pot, known[name]) for name in LEARNT)
    told_readings = tuple(
        TaughtReading(
            o.on,
            o.method,
            WORDS[o.method],
            o.runoff_ec,
            o.expected_runoff_ec,
            o.expected_low,
            o.expected_high,
            by_default,
            o.off_sd,
            o.fits,
            o.taught,
            _of_reading(o.runoff_ec, o.expected_runoff_ec, o.fits, o.taught),
        )
        for o, by_default in zip(folded.observations, default, strict=True)
    )
    now, then = rest_until(pot, folded, today), rest_until(pot, plain, today)
    reading, low, high = (float(v[0]) for v in band(reading_of(now.members, now.state)))
    default_reading, default_low, default_high = (float(v[0]) for v in band(reading_of(then.members, then.state)))
    used = [r for r in told_readings if r.taught]
    off = [abs(math.log(r.measured_uS_cm / r.by_defaults_uS_cm)) for r in used]
    off_learnt = [abs(math.log(r.measured_uS_cm / r.expected_uS_cm)) for r in used]
    ledger = Ledger(
        "What its readings taught",
        "To first order about the defaults; parameters by medium and kind until readings narrow them.",
        ("pour-through", "judgement"),
    )
    ledger.take("n", "readings that count", len(used), "", "log")
    for v in values:
        i = LEARNT.index(v.id)
        ledger.found(f"p{i}", v.name, v.learnt, v.unit, "filter over the log, E3.14")
        ledger.found(f"s{i}", f"{v.name}: spread left (SD)", known[v.id].sd, "", "filter over the log, E3.14")
        ledger.take(f"t{i}", f"{v.name}: spread by default (SD)", known[v.id].prior_sd, "", "table:priors")
        ledger.step(f"r{i}", f"1 - s{i} / t{i}", "", f"{v.name}: narrowed by")
    if used:
        ledger.found("off_d", "median error by the defaults", 100 * median(off), "%", "readings against predictions")
        ledger.found("off_l", "median error as learnt", 100 * median(off_learnt), "%", "readings against predictions")
    pots = max((p.pots for p in pooled), default=0)
    usual = times_usual([(r.method, r.measured_uS_cm) for r in told_readings])
    if pots:
        ledger.assume(f"{pots} other pot{'s' if pots > 1 else ''} of this mix and kind tell where this one begins.")
    for sentence in folded.said:
        ledger.caution(sentence)
    return ledger.close(
        LearntPot(
            _sentence(used, values, pots) + _against_usual(usual),
            len(used),
            values,
            told_readings,
            median(off) if used else None,
            median(off_learnt) if used else None,
            reading,
            low,
            high,
            default_reading,
            default_low,
            default_high,
            pots,
            usual[0] if usual else None,
            usual[1] if usual else None,
        )
    )


def _value(pot: PotSpec, k: Knowledge) -> LearntValue:
    def at(shift: float) -> float:
        if k.name == "logit_u":
            return pot.u if pot.u in (0.0, 1.0) else 1 / (1 + (1 - pot.u) / pot.u * math.exp(-shift))
        base = {
            "ln_eta": pot.medium.eta,
            "ln_E": pot.loss_per_day * capacity_L(pot),
            "ln_W": capacity_L(pot),
        }[k.name]
        return base * math.exp(shift)

    wide, left = Z80 * k.prior_sd, Z80 * k.sd
    little = k.narrowed < LEARNT_LITTLE
    said = "Its readings have not told this yet." if little else f"Known {100 * k.narrowed:.0f} % closer than before."
    return LearntValue(
        k.name,
        NAMES[k.name],
        UNITS[k.name],
        at(0.0),
        at(-wide),
        at(wide),
        at(k.shift),
        at(k.shift - left),
        at(k.shift + left),
        k.narrowed,
        said,
    )


def _of_reading(measured: float, expected: float, fits: bool, taught: bool) -> str:
    if not taught:
        return "Left out: kept, and teaches nothing."
    if fits:
        return "As expected, within what pot, method and pen allow."
    way = "above" if measured > expected else "below"
    high, low = "a fertilizer grain, first drops, or an unrinsed pen", "water that ran past, or the pen"
    why = high if measured > expected else low
    return f"Far {way} what fits: {why}. Read again, or leave it out; it counts for less until then."


def _against_usual(usual: tuple[float, float] | None) -> str:
    if usual is None or usual[0] < WELL_ABOVE_USUAL:
        return ""
    return f" The newest is {usual[0]:.1f} times its usual {usual[1]:.0f} µS/cm: salt, not thirst."


def times_usual(readings: list[tuple[Method, float]]) -> tuple[float, float] | None:
    """The newest reading over the middle of the pot's earlier ones by the same method, and that middle. None: no other.

    [µS/cm]
    """
    if not readings:
        return None
    method, newest = readings[-1]
    earlier = [ec for m, ec in readings[:-1] if m == method]
    usual = median(earlier) if earlier else None
    return None if not usual else (newest / usual, usual)


def _sentence(used: list[TaughtReading], values: tuple[LearntValue, ...], pots: int) -> str:
    if not used:
        return "Nothing read yet: medium and kind stand for it." + (f" {pots} pots like it help." if pots else "")
    n = f"{len(used)} reading{'s' if len(used) > 1 else ''}"
    best = max(values, key=lambda v: v.narrowed)
    if best.narrowed < LEARNT_LITTLE:
        return f"{n} set today’s salt; they have not told yet how this pot leaches or drinks."
    return f"{n} taught most of its {best.name}: {best.learnt:.2g}, by default {best.default:.2g}."
