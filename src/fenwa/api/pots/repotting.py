"""Repotting and putting pots together: one act each, which settles medium, volume, charge, salt and holds."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.entered import MediumPart, PotIn, checked_parts, litres_of, store_pot
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, Stored, Today, now
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.ramp import Ramp, checked_ramp
from fenwa.core.care.vocabulary import MERGED, REPOTTED
from fenwa.core.entry import require_not_future
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.library.loader import get_medium
from fenwa.core.pot.mixture import leading_part
from fenwa.store import models
from fenwa.store.pot_rows import all_plants
from fenwa.store.summary import current_plants, refresh, touch

router = Ways(prefix="/api", tags=["pots"])


class RepotIn(Model):
    """A pot into fresh mix. Empty: as it was; ``charged``, ``limed`` empty: not known whether the mix
    holds feed, lime or gypsum.
    """

    on: date
    medium_id: str = ""
    medium_parts: list[MediumPart] = []
    charged: bool | None = None
    limed: bool | None = None
    volume: TypedOrNone = None
    top_cm: TypedOrNone = None
    height_cm: TypedOrNone = None
    note: str = Field(default="", max_length=300)


@router.post("/pots/{pot_id}/repot", status_code=201)
def repot(pot_id: int, body: RepotIn, writer: OneWrite, today: Today) -> Stored:
    """Repot: medium, volume and charge are the new ones; the salt begins anew, findings of the old mix are over."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        pot = session.get_one(models.Pot, pot_id)
        before = {
            "medium_id": pot.medium_id,
            "volume_L": pot.volume_L,
            "medium_charged": pot.medium_charged,
            "medium_limed": pot.medium_limed,
        }
        if body.medium_parts:
            pot.medium_parts = checked_parts(body.medium_parts)
            pot.medium_id = leading_part({p.medium_id: p.parts for p in body.medium_parts}) or pot.medium_id
        elif body.medium_id:
            get_medium(body.medium_id)
            pot.medium_id, pot.medium_parts = body.medium_id, None
        if body.volume is not None or (body.top_cm is not None and body.height_cm is not None):
            for key, value in litres_of(body.volume, body.top_cm, body.height_cm).items():
                setattr(pot, key, value)
        pot.medium_charged, pot.medium_since, pot.repotted_on = body.charged, body.on, body.on
        pot.medium_limed = body.limed
        row = models.Event(pot_id=pot_id, on=body.on, kind=REPOTTED, note=body.note.strip(), details=before)
        session.add(row)
        refresh(session, pot_id)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class MergeIn(PotIn):
    """Several pots into one new pot."""

    pot_ids: list[int]
    on: date


@router.post("/pots/merge", status_code=201)
def merge(body: MergeIn, writer: OneWrite, today: Today) -> Stored:
    """Put pots together: every plant keeps its past, the old pots are archived with where their plants went."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if len(set(body.pot_ids)) < 2:
        raise Underspecified("Two pots at least go together. Choose them.", pointer="/pot_ids")

    def write(session: Session) -> dict[str, Any]:
        old = [one_pot(session, i, today) for i in dict.fromkeys(body.pot_ids)]
        new = store_pot(session, PotIn(**body.model_dump(exclude={"pot_ids", "on"})), today)
        for placeholder in all_plants(session, new.id):
            placeholder.archived_at = now()
        for p in old:
            for plant in current_plants(session, p.pot.id):
                plant.pot_id = new.id
            session.get_one(models.Pot, p.pot.id).archived_at = now()
            session.add(models.Event(pot_id=p.pot.id, on=body.on, kind=MERGED, note=f"into {new.code}"))
            touch(session, p.pot.id)
        new.repotted_on = new.medium_since = body.on
        codes = ", ".join(p.pot.code for p in old)
        session.add(models.Event(pot_id=new.id, on=body.on, kind=MERGED, note=f"from {codes}"))
        refresh(session, new.id)
        return {"id": new.id}

    return Stored(**writer.once(body, write))


class RampIn(Model):
    """A ramp of an arrival: a bag opened, lamps or humidity in steps."""

    what: str = Field(max_length=60)
    unit: Literal["", "quarters", "h", "%"] = ""
    start_on: date
    start: Typed
    step: Typed
    target: Typed
    every_days: int = 2


@router.post("/pots/{pot_id}/ramps", status_code=201)
def add_ramp(pot_id: int, body: RampIn, writer: OneWrite, today: Today) -> Stored:
    """Let a plant settle in by steps; one of the same name is replaced."""
    if not body.what.strip():
        raise InputError("What is stepped is empty. Say it in a word, for example “bag”.", pointer="/what")
    checked_ramp(Ramp(**body.model_dump()))

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        plant = session.get_one(models.Plant, p.plant.id)
        kept = [r for r in (plant.ramp or {}).get("ramps", []) if r["what"] != body.what]
        plant.ramp = {"ramps": [*kept, body.model_dump(mode="json")]}
        touch(session, pot_id)
        return {"id": plant.id}

    return Stored(**writer.once(body, write))
