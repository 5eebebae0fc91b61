"""Tools of the Mix station: fit, compare, stock, injector, mist bottle, names of a strength, schools."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.edits import kept_of_both
from fenwa.api.house.choices import read_settings
from fenwa.api.mix.asked import AlsoIn, Asked, DoseIn, VolumeUnit, feeds_of, litres, water_base
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.errors import NotFound, Underspecified
from fenwa.core.mix.clear import Clarity, precipitation_check
from fenwa.core.mix.compare import Basis, Comparison, compare_feeds
from fenwa.core.mix.cost import price_per_unit
from fenwa.core.mix.dilution import Injector, Meaning, SerialDilution, injector, serial_dilution
from fenwa.core.mix.feed import Feed
from fenwa.core.mix.fit import Fit, recipe_fit
from fenwa.core.mix.fit_search import FitTarget
from fenwa.core.mix.headroom import Equivalents, strength_equivalents
from fenwa.core.mix.label import density_of
from fenwa.core.mix.school import FeedRoute, SchoolLoad, SchoolPot, Season, pot_for_school, school_load
from fenwa.core.mix.stock import StockSolution, stock_solution
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.collection import pots_today
from fenwa.store.mix_rows import newest_bottles
from fenwa.store.mix_state import label_of, schools_in_force
from fenwa.store.summary import touch_all

router = Ways(prefix="/api/mix", tags=["mix tools"])


def _price_per_g(row: models.Product) -> float | None:
    each = price_per_unit(row.price, row.pack_amount)
    label = label_of(row)
    return each / density_of(label) if each is not None and label.form == "liquid" else each


@router.post("/names")
def names(body: DoseIn, session: ReadSession, today: Today) -> Computed[Equivalents]:
    """One strength under all its names."""
    asked = Asked(session, body, today)
    return strength_equivalents(
        label=asked.label, base=asked.base, strength=body.strength, value=body.value, element=body.element
    )


class FitTargetIn(Model):
    """An element and what is wanted of it; empty: does not matter. [mg/L]"""

    element: str
    mg_L: TypedOrNone = None


class FitIn(Model):
    """Products, targets and bounds of a fit."""

    water_id: int
    product_ids: list[int]
    targets: list[FitTargetIn]
    volume: Typed
    volume_unit: VolumeUnit = "L"
    nitrate_share_pct: TypedOrNone = None
    ec_cap: TypedOrNone = None
    cost_max: TypedOrNone = None


@router.post("/fit")
def fit(body: FitIn, session: ReadSession, today: Today) -> Computed[Fit]:
    """Products to targets, rounded to the scale; nothing is stored."""
    rows = [get_row(session, models.Product, i, "Feed", "/product_ids") for i in body.product_ids]
    settings = read_settings(session)
    return recipe_fit(
        base=water_base(session, body.water_id, today),
        products=[label_of(r) for r in rows],
        targets=[FitTarget(t.element, t.mg_L) for t in body.targets if t.mg_L is not None],
        volume_L=litres(body.volume, body.volume_unit),
        scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
        nitrate_share_min=None if body.nitrate_share_pct is None else body.nitrate_share_pct / 100,
        ec_cap_uS_cm=body.ec_cap,
        cost_max_per_L=body.cost_max,
        prices_per_g=[_price_per_g(r) for r in rows],
    )


class CompareIn(Model):
    """Two feeds and what is held equal."""

    water_id: int
    first_id: int
    second_id: int
    basis: Basis = "nitrogen"
    value: Typed


@router.post("/compare")
def compare(body: CompareIn, session: ReadSession, today: Today) -> Computed[Comparison]:
    """Two products side by side."""
    a = get_row(session, models.Product, body.first_id, "Feed", "/first_id")
    b = get_row(session, models.Product, body.second_id, "Feed", "/second_id")
    return compare_feeds(
        first=label_of(a),
        second=label_of(b),
        base=water_base(session, body.water_id, today),
        basis=body.basis,
        value=body.value,
        first_price_per_g=_price_per_g(a),
        second_price_per_g=_price_per_g(b),
    )


class StockIn(Model):
    """Products at their doses in the can, to be kept as a stock. [g/L, mL]"""

    water_id: int
    feeds: list[AlsoIn]
    volume: Typed = 2.0
    volume_unit: VolumeUnit = "L"
    bottle_mL: TypedOrNone = None
    draw_mL_per_L: TypedOrNone = None
    storage_C: Typed = 10.0


class StockAnswer(Model):
    """The bottles, and whether they stay clear at that strength."""

    stock: Computed[StockSolution]
    clear: Computed[Clarity]


def _stock(session: Session, body: StockIn, today: date) -> tuple[Computed[StockSolution], list[Feed]]:
    settings, feeds = read_settings(session), feeds_of(session, body.feeds)
    made = stock_solution(
        feeds=feeds,
        volume_L=litres(body.volume, body.volume_unit),
        base=water_base(session, body.water_id, today),
        scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
        bottle_mL=body.bottle_mL,
        draw_mL_per_L=body.draw_mL_per_L,
        storage_C=body.storage_C,
        made_on=today,
    )
    return made, feeds


@router.post("/stock")
def stock(body: StockIn, session: ReadSession, today: Today) -> StockAnswer:
    """A stock in one bottle, or in A and B; nothing is stored."""
    made, feeds = _stock(session, body, today)
    clear = precipitation_check(
        base=water_base(session, body.water_id, today),
        feeds=feeds,
        times=1000 / made.result.draw_mL_per_L,
        storage_C=body.storage_C,
    )
    return StockAnswer(stock=made, clear=clear)


class ClearIn(Model):
    """Products at their doses, how many times stronger they are to stand. [g/L]"""

    water_id: int
    feeds: list[AlsoIn]
    times: Typed = 1.0
    storage_C: Typed = 10.0


@router.post("/clear")
def clear(body: ClearIn, session: ReadSession, today: Today) -> Computed[Clarity]:
    """Whether products stay clear together."""
    return precipitation_check(
        base=water_base(session, body.water_id, today),
        feeds=feeds_of(session, body.feeds),
        times=body.times,
        storage_C=body.storage_C,
    )


class BottleOut(Model):
    """A stock bottle as its label says it."""

    id: int
    made_on: date
    name: str
    letter: str
    contents: list[dict[str, Any]]
    volume_mL: float
    draw_mL_per_L: float
    dilution: str
    hazard: str
    use_by: date | None


def _bottle_out(row: models.StockBottle) -> BottleOut:
    return BottleOut(**{name: getattr(row, name) for name in BottleOut.model_fields})


@router.post("/bottles", status_code=201)
def keep_bottles(body: StockIn, writer: OneWrite, today: Today) -> Stored:
    """Keep the bottles of a stock that was made, for their labels and dates."""

    def write(session: Session) -> dict[str, Any]:
        computed, _ = _stock(session, body, today)
        made = computed.result
        last = 0
        for bottle in made.bottles:
            row = models.StockBottle(
                made_on=today,
                name=", ".join(c.name for c in bottle.contents),
                letter=bottle.letter,
                contents=[asdict(c) for c in bottle.contents],
                volume_mL=bottle.volume_mL,
                draw_mL_per_L=made.draw_mL_per_L,
                dilution=made.dilution,
                hazard=bottle.hazard,
                use_by=made.use_by,
                working=asdict(computed.working),
            )
            session.add(row)
            session.flush()
            last = row.id
        return {"id": last}

    return Stored(**writer.once(body, write))


@router.get("/bottles")
def bottles(session: ReadSession) -> list[BottleOut]:
    """Stock bottles kept, newest first."""
    return [_bottle_out(r) for r in newest_bottles(session)]


class InjectorIn(Model):
    """Products at their doses in the feed, and the injector's ratio."""

    water_id: int
    feeds: list[AlsoIn]
    ratio: Typed = 100.0
    meaning: Meaning = "1 in n"
    tank_L: Typed = 5.0
    storage_C: Typed = 10.0


