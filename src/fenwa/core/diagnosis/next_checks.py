"""The next check: harm to the plant first, then cost, and what each would decide."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from fenwa.core.data.diagnosis_tables import Check, causes, checks, findings
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

ROT = ("wet", "path")  # causes that rot roots
ROT_LIKELY = 0.2  # their weight from which on roots may be rotten; judgement
LEAST_BITS = 0.02  # a check that would tell less is not asked for
ROOTS_WORTH_BITS = 0.15  # what handling roots has to tell at least
WORTH = 0.25  # of the most telling one: gentler checks that tell so much come first
ROOTS_BARED = 2  # harm from which on gentler checks must have been done
DEAR = 3  # cost from which a check waits behind the next harm: a week and its price are a burden too
LEADING = 0.05  # a cause under this weight is no reason for a check

State = Literal["done", "next", "open", "no reason", "not now"]


@dataclass(frozen=True)
class CauseWeight:
    """A cause with its weight."""

    cause: str
    weight: float


@dataclass(frozen=True)
class DoneCheck:
    """A check that was done, by hand or by the log, and what it found; empty: nothing told."""

    check: str
    on: date
    finding: str = ""


@dataclass(frozen=True)
class CheckWay:
    """How a check can come out: how likely, and which cause would lead then."""

    finding: str
    words: str
    chance: float
    leads: str


@dataclass(frozen=True)
class CheckStep:
    """A step of the stairs. ``bits``: what it is expected to tell."""

    id: str
    name: str
    how: str
    harm: int
    cost: int
    minutes: int
    costs_plant: str
    state: State
    decides: str
    bits: float
    ways: tuple[CheckWay, ...]
    found: str
    found_on: date | None
    why_not: str


@dataclass(frozen=True)
class NextChecks:
    """The stairs, gentlest first, and the one to do next. None: nothing left would decide."""

    steps: tuple[CheckStep, ...]
    next: str | None
    sentence: str


def gentleness(check: Check) -> tuple[int, int]:
    """Order in which checks are asked: harm to the plant, then cost; a dear one waits behind the next harm."""
    return check.harm + (1 if check.cost >= DEAR else 0), check.cost


def entropy_bits(weights: Sequence[float]) -> float:
    """How open a question is. [bit]"""
    return -sum(w * math.log2(w) for w in weights if w > 0)


def outcome_chances(check: Check) -> dict[str, dict[str, float]]:
    """P(outcome | cause) of a check: how often it comes out so, times the likelihood ratio, shared out; E8.4."""
    out: dict[str, dict[str, float]] = {}
    for c in causes().values():
        raw = {o.finding: o.share * c.findings.get(o.finding, 1.0) for o in check.outcomes}
        whole = sum(raw.values())
        out[c.id] = {k: v / whole for k, v in raw.items()} if whole else {}
    return out


def told_by(check: Check, weights: Mapping[str, float]) -> tuple[float, tuple[CheckWay, ...]]:
    """Information a check is expected to give, and each way it can come out. [bit]"""
    if not check.outcomes:
        return 0.0, ()
    given = outcome_chances(check)
    before = entropy_bits(list(weights.values()))
    gain, ways = before, []
    for o in check.outcomes:
        joint = {c: w * given[c].get(o.finding, 0.0) for c, w in weights.items()}
        chance = sum(joint.values())
        if chance <= 0:
            continue
        after = {c: j / chance for c, j in joint.items()}
        gain -= chance * entropy_bits(list(after.values()))
        leads = max(after, key=lambda c: after[c])
        ways.append(CheckWay(o.finding, findings()[o.finding].words, chance, causes()[leads].name))
    return max(0.0, gain), tuple(ways)


@calculation("next-checks", title="The gentlest next check", station="leaf")
def next_checks(
    *,
    weights: list[CauseWeight],
    done: list[DoneCheck] | None = None,
    signs: list[str] | None = None,
    resting: bool = False,
) -> Computed[NextChecks]:
    """Checks as stairs: harm to the plant first, then cost; the next is the gentlest that would tell enough.

    Parameters
    ----------
    weights : list[CauseWeight]
        Causes with their weights, each once, 0 to 1.
    done : list[DoneCheck]
        Checks done, at most 200.
    signs : list[str]
        Signs seen: a check of a sign is asked only where it is. Empty list: none; left out: any may be.
    resting : bool
        Whether the plant rests: its roots are left alone.

    Returns
    -------
    Computed
        Each step with what it would decide, and the next one.

    Raises
    ------
    OutOfRange, InputError
        If a weight cannot be, or a cause or check is not known.

    Notes
    -----
    Unpotting and cutting come last, and only after gentler checks were done. Where rot weighs a
    fifth or more, it is not flushed.

    References
    ----------
    E8.4; section 8
    """
    known = causes()
    told: dict[str, float] = {}
    for i, w in enumerate(weights):
        if w.cause not in known:
            raise InputError(
                f"Cause “{w.cause}” is not known. Choose one of {', '.join(known)}.", pointer=f"/weights/{i}/cause"
            )
        require(w.weight, "Weight", "", low=0, high=1, pointer=f"/weights/{i}/weight")
        told[w.cause] = w.weight
    whole = sum(told.values())
    if whole <= 0:
        raise InputError("No cause has a weight. Give one at least.", pointer="/weights")
    shares = {k: v / whole for k, v in told.items()}
    rotting = sum(shares.get(c, 0.0) for c in ROT) >= ROT_LIKELY
    by_check = {d.check: d for d in done or []}
    for i, d in enumerate(done or []):
        if d.check not in checks():
            raise InputError(
                f"Check “{d.check}” is not known. Choose one of {', '.join(checks())}.", pointer=f"/done/{i}/check"
            )
    info = {k: told_by(c, shares) for k, c in checks().items()}
    idle = {k for k, c in checks().items() if c.needs_sign and signs is not None and c.needs_sign not in signs}
    open_now = [k for k in checks() if k not in by_check and k not in idle]
    rough = {k for k in open_now if checks()[k].harm >= ROOTS_BARED and info[k][0] < ROOTS_WORTH_BITS}
    open_now = [k for k in open_now if k not in rough]  # roots are not handled for so little
    most = max((info[k][0] for k in open_now), default=0.0)
    enough = max(LEAST_BITS, WORTH * most)
    ordered = sorted(open_now, key=lambda k: gentleness(checks()[k]))
    chosen = next(
        (k for k in ordered if info[k][0] >= enough and not _not_now(checks()[k], by_check, info, resting, rotting)),
        None,
    )
    steps = tuple(
        _step(
            c, info[k], by_check.get(k), k == chosen, _not_now(c, by_check, info, resting, rotting), shares, k in idle
        )
        for k, c in checks().items()
    )
    ledger = Ledger("The gentlest next check", "Expected information from the tables.", ("information", "judgement"))
    ledger.found("H", "how open it is now", entropy_bits(list(shares.values())), "bit", "entropy of the weights")
    ledger.take("m", "most that a check would tell", most, "bit", "tables")
    ledger.take("q", "worth of the most telling", WORTH, "", "judgement")
    ledger.step("e", f"max({LEAST_BITS}, q * m)", "bit", "enough to be asked for")
    if chosen:
        ledger.found("b", f"{checks()[chosen].name}: expected", info[chosen][0], "bit", "E8.4")
        said = f"Next: {checks()[chosen].name}. {checks()[chosen].how}"
    else:
        said = "No check left would tell more: what leads is known well enough. Do one thing, and look again."
    return ledger.close(NextChecks(steps, chosen, said))


def _not_now(
    check: Check,
    done: Mapping[str, DoneCheck],
    info: Mapping[str, tuple[float, tuple[CheckWay, ...]]],
    resting: bool,
    rotting: bool,
) -> str:
    if check.harm < ROOTS_BARED:
        return ""
    if resting:
        return "It rests: leave its roots alone until it wakes."
    if check.id == "flush_one" and rotting:
        return "Not while roots may be rotten: no water until that is told."
    gentler = [c for c in checks().values() if c.harm < check.harm and c.harm < ROOTS_BARED and c.cost <= 1]
    left = [c.name for c in gentler if c.id not in done and c.harm == 0 and info[c.id][0] >= LEAST_BITS]
    if left:
        return f"First what touches nothing: {left[0]}."
    if check.harm > ROOTS_BARED and "tip_out" not in done:
        return "First slide the root ball out and put it back whole."
    return ""


def _step(
    check: Check,
    info: tuple[float, tuple[CheckWay, ...]],
    done: DoneCheck | None,
    is_next: bool,
    why_not: str,
    shares: Mapping[str, float],
    idle: bool,
) -> CheckStep:
    bits, ways = info
    apart = [causes()[c].short for c in check.separates if shares.get(c, 0.0) >= LEADING]
    state: State = "open"
    if done is not None:
        state = "done"
    elif is_next:
        state = "next"
    elif why_not:
        state = "not now"
    elif idle or bits < LEAST_BITS or not apart or (check.harm >= ROOTS_BARED and bits < ROOTS_WORTH_BITS):
        state = "no reason"
    words = findings()[done.finding].words if done is not None and done.finding in findings() else ""
    return CheckStep(
        id=check.id,
        name=check.name,
        how=check.how,
        harm=check.harm,
        cost=check.cost,
        minutes=check.minutes,
        costs_plant=check.costs_plant,
        state=state,
        decides=f"{' or '.join(apart[:3])}, or not" if apart else "nothing that leads now",
        bits=bits,
        ways=ways,
        found=words,
        found_on=done.on if done else None,
        why_not=why_not if state == "not now" else "",
    )
