"""Pots and plants as they are entered: kept new, changed, added from a parent. One place for form, list and file."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.edits import kept_of_both
from fenwa.api.house.choices import read_settings, seasons_word
from fenwa.api.model import Model
from fenwa.api.transactions import get_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.core.care.condition import Phase
from fenwa.core.care.descent import MAX_AT_ONCE, alike_codes, spaced_tags
from fenwa.core.care.phase import PhaseSchool
from fenwa.core.care.said import usual_height_cm
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, InputError, NotFound, Underspecified
from fenwa.core.library.loader import get_medium, get_profile
from fenwa.core.pot.geometry import pot_volume
from fenwa.core.pot.mixture import Part, leading_part, medium_properties
from fenwa.core.pot.specification import Drainage, Route
from fenwa.store import models
from fenwa.store.house_rows import place_named
from fenwa.store.mix_state import schools_in_force
from fenwa.store.pot_rows import all_plants, kept_pots, pot_coded, pots_ever
from fenwa.store.summary import refresh, touch_all

OWN_RHYTHM, NO_WATER = "own", 0
Crown = Literal["", "dry", "cup"]
Filled = Literal["", "scarcely"]  # by its plant; empty: as usual
PhaseChoice = PhaseSchool | Literal[""]  # empty: as its kind or place says


class MediumPart(Model):
    """A medium and its parts by volume."""

    medium_id: str
    parts: Typed


class PlantIn(Model):
    """A plant of a pot; ``count`` alike ones."""

    profile_id: str = "unknown"
    label: str = Field(default="", max_length=120)
    count: int = Field(default=1, ge=1, le=10_000)
    source: str = Field(default="", max_length=120)
    arrived_on: date | None = None


class PotIn(Model):
    """A pot with its plant. Volume, or top diameter and height."""

    code: str
    name: str = ""
    profile_id: str = "unknown"
    place: str = "Home"
    spot: str = ""
    medium_id: str
    medium_charged: bool | None = None
    medium_limed: bool | None = None  # lime or gypsum in it; empty: not known
    volume: TypedOrNone = None
    top_cm: TypedOrNone = None
    height_cm: TypedOrNone = None
    drainage: Drainage = "drains"
    below_L: TypedOrNone = None  # what tray or reservoir holds to the brim
    route: Route = "top"
    interval_days: Typed
    plain_every: int = 4
    phase: Phase | Literal[""] = ""  # empty: not told, the season says
    watered_on: date | None = None  # empty: not known
    fed_on: date | None = None
    arrived_on: date | None = None
    source: str = Field(default="", max_length=120)  # who it came from
    isolated: bool = False
    tags: list[str] = []
    medium_parts: list[MediumPart] = []
    interval_by: Literal["set", "learnt"] = "set"
    school_id: str = ""
    count: int = Field(default=1, ge=1, le=10_000)
    label: str = Field(default="", max_length=120)
    others: list[PlantIn] = []
    crown: Crown = ""  # empty: as its kind
    filled: Filled = ""
    soak_min: TypedOrNone = None
    stand_min: TypedOrNone = None
    check_most_days: TypedOrNone = None
    water_id: int | None = None
    alike: int = Field(default=1, ge=1, le=MAX_AT_ONCE)  # pots entered together, codes counting on


def store_pots(session: Session, body: PotIn, today: date) -> list[models.Pot]:
    """A pot, or several alike with codes counting on; all of them, or none."""
    taken = {p.code for p in kept_pots(session)} if body.alike > 1 else set()
    codes = alike_codes(body.code.strip(), body.alike, taken) if body.alike > 1 else [body.code]
    return [store_pot(session, body.model_copy(update={"code": code, "alike": 1}), today) for code in codes]


def litres_of(volume: float | None, top_cm: float | None, height_cm: float | None) -> dict[str, float | None]:
    """Volume as entered, or from the pot's measures; without a height it is a usual pot. [L, cm]"""
    if volume is not None:
        litres = require(volume, "Volume", "L", low=0, open_low=True, high=500, pointer="/volume")
    elif top_cm is None:
        if height_cm is None:
            raise Underspecified("Volume is empty. Enter litres, or the top diameter.", pointer="/volume")
        raise Underspecified("Top diameter is empty. Enter it beside the height, or litres.", pointer="/top_cm")
    else:
        if height_cm is None:
            require(top_cm, "Top diameter", "cm", low=1, high=200, pointer="/top_cm")
            height_cm = usual_height_cm(top_cm)
        litres = pot_volume(top_cm=top_cm, height_cm=height_cm).result.volume_L
    return {"volume_L": litres, "top_cm": top_cm, "height_cm": height_cm}


