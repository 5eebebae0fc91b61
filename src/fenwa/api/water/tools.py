"""What to do about a water: blend, share out, boil, take out disinfectant, acid, membrane."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.water.shown import water_of
from fenwa.api.ways import Ways
from fenwa.core.care.day import needs_of
from fenwa.core.data.water_tables import acids
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, Underspecified
from fenwa.core.units import to_canonical
from fenwa.core.water.acidify import SAFETY_LINES, Acidified, AcidTarget, acidify
from fenwa.core.water.blend import Blend, BlendTarget, BlendWater, Objective, Sense, blend
from fenwa.core.water.blend import Quantity as BlendQuantity
from fenwa.core.water.boil import Boiled, boil_and_settle
from fenwa.core.water.dechlorinate import Dechlorination, dechlorinate
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.knowledge import ions_known
from fenwa.core.water.membrane import DEFAULT_FLOOR_PCT, MembranePair, MembraneTrend, membrane_trend
from fenwa.core.water.need import WaterNeed, water_need
from fenwa.core.water.remedy import amounts_of, limits_of, suits
from fenwa.core.water.share_out import Demand, ShareOut, Supply, litres_to_share, share_out
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.care_state import profile_in_force
from fenwa.store.collection import pots_today
from fenwa.store.round_state import round_pots
from fenwa.store.water_rows import membrane_pairs
from fenwa.store.water_state import WaterToday, waters_today

router = Ways(prefix="/api/water", tags=["water tools"])

VolumeUnit = Literal["L", "US gal", "imp gal"]
ACIDS_READ = "acids_read_on"


def _litres(volume: float, unit: VolumeUnit) -> float:
    return to_canonical(volume, "volume", unit, pointer="/volume")


class TargetIn(Model):
    """What is wanted of a blend. [µS/cm; mg/L CaCO3]"""

    quantity: BlendQuantity
    value: Typed
    sense: Sense = "about"


class BlendIn(Model):
    """Two to six sources, what is wanted, and how much of it."""

    water_ids: list[int]
    targets: list[TargetIn]
    volume: Typed = 10.0
    volume_unit: VolumeUnit = "L"
    objective: Objective = "cost"
    scarce_id: int | None = None
    mind_stock: bool = True


@router.post("/blend")
def blend_waters(body: BlendIn, session: ReadSession, today: Today) -> Computed[Blend]:
    """Shares of the chosen sources; nothing is stored."""
    rows = [water_of(session, today, i, "/water_ids") for i in body.water_ids]
    waters = []
    for w in rows:
        base = w.base()
        on_hand = w.left_L if body.mind_stock else None
        waters.append(
            BlendWater(base, w.water.price_per_L, on_hand, w.known.alkalinity_mg_L_CaCO3, w.known.hardness_mg_L_CaCO3)
        )
    if body.objective == "least of the scarce" and body.scarce_id not in body.water_ids:
        raise Underspecified("Name which of the chosen waters is scarce.", pointer="/scarce_id")
    return blend(
        waters=waters,
        targets=[BlendTarget(t.quantity, t.value, t.sense) for t in body.targets],
        volume_L=_litres(body.volume, body.volume_unit),
        objective=body.objective,
        scarce=body.water_ids.index(body.scarce_id) if body.scarce_id in body.water_ids else 0,
    )


class SharePage(Model):
    """This week's litres, and the sources whose litres are not entered."""

    answer: Computed[ShareOut]
    not_entered: list[str]
    unread: list[str]


@router.get("/share-out")
def share(session: ReadSession, today: Today, blend: bool = True) -> SharePage:
    """Who gets which water this week, by the usual pours of all pots."""
    rows = waters_today(session, today)
    usable = rows  # a water nobody measured counts at its usual reading
    litres: dict[str, float] = {}
    for p in pots_today(session, today):
        litres[p.profile.id] = litres.get(p.profile.id, 0.0) + p.day.weekly_L
    supplies = [
        Supply(
            w.water.name,
            w.reckoned_uS_cm,
            litres_to_share(w.known.kind, w.left_L),
            w.water.price_per_L,
            amounts_of(w.known),
        )
        for w in usable
    ]
    demands = []
    for profile_id, wanted in litres.items():
        needs = needs_of(profile_in_force(session, profile_id))
        fit = tuple(suits(w.known, needs, w.reckoned_uS_cm) for w in usable)
        demands.append(Demand(needs.name, wanted, needs.ec_max_uS_cm, fit, limits_of(needs)))
    return SharePage(
        answer=share_out(supplies=supplies, demands=demands, may_blend=blend),
        not_entered=[
            w.water.name
            for w, s in zip(usable, supplies, strict=True)
            if w.water.on_hand_L is None and s.litres is not None
        ],
        unread=[w.water.name for w in rows if w.ec25_uS_cm is None],
    )


