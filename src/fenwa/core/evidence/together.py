"""Many answers to one question put together: as if all had one effect, and as if each had its own."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.constants import Z80
from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.evidence.chance import NORMAL, Effect, posterior
from fenwa.core.evidence.measures import facts_of, shown_change
from fenwa.core.evidence.pairs import chance_words
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MOST = 200
LEAST_ERROR = 1e-6  # no answer is surer: its square has to be one that can be divided by


@dataclass(frozen=True)
class Answer:
    """One answer: the difference it measured with its error."""

    name: str
    measured: float
    se: float


@dataclass(frozen=True)
class ForestRow:
    """An answer as the forest draws it, in the unit it is told in."""

    name: str
    measured_shown: float
    low_shown: float
    high_shown: float
    weight: float


@dataclass(frozen=True)
class Together:
    """All answers together. ``between``: SD of true effects between plants; ``unlike``: share of scatter due to it."""

    rows: tuple[ForestRow, ...]
    fixed: float
    fixed_se: float
    random: float
    random_se: float
    between: float
    unlike: float
    p: float
    effect: Effect
    middle_shown: float
    low_shown: float
    high_shown: float
    sentence: str


@calculation("effect-together", title="Many pairs of one question", station="leaf")
def effect_together(*, answers: list[Answer], measure: str = "leaf length") -> Computed[Together]:
    """Single answers to one question put together, with fixed and with random effects.

    Parameters
    ----------
    answers : list[Answer]
        Two to 200 answers: difference -1 000 to 1 000, its error 0.000 001 to 1 000; where the measure is a ratio both
        are of logarithms, and 10 at most.
    measure : str
        What was measured.

    Returns
    -------
    Computed
        Each answer with its 80 % range and weight, the effect both ways, and how unlike the answers are.

    Raises
    ------
    OutOfRange, InputError
        If there are too few or too many answers, or a figure cannot be.

    Notes
    -----
    Random effects by DerSimonian and Laird; the range told is theirs, weighed against usual effects.

    References
    ----------
    E7.12; E7.6
    """
    facts = facts_of(measure)
    if not 2 <= len(answers) <= MOST:
        raise InputError(f"{len(answers)} answers. Give 2 to {MOST}.", pointer="/answers")
    for i, x in enumerate(answers):
        require(x.measured, "Difference", "", low=-facts.largest, high=facts.largest, pointer=f"/answers/{i}/measured")
        require(x.se, "Error", "", low=LEAST_ERROR, high=facts.largest, pointer=f"/answers/{i}/se")
    w = [1 / x.se**2 for x in answers]
    total, squares = sum(w), sum(v * v for v in w)
    fixed = sum(v * x.measured for v, x in zip(w, answers, strict=True)) / total
    Q = sum(v * (x.measured - fixed) ** 2 for v, x in zip(w, answers, strict=True))
    k = len(answers)
    ledger = Ledger("Many pairs of one question", "Answers of different plants.", ("meta-analysis", "judgement"))
    ledger.take("k", "answers", k, "", "log")
    ledger.take("W", "sum of weights, 1 over each squared error", total, "", "log")
    ledger.take("W_2", "sum of their squares", squares, "", "log")
    ledger.found("F", "fixed effect: one for all", fixed, "", "weighted mean")
    ledger.found("Q", "scatter about it, in squared errors", Q, "", "sum of weights times squared distances")
    ledger.step("tau2", "max(0, (Q - (k - 1)) / (W - W_2 / W))", "", "variance of true effects between plants")
    between = math.sqrt(ledger.step("t", "tau2", "", "as it is used"))
    unlike = ledger.step(
        "I", "max(0, 1 - (k - 1) / max(Q, 0.000000001))", "", "share of scatter that is between plants"
    )
    v = [1 / (x.se**2 + between**2) for x in answers]
    random = sum(a * x.measured for a, x in zip(v, answers, strict=True)) / sum(v)
    ledger.found("R", "random effect: the middle of many", random, "", "mean weighted by 1 / (error² + tau2)")
    se = ledger.found("SE", "its error", math.sqrt(1 / sum(v)), "", "1 over the root of the sum of weights")
    effect = posterior(random, se, facts.effect_SD)
    ledger.take("tau_0", "SD of true effects, before any data", facts.effect_SD, "", "default:E7.6")
    ledger.step("M", "R / SE**2 / (1 / SE**2 + 1 / tau_0**2)", "", "weighed against usual effects")
    p = 2 * (1 - NORMAL.cdf(abs(random) / se))
    low, mid, high = (shown_change(facts, x) for x in (effect.low, effect.middle, effect.high))
    rows = tuple(
        ForestRow(
            x.name,
            shown_change(facts, x.measured),
            shown_change(facts, x.measured - Z80 * x.se),
            shown_change(facts, x.measured + Z80 * x.se),
            a / sum(v),
        )
        for a, x in zip(v, answers, strict=True)
    )
    said = (
        f"{k} answers together: {chance_words(facts, effect.above_zero)}; {signed(low)} to {signed(high)} {facts.unit}."
    )
    if unlike > 0.5:
        said += " The plants differ among themselves: look for what those that gained share."
    return ledger.close(
        Together(rows, fixed, math.sqrt(1 / total), random, se, between, unlike, p, effect, mid, low, high, said)
    )
