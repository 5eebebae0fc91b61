"""What is logged at a pot: pours with their runoff, looks, phases."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.mix.made import FedIn, store_fed
from fenwa.api.model import Model
from fenwa.api.pots.shown import PhaseOut, one_pot
from fenwa.api.transactions import OneWrite, Today, get_row, not_there, now
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.acts import USUAL_STAND_min
from fenwa.core.care.condition import Phase
from fenwa.core.care.interlock import PourPlan, unanswered
from fenwa.core.care.log import OFF_MEDIUM
from fenwa.core.care.vocabulary import Felt
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, InputError, NotFound, Underspecified
from fenwa.core.mix.can import job_of_pour
from fenwa.core.pot.methods import Method
from fenwa.core.pot.specification import Route
from fenwa.core.units import to_canonical
from fenwa.store import models
from fenwa.store.collection import pots_as_read
from fenwa.store.pot_rows import leading_growth, plants_with
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import phases, refresh, refresh_many
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api", tags=["pots"])


ReadingUnit = Literal["µS/cm", "mS/cm"]


class PourIn(Model):
    """A can or a plain water given to one or several pots. ``flush`` marks a flush.

    ``gave``: something else, in the grower's words: a feed of unknown strength. ``plant_id``: one plant of several in
    the pot got it alone. ``fed``: a feed by its label, mixed by the way.
    """

    pot_ids: list[int]
    on: date
    batch_id: int | None = None
    water_id: int | None = None
    volume: TypedOrNone
    volume_unit: Literal["mL", "L"] = "mL"
    route: Route | None = None
    flush: bool = False
    runoff_volume: TypedOrNone = None
    runoff_ec: TypedOrNone = None
    runoff_unit: ReadingUnit = "µS/cm"
    runoff_method: Method = "runoff"
    runoff_pH: TypedOrNone = None
    note: str = ""
    felt: Felt = ""
    by: str = Field(default="", max_length=60)
    gave: str = Field(default="", max_length=120)
    plant_id: int | None = None
    fed: FedIn | None = None


class Poured(Model):
    """Pours stored, with what Undo needs."""

    pour_ids: list[int]
    ec_uS_cm: float | None


def _contents(session: Session, body: PourIn, today: date) -> tuple[float | None, int | None, str, bool]:
    """EC, water and job of what is poured, and whether its EC is only what such a water usually reads."""
    if body.gave.strip():
        if body.batch_id is not None or body.flush:
            raise InputError("Something else is neither a can of the log nor a flush. Choose one.", pointer="/gave")
        if body.water_id is not None:
            get_row(session, models.Water, body.water_id, "Water", "/water_id")
        return None, body.water_id, "feed", True
    if body.batch_id is not None:
        batch = get_row(session, models.Batch, body.batch_id, "Can", "/batch_id")
        return batch.ec_uS_cm, batch.water_id, job_of_pour(batch.dose_g_L, body.flush), batch.water_estimated
    if body.water_id is None:
        raise Underspecified("Choose what is poured: a can, or a plain water.", pointer="/batch_id")
    found = next(iter(waters_today(session, today, {body.water_id})), None)
    if found is None:
        raise not_there("Water", body.water_id, "/water_id")
    return found.reckoned_uS_cm, body.water_id, job_of_pour(None, body.flush), not found.measured


@router.post("/pours", status_code=201)
def add_pours(body: PourIn, writer: OneWrite, today: Today) -> Poured:
    """Log a pour to one or several pots; all are stored, or none."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if not body.pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")
    factor = 0.001 if body.volume_unit == "mL" else 1.0
    volume = None if body.volume is None else body.volume * factor
    if volume is not None:
        require(
            volume,
            "Volume",
            "L",
            low=0,
            open_low=True,
            high=200,
            pointer="/volume",
            hint="Enter what one pot got, above 0 mL to 200 L.",
        )
    runoff = None if body.runoff_volume is None else body.runoff_volume * factor
    if runoff is not None:
        require(runoff, "Runoff volume", "L", low=0, high=200, pointer="/runoff_volume")
        if volume is not None and runoff > volume:
            raise InputError(
                f"Runoff {runoff * 1000:.0f} mL is more than the {volume * 1000:.0f} mL poured. Check both volumes.",
                pointer="/runoff_volume",
            )
    runoff_ec = None
    if body.runoff_ec is not None:
        runoff_ec = to_canonical(body.runoff_ec, "ec", body.runoff_unit)
        require(
            runoff_ec,
            "Runoff EC",
            "µS/cm",
            low=0,
            open_low=True,
            high=50_000,
            pointer="/runoff_ec",
            hint="That is beyond brine or below nothing. Check the unit: µS/cm or mS/cm.",
        )

    if body.runoff_pH is not None:
        require(body.runoff_pH, "Runoff pH", "", low=0, high=14, pointer="/runoff_pH")

    if body.fed is not None and (volume is None or body.flush or body.gave.strip() or body.batch_id is not None):
        raise Underspecified(
            "A feed by its label needs the volume poured, and is neither a can of the log nor a flush.",
            pointer="/volume",
        )

    def write(session: Session) -> dict[str, Any]:
        return store_pours(session, _with_can(session, body, volume, today))

    def store_pours(session: Session, body: PourIn) -> dict[str, Any]:
        ec, water_id, job, estimated = _contents(session, body, today)
        piece = _piece(session, body)
        made_for, moment, pours = _made_for(session, body), now(), []
        for p in _pots_in_order(session, body.pot_ids, today):
            route = body.route or p.pot.route
            _object(p, job, ec, route, made_for, body.note)
            pour = models.Pour(
                pot_id=p.pot.id,
                batch_id=body.batch_id,
                water_id=water_id,
                on=body.on,
                job=job,
                route=route,
                volume_L=volume,
                ec_uS_cm=ec,
                ec_estimated=estimated,
                note=body.note,
                felt=body.felt,
                by=body.by.strip(),
                gave=body.gave.strip(),
                plant_id=piece,
            )
            if runoff is not None or runoff_ec is not None or body.runoff_pH is not None:
                pour.runoff = models.Runoff(
                    volume_L=runoff, ec_uS_cm=runoff_ec, method=body.runoff_method, pH=body.runoff_pH
                )
            session.add(pour)
            pours.append(pour)
            if route == "soak" and body.on == today:
                minutes = p.pot.stand_min or USUAL_STAND_min
                session.add(models.Timer(pot_id=p.pot.id, started_at=moment, minutes=minutes))
        refresh_many(session, [pour.pot_id for pour in pours])
        return {"pour_ids": [pour.id for pour in pours], "ec_uS_cm": ec}

    return Poured(**writer.once(body, write))