class NeedIn(Model):
    """Days to reckon with, and the jug it is bought in; empty: by the litre. [d, L]"""

    water_id: int
    days: int = 30
    pack: TypedOrNone = None
    volume_unit: VolumeUnit = "L"


@router.post("/need")
def litres_needed(body: NeedIn, session: ReadSession, today: Today) -> Computed[WaterNeed]:
    """Litres the pots that get this water take in the coming days; nothing is stored."""
    w = water_of(session, today, body.water_id, "/water_id")
    due, pots, _ = round_pots(session, today)
    week = sum(p.day.weekly_L for r, p in zip(due, pots, strict=True) if r.water_ids[:1] == (body.water_id,))
    return water_need(
        weekly_L=week,
        days=body.days,
        on_hand_L=w.left_L,
        pack_L=None if body.pack is None else _litres(body.pack, body.volume_unit),
        price_per_L=w.water.price_per_L,
    )


class DechlorinateIn(Model):
    """Tap water to treat; empty: not measured."""

    volume: Typed
    volume_unit: VolumeUnit = "L"
    free: TypedOrNone = None
    total: TypedOrNone = None
    supplier: Literal["unknown", "free chlorine", "chloramine"] = "unknown"


@router.post("/dechlorinate")
def take_out_chlorine(body: DechlorinateIn) -> Computed[Dechlorination]:
    """Conditioner for a volume of tap water; nothing is stored."""
    return dechlorinate(
        volume_L=_litres(body.volume, body.volume_unit),
        free_mg_L=body.free,
        total_mg_L=body.total,
        chloramine={"unknown": None, "free chlorine": False, "chloramine": True}[body.supplier],
    )


def _ions(w: WaterToday) -> WaterIons:
    return ions_known(w.base(), w.known)


class BoilIn(Model):
    """Water to boil."""

    water_id: int
    volume: Typed = 1.0
    volume_unit: VolumeUnit = "L"
    boiled_off_pct: Typed = 5.0


@router.post("/boil")
def boil(body: BoilIn, session: ReadSession, today: Today) -> Computed[Boiled]:
    """What boiling and settling leaves; nothing is stored."""
    w = water_of(session, today, body.water_id, "/water_id")
    return boil_and_settle(
        ions=_ions(w), volume_L=_litres(body.volume, body.volume_unit), boiled_off=body.boiled_off_pct / 100
    )


class AcidOut(Model):
    """An acid and the strengths the table knows."""

    id: str
    label: str
    state: Literal["liquid", "dry"]
    household: bool
    strengths_pct: list[float]
    note: str


class AcidsPage(Model):
    """Acids, the safety lines, and the day they were confirmed as read."""

    read_on: date | None
    safety: list[str]
    acids: list[AcidOut]


def _read_on(session: Session) -> date | None:
    row = session.get(models.Setting, ACIDS_READ)
    return date.fromisoformat(row.value) if row else None


@router.get("/acids")
def acids_page(session: ReadSession) -> AcidsPage:
    """Acids and what has to be read before using them."""
    return AcidsPage(
        read_on=_read_on(session),
        safety=list(SAFETY_LINES),
        acids=[
            AcidOut(
                id=a.id,
                label=a.label,
                state=a.state,
                household=a.household,
                strengths_pct=[s.pct for s in a.strengths],
                note=a.note,
            )
            for a in acids().values()
        ],
    )


@router.post("/acids/read", status_code=201)
def confirm_acids(writer: OneWrite, today: Today) -> Stored:
    """The grower has read the safety lines."""

    def write(session: Session) -> dict[str, Any]:
        if session.get(models.Setting, ACIDS_READ) is None:
            session.add(models.Setting(key=ACIDS_READ, value=today.isoformat()))
        return {"id": 1}

    return Stored(**writer.once(None, write))


