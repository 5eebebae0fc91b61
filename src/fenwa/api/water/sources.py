"""The Water station: sources, and who may drink what."""

from __future__ import annotations

from datetime import date
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.edits import kept_of_both
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, as_json, get_row, now, plain_row
from fenwa.api.typed import TypedOrNone
from fenwa.api.water.shown import AmountOut, ReadingOut, reading_out, water_of
from fenwa.api.ways import Ways
from fenwa.core.care.day import needs_of
from fenwa.core.care.kind_in_force import strictest_of
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.library.profile import Profile
from fenwa.core.water.kind_checks import Disinfectant, KindState, Treatment, kind_findings
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.quantities import QUANTITIES
from fenwa.core.water.usual import UsualWater
from fenwa.core.water.verdict import STRICTEST, Amount, WaterVerdict, amounts_line, in_a_word
from fenwa.core.water.watch import TreatmentEffect, WaterWatch, treatment_effect, water_watch
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.care_state import profile_in_force
from fenwa.store.collection import pots_today
from fenwa.store.memory import remembered
from fenwa.store.water_rows import newest_readings, newest_treatments, past_readings
from fenwa.store.water_state import WaterToday, enter_litres, left_L, waters_as_found, waters_today

router = Ways(prefix="/api", tags=["water"])


class TreatmentOut(Model):
    """A dated step, and what it removed if it was read before and after."""

    id: int
    on: date
    kind: Treatment
    in_force: bool
    note: str
    effect: TreatmentEffect | None


class WaterOut(Model):
    """A source on the rail."""

    id: int
    name: str
    kind: WaterKind
    kind_label: str
    price_per_L: float | None
    on_hand_L: float | None
    capacity_L: float | None
    collected_on: date | None
    disinfectant: Disinfectant
    ec25_uS_cm: float | None
    half_width_uS_cm: float | None
    reckoned_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    usual: UsualWater | None
    read_on: date | None
    age_days: int | None
    newest: ReadingOut | None
    history: list[ReadingOut]
    tests: list[AmountOut]
    unknown: list[str]
    treatments: list[TreatmentOut]
    report_id: int | None
    report_on: date | None
    watch: WaterWatch
    amounts: str
    kind_line: str


class GroupOut(Model):
    """A kind of plant present, with the most it may drink."""

    profile_id: str
    short: str
    ec_max_uS_cm: float
    confidence: str
    pots: int


class VerdictOut(Model):
    """Both lines for one water and one group."""

    water_id: int
    profile_id: str
    amount: Amount
    margin_line: str
    kind: KindState
    kind_line: str
    limiting: str
    word: str


class WaterPage(Model):
    """All the Water station shows."""

    today: date
    waters: list[WaterOut]
    groups: list[GroupOut]
    verdicts: list[VerdictOut]


@router.get("/water", response_model=WaterPage)
def water_page(session: ReadSession, today: Today) -> Response:
    """Sources with their newest reading, groups present, verdict on each pair."""
    kinds: dict[str, list[Profile]] = {}  # as in force: a grower's own figures stand before the shipped ones
    for p in pots_today(session, today):
        kinds.setdefault(p.profile.id, []).append(p.profile)
    groups = sorted((strictest_of(same) for same in kinds.values()), key=lambda g: g.source_water.ec_max_uS_cm)
    judged = remembered(session, "sources", (today, tuple(groups)), lambda s: _judged(s, groups, today))
    # one of the two may be newer: a source that was added or archived meanwhile is in one of them only
    left = {w.water.id: w.left_L for w in waters_today(session, today)}
    page = WaterPage(
        today=today,
        waters=[row.model_copy(update={"on_hand_L": left.get(row.id, row.on_hand_L)}) for row, _ in judged],
        groups=[
            GroupOut(
                profile_id=g.id,
                short=g.short,
                ec_max_uS_cm=g.source_water.ec_max_uS_cm,
                confidence=g.confidence,
                pots=len(kinds[g.id]),
            )
            for g in groups
        ],
        verdicts=[v for _, mine in judged for v in mine],
    )
    return as_json(page)


def _judged(session: Session, groups: list[Profile], today: date) -> list[tuple[WaterOut, list[VerdictOut]]]:
    """Every source with its verdicts, but for the litres that pours took of it."""
    out = []
    for w in waters_as_found(session, today):
        results = [(g, w.verdict(needs_of(g)).result) for g in groups]
        row = _water_out(session, w, today, results)
        verdicts = [
            VerdictOut(
                water_id=w.water.id,
                profile_id=g.id,
                amount=v.amount,
                margin_line=v.margin_line,
                kind=v.kind,
                kind_line=v.kind_line,
                limiting=v.limiting,
                word=in_a_word(v, row.watch.too_old),
            )
            for g, v in results
        ]
        out.append((row, verdicts))
    return out


