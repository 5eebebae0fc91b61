"""The collection: several pots changed at once, descent, plants and growths of a pot, files, labels."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.entered import MediumPart, PlantIn, PotChange, PotIn, add_plant, change_pots, store_pot
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, now
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.descent import Cause, Relation, child_codes, read_fast_add
from fenwa.core.care.usual import PIECE_CHECK_DAYS
from fenwa.core.entry import require_not_future
from fenwa.core.errors import NotFound, Underspecified
from fenwa.core.library.loader import get_medium, get_profile
from fenwa.core.pot.mixture import MixedMedium, Part, PartLitres, medium_parts, medium_properties
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.pot_rows import (
    all_plants,
    children_of,
    first_plant_coded,
    growths_of,
    kept_pots,
    newest_phase,
    pot_coded,
)
from fenwa.store.pot_rows import let_lead as make_leading
from fenwa.store.summary import refresh, touch

router = Ways(prefix="/api", tags=["collection"])


class Changed(Model):
    """Pots changed."""

    ids: list[int]


@router.post("/pots/change")
def change(body: PotChange, writer: OneWrite, today: Today) -> Changed:
    """Change one pot, or many in one go: all of them, or none."""
    return Changed(**writer.once(body, lambda s: {"ids": change_pots(s, body, today)}))


class FastAddIn(Model):
    """Children of a pot, as said: "six divisions of P-01". Empty volume: as the mother's. [L]"""

    phrase: str
    volume: TypedOrNone = None
    on: date


class Added(Model):
    """Pots added."""

    ids: list[int]
    codes: list[str]


@router.post("/pots/fast-add", status_code=201)
def fast_add(body: FastAddIn, writer: OneWrite, today: Today) -> Added:
    """Pot up divisions, cuttings or offsets of a pot: its medium, place and rhythm, establishing from that day."""
    require_not_future(body.on, today, "Date", pointer="/on")
    asked = read_fast_add(body.phrase)

    def write(session: Session) -> dict[str, Any]:
        mother = pot_coded(session, asked.code)
        if mother is None:
            raise NotFound(f"No pot has the code {asked.code}. Write it as on its label.", pointer="/phrase")
        parent = one_pot(session, mother.id, today).plant
        place = session.get_one(models.Place, mother.place_id).name
        codes = child_codes(
            asked.code,
            asked.count,
            {p.code for p in kept_pots(session)},
        )
        ids = []
        for code in codes:
            child = store_pot(
                session,
                PotIn(
                    code=code,
                    name=mother.name,
                    profile_id=parent.profile_id,
                    label=parent.label,
                    place=place,
                    spot=mother.spot,
                    medium_id=mother.medium_id,
                    medium_parts=[MediumPart(**p) for p in mother.medium_parts or []],
                    medium_charged=mother.medium_charged,
                    medium_limed=mother.medium_limed,
                    volume=body.volume if body.volume is not None else mother.volume_L,
                    drainage=mother.drainage,
                    route=mother.route,
                    interval_days=min(mother.interval_days, PIECE_CHECK_DAYS),
                    interval_by="learnt",
                    crown=mother.crown,
                    plain_every=mother.plain_every,
                    school_id=mother.school_id or "",
                    phase="establishing",
                    isolated=mother.isolated,
                    tags=list(mother.tags or []),
                ),
                today,
            )
            if asked.relation == "division":
                mother.repotted_on = mother.medium_since = body.on
            child.repotted_on = child.medium_since = body.on
            (born,) = all_plants(session, child.id)
            born.parent_plant_id, born.parent_relation = parent.id, asked.relation
            refresh(session, child.id)
            ids.append(child.id)
        refresh(session, mother.id)
        return {"ids": ids, "codes": codes}

    return Added(**writer.once(body, write))


class Kin(Model):
    """A plant this one came from, or that came from it."""

    pot_id: int
    code: str
    relation: str
    archived: bool


class GrowthOut(Model):
    """A shoot or bulb with its phase."""

    id: int
    name: str
    leads: bool
    phase: str | None


class PlantOut(Model):
    """A plant of a pot with its family and growths."""

    id: int
    profile_id: str
    kind: str
    label: str
    count: int
    source: str
    arrived_on: date | None
    leads: bool
    parent: Kin | None
    children: list[Kin]
    growths: list[GrowthOut]


@router.get("/pots/{pot_id}/plants")
def plants_of(pot_id: int, session: ReadSession, today: Today) -> list[PlantOut]:
    """Plants of a pot; the first leads."""
    return [_plant_out(session, plant, i == 0) for i, plant in enumerate(one_pot(session, pot_id, today).plants)]


def _kin(session: Session, plant: models.Plant, relation: str) -> Kin:
    pot = session.get_one(models.Pot, plant.pot_id)
    return Kin(
        pot_id=pot.id,
        code=pot.code,
        relation=relation,
        archived=pot.archived_at is not None or plant.archived_at is not None,
    )


