"""Today's round, and the live figures of the stations."""

from __future__ import annotations

from datetime import date, timedelta

from fastapi import APIRouter, Response
from pydantic import BaseModel
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.api.router_pots import PotRow, pot_row
from fenwa.api.router_water import judge
from fenwa.api.settings import read_settings
from fenwa.api.writing import Reading, Today, ready
from fenwa.core.care.coming import Coming, coming_pot, coming_rounds
from fenwa.core.care.day import needs_of
from fenwa.core.care.due import RoundPot, job_of
from fenwa.core.care.errands import Errand, ErrandKind
from fenwa.core.care.round import round_plan
from fenwa.core.care.round_parts import RoundPlan, RoundWater
from fenwa.core.care.round_pot import round_pot
from fenwa.core.errors import InputError
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.core.water.verdict import may_be_given
from fenwa.core.working import Computed, Working
from fenwa.store import models
from fenwa.store.collection import pots_today
from fenwa.store.errand_state import errands_due
from fenwa.store.mix_state import feed_at_hand, label_of, slope_of
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import WaterToday, waters_today

router = APIRouter(prefix="/api", tags=["round"])

MOST_AHEAD_DAYS = 60


class ErrandOut(BaseModel):
    """A job besides water.

    ``late_days`` below zero: not due yet. ``done_here``: a word settles it; else doing it elsewhere does. [d]
    """

    id: str
    kind: ErrandKind
    due_on: date
    late_days: int
    pot_id: int | None
    title: str
    sentence: str
    done_here: bool


def errand_outs(found: list[Errand], today: date) -> list[ErrandOut]:
    """Jobs for a page."""
    return [
        ErrandOut(
            id=e.id,
            kind=e.kind,
            due_on=e.due_on,
            late_days=(today - e.due_on).days,
            pot_id=e.pot_id,
            title=e.title,
            sentence=e.sentence,
            done_here=e.kind not in ("meter check", "water re-test", "repot"),
        )
        for e in found
    ]


def coming_of(pots: list[RoundPot], today: date, days: int) -> Computed[Coming]:
    """Rounds of the coming days."""
    return coming_rounds(pots=[coming_pot(p, today) for p in pots], today=today, days=days)


class RoundPage(BaseModel):
    """A day's work with the salt rails beside it."""

    today: date
    plan: RoundPlan
    working: Working
    feed_product_id: int | None
    feed_product: str
    jobs: list[ErrandOut]
    salt: list[PotRow]


class StationOut(BaseModel):
    """A station of the channel with its live figure and the conductivity there."""

    key: str
    figure: str
    ec_uS_cm: float | None


def drinkable(waters: list[WaterToday], pots: list[PotToday]) -> dict[PlantNeeds, tuple[int, ...]]:
    """For everything the pots present need of water, the waters that may be given, in the grower's order."""
    out = {}
    for needs in {needs_of(p.profile) for p in pots}:
        allowed = []
        for w in waters:
            v = judge(w, needs)
            if v is not None and may_be_given(v.result):
                allowed.append(w.water.id)
        out[needs] = tuple(allowed)
    return out


def round_pots(session: Session, today: date) -> tuple[list[RoundPot], list[PotToday], list[WaterToday]]:
    """Everything the round is planned from."""
    waters = [w for w in waters_today(session, today) if w.ec25_uS_cm is not None]
    pots = pots_today(session, today)
    allowed, ec = drinkable(waters, pots), {w.water.id: w.ec25_uS_cm for w in waters}
    first = {needs: ec[ids[0]] if ids else None for needs, ids in allowed.items()}
    asked = [needs_of(p.profile) for p in pots]
    return [round_pot(p.day, allowed[n], first[n]) for p, n in zip(pots, asked, strict=True)], pots, waters


@router.get("/round", response_model=RoundPage)
def round_page(session: Reading, today: Today, on: date | None = None) -> Response:
    """What is due today, or on a day ahead if nothing is poured before it, grouped into cans."""
    if on is not None and not today <= on <= today + timedelta(days=MOST_AHEAD_DAYS):
        raise InputError(
            f"Day {on} is not today or within {MOST_AHEAD_DAYS} days after it. Choose a nearer day.", pointer="/on"
        )
    if on is not None and on != today:
        session.info.pop("store", None)  # what readers keep is of today
        today = on
    due, pots, waters = round_pots(session, today)
    product, settings = feed_at_hand(session), read_settings(session)
    bases = [RoundWater(w.water.id, w.water.name, b) for w in waters if (b := w.base()) is not None]
    computed = round_plan(
        pots=due,
        waters=bases,
        label=label_of(product) if product else None,
        today=today,
        scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
        slope=slope.result if (slope := slope_of(session, product) if product else None) else None,
    )
    saltiest = sorted(
        (p for p in pots if p.reading is not None),
        key=lambda p: -(p.reading or 0) / p.profile.root_zone.ec_ceiling_uS_cm,
    )
    page = RoundPage(
        today=today,
        plan=computed.result,
        working=computed.working,
        feed_product_id=product.id if product else None,
        feed_product=product.name if product else "",
        jobs=errand_outs(errands_due(session, pots, waters, today, today), today),
        salt=[pot_row(p) for p in saltiest[:6]],
    )
    return ready(page)


@router.get("/stations")
def stations(session: Reading, today: Today) -> list[StationOut]:
    """The channel: each station's live figure."""
    due, pots, waters = round_pots(session, today)
    jobs = [job_of(p, today) for p in due]
    flushes = [p for p, job in zip(pots, jobs, strict=True) if job == "flush"]
    batch = session.scalars(
        select(models.Batch)
        .where(models.Batch.archived_at.is_(None), models.Batch.dose_g_L > 0, models.Batch.made_on <= today)
        .order_by(models.Batch.made_on.desc(), models.Batch.id.desc())
        .limit(1)
    ).first()
    mixed = None if batch is None else (batch.measured_uS_cm or batch.predicted_uS_cm)
    readings = sorted(p.reading for p in pots if p.reading is not None)
    middle = readings[len(readings) // 2] if readings else None
    worst = max((p.reading or 0 for p in flushes), default=readings[-1] if readings else None)
    unlooked = sum(p.look_is_due for p in pots)
    products = session.scalar(select(func.count(models.Product.id)).where(models.Product.archived_at.is_(None))) or 0
    first = waters[0] if waters else None
    n = sum(job is not None for job in jobs)
    return [
        StationOut(key="round", figure=f"{n} {'pot' if n == 1 else 'pots'} today", ec_uS_cm=None),
        StationOut(
            key="water",
            figure=f"{first.ec25_uS_cm:.0f} µS · {first.water.name}" if first else "no reading yet",
            ec_uS_cm=first.ec25_uS_cm if first else None,
        ),
        StationOut(
            key="mix", figure=f"{mixed:.0f} µS · last can" if mixed is not None else "no can yet", ec_uS_cm=mixed
        ),
        StationOut(key="pots", figure=f"{len(pots)} kept", ec_uS_cm=middle),
        StationOut(key="flush", figure=f"{len(flushes)} due" if flushes else "none due", ec_uS_cm=worst),
        StationOut(key="leaf", figure=f"{unlooked} to look at", ec_uS_cm=middle),
        StationOut(key="shelf", figure=f"{products} {'feed' if products == 1 else 'feeds'}", ec_uS_cm=None),
    ]
