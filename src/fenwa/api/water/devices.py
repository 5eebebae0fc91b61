"""Devices: the pen at the desk, and the inbox that home-built loggers post to."""

from __future__ import annotations

import hashlib
import json
from datetime import UTC, date, datetime
from typing import Annotated, Any

from fastapi import Depends, Request
from fastapi.concurrency import run_in_threadpool
from sqlalchemy.orm import Session

from fenwa.api.collections import store_of
from fenwa.api.files import Imported
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row
from fenwa.api.typed import Moment
from fenwa.api.water.entries import AmountIn, EntryIn, TraceIn, store_reading
from fenwa.api.water.shown import ReadingOut, reading_out, water_of
from fenwa.api.ways import Ways
from fenwa.core.climate.days import DRY_PCT
from fenwa.core.errors import Conflict, InputError, Underspecified
from fenwa.core.water.settle import CRITERION
from fenwa.core.water.temperature import ec_at_25
from fenwa.devices.pen_session import PenSession
from fenwa.devices.simulated import Dip
from fenwa.formats.senml import SenmlValue, parse_senml
from fenwa.store import models
from fenwa.store.air_rows import keep_samples, logger_of
from fenwa.store.collection import pots_today
from fenwa.store.session import Store
from fenwa.store.water_rows import in_inbox, meter_names_by_device, meter_of_device, waiting_in_inbox
from fenwa.store.water_state import calibration_of

router = Ways(prefix="/api", tags=["devices"])

ROOM_C, NEUTRAL_PH = 18.0, 7.0  # of a water whose temperature or pH nobody measured, for the simulated pen only


async def get_desk(request: Request) -> PenSession:
    """The pen this Fenwa was started with."""
    desk: PenSession = request.app.state.pen
    return desk


Desk = Annotated[PenSession, Depends(get_desk)]


class PenOut(Model):
    """The pen now: its trace, and the stable value once it has settled, as sent and as its checks correct it."""

    present: bool
    simulated: bool
    plugged: bool
    reading: bool
    settled: bool
    value_uS_cm: float | None
    corrected_uS_cm: float | None
    temperature_C: float | None
    pH: float | None
    spread_uS_cm: float | None
    trace: list[TraceIn]
    device: str
    meter_id: int | None
    problem: str
    criterion: str


class SimulatedIn(Model):
    """What the simulated pen stands in, and whether it is plugged in."""

    water_id: int | None = None
    pot_id: int | None = None
    plugged: bool = True


def _pen(desk: PenSession, session: Session, today: date) -> PenOut:
    reading, found = desk.look()
    device = reading.device if reading else ""
    meter = meter_of_device(session, device)
    calibration = calibration_of(session, meter, today) if meter else None
    corrected = found.value_uS_cm if found else None
    if corrected and calibration:
        corrected = ec_at_25(value=corrected, correction=calibration.result.correction()).result.ec25_uS_cm
    last = reading.trace[-1] if reading and reading.trace else None
    return PenOut(
        present=desk.present,
        simulated=desk.simulated is not None,
        plugged=desk.simulated.plugged if desk.simulated else desk.present,
        reading=reading is not None,
        settled=bool(found and found.settled and reading and not reading.problem),
        value_uS_cm=found.value_uS_cm if found else None,
        corrected_uS_cm=corrected,
        temperature_C=last.temperature_C if last else None,
        pH=last.pH if last else None,
        spread_uS_cm=found.spread_uS_cm if found else None,
        trace=[TraceIn(t_s=p.t_s, ec_uS_cm=p.ec_uS_cm) for p in reading.trace] if reading else [],
        device=device,
        meter_id=meter.id if meter else None,
        problem=reading.problem if reading else "",
        criterion=CRITERION,
    )


@router.get("/pen")
def pen(desk: Desk, session: ReadSession, today: Today) -> PenOut:
    """The pen and the reading under way."""
    return _pen(desk, session, today)


@router.post("/pen/start")
def start_pen(desk: Desk, session: ReadSession, today: Today) -> PenOut:
    """Begin a reading."""
    if not desk.present:
        raise Conflict("No pen is connected. Start Fenwa with --pen simulated or --pen HOST:PORT.")
    desk.start()
    return _pen(desk, session, today)


@router.put("/pen/simulated")
def move_pen(body: SimulatedIn, desk: Desk, session: ReadSession, today: Today) -> PenOut:
    """Dip the simulated pen into a source or a pot's runoff, or pull its plug."""
    if desk.simulated is None:
        raise Conflict("The pen is not the simulated one: dip it by hand.")
    if body.water_id is not None:
        w = water_of(session, today, body.water_id, "/water_id")
        temperature = w.reading.temperature_C if w.reading else None
        desk.simulated.dip(
            Dip(w.reckoned_uS_cm, temperature if temperature is not None else ROOM_C, w.known.pH or NEUTRAL_PH)
        )
    if body.pot_id is not None:
        get_row(session, models.Pot, body.pot_id, "Pot", "/pot_id")
        found = pots_today(session, today, {body.pot_id})
        if not found or found[0].reading is None:
            raise Underspecified("This pot has no log yet: the simulated pen does not know it.", pointer="/pot_id")
        desk.simulated.dip(Dip(found[0].reading, ROOM_C, NEUTRAL_PH))
    desk.simulated.plug(body.plugged)
    return _pen(desk, session, today)


