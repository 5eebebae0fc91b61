"""The start page of an empty collection: three questions, drawn while they are answered, then stored together."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.entered import PotIn, store_pots
from fenwa.api.transactions import OneWrite, ReadSession, Today
from fenwa.api.typed import TypedOrNone
from fenwa.api.water.entries import EntryIn, store_reading
from fenwa.api.ways import Ways
from fenwa.core.care.descent import alike_codes, first_code
from fenwa.core.care.first_plan import MOST_LINES, MOST_WATERS, FirstPlan, SaidLine, WaterAtHand, first_plan
from fenwa.core.care.said import SaidPots, said_pots
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import capital
from fenwa.core.errors import Conflict
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit
from fenwa.core.water.told import told_water
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.pot_rows import kept_pots
from fenwa.store.water_rows import water_names

router = Ways(prefix="/api/start", tags=["start"])
Measure = Literal["EC pen", "ppm pen", "kitchen scale"]
KITCHEN_STEP_g = 1.0


class StartWater(Model):
    """A water that can be had: its kind, what a pen showed, what a strip showed. Empty: not read."""

    kind: WaterKind
    value: TypedOrNone = None
    unit: EcUnit = "µS/cm"
    scale: TdsScale | None = None
    hardness_mg_L_CaCO3: TypedOrNone = None


class StartLine(Model):
    """Pots in one line. ``kind``: chosen where the line could mean several."""

    line: str
    kind: str = ""


class StartIn(Model):
    """The three answers; any of them may be empty."""

    lines: list[StartLine] = Field(default=[], max_length=MOST_LINES)
    waters: list[StartWater] = Field(default=[], max_length=MOST_WATERS)
    measures: list[Measure] = []
    place: str = Field(default="Home", max_length=80)
    hemisphere: Literal["north", "south", "no seasons"] = "north"


class LineShown(Model):
    """A line as understood, with the codes its pots would get."""

    line: str
    codes: str
    pots: SaidPots


class WaterShown(Model):
    """A water as far as it is known. [µS/cm]"""

    kind: WaterKind
    name: str
    low_uS_cm: float
    high_uS_cm: float
    measured: bool
    sentence: str
    working: Working


class Drawn(Model):
    """What the answers so far say."""

    lines: list[LineShown]
    waters: list[WaterShown]
    plan: Computed[FirstPlan]


class Begun(Model):
    """What was set up."""

    pots: int
    waters: int
    meters: int


class WaterOffered(Model):
    """A water that can be chosen."""

    kind: WaterKind
    name: str


class StartState(Model):
    """Whether the collection holds nothing yet, and which waters can be chosen."""

    empty: bool
    waters: list[WaterOffered]


OFFERED: tuple[WaterKind, ...] = (
    "mains",
    "rain",
    "permeate",
    "distilled",
    "deionised",
    "borehole",
    "softened",
    "jug-filtered",
    "bottled",
    "condensate",
    "other",
)


def _is_empty(session: Session) -> bool:
    return not kept_pots(session) and not water_names(session)


def _name(kind: WaterKind) -> str:
    label = water_kinds()[kind].label
    return capital(label)


@router.get("")
def start_state(session: ReadSession) -> StartState:
    """Whether this is the first minute."""
    return StartState(empty=_is_empty(session), waters=[WaterOffered(kind=k, name=_name(k)) for k in OFFERED])


def _waters(body: StartIn) -> list[WaterShown]:
    found = []
    for w in body.waters:
        told = told_water(w.kind, w.value, w.unit, w.scale, hardness_mg_L_CaCO3=w.hardness_mg_L_CaCO3)
        found.append(
            WaterShown(
                kind=w.kind,
                name=_name(w.kind),
                low_uS_cm=told.low_uS_cm,
                high_uS_cm=told.high_uS_cm,
                measured=told.measured,
                sentence=told.sentence,
                working=told.working,
            )
        )
    return found


def _lines(body: StartIn) -> list[SaidLine]:
    return [SaidLine(x.line, x.kind) for x in body.lines]


def _store_line(session: Session, x: StartLine, body: StartIn, today: date) -> int:
    pots = said_pots(line=x.line, kind=x.kind).result
    entry = PotIn(
        code=first_code(pots.stem, {p.code for p in kept_pots(session)}),
        alike=pots.count,
        profile_id=pots.kind,
        place=body.place,
        medium_id=pots.medium,
        volume=pots.volume_L,
        top_cm=pots.top_cm,
        height_cm=pots.height_cm,
        drainage=pots.drainage,
        route="tray" if pots.drainage == "tray" else "top",
        interval_days=pots.interval_days,
    )
    return len(store_pots(session, entry, today))


def _store_water(session: Session, w: StartWater, order: int, today: date) -> None:
    row = models.Water(
        name=_name(w.kind),
        kind=w.kind,
        preference=100 + order,
        disinfectant="none" if water_kinds()[w.kind].disinfected == "no" else "unknown",
        hardness_mg_L_CaCO3=w.hardness_mg_L_CaCO3,
    )
    session.add(row)
    session.flush()
    if w.value is not None:
        scale = w.scale or ("unknown" if w.unit == "ppm" else None)
        store_reading(session, row.id, EntryIn(on=today, value=w.value, unit=w.unit, scale=scale), today)


def _store_meters(session: Session, measures: list[Measure]) -> int:
    """A pen as nothing is known of it but its display; its leaflet is entered at the Water station."""
    pens = {"EC pen": ("µS/cm", None), "ppm pen": ("ppm", "unknown")}
    chosen = [m for m in dict.fromkeys(measures) if m in pens]
    session.add_all(models.Meter(name=m, unit=pens[m][0], scale=pens[m][1]) for m in chosen)
    return len(chosen)


@router.post("/drawn")
def draw(body: StartIn) -> Drawn:
    """What the answers say so far. Nothing is stored."""
    waters = _waters(body)
    plan = first_plan(
        lines=tuple(_lines(body)),
        waters=tuple(WaterAtHand(w.kind, w.low_uS_cm, w.high_uS_cm, w.measured) for w in waters),
    )
    taken: set[str] = set()
    lines = []
    for x in body.lines:
        pots = said_pots(line=x.line, kind=x.kind).result
        codes = alike_codes(first_code(pots.stem, taken), pots.count, taken)
        taken |= set(codes)
        shown = codes[0] if len(codes) == 1 else f"{codes[0]} to {codes[-1]}"
        lines.append(LineShown(line=x.line, codes=shown, pots=pots))
    return Drawn(lines=lines, waters=waters, plan=plan)


@router.post("", status_code=201)
def begin(body: StartIn, writer: OneWrite, today: Today) -> Begun:
    """Set up pots, waters, readings and a meter: all of it, or nothing."""
    _waters(body)

    def write(session: Session) -> dict[str, Any]:
        if not _is_empty(session):
            raise Conflict("This collection holds pots or waters already. Add more at Pots and at Water.")
        settings: dict[str, str] = {"hemisphere": body.hemisphere}
        if "kitchen scale" in body.measures:
            settings["scale_step_g"] = str(KITCHEN_STEP_g)
        for key, value in settings.items():
            session.merge(models.Setting(key=key, value=value))
        session.flush()
        pots = sum(_store_line(session, x, body, today) for x in body.lines)
        for i, w in enumerate(body.waters):
            _store_water(session, w, i, today)
        meters = _store_meters(session, body.measures)
        return {"pots": pots, "waters": len(body.waters), "meters": meters}

    return Begun(**writer.once(body, write))