def _plant_out(session: Session, plant: models.Plant, leads: bool) -> PlantOut:
    parent = session.get(models.Plant, plant.parent_plant_id) if plant.parent_plant_id else None
    return PlantOut(
        id=plant.id,
        profile_id=plant.profile_id,
        kind=get_profile(plant.profile_id).short,
        label=plant.label,
        count=plant.count,
        source=plant.source,
        arrived_on=plant.arrived_on,
        leads=leads,
        parent=_kin(session, parent, plant.parent_relation) if parent else None,
        children=[_kin(session, c, c.parent_relation) for c in children_of(session, plant.id)],
        growths=[
            GrowthOut(id=g.id, name=g.name, leads=g.leads, phase=newest_phase(session, g.id))
            for g in growths_of(session, plant.id)
        ],
    )


class PlantMore(PlantIn):
    """Another plant in a pot, with the pot it came from if it is one of yours."""

    parent_code: str = ""
    relation: Relation = "division"


@router.post("/pots/{pot_id}/plants", status_code=201)
def another_plant(pot_id: int, body: PlantMore, writer: OneWrite, today: Today) -> Stored:
    """Set another plant into a pot; the strictest of them rules it from now on."""
    if body.arrived_on:
        require_not_future(body.arrived_on, today, "Arrival", pointer="/arrived_on")

    def write(session: Session) -> dict[str, Any]:
        pot = get_row(session, models.Pot, pot_id, "Pot", "/pot_id")
        plant = add_plant(session, pot, body, "establishing", body.arrived_on or today)
        if body.parent_code.strip():
            mother = first_plant_coded(session, body.parent_code.strip())
            if mother is None:
                raise NotFound(
                    f"No pot has the code {body.parent_code.strip()}. Write it as on its label.", pointer="/parent_code"
                )
            plant.parent_plant_id, plant.parent_relation = mother.id, body.relation
        refresh(session, pot_id)
        return {"id": plant.id}

    return Stored(**writer.once(body, write))


class GrowthIn(Model):
    """Another shoot or bulb; a leading one rules the pot."""

    name: str = Field(max_length=60)
    leads: bool = True


@router.post("/plants/{plant_id}/growths", status_code=201)
def another_growth(plant_id: int, body: GrowthIn, writer: OneWrite, today: Today) -> Stored:
    """Note another growth of a plant."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Say which growth, for example “new bulb, left”.", pointer="/name")

    def write(session: Session) -> dict[str, Any]:
        plant = get_row(session, models.Plant, plant_id, "Plant", "/plant_id")
        row = models.Growth(plant_id=plant.id, name=body.name.strip(), leads=False)
        session.add(row)
        session.flush()
        session.add(models.PhaseSpan(growth_id=row.id, phase="active", since=today))
        if body.leads:
            _lead(session, row)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.post("/growths/{growth_id}/lead")
def let_lead(growth_id: int, writer: OneWrite) -> Stored:
    """From now on this growth rules the pot."""

    def write(session: Session) -> dict[str, Any]:
        _lead(session, get_row(session, models.Growth, growth_id, "Growth", "/growth_id"))
        return {"id": growth_id}

    return Stored(**writer.once(None, write))


def _lead(session: Session, growth: models.Growth) -> None:
    make_leading(session, growth)
    refresh(session, session.get_one(models.Plant, growth.plant_id).pot_id)


class DiedIn(Model):
    """A plant that died; empty plant: all that live in the pot."""

    on: date
    cause: Cause
    plant_id: int | None = None


class Died(Model):
    """What was archived: the plants, and the pot if it stands empty now."""

    plant_ids: list[int]
    pot_archived: bool


@router.post("/pots/{pot_id}/died")
def died(pot_id: int, body: DiedIn, writer: OneWrite, today: Today) -> Died:
    """Archive with the cause of death; the log stays, to learn from."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        gone = [x for x in p.plants if body.plant_id in (None, x.id)]
        if not gone:
            raise NotFound(f"Plant {body.plant_id} does not live in {p.pot.code}.", pointer="/plant_id")
        for x in gone:
            plant = session.get_one(models.Plant, x.id)
            plant.died_on, plant.death_cause = body.on, body.cause
            if len(gone) < len(p.plants):
                plant.archived_at = now()  # of a pot that empties, the pot is archived with all in it
        empty = len(gone) == len(p.plants)
        if empty:
            session.get_one(models.Pot, pot_id).archived_at = now()
            touch(session, pot_id)
        else:
            refresh(session, pot_id)
        return {"plant_ids": [x.id for x in gone], "pot_archived": empty}

    return Died(**writer.once(body, write))


class MixtureIn(Model):
    """Parts of a medium to look at."""

    parts: list[MediumPart]
    charged: bool | None = None


class FillIn(MixtureIn):
    """Parts that are to fill a pot. [L]"""

    volume: Typed


@router.post("/media/litres")
def litres_of_parts(body: FillIn) -> Computed[PartLitres]:
    """Litres of each part that fill a pot, with their working; nothing is stored."""
    return medium_parts(volume_L=body.volume, parts=[p.parts for p in body.parts])


@router.post("/media/mixture")
def mixture(body: MixtureIn) -> Computed[MixedMedium]:
    """What a mixture of parts holds, with its working; nothing is stored."""
    return medium_properties(
        parts=[Part(get_medium(p.medium_id).medium(), p.parts) for p in body.parts], charged=body.charged
    )
