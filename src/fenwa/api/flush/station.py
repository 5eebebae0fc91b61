"""The Flush station: every pot by how near it is to its ceiling, the year ahead, the calendar, and a round."""

from __future__ import annotations

from datetime import date, timedelta

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.flush.chosen import held_by, methods_of
from fenwa.api.model import Model
from fenwa.api.pots.shown import PotRow, pot_row
from fenwa.api.transactions import ReadSession, Today, as_json
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.api.windowed import WINDOW, Count, Skip, window
from fenwa.core.care.flush_round import FlushJob, FlushRoundPlan, flush_round, rinse_dates, why_no_rinse
from fenwa.core.constants import FLUSH_SHARE
from fenwa.core.pot.ahead import YearAhead
from fenwa.core.working import Computed
from fenwa.store.collection import pots_today
from fenwa.store.flush_state import running_flushes
from fenwa.store.pot_rhythms import years_ahead
from fenwa.store.pot_today import PotToday

router = Ways(prefix="/api", tags=["flush"])


class FlushRow(Model):
    """A pot at the station: its salt against its ceiling, why it is held, and the year ahead."""

    row: PotRow
    share: float
    due: bool
    held: str
    held_ends: str
    from_above: str
    running_id: int | None
    last_flush_on: date | None
    ahead: YearAhead | None


class FlushKind(Model):
    """A kind that has pots at the station."""

    id: str
    name: str


class FlushPage(Model):
    """The station: a window of its pots, the saltiest first; ``total`` of the kind asked for, and every kind."""

    today: date
    total: int
    kinds: list[FlushKind]
    pots: list[FlushRow]


class RinseRow(Model):
    """A pot in the calendar: the days it is rinsed, or why it is not."""

    pot_id: int
    code: str
    name: str
    place: str
    each_days: int | None
    dates: list[date]
    left_out: str
    how: str


class RinseCalendar(Model):
    """Flushes by calendar, in walking order."""

    since: date
    until: date
    pots: list[RinseRow]


class FlushRoundIn(Model):
    """A flush round to be planned. Empty ``pot_ids``: everything that is due."""

    pot_ids: list[int] = []
    litres_at_hand: TypedOrNone = None
    litres_a_day: TypedOrNone = None
    minutes_a_day: TypedOrNone = None


@router.get("/flush", response_model=FlushPage)
def flush_station(
    session: ReadSession, today: Today, kind: str = "", skip: Skip = 0, count: Count = WINDOW
) -> Response:
    """Pots by how near their salt is to their ceiling, with who crosses it when."""
    poured = [p for p in pots_today(session, today) if p.reading is not None]
    kinds = sorted({(p.profile.short, p.plant.profile_id) for p in poured})
    asked = [p for p in poured if kind in ("", p.plant.profile_id)]
    asked.sort(key=lambda p: p.day.share_of_ceiling, reverse=True)
    shown = window(asked, skip, count)
    running, ahead = running_flushes(session), years_ahead(session, shown, today)
    page = FlushPage(
        today=today,
        total=len(asked),
        kinds=[FlushKind(id=i, name=name) for name, i in kinds],
        pots=[_row(p, running.get(p.pot.id), ahead.get(p.pot.id)) for p in shown],
    )
    return as_json(page)


def _row(p: PotToday, running_id: int | None, ahead: YearAhead | None) -> FlushRow:
    held, ends = held_by(p)
    return FlushRow(
        row=pot_row(p),
        share=p.day.share_of_ceiling,
        due=p.day.share_of_ceiling >= FLUSH_SHARE and not held,
        held=held,
        held_ends=ends,
        from_above=p.profile.flush.from_above,
        running_id=running_id,
        last_flush_on=p.log.last_flush_on,
        ahead=ahead,
    )


@router.get("/flush/calendar")
def flush_calendar(session: ReadSession, today: Today, since: date | None = None, days: int = 365) -> RinseCalendar:
    """Flushes by calendar: each kind's own cadence from its last one on; who is left out, and why."""
    start, until = since or today, (since or today) + timedelta(days=max(1, min(days, 1460)))
    rows = []
    for p in pots_today(session, today):
        cadence, from_above = p.profile.flush.cadence_days, p.profile.flush.from_above
        each = cadence[1] if cadence else None
        begun = p.log.last_flush_on
        why = why_no_rinse(from_above, p.day.crown, p.spec.drains, each)
        first = start if begun is None or each is None else max(start, begun + timedelta(days=each))
        rows.append(
            RinseRow(
                pot_id=p.pot.id,
                code=p.pot.code,
                name=p.name,
                place=p.place,
                each_days=each,
                dates=[] if why or each is None else list(rinse_dates(first, each, until)),
                left_out=why,
                how=p.profile.flush.how,
            )
        )
    return RinseCalendar(since=start, until=until, pots=rows)


@router.post("/flush/round")
def plan_round(body: FlushRoundIn, session: ReadSession, today: Today) -> Computed[FlushRoundPlan]:
    """The order in which pots are flushed, spread over days where water or time is short. Stores nothing."""
    asked = set(body.pot_ids)
    chosen = [
        p
        for p in pots_today(session, today)
        if p.reading is not None and (p.pot.id in asked if asked else p.day.share_of_ceiling >= FLUSH_SHARE)
    ]
    return flush_round(
        jobs=[_job(session, p, today) for p in chosen],
        today=today,
        litres_at_hand=body.litres_at_hand,
        litres_a_day=body.litres_a_day,
        minutes_a_day=body.minutes_a_day,
    )


def _job(session: Session, p: PotToday, today: date) -> FlushJob:
    held, ends = held_by(p)
    m = methods_of(session, p, today).result
    best = m.ways[0]
    if not held and not best.possible:
        held, ends = best.sentence, "A purer water, or fresh mix."
    return FlushJob(
        pot_id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        share=p.day.share_of_ceiling,
        way=best.way,
        litres=best.litres,
        minutes=best.minutes,
        from_above=p.profile.flush.from_above,
        healthy=not p.pot.isolated and p.log.rot_on is None,
        held=held,
        ends=ends,
    )
