"""The Mix station: what it offers, a can worked out as it is named, recipes with their versions."""

from __future__ import annotations

from datetime import date
from functools import lru_cache
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.mix.asked import Asked, DoseIn, ceilings_of
from fenwa.api.mix.recipes import keep_version
from fenwa.api.mix.shown import BatchOut, ProductOut, VesselOut, newest_cans_out, product_out, vessel_out
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, as_json
from fenwa.api.ways import Ways
from fenwa.core.errors import DomainError, Underspecified
from fenwa.core.mix.acidity import Tendency, acid_base_tendency
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.bench import BenchStep, bench_list
from fenwa.core.mix.calcium import CalciumLift, calcium_lift, lifts_calcium
from fenwa.core.mix.can import FIRST_CAN_L, litres_for
from fenwa.core.mix.clear import Clarity, precipitation_check
from fenwa.core.mix.cost import CostAndStock, cost_and_stock
from fenwa.core.mix.feed import Feed, ProductSlope, elements_of
from fenwa.core.mix.headroom import Headroom, headroom, strictest
from fenwa.core.mix.label import density_of
from fenwa.core.mix.recipe import own_name
from fenwa.core.mix.school import School
from fenwa.core.mix.spoon import in_measures
from fenwa.core.mix.strength import FIRST_ELEMENT, FIRST_N_mg_L, StrengthMode, ambiguity_of
from fenwa.core.water.kinds import WaterKind, composition_of, is_thin
from fenwa.core.water.usual import UsualWater
from fenwa.core.working import Computed
from fenwa.store.collection import pots_today
from fenwa.store.memory import remembered
from fenwa.store.mix_rows import newest_recipes
from fenwa.store.mix_state import (
    first_feed,
    label_of,
    left_of,
    measures_of,
    open_products,
    schools_in_force,
    vessels_of,
)
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import usual_water_id
from fenwa.store.water_rows import water_names
from fenwa.store.water_state import waters_today

router = Ways(prefix="/api", tags=["mix"])


class MixWater(Model):
    """A base water; null EC: nobody measured it, and ``usual`` says what such a water reads."""

    id: int
    name: str
    kind: WaterKind
    ec25_uS_cm: float | None
    usual: UsualWater | None
    read_on: date | None


class MixPot(Model):
    """A pot that could be fed."""

    id: int
    code: str
    name: str
    volume_L: float
    phase: str
    feed_ceiling_uS_cm: float | None
    feeds_at_root: bool
    held: str


class RecipeOut(Model):
    """A recipe's newest version, to be mixed again."""

    id: int
    name: str
    version: int
    made_on: date
    product_id: int
    strength: str
    element: str
    value: float
    also: list[dict[str, Any]]
    route: str
    school_id: str | None
    named: bool


class ForPotsIn(Model):
    """Pots chosen for a can."""

    pot_ids: list[int]


class ForPots(Model):
    """A can for them: litres, the same that a round would mix, and the pot that takes the weakest feed. [L, µS/cm]"""

    volume_L: float
    strictest: str
    ceiling_uS_cm: float | None


class Start(Model):
    """A can before anything is chosen. [L]"""

    strength: StrengthMode
    value: float
    element: str
    volume_L: float
    water_id: int | None


class SchoolOut(Model):
    """A school with its figures, and whether they are the grower's own."""

    school: School
    edited: bool
    copy_id: int | None


class MixPage(Model):
    """All the Mix station offers."""

    today: date
    usual_product_id: int | None
    start: Start
    products: list[ProductOut]
    waters: list[MixWater]
    pots: list[MixPot]
    batches: list[BatchOut]
    recipes: list[RecipeOut]
    vessels: list[VesselOut]
    schools: list[SchoolOut]


