"""Causes weighed against what was seen and what the log holds, each leaf by the days it formed in."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from fenwa.core.data.diagnosis_tables import Cause, Forbidden, causes, findings, readings, signs
from fenwa.core.diagnosis.evidence import (
    Exposure,
    Finding,
    FormedLeaf,
    OwnCases,
    SeenSign,
    check_evidence,
    exposed_share,
)
from fenwa.core.entry import capital
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

TEMPER = 0.6  # E8.1: signs go together, a crisp tip and a brown tip are not two facts
MARKED_UNEXPOSED, MARKED_EXPOSED = 0.15, 0.70  # E8.3: a leaf is marked so often without and with the cause; judgement
NOT_TOLD = 0.5  # exposure where the log cannot tell
OWN_SIGNS, OWN_PRIOR = 10.0, 50.0  # pseudo-cases that the tables count against the grower's own
LIKELY, POSSIBLE, NOT_EXCLUDED = 0.40, 0.12, 0.03
SECOND = 1 / 3  # of the first: two causes at once
SHOWN = 3

Word = Literal["likely", "possible", "not excluded", "unlikely", "excluded"]


@dataclass(frozen=True)
class Piece:
    """A piece of evidence in words, with its day. ``leaf``: its number; None: of no leaf."""

    words: str
    on: date | None = None
    leaf: int | None = None


@dataclass(frozen=True)
class LikelyCause:
    """A cause in words; ``weight`` orders it and is never shown as a verdict."""

    id: str
    name: str
    word: Word
    weight: float
    speaks_for: tuple[Piece, ...]
    speaks_against: tuple[Piece, ...]
    decides: str


@dataclass(frozen=True)
class LikelyCauses:
    """Causes in order. ``together``: two at once or one after the other, empty: one; ``by_leaf``: who leads on each."""

    order: tuple[LikelyCause, ...]
    excluded: tuple[LikelyCause, ...]
    together: str
    by_leaf: tuple[tuple[int | None, str], ...]
    sentence: str

    @property
    def best(self) -> tuple[LikelyCause, ...]:
        """The three that a page shows."""
        return self.order[:SHOWN]

    def weight_of(self, *ids: str) -> float:
        """Weight of some causes together."""
        return sum(c.weight for c in self.order if c.id in ids)


def sign_chance(cause: Cause, sign: str, own: OwnCases | None) -> float:
    """P(sign | cause), moved by the grower's closed cases: Beta counts with ten pseudo-cases."""
    base = cause.signs[sign]
    if own is None or not own.closed:
        return base
    return (OWN_SIGNS * base + dict(own.signs).get(sign, 0)) / (OWN_SIGNS + own.closed)


def priors(own: Mapping[str, OwnCases], factors: Mapping[str, float] | None = None) -> dict[str, float]:
    """How likely each cause is before anything is seen: the table, the grower's cases, and a school's leaning."""
    total = sum(c.closed for c in own.values())
    out = {}
    for c in causes().values():
        mine = own[c.id].closed if c.id in own else 0
        out[c.id] = (OWN_PRIOR * c.prior + mine) / (OWN_PRIOR + total) * (factors or {}).get(c.id, 1.0)
    whole = sum(out.values())
    return {k: v / whole for k, v in out.items()}


def leaf_ratio_of(share: float | None, marked: bool) -> float:
    """E8.3: how much a leaf speaks for a cause by its exposure; 1 where the log cannot tell."""
    if share is None:
        return 1.0

    def chance(x: float) -> float:
        return MARKED_UNEXPOSED + (MARKED_EXPOSED - MARKED_UNEXPOSED) * x

    here, told = chance(share), chance(NOT_TOLD)
    return here / told if marked else (1 - here) / (1 - told)


@dataclass(frozen=True)
class _Weighed:
    prior: float
    by_signs: float
    by_findings: float
    by_leaves: float
    excluded: str
    shares: tuple[float | None, ...]

    @property
    def product(self) -> float:
        return 0.0 if self.excluded else self.prior * self.by_signs * self.by_findings * self.by_leaves


def _began_after(exposure: Exposure, seen: Sequence[SeenSign], cause: Cause) -> bool:
    """Whether every span of a cause lies after the signs were first seen: then it made none of them."""
    days = [s.on for s in seen if s.seen and s.on is not None]
    if not days or not exposure.spans or exposure.known_since > min(days):
        return False
    return all(span.since > max(days) for span in exposure.spans)


