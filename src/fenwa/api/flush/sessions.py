"""A flush as it runs: begun, pass by pass, ended; and the flushes there were."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.flush.entered import ReadingUnit, runoff_ec
from fenwa.api.flush.flush_shown import FlushesOf, FlushOut, flush_out, live_of, past_flush
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row, now
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.interlock import PourPlan, unanswered
from fenwa.core.care.usual import look_again_on
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, InputError, NotFound
from fenwa.core.pot.flush_start import after_flush, begin_flush, ended_as
from fenwa.core.pot.live_passes import FlushPass
from fenwa.core.pot.methods import Colour
from fenwa.core.pot.weights import checked_grams, missing_L
from fenwa.store import models
from fenwa.store.flush_state import as_pass, flushes_of, passes_of, running_flush
from fenwa.store.pot_balance import balance_of
from fenwa.store.pot_rows import newest_weight
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import refresh
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api", tags=["flush"])

CLOCK_OFF_min = 10  # a phone may be off by so much
FLUSH_ANYWAY = " Wait, or write a word in the note to flush all the same."
Went = Literal["", "lawn or bed", "collected", "drain"]


class FlushBeginIn(Model):
    """A flush to begin. Empty targets: the top of the comfortable range; ``target_runoff``: own stop, a runoff."""

    water_id: int
    target_reading: TypedOrNone = None
    target_runoff: TypedOrNone = None
    round_L: TypedOrNone = None
    weight_g: TypedOrNone = None  # the pot on the scale before the first pass; empty: not weighed
    way: Literal["rounds", "soak and drain", "baths"] = "rounds"
    on: date | None = None  # of one logged afterwards; empty: today
    at: datetime | None = None  # when it began; empty: now
    note: str = Field(default="", max_length=500)
    by: str = Field(default="", max_length=60)


class PassIn(Model):
    """A pass as poured. ``at``: when; empty: now. ``runoff_ec``: the last that ran out of it. [mL, L]"""

    volume: Typed
    volume_unit: Literal["mL", "L"] = "mL"
    drained: TypedOrNone = None
    runoff_ec: TypedOrNone = None
    runoff_unit: ReadingUnit = "µS/cm"
    pH: TypedOrNone = None
    colour: Colour | Literal[""] = ""
    at: datetime | None = None
    read_twice: bool = False


class PassReadIn(Model):
    """The runoff of the last pass, read after it was poured."""

    runoff_ec: Typed
    runoff_unit: ReadingUnit = "µS/cm"
    read_twice: bool = False


class FlushEndIn(Model):
    """The end of a flush. ``broken_off``: it is still due. None: not said."""

    broken_off: bool = False
    tray_emptied: bool | None = None
    runoff_went: Went = ""
    weight_g: TypedOrNone = None  # drained, after the last pass; empty: not weighed
    note: str = Field(default="", max_length=500)


def _moment(at: datetime | None) -> datetime | None:
    """A moment as typed, in UTC; none lies ahead of the clock by more than it may be wrong."""
    if at is None:
        return None
    plain = at.astimezone(UTC).replace(tzinfo=None) if at.tzinfo else at
    if plain > now() + timedelta(minutes=CLOCK_OFF_min):
        raise InputError(f"{plain:%H:%M} UTC lies ahead of the clock. Check the time.", pointer="/at")
    return plain


def _one(session: Session, flush_id: int, today: date) -> tuple[models.Flush, PotToday]:
    f = get_row(session, models.Flush, flush_id, "Flush", "/flush_id")
    return f, one_pot(session, f.pot_id, today)


@router.post("/pots/{pot_id}/flushes", status_code=201)
def begin(pot_id: int, body: FlushBeginIn, writer: OneWrite, today: Today) -> FlushOut:
    """Begin a flush of a pot, planned or not."""

    if body.weight_g is not None:
        checked_grams(body.weight_g, "/weight_g")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        running = running_flush(session, pot_id)
        if running is not None:
            raise Conflict(
                f"{p.pot.code} is being flushed since {running.on}. End that flush first.", pointer="/pot_id"
            )
        water = next((w for w in waters_today(session, today) if w.water.id == body.water_id), None)
        if water is None:
            raise NotFound(f"Water {body.water_id} is not there. It may have been archived.", pointer="/water_id")
        on = body.on or today
        require_not_future(on, today, "Date", pointer="/on")
        _object(p, water.reckoned_uS_cm, body.note)
        b = balance_of(session, p, today)
        lacks = b.deficit_L
        if body.weight_g is not None:
            drained = newest_weight(session, pot_id, "drained")
            lacks = lacks if drained is None else missing_L(drained, body.weight_g)
            session.add(models.Weight(pot_id=pot_id, on=on, grams=body.weight_g, kind="now"))
        target = body.target_reading if body.target_reading is not None else p.profile.root_zone.ec_ideal_uS_cm[1]
        from_above = p.profile.flush.from_above
        plan = begin_flush(
            pot=b.learnt,
            root_zone_uS_cm=b.root_zone_uS_cm,
            target_reading_uS_cm=target,
            water_uS_cm=water.reckoned_uS_cm,
            deficit_L=lacks,
            from_above=from_above if body.way == "rounds" else "yes",
            target_runoff_uS_cm=body.target_runoff,
            round_L=body.round_L,
        )
        f = models.Flush(
            pot_id=pot_id,
            water_id=body.water_id,
            on=on,
            started_at=_moment(body.at) or now(),
            way=body.way,
            target_uS_cm=target,
            stop_runoff_uS_cm=plan.stop_runoff_uS_cm,
            water_uS_cm=water.reckoned_uS_cm,
            root_zone_uS_cm=plan.root_zone_full_uS_cm,
            first_runoff_uS_cm=plan.first_runoff_uS_cm,
            slope_per_L=plan.slope_per_L,
            round_L=plan.round_L,
            pause_min=plan.pause_min,
            refill_L=plan.refill_L,
            before_uS_cm=p.reading,
            note=body.note,
            by=body.by.strip(),
        )
        session.add(f)
        session.flush()
        return flush_out(session, f, p).model_dump(mode="json")

    return FlushOut.model_validate(writer.once(body, write))


def _object(p: PotToday, water_uS_cm: float, note: str) -> None:
    """Refuse a flush that a hold forbids, unless a word says why it is done all the same."""
    plan = PourPlan(
        p.pot.code,
        "flush",
        water_uS_cm,
        True,
        p.profile.feeding.root_pour_ec_max_uS_cm,
        p.feed_ceiling_uS_cm,
        p.holds,
        "top",
        p.day.crown,
        "root",
    )
    objections = unanswered(plan, note)
    if objections:
        raise Conflict(" ".join(objections) + FLUSH_ANYWAY, pointer="/note")


@router.get("/flushes/{flush_id}")
def flush_page(flush_id: int, session: ReadSession, today: Today) -> FlushOut:
    """A flush with its passes, its curve and what is left."""
    f, p = _one(session, flush_id, today)
    return flush_out(session, f, p)


@router.post("/flushes/{flush_id}/passes", status_code=201)
def add_pass(flush_id: int, body: PassIn, writer: OneWrite, today: Today) -> FlushOut:
    """Log a pass with its runoff, where one was read."""
    litres = body.volume * (0.001 if body.volume_unit == "mL" else 1.0)
    drained = None if body.drained is None else body.drained * (0.001 if body.volume_unit == "mL" else 1.0)
    ec = runoff_ec(body.runoff_ec, body.runoff_unit, "/runoff_ec")
    if body.pH is not None:
        require(body.pH, "pH", "", low=0, high=14, pointer="/pH")

    def write(session: Session) -> dict[str, Any]:
        f, p = _one(session, flush_id, today)
        if f.ended_as:
            raise Conflict("This flush has ended. Begin another one.", pointer="/flush_id")
        before = passes_of(session, f.id)
        at = _moment(body.at)
        minute = ((at or now()) - f.started_at).total_seconds() / 60
        last = before[-1].minute or 0.0 if before else None
        soaked = 0.0 if last is None else max(0.0, minute - last)
        if at is None and before:
            minute = max(minute, last or 0.0)
        new = FlushPass(litres, ec, drained, max(minute, 0.0) if at is None else minute, soaked, body.read_twice)
        live_of(session, f, p, [*(as_pass(x) for x in before), new])  # refuses what cannot be
        row = models.Pour(
            pot_id=f.pot_id,
            water_id=f.water_id,
            on=f.on,
            job="flush",
            route="top" if f.way == "rounds" else "soak",
            volume_L=litres,
            ec_uS_cm=f.water_uS_cm,
            flush_id=f.id,
            minute=new.minute,
            soaked_min=soaked,
            by=f.by,
        )
        if ec is not None or drained is not None or body.pH is not None or body.colour:
            row.runoff = models.Runoff(
                volume_L=drained,
                ec_uS_cm=ec,
                method="last",
                pH=body.pH,
                colour=body.colour,
                read_twice=body.read_twice,
            )
        session.add(row)
        session.flush()
        refresh(session, f.pot_id)
        return flush_out(session, f, p).model_dump(mode="json")

    return FlushOut.model_validate(writer.once(body, write))


@router.post("/flushes/{flush_id}/read", status_code=201)
def read_pass(flush_id: int, body: PassReadIn, writer: OneWrite, today: Today) -> FlushOut:
    """Read the runoff of the last pass, or read it again."""
    ec = runoff_ec(body.runoff_ec, body.runoff_unit, "/runoff_ec")

    def write(session: Session) -> dict[str, Any]:
        f, p = _one(session, flush_id, today)
        rows = passes_of(session, f.id)
        if f.ended_as or not rows:
            raise Conflict("There is no pass to read. Pour first.", pointer="/flush_id")
        last = rows[-1]
        new = as_pass(last)
        read = FlushPass(new.volume_L, ec, new.drained_L, new.minute, new.soaked_min, body.read_twice)
        live_of(session, f, p, [*(as_pass(x) for x in rows[:-1]), read])
        if last.runoff is None:
            last.runoff = models.Runoff(method="last")
        last.runoff.ec_uS_cm, last.runoff.read_twice = ec, body.read_twice
        session.flush()
        refresh(session, f.pot_id)
        return flush_out(session, f, p).model_dump(mode="json")

    return FlushOut.model_validate(writer.once(body, write))


@router.post("/flushes/{flush_id}/end")
def end_flush(flush_id: int, body: FlushEndIn, writer: OneWrite, today: Today) -> FlushOut:
    """End a flush: reached, flattened out, or broken off and still due."""
    if body.weight_g is not None:
        checked_grams(body.weight_g, "/weight_g")

    def write(session: Session) -> dict[str, Any]:
        f, p = _one(session, flush_id, today)
        if f.ended_as:
            raise Conflict("This flush has ended already.", pointer="/flush_id")
        rows = passes_of(session, f.id)
        if not rows and not body.broken_off:
            raise InputError("Nothing was poured. Break it off instead.", pointer="/broken_off")
        status = live_of(session, f, p, [as_pass(x) for x in rows]).result.status
        f.ended_as = ended_as(status, body.broken_off)
        f.ended_at = now()
        f.tray_emptied, f.runoff_went = body.tray_emptied, body.runoff_went
        f.note = f"{f.note} {body.note}".strip()
        after = after_flush(today, p.interval.days, f.ended_as != "interrupted")
        f.feed_on = after.feed_on if after else None
        f.look_on = look_again_on(today, p.profile.lag_days.overfeeding) if after else None
        session.flush()
        refresh(session, f.pot_id)
        session.flush()
        later = one_pot(session, f.pot_id, today)
        f.after_uS_cm = later.reading
        if body.tray_emptied and not p.spec.drains:
            session.add(models.Level(pot_id=f.pot_id, on=today, did="emptied"))
        if body.weight_g is not None:
            session.add(models.Weight(pot_id=f.pot_id, on=today, grams=body.weight_g, kind="drained"))
        session.flush()
        return flush_out(session, f, later).model_dump(mode="json")

    return FlushOut.model_validate(writer.once(body, write))


@router.get("/pots/{pot_id}/flushes")
def flush_history(pot_id: int, session: ReadSession, today: Today) -> FlushesOf:
    """What each flush of a pot achieved: before, after, litres, efficiency."""
    p = one_pot(session, pot_id, today)
    running = running_flush(session, pot_id)
    return FlushesOf(
        running_id=running.id if running else None,
        flushes=[past_flush(session, f, p) for f in flushes_of(session, pot_id) if f.ended_as],
    )