@router.get("/mix", response_model=MixPage)
def mix_page(session: ReadSession, today: Today) -> Response:
    """Feeds, waters, pots, recipes and the last cans."""
    usual = first_feed(session)
    page = MixPage(
        today=today,
        usual_product_id=usual.id if usual else None,
        start=Start(
            strength="nitrogen",
            value=FIRST_N_mg_L,
            element=FIRST_ELEMENT,
            volume_L=FIRST_CAN_L,
            water_id=usual_water_id(session, today),
        ),
        products=remembered(session, "feeds to show", None, lambda s: [product_out(p) for p in open_products(s)]),
        waters=[
            MixWater(
                id=w.water.id,
                name=w.water.name,
                kind=w.water.kind,
                ec25_uS_cm=w.ec25_uS_cm,
                usual=None if w.measured else w.usual.result,
                read_on=w.reading.on if w.reading else None,
            )
            for w in waters_today(session, today)
        ],
        pots=[_mix_pot(p) for p in pots_today(session, today)],
        batches=newest_cans_out(session, today, 12),
        recipes=_recipes(session),
        vessels=[vessel_out(v) for v in vessels_of(session)],
        schools=[SchoolOut(school=s.school, edited=s.edited, copy_id=s.copy_id) for s in schools_in_force(session)],
    )
    return as_json(page)


@router.post("/mix/pots")
def for_pots(body: ForPotsIn, session: ReadSession, today: Today) -> ForPots:
    """How large a can for these pots is, and which of them limits its strength."""
    pots = pots_today(session, today, set(body.pot_ids))
    weakest = strictest(ceilings_of(pots))
    return ForPots(
        volume_L=litres_for(p.volume_L for p in pots),
        strictest=weakest.name if weakest else "",
        ceiling_uS_cm=weakest.ceiling_uS_cm if weakest else None,
    )


@lru_cache(maxsize=8192)
def _mix_pot(p: PotToday) -> MixPot:
    held = next((h.reason for h in p.holds if "feed" in h.blocks and not h.standing and not h.word), "")
    return MixPot(
        id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        volume_L=p.volume_L,
        feeds_at_root=p.feeds_at_root,
        phase=p.phase,
        feed_ceiling_uS_cm=p.feed_ceiling_uS_cm,
        held=held,
    )


def _recipes(session: Session) -> list[RecipeOut]:
    return [
        RecipeOut(
            id=r.id,
            name=r.name,
            version=v.version,
            made_on=v.made_on,
            product_id=v.product_id,
            strength=v.strength,
            element=v.element,
            value=v.value,
            also=v.also,
            route=v.route,
            school_id=v.school_id,
            named=r.name != own_name(v.label["name"], v.strength),
        )
        for r, v in newest_recipes(session)
    ]


class MixAnswer(Model):
    """Everything the station shows of a can, each number with its working."""

    dose: Computed[Dose]
    echo: str
    headroom: Computed[Headroom] | None
    headroom_refusal: str
    clear: Computed[Clarity]
    tendency: Computed[Tendency]
    calcium: Computed[CalciumLift] | None
    supplement_id: int | None
    cost: Computed[CostAndStock]
    cost_unit: str
    slope: Computed[ProductSlope] | None
    bench: list[BenchStep]
    measures: list[str]


@router.post("/mix/preview", response_model=MixAnswer)
def preview(body: DoseIn, session: ReadSession, today: Today) -> Response:
    """The whole screen for a can, before anything is stored."""
    asked = Asked(session, body, today)
    computed, echo, _ = asked.work_out()
    made = computed.result
    feeds = [Feed(asked.label, made.dose_g_L), *asked.also]
    clear = precipitation_check(base=asked.base, feeds=feeds)
    ions = composition_of(asked.base)[0]
    known = asked.base.ions is not None or is_thin(asked.base.kind)
    room, refusal = _headroom(asked)
    lift, supplement_id = _calcium(session, made, known, {body.product_id, *(a.product_id for a in body.also)})
    answer = MixAnswer(
        dose=computed,
        echo=echo or (ambiguity_of(made.fraction) if body.strength == "fraction" else ""),
        headroom=room,
        headroom_refusal=refusal,
        clear=clear,
        tendency=acid_base_tendency(feeds=feeds, alkalinity_mg_L_CaCO3=ions.alkalinity_mg_L_CaCO3 if known else None),
        calcium=lift,
        supplement_id=supplement_id,
        cost=_cost(session, asked, made, today),
        cost_unit="mL" if asked.label.form == "liquid" else "g",
        slope=asked.slope,
        bench=list(
            bench_list(
                made,
                asked.volume_L,
                _waters(session, body, asked),
                clear.result.order,
                [elements_of(f.label) for f in feeds],
            )
        ),
        measures=_in_measures(session, asked, made),
    )
    return as_json(answer)


