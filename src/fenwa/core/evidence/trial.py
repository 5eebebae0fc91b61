"""A trial planned before it begins: pairs, coin, looks, and whether it can answer at all."""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.evidence.detectable import detectable_sds
from fenwa.core.evidence.measures import facts_of, shown_change
from fenwa.core.evidence.pairs import NOMINAL_P
from fenwa.core.leaf.line import RESTING
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Design = Literal["pairs", "groups", "one plant"]
MOST_PLANTS = 40
BLOCKS = 4  # of two phases each, for one plant, section 7.4
CARRIED_OVER = 0.1  # of the phase before: less does not blur the next
LEAVES_AFTER = 2
MOST_LEAF_DAYS = 730.0  # from a leaf to the next: slower plants are planned for as if so
LOOK_EVERY_DAYS = 14
SIZES_ALIKE = 0.35  # of ln size within a pair; judgement
LEAVE_OUT = (
    "Leave a pair out only if a plant dies, is stolen or is treated for a cause that has nothing to do with the "
    "question, and say so before its leaves are measured."
)


@dataclass(frozen=True)
class TrialPlant:
    """A plant that may take part. ``size``: its usual leaf or height, None: not measured; ``family``: divisions."""

    id: int
    name: str
    kind: str
    size: float | None = None
    family: str = ""
    unfit: str = ""  # why it cannot take part: resting, ill, isolated


@dataclass(frozen=True)
class PlannedPair:
    """Two plants alike, and which of them the coin told to change."""

    first: int
    second: int
    changed: int
    apart_pct: float | None


@dataclass(frozen=True)
class NoPart:
    """A plant that takes no part, and why."""

    id: int
    why: str


@dataclass(frozen=True)
class PlannedPhase:
    """A phase of one plant's trial: changed or as before; a flush stands before each."""

    since: date
    until: date
    changed: bool


@dataclass(frozen=True)
class TrialPlan:
    """A plan: who, which by coin, when to look, until when, and what it can show. ``sees`` in the measure's unit."""

    design: Design
    pairs: tuple[PlannedPair, ...]
    changed: tuple[int, ...]
    unchanged: tuple[int, ...]
    phases: tuple[PlannedPhase, ...]
    left_out: tuple[NoPart, ...]
    looks: tuple[date, ...]
    ends_on: date
    seed: int
    least_p: float
    can_answer: bool
    sees: float | None
    leave_out_rule: str
    sentence: str


def unfit_for_trial(phase: str, isolated: bool, under: str) -> str:
    """Why a plant cannot take part; empty: it can. ``under``: the question of the trial it is in already."""
    if phase in RESTING:
        return "It rests: it forms no leaf that could answer."
    if isolated:
        return "It stands apart: care differs from the others."
    return f"It is under trial already: {under}." if under else ""


def coin(seed: int, toss: int) -> bool:
    """A toss of the coin that is kept: the same seed tosses the same, so that anybody can look again."""
    return hashlib.sha256(f"fenwa trial {seed} toss {toss}".encode()).digest()[0] % 2 == 0


def waterings_to_forget(memory: float) -> float:
    """Waterings until less than a tenth of the phase before is left in the root zone; memory a = q (1 - e)^u."""
    return math.log(CARRIED_OVER) / math.log(memory)


