"""Trays, reservoirs and glasses: levels, changes, and when the water is changed next."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.usual import water_change_days
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, NotFound, Underspecified
from fenwa.core.pot.ahead import RHYTHM_DAYS
from fenwa.core.pot.flush import root_zone_for
from fenwa.core.pot.reservoir import RESERVOIR_FULL, ReservoirNow, reservoir
from fenwa.core.pot.specification import capacity_L, tray_L
from fenwa.core.pot.tray import TrayNow, refilled_since, tray
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.flush_state import levels_of, reservoir_events
from fenwa.store.pot_balance import balance_of
from fenwa.store.round_state import water_of_pot
from fenwa.store.summary import refresh
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api", tags=["flush"])


class LevelIn(Model):
    """A level as read, or that it was emptied and rinsed. [mL, L]"""

    on: date
    did: Literal["read", "emptied"] = "read"
    level: TypedOrNone = None
    unit: Literal["mL", "L"] = "mL"
    note: str = Field(default="", max_length=300)


class ReservoirPage(Model):
    """A tray or reservoir: what it holds now and when it is changed. ``kind``: what it is called."""

    kind: Literal["tray", "reservoir"]
    room_L: float
    now: Computed[ReservoirNow]
    tray: Computed[TrayNow] | None


class WaterChangeIn(Model):
    """Fresh water in a tray, reservoir or glass: the old tipped out. [mL, L]"""

    on: date
    water_id: int
    volume: TypedOrNone = None
    unit: Literal["mL", "L"] = "mL"


class WaterChanged(Model):
    """What was stored, with what Undo needs: the filling and the emptying before it."""

    id: int
    level_id: int


class WaterChanges(Model):
    """Days the water was changed, and the next."""

    changed_on: list[date]
    next_on: date | None
    sentence: str


@router.get("/pots/{pot_id}/reservoir")
def reservoir_page(pot_id: int, session: ReadSession, today: Today) -> ReservoirPage:
    """Level, salt and refill of a tray or reservoir."""
    p = one_pot(session, pot_id, today)
    if p.spec.drains:
        raise NotFound(f"{p.pot.code} drains: it has no tray and no reservoir.", pointer="/pot_id")
    room = tray_L(p.spec) or capacity_L(p.spec)
    events = [e for e in reservoir_events(session, pot_id) if e.on <= today]
    _, first = water_of_pot(session, p, today)
    ceiling = p.profile.root_zone.ec_ceiling_uS_cm
    stands_in_it = p.pot.drainage == "reservoir"
    start = next((e.ec_uS_cm for e in events if e.ec_uS_cm is not None), None)
    now = reservoir(
        room_L=room,
        events=events,
        today=today,
        limit_uS_cm=ceiling,
        keep_share=RESERVOIR_FULL if stands_in_it else 1.0,
        medium_water_L=capacity_L(p.spec) if stands_in_it else None,
        medium_start_uS_cm=start,
        uptake=p.spec.u,
    )
    of_tray = None
    if not stands_in_it:  # pot and tray are one store in the balance: its figure, not one of their own
        b = balance_of(session, p, today)
        poured = [(e.on, e.added_L, e.ec_uS_cm) for e in events if e.added_L and e.ec_uS_cm is not None]
        _, mean = refilled_since(poured, today - timedelta(days=RHYTHM_DAYS))
        fresh = first.reckoned_uS_cm if first else None
        coming = mean if mean is not None else fresh if fresh is not None else 0.0
        of_tray = tray(
            store_L=room + capacity_L(p.spec),
            start_uS_cm=b.root_zone_uS_cm,
            water_uS_cm=coming,
            used_L=0.0,
            limit_uS_cm=root_zone_for(b.learnt, ceiling),
            loss_L_day=max(1e-4, b.learnt.loss_per_day * capacity_L(b.learnt)),
            change_L=room,
            change_water_uS_cm=fresh,
            target_uS_cm=root_zone_for(b.learnt, p.profile.root_zone.ec_ideal_uS_cm[1]),
        )
    return ReservoirPage(
        kind="reservoir" if p.pot.drainage == "reservoir" else "tray", room_L=room, now=now, tray=of_tray
    )


@router.post("/pots/{pot_id}/levels", status_code=201)
def add_level(pot_id: int, body: LevelIn, writer: OneWrite, today: Today) -> Stored:
    """Note the level of a tray or reservoir, or that it was emptied and rinsed."""
    require_not_future(body.on, today, "Date", pointer="/on")
    litres = None if body.level is None else body.level * (0.001 if body.unit == "mL" else 1.0)
    if body.did == "read" and litres is None:
        raise Underspecified("The level is missing. Enter it, or say that it was emptied.", pointer="/level")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        if p.spec.drains:
            raise InputError(f"{p.pot.code} drains: it has no level. Change that on its page.", pointer="/pot_id")
        room = tray_L(p.spec) or capacity_L(p.spec)
        if litres is not None:
            require(litres, "Level", "L", low=0, high=room, pointer="/level", hint=f"It holds {room:.2g} L.")
        row = models.Level(pot_id=pot_id, on=body.on, did=body.did, litres=litres, note=body.note)
        session.add(row)
        session.flush()
        refresh(session, pot_id)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.post("/pots/{pot_id}/water-changes", status_code=201)
def change_water(pot_id: int, body: WaterChangeIn, writer: OneWrite, today: Today) -> WaterChanged:
    """Tip the water out and fill fresh: a tray, a reservoir, a glass."""
    require_not_future(body.on, today, "Date", pointer="/on")
    litres = None if body.volume is None else body.volume * (0.001 if body.unit == "mL" else 1.0)
    if litres is not None:
        require(litres, "Volume", "L", low=0, open_low=True, high=200, pointer="/volume")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        if p.spec.drains:
            raise InputError(f"{p.pot.code} drains: there is no water to change.", pointer="/pot_id")
        water = next((w for w in waters_today(session, today) if w.water.id == body.water_id), None)
        if water is None:
            raise NotFound(f"Water {body.water_id} is not there. It may have been archived.", pointer="/water_id")
        emptied = models.Level(pot_id=pot_id, on=body.on, did="emptied")
        session.add(emptied)
        row = models.Pour(
            pot_id=pot_id,
            water_id=body.water_id,
            on=body.on,
            job="plain",
            route="reservoir" if p.pot.drainage == "reservoir" else "tray",
            volume_L=litres,
            ec_uS_cm=water.reckoned_uS_cm,
            ec_estimated=not water.measured,
        )
        session.add(row)
        session.flush()
        refresh(session, pot_id)
        return {"id": row.id, "level_id": emptied.id}

    return WaterChanged(**writer.once(body, write))


@router.get("/pots/{pot_id}/water-changes")
def water_changes(pot_id: int, session: ReadSession, today: Today) -> WaterChanges:
    """Days the water below was changed, and the next."""
    p = one_pot(session, pot_id, today)
    done = sorted(x.on for x in levels_of(session, pot_id) if x.did == "emptied" and x.on <= today)
    days = water_change_days(p.phase, p.profile.flush.cadence_days)
    known = [d for d in (done[-1] if done else None, p.log.last_flush_on, p.log.kept_since) if d is not None]
    start = max(known, default=None)
    following = start + timedelta(days=days) if start is not None else None
    said = f"each {days} days"
    if following is not None:
        said += f", next {following.isoformat()}" if following > today else f", due since {following.isoformat()}"
    return WaterChanges(changed_on=done, next_on=following, sentence=f"{said}.")
