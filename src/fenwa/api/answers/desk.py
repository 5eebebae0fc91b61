"""The whole collection laid out for questions: changes of every pot, values, and who can stand beside whom."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta

from pydantic import BaseModel
from sqlalchemy.orm import Session

from fenwa.core.climate.light import day_length_h
from fenwa.core.evidence.answer import Against, DidItHelp, Other, did_it_help
from fenwa.core.evidence.changes import LoggedChange, changes_in
from fenwa.core.evidence.grade import Grade
from fenwa.core.evidence.measures import MeasureFacts, facts_of
from fenwa.core.evidence.samples import Sample, own_trend
from fenwa.core.evidence.twins import PlantFacts, Twin, twins_of
from fenwa.core.evidence.windows import Window, window_of
from fenwa.core.leaf.line import SLOW
from fenwa.core.leaf.timing import leaf_rhythm
from fenwa.core.working import Computed
from fenwa.store.answer_rows import noted_by, poured_by, values_of
from fenwa.store.collection import pots_today
from fenwa.store.pot_today import PotToday
from fenwa.store.session import remembered

WINDOW_DAYS = 425  # fourteen months
ASKED_FIRST = ("leaf length", "leaves gained", "root tips", "new burn", "height", "rating")
NEAR_DAYS = 30  # another change so long before the one asked about still speaks in the answer
SAME_DAY_DAYS = 10  # both had it, if so near
YEAR = timedelta(days=365)
LIGHT_APART_h = 1.0


@dataclass
class Desk:
    """Every pot with its changes; values of a measure are read when they are asked for."""

    today: date
    pots: dict[int, PotToday]
    changes: dict[int, list[LoggedChange]]
    values: dict[str, dict[int, list[Sample]]] = field(default_factory=dict)

    def of(self, session: Session, measure: str) -> dict[int, list[Sample]]:
        """Values of a measure by plant."""
        if measure not in self.values:
            ids = [p.plant.id for p in self.pots.values()]
            self.values[measure] = values_of(session, ids, measure, self.today)
        return self.values[measure]


def desk_of(session: Session, today: date) -> Desk:
    """The collection laid out; readers share it until something is written."""
    return remembered(session, "answers", today, lambda: _laid_out(session, today))


def _laid_out(session: Session, today: date) -> Desk:
    pots = pots_today(session, today)
    since = today - timedelta(days=WINDOW_DAYS)
    poured = poured_by(session, [p.pot.id for p in pots], since, today)
    noted = noted_by(session, [p.pot for p in pots], since, today)
    changes = {p.pot.id: changes_in(poured.get(p.pot.id, []), noted.get(p.pot.id, []), since, today) for p in pots}
    return Desk(today, {p.pot.id: p for p in pots}, changes)


class AnswerBrief(BaseModel):
    """A change with its answer in a line. Figures None: nothing that can answer was measured."""

    pot_id: int
    code: str
    name: str
    key: str
    on: date
    kind: str
    question: str
    words: str
    at_place: bool
    measure: str
    unit: str
    against: Against
    beside: str
    state: str
    opens_on: date
    grade: Grade
    headline: str
    sentence: str
    middle_shown: float | None
    low_shown: float | None
    high_shown: float | None
    measured: float | None
    se: float | None


@dataclass(frozen=True)
class Answered:
    """A change with what it was held against and its answer."""

    change: LoggedChange
    window: Window
    measure: str
    twin: Twin | None
    twins: tuple[Twin, ...]
    against: Against
    control: tuple[Sample, ...]
    computed: Computed[DidItHelp]


def _facts(desk: Desk, session: Session, p: PotToday, change_on: date, measure: str) -> PlantFacts:
    values = desk.of(session, measure).get(p.plant.id, [])
    by_leaf = facts_of(measure).by_leaf
    after = sum((s.begun_on or s.on) >= change_on if by_leaf else s.on >= change_on for s in values)
    family = {p.plant.id} | ({p.plant.parent_plant_id} if p.plant.parent_plant_id else set())
    return PlantFacts(
        id=p.pot.id,
        name=f"{p.pot.code} {p.name}",
        kind=p.plant.profile_id,
        family=frozenset(family),
        place=p.place,
        medium=p.pot.medium_id,
        volume_L=p.pot.volume_L,
        values_before=sum(s.on < change_on for s in values),
        values_after=after,
        changes=tuple((c.on, c.kind) for c in desk.changes.get(p.pot.id, ()) if c.whose == "pot"),
    )


def measure_for(desk: Desk, session: Session, p: PotToday, change_on: date) -> str:
    """The first measure that was taken before and after a change; leaf length where none was."""
    for measure in ASKED_FIRST:
        values = desk.of(session, measure).get(p.plant.id, [])
        if any(s.on < change_on for s in values) and any(s.on > change_on for s in values):
            return measure
    return ASKED_FIRST[0]


def _last_year(values: Sequence[Sample]) -> list[Sample]:
    """The same plant a year earlier, on this year's dates."""
    return [replace(s, on=s.on + YEAR, begun_on=s.begun_on + YEAR if s.begun_on else None, number=None) for s in values]