@router.post("/mix/dose")
def preview_dose(body: DoseIn, session: ReadSession, today: Today) -> Computed[Dose]:
    """What to weigh, alone."""
    return Asked(session, body, today).work_out()[0]


def _headroom(asked: Asked) -> tuple[Computed[Headroom] | None, str]:
    limited = ceilings_of(asked.pots)
    if not limited:
        return None, ""
    try:
        return headroom(
            label=asked.label,
            base=asked.base,
            pots=limited,
            also=asked.also,
            slope=asked.slope.result if asked.slope else None,
        ), ""
    except DomainError as refused:
        return None, refused.detail


def _calcium(
    session: Session, made: Dose, known: bool, used: set[int | None]
) -> tuple[Computed[CalciumLift] | None, int | None]:
    """The first calcium product of the shelf that is not in the can and brings no phosphorus."""
    level = next(e for e in made.elements if e.name == "Calcium")
    for row in open_products(session):
        label = label_of(row)
        if row.id not in used and lifts_calcium(label):
            return calcium_lift(
                calcium_mg_L=level.from_feed_mg_L + (level.from_water_mg_L or 0.0),
                nitrogen_mg_L=made.nitrogen_mg_L,
                supplement=label,
                water_known=known,
            ), row.id
    return None, None


def _cost(session: Session, asked: Asked, made: Dose, today: date) -> Computed[CostAndStock]:
    plan = sum(p.day.feed_L_month for p in pots_today(session, today))
    liquid = asked.label.form == "liquid"
    per_L = made.dose_g_L / density_of(asked.label) if liquid else made.dose_g_L
    return cost_and_stock(
        dose_per_L=per_L,
        litres_per_month=plan,
        today=today,
        unit="mL" if liquid else "g",
        price=asked.product.price,
        pack_amount=asked.product.pack_amount,
        left=left_of(session, asked.product),
    )


def _waters(session: Session, body: DoseIn, asked: Asked) -> list[tuple[str, float]]:
    if not body.blend:
        return [(asked.base.name, 1.0)]
    names = water_names(session)
    whole = sum(part.share for part in body.blend)
    return [(names[part.water_id], part.share / whole) for part in body.blend if part.share > 0]


def _in_measures(session: Session, asked: Asked, made: Dose) -> list[str]:
    first = made.parts[0]
    amount_g = first.amount if first.unit == "g" else first.amount * density_of(asked.label)
    said = []
    for m in measures_of(session, asked.product.id):
        amount = amount_g if m.unit == "g" else first.amount
        found = in_measures(m.name, amount, m.unit, m.each, m.cv, m.mean_error_pct)
        if found is not None:
            said.append(found.sentence)
    return said


class RecipeIn(DoseIn):
    """A can to be kept under a name."""

    name: str


@router.post("/recipes", status_code=201)
def keep_recipe(body: RecipeIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a can as a recipe; under a name that is known it becomes that recipe's next version."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the recipe.", pointer="/name")

    def write(session: Session) -> dict[str, Any]:
        asked = Asked(session, body, today)
        _, _, value = asked.work_out()
        return {"id": keep_version(session, asked, value, today, body.name.strip()).recipe_id}

    return Stored(**writer.once(body, write))
