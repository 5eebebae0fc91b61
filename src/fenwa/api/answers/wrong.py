"""What is wrong with a plant: signs, causes in two readings, stairs of checks, what waits meanwhile."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row
from fenwa.api.ways import Ways
from fenwa.core.data.diagnosis_tables import causes, checks, findings, readings, signs
from fenwa.core.diagnosis.advice import Advice, advise
from fenwa.core.diagnosis.evidence import Exposure, Finding, FormedLeaf, OwnCases
from fenwa.core.diagnosis.from_log import IllFacts, read_log
from fenwa.core.diagnosis.likely import LikelyCause, LikelyCauses, likely_causes, priors
from fenwa.core.diagnosis.log_facts import IllLog
from fenwa.core.diagnosis.next_checks import CauseWeight, DoneCheck, NextChecks, next_checks
from fenwa.core.diagnosis.own import own_cases
from fenwa.core.entry import require_not_future
from fenwa.core.errors import Conflict, InputError
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.answer_rows import cases_of
from fenwa.store.ill_rows import ill_log
from fenwa.store.pot_today import PotToday

router = Ways(prefix="/api", tags=["answers"])

NOTHING_SEEN = "Nothing was seen that is wrong. Mark what you see at a look: that is enough to begin."


class SchoolOrder(Model):
    """One way to read the leading sign: its order of causes, best three, and what is not excluded."""

    name: str
    says: str
    school: str
    causes: list[LikelyCause]
    together: str
    working: Working


class TwoReadings(Model):
    """Both schools of a sign over the same evidence, and the measurement that separates them."""

    id: str
    title: str
    first: SchoolOrder
    second: SchoolOrder
    separated_by: str
    check: str
    agree: bool


class WaterSpan(Model):
    """Days a pot drank one water."""

    water: str
    since: date
    until: date


class AirPoint(Model):
    """A day of the place. None: not measured. [%, °C]"""

    on: date
    humidity_pct: float | None
    night_C: float | None


class RunoffPoint(Model):
    """A runoff as the pour-through reading it stands for. [µS/cm]"""

    on: date
    ec_uS_cm: float


class Evidence(Model):
    """What the log holds, on one axis. Humidity the kind asks None: not told. [%, µS/cm]"""

    since: date
    waters: list[WaterSpan]
    air: list[AirPoint]
    humidity_asked_low: float | None
    humidity_asked_high: float | None
    leaves: list[FormedLeaf]
    exposures: list[Exposure]
    events: list[Finding]
    runoffs: list[RunoffPoint]


class CaseOut(Model):
    """A case: open, or closed with what it was."""

    id: int
    opened_on: date
    closed_on: date | None
    cause: str
    reading: str
    school: str
    note: str


class WrongPage(Model):
    """A plant asked about: signs, two readings or one order, what may be done, and the next check."""

    today: date
    pot_id: int
    code: str
    name: str
    signs: list[str]
    not_seen: list[str]
    not_looked_for: list[str]
    working: Working
    together: str
    shown: list[LikelyCause]
    excluded: list[LikelyCause]
    readings: TwoReadings | None
    advice: Advice
    stairs: Computed[NextChecks]
    evidence: Evidence
    case: CaseOut | None
    closed: list[CaseOut]
    own_closed: int
    sentence: str


def _own(session: Session) -> list[OwnCases]:
    return own_cases([(c.cause, tuple(c.signs)) for c in cases_of(session) if c.closed_on and c.counts and c.cause])


def _asked(facts: IllFacts, own: list[OwnCases], reading: str = "", school: str = "") -> Computed[LikelyCauses]:
    return likely_causes(
        seen=list(facts.seen),
        found=list(facts.found),
        leaves=list(facts.leaves),
        exposures=list(facts.exposures),
        own=own,
        reading=reading,
        school=school,
    )


def _school(row: Any, which: str, computed: Computed[LikelyCauses]) -> SchoolOrder:
    return SchoolOrder(
        name=row.name,
        says=row.says,
        school=which,
        causes=list(computed.result.best),
        together=computed.result.together,
        working=computed.working,
    )


def _two_readings(facts: IllFacts, own: list[OwnCases]) -> TwoReadings | None:
    """The reading of the first sign that growers dispute; None: none of those seen is."""
    seen = {s.id for s in facts.seen if s.seen}
    row = next((r for r in readings().values() if seen & set(r.signs)), None)
    if row is None:
        return None
    first, second = _asked(facts, own, row.id, "first"), _asked(facts, own, row.id, "second")
    return TwoReadings(
        id=row.id,
        title=row.title,
        first=_school(row.first, "first", first),
        second=_school(row.second, "second", second),
        separated_by=row.separated_by,
        check=row.check,
        agree=first.result.order[0].id == second.result.order[0].id,
    )


def _done(facts: IllFacts, log: IllLog) -> list[DoneCheck]:
    """Checks done by hand, and those the log has answered by itself; reading the log is always done."""
    done = {"read_log": DoneCheck("read_log", log.today)}
    for f in facts.found:
        if f.of_check:
            done[f.of_check] = DoneCheck(f.of_check, f.on, f.id)
    for c in log.checks:
        done[c.check] = c
    return list(done.values())


def _evidence(facts: IllFacts, log: IllLog) -> Evidence:
    marked = facts.leaves
    asked = log.profile.climate.humidity_pct
    since = min([log.today.replace(day=1)] + [x.begun_on for x in marked[-5:]])
    spans: list[WaterSpan] = []
    for p in log.pours:
        if p.on < since or not p.water:
            continue
        if spans and spans[-1].water == p.water:
            spans[-1].until = p.on
        else:
            if spans:
                spans[-1].until = p.on
            spans.append(WaterSpan(water=p.water, since=p.on, until=p.on))
    if spans:
        spans[-1].until = log.today
    return Evidence(
        since=since,
        waters=spans,
        air=[AirPoint(on=a.on, humidity_pct=a.humidity_pct, night_C=a.night_C) for a in log.air if a.on >= since],
        humidity_asked_low=asked[0] if asked else None,
        humidity_asked_high=asked[1] if asked else None,
        leaves=[x for x in marked if x.seen_on >= since],
        exposures=[e for e in facts.exposures if any(s.until >= since for s in e.spans)],
        events=[f for f in facts.found if f.on >= since],
        runoffs=[RunoffPoint(on=on, ec_uS_cm=ec) for on, ec in log.runoffs if on >= since],
    )


@router.get("/pots/{pot_id}/wrong")
def what_is_wrong(pot_id: int, session: ReadSession, today: Today) -> WrongPage:
    """What is likely wrong with a plant: from its looks and its log, with the gentlest next check."""
    p = one_pot(session, pot_id, today)
    log = ill_log(session, p, today)
    facts = read_log(log)
    own = _own(session)
    mine = cases_of(session, pot_id)
    case = next((c for c in mine if c.closed_on is None), None)
    two = _two_readings(facts, own)
    followed = (case.reading, case.school) if case is not None and case.reading and two else ("", "")
    order = _asked(facts, own, *followed)
    best = order.result
    stairs = next_checks(
        weights=[CauseWeight(c.id, c.weight) for c in best.order],
        done=_done(facts, log),
        signs=[s.id for s in facts.seen if s.seen],
        resting=facts.now.resting,
    )
    advice = advise(best, facts.found, facts.seen, facts.now)
    seen = [signs()[s.id].words for s in facts.seen if s.seen]
    if facts.now.limp and not any(s.seen and s.id.startswith("wilt") for s in facts.seen):
        seen.append("limp leaves")
    return WrongPage(
        today=today,
        pot_id=pot_id,
        code=p.pot.code,
        name=p.name,
        signs=seen,
        not_seen=[signs()[s.id].words for s in facts.seen if not s.seen],
        not_looked_for=list(facts.not_looked_for),
        working=order.working,
        together=best.together,
        shown=list(best.best),
        excluded=list(best.excluded),
        readings=two,
        advice=advice,
        stairs=stairs,
        evidence=_evidence(facts, log),
        case=_case(case) if case else None,
        closed=[_case(c) for c in mine if c.closed_on is not None],
        own_closed=sum(c.closed for c in own),
        sentence=best.sentence if seen else NOTHING_SEEN,
    )


def _case(c: models.IllCase) -> CaseOut:
    return CaseOut(**{k: getattr(c, k) for k in CaseOut.model_fields})


class IllCheckIn(Model):
    """What a check found. ``finding`` empty: nothing told."""

    pot_id: int
    check: str
    on: date
    finding: str = ""
    note: str = Field(default="", max_length=200)


class CheckChoice(Model):
    """A way a check can come out."""

    finding: str
    words: str


class IllCheckOut(Model):
    """A check with the ways it can come out."""

    id: str
    name: str
    how: str
    outcomes: list[CheckChoice]


@router.get("/checks")
def every_check() -> list[IllCheckOut]:
    """Checks of an ill plant, the gentlest first."""
    return [
        IllCheckOut(
            id=c.id,
            name=c.name,
            how=c.how,
            outcomes=[CheckChoice(finding=o.finding, words=findings()[o.finding].words) for o in c.outcomes],
        )
        for c in checks().values()
    ]


@router.post("/checks", status_code=201)
def keep_check(body: IllCheckIn, writer: OneWrite, today: Today) -> Stored:
    """Keep what a check found: the order of causes moves by it."""
    require_not_future(body.on, today, "Date", pointer="/on")
    row = checks().get(body.check)
    if row is None:
        raise InputError(f"Check “{body.check}” is not known. Choose one of {', '.join(checks())}.", pointer="/check")
    ways = [o.finding for o in row.outcomes]
    if body.finding and body.finding not in ways:
        raise InputError(
            f"“{body.finding}” is no way this check comes out. Choose {', '.join(ways)}, or leave it empty.",
            pointer="/finding",
        )

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, body.pot_id, today)
        _open(session, p, today)
        return keep_row(
            session,
            models.CheckDone(
                pot_id=body.pot_id, check_id=body.check, finding=body.finding, on=body.on, note=body.note.strip()
            ),
        )

    return Stored(**writer.once(body, write))


def _open(session: Session, p: PotToday, today: date) -> models.IllCase:
    """The open case of a pot, opened now if there is none."""
    found = next((c for c in cases_of(session, p.pot.id) if c.closed_on is None), None)
    if found is None:
        found = models.IllCase(pot_id=p.pot.id, plant_id=p.plant.id, opened_on=today)
        session.add(found)
        session.flush()
    return found


class CaseIn(Model):
    """A case opened at a pot; the reading that is followed, if one is."""

    pot_id: int
    reading: str = ""
    school: Literal["", "first", "second"] = ""
    note: str = Field(default="", max_length=300)


@router.post("/cases", status_code=201)
def open_case(body: CaseIn, writer: OneWrite, today: Today) -> Stored:
    """Open a case, or say which of the two readings is followed."""
    if body.reading and body.reading not in readings():
        raise InputError(
            f"Reading “{body.reading}” is not known. Choose one of {', '.join(readings())}.", pointer="/reading"
        )
    if bool(body.reading) != bool(body.school):
        raise InputError("A reading goes with its school: first or second.", pointer="/school")

    def write(session: Session) -> dict[str, Any]:
        row = _open(session, one_pot(session, body.pot_id, today), today)
        row.reading, row.school = body.reading, body.school
        row.note = body.note.strip() or row.note
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class CloseIn(Model):
    """What it was: a cause, or empty where nobody found out."""

    cause: str = ""
    note: str = Field(default="", max_length=300)


@router.post("/cases/{case_id}/close")
def close_case(case_id: int, body: CloseIn, writer: OneWrite, today: Today) -> Stored:
    """Close a case with what it was; known causes move the grower's own likelihoods."""
    if body.cause and body.cause not in causes():
        raise InputError(f"Cause “{body.cause}” is not known. Choose one of {', '.join(causes())}.", pointer="/cause")

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.IllCase, case_id, "Case")
        if row.closed_on is not None:
            raise Conflict(f"This case was closed on {row.closed_on.isoformat()} already.")
        facts = read_log(ill_log(session, one_pot(session, row.pot_id, today), today))
        row.closed_on, row.cause = today, body.cause
        row.note = body.note.strip() or row.note
        row.signs = [s.id for s in facts.seen if s.seen]
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class CauseOut(Model):
    """A cause with the grower's own cases of it."""

    id: str
    name: str
    closed: int
    prior_pct: float
    own_prior_pct: float


class CausesPage(Model):
    """Causes as the tables have them, and as the grower's closed cases moved them."""

    causes: list[CauseOut]
    closed: int


@router.get("/causes")
def every_cause(session: ReadSession) -> CausesPage:
    """How likely each cause is by the tables, and by what cases here turned out to be."""
    own = {c.cause: c for c in _own(session)}
    shipped, mine = priors({}), priors(own)
    return CausesPage(
        causes=[
            CauseOut(
                id=c.id,
                name=c.name,
                closed=own[c.id].closed if c.id in own else 0,
                prior_pct=100 * shipped[c.id],
                own_prior_pct=100 * mine[c.id],
            )
            for c in causes().values()
        ],
        closed=sum(c.closed for c in own.values()),
    )


@router.post("/causes/reset")
def reset_causes(writer: OneWrite) -> Stored:
    """Let closed cases no longer move the likelihoods; they stay on record."""

    def write(session: Session) -> dict[str, Any]:
        rows = [c for c in cases_of(session) if c.counts and c.closed_on is not None]
        for row in rows:
            row.counts = False
        session.flush()
        return {"id": len(rows)}

    return Stored(**writer.once(None, write))
