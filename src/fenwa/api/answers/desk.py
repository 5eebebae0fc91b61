"""The whole collection laid out for questions: changes of every pot, values, and who can stand beside whom."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta
from typing import TypeVar

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.core.evidence.answer import Against, DidItHelp, Other, did_it_help
from fenwa.core.evidence.beside import held_against, light_of_season, others_of
from fenwa.core.evidence.changes import LoggedChange, changes_in
from fenwa.core.evidence.grade import Grade
from fenwa.core.evidence.measures import facts_of
from fenwa.core.evidence.samples import Sample
from fenwa.core.evidence.twins import PlantFacts, Twin, twins_of
from fenwa.core.evidence.windows import Window, window_of
from fenwa.core.leaf.line import SLOW
from fenwa.core.leaf.timing import leaf_rhythm
from fenwa.core.working import Computed
from fenwa.store.answer_rows import noted_by, poured_by, values_of
from fenwa.store.collection import AT_ONCE, batched, pots_today
from fenwa.store.memory import remembered
from fenwa.store.pot_today import PotToday

T = TypeVar("T")

WINDOW_DAYS = 425  # fourteen months
ASKED_FIRST = ("leaf length", "leaves gained", "root tips", "new burn", "height", "rating")


class AnswerBrief(Model):
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
class Days:
    """Days a measure was taken of a plant, and days its leaves began, each in order."""

    on: list[date]
    begun: list[date]


# of a plant all that an answer to another's change rests on: its pot, what makes it alike, its changes, its values
Beside = tuple[int, PlantFacts, list[LoggedChange], list[Sample]]


# how a plant that was written stands otherwise: in changes of these kinds alone, or (None) in all it is held against by
Differs = frozenset[str] | None


@dataclass(frozen=True)
class KeptBrief:
    """An answer in a line, and the plant it was held against as it was then. None: no twin."""

    line: AnswerBrief
    beside: Beside | None


@dataclass
class Desk:
    """Every pot with its changes; values of a measure are read when they are asked for.

    ``briefs``: answers worked out already, by pot. What a write did not touch goes on from the desk before it: a pot
    that was not written since is the same object. ``earlier``: answers to be looked at again, of pots that were
    written (``again``) or of whose kin something was written that others can be held against (``written``: a pour as
    usual is no such thing). Who was beside a plant still is, where it stands as it did and none written since is more
    alike; the answer then holds too, unless the plant was written itself.
    """

    today: date
    pots: dict[int, PotToday]
    changes: dict[int, list[LoggedChange]]
    kinds: dict[str, list[PotToday]]
    values: dict[str, dict[int, list[Sample]]] = field(default_factory=dict)
    briefs: dict[int, list[KeptBrief]] = field(default_factory=dict)
    earlier: dict[int, list[KeptBrief]] = field(default_factory=dict)
    again: set[int] = field(default_factory=set)
    written: dict[int, Differs] = field(default_factory=dict)
    facts: dict[int, PlantFacts] = field(default_factory=dict)
    complete: set[str] = field(default_factory=set)
    plants: set[int] = field(default_factory=set)
    days: dict[str, dict[int, Days]] = field(default_factory=dict)
    kin: dict[str, dict[int, tuple[int, PlantFacts]]] = field(default_factory=dict)
    next_leaf: dict[int, date | None] = field(default_factory=dict)

    def read(self, session: Session, measures: Iterable[str]) -> None:
        """Values of these measures of every plant; what is known is not read again."""
        missing = {m: self.plants - self.values.setdefault(m, {}).keys() for m in measures if m not in self.complete}
        unread = set().union(*missing.values())
        found = values_of(session, sorted(unread), missing, self.today) if unread else {}
        for measure, plants in missing.items():
            self.values[measure].update({plant: found[measure].get(plant, []) for plant in plants})
        self.complete.update(missing)

    def of(self, session: Session, measure: str) -> dict[int, list[Sample]]:
        """Values of a measure by plant; a plant without any has an empty list."""
        self.read(session, (measure,))
        return self.values[measure]

    def days_of(self, session: Session, measure: str) -> dict[int, Days]:
        """Days of a measure by plant, worked out once."""
        known, values = self.days.setdefault(measure, {}), self.of(session, measure)
        for plant in values.keys() - known.keys() if len(known) < len(values) else ():
            rows = values[plant]
            known[plant] = Days(sorted(s.on for s in rows), sorted(s.begun_on or s.on for s in rows))
        return known


def desk_of(session: Session, today: date) -> Desk:
    """The collection laid out; readers share it until something is written."""
    return remembered(session, "answers", today, lambda s: _laid_out(s, today))


def _laid_out(session: Session, today: date) -> Desk:
    store = session.info.get("store")
    before: Desk | None = store.changed.memory.get("desk") if store is not None else None
    pots = pots_today(session, today)
    if before is not None and before.today != today:
        before = None
    fresh = [p for p in pots if before is None or before.pots.get(p.id) is not p]
    since = today - timedelta(days=WINDOW_DAYS)
    found: dict[int, list[LoggedChange]] = {}
    for some in batched(fresh, AT_ONCE):
        poured = poured_by(session, [p.id for p in some], since, today)
        noted = noted_by(session, [p.pot for p in some], since, today)
        found |= {p.id: changes_in(poured.get(p.id, []), noted.get(p.id, []), since, today) for p in some}
    kinds: dict[str, list[PotToday]] = {}
    for p in pots:
        kinds.setdefault(p.kind, []).append(p)
    desk = Desk(today, {p.id: p for p in pots}, found, kinds, plants={p.plant_id for p in pots})
    if before is not None:
        _go_on(desk, session, before, {p.id for p in fresh})
    if store is not None:
        store.changed.memory["desk"] = desk
    return desk


def _go_on(desk: Desk, session: Session, before: Desk, fresh: set[int]) -> None:
    """Take over what was worked out of pots that nobody wrote since; answers are looked at again where kin was."""
    gone = before.pots.keys() - desk.pots.keys()
    other = fresh | gone
    stale = {desk.pots[i].plant_id for i in fresh} | {before.pots[i].plant_id for i in other if i in before.pots}
    desk.values = {measure: _without(rows, stale) for measure, rows in before.values.items()}
    desk.days = {measure: _without(days, stale) for measure, days in before.days.items()}
    desk.changes = _without(before.changes, other) | desk.changes
    desk.facts, desk.next_leaf = _without(before.facts, other), _without(before.next_leaf, other)
    desk.read(session, before.complete)
    differs = {i: _differs(desk, session, before, i) for i in fresh}
    alike = {i for i, how in differs.items() if how is not None}
    desk.briefs, desk.earlier = _without(before.briefs, other), _without(before.earlier, other - alike)
    desk.earlier |= {i: before.briefs[i] for i in alike & before.briefs.keys()}
    desk.again = alike | (before.again - gone)
    new: dict[int, Differs] = {i: how for i, how in differs.items() if how is None or how}
    desk.written = _put_together(before.written if before.earlier else {}, {**new, **dict.fromkeys(gone)})
    for kind in {desk.pots[i].kind for i in new} | {before.pots[i].kind for i in new.keys() | gone if i in before.pots}:
        for p in desk.kinds.get(kind, ()):
            if (known := desk.briefs.pop(p.id, None)) is not None:
                desk.earlier[p.id] = known


def _differs(desk: Desk, session: Session, before: Desk, pot_id: int) -> Differs:
    """How a plant that was written stands otherwise than it did, for what it and others are held against by."""
    was, p = before.pots.get(pot_id), desk.pots[pot_id]
    if was is None or was.plant_id != p.plant_id or was.kind != p.kind:
        return None
    for measure in before.complete:
        if desk.of(session, measure).get(p.plant_id) != before.of(session, measure).get(p.plant_id):
            return None
    if replace(_facts(before, was), changes=()) != replace(_facts(desk, p), changes=()):
        return None
    then, now = set(before.changes.get(pot_id, ())), set(desk.changes.get(pot_id, ()))
    return frozenset(c.kind for c in then ^ now)


def _put_together(first: dict[int, Differs], then: dict[int, Differs]) -> dict[int, Differs]:
    """How plants stand otherwise after two writes."""
    out = first | then
    for i in first.keys() & then.keys():
        one, other = first[i], then[i]
        out[i] = None if one is None or other is None else one | other
    return out


def _beside(desk: Desk, session: Session, pot_id: int, measure: str) -> Beside:
    p = desk.pots[pot_id]
    return pot_id, _facts(desk, p), desk.changes.get(pot_id, []), desk.of(session, measure).get(p.plant_id, [])


def _without(known: dict[int, T], gone: set[int]) -> dict[int, T]:
    """A copy without some of it."""
    rest = dict(known)
    for i in gone:
        rest.pop(i, None)
    return rest


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


def _facts(desk: Desk, p: PotToday) -> PlantFacts:
    """What makes a plant alike to others, worked out once for one state of it."""
    found = desk.facts.get(p.pot.id)
    if found is None:
        mother = p.plant.parent_plant_id
        found = desk.facts[p.pot.id] = PlantFacts(
            id=p.pot.id,
            name=f"{p.pot.code} {p.name}",
            kind=p.plant.profile_id,
            family=frozenset({p.plant.id} | ({mother} if mother else set())),
            place=p.place,
            medium=p.pot.medium_id,
            volume_L=p.pot.volume_L,
            changes=tuple((c.on, c.kind) for c in desk.changes.get(p.pot.id, ()) if c.whose == "pot"),
        )
    return found


def _kin(desk: Desk, kind: str) -> dict[int, tuple[int, PlantFacts]]:
    """Plants of a kind by pot with what makes them alike, laid out once."""
    if kind not in desk.kin:
        desk.kin[kind] = {q.id: (q.plant_id, _facts(desk, q)) for q in desk.kinds[kind]}
    return desk.kin[kind]


def _counts(days: Days, change_on: date, by_leaf: bool) -> tuple[int, int]:
    """How many values are from before a change, and how many can answer it."""
    before = bisect_left(days.on, change_on)
    return before, len(days.on) - (bisect_left(days.begun, change_on) if by_leaf else before)


def measure_for(desk: Desk, session: Session, p: PotToday, change_on: date) -> str:
    """The first measure that was taken before and after a change; leaf length where none was."""
    for measure in ASKED_FIRST:
        values = desk.of(session, measure).get(p.plant.id, [])
        if any(s.on < change_on for s in values) and any(s.on > change_on for s in values):
            return measure
    return ASKED_FIRST[0]


def _rhythm(desk: Desk, p: PotToday, leaves: Sequence[Sample]) -> date | None:
    """When its next leaf is expected, worked out once for one state of a plant."""
    if p.pot.id not in desk.next_leaf:
        told = leaf_rhythm(opened=[s.on for s in leaves], today=desk.today).result if leaves else None
        desk.next_leaf[p.pot.id] = told.next_on if told else None
    return desk.next_leaf[p.pot.id]


def _twins(
    desk: Desk, session: Session, p: PotToday, change: LoggedChange, measure: str, among: set[int] | None = None
) -> list[Twin]:
    """Plants to hold a change against, the most alike first; none for what a place did to all. ``among``: pots."""
    if change.whose != "pot" or change.on > desk.today:
        return []
    every = _kin(desk, p.kind)
    kin = list(every.values()) if among is None else [every[i] for i in among if i in every]
    days, by_leaf = desk.days_of(session, measure), facts_of(measure).by_leaf
    counts = {k.id: _counts(days[plant], change.on, by_leaf) for plant, k in kin}
    return twins_of(_facts(desk, p), [k for _, k in kin], counts, change.on, change.kind)


def answer(
    desk: Desk,
    session: Session,
    p: PotToday,
    change: LoggedChange,
    measure: str = "",
    beside: int | None = None,
    twins: list[Twin] | None = None,
) -> Answered:
    """One change of one plant, against the best there is to hold it against. ``twins``: where the first is known."""
    measure = measure or measure_for(desk, session, p, change.on)
    facts = facts_of(measure)
    values = desk.of(session, measure).get(p.plant.id, [])
    if twins is None:
        twins = _twins(desk, session, p, change, measure)
    twin = next((t for t in twins if t.id == beside), twins[0] if twins else None)
    q = desk.pots[twin.id] if twin else None
    beside_values = desk.of(session, measure).get(q.plant.id, []) if q else None
    against, control = held_against(values, beside_values, change.on, desk.today, facts)
    window = window_of(change.kind, p.profile.lag_days, change.review_days)
    leaves = desk.of(session, "leaf length").get(p.plant.id, [])
    rhythm = _rhythm(desk, p, leaves)
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
        next_on=rhythm,
    )
    return Answered(change, window, measure, twin, tuple(twins), against, tuple(control), computed)


def _others(desk: Desk, p: PotToday, q: PotToday | None, change: LoggedChange, until: date) -> list[Other]:
    """What else changed of the plant and its twin, and the light both had over the season."""
    theirs = desk.changes.get(q.pot.id, []) if q else None
    out = others_of(change, desk.changes.get(p.pot.id, []), theirs, until)
    latitude = p.where.latitude_deg
    if latitude is not None and not p.where.lamp_hours:
        out = sorted(out + light_of_season(latitude, change.on, until), key=lambda o: o.on)
    return out


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


def _brief_of(desk: Desk, session: Session, p: PotToday, change: LoggedChange, known: KeptBrief | None) -> KeptBrief:
    """An answer in a line: the one known where it holds, or who is beside the plant where that does."""
    twins = None
    if known is not None:
        twin, measure = known.beside[0] if known.beside else None, known.line.measure
        if twin is None or (twin in desk.pots and desk.written.get(twin, frozenset()) is not None):
            among = {i for i, how in desk.written.items() if how is None or change.kind in how}
            untouched = p.id not in desk.again
            if untouched and not among and twin not in desk.written:
                return known
            twins = _twins(desk, session, p, change, measure, among | ({twin} if twin is not None else set()))
            if (twins[0].id if twins else None) != twin:
                twins = None
            elif untouched and (twin is None or _beside(desk, session, twin, measure) == known.beside):
                return known
    a = answer(desk, session, p, change, twins=twins)
    return KeptBrief(brief(p, a), _beside(desk, session, a.twin.id, a.measure) if a.twin else None)


def briefs_of(desk: Desk, session: Session, p: PotToday) -> list[AnswerBrief]:
    """Answers to the own changes of a pot, worked out once for one state of it and of what stands beside it."""
    i = p.id
    if i not in desk.briefs:
        known = {(k.line.key, k.line.on, k.line.kind): k for k in desk.earlier.pop(i, ())}
        own = [c for c in desk.changes[i] if c.whose == "pot"]
        desk.briefs[i] = [_brief_of(desk, session, p, c, known.get((c.key, c.on, c.kind))) for c in own]
        desk.again.discard(i)
    return [k.line for k in desk.briefs[i]]