def _water_out(session: Session, w: WaterToday, today: date, verdicts: list[tuple[Profile, WaterVerdict]]) -> WaterOut:
    amounts = amounts_line([v.amount for _, v in verdicts])
    worst = next((v.kind_line for _, v in verdicts if v.kind == "known bad"), None)
    unknown = next((v.kind_line for _, v in verdicts if v.kind == "unknown"), "nothing known against it")
    kind_line = worst or unknown
    rows, past = newest_readings(session, w.water.id, today), past_readings(session, w.water.id, today)
    watch = water_watch(kind=w.known.kind, readings=past, today=today, collected_on=w.water.collected_on).result
    r, row = w.reading, water_kinds()[w.known.kind]
    return WaterOut(
        id=w.water.id,
        name=w.water.name,
        kind=w.known.kind,
        kind_label=row.label,
        price_per_L=w.water.price_per_L,
        on_hand_L=w.left_L,
        capacity_L=w.water.capacity_L,
        collected_on=w.water.collected_on,
        disinfectant=w.known.disinfectant,
        ec25_uS_cm=w.ec25_uS_cm,
        half_width_uS_cm=r.half_width_uS_cm if r else None,
        reckoned_uS_cm=w.reckoned_uS_cm,
        low_uS_cm=w.span_uS_cm[0],
        high_uS_cm=w.span_uS_cm[1],
        usual=None if w.measured else w.usual.result,
        read_on=r.on if r else None,
        age_days=(today - r.on).days if r else None,
        newest=reading_out(w.newest) if w.newest else None,
        history=[reading_out(x) for x in rows],
        tests=[
            AmountOut(
                quantity=t.quantity,
                on=t.on,
                low=t.span.low,
                high=t.span.high,
                typed="",
                unit=QUANTITIES[t.quantity].unit,
            )
            for t in sorted(w.tests.values(), key=lambda t: list(QUANTITIES).index(t.quantity))
        ],
        unknown=[k.agent for k in kind_findings(w.known, STRICTEST, w.ec25_uS_cm or 0.0) if k.state == "unknown"],
        treatments=_treatments(session, w),
        report_id=w.report.id if w.report else None,
        report_on=w.report.on if w.report else None,
        watch=watch,
        amounts=amounts if w.measured or verdicts == [] else w.usual.result.sentence,
        kind_line=watch.sentences[0] if watch.too_old else kind_line,
    )


def _treatments(session: Session, w: WaterToday) -> list[TreatmentOut]:
    force = {(s.on, s.kind) for s in w.steps}
    return [
        TreatmentOut(
            id=t.id,
            on=t.on,
            kind=t.kind,
            in_force=(t.on, t.kind) in force,
            note=t.note,
            effect=treatment_effect(before_uS_cm=t.before_uS_cm, after_uS_cm=t.after_uS_cm).result
            if t.before_uS_cm and t.after_uS_cm is not None
            else None,
        )
        for t in newest_treatments(session, w.water.id)
    ]


class WaterIn(Model):
    """A source and what is known of it. Empty: not measured."""

    name: str
    kind: WaterKind
    preference: int = 100
    price_per_L: TypedOrNone = None
    on_hand_L: TypedOrNone = None
    capacity_L: TypedOrNone = None
    collected_on: date | None = None
    disinfectant: Disinfectant = "unknown"
    free_chlorine_mg_L: TypedOrNone = None
    sodium_mg_L: TypedOrNone = None
    fluoride_mg_L: TypedOrNone = None
    hardness_mg_L_CaCO3: TypedOrNone = None
    alkalinity_mg_L_CaCO3: TypedOrNone = None


class WaterChange(WaterIn):
    """A source as it is to be; ``seen``: as it was when the form was opened."""

    seen: WaterIn | None = None


_LIMITS = (
    ("price_per_L", "Price per litre", "", 10_000),
    ("on_hand_L", "Litres on hand", "L", 1_000_000),
    ("capacity_L", "Capacity", "L", 1_000_000),
    ("free_chlorine_mg_L", "Free chlorine", "mg/L", 20),
    ("sodium_mg_L", "Sodium", "mg/L", 10_000),
    ("fluoride_mg_L", "Fluoride", "mg/L", 100),
    ("hardness_mg_L_CaCO3", "Hardness", "mg/L", 5000),
    ("alkalinity_mg_L_CaCO3", "Alkalinity", "mg/L", 5000),
)


