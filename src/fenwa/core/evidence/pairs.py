"""Pairs and groups: exact tests, and the effect with its interval."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.constants import Z80
from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.evidence.chance import (
    EXACT_LABELS,
    EXACT_PAIRS,
    Effect,
    labelings,
    pooled_scatter,
    posterior,
    relabel_p,
    scatter,
    sign_flip_p,
    t_over_normal,
)
from fenwa.core.evidence.measures import MeasureFacts, facts_of, shown_change
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

NOMINAL_P = 0.05


@dataclass(frozen=True)
class EffectFound:
    """An effect with its 80 % range, as measured and after weighing. ``*_shown``: in the unit it is told in.

    ``p``: exact, two-sided; ``least_p``: the smallest these plants can give.
    """

    measured: float
    sd: float
    df: float
    se: float
    effect: Effect
    measured_shown: float
    middle_shown: float
    low_shown: float
    high_shown: float
    p: float
    least_p: float
    sentence: str


def chance_words(measure: MeasureFacts, above: float) -> str:
    """How likely it went up or down, in words with a number out of 100; never more than a chance."""
    up = above >= 0.5
    share = above if up else 1 - above
    word, other = (measure.more, measure.less) if up else (measure.less, measure.more)
    if share >= 0.95:
        return f"probably {word}, {min(99, math.floor(100 * share))} in 100"
    if share >= 0.8:
        return f"likely {word}, {100 * share:.0f} in 100"
    return f"more likely {word} than {other}, {100 * share:.0f} in 100"


def _weigh(ledger: Ledger, measured: float, root: str, facts: MeasureFacts) -> tuple[float, Effect]:
    """Lines E7.5 and E7.6 from the shrunk scatter on; ``root``: how many differences stand behind the mean."""
    ledger.step("SE_0", root, "", "standard error")
    ledger.step("SE", "SE_0 * k", "", "widened for few degrees of freedom")
    ledger.take("tau", "SD of true effects, before any data", facts.effect_SD, "", "default:E7.6")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    ledger.step("M", "m / SE**2 / (1 / SE**2 + 1 / tau**2)", "", "weighed against usual effects")
    ledger.step("S", "sqrt(1 / (1 / SE**2 + 1 / tau**2))", "", "its SD")
    ledger.step("low", "M - z * S", "", "80 % from")
    ledger.step("high", "M + z * S", "", "80 % to")
    se = ledger.step("e", "SE", "", "error used")
    effect = posterior(measured, se, facts.effect_SD)
    ledger.found("P", "chance that it went up", effect.above_zero, "", "normal law of M and S")
    return se, effect


def _closed(
    ledger: Ledger,
    measured: float,
    sd: float,
    df: float,
    facts: MeasureFacts,
    p: float,
    least: float,
    root: str,
    of: str,
) -> Computed[EffectFound]:
    ledger.found("s", "scatter, shrunk to what is usual", sd, "", f"E7.5 with prior {facts.pair_SD:g}, 4 degrees")
    ledger.found("k", "times wider than normal", t_over_normal(df), "", f"t law with {df:g} degrees of freedom")
    se, effect = _weigh(ledger, measured, root, facts)
    ledger.found("p", "exact p, two-sided", p, "", of)
    low, mid, high = (shown_change(facts, x) for x in (effect.low, effect.middle, effect.high))
    said = f"{chance_words(facts, effect.above_zero)}; {signed(low)} to {signed(high)} {facts.unit}"
    if least > NOMINAL_P:
        said += f". A p under 0.05 cannot come of so few plants: {least:.2g} at least"
    return ledger.close(
        EffectFound(measured, sd, df, se, effect, shown_change(facts, measured), mid, low, high, p, least, f"{said}.")
    )


def _checked(values: list[float], name: str, facts: MeasureFacts, least: int, most: int, pointer: str) -> None:
    if not least <= len(values) <= most:
        raise InputError(f"{name}: {len(values)} values. Give {least} to {most}.", pointer=pointer)
    for i, v in enumerate(values):
        require(v, name, "", low=-facts.largest, high=facts.largest, pointer=f"{pointer}/{i}")


@calculation("effect-of-pairs", title="What pairs of plants show", station="leaf")
def effect_of_pairs(*, differences: list[float], measure: str = "leaf length") -> Computed[EffectFound]:
    """The effect in pairs of plants alike, one changed and one not, with an exact sign-flip test.

    Parameters
    ----------
    differences : list[float]
        Changed minus unchanged of each pair, 1 to 20, -1 000 to 1 000; where the measure is a ratio of
        logarithms, -10 to 10.
    measure : str
        What was measured: its usual scatter and effect are the priors.

    Returns
    -------
    Computed
        Measured and weighed effect with its 80 % range, the chance of its direction, and the exact p.

    Raises
    ------
    OutOfRange, InputError
        If there is no pair, too many, a difference cannot be, or the measure is unknown.

    Notes
    -----
    Never proof: the range is what these pairs and usual effects together make believable.

    References
    ----------
    E7.4; E7.5; E7.6; section 7.4
    """
    facts = facts_of(measure)
    _checked(differences, "Difference", facts, 1, EXACT_PAIRS, "/differences")
    n = len(differences)
    ledger = Ledger(
        "What pairs of plants show", "One changed, one not, over the same dates.", ("permutation", "judgement")
    )
    ledger.take("n", "pairs", n, "", "log")
    for i, d in enumerate(differences, 1):
        ledger.take(f"d{i}", f"pair {i}", d, "", "log")
    measured = ledger.step("m", "(" + " + ".join(f"d{i}" for i in range(1, n + 1)) + ") / n", "", "mean difference")
    s = scatter(differences, facts.pair_SD)
    of = f"share of the {2**n} sign patterns, E7.4"
    return _closed(ledger, measured, s.sd, s.df, facts, sign_flip_p(differences), 2 / 2**n, "s / sqrt(n)", of)


@calculation("effect-of-groups", title="What two groups of plants show", station="leaf")
def effect_of_groups(
    *, changed: list[float], unchanged: list[float], measure: str = "leaf length"
) -> Computed[EffectFound]:
    """The effect between two groups of plants that are no pairs, with an exact test over all relabelings.

    Parameters
    ----------
    changed : list[float]
        A value of each plant that was changed, 1 to 60, -1 000 to 1 000; where the measure is a ratio its
        logarithm, -10 to 10.
    unchanged : list[float]
        A value of each plant that was not, likewise.
    measure : str
        What was measured.

    Returns
    -------
    Computed
        Measured and weighed effect with its 80 % range, the chance of its direction, and the exact p.

    Raises
    ------
    OutOfRange, InputError
        If a group is empty or too large, a value cannot be, or the measure is unknown.

    Notes
    -----
    Beyond 200 000 relabelings the test is Student's, which by then agrees with the exact one.

    References
    ----------
    E7.4b; E7.5; E7.6; section 7.4
    """
    facts = facts_of(measure)
    _checked(changed, "Changed plant", facts, 1, 60, "/changed")
    _checked(unchanged, "Unchanged plant", facts, 1, 60, "/unchanged")
    a, b = len(changed), len(unchanged)
    ledger = Ledger("What two groups of plants show", "Plants alike, in no pairs.", ("permutation", "judgement"))
    ledger.take("a", "plants changed", a, "", "log")
    ledger.take("b", "plants unchanged", b, "", "log")
    ledger.take("x", "mean of the changed", sum(changed) / a, "", "log")
    ledger.take("y", "mean of the unchanged", sum(unchanged) / b, "", "log")
    measured = ledger.step("m", "x - y", "", "difference of means")
    s = pooled_scatter(changed, unchanged, facts.pair_SD)
    ways = labelings(a, b)
    if ways <= EXACT_LABELS:
        p, of = relabel_p(changed, unchanged), f"share of the {ways} relabelings, E7.4b"
    else:
        p, of = _student_p(changed, unchanged), f"Student's t: {ways:.0e} relabelings are too many to list"
    least = (2 if a == b else 1) / ways
    return _closed(ledger, measured, s.sd, s.df, facts, p, least, "s * sqrt(1 / a + 1 / b)", of)


def _student_p(first: list[float], second: list[float]) -> float:
    from scipy.stats import ttest_ind

    return float(ttest_ind(first, second).pvalue)
