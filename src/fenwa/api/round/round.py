"""Today's round, and the live figures of the stations."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from heapq import nlargest
from operator import attrgetter
from typing import Annotated

from fastapi import Query, Response

from fenwa.api.house.choices import read_settings
from fenwa.api.in_steps import as_json_in_steps
from fenwa.api.model import Model
from fenwa.api.pots.shown import PotRow, pot_row
from fenwa.api.round.planned import ErrandOut, errand_outs
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.api.windowed import MOST
from fenwa.core.care.due import job_of
from fenwa.core.care.round import round_plan
from fenwa.core.care.round_parts import Can, PotToCheck, RoundPlan
from fenwa.core.errors import InputError
from fenwa.core.working import Working
from fenwa.store.collection import pots_today
from fenwa.store.errand_state import errands_due
from fenwa.store.mix_rows import newest_fed_can, products_on_shelf
from fenwa.store.mix_state import round_feeds
from fenwa.store.round_state import at_hand, round_pots
from fenwa.store.session import look_ahead
from fenwa.store.water_state import WaterToday

router = Ways(prefix="/api", tags=["round"])

MAX_AHEAD_DAYS = 60
RAILS = 6  # of the saltiest pots


class Left(Model):
    """How many of each list were not sent."""

    cans: int = 0
    looks: int = 0
    jobs: int = 0
    pots: dict[str, int] = {}
    """Of a can, by its letter."""


class RoundPage(Model):
    """A day's work with the salt rails beside it."""

    today: date
    plan: RoundPlan
    working: Working
    jobs: list[ErrandOut]
    salt: list[PotRow]
    left: Left = Left()


class StationOut(Model):
    """A station of the channel with its live figure and the conductivity there."""

    key: str
    figure: str
    ec_uS_cm: float | None


Rows = Annotated[
    int | None,
    Query(ge=1, le=MOST, description="Rows of each list sent at most; all unless said."),
]


@router.get("/round", response_model=RoundPage)
def round_page(session: ReadSession, today: Today, on: date | None = None, rows: Rows = None) -> Response:
    """What is due today, or on a day ahead if nothing is poured before it, grouped into cans."""
    if on is not None and not today <= on <= today + timedelta(days=MAX_AHEAD_DAYS):
        raise InputError(
            f"Day {on} is not today or within {MAX_AHEAD_DAYS} days after it. Choose a nearer day.", pointer="/on"
        )
    if on is not None and on != today:
        look_ahead(session, on)
        today = on
    pots, waters = pots_today(session, today), at_hand(session, today)
    settings = read_settings(session)
    computed = round_plan(
        pots=waters.round_pots(pots),
        waters=waters.round_waters,
        feeds=round_feeds(session),
        today=today,
        scale_step_g=settings.scale_step_g,
        syringe_step_mL=settings.syringe_step_mL,
    )
    saltiest = [p for p in nlargest(RAILS, pots, key=attrgetter("salt_share")) if p.salt_share >= 0]
    jobs = errands_due(session, pots, today, today)
    plan, left = (computed.result, Left()) if rows is None else _first_rows(computed.result, len(jobs), rows)
    page = RoundPage(
        today=today,
        plan=replace(plan, cans=(), looks=()),
        working=computed.working,
        jobs=[],
        salt=[pot_row(p) for p in saltiest],
        left=left,
    )
    jobs_shown = errand_outs(jobs[:rows], today)
    return as_json_in_steps(
        page, {"cans": (Can, plan.cans), "looks": (PotToCheck, plan.looks), "jobs": (ErrandOut, jobs_shown)}
    )


def _first_rows(plan: RoundPlan, jobs: int, rows: int) -> tuple[RoundPlan, Left]:
    """What a screen shows at first of a long round. A walk names pots of every can: it is sent with all of them."""
    cans = tuple(replace(c, pots=c.pots[:rows]) if len(c.pots) > rows else c for c in plan.cans[:rows])
    left = Left(
        cans=max(0, len(plan.cans) - rows),
        looks=max(0, len(plan.looks) - rows),
        jobs=max(0, jobs - rows),
        pots={c.letter: len(c.pots) - rows for c in plan.cans[:rows] if len(c.pots) > rows},
    )
    whole = not (left.cans or left.pots)
    return replace(plan, cans=cans, looks=plan.looks[:rows], legs=plan.legs if whole else ()), left


@router.get("/stations")
def stations(session: ReadSession, today: Today) -> list[StationOut]:
    """The channel: each station's live figure."""
    due, pots, waters = round_pots(session, today)
    jobs = [job_of(p, today) for p in due]
    flushes = [p for p, job in zip(pots, jobs, strict=True) if job == "flush"]
    can = newest_fed_can(session, today)
    mixed = None if can is None else can.ec_uS_cm
    readings = sorted(p.reading for p in pots if p.reading is not None)
    middle = readings[len(readings) // 2] if readings else None
    worst = max((p.reading or 0 for p in flushes), default=readings[-1] if readings else None)
    unlooked = sum(p.look_is_due for p in pots)
    products = products_on_shelf(session)
    first = waters[0] if waters else None
    n = sum(job is not None for job in jobs)
    return [
        StationOut(key="round", figure=f"{n} {'pot' if n == 1 else 'pots'} today", ec_uS_cm=None),
        StationOut(
            key="water",
            figure=_water_figure(first) if first else "no water yet",
            ec_uS_cm=first.ec25_uS_cm if first else None,
        ),
        StationOut(
            key="mix", figure=f"{mixed:.0f} µS/cm · last can" if mixed is not None else "no can yet", ec_uS_cm=mixed
        ),
        StationOut(key="pots", figure=f"{len(pots)} pot" if len(pots) == 1 else f"{len(pots)} pots", ec_uS_cm=middle),
        StationOut(key="flush", figure=f"{len(flushes)} due" if flushes else "none due", ec_uS_cm=worst),
        StationOut(key="leaf", figure=f"{unlooked} to look at", ec_uS_cm=middle),
        StationOut(key="shelf", figure=f"{products} {'feed' if products == 1 else 'feeds'}", ec_uS_cm=None),
    ]


def _water_figure(w: WaterToday) -> str:
    if w.ec25_uS_cm is None:
        return f"not measured · {w.water.name}"
    return f"{w.ec25_uS_cm:.0f} µS/cm · {w.water.name}"
