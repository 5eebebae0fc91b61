"""Places: where they lie, what light and warmth they have, what changed there, and rules that stand for a kind or
a place.
"""

from __future__ import annotations

from datetime import date
from typing import Any, get_args

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.entered import PhaseChoice, known_school
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row
from fenwa.api.transactions import now as this_moment
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.season import Hemisphere, clock_of
from fenwa.core.care.standing_rules import Scope
from fenwa.core.care.vocabulary import PlaceChangeKind
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import NotFound, Underspecified
from fenwa.core.library.loader import get_profile, profiles
from fenwa.store import models
from fenwa.store.house_rows import changes_of_place, open_places, standing_rules
from fenwa.store.summary import touch_all

router = Ways(prefix="/api", tags=["places"])


class PlaceOut(Model):
    """A place with what rules its seasons. [°, h, mol/m²/day]"""

    id: int
    name: str
    hemisphere: Hemisphere
    latitude_deg: float | None
    lamp_hours: float | None
    lamp_dli: float | None
    on_display: bool
    lamps_off: str


@router.get("/places")
def places(session: ReadSession) -> list[PlaceOut]:
    """Places with their seasons."""
    return [PlaceOut(**{k: getattr(p, k) for k in PlaceOut.model_fields}) for p in open_places(session)]


class PlaceIn(Model):
    """Seasons of a place: a latitude, or a hemisphere, or none; lamps if it has them; whether plants are on show."""

    hemisphere: Hemisphere = "north"
    latitude_deg: TypedOrNone = None
    lamp_hours: TypedOrNone = None
    lamp_dli: TypedOrNone = None
    on_display: bool | None = None
    lamps_off: str | None = Field(default=None, max_length=5)


@router.post("/places/{place_id}")
def set_place(place_id: int, body: PlaceIn, writer: OneWrite) -> Stored:
    """Say where a place lies and what light it has."""
    for value, name, unit, low, high, pointer in (
        (body.latitude_deg, "Latitude", "°", -90, 90, "/latitude_deg"),
        (body.lamp_hours, "Lamp hours", "h", 0, 24, "/lamp_hours"),
        (body.lamp_dli, "Lamp light", "mol/m²/day", 0, 60, "/lamp_dli"),
    ):
        if value is not None:
            require(value, name, unit, low=low, high=high, pointer=pointer)
    if body.lamps_off:
        clock_of(body.lamps_off)

    def write(session: Session) -> dict[str, Any]:
        place = get_row(session, models.Place, place_id, "Place", "/place_id")
        for key, value in body.model_dump().items():
            if key not in ("on_display", "lamps_off") or value is not None:
                setattr(place, key, value)
        touch_all(session)
        return {"id": place_id}

    return Stored(**writer.once(body, write))


class ClimateIn(Model):
    """What a place measured: coldest of the night, warmest of the day. [°C, %]"""

    on: date
    night: TypedOrNone = None
    day: TypedOrNone = None
    medium: TypedOrNone = None
    humidity: TypedOrNone = None
    note: str = ""


@router.post("/places/{place_id}/climate", status_code=201)
def add_climate(place_id: int, body: ClimateIn, writer: OneWrite, today: Today) -> Stored:
    """Log a night and a day of a place."""
    require_not_future(body.on, today, "Date", pointer="/on")
    values = {"night_C": body.night, "day_C": body.day, "medium_C": body.medium, "humidity_pct": body.humidity}
    if all(v is None for v in values.values()):
        raise Underspecified("Nothing was measured. Enter at least one figure.", pointer="/night")
    for key, field in (("night_C", "night"), ("day_C", "day"), ("medium_C", "medium")):
        if (celsius := values[key]) is not None:
            require(celsius, f"Temperature ({field})", "°C", low=-30, high=60, pointer=f"/{field}")
    if body.humidity is not None:
        require(body.humidity, "Humidity", "%", low=0, high=100, pointer="/humidity")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Place, place_id, "Place", "/place_id")
        return keep_row(session, models.Climate(place_id=place_id, on=body.on, note=body.note, **values))

    return Stored(**writer.once(body, write))


class PlaceChangeIn(Model):
    """Something that changed at a place: it confounds every conclusion drawn across its date."""

    on: date
    kind: PlaceChangeKind
    note: str = Field(default="", max_length=200)


class PlaceChange(PlaceChangeIn):
    """A dated change of a place."""

    id: int


@router.get("/places/{place_id}/changes")
def changes(place_id: int, session: ReadSession, today: Today) -> list[PlaceChange]:
    """What changed at a place, the newest first."""
    known = get_args(PlaceChangeKind)
    return [
        PlaceChange(
            id=e.id, on=e.on, kind=e.kind if e.kind in known else "other", note=e.note if e.kind in known else e.kind
        )
        for e in changes_of_place(session, place_id, today)
    ]


@router.post("/places/{place_id}/changes", status_code=201)
def add_change(place_id: int, body: PlaceChangeIn, writer: OneWrite, today: Today) -> Stored:
    """Log what changed at a place."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if body.kind == "other" and not body.note.strip():
        raise Underspecified("Note is empty. Say in a word what changed.", pointer="/note")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Place, place_id, "Place", "/place_id")
        return keep_row(session, models.Event(place_id=place_id, on=body.on, kind=body.kind, note=body.note.strip()))

    return Stored(**writer.once(body, write))


class RuleIn(Model):
    """A rule for all pots of a kind, of a group of kinds or of a place; both empty: no rule any more."""

    scope: Scope
    key: str
    school_id: str = ""
    phase_school: PhaseChoice = ""


class RuleOut(RuleIn):
    """A standing rule."""

    id: int


@router.get("/rules")
def rules(session: ReadSession) -> list[RuleOut]:
    """Standing rules in force."""
    return [RuleOut(**{k: getattr(r, k) for k in RuleOut.model_fields}) for r in standing_rules(session)]


@router.post("/rules", status_code=201)
def set_rule(body: RuleIn, writer: OneWrite) -> Stored:
    """Set the rule of a kind, a group or a place; a pot's own choice still stands before it."""

    def write(session: Session) -> dict[str, Any]:
        if body.scope == "kind":
            get_profile(body.key)
        elif body.scope == "group" and body.key not in {p.group for p in profiles().values()}:
            raise NotFound(f"There is no group “{body.key}”. Choose one of the list of kinds.", pointer="/key")
        elif body.scope == "place":
            get_row(session, models.Place, int(body.key) if body.key.isdigit() else 0, "Place", "/key")
        known_school(session, body.school_id)
        for row in standing_rules(session, body.scope, body.key):
            row.archived_at = this_moment()
        new = models.StandingRule(**body.model_dump())
        if not body.school_id and not body.phase_school:
            new.archived_at = this_moment()
        session.add(new)
        touch_all(session)
        session.flush()
        return {"id": new.id}

    return Stored(**writer.once(body, write))