def _check(body: WaterIn, today: date) -> None:
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the source, for example “Rain cistern”.", pointer="/name")
    for key, words, unit, high in _LIMITS:
        value = getattr(body, key)
        if value is not None:
            require(value, words, unit, low=0, high=high, pointer=f"/{key}")
    if body.collected_on is not None:
        require_not_future(body.collected_on, today, "Collection day", pointer="/collected_on")
    if body.on_hand_L is not None and body.capacity_L is not None:
        require(
            body.on_hand_L,
            "Litres on hand",
            "L",
            low=0,
            high=body.capacity_L,
            pointer="/on_hand_L",
            hint="That is more than its capacity.",
        )


@router.post("/waters", status_code=201)
def add_water(body: WaterIn, writer: OneWrite, today: Today) -> Stored:
    """Add a source."""
    _check(body, today)

    def write(session: Session) -> dict[str, Any]:
        row = models.Water(**body.model_dump(), on_hand_on=None if body.on_hand_L is None else today)
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.get("/waters/{water_id}")
def get_water(water_id: int, session: ReadSession, today: Today) -> WaterIn:
    """A source as it was typed, to change it; the litres are those that are left."""
    row = get_row(session, models.Water, water_id, "Water")
    typed = {name: getattr(row, name) for name in WaterIn.model_fields}
    return WaterIn(**typed | {"on_hand_L": left_L(session, row, today)})


@router.put("/waters/{water_id}")
def change_water(water_id: int, body: WaterChange, writer: OneWrite, today: Today) -> Stored:
    """Change a source; what it said before is kept."""
    _check(body, today)

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Water, water_id, "Water")
        new = kept_of_both(body.seen, get_water(water_id, session, today), body)
        _check(new, today)
        names = list(WaterIn.model_fields)
        before = plain_row(row, names)
        enter_litres(session, row, new.on_hand_L, today)
        for name in names:
            if name != "on_hand_L":
                setattr(row, name, getattr(new, name))
        session.add(
            models.Correction(table_name="water", row_id=row.id, at=now(), before=before, after=plain_row(row, names))
        )
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class TreatmentIn(Model):
    """A step done to a water, read before and after if it was."""

    on: date
    kind: Treatment
    before: TypedOrNone = None
    after: TypedOrNone = None
    note: str = ""


@router.post("/waters/{water_id}/treatments", status_code=201)
def add_treatment(water_id: int, body: TreatmentIn, writer: OneWrite, today: Today) -> Stored:
    """Note a treatment. Before and after are EC at 25 °C, µS/cm."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if (body.before is None) != (body.after is None):
        missing = "before" if body.before is None else "after"
        raise Underspecified(f"Reading {missing} is missing. Enter both, or neither.", pointer=f"/{missing}")
    if body.before is not None and body.after is not None:
        treatment_effect(before_uS_cm=body.before, after_uS_cm=body.after)

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Water, water_id, "Water")
        row = models.Treatment(
            water_id=water_id,
            on=body.on,
            kind=body.kind,
            before_uS_cm=body.before,
            after_uS_cm=body.after,
            note=body.note,
        )
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.get("/treatments/{treatment_id}/effect")
def treatment_working(treatment_id: int, session: ReadSession) -> Computed[TreatmentEffect]:
    """What a treatment removed, with its working."""
    row = get_row(session, models.Treatment, treatment_id, "Treatment")
    if row.before_uS_cm is None or row.after_uS_cm is None:
        raise Underspecified("This step was not read before and after.")
    return treatment_effect(before_uS_cm=row.before_uS_cm, after_uS_cm=row.after_uS_cm)


@router.get("/waters/{water_id}/verdict/{profile_id}")
def verdict_working(water_id: int, profile_id: str, session: ReadSession, today: Today) -> Computed[WaterVerdict]:
    """One verdict with its working; any plant group may be asked, present or not."""
    return water_of(session, today, water_id).verdict(needs_of(profile_in_force(session, profile_id)))


@router.get("/waters/{water_id}/usual")
def usual_working(water_id: int, session: ReadSession, today: Today) -> Computed[UsualWater]:
    """What a source usually reads, by what is known of it, with its working."""
    return water_of(session, today, water_id).usual
