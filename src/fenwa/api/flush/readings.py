"""What comes out of a pot between pours: readings by their method, crust and colour, and what they taught."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.flush.entered import ReadingUnit, runoff_ec
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, NotFound, Underspecified
from fenwa.core.pot.calibration import LearntPot, told
from fenwa.core.pot.fold import fold_log
from fenwa.core.pot.methods import OF_A_POUR, WORDS, Colour, Crust, Method, Moist
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.flush_state import runoffs_of
from fenwa.store.pot_balance import balance_of
from fenwa.store.summary import refresh

router = Ways(prefix="/api", tags=["flush"])


class ComesOutIn(Model):
    """A reading between pours, or what is seen without a meter. Empty: not looked at."""

    on: date
    method: Method = "pour-through"
    ec: TypedOrNone = None
    unit: ReadingUnit = "µS/cm"
    pH: TypedOrNone = None
    crust: Crust | Literal[""] = ""
    colour: Colour | Literal[""] = ""
    moist: Moist | None = None
    note: str = Field(default="", max_length=500)


class ComesOut(Model):
    """A reading as stored, with what it is as a pour-through and what was expected. [µS/cm]"""

    id: int
    on: date
    method: Method
    ec_uS_cm: float | None
    pH: float | None
    crust: str
    colour: str
    note: str
    left_out: bool
    of_pour: bool


class ComesOutStored(Model):
    """What was stored: the reading, and how wet it felt. None: not entered."""

    id: int | None
    felt_id: int | None


class ReadingsOf(Model):
    """Every reading of a pot, oldest first."""

    readings: list[ComesOut]


class LeftOutIn(Model):
    """Whether a reading is left out of what a pot learns from."""

    left_out: bool


def reading_out(r: models.Runoff) -> ComesOut:
    """A reading as it is told."""
    on = r.on if r.on is not None else r.pour.on if r.pour is not None else date.min
    return ComesOut(
        id=r.id,
        on=on,
        method=r.method,
        ec_uS_cm=r.ec_uS_cm,
        pH=r.pH,
        crust=r.crust,
        colour=r.colour,
        note=r.note,
        left_out=r.left_out,
        of_pour=r.pour_id is not None,
    )


@router.post("/pots/{pot_id}/readings", status_code=201)
def add_reading(pot_id: int, body: ComesOutIn, writer: OneWrite, today: Today) -> ComesOutStored:
    """Log what came out of a pot between pours, or what was seen."""
    require_not_future(body.on, today, "Date", pointer="/on")
    ec = runoff_ec(body.ec, body.unit, "/ec")
    if body.pH is not None:
        require(body.pH, "pH", "", low=0, high=14, pointer="/pH")
    came_out = ec is not None or body.pH is not None or bool(body.crust or body.colour)
    if not came_out and body.moist is None:
        raise Underspecified(
            "Nothing is entered. Give a reading, a pH, a crust, a colour or how wet it is.", pointer="/ec"
        )
    if ec is not None and body.method in OF_A_POUR:
        raise InputError(f"“{WORDS[body.method]}” runs out of a pour: enter it with its pour.", pointer="/method")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        if body.method == "reservoir" and p.spec.drains:
            raise InputError(f"{p.pot.code} drains: it has no tray and no reservoir to read.", pointer="/method")
        row = models.Runoff(
            pot_id=pot_id,
            on=body.on,
            method=body.method,
            ec_uS_cm=ec,
            pH=body.pH,
            crust=body.crust,
            colour=body.colour,
            note=body.note,
        )
        felt = models.Feel(pot_id=pot_id, on=body.on, moist=body.moist)
        session.add_all([x for x, told in ((row, came_out), (felt, body.moist is not None)) if told])
        session.flush()
        refresh(session, pot_id)
        return {"id": row.id if came_out else None, "felt_id": felt.id if body.moist is not None else None}

    return ComesOutStored(**writer.once(body, write))


@router.get("/pots/{pot_id}/readings")
def list_readings(pot_id: int, session: ReadSession, today: Today) -> ReadingsOf:
    """Every reading of a pot, those left out too."""
    one_pot(session, pot_id, today)
    found = sorted((reading_out(r) for r in runoffs_of(session, pot_id)), key=lambda r: (r.on, r.id))
    return ReadingsOf(readings=found)


@router.post("/pots/{pot_id}/readings/{reading_id}/left-out")
def leave_out(pot_id: int, reading_id: int, body: LeftOutIn, writer: OneWrite, today: Today) -> ComesOut:
    """Leave a reading out of what the pot learns, or take it in again; it is kept in any case."""

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        row = get_row(session, models.Runoff, reading_id, "Reading", "/reading_id")
        if row.id not in {r.id for r in runoffs_of(session, pot_id)}:
            raise NotFound(f"Reading {reading_id} is not of this pot.", pointer="/reading_id")
        row.left_out = body.left_out
        session.flush()
        refresh(session, pot_id)
        return reading_out(row).model_dump(mode="json")

    return ComesOut(**writer.once(body, write))


@router.get("/pots/{pot_id}/calibration")
def calibration(pot_id: int, session: ReadSession, today: Today) -> Computed[LearntPot]:
    """What a pot's readings taught: its parameters before and after, and how the prediction got better."""
    p = one_pot(session, pot_id, today)
    b = balance_of(session, p, today)
    return told(p.spec, b.events, b.readings, today, fold_log(p.spec, b.events, today, b.readings), b.told)
