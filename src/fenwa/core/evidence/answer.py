"""Did it help? One change of one plant, against its twin, last year or its own trend."""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache
from statistics import fmean, median
from typing import Literal

from fenwa.core.constants import Z80
from fenwa.core.entry import capital, require
from fenwa.core.errors import InputError
from fenwa.core.evidence.chance import PRIOR_DF, Effect, posterior, t_over_normal
from fenwa.core.evidence.detectable import REPEATABILITY, TABLE, detectable_sds, mean_repeatability, own_repeatability
from fenwa.core.evidence.grade import COUNTS_FROM, Grade, evidence_grade
from fenwa.core.evidence.measures import LARGEST, MeasureFacts, facts_of, shown_change
from fenwa.core.evidence.pairs import chance_words
from fenwa.core.evidence.samples import USUAL_LEAST, Sample, Stage, stages_of
from fenwa.core.leaf.timing import Formed, formed_against, verdict_window
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Against = Literal["twin", "last year", "own trend"]
WIDER: dict[str, float] = {"twin": 1.0, "last year": 1.25, "own trend": math.sqrt(2)}  # judgement
NAMES: dict[str, str] = {"twin": "one pair", "last year": "one plant, last year beside it", "own trend": "one plant"}
JUST_BEFORE = 2  # finished leaves, or looks, that a plant is held against
LOOK_BACK_DAYS = 120  # a look longer before the change tells nothing of that day
MOST = 2000


@dataclass(frozen=True)
class Other:
    """Something else that changed: on both plants it cancels, on one it cannot be told from the change asked about."""

    on: date
    words: str
    whose: Literal["one", "both", "twin"] = "both"


@dataclass(frozen=True)
class Value:
    """A value with how it stands to the change; ``share``: of the twin's value formed nearest, None: no twin."""

    on: date
    value: float
    number: int | None
    formed: Formed
    weight: float
    share: float | None


@dataclass(frozen=True)
class Stronger:
    """What would make it stronger, and the 80 % range it would then have. None: costs nothing, narrows nothing."""

    what: str
    low_shown: float | None
    high_shown: float | None


@dataclass(frozen=True)
class Sight:
    """Smallest difference so many pairs would show four times in five. [%]"""

    pairs: int
    percent: float


@dataclass(frozen=True)
class DidItHelp:
    """The answer with its interval in the unit it is told in, its grade, and what would make it stronger.

    Effects None: nothing that can answer has been measured.
    """

    state: Literal["too early", "open", "over"]
    opens_on: date
    closes_on: date
    against: Against
    treated: tuple[Value, ...]
    control: tuple[Value, ...]
    measured_shown: float | None
    by_itself_shown: float | None
    middle_shown: float | None
    low_shown: float | None
    high_shown: float | None
    chance_up: float | None
    measured: float | None
    se: float | None
    counting: int
    grade: Grade
    because: tuple[str, ...]
    stages: tuple[Stage, ...]
    stronger: tuple[Stronger, ...]
    sight: tuple[Sight, ...]
    one_sided: tuple[Other, ...]
    shared: tuple[Other, ...]
    headline: str
    sentence: str


@dataclass(frozen=True)
class _Side:
    before: float | None
    after: float | None
    counting: int
    by_itself: float


