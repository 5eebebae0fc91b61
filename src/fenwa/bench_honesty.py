"""How honest the answers are: plants whose truth is known, put to the same core functions that growers' pages ask."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from fenwa.core.data.diagnosis_tables import causes, checks
from fenwa.core.diagnosis.advice import PlantNow, advise
from fenwa.core.diagnosis.evidence import Exposure, Finding, FormedLeaf, SeenSign, Span
from fenwa.core.diagnosis.likely import MARKED_EXPOSED, MARKED_UNEXPOSED, LikelyCauses, likely_causes
from fenwa.core.diagnosis.next_checks import CauseWeight, DoneCheck, next_checks, outcome_chances
from fenwa.core.evidence.chance import PRIOR_DF
from fenwa.core.evidence.grade import GRADES
from fenwa.core.evidence.measures import MEASURES
from fenwa.core.evidence.samples import Sample
from fenwa.core.evidence.trial_answer import TrialAnswer, TrialPair, trial_answer
from fenwa.core.leaf.sizes import WITHIN_PLANT_SD

START = date(2026, 3, 1)
LEAF_DAYS = 30
LEAVES_BEFORE, LEAVES_AFTER = 8, 4
PLANTS_DIFFER = 0.08  # SD of ln, about the common effect; judgement
FAIR = GRADES.index("fair")


@dataclass(frozen=True)
class Honesty:
    """Shares of questions. ``covered``: 80 % ranges that held the truth."""

    questions: int
    fair_or_better: float
    covered: float


def _plant(rng: np.random.Generator, within: float, effect: float, bad_last: bool) -> list[Sample]:
    """Leaves of a plant that formed before and after the change; the effect is on those begun after it."""
    usual = np.log(150.0) + rng.normal(0, 0.3)
    noise = rng.normal(0, within, LEAVES_BEFORE + LEAVES_AFTER + 1)
    if bad_last:  # picked on its worst day: the worst leaf of the plant happens to be its newest
        worst = int(np.argmin(noise[:LEAVES_BEFORE]))
        noise[worst], noise[LEAVES_BEFORE - 1] = noise[LEAVES_BEFORE - 1], noise[worst]
    out = []
    for i, n in enumerate(noise):
        opened = START + timedelta(days=LEAF_DAYS * (i - LEAVES_BEFORE) + 5)
        begun = opened - timedelta(days=LEAF_DAYS)
        gain = effect if begun >= START else 0.0
        out.append(Sample(opened, float(np.exp(usual + n + gain)), begun, i + 1))
    return out


def _asked(rng: np.random.Generator, pairs: int, effect: float, bad_last: bool) -> TrialAnswer:
    """A question of so many pairs, with a scatter that itself is not known beforehand."""
    within = WITHIN_PLANT_SD * float(np.sqrt(PRIOR_DF / rng.chisquare(PRIOR_DF)))
    own = [effect + float(rng.normal(0, PLANTS_DIFFER)) for _ in range(pairs)]  # plants differ in how they answer
    rows = [
        TrialPair(f"pair {i}", tuple(_plant(rng, within, e, bad_last)), tuple(_plant(rng, within, 0.0, False)))
        for i, e in enumerate(own, 1)
    ]
    today = START + timedelta(days=LEAF_DAYS * LEAVES_AFTER + 10)
    return trial_answer(rows, started_on=START, lag_days=(10, 28), today=today, measure="leaf length")


def honesty(questions: int, pairs: int, effect: float | None, *, bad_last: bool = True, seed: int = 16) -> Honesty:
    """Questions of pairs whose true effect is known; None: drawn from effects as they usually are."""
    rng = np.random.default_rng([seed, pairs, 0 if effect is None else round(1000 * effect) + 1])
    fair = covered = 0
    for _ in range(questions):
        true = float(rng.normal(0, MEASURES["leaf length"].effect_SD)) if effect is None else effect
        answer = _asked(rng, pairs, true, bad_last)
        fair += GRADES.index(answer.grade.grade) >= FAIR
        if answer.effect is not None:
            e = answer.effect.result.effect
            covered += e.low <= true <= e.high
    return Honesty(questions, fair / questions, covered / questions)


@dataclass(frozen=True)
class Diagnosed:
    """Shares of plants ill of a known cause. ``harmful``: its harmful opposite was advised."""

    plants: int
    in_best_three: float
    first: float
    harmful: float
    later_led: int


DAY = date(2026, 11, 1)
BY_LOG = ("read_log", "rh_t", "source", "lift")  # what a log that is kept knows by itself, with this chance
LOG_KNOWS = 0.5


def _ill(
    rng: np.random.Generator, cause: str
) -> tuple[list[SeenSign], list[Finding], list[FormedLeaf], list[Exposure]]:
    """A plant ill of a cause by the tables: signs looked for, what the log found, leaves by exposure."""
    row = causes()[cause]
    seen = [
        SeenSign(sign, bool(rng.random() < p), DAY - timedelta(days=5))
        for sign, p in row.signs.items()
        if rng.random() < 0.75
    ]
    if not any(s.seen for s in seen):  # nobody asks about a plant without a sign: its likeliest is seen
        sign = max(row.signs, key=lambda s: row.signs[s])
        seen = [s for s in seen if s.id != sign] + [SeenSign(sign, True, DAY - timedelta(days=5))]
    found = []
    for check in BY_LOG:
        if rng.random() < LOG_KNOWS:
            found += _came_out(rng, check, cause)
    leaves, exposures = _exposed(rng, cause)
    later = [k for k in ("rh", "cold", "fcl", "acc") if k != cause]
    spans = (Span(DAY + timedelta(days=1), DAY + timedelta(days=40)),)
    begun_late = later[int(rng.integers(len(later)))]
    exposures = [e for e in exposures if e.cause != begun_late]
    return seen, found, leaves, [*exposures, Exposure(begun_late, DAY - timedelta(days=400), spans)]


def _came_out(rng: np.random.Generator, check: str, cause: str) -> list[Finding]:
    given = outcome_chances(checks()[check])[cause]
    if not given:
        return []
    ids = list(given)
    return [Finding(ids[int(rng.choice(len(ids), p=[given[i] for i in ids]))], DAY)]


DATED = ("salt", "fcl", "hard", "na", "dry", "rh", "cold", "lo", "acc")  # causes that a log dates


def _exposed(rng: np.random.Generator, cause: str) -> tuple[list[FormedLeaf], list[Exposure]]:
    """Six leaves in a row; the true cause was at work from one of them on, others now and then."""
    known = DAY - timedelta(days=400)
    begin = int(rng.integers(1, 5))
    spans = {cause: (Span(DAY - timedelta(days=30 * (6 - begin) + 20), DAY),)} if cause in DATED else {}
    for other in DATED:
        if other != cause and rng.random() < 0.35:
            since = DAY - timedelta(days=int(rng.integers(10, 180)))
            spans[other] = (Span(since, min(DAY, since + timedelta(days=int(rng.integers(10, 90))))),)
    leaves = []
    for i in range(6):
        begun = DAY - timedelta(days=30 * (6 - i) + 20)
        ill = i >= begin if cause in DATED else rng.random() < 0.5
        marked = bool(rng.random() < (MARKED_EXPOSED if ill else MARKED_UNEXPOSED))
        leaves.append(FormedLeaf(begun, begun + timedelta(days=50), marked, i + 1))
    return leaves, [Exposure(c, known, spans.get(c, ())) for c in DATED]


def _asked_of(
    seen: list[SeenSign], found: list[Finding], leaves: list[FormedLeaf], exposures: list[Exposure]
) -> LikelyCauses:
    return likely_causes(seen=seen, found=found, leaves=leaves, exposures=exposures).result


def diagnose(plants: int, *, checks_done: int = 2, seed: int = 8) -> Diagnosed:
    """Plants ill of causes by the tables, with so many of the checks that the stairs ask for."""
    rng = np.random.default_rng(seed)
    ids = list(causes())
    prior = np.array([causes()[c].prior for c in ids])
    best = first = harmful = later = 0
    for _ in range(plants):
        cause = ids[int(rng.choice(len(ids), p=prior / prior.sum()))]
        seen, found, leaves, exposures = _ill(rng, cause)
        late = exposures[-1].cause
        done: list[DoneCheck] = [DoneCheck("read_log", DAY)]
        order = _asked_of(seen, found, leaves, exposures)
        for _ in range(checks_done):
            weights = [CauseWeight(c.id, c.weight) for c in order.order]
            nxt = next_checks(weights=weights, done=done).result.next
            if nxt is None:
                break
            came = _came_out(rng, nxt, cause)
            found = [*found, *came]
            done.append(DoneCheck(nxt, DAY, came[0].id if came else ""))
            order = _asked_of(seen, found, leaves, exposures)
        best += cause in [c.id for c in order.best]
        first += order.order[0].id == cause
        later += order.order[0].id == late
        harm = causes()[cause].harmful
        harmful += bool(harm) and harm in advise(order, found, seen, _now_of(found, seen)).advised
    return Diagnosed(plants, best / plants, first / plants, harmful / plants, later)


def _now_of(found: list[Finding], seen: list[SeenSign]) -> PlantNow:
    ids = {f.id for f in found}
    there = {s.id for s in seen if s.seen}
    moist = True if "stays_wet" in ids or "medium_moist" in ids else False if "medium_dry" in ids else None
    runoff = next((w for w in ("over", "inside", "low") if f"runoff_{w}" in ids), "")
    return PlantNow(
        today=DAY,
        moist=moist,
        runoff=runoff,  # type: ignore[arg-type]
        crust="white_crust" in there,
        limp=bool(there & {"wilt_wet_medium", "wilt_dry_medium"}),
    )