def checked_below(litres: float | None) -> float | None:
    """What a tray or reservoir holds, where it was told. [L]"""
    if litres is not None:
        require(litres, "Tray or reservoir", "L", low=0, open_low=True, high=1000, pointer="/below_L")
    return litres


def store_pot(session: Session, body: PotIn, today: date) -> models.Pot:
    """A pot with its plants, their leading growths and their phase."""
    code = free_code(session, body.code)
    get_medium(body.medium_id)
    require(body.interval_days, "Days between waterings", "d", low=1, high=120, pointer="/interval_days")
    require(body.plain_every, "Plain rinse", "", low=0, high=52, pointer="/plain_every")
    if body.arrived_on:
        require_not_future(body.arrived_on, today, "Arrival", pointer="/arrived_on")
    if body.watered_on:
        require_not_future(body.watered_on, today, "Last watered", pointer="/watered_on")
    if body.fed_on:
        require_not_future(body.fed_on, today, "Last fed", pointer="/fed_on")
    parts = checked_parts(body.medium_parts)
    first = PlantIn(
        profile_id=body.profile_id,
        label=body.label,
        count=body.count,
        source=body.source,
        arrived_on=body.arrived_on,
    )
    for plant in (first, *body.others):
        get_profile(plant.profile_id)
    pot = models.Pot(
        code=code,
        name=body.name.strip(),
        place_id=place_of(session, body.place).id,
        spot=body.spot,
        shelf_order=pots_ever(session),
        isolated=body.isolated,
        isolated_since=(body.arrived_on or today) if body.isolated else None,
        medium_id=leading_part(_shares(body.medium_parts)) or body.medium_id,
        medium_parts=parts,
        medium_charged=body.medium_charged,
        medium_limed=body.medium_limed,
        drainage=body.drainage,
        tray_L=checked_below(body.below_L),
        route=body.route,
        interval_days=body.interval_days,
        interval_by=body.interval_by,
        plain_every=body.plain_every,
        school_id=known_school(session, body.school_id),
        entered_on=today,
        watered_on=body.watered_on,
        fed_on=body.fed_on,
        crown=body.crown,
        filled=body.filled,
        **checked_handling(session, body.soak_min, body.stand_min, body.check_most_days, body.water_id),
        tags=spaced_tags(body.tags),
        **litres_of(body.volume, body.top_cm, body.height_cm),
    )
    session.add(pot)
    session.flush()
    for plant in (first, *body.others):
        add_plant(session, pot, plant, body.phase, plant.arrived_on or body.arrived_on or today)
    refresh(session, pot.id)
    return pot


def add_plant(session: Session, pot: models.Pot, body: PlantIn, phase: str, since: date) -> models.Plant:
    """A plant with its leading growth and that growth's phase."""
    get_profile(body.profile_id)
    plant = models.Plant(
        pot_id=pot.id,
        profile_id=body.profile_id,
        label=body.label.strip(),
        count=body.count,
        source=body.source.strip(),
        arrived_on=body.arrived_on,
    )
    session.add(plant)
    session.flush()
    growth = models.Growth(plant_id=plant.id)
    session.add(growth)
    session.flush()
    if phase:
        session.add(models.PhaseSpan(growth_id=growth.id, phase=phase, since=since))
    return plant


