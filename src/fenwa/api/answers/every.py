"""Every change of the year side by side, and what the same change did to several plants together."""

from __future__ import annotations

from bisect import insort_right
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from operator import attrgetter

from sqlalchemy.orm import Session

from fenwa.api.answers.desk import AnswerBrief, Desk, KeptBrief, briefs_of, desk_of
from fenwa.api.model import Model
from fenwa.core.evidence.measures import facts_of
from fenwa.core.evidence.together import Answer, Together, effect_together
from fenwa.core.working import Computed

FEW = 200  # answers put among the others one by one; more are put in order with them
MOST_TOGETHER = 200
_DAY = attrgetter("on", "code")


class QuestionOut(Model):
    """One question that several plants answered. ``together`` None: fewer than two can be put together."""

    question: str
    measure: str
    unit: str
    asked: int
    answered: int
    together: Computed[Together] | None
    sentence: str


Asked = tuple[str, str]  # a question and the measure that answers it


@dataclass(frozen=True)
class Every:
    """Answers to all changes, oldest first, and the questions they put together; ``kept``: the same by pot."""

    today: date
    kept: dict[int, list[KeptBrief]]
    rows: list[AnswerBrief]
    kinds: list[str]
    questions: dict[Asked, QuestionOut]

    def in_order(self) -> list[QuestionOut]:
        """Questions, those with the most answers first."""
        return sorted(self.questions.values(), key=lambda q: (-q.answered, -q.asked, q.question, q.measure))


def every_change_of(session: Session, today: date) -> Every:
    """Answers to all changes. What a write did not alter is taken from what readers were told before it."""
    desk, store = desk_of(session, today), session.info.get("store")
    for i in desk.pots.keys() - desk.briefs.keys():
        briefs_of(desk, session, desk.pots[i])
    before: Every | None = store.changed.memory.get("every change") if store is not None else None
    if before is None or before.today != today:
        before = Every(today, {}, [], [], {})
    found = _going_on(desk, before)
    if store is not None:
        store.changed.memory["every change"] = found
    return found


def _going_on(desk: Desk, before: Every) -> Every:
    now = {i: desk.briefs[i] for i in desk.pots}
    other = {i for i, kept in now.items() if before.kept.get(i) is not kept} | (before.kept.keys() - now.keys())
    gone, new = dict[int, list[AnswerBrief]](), dict[int, list[AnswerBrief]]()
    for i in other:
        was, mine = _lines(before.kept.get(i, ())), _lines(now.get(i, ()))
        if was != mine:
            gone[i], new[i] = was, mine
    if not gone:
        return Every(before.today, now, before.rows, before.kinds, before.questions)
    rows = [r for r in before.rows if r.pot_id not in gone]
    _put_among(rows, [r for mine in new.values() for r in reversed(mine)])
    touched = {(r.question, r.measure) for one in (gone, new) for mine in one.values() for r in mine}
    groups: dict[Asked, list[AnswerBrief]] = {}
    for r in reversed(rows):
        if (r.question, r.measure) in touched:
            groups.setdefault((r.question, r.measure), []).append(r)
    questions = {asked: q for asked, q in before.questions.items() if asked not in touched}
    questions |= {asked: _question(*asked, mine) for asked, mine in groups.items()}
    return Every(before.today, now, rows, sorted({r.kind for r in rows}), questions)


def _lines(kept: Iterable[KeptBrief]) -> list[AnswerBrief]:
    return [k.line for k in kept]


def _put_among(rows: list[AnswerBrief], new: list[AnswerBrief]) -> None:
    """Put answers where their days are."""
    if len(new) > FEW:
        rows += new
        rows.sort(key=_DAY)
        return
    for r in new:
        insort_right(rows, r, key=_DAY)


def _question(question: str, measure: str, mine: list[AnswerBrief]) -> QuestionOut:
    """The same change in several plants, read by the same measure against a twin or last year."""
    known = [r for r in mine if r.measured is not None and r.se is not None and r.against != "own trend"]
    together = None
    if len(known) >= 2:
        named = [Answer(f"{r.code}, {r.on.isoformat()}", r.measured or 0.0, r.se or 1.0) for r in known]
        together = effect_together(answers=named[:MOST_TOGETHER], measure=measure)
    return QuestionOut(
        question=question,
        measure=measure,
        unit=facts_of(measure).unit,
        asked=len(mine),
        answered=len(known),
        together=together,
        sentence=together.result.sentence if together else f"{len(mine)} asked, {len(known)} with something beside it.",
    )