def _side(
    samples: Sequence[Sample], change_on: date, opens: date, closes: date, facts: MeasureFacts, r: float
) -> _Side:
    """Where a plant stood before the change, what formed after it, and what would have come by itself."""

    def x(s: Sample) -> float:
        return math.log(s.value) if facts.log else s.value

    ordered = sorted(samples, key=lambda s: s.on)
    earlier = [s for s in ordered if s.on < change_on]
    if facts.by_leaf:
        late = [s for s in ordered if s.begun_on is not None and s.begun_on >= change_on]
        before = earlier[-JUST_BEFORE:]
        # the second that formed after it is the first that counts; until then the first is a hint
        after = late[COUNTS_FROM - 1 :] or late
        counting = len(late)
    else:
        late = [s for s in ordered if opens <= s.on]
        before = [s for s in earlier if (change_on - s.on).days <= LOOK_BACK_DAYS][-JUST_BEFORE:]
        after = [s for s in late if s.on <= closes] or late[:JUST_BEFORE]
        counting = len(after)
    if not before:
        return _Side(None, fmean(x(s) for s in after) if after else None, counting, 0.0)
    base = fmean(x(s) for s in before)
    itself = 0.0
    if len(earlier) >= USUAL_LEAST:
        mine = own_repeatability([x(s) for s in earlier], r)
        itself = (1 - mean_repeatability(mine, len(before))) * (median(x(s) for s in earlier) - base)
    return _Side(base, fmean(x(s) for s in after) if after else None, counting, itself)


def _values(
    samples: Sequence[Sample], twin: Sequence[Sample], change_on: date, facts: MeasureFacts
) -> tuple[Value, ...]:
    out = []
    beside = sorted(twin, key=lambda t: t.on)
    days = [t.on for t in beside]
    for s in sorted(samples, key=lambda s: s.on):
        begun = s.begun_on if s.begun_on is not None else s.on
        formed, weight = formed_against(s.on, begun, change_on)
        i = bisect_left(days, s.on)
        if i == len(days) or (i and s.on - days[i - 1] <= days[i] - s.on):
            i -= 1
        near = beside[i] if beside else None
        share = s.value / near.value if near is not None and facts.log and abs((near.on - s.on).days) <= 60 else None
        out.append(Value(s.on, s.value, s.number, formed, weight, share))
    return tuple(out)