def _weigh(
    cause: Cause,
    prior: float,
    seen: Sequence[SeenSign],
    found: Sequence[Finding],
    leaves: Sequence[FormedLeaf],
    exposure: Exposure | None,
    own: OwnCases | None,
) -> _Weighed:
    by_signs = 1.0
    for s in seen:
        p = sign_chance(cause, s.id, own)
        by_signs *= p if s.seen else 1 - p
    by_findings = math.prod(cause.findings.get(f, 1.0) for f in {f.id for f in found})
    shares = tuple(None if exposure is None else exposed_share(exposure, cause, leaf) for leaf in leaves)
    by_leaves = math.prod(leaf_ratio_of(x, leaf.marked) for x, leaf in zip(shares, leaves, strict=True))
    excluded = ""
    marked = [x for x, leaf in zip(shares, leaves, strict=True) if leaf.marked]
    if exposure is not None:
        if marked and exposure.spans and all(x == 0 for x in marked):
            excluded = "It began after every marked leaf had formed."
        elif not marked and _began_after(exposure, seen, cause):
            excluded = "It began after the sign was seen."
    return _Weighed(prior, by_signs**TEMPER, by_findings, by_leaves**TEMPER, excluded, shares)


@calculation("likely-causes", title="What is likely wrong", station="leaf", many_rows=True)
def likely_causes(
    *,
    seen: list[SeenSign],
    found: list[Finding] | None = None,
    leaves: list[FormedLeaf] | None = None,
    exposures: list[Exposure] | None = None,
    own: list[OwnCases] | None = None,
    reading: str = "",
    school: str = "",
) -> Computed[LikelyCauses]:
    """Causes in order, by what was seen and not seen, what the log found, and which leaves formed in what.

    Parameters
    ----------
    seen : list[SeenSign]
        Signs seen, or looked for and not seen, each once, at most 500.
    found : list[Finding]
        What the log or a check found, at most 500.
    leaves : list[FormedLeaf]
        Leaves marked and clean, with the days they formed in, at most 500.
    exposures : list[Exposure]
        When the plant was exposed to a cause, as far as the log knows, at most 500.
    own : list[OwnCases]
        The grower's closed cases.
    reading : str
        A sign that growers read two ways, by its id; empty: none leans.
    school : str
        ``first`` or ``second`` of that reading.

    Returns
    -------
    Computed
        Causes by words, with what speaks for and against each, and whether there are two.

    Raises
    ------
    InputError, OutOfRange
        If a sign, finding, cause, reading or school is not known or told twice, or days are turned round.

    Notes
    -----
    Weights order; they are expert judgement of low confidence and never a verdict. A cause whose days all lie after
    the sign is excluded for it.

    References
    ----------
    E8.1; E8.2; E8.3; section 8
    """
    facts, formed, exposed, cases = found or [], leaves or [], exposures or [], own or []
    check_evidence(seen, facts, formed, exposed, cases)
    factors = _factors(reading, school)
    mine = {c.cause: c for c in cases}
    by_cause = {e.cause: e for e in exposed}
    start = priors(mine, factors)
    weighed = {
        c.id: _weigh(c, start[c.id], seen, facts, formed, by_cause.get(c.id), mine.get(c.id)) for c in causes().values()
    }
    total = sum(w.product for w in weighed.values())
    weights = {k: w.product / total for k, w in weighed.items()}
    ordered = sorted(weights, key=lambda k: -weights[k])
    told = [_told(causes()[k], weights[k], weighed[k], seen, facts, formed, by_cause.get(k), start) for k in ordered]
    by_leaf = _by_leaf(weighed, formed)
    together = _together(told, by_leaf)
    ledger = Ledger("What is likely wrong", "Expert judgement; closed cases move it.", ("judgement",))
    ledger.take("n", "signs seen", sum(s.seen for s in seen), "", "log")
    ledger.take("a", "signs looked for and not seen", sum(not s.seen for s in seen), "", "log")
    ledger.take("T", "temper: signs go together", TEMPER, "", "default:E8.1")
    for i, k in enumerate(ordered[:SHOWN], 1):
        w = weighed[k]
        ledger.found(f"p{i}", f"{causes()[k].short}: before", w.prior, "", "table, own cases, school")
        ledger.found(f"s{i}", "signs, tempered", w.by_signs, "", "product of P(sign) or 1 - P(sign), to the power T")
        ledger.found(f"f{i}", "findings", w.by_findings, "", "product of likelihood ratios")
        ledger.found(f"l{i}", "leaves by their days, tempered", w.by_leaves, "", "E8.3")
        ledger.step(f"w{i}", f"p{i} * s{i} * f{i} * l{i}", "", "weight before sharing out")
    best = told[0]
    others = ", ".join(c.name for c in told[1:SHOWN] if c.word in ("likely", "possible"))
    said = f"{capital(best.word)}: {best.name}." + (f" Possible too: {others}." if others else "")
    return ledger.close(
        LikelyCauses(
            tuple(c for c in told if c.word != "excluded"),
            tuple(c for c in told if c.word == "excluded"),
            together,
            by_leaf,
            f"{said} {together}".strip(),
        )
    )


