"""At the bench: pots left for another day, who pours, saucers to empty."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row, now
from fenwa.api.typed import Moment, Typed
from fenwa.api.ways import Ways
from fenwa.core.care.interval import feel_again_on
from fenwa.core.care.vocabulary import SKIPPED, Felt
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, NotFound, Underspecified
from fenwa.store import models
from fenwa.store.collection import pots_as_read
from fenwa.store.house_rows import people as people_kept
from fenwa.store.house_rows import person_named, running_timers
from fenwa.store.round_state import round_pots
from fenwa.store.summary import open_pours, refresh, touch

router = Ways(prefix="/api", tags=["bench"])

TIMER_KEPT_H = 24  # a saucer nobody emptied is asked for till the next day, then it has dried or drowned


HOSED = "hosed"


class HosedIn(Model):
    """A day's hosing of a place: one tap, however often it was; litres are not known."""

    on: date
    water_id: int | None = None  # empty: what the round would take for each pot


class Hosed(Model):
    """The pours stored, none for a pot whose hosing of the day stands in the log."""

    pour_ids: list[int]


@router.post("/places/{place_id}/hosed", status_code=201)
def hosed(place_id: int, body: HosedIn, writer: OneWrite, today: Today) -> Hosed:
    """Log that everything at a place was hosed on a day; a second tap on that day adds nothing."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Place, place_id, "Place", "/place_id")
        if body.water_id is not None:
            get_row(session, models.Water, body.water_id, "Water", "/water_id")
        due, pots, waters = round_pots(session, today)
        known, ids = {w.water.id: w for w in waters}, []
        for r, p in zip(due, pots, strict=True):
            water = known.get(body.water_id or next(iter(r.water_ids), 0))
            logged = any(x.on == body.on and x.note == HOSED for x in open_pours(session, r.id))
            if p.pot.place_id != place_id or logged:
                continue
            row = models.Pour(
                pot_id=r.id,
                water_id=water.water.id if water else None,
                on=body.on,
                job="plain",
                route="top",
                ec_uS_cm=water.reckoned_uS_cm if water else None,
                ec_estimated=water is None or not water.measured,
                note=HOSED,
            )
            session.add(row)
            session.flush()
            ids.append(row.id)
            refresh(session, r.id)
        return {"pour_ids": ids}

    return Hosed(**writer.once(body, write))


class SkipIn(Model):
    """Pots left for another day, and what was felt."""

    pot_ids: list[int]
    on: date
    felt: Felt = "heavy"
    note: str = ""


class Skipped(Model):
    """The decisions stored, and the first day one of the pots is felt again."""

    decision_ids: list[int]
    feel_again_on: date


@router.post("/skips", status_code=201)
def skip_pots(body: SkipIn, writer: OneWrite, today: Today) -> Skipped:
    """Leave pots unwatered: a decision like any other, with the day to feel them again."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if not body.pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")

    def write(session: Session) -> dict[str, Any]:
        found = {p.pot.id: p for p in pots_as_read(session, today, set(body.pot_ids))}
        ids, days = [], []
        for pot_id in dict.fromkeys(body.pot_ids):
            if pot_id not in found:
                raise NotFound(f"Pot {pot_id} is not there. It may have been archived.", pointer="/pot_ids")
            again = feel_again_on(body.on, found[pot_id].interval.days)
            why = "; ".join(x for x in ({"heavy": "still heavy"}.get(body.felt, body.felt), body.note.strip()) if x)
            row = models.Decision(pot_id=pot_id, on=body.on, what=SKIPPED, why=why, look_again_on=again)
            session.add(row)
            session.flush()
            touch(session, pot_id)
            ids.append(row.id)
            days.append(again)
        return {"decision_ids": ids, "feel_again_on": min(days).isoformat()}

    return Skipped.model_validate(writer.once(body, write))


class PersonOut(Model):
    """A name of the short list."""

    id: int
    name: str


class PersonIn(Model):
    """A name for the short list; no account, no password."""

    name: str = Field(max_length=60)


@router.get("/people")
def people(session: ReadSession) -> list[PersonOut]:
    """Who pours here."""
    return [PersonOut(id=p.id, name=p.name) for p in people_kept(session)]


@router.post("/people", status_code=201)
def add_person(body: PersonIn, writer: OneWrite) -> Stored:
    """Add a name."""
    name = " ".join(body.name.split())
    if not name:
        raise Underspecified("Name is empty. Write who pours, a first name is enough.", pointer="/name")

    def write(session: Session) -> dict[str, Any]:
        if person_named(session, name) is not None:
            raise Conflict(f"{name} is in the list already.", pointer="/name")
        return keep_row(session, models.Person(name=name))

    return Stored(**writer.once(body, write))


class TimersIn(Model):
    """Saucers to empty after some minutes."""

    pot_ids: list[int]
    minutes: Typed = 20


class TimerOut(Model):
    """A running timer: when it was started and when it ends, UTC, by the server's clock; seconds left, 0 when over."""

    id: int
    pot_id: int
    code: str
    started_at: Moment
    ends_at: Moment
    left_s: float


@router.get("/timers")
def timers(session: ReadSession) -> list[TimerOut]:
    """Saucers that wait to be emptied, the first to end first."""
    moment = now()
    out = []
    for t, code in running_timers(session, moment - timedelta(hours=TIMER_KEPT_H)):
        ends = t.started_at + timedelta(minutes=t.minutes)
        out.append(
            TimerOut(
                id=t.id,
                pot_id=t.pot_id,
                code=code,
                started_at=t.started_at,
                ends_at=ends,
                left_s=max(0.0, (ends - moment).total_seconds()),
            )
        )
    return sorted(out, key=lambda t: (t.ends_at, t.id))


@router.post("/timers", status_code=201)
def start_timers(body: TimersIn, writer: OneWrite) -> list[Stored]:
    """Start a timer for each pot; it runs by the server's clock and outlives the page."""
    if not body.pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")
    require(body.minutes, "Minutes", "min", low=1, high=600, pointer="/minutes")

    def write(session: Session) -> dict[str, Any]:
        ids = []
        moment = now()  # one for all: saucers that end together are asked for together
        for pot_id in dict.fromkeys(body.pot_ids):
            get_row(session, models.Pot, pot_id, "Pot", "/pot_ids")
            row = models.Timer(pot_id=pot_id, started_at=moment, minutes=body.minutes)
            session.add(row)
            session.flush()
            ids.append(row.id)
        return {"ids": ids}

    return [Stored(id=i) for i in writer.once(body, write)["ids"]]


class EmptiedIn(Model):
    """Timers that are done."""

    ids: list[int]


@router.post("/timers/done")
def saucers_emptied(body: EmptiedIn, writer: OneWrite) -> EmptiedIn:
    """The saucers are empty."""

    def write(session: Session) -> dict[str, Any]:
        for timer_id in body.ids:
            get_row(session, models.Timer, timer_id, "Timer", "/ids").done_at = now()
        return {"ids": body.ids}

    return EmptiedIn(**writer.once(body, write))