@calculation("did-it-help", title="Did it help?", station="leaf", many_rows=True)
def did_it_help(
    *,
    change_on: date,
    words: str,
    treated: list[Sample],
    control: list[Sample],
    lag_low_days: float,
    lag_high_days: float,
    today: date,
    against: Against = "twin",
    measure: str = "leaf length",
    slow: bool = False,
    others: list[Other] | None = None,
    next_on: date | None = None,
    repeatability: float = REPEATABILITY,
) -> Computed[DidItHelp]:
    """Whether a dated change helped a plant, with its interval, its grade and what would make the answer stronger.

    Parameters
    ----------
    change_on : date
        The day of the change.
    words : str
        What it was, in words, at most 300 signs.
    treated : list[Sample]
        Values of the plant that was changed, at most 2 000; above 0 where the measure is a ratio.
    control : list[Sample]
        Values of the one it is held against over the same dates, at most 2 000; empty: none.
    lag_low_days : float
        First day the kind can answer such a change, 0 to 1 000. [d]
    lag_high_days : float
        Last day of it, 0 to 1 000. [d]
    today : date
        The day asked on.
    against : str
        ``twin``, ``last year`` or ``own trend``.
    measure : str
        What is measured.
    slow : bool
        Whether it hardly grows: then it takes twice as long.
    others : list[Other]
        What else changed, and on which of the two.
    next_on : date
        When its next leaf is expected; empty: not known.
    repeatability : float
        Of one value against its plant's usual, 0 to 1.

    Returns
    -------
    Computed
        State, stages, effect with its 80 % range, chance of its direction, grade, and what would narrow it.

    Raises
    ------
    OutOfRange, InputError
        If a value, a lag or the measure cannot be, or there are too many values.

    Notes
    -----
    What a plant chosen on a bad day regains by itself is taken off on both sides. Never proof.

    References
    ----------
    E7.2; E7.3; E7.5; E7.6; E7.13; E7.14; section 7.3
    """
    facts = facts_of(measure)
    for name, rows in (("treated", treated), ("control", control)):
        if len(rows) > MOST:
            raise InputError(f"{len(rows)} values. Give at most {MOST}.", pointer=f"/{name}")
        for i, s in enumerate(rows):
            least = 0 if facts.log else -LARGEST
            require(s.value, "Value", "", low=least, open_low=facts.log, high=100_000, pointer=f"/{name}/{i}/value")
    require(repeatability, "Repeatability", "", low=0, high=1, pointer="/repeatability")
    window = verdict_window(
        change_on=change_on, lag_low_days=lag_low_days, lag_high_days=lag_high_days, today=today, slow=slow
    ).result
    t = _side(treated, change_on, window.opens_on, window.closes_on, facts, repeatability)
    c = _side(control, change_on, window.opens_on, window.closes_on, facts, repeatability)
    held = c.before is not None and c.after is not None and against != "own trend"
    counting = min(t.counting, c.counting) if held else t.counting
    all_others = tuple(others or ())
    one_sided = tuple(o for o in all_others if o.whose != "both")
    if against != "twin":
        one_sided = ()  # nothing stands beside it: whatever else changed, changed too
    ledger = Ledger(
        "Did it help?",
        "One plant; what formed after the change against what was before it, its control over the same dates.",
        ("growth-analysis", "regression", "judgement"),
    )
    ledger.take("l", "values that can answer", counting, "", "log")
    ledger.take("r", "repeatability of one value", repeatability, "", "default:7.3")
    effect, measured, se, itself = None, None, None, None
    if t.before is not None and t.after is not None and window.state != "too early":
        effect, measured, se, itself = _effect(
            ledger, t, c, c.before is not None and c.after is not None, facts, against, max(1, counting)
        )
    else:
        ledger.step("w", "0 * l", "", "nothing to compare yet")
    chance = effect.above_zero if effect else 0.5
    graded = evidence_grade(
        pairs=1 if held and against == "twin" else 0,
        counting=counting if effect else 0,
        window_open=window.state != "too early",
        chance=chance,
        one_sided=len(one_sided),
    ).result
    if window.state == "too early":
        headline = f"Too early until {window.opens_on.isoformat()}"
        said = f"Too early until {window.opens_on.isoformat()}: the first day that can count."
    elif effect is None:
        headline = "Nothing to read yet"
        said = (
            "No finished leaf that formed after it was measured."
            if facts.by_leaf
            else "No look within its window measured it."
        )
        if t.before is None and t.after is not None:
            said = "Nothing was measured before the change: there is nothing to compare with."
    else:
        chosen = chance_words(facts, chance)
        headline = (
            "Cannot tell yet"
            if max(chance, 1 - chance) < 0.8
            else ("It helped, as it looks" if (chance > 0.5) == (facts.better > 0) else "It did harm, as it looks")
        )
        said = f"{capital(chosen)}; {NAMES[against]}: {graded.grade}."
    return ledger.close(
        DidItHelp(
            state=window.state,
            opens_on=window.opens_on,
            closes_on=window.closes_on,
            against=against,
            treated=_values(treated, control if against == "twin" else (), change_on, facts),
            control=_values(control, (), change_on, facts),
            measured_shown=None if measured is None else shown_change(facts, measured),
            by_itself_shown=None if itself is None else shown_change(facts, itself),
            middle_shown=shown_change(facts, effect.middle) if effect else None,
            low_shown=shown_change(facts, effect.low) if effect else None,
            high_shown=shown_change(facts, effect.high) if effect else None,
            chance_up=effect.above_zero if effect else None,
            measured=None if measured is None or itself is None else measured - itself,
            se=se,
            counting=counting,
            grade=graded.grade,
            because=graded.because,
            stages=stages_of(treated, change_on, window.opens_on, window.closes_on, today, facts, next_on),
            stronger=_stronger(measured, itself, counting, facts, against, next_on, bool(one_sided)),
            sight=_sight(facts),
            one_sided=one_sided,
            shared=tuple(o for o in all_others if o not in one_sided),
            headline=headline,
            sentence=said,
        )
    )


@cache
def _sight(facts: MeasureFacts) -> tuple[Sight, ...]:
    return tuple(Sight(n, shown_change(facts, (detectable_sds(n, True) or 0) * facts.pair_SD)) for n in TABLE)


