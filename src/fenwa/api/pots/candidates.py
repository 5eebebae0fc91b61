"""Plants judged before they are bought: no pot and no job comes of it."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date, timedelta
from typing import Any

from pydantic import Field, TypeAdapter
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.candidate import Home, HomeVerdict, asks_of, will_it_live
from fenwa.core.care.fit import (
    CLIMATE_OF_DAYS,
    USUAL_LITRES_MONTH,
    FitOfKind,
    FitWater,
    climate_seen,
    fit_of_kind,
)
from fenwa.core.errors import Underspecified
from fenwa.core.library.loader import get_profile
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.air_rows import air_days
from fenwa.store.care_state import profile_in_force
from fenwa.store.pot_rows import open_candidates
from fenwa.store.round_state import waters_of_kind
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api/candidates", tags=["candidates"])
_VERDICT: TypeAdapter[HomeVerdict] = TypeAdapter(HomeVerdict)


class JudgeIn(Model):
    """A kind and the home it would come to. Empty: not measured. [%, °C]"""

    profile_id: str = "unknown"
    humidity_low: TypedOrNone = None
    humidity_high: TypedOrNone = None
    night: TypedOrNone = None
    pets: bool = False


class CandidateIn(JudgeIn):
    """A plant to be kept with its verdict, by the name on its tag."""

    name: str = Field(max_length=120)


class CandidateOut(Model):
    """A plant judged: as it was told then."""

    id: int
    name: str
    profile_id: str
    kind: str
    on: date
    judged: HomeVerdict
    pot_id: int | None


class BoughtIn(Model):
    """The pot it became."""

    pot_id: int


def _judge(session: Session, body: JudgeIn, today: date) -> Computed[HomeVerdict]:
    get_profile(body.profile_id)
    profile = profile_in_force(session, body.profile_id)
    choice, name = waters_of_kind(session, profile, today)
    return will_it_live(kind=asks_of(profile), home=_home(body), choice=choice, water_name=name)


def _home(body: JudgeIn) -> Home:
    return Home(
        humidity_low_pct=body.humidity_low,
        humidity_high_pct=body.humidity_low if body.humidity_high is None else body.humidity_high,
        night_C=body.night,
        pets=body.pets,
    )


@router.post("/judge")
def judge(body: JudgeIn, session: ReadSession, today: Today) -> Computed[HomeVerdict]:
    """Will it live here? Nothing is stored."""
    return _judge(session, body, today)


class FitAskedIn(Model):
    """A kind, and the place it would come to: its measured climate, the grower's waters, and prices. [L, mol/m² d]"""

    profile_id: str = "unknown"
    place_id: int | None = None
    litres_month: TypedOrNone = None
    price_kWh: TypedOrNone = None
    asks_light: TypedOrNone = None
    pets: bool = False


class FitOut(Model):
    """Fit before buying, with the climate that was measured there. None: nothing was."""

    fit: Computed[FitOfKind]
    place: str
    measured_days: int
    humidity: tuple[float, float] | None
    night_C: float | None


@router.post("/fit")
def fit(body: FitAskedIn, session: ReadSession, today: Today) -> FitOut:
    """A kind against the grower's own waters and the climate measured at a place; what would have to change."""
    get_profile(body.profile_id)
    profile = profile_in_force(session, body.profile_id)
    place = get_row(session, models.Place, body.place_id, "Place", "/place_id") if body.place_id is not None else None
    days = air_days(session, place.id, today - timedelta(days=CLIMATE_OF_DAYS), today) if place else []
    seen = climate_seen(
        [d.humidity_low_pct if d.humidity_low_pct is not None else d.humidity_pct for d in days],
        [d.humidity_high_pct if d.humidity_high_pct is not None else d.humidity_pct for d in days],
        [d.night_C for d in days],
    )
    choice, _ = waters_of_kind(session, profile, today)
    waters = [
        FitWater(w.water.name, w.water.id in choice.ids and choice.least_bad is None, "", w.water.price_per_L)
        for w in waters_today(session, today)
    ]
    computed = fit_of_kind(
        kind=asks_of(profile),
        home=Home(
            humidity_low_pct=seen.humidity[0] if seen.humidity else None,
            humidity_high_pct=seen.humidity[1] if seen.humidity else None,
            night_C=seen.night_C,
            pets=body.pets,
        ),
        choice=choice,
        waters=waters,
        litres_month=body.litres_month if body.litres_month is not None else USUAL_LITRES_MONTH,
        price_kWh=body.price_kWh,
        light_mol=place.lamp_dli if place else None,
        asks_light_mol=body.asks_light,
    )
    return FitOut(
        fit=computed,
        place=place.name if place else "",
        measured_days=len(days),
        humidity=seen.humidity,
        night_C=seen.night_C,
    )


@router.get("")
def candidates(session: ReadSession) -> list[CandidateOut]:
    """Plants judged and kept, the newest first."""
    return [
        CandidateOut(
            id=c.id,
            name=c.name,
            profile_id=c.profile_id,
            kind=get_profile(c.profile_id).name,
            on=c.on,
            judged=_VERDICT.validate_python(c.answer),
            pot_id=c.pot_id,
        )
        for c in open_candidates(session)
    ]


@router.post("", status_code=201)
def keep_candidate(body: CandidateIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a plant with its verdict, to be compared; it is no pot and asks for nothing."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Type what its tag says.", pointer="/name")

    def write(session: Session) -> dict[str, Any]:
        judged = _judge(session, body, today).result
        row = models.Candidate(
            name=body.name.strip(),
            profile_id=body.profile_id,
            on=today,
            home=asdict(_home(body)),
            answer=_VERDICT.dump_python(judged, mode="json"),
        )
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.post("/{candidate_id}/bought")
def bought(candidate_id: int, body: BoughtIn, writer: OneWrite) -> Stored:
    """It came home: its verdict stays with the pot."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Candidate, candidate_id, "Candidate", "/candidate_id")
        get_row(session, models.Pot, body.pot_id, "Pot", "/pot_id")
        row.pot_id = body.pot_id
        return {"id": row.id}

    return Stored(**writer.once(body, write))