def checked_handling(
    session: Session, soak: float | None, stand: float | None, most_days: float | None, water_id: int | None
) -> dict[str, Any]:
    """How a pot is plunged and tipped out, the longest it is left unseen, and the one water it always gets. [min, d]"""
    if soak is not None:
        require(soak, "Plunged for", "min", low=1, high=1440, pointer="/soak_min")
    if stand is not None:
        require(stand, "Tipped out after", "min", low=1, high=600, pointer="/stand_min")
    if most_days is not None:
        require(most_days, "Looked at least every", "d", low=1, high=120, pointer="/check_most_days")
    if water_id:
        get_row(session, models.Water, water_id, "Water", "/water_id")
    return {"soak_min": soak, "stand_min": stand, "check_most_days": most_days, "water_id": water_id or None}


def place_of(session: Session, name: str) -> models.Place:
    """The place of that name, made if it is new."""
    name = name.strip() or "Home"
    place = place_named(session, name)
    if place is None:
        place = models.Place(name=name, hemisphere=seasons_word(read_settings(session).hemisphere))
        session.add(place)
        session.flush()
    return place


def free_code(session: Session, code: str, own: int | None = None) -> str:
    """A code no other kept pot has."""
    code = code.strip()
    if not code:
        raise Underspecified("Code is empty. Give the pot a short code, for example P-01.", pointer="/code")
    if pot_coded(session, code, but=own) is not None:
        raise Conflict(f"Code {code} is taken by another pot. Choose another code.", pointer="/code")
    return code


def checked_parts(parts: list[MediumPart]) -> list[dict[str, Any]] | None:
    """Parts as stored; None for a medium of one part."""
    if not parts:
        return None
    medium_properties(parts=[Part(get_medium(p.medium_id).medium(), p.parts) for p in parts])
    return [{"medium_id": p.medium_id, "parts": p.parts} for p in parts]


def _shares(parts: list[MediumPart]) -> dict[str, float]:
    return {p.medium_id: p.parts for p in parts}


def known_school(session: Session, school_id: str) -> str | None:
    """A school of the list; ``own`` for the pot's own rhythm; none for what its kind or place says."""
    if school_id not in ("", OWN_RHYTHM) and school_id not in {s.school.id for s in schools_in_force(session)}:
        raise NotFound(f"There is no school “{school_id}”. Choose one of the list.", pointer="/school_id")
    return school_id or None


class PotSeen(Model):
    """What the form of one pot shows of it."""

    code: str
    name: str
    place: str
    spot: str
    drainage: Drainage
    route: Route
    isolated: bool


class PotChange(Model):
    """What is to change of one or several pots; what is left out stays. Code and name: of one pot only."""

    pot_ids: list[int]
    code: str | None = None
    name: str | None = None
    place: str | None = None
    spot: str | None = None
    medium_id: str | None = None
    medium_parts: list[MediumPart] | None = None
    medium_charged: bool | None = None
    medium_limed: bool | None = None  # lime or gypsum in it; empty: not known
    medium_since: date | None = None
    volume: TypedOrNone = None
    top_cm: TypedOrNone = None
    height_cm: TypedOrNone = None
    drainage: Drainage | None = None
    below_L: TypedOrNone = None
    route: Route | None = None
    interval_days: TypedOrNone = None
    interval_by: Literal["set", "learnt"] | None = None
    plain_every: int | None = None
    school_id: str | None = None
    phase_school: PhaseChoice | None = None
    isolated: bool | None = None
    crown: Crown | None = None
    filled: Filled | None = None
    soak_min: TypedOrNone = None
    stand_min: TypedOrNone = None
    check_most_days: TypedOrNone = None
    water_id: int | None = None  # 0: any fit water again
    add_tags: list[str] = []
    remove_tags: list[str] = []
    behind: str | None = None
    seen: PotSeen | None = None


def _of_both(session: Session, pot: models.Pot, body: PotChange) -> PotChange:
    """The change with what another one changed meanwhile, where the form of this one left it as it was seen."""
    if body.seen is None:
        return body
    place = session.get_one(models.Place, pot.place_id).name
    stands = PotSeen(**{name: getattr(pot, name) for name in PotSeen.model_fields if name != "place"}, place=place)
    sent = PotSeen(
        **{name: getattr(stands if getattr(body, name) is None else body, name) for name in PotSeen.model_fields}
    )
    return body.model_copy(update=kept_of_both(body.seen, stands, sent).model_dump())