def _factors(reading: str, school: str) -> Mapping[str, float]:
    if not reading:
        return {}
    row = readings().get(reading)
    if row is None:
        raise InputError(
            f"Reading “{reading}” is not known. Choose one of {', '.join(readings())}.", pointer="/reading"
        )
    if school not in ("first", "second"):
        raise InputError(f"School “{school}” is not known. Choose first or second.", pointer="/school")
    return (row.first if school == "first" else row.second).factors


def word_of(weight: float, excluded: bool) -> Word:
    """A weight in words."""
    if excluded:
        return "excluded"
    if weight >= LIKELY:
        return "likely"
    if weight >= POSSIBLE:
        return "possible"
    return "not excluded" if weight >= NOT_EXCLUDED else "unlikely"


def _told(
    cause: Cause,
    weight: float,
    w: _Weighed,
    seen: Sequence[SeenSign],
    found: Sequence[Finding],
    leaves: Sequence[FormedLeaf],
    exposure: Exposure | None,
    start: Mapping[str, float],
) -> LikelyCause:
    yes: list[Piece] = []
    no: list[Piece] = []
    for f in found:
        ratio = cause.findings.get(f.id, 1.0)
        if ratio != 1.0:
            (yes if ratio > 1 else no).append(Piece(f.words or findings()[f.id].words, f.on))
    for leaf, share in zip(leaves, w.shares, strict=True):
        name = f"leaf {leaf.number}" if leaf.number is not None else "a leaf"
        if share is None or exposure is None:
            continue
        what = exposure.words or cause.short
        if leaf.marked and share >= 0.5:
            yes.append(Piece(f"{name} formed in it: {what}", leaf.seen_on, leaf.number))
        elif leaf.marked and share == 0:
            no.append(Piece(f"{name} was marked without it", leaf.seen_on, leaf.number))
        elif not leaf.marked and share >= 0.5:
            no.append(Piece(f"{name} formed in it and is clean", leaf.seen_on, leaf.number))
    for s in seen:
        usual = sum(start[c.id] * c.signs[s.id] for c in causes().values())
        ratio = cause.signs[s.id] / usual if s.seen else (1 - cause.signs[s.id]) / (1 - usual)
        words = signs()[s.id].words
        if s.seen and ratio >= 1.3:
            yes.append(Piece(words, s.on))
        elif s.seen and ratio <= 0.6:
            no.append(Piece(f"{words}: rare with it", s.on))
        elif not s.seen and ratio <= 0.7:
            no.append(Piece(f"no {words}", s.on))
    if w.excluded:
        no.insert(0, Piece(w.excluded, exposure.spans[0].since if exposure and exposure.spans else None))
    return LikelyCause(
        cause.id, cause.name, word_of(weight, bool(w.excluded)), weight, tuple(yes), tuple(no), cause.decides
    )


def _by_leaf(weighed: Mapping[str, _Weighed], leaves: Sequence[FormedLeaf]) -> tuple[tuple[int | None, str], ...]:
    """The cause that leads on each marked leaf by itself, the oldest first."""
    out = []
    marked = [(leaf, i) for i, leaf in enumerate(leaves) if leaf.marked]
    for leaf, i in sorted(marked, key=lambda pair: pair[0].seen_on):
        own = {
            k: w.prior * w.by_signs * w.by_findings * leaf_ratio_of(w.shares[i], True) ** (1 / TEMPER)
            for k, w in weighed.items()
            if not w.excluded
        }
        out.append((leaf.number, max(own, key=lambda k: own[k])))
    return tuple(out)


def _together(told: Sequence[LikelyCause], by_leaf: Sequence[tuple[int | None, str]]) -> str:
    """Two causes: one after the other where leaves tell them apart, at once where the second is near the first."""
    in_turn = [k for i, (_, k) in enumerate(by_leaf) if i == 0 or by_leaf[i - 1][1] != k]
    named = {c.id: c.name for c in told}
    if len(in_turn) >= 2 and in_turn[0] != in_turn[-1]:
        first_one, then = named[in_turn[0]], named[in_turn[-1]]
        return f"Two causes, one after the other: {first_one} first, then {then}. Treat one at a time."
    first, second = told[0], told[1]
    if second.weight > SECOND * first.weight:
        return f"{first.name} and {second.name} may both be at work."
    return ""


def forbidden_by(found: LikelyCauses) -> dict[Forbidden, LikelyCause]:
    """What waits while the causes shown are not excluded: for each act the likeliest that forbids it."""
    out: dict[Forbidden, LikelyCause] = {}
    for c in found.best:
        if c.word in ("likely", "possible"):
            for act in causes()[c.id].forbids:
                out.setdefault(act, c)
    return out