def _control(
    values: Sequence[Sample], twin: Sequence[Sample] | None, change_on: date, today: date, facts: MeasureFacts
) -> tuple[Against, list[Sample]]:
    """A twin over the same dates, else last year's same season, else the plant's own trend."""
    if twin is not None:
        return "twin", list(twin)
    shifted = [s for s in _last_year(values) if s.on <= today]
    formed = [s for s in shifted if (s.begun_on or s.on) >= change_on]
    if formed and any(s.on < change_on for s in shifted):
        return "last year", shifted
    return "own trend", own_trend(values, change_on, facts)


def answer(
    desk: Desk, session: Session, p: PotToday, change: LoggedChange, measure: str = "", beside: int | None = None
) -> Answered:
    """One change of one plant, against the best there is to hold it against."""
    measure = measure or measure_for(desk, session, p, change.on)
    facts = facts_of(measure)
    values = desk.of(session, measure).get(p.plant.id, [])
    twins: list[Twin] = []
    if change.whose == "pot" and change.on <= desk.today:
        mine = _facts(desk, session, p, change.on, measure)
        kin = [q for q in desk.pots.values() if q.plant.profile_id == p.plant.profile_id]
        twins = twins_of(mine, [_facts(desk, session, q, change.on, measure) for q in kin], change.on, change.kind)
    twin = next((t for t in twins if t.id == beside), twins[0] if twins else None)
    q = desk.pots[twin.id] if twin else None
    beside_values = desk.of(session, measure).get(q.plant.id, []) if q else None
    against, control = _control(values, beside_values, change.on, desk.today, facts)
    window = window_of(change.kind, p.profile.lag_days, change.review_days)
    leaves = desk.of(session, "leaf length").get(p.plant.id, [])
    rhythm = leaf_rhythm(opened=[s.on for s in leaves], today=desk.today).result if leaves else None
    until = min(desk.today, change.on + timedelta(days=2 * window.high + 120))
    computed = did_it_help(
        change_on=change.on,
        words=change.words[:300],
        treated=list(values),
        control=control,
        lag_low_days=float(window.low),
        lag_high_days=float(window.high),
        today=desk.today,
        against=against,
        measure=measure,
        slow=p.phase in SLOW,
        others=_others(desk, p, q, change, until),
        next_on=rhythm.next_on if rhythm else None,
    )
    return Answered(change, window, measure, twin, tuple(twins), against, tuple(control), computed)


def _others(desk: Desk, p: PotToday, q: PotToday | None, change: LoggedChange, until: date) -> list[Other]:
    """What else changed about then: of the plant, of its twin, of both; light over the season is both's."""
    since = change.on - timedelta(days=NEAR_DAYS)
    out: list[Other] = []
    theirs = [c for c in desk.changes.get(q.pot.id, ()) if since <= c.on <= until] if q else []
    mine = [c for c in desk.changes.get(p.pot.id, ()) if since <= c.on <= until and c.key != change.key]
    for c in mine:
        both = q is not None and any(t.kind == c.kind and abs((t.on - c.on).days) <= SAME_DAY_DAYS for t in theirs)
        out.append(Other(c.on, c.words, "both" if both or q is None else "one"))
    for t in theirs:
        if not any(c.kind == t.kind and abs((t.on - c.on).days) <= SAME_DAY_DAYS for c in mine):
            out.append(Other(t.on, t.words, "twin"))
    latitude = p.where.latitude_deg
    if latitude is not None and not p.where.lamp_hours:
        then, now = day_length_h(latitude, change.on), day_length_h(latitude, until)
        if abs(then - now) >= LIGHT_APART_h:
            out.append(Other(until, f"days {then:.1f} to {now:.1f} h", "both"))
    return sorted(out, key=lambda o: o.on)


def brief(p: PotToday, a: Answered) -> AnswerBrief:
    """An answer in a line."""
    r = a.computed.result
    return AnswerBrief(
        pot_id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        key=a.change.key,
        on=a.change.on,
        kind=a.change.kind,
        question=a.change.question,
        words=a.change.words,
        at_place=a.change.whose == "place",
        measure=a.measure,
        unit=facts_of(a.measure).unit,
        against=a.against,
        beside=a.twin.name if a.twin else "",
        state=r.state,
        opens_on=r.opens_on,
        grade=r.grade,
        headline=r.headline,
        sentence=r.sentence,
        middle_shown=r.middle_shown,
        low_shown=r.low_shown,
        high_shown=r.high_shown,
        measured=r.measured,
        se=r.se,
    )