def _few(leaves: int) -> float:
    """E7.14: error of the mean of so many leaves against two before them, over that of one leaf."""
    return math.sqrt((1 / JUST_BEFORE + 1 / max(1, leaves)) / (1 / JUST_BEFORE + 1))


def _effect(
    ledger: Ledger, t: _Side, c: _Side, held: bool, facts: MeasureFacts, against: Against, leaves: int
) -> tuple[Effect, float, float, float]:
    assert t.before is not None
    assert t.after is not None
    scale = "logarithm" if facts.log else facts.unit
    ledger.take("a_0", f"before, changed plant ({scale})", t.before, "", "log")
    ledger.take("a_1", "after", t.after, "", "log")
    change = "a_1 - a_0"
    if held:
        assert c.before is not None
        assert c.after is not None
        ledger.take("b_0", f"before, {against} ({scale})", c.before, "", "log")
        ledger.take("b_1", "after", c.after, "", "log")
        change = "(a_1 - a_0) - (b_1 - b_0)"
    measured = ledger.step("m", change, "", "measured difference")
    ledger.found("e", "would have come by itself", t.by_itself - (c.by_itself if held else 0.0), "", "section 7.3")
    itself = t.by_itself - (c.by_itself if held else 0.0)
    net = ledger.step("d", "m - e", "", "without what comes by itself")
    ledger.take("s", "usual scatter of a pair", facts.pair_SD, "", "default:E7.5")
    ledger.take("g", f"wider, held against {against}", WIDER[against], "", "judgement")
    ledger.take("n", "leaves or looks behind it", leaves, "", "log")
    ledger.step("f", "sqrt((0.5 + 1 / n) / 1.5)", "", "more leaves against two before, E7.14")
    ledger.found("k", "times wider than normal", t_over_normal(PRIOR_DF), "", "t law with 4 degrees of freedom")
    se = ledger.step("SE", "s * g * f * k", "", "its error")
    ledger.take("tau", "SD of true effects, before any data", facts.effect_SD, "", "default:E7.6")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    ledger.step("M", "d / SE**2 / (1 / SE**2 + 1 / tau**2)", "", "weighed against usual effects")
    ledger.step("S", "sqrt(1 / (1 / SE**2 + 1 / tau**2))", "", "its SD")
    ledger.step("low", "M - z * S", "", "80 % from")
    ledger.step("high", "M + z * S", "", "80 % to")
    return posterior(net, se, facts.effect_SD), measured, se, itself


def _range(net: float, sd: float, df: float, facts: MeasureFacts) -> tuple[float, float]:
    e = posterior(net, sd * t_over_normal(df), facts.effect_SD)
    return shown_change(facts, e.low), shown_change(facts, e.high)


def _stronger(
    measured: float | None,
    itself: float | None,
    counting: int,
    facts: MeasureFacts,
    against: Against,
    next_on: date | None,
    confounded: bool,
) -> tuple[Stronger, ...]:
    """The ranges after one more leaf, one more pair and six pairs, should they say the same as now."""
    net = (measured or 0.0) - (itself or 0.0)
    base = facts.pair_SD
    out = []
    when = f", about {next_on.day} {next_on:%b}" if next_on else ""
    more = "One more leaf" if facts.by_leaf else "One more look"
    both = " on both" if against == "twin" else ""
    low, high = _range(net, base * WIDER[against] * _few(counting + 1), PRIOR_DF, facts)
    out.append(Stronger(f"{more}{both}{when}", low, high))
    f = _few(max(2, counting))
    if against != "twin":
        low, high = _range(net, base * f, PRIOR_DF, facts)
        out.append(Stronger("A plant alike beside it, not changed", low, high))
    for n, what in ((2, "One more pair, drawn by coin"), (6, "Six pairs")):
        low, high = _range(net, base * f / math.sqrt(n), PRIOR_DF + n - 1, facts)
        out.append(Stronger(what, low, high))
    if confounded:
        out.append(Stronger("Change one thing next time", None, None))
    return tuple(out)