@router.post("/injector")
def injector_stock(body: InjectorIn, session: ReadSession, today: Today) -> Computed[Injector]:
    """Stock for an injector."""
    return injector(
        base=water_base(session, body.water_id, today),
        feeds=feeds_of(session, body.feeds),
        ratio=body.ratio,
        meaning=body.meaning,
        tank_L=body.tank_L,
        storage_C=body.storage_C,
    )


class SerialIn(Model):
    """From a stock to a mist bottle. [g/L, mg/L, mL]"""

    stock_g_L: Typed
    target_mg_L: Typed
    final_mL: Typed = 500.0


@router.post("/serial")
def serial(body: SerialIn, session: ReadSession) -> Computed[SerialDilution]:
    """Steps from a strong stock to a thin bottle."""
    return serial_dilution(
        stock_g_L=body.stock_g_L,
        target_mg_L=body.target_mg_L,
        final_mL=body.final_mL,
        syringe_step_mL=read_settings(session).syringe_step_mL,
    )


class SchoolFigures(Model):
    """Figures of a school that may be edited."""

    name: str
    n_mg_L: Typed
    n_low_mg_L: Typed
    n_high_mg_L: Typed
    cycle: int
    feeds: int
    plain_times: Typed = 1.0
    route: FeedRoute = "root"
    season: Season = "any"
    label_share: TypedOrNone = None
    prill_g_L: Typed = 0.0
    prill_n_pct: Typed = 0.0
    prill_days: Typed = 180.0
    spray_mL: TypedOrNone = None
    when: str = ""


