"""Rhythms of many pots, and the year each has ahead under its own or under one change for all."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from sqlalchemy.orm import Session

from fenwa.core.pot.ahead import RHYTHM_DAYS, RHYTHM_POURS, Rhythm, YearAhead, present_rhythm, year_ahead
from fenwa.core.pot.rhythms import WHAT_IFS, WhatIf, with_what_if
from fenwa.store.collection import kept_of_pots, states_of
from fenwa.store.log_rows import as_event, last_pours
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import water_of_pot
from fenwa.store.salt_of_pots import BallastShares
from fenwa.store.water_state import waters_today


@dataclass(frozen=True)
class WhatIfYear:
    """A pot's rhythm under a change, and its year ahead."""

    change: WhatIf
    rhythm: Rhythm
    ahead: YearAhead


def with_rhythm(session: Session, pots: Sequence[PotToday], today: date) -> list[tuple[PotToday, Rhythm]]:
    """Pots that are poured in a rhythm, with it."""
    since = today - timedelta(days=RHYTHM_DAYS)
    pours = last_pours(session, [p.pot.id for p in pots], since, today, RHYTHM_POURS)
    shares = BallastShares(session, [x for mine in pours.values() for x in mine])
    out = []
    for p in pots:
        rhythm = present_rhythm([as_event(x, shares) for x in pours.get(p.pot.id, [])], today, p.spec)
        if rhythm is not None and p.reading is not None:
            out.append((p, rhythm))
    return out


def years_ahead(session: Session, pots: Sequence[PotToday], today: date) -> dict[int, YearAhead]:
    """The year ahead of every pot that has a rhythm."""

    def made(new: Sequence[PotToday]) -> dict[int, YearAhead]:
        found = what_if_years(session, new, today, ("as it is",))
        return {pot_id: years[0].ahead for pot_id, years in found.items()}

    return kept_of_pots(session, "years ahead", pots, made)


def what_if_years(
    session: Session, pots: Sequence[PotToday], today: date, changes: Sequence[WhatIf] = WHAT_IFS
) -> dict[int, list[WhatIfYear]]:
    """The year ahead of every pot that has a rhythm, under each change."""
    having = with_rhythm(session, pots, today)
    if not having:
        return {}
    mine = [p for p, _ in having]
    members, state = states_of(session, mine, today)
    ceilings = [p.profile.root_zone.ec_ceiling_uS_cm for p in mine]
    waters = {w.water.id: w.reckoned_uS_cm for w in waters_today(session, today)}
    out: dict[int, list[WhatIfYear]] = {p.pot.id: [] for p in mine}
    for change in changes:
        rhythms = [
            r if change == "as it is" else with_what_if(r, change, p.spec, *_waters(session, p, today, waters))
            for p, r in having
        ]
        found = year_ahead([p.spec for p in mine], members, state, rhythms, ceilings, today)
        for p, rhythm, ahead in zip(mine, rhythms, found, strict=True):
            out[p.pot.id].append(WhatIfYear(change, rhythm, ahead))
    return out


def _waters(session: Session, p: PotToday, today: date, waters: dict[int, float]) -> tuple[float, float]:
    """The water it is given, and the purest it may have. [µS/cm]"""
    choice, first = water_of_pot(session, p, today)
    fit = [waters[i] for i in choice.ids if i in waters]
    base = first.reckoned_uS_cm if first is not None else min(fit, default=0.0)
    return base, min([base, *fit])