def _with_can(session: Session, body: PourIn, volume: float | None, today: date) -> PourIn:
    """The same pour out of the can that a feed by its label makes."""
    if body.fed is None or volume is None:
        return body
    count = len(set(body.pot_ids))
    return body.model_copy(update={"batch_id": store_fed(session, body.fed, volume, count, body.on, today).id})


def _pots_in_order(session: Session, pot_ids: list[int], today: date) -> list[PotToday]:
    found = {p.pot.id: p for p in pots_as_read(session, today, set(pot_ids))}
    missing = [i for i in pot_ids if i not in found]
    if missing:
        raise NotFound(f"Pot {missing[0]} is not there. It may have been archived.", pointer="/pot_ids")
    return [found[i] for i in dict.fromkeys(pot_ids)]


def _piece(session: Session, body: PourIn) -> int | None:
    """The plant of several that got it alone; one that is alone in its pot is the pot."""
    if body.plant_id is None:
        return None
    if len(body.pot_ids) != 1:
        raise InputError("One plant of a pot is watered alone. Choose its pot only.", pointer="/pot_ids")
    return body.plant_id if len(plants_with(session, body.pot_ids[0], body.plant_id)) > 1 else None


def _made_for(session: Session, body: PourIn) -> str:
    """The way the can was mixed for; a can is not poured before it was made."""
    if body.batch_id is None:
        return "root"
    batch = get_row(session, models.Batch, body.batch_id, "Can", "/batch_id")
    if body.on < batch.made_on:
        raise InputError(
            f"The can was made on {batch.made_on}: it cannot be poured on {body.on}. "
            "Choose a later day, or another can.",
            pointer="/on",
        )
    return batch.route


def _object(p: PotToday, job: str, ec: float | None, route: str, made_for: str, note: str) -> None:
    """Refuse a pour that needs a word first."""
    objections = unanswered(
        PourPlan(
            p.pot.code,
            job,
            ec,
            route not in OFF_MEDIUM,
            p.profile.feeding.root_pour_ec_max_uS_cm,
            p.feed_ceiling_uS_cm,
            p.holds,
            route,
            p.day.crown,
            made_for,
        ),
        note,
    )
    if objections:
        raise Conflict(
            " ".join(objections) + " Pour something else, or write a word in the note to do it all the same.",
            pointer="/note",
        )


class PhaseIn(Model):
    """A phase from a day on."""

    phase: Phase
    since: date
    note: str = ""


@router.post("/pots/{pot_id}/phase", status_code=201)
def set_phase(pot_id: int, body: PhaseIn, writer: OneWrite, today: Today) -> PhaseOut:
    """Note a new phase of the leading growth."""
    require_not_future(body.since, today, "Date", pointer="/since")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        growth = leading_growth(session, p.plant.id)
        for later in phases(session, p.plant.id):
            if later.since >= body.since:  # what was noted for later days gives way, and is kept as archived
                later.archived_at = datetime.now(UTC).replace(tzinfo=None, microsecond=0)
        session.add(models.PhaseSpan(growth_id=growth.id, phase=body.phase, since=body.since, note=body.note))
        refresh(session, pot_id)
        return {"phase": body.phase, "since": body.since.isoformat()}

    return PhaseOut.model_validate(writer.once(body, write))