def change_pots(session: Session, body: PotChange, today: date) -> list[int]:
    """Change pots together; all of them, or none. Returns their ids in the order given."""
    if not body.pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")
    ids = list(dict.fromkeys(body.pot_ids))
    if len(ids) > 1 and (body.code is not None or body.name is not None):
        raise InputError("Code and name belong to one pot. Change them pot by pot.", pointer="/code")
    first = session.get(models.Pot, ids[0])
    if len(ids) == 1 and first is not None:
        body = _of_both(session, first, body)
    new = _checked_change(session, body, today)
    for pot_id in ids:
        pot = session.get(models.Pot, pot_id)
        if pot is None or pot.archived_at is not None:
            raise NotFound(f"Pot {pot_id} is not there. It may have been archived.", pointer="/pot_ids")
        for key, value in new.items():
            setattr(pot, key, value)
        if body.code is not None:
            pot.code = free_code(session, body.code, pot.id)
        if body.isolated is not None and body.isolated != pot.isolated:
            pot.isolated, pot.isolated_since = body.isolated, today if body.isolated else None
        gone = set(spaced_tags(body.remove_tags))
        pot.tags = [t for t in spaced_tags([*(pot.tags or []), *body.add_tags]) if t not in gone]
        if body.phase_school is not None:
            for plant in all_plants(session, pot_id):
                plant.phase_school = body.phase_school
        refresh(session, pot_id)
    if body.behind is not None:
        _reorder(session, ids, body.behind.strip())
    return ids


def _checked_change(session: Session, body: PotChange, today: date) -> dict[str, Any]:
    """Columns with their new values, each checked."""
    new: dict[str, Any] = {
        k: v
        for k in ("spot", "medium_charged", "medium_limed", "drainage", "route", "interval_by", "medium_since")
        if (v := getattr(body, k)) is not None
    }
    if body.name is not None:
        new["name"] = body.name.strip()
    if body.place is not None:
        new["place_id"] = place_of(session, body.place).id
    if body.medium_id is not None:
        get_medium(body.medium_id)
        new |= {"medium_id": body.medium_id, "medium_parts": None}
    if body.medium_parts is not None:
        new["medium_parts"] = checked_parts(body.medium_parts)
        if body.medium_parts:
            new["medium_id"] = leading_part(_shares(body.medium_parts))
    if body.medium_since is not None:
        require_not_future(body.medium_since, today, "Repotted on", pointer="/medium_since")
        new["repotted_on"] = body.medium_since
    if body.volume is not None or body.top_cm is not None or body.height_cm is not None:
        new |= litres_of(body.volume, body.top_cm, body.height_cm)
    if body.below_L is not None:
        new["tray_L"] = checked_below(body.below_L)
    if body.interval_days is not None:
        new["interval_days"] = require(
            body.interval_days, "Days between waterings", "d", low=1, high=120, pointer="/interval_days"
        )
    if body.plain_every is not None:
        new["plain_every"] = int(require(body.plain_every, "Plain rinse", "", low=0, high=52, pointer="/plain_every"))
    if body.school_id is not None:
        new["school_id"] = known_school(session, body.school_id)
    new |= {k: v for k in ("crown", "filled") if (v := getattr(body, k)) is not None}
    handling = checked_handling(session, body.soak_min, body.stand_min, body.check_most_days, body.water_id)
    new |= {k: v for k, v in handling.items() if v is not None}
    if body.water_id == NO_WATER:
        new["water_id"] = None
    return new


def _reorder(session: Session, ids: list[int], behind: str) -> None:
    """Set pots on the shelf behind the pot of a code; an empty code: first of all."""
    kept = kept_pots(session)
    moved = [p for i in ids for p in kept if p.id == i]
    rest = [p for p in kept if p.id not in ids]
    at = 0
    if behind:
        found = next((i for i, p in enumerate(rest) if p.code == behind), None)
        if found is None:
            raise NotFound(f"No other pot has the code {behind}.", pointer="/behind")
        at = found + 1
    for order, pot in enumerate([*rest[:at], *moved, *rest[at:]]):
        pot.shelf_order = order
    touch_all(session)