class AcidIn(Model):
    """Acid to a target in a source."""

    water_id: int
    volume: Typed
    volume_unit: VolumeUnit = "L"
    acid: str
    strength_pct: TypedOrNone = None
    density_g_mL: TypedOrNone = None
    target: AcidTarget = "alkalinity"
    value: Typed


@router.post("/acidify")
def acid(body: AcidIn, session: ReadSession, today: Today) -> Computed[Acidified]:
    """Acid for a volume; locked until the safety lines were confirmed as read. Nothing is stored."""
    if _read_on(session) is None:
        raise Conflict(
            "Acids are locked until you confirm that you have read the safety lines. Read and confirm them once."
        )
    w = water_of(session, today, body.water_id, "/water_id")
    return acidify(
        ions=_ions(w),
        volume_L=_litres(body.volume, body.volume_unit),
        acid=body.acid,
        target=body.target,
        value=body.value,
        strength_pct=body.strength_pct,
        density_g_mL=body.density_g_mL,
    )


class PairIn(Model):
    """Feed and permeate of one day, µS/cm at one temperature; the volumes of one run if they were caught."""

    on: date
    feed: Typed
    permeate: Typed
    permeate_L: TypedOrNone = None
    concentrate_L: TypedOrNone = None


class PairOut(Model):
    """A stored pair."""

    id: int
    on: date
    feed_uS_cm: float
    permeate_uS_cm: float


class MembranePage(Model):
    """A membrane's pairs and what they say; null before the first."""

    water_id: int
    floor_pct: float
    pairs: list[PairOut]
    answer: Computed[MembraneTrend] | None


def _membrane(session: Session, water_id: int, today: date) -> MembranePage:
    water = get_row(session, models.Water, water_id, "Water")
    rows = membrane_pairs(session, water_id, today)
    floor = water.membrane_floor_pct if water.membrane_floor_pct is not None else DEFAULT_FLOOR_PCT
    run = next((r for r in reversed(rows) if r.permeate_L is not None and r.concentrate_L is not None), None)
    answer = None
    if rows:
        answer = membrane_trend(
            pairs=[MembranePair(r.on, r.feed_uS_cm, r.permeate_uS_cm) for r in rows],
            today=today,
            floor_pct=floor,
            permeate_L=run.permeate_L if run else None,
            concentrate_L=run.concentrate_L if run else None,
        )
    return MembranePage(
        water_id=water_id,
        floor_pct=floor,
        answer=answer,
        pairs=[
            PairOut(id=r.id, on=r.on, feed_uS_cm=r.feed_uS_cm, permeate_uS_cm=r.permeate_uS_cm) for r in reversed(rows)
        ],
    )


@router.get("/membrane/{water_id}")
def membrane(water_id: int, session: ReadSession, today: Today) -> MembranePage:
    """Rejection of the membrane behind a permeate, its trend and what it wastes."""
    return _membrane(session, water_id, today)


@router.post("/membrane/{water_id}/pairs", status_code=201)
def add_pair(water_id: int, body: PairIn, writer: OneWrite, today: Today) -> MembranePage:
    """Note a pair; the answer holds what the pairs say now."""
    require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Water, water_id, "Water")
        session.add(
            models.MembranePair(
                water_id=water_id,
                on=body.on,
                feed_uS_cm=body.feed,
                permeate_uS_cm=body.permeate,
                permeate_L=body.permeate_L,
                concentrate_L=body.concentrate_L,
            )
        )
        session.flush()
        # a pair that cannot be is refused by the calculation itself, alone and before anything is kept
        membrane_trend(
            pairs=[MembranePair(body.on, body.feed, body.permeate)],
            today=today,
            permeate_L=body.permeate_L,
            concentrate_L=body.concentrate_L,
        )
        return _membrane(session, water_id, today).model_dump(mode="json")

    return MembranePage.model_validate(writer.once(body, write))


class FloorIn(Model):
    """Rejection below which the grower replaces the membrane. [%]"""

    floor_pct: Typed


@router.put("/membrane/{water_id}/floor")
def set_floor(water_id: int, body: FloorIn, writer: OneWrite) -> Stored:
    """Set the floor of a membrane."""
    require(body.floor_pct, "Floor", "%", low=50, high=99.9, pointer="/floor_pct")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Water, water_id, "Water").membrane_floor_pct = body.floor_pct
        return {"id": water_id}

    return Stored(**writer.once(body, write))