def matched(plants: Sequence[TrialPlant]) -> tuple[list[tuple[TrialPlant, TrialPlant]], list[NoPart]]:
    """Pairs of one kind: divisions first, then the nearest in size; who finds nobody is left out with the reason."""
    left = [NoPart(p.id, p.unfit) for p in plants if p.unfit]
    fit = [p for p in plants if not p.unfit]
    pairs: list[tuple[TrialPlant, TrialPlant]] = []
    alone: list[TrialPlant] = []
    groups: dict[tuple[str, str], list[TrialPlant]] = {}
    for p in fit:
        groups.setdefault((p.kind, p.family), []).append(p)
    for (_, family), mine in sorted(groups.items()):
        if not family:
            alone += mine
            continue
        ordered = sorted(mine, key=lambda p: (p.size is None, p.size or 0.0, p.id))
        pairs += list(zip(ordered[::2], ordered[1::2], strict=False))
        alone += ordered[2 * (len(ordered) // 2) :]
    kinds: dict[str, list[TrialPlant]] = {}
    for p in alone:
        kinds.setdefault(p.kind, []).append(p)
    for _, mine in sorted(kinds.items()):
        ordered = sorted(mine, key=lambda p: (p.size is None, p.size or 0.0, p.id))
        i = 0
        while i < len(ordered):
            if i + 1 < len(ordered) and _alike(ordered[i], ordered[i + 1]):
                pairs.append((ordered[i], ordered[i + 1]))
                i += 2
            else:
                left.append(NoPart(ordered[i].id, "No plant of its kind is near its size."))
                i += 1
    return pairs, left


def _alike(a: TrialPlant, b: TrialPlant) -> bool:
    if not a.size or not b.size:
        return True  # not measured: the grower says they are alike by choosing them
    return abs(math.log(b.size / a.size)) <= SIZES_ALIKE


@calculation("trial-plan", title="A trial, planned before", station="leaf")
def trial_plan(
    *,
    plants: list[TrialPlant],
    design: Design,
    seed: int,
    starts_on: date,
    lag_low_days: float,
    lag_high_days: float,
    days_between_leaves: float,
    measure: str = "leaf length",
    interval_days: float = 7.0,
    memory: float = 0.0,
) -> Computed[TrialPlan]:
    """Who takes part, which of them the coin changes, when to look, and whether it can answer at all.

    Parameters
    ----------
    plants : list[TrialPlant]
        Plants that may take part, 1 to 40; sizes above 0 to 10 000.
    design : str
        ``pairs`` of plants alike, two ``groups``, or ``one plant`` in blocks of two phases.
    seed : int
        Of the coin, 0 to 1 000 000: kept, so that anybody can toss it again.
    starts_on : date
        The first day.
    lag_low_days : float
        First day the kind answers such a change, 0 to 1 000. [d]
    lag_high_days : float
        Last day of it, 1 to 1 000. [d]
    days_between_leaves : float
        Of the slowest plant, 1 to 730. [d]
    measure : str
        What is measured.
    interval_days : float
        Days between waterings, 0.5 to 365. [d]
    memory : float
        What a watering leaves of the root zone before it, 0 to below 1; one plant only: a flush makes it 0.

    Returns
    -------
    Computed
        The plan with its smallest p, the smallest difference it can show, and what is left out.

    Raises
    ------
    OutOfRange, InputError
        If a figure cannot be, or there are too few plants for the design.

    References
    ----------
    E7.4; E7.7; section 7.4
    """
    facts = facts_of(measure)
    if not 1 <= len(plants) <= MOST_PLANTS:
        raise InputError(f"{len(plants)} plants. Choose 1 to {MOST_PLANTS}.", pointer="/plants")
    if len({p.id for p in plants}) < len(plants):
        raise InputError("A plant was chosen twice. Choose each once.", pointer="/plants")
    for i, p in enumerate(plants):
        if p.size is not None:
            require(p.size, "Size", "mm", low=0, open_low=True, high=10_000, pointer=f"/plants/{i}/size")
    require(seed, "Seed", "", low=0, high=1_000_000, pointer="/seed")
    require(lag_low_days, "First day", "d", low=0, high=1000, pointer="/lag_low_days")
    require(lag_high_days, "Last day", "d", low=max(1, lag_low_days), high=1000, pointer="/lag_high_days")
    require(days_between_leaves, "Days between leaves", "d", low=1, high=MOST_LEAF_DAYS, pointer="/days_between_leaves")
    require(interval_days, "Days between waterings", "d", low=0.5, high=365, pointer="/interval_days")
    require(memory, "Memory", "", low=0, high=0.999, pointer="/memory")
    ledger = Ledger("A trial, planned before", "Two lag windows and two new leaves.", ("permutation", "judgement"))
    ledger.take("lag", "last day of an answer", lag_high_days, "d", "profile")
    ledger.take("D", "days between leaves", days_between_leaves, "d", "log")
    days = ledger.step("T", f"2 * lag + {LEAVES_AFTER} * D", "d", "until it is judged")
    pairs, left = matched(plants)
    planned: tuple[PlannedPair, ...] = ()
    changed: tuple[int, ...] = ()
    unchanged: tuple[int, ...] = ()
    phases: tuple[PlannedPhase, ...] = ()
    if design == "one plant":
        fit = [p for p in plants if not p.unfit]
        if len(fit) != 1:
            raise InputError(f"{len(fit)} plants that can take part. Choose one.", pointer="/plants")
        left = [x for x in left if x.id != fit[0].id]
        phases = _phases(ledger, seed, starts_on, lag_high_days, interval_days, memory)
        changed, unchanged = (fit[0].id,), (fit[0].id,)
        n, least, sds = BLOCKS, 2 / 2**BLOCKS, detectable_sds(BLOCKS, True)
        ends = phases[-1].until
        what = f"{BLOCKS} blocks"
    elif design == "pairs":
        if not pairs:
            raise Underspecified("No two plants of one kind are alike in size. Choose others.", pointer="/plants")
        planned = tuple(_pair(a, b, coin(seed, i)) for i, (a, b) in enumerate(pairs))
        changed = tuple(p.changed for p in planned)
        unchanged = tuple(p.second if p.changed == p.first else p.first for p in planned)
        n, least, sds = len(planned), min(1.0, 2 / 2 ** len(planned)), detectable_sds(len(planned), True)
        ends = starts_on + timedelta(days=round(days))
        what = f"{n} {'pair' if n == 1 else 'pairs'}"
    else:
        fit = [p for p in plants if not p.unfit]
        left = [x for x in left if any(p.id == x.id and p.unfit for p in plants)]
        if len(fit) < 2:
            raise Underspecified("Two groups need two plants at least. Choose more.", pointer="/plants")
        order = sorted(fit, key=lambda p: hashlib.sha256(f"fenwa trial {seed} plant {p.id}".encode()).digest())
        changed, unchanged = tuple(p.id for p in order[::2]), tuple(p.id for p in order[1::2])
        n = len(unchanged)
        least = min(1.0, (2 if len(changed) == n else 1) / math.comb(len(fit), n))
        sds = detectable_sds(n, False)
        ends = starts_on + timedelta(days=round(days))
        what = f"{len(changed)} and {n} plants"
    ledger.take("n", "pairs, blocks or plants a group", n, "", "entered")
    ledger.found("p_0", "smallest p these can give", least, "", "E7.4, counted")
    spread = facts.pair_SD if design != "groups" else facts.pair_SD / math.sqrt(2)
    ledger.take("SD", "usual scatter of a difference", spread, "", "default:E7.5")
    sees = None if sds is None else shown_change(facts, sds * spread)
    if sds is not None:
        ledger.found("d", "smallest difference, in SDs", sds, "SD", "noncentral t test, E7.7")
        ledger.step("delta", "d * SD", "", "smallest difference that shows")
    can = least < NOMINAL_P
    if not can:
        ledger.caution("A p under 0.05 cannot come of so few: the estimate is told with its range instead.")
    return ledger.close(
        TrialPlan(
            design=design,
            pairs=planned,
            changed=changed,
            unchanged=unchanged,
            phases=phases,
            left_out=tuple(left),
            looks=_looks(starts_on, ends, lag_low_days),
            ends_on=ends,
            seed=seed,
            least_p=least,
            can_answer=can,
            sees=sees,
            leave_out_rule=LEAVE_OUT,
            sentence=_said(what, can, least, sees, facts.unit, ends),
        )
    )


def _said(what: str, can: bool, least: float, sees: float | None, unit: str, ends: date) -> str:
    if sees is None:
        far = "no difference would show"
    else:
        far = f"a difference of {sees:.0f} {unit} or more would show four times in five"
    until = f"Judged on {ends.isoformat()}."
    if can:
        return f"{what}: {far}. {until}"
    return (
        f"{what}: {far}. No answer to be called sure is possible: p is {least:.2g} at best. "
        f"The estimate and its range will be told. {until}"
    )


def _pair(a: TrialPlant, b: TrialPlant, first_changes: bool) -> PlannedPair:
    apart = 100 * (max(a.size, b.size) / min(a.size, b.size) - 1) if a.size and b.size else None
    return PlannedPair(a.id, b.id, a.id if first_changes else b.id, apart)


def _looks(starts_on: date, ends_on: date, lag_low: float) -> tuple[date, ...]:
    """A look before it begins, one when it can first answer, then every fortnight to the last day."""
    looks = [starts_on]
    on = starts_on + timedelta(days=max(LOOK_EVERY_DAYS, round(lag_low)))
    while on < ends_on and len(looks) < 60:
        looks.append(on)
        on += timedelta(days=LOOK_EVERY_DAYS)
    return (*looks, ends_on)


def _phases(
    ledger: Ledger, seed: int, starts_on: date, lag_high: float, interval: float, memory: float
) -> tuple[PlannedPhase, ...]:
    """Blocks of two phases, AB or BA by coin; each phase as long as the lag, and as long as the pot remembers."""
    ledger.take("i", "days between waterings", interval, "d", "log")
    ledger.take("a", "what a watering leaves of the one before", memory, "", "balance")
    forget = (
        ledger.step("w", f"ln({CARRIED_OVER}) / ln(a)", "", "waterings until it is forgotten") if memory > 0 else 0.0
    )
    length = ledger.step("L", "max(lag, i * w)" if forget else "lag", "d", "days a phase")
    if forget * interval > lag_high:
        ledger.caution("The pot remembers longer than the plant needs to answer: flush before each phase.")
    out = []
    on = starts_on
    for block in range(BLOCKS):
        first = coin(seed, block)
        for changed in (first, not first):
            until = on + timedelta(days=round(length) - 1)
            out.append(PlannedPhase(on, until, changed))
            on = until + timedelta(days=1)
    return tuple(out)
