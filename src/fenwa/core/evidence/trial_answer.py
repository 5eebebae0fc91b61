"""What a trial says so far: each pair by itself, then all of them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import mean

from fenwa.core.evidence.answer import DidItHelp, did_it_help
from fenwa.core.evidence.chance import EXACT_PAIRS
from fenwa.core.evidence.detectable import REPEATABILITY
from fenwa.core.evidence.grade import EvidenceGrade, Grade, evidence_grade
from fenwa.core.evidence.measures import facts_of
from fenwa.core.evidence.pairs import EffectFound, effect_of_groups, effect_of_pairs
from fenwa.core.evidence.samples import Sample
from fenwa.core.evidence.trial import PlannedPhase
from fenwa.core.working import Computed


@dataclass(frozen=True)
class TrialPair:
    """A pair with what was measured of both; ``left_out``: the reason, empty: it counts."""

    name: str
    changed: tuple[Sample, ...]
    unchanged: tuple[Sample, ...]
    left_out: str = ""
    one_sided: int = 0


@dataclass(frozen=True)
class PairSoFar:
    """A pair's own answer, and whether it counts."""

    name: str
    answer: DidItHelp
    counts: bool
    left_out: str


@dataclass(frozen=True)
class TrialAnswer:
    """All pairs together. ``effect`` None: no pair can be read yet."""

    pairs: tuple[PairSoFar, ...]
    effect: Computed[EffectFound] | None
    grade: EvidenceGrade
    sentence: str


@dataclass(frozen=True)
class Member:
    """A plant of a group, or the one plant of a trial in phases, with what was measured of it."""

    name: str
    samples: tuple[Sample, ...]
    changed: bool = False
    left_out: str = ""


def trial_answer(
    pairs: Sequence[TrialPair],
    *,
    started_on: date,
    lag_days: tuple[float, float],
    today: date,
    measure: str,
    drawn_by_coin: bool = True,
    slow: bool = False,
    repeatability: float = REPEATABILITY,
) -> TrialAnswer:
    """Each pair judged as any change is, and their differences put to the exact test.

    Pairs that cannot be read yet, or were left out by the rule told before, do not count.
    """
    found: list[PairSoFar] = []
    for p in pairs:
        answer = did_it_help(
            change_on=started_on,
            words="the trial began",
            treated=list(p.changed),
            control=list(p.unchanged),
            lag_low_days=lag_days[0],
            lag_high_days=lag_days[1],
            today=today,
            measure=measure,
            slow=slow,
            repeatability=repeatability,
        ).result
        counts = not p.left_out and answer.measured is not None and bool(p.unchanged) and answer.counting > 0
        found.append(PairSoFar(p.name, answer, counts, p.left_out))
    counted = [f for f in found if f.counts][:EXACT_PAIRS]
    effect = None
    if counted:
        effect = effect_of_pairs(differences=[f.answer.measured or 0.0 for f in counted], measure=measure)
    one_sided = sum(p.one_sided for p in pairs if not p.left_out)
    counting = min((f.answer.counting for f in counted), default=0)
    return _closed(found, effect, len(counted), counting, "pair", started_on, today, drawn_by_coin, one_sided)


def groups_answer(
    members: Sequence[Member],
    *,
    started_on: date,
    lag_days: tuple[float, float],
    today: date,
    measure: str,
    slow: bool = False,
) -> TrialAnswer:
    """Two groups: each plant against its own before, and the changes of both groups against each other."""
    found: list[PairSoFar] = []
    sides: dict[bool, list[float]] = {True: [], False: []}
    for m in members:
        answer = did_it_help(
            change_on=started_on,
            words="the trial began",
            treated=list(m.samples),
            control=[],
            lag_low_days=lag_days[0],
            lag_high_days=lag_days[1],
            today=today,
            measure=measure,
            against="own trend",
            slow=slow,
        ).result
        counts = not m.left_out and answer.measured is not None and answer.counting > 0
        found.append(PairSoFar(m.name, answer, counts, m.left_out))
        if counts and answer.measured is not None:
            sides[m.changed].append(answer.measured)
    effect = None
    if sides[True] and sides[False]:
        effect = effect_of_groups(changed=sides[True], unchanged=sides[False], measure=measure)
    counting = min((f.answer.counting for f in found if f.counts), default=0)
    n = min(len(sides[True]), len(sides[False]))
    return _closed(found, effect, n, counting, "plant a group", started_on, today, True, 0)


def phases_answer(
    member: Member, phases: Sequence[PlannedPhase], *, lag_low_days: float, today: date, measure: str
) -> TrialAnswer:
    """One plant: the changed against the unchanged phase of each block, by what formed late enough in each."""
    facts = facts_of(measure)
    differences = []
    for first, second in zip(phases[::2], phases[1::2], strict=True):
        means: dict[bool, float] = {}
        for phase in (first, second):
            opens = phase.since if facts.by_leaf else phase.since + timedelta(days=round(lag_low_days))
            values = [
                math.log(s.value) if facts.log else s.value
                for s in member.samples
                if opens <= (s.begun_on or s.on) <= min(phase.until, today)
            ]
            if values:
                means[phase.changed] = mean(values)
        if len(means) == 2:
            differences.append(means[True] - means[False])
    effect = effect_of_pairs(differences=differences, measure=measure) if differences else None
    started = phases[0].since
    return _closed([], effect, len(differences), 2 if differences else 0, "block", started, today, True, 0)


def _closed(
    found: Sequence[PairSoFar],
    effect: Computed[EffectFound] | None,
    n: int,
    counting: int,
    what: str,
    started_on: date,
    today: date,
    drawn: bool,
    one_sided: int,
) -> TrialAnswer:
    grade = evidence_grade(
        pairs=n,
        counting=counting,
        window_open=effect is not None,
        chance=effect.result.effect.above_zero if effect else 0.5,
        exact_p=effect.result.p if effect else 1.0,
        drawn_by_coin=drawn,
        one_sided=one_sided,
    ).result
    if effect is None:
        first = min((f.answer.opens_on for f in found), default=started_on)
        said = f"Too early until {first.isoformat()}." if today < first else f"No {what} can be read yet."
    else:
        said = f"{n} {what}{'s' if n != 1 and ' ' not in what else ''}: {effect.result.sentence}"
    return TrialAnswer(tuple(found), effect, grade, said)


def leaves_gained(changed: Sequence[int], unchanged: Sequence[int], grade: Grade) -> str:
    """Leaves gained since a trial began, changed against unchanged. Empty: nothing stands beside them."""
    if not changed or not unchanged:
        return ""
    n = min(len(changed), len(unchanged))
    pairs = "one pair" if n == 1 else f"{n} pairs"
    return f"Leaves gained: {sum(changed)} changed, {sum(unchanged)} unchanged; {pairs}, {grade}."
