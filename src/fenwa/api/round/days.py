"""Days ahead: jobs besides water, the calendar, going away."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from fastapi import Response
from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.house.choices import read_settings
from fenwa.api.model import Model
from fenwa.api.round.planned import ErrandOut, coming_of, errand_outs
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, now
from fenwa.api.typed import Typed
from fenwa.api.ways import Ways
from fenwa.core.care.acts import not_to_do, then_of
from fenwa.core.care.away import AwayPlan, AwayPot, away_risk
from fenwa.core.care.coming import Coming, coming_pot
from fenwa.core.care.errands import Errand, ends_quarantine
from fenwa.core.care.holds import blocked
from fenwa.core.care.vocabulary import DONE, LATER, ErrandKind
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError
from fenwa.core.working import Computed
from fenwa.formats.calendar import Entry, to_ical
from fenwa.store import models
from fenwa.store.errand_state import errands_due
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import round_pots
from fenwa.store.summary import touch

router = Ways(prefix="/api", tags=["days"])

CALENDAR_DAYS = 56


class DaysPage(Model):
    """The coming weeks: rounds with their working, and jobs."""

    today: date
    coming: Computed[Coming]
    jobs: list[ErrandOut]


@router.get("/days")
def days_ahead(session: ReadSession, today: Today, days: int = 28) -> DaysPage:
    """Rounds and jobs of the coming days."""
    pots, kept, _ = round_pots(session, today)
    coming = coming_of(pots, today, days)
    found = errands_due(session, kept, today, today + timedelta(days=days))
    return DaysPage(today=today, coming=coming, jobs=errand_outs(found, today))


@router.get("/calendar.ics", response_class=Response)
def calendar(session: ReadSession, today: Today) -> Response:
    """Rounds and jobs of the coming eight weeks for any calendar program: a download, or a feed on this machine."""
    pots, kept, _ = round_pots(session, today)
    rounds = coming_of(pots, today, CALENDAR_DAYS).result.rounds
    entries = [
        Entry(
            f"round-{r.on.isoformat()}",
            r.on,
            f"Round: {len(r.codes)} {'pot' if len(r.codes) == 1 else 'pots'}",
            (", ".join(r.codes), "Feel each first; Fenwa says on the day what is in the can."),
            "round",
        )
        for r in rounds
    ]
    jobs = errands_due(session, kept, today, today + timedelta(days=CALENDAR_DAYS))
    entries += [Entry(e.id, max(e.due_on, today), e.title, _lines(e, today), "job") for e in jobs]
    name = read_settings(session).collection_name or "Fenwa"
    return Response(
        to_ical(entries, name, now()),
        media_type="text/calendar; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="fenwa.ics"'},
    )


def _lines(e: Errand, today: date) -> tuple[str, ...]:
    late = (today - e.due_on).days
    return (e.sentence, f"Due since {e.due_on}." if late > 0 else "")[: 2 if late > 0 else 1]


class JobIn(Model):
    """A job done, or put off by some days."""

    id: str = Field(max_length=120)
    kind: ErrandKind
    due_on: date
    pot_id: int | None = None
    on: date
    note: str = Field(default="", max_length=200)


class LaterIn(JobIn):
    """Put off."""

    days: Typed = 7


def _keep(session: Session, body: JobIn, kind: str, days: int | None) -> dict[str, Any]:
    if body.pot_id is not None:
        pot = get_row(session, models.Pot, body.pot_id, "Pot", "/pot_id")
        if kind == DONE and ends_quarantine(body.kind):
            pot.isolated, pot.isolated_since = False, None
        touch(session, body.pot_id)
    row = models.Event(
        pot_id=body.pot_id,
        on=body.on,
        kind=kind,
        days=days,
        errand_id=body.id,
        errand_kind=body.kind,
        errand_due_on=body.due_on,
        note=body.note.strip(),
    )
    session.add(row)
    session.flush()
    return {"id": row.id}


@router.post("/jobs/done", status_code=201)
def job_done(body: JobIn, writer: OneWrite, today: Today) -> Stored:
    """A job is done; the end of a quarantine lets the pot back among the others."""
    require_not_future(body.on, today, "Date", pointer="/on")
    return Stored(**writer.once(body, lambda s: _keep(s, body, DONE, None)))


@router.post("/jobs/later", status_code=201)
def job_later(body: LaterIn, writer: OneWrite, today: Today) -> Stored:
    """A job is put off."""
    require_not_future(body.on, today, "Date", pointer="/on")
    days = int(require(body.days, "Days", "d", low=1, high=366, pointer="/days"))
    return Stored(**writer.once(body, lambda s: _keep(s, body, LATER, days)))


class AwayPage(Model):
    """A journey planned."""

    collection: str
    plan: Computed[AwayPlan]


@router.get("/away")
def away(leaving: date, back: date, session: ReadSession, today: Today) -> AwayPage:
    """Which pots will not last until you are back, and what a helper does when."""
    if leaving < today:
        raise InputError(f"Leaving on {leaving} is in the past. Choose today or a later day.", pointer="/leaving")
    pots, kept, waters = round_pots(session, today)
    names = {w.water.id: w.water.name for w in waters}
    plan = away_risk(
        pots=[
            _away_pot(
                p,
                coming_pot(r, today).first_on,
                next((names[i] for i in r.water_ids if i in names), "the purest water at hand"),
                r.place,
            )
            for p, r in zip(kept, pots, strict=True)
        ],
        leaving=leaving,
        back=back,
    )
    return AwayPage(collection=read_settings(session).collection_name, plan=plan)


def _away_pot(p: PotToday, first_on: date | None, water: str, place: str) -> AwayPot:
    hold = next((h for h in p.holds if not h.standing and not h.word), None)
    dry = blocked(p.holds, "water")
    return AwayPot(
        id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        place=place,
        shelf_order=p.pot.shelf_order,
        interval_days=p.interval.days,
        low_days=p.interval.low,
        high_days=p.interval.high,
        amount_mL=round(p.volume_L * 1000, -1),
        water=water,
        route=p.pot.route,
        hold=hold.reason if hold else "",
        keep_dry=dry,
        never_dry=p.pot.drainage in ("tray", "reservoir") and not dry,
        first_on=first_on,
        then=then_of(p.pot.route, p.day.crown, p.pot.soak_min, p.pot.stand_min),
        not_do=not_to_do(p.pot.route, p.day.crown, p.profile.flush.from_above),
    )