class InboxOut(Model):
    """A measurement that waits to be assigned."""

    id: int
    device: str
    meter: str | None
    at: Moment
    ec_uS_cm: float | None
    temperature_C: float | None
    pH: float | None


Groups = dict[tuple[str, datetime], dict[str, float]]


def _grouped(values: list[SenmlValue]) -> Groups:
    """Values of one device at one moment belong together."""
    out: Groups = {}
    for v in values:
        out.setdefault((v.device, v.at), {})[v.quantity] = v.value
    return out


_PACK = {
    "requestBody": {
        "required": True,
        "content": {"application/senml+json": {"schema": {"type": "array", "items": {"type": "object"}}}},
    }
}


@router.post("/inbox/senml", status_code=201, openapi_extra=_PACK)
async def receive(request: Request) -> Imported:
    """Take a SenML pack (RFC 8428), all or nothing; the same measurement posted again is stored once.

    A logger needs no key: what it sends names itself by device, time and values.
    """
    # read as bytes, whatever the content type: the pack's own reader names line and record
    return await run_in_threadpool(_store_pack, store_of(request), await request.body())


def _store_pack(store: Store, pack: bytes) -> Imported:
    try:
        text = pack.decode("utf-8")
    except UnicodeDecodeError as error:
        raise InputError("Line 1, record 0: the pack is not UTF-8 text.", pointer="/pack") from error
    groups = _grouped(parse_senml(text, datetime.now(UTC)))
    stored = 0
    already = 0
    with store.writing() as session:
        for device, rows in _of_air(groups).items():  # a logger that is bound fills the days of its place
            bound = logger_of(session, device)
            if bound is None:
                continue
            new = keep_samples(session, bound.place_id, device, [(_local(at), *air) for at, air in rows], DRY_PCT)
            stored, already = stored + new, already + len(rows) - new
            groups = {key: v for key, v in groups.items() if key[0] != device}
        for (device, at), values in groups.items():
            moment = at.replace(tzinfo=None)
            digest = hashlib.sha256(
                json.dumps([device, moment.isoformat(), values], sort_keys=True).encode()
            ).hexdigest()
            if in_inbox(session, digest):
                continue
            session.add(
                models.InboxEntry(
                    digest=digest,
                    device=device,
                    at=moment,
                    ec_uS_cm=values.get("ec"),
                    temperature_C=values.get("temperature"),
                    pH=values.get("pH"),
                    humidity_pct=values.get("humidity"),
                )
            )
            stored += 1
            already -= 1
    return Imported(stored=stored, already_there=already + len(groups))


def _of_air(groups: Groups) -> dict[str, list[tuple[datetime, tuple[float | None, float | None]]]]:
    """Readings of air by device, each with its moment; a device that reads a water is no logger of air."""
    waters = {device for (device, _), values in groups.items() if "ec" in values or "pH" in values}
    out: dict[str, list[tuple[datetime, tuple[float | None, float | None]]]] = {}
    for (device, at), values in groups.items():
        if device not in waters:
            out.setdefault(device, []).append((at, (values.get("temperature"), values.get("humidity"))))
    return out


def _local(at: datetime) -> datetime:
    """A moment on the clock of this house: nights and days of a place are local."""
    return at.astimezone().replace(tzinfo=None)


@router.get("/inbox")
def inbox(session: ReadSession) -> list[InboxOut]:
    """What waits to be assigned, newest first."""
    meters = meter_names_by_device(session)
    return [
        InboxOut(
            id=r.id,
            device=r.device,
            meter=meters.get(r.device),
            at=r.at,
            ec_uS_cm=r.ec_uS_cm,
            temperature_C=r.temperature_C,
            pH=r.pH,
        )
        for r in waiting_in_inbox(session)
    ]


class AssignIn(Model):
    """Which source a measurement was taken in."""

    water_id: int


@router.post("/inbox/{entry_id}/keep", status_code=201)
def keep(entry_id: int, body: AssignIn, writer: OneWrite, today: Today) -> ReadingOut:
    """Make a reading of a measurement in the inbox, corrected by its meter's checks if the device is known."""

    def write(session: Session) -> dict[str, Any]:
        entry = get_row(session, models.InboxEntry, entry_id, "Measurement")
        kept = session.get(models.Reading, entry.reading_id) if entry.reading_id is not None else None
        if kept is not None and kept.archived_at is None:
            raise Conflict("This measurement is kept already.")
        meter = meter_of_device(session, entry.device)
        row = store_reading(
            session,
            body.water_id,
            EntryIn(
                on=min(entry.at.date(), today),
                value=entry.ec_uS_cm,
                temperature=entry.temperature_C,
                origin="inbox",
                meter_id=meter.id if meter else None,
                note=entry.device,
                amounts=[AmountIn(quantity="pH", typed=f"{entry.pH:g}")] if entry.pH is not None else [],
            ),
            today,
        )
        entry.reading_id = row.id
        return reading_out(row).model_dump(mode="json")

    return ReadingOut(**writer.once(body, write))
