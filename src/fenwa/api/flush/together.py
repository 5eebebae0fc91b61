"""One change of rhythm, or one school of flushing, for every pot or for those of a kind."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from fenwa.api.flush.chosen import schools_of
from fenwa.api.model import Model
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.api.windowed import numbers
from fenwa.core.errors import InputError, NotFound
from fenwa.core.pot.ahead import YearAhead
from fenwa.core.pot.rhythms import WhatIf, litres_month
from fenwa.core.pot.together import (
    PotSchool,
    PotWhatIf,
    RhythmsTogether,
    SchoolsTogether,
    rhythms_together,
    schools_together,
)
from fenwa.core.working import Computed
from fenwa.store.collection import pots_today
from fenwa.store.pot_rhythms import what_if_years
from fenwa.store.pot_today import PotToday

MOST_REPLAYED = 120  # a pot takes a quarter of a second
MOST_RUN_AHEAD = 1_000  # five changes of a pot take a few milliseconds

router = Ways(prefix="/api", tags=["flush"])


class YearOfPot(Model):
    """A pot's year ahead under a change."""

    pot_id: int
    ahead: YearAhead


class ChangesPage(Model):
    """Every change over the pots asked about, and the years ahead under the chosen one."""

    change: WhatIf
    together: Computed[RhythmsTogether]
    years: list[YearOfPot]


def _asked(session: Session, kind: str, today: date) -> list[PotToday]:
    """Pots with a predicted reading, of one kind or all."""
    pots = [p for p in pots_today(session, today) if p.reading is not None and kind in ("", p.plant.profile_id)]
    if kind and not pots:
        raise NotFound(f"No pot of the kind “{kind}” has a log yet. Choose one of the list.", pointer="/kind")
    return pots


@router.get("/flush/changes")
def changes(
    session: ReadSession, today: Today, change: WhatIf = "as it is", kind: str = "", ids: str = ""
) -> ChangesPage:
    """Who would cross its ceiling within a year under one change for all, or for a kind; the years of ``ids``."""
    pots, shown = _asked(session, kind, today), numbers(ids, "/ids")
    if len(pots) > MOST_RUN_AHEAD:
        raise InputError(
            f"{len(pots)} pots are too many to run a year ahead at once, at most {MOST_RUN_AHEAD}. Choose a kind.",
            pointer="/kind",
        )
    years = what_if_years(session, pots, today)
    rows = [
        PotWhatIf(y.change, y.ahead.crosses_on is not None, litres_month(y.rhythm))
        for mine in years.values()
        for y in mine
    ]
    chosen = [(pot_id, y.ahead) for pot_id, mine in years.items() for y in mine if y.change == change]
    chosen = [x for x in chosen if not shown or x[0] in shown]
    return ChangesPage(
        change=change,
        together=rhythms_together(pots=rows),
        years=[YearOfPot(pot_id=pot_id, ahead=ahead) for pot_id, ahead in chosen],
    )


@router.get("/flush/schools")
def schools(session: ReadSession, today: Today, kind: str = "") -> Computed[SchoolsTogether]:
    """What each school of flushing would have done over the last year with every pot, or with those of a kind."""
    pots = _asked(session, kind, today)
    if len(pots) > MOST_REPLAYED:
        raise InputError(
            f"{len(pots)} pots are too many to play again at once, at most {MOST_REPLAYED}. Choose a kind.",
            pointer="/kind",
        )
    rows = []
    for p in pots:
        if p.log.last_pour_on is not None:
            years = schools_of(session, p, today).result.schools
            rows += [PotSchool(y.school, len(y.flushes), y.litres, y.days_over) for y in years]
    return schools_together(pots=rows)
