"""Jobs and rounds ahead in the shapes the round, the calendar and a journey print."""

from __future__ import annotations

from datetime import date

from fenwa.api.model import Model
from fenwa.core.care.coming import Coming, coming_pot, coming_rounds
from fenwa.core.care.due import RoundPot
from fenwa.core.care.errands import Errand
from fenwa.core.care.vocabulary import ErrandKind
from fenwa.core.pace import in_steps
from fenwa.core.working import Computed


class ErrandOut(Model):
    """A job besides water.

    ``late_days`` below zero: not due yet. ``done_here``: a word settles it; else doing it elsewhere does. [d]
    """

    id: str
    kind: ErrandKind
    due_on: date
    late_days: int
    pot_id: int | None
    title: str
    sentence: str
    done_here: bool


def errand_outs(found: list[Errand], today: date) -> list[ErrandOut]:
    """Jobs for a page."""
    return [
        ErrandOut(
            id=e.id,
            kind=e.kind,
            due_on=e.due_on,
            late_days=(today - e.due_on).days,
            pot_id=e.pot_id,
            title=e.title,
            sentence=e.sentence,
            done_here=e.done_here,
        )
        for e in in_steps(found)
    ]


def coming_of(pots: list[RoundPot], today: date, days: int) -> Computed[Coming]:
    """Rounds of the coming days."""
    return coming_rounds(pots=[coming_pot(p, today) for p in pots], today=today, days=days)