class SchoolChange(SchoolFigures):
    """A school as it is to be; ``seen``: as it was when the form was opened."""

    seen: SchoolFigures | None = None


class SchoolsIn(Model):
    """Schools to hold side by side on a pot and a water; no pot: a litre of medium bark."""

    school_ids: list[str]
    pot_id: int | None = None
    water_id: int | None = None


class SchoolAnswer(Model):
    """What one school brings."""

    id: str
    load: Computed[SchoolLoad]


def _school_pot(session: Session, pot_id: int | None, today: date) -> SchoolPot:
    if pot_id is None:
        return SchoolPot()
    found = pots_today(session, today, {pot_id})
    if not found:
        raise NotFound(f"Pot {pot_id} is not there. It may have been archived.", pointer="/pot_id")
    p = found[0]
    return pot_for_school(p.spec, p.volume_L, p.interval.days)


@router.post("/schools/load")
def loads(body: SchoolsIn, session: ReadSession, today: Today) -> list[SchoolAnswer]:
    """Weekly nitrogen and steady root zone of schools on one pot."""
    known = {s.school.id: s.school for s in schools_in_force(session)}
    pot = _school_pot(session, body.pot_id, today)
    water = water_base(session, body.water_id, today).ec25_uS_cm if body.water_id is not None else 60.0
    missing = [i for i in body.school_ids if i not in known]
    if missing:
        raise NotFound(f"There is no school “{missing[0]}”. Choose one of the list.", pointer="/school_ids")
    return [SchoolAnswer(id=i, load=school_load(school=known[i], pot=pot, water_uS_cm=water)) for i in body.school_ids]


@router.put("/schools/{school_id}")
def edit_school(school_id: str, body: SchoolChange, writer: OneWrite) -> Stored:
    """Keep one's own figures of a school, or a school of one's own; the shipped one stays beneath."""
    if not body.name.strip():
        raise Underspecified("Name is empty. Name the school.", pointer="/name")

    def write(session: Session) -> dict[str, Any]:
        stands = next((s.school for s in schools_in_force(session) if s.school.id == school_id), None)
        new = SchoolFigures.model_validate({name: getattr(body, name) for name in SchoolFigures.model_fields})
        if stands is not None:
            kept = {name: getattr(stands, name) for name in SchoolFigures.model_fields}
            new = kept_of_both(body.seen, SchoolFigures.model_validate(kept), body)
        figures = new.model_dump()
        name = figures.pop("name").strip()
        row = models.SchoolCopy(school_id=school_id, name=name, figures=figures)
        session.add(row)
        touch_all(session)
        session.flush()
        edited = next(s.school for s in schools_in_force(session) if s.school.id == school_id)
        school_load(school=edited, pot=SchoolPot())  # refuses figures that cannot be
        return {"id": row.id}

    return Stored(**writer.once(body, write))
