"""Did it help? Every change of a pot with its answer, and every change of the year side by side."""

from __future__ import annotations

from datetime import date

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.answers.desk import AnswerBrief, Desk, answer, desk_of
from fenwa.api.answers.every import QuestionOut, every_change_of
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today, as_json
from fenwa.api.ways import Ways
from fenwa.api.windowed import WINDOW, Count, Skip, window
from fenwa.core.errors import NotFound
from fenwa.core.evidence.answer import Against, DidItHelp
from fenwa.core.evidence.measures import MEASURES, facts_of
from fenwa.core.evidence.twins import Twin
from fenwa.core.working import Computed
from fenwa.store.memory import remembered

router = Ways(prefix="/api", tags=["answers"])


class ChangeOut(Model):
    """A change that can be asked about."""

    key: str
    on: date
    kind: str
    words: str
    at_place: bool


class MeasureTaken(Model):
    """A measure that was taken of this plant."""

    id: str
    name: str
    unit: str
    values: int


class PotAnswer(Model):
    """One change of one plant: what it is held against, and the answer with its working."""

    change: ChangeOut
    measure: str
    unit: str
    log_scale: bool
    window_why: str
    window_low: int
    window_high: int
    against: Against
    twin: Twin | None
    twins: list[Twin]
    answer: Computed[DidItHelp]


class PotAnswers(Model):
    """Changes of a pot, newest first, and the answer to the one asked about. None: nothing was changed."""

    today: date
    pot_id: int
    code: str
    name: str
    changes: list[ChangeOut]
    measures: list[MeasureTaken]
    chosen: PotAnswer | None


@router.get("/pots/{pot_id}/answers")
def answers_of_pot(
    pot_id: int, session: ReadSession, today: Today, change: str = "", measure: str = "", beside: int | None = None
) -> PotAnswers:
    """Changes of a pot, and whether one of them helped: the newest that can be judged, or the one asked about."""
    p = one_pot(session, pot_id, today)
    desk = desk_of(session, today)
    changes = desk.changes.get(pot_id, [])
    chosen = next((c for c in changes if c.key == change), None)
    if change and chosen is None:
        raise NotFound(f"Change “{change}” is not in this pot’s log. It may have been undone.", pointer="/change")
    if measure and measure not in MEASURES:
        raise NotFound(f"Measure “{measure}” is not known. Choose one of {', '.join(MEASURES)}.", pointer="/measure")
    if chosen is None and changes:
        chosen = _first(desk, session, pot_id)
    found = None
    if chosen is not None:
        a = answer(desk, session, p, chosen, measure, beside)
        facts = facts_of(a.measure)
        found = PotAnswer(
            change=_shown(a.change),
            measure=a.measure,
            unit=facts.unit,
            log_scale=facts.log,
            window_why=a.window.why,
            window_low=a.window.low,
            window_high=a.window.high,
            against=a.against,
            twin=a.twin,
            twins=list(a.twins),
            answer=a.computed,
        )
    return PotAnswers(
        today=today,
        pot_id=pot_id,
        code=p.pot.code,
        name=p.name,
        changes=[_shown(c) for c in changes],
        measures=[
            MeasureTaken(id=k, name=f.name, unit=f.unit, values=len(desk.of(session, k).get(p.plant.id, [])))
            for k, f in MEASURES.items()
        ],
        chosen=found,
    )


def _shown(c: object) -> ChangeOut:
    return ChangeOut(key=c.key, on=c.on, kind=c.kind, words=c.words, at_place=c.whose == "place")  # type: ignore[attr-defined]


def _first(desk: Desk, session: Session, pot_id: int):  # type: ignore[no-untyped-def]
    """The newest own change that has an answer, else the newest own one, else the newest."""
    p, changes = desk.pots[pot_id], desk.changes[pot_id]
    own = [c for c in changes if c.whose == "pot"]
    for c in own:
        if answer(desk, session, p, c).computed.result.measured is not None:
            return c
    return (own or changes)[0]


class EveryChange(Model):
    """Changes of the last fourteen months with their answers, in windows, and the questions they put together.

    ``total``: changes of the kind asked for; ``kinds``: kinds of change there are.
    """

    today: date
    total: int
    kinds: list[str]
    answers: list[AnswerBrief]
    questions: list[QuestionOut]


@router.get("/changes", response_model=EveryChange)
def every_change(session: ReadSession, today: Today, kind: str = "", skip: Skip = 0, count: Count = WINDOW) -> Response:
    """Every change so far, newest first, so that next season starts from what was learnt."""
    every = remembered(session, "changes", today, lambda s: every_change_of(s, today))
    rows = every.rows[::-1]
    asked = [r for r in rows if r.kind == kind] if kind else rows
    page = EveryChange(
        today=today,
        total=len(asked),
        kinds=every.kinds,
        answers=list(window(asked, skip, count)),
        questions=every.in_order(),
    )
    return as_json(page)
