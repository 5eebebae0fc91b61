"""Feeding plans: made, shown as one sentence, and run ahead on the pots they rule."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from fastapi import Response
from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.edits import replaces
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, as_json, get_row
from fenwa.api.transactions import now as this_moment
from fenwa.api.typed import Said, Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.feed_cans import feed_for
from fenwa.core.care.plan import (
    BloomCue,
    FeedingPlan,
    GrowthCue,
    Outside,
    PlanProduct,
    PlanRoute,
    ProductWhen,
    Rhythm,
    StrengthName,
    checked_plan,
    counted_g_L,
)
from fenwa.core.care.plan_pot import BESIDE, PlanOnPot, on_pot, start_of_school, under
from fenwa.core.care.plan_words import sentence, value_said
from fenwa.core.care.round_parts import RoundFeed
from fenwa.core.care.standing_rules import is_nearer
from fenwa.core.errors import NotFound, Underspecified
from fenwa.core.library.loader import get_profile, profiles
from fenwa.core.mix.label import density_of
from fenwa.core.mix.strength import StrengthMode, read_strength
from fenwa.store import models
from fenwa.store.care_state import PLAN, KeptPlan, kept_plans, plan_as_plain
from fenwa.store.collection import pots_today
from fenwa.store.mix_state import label_of, open_products, round_feeds, schools_in_force
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import touch, touch_all

router = Ways(prefix="/api", tags=["plans"])

PlanScope = Literal["plant", "kind", "group", "place", "all"]
SHOWN_POTS = 3


class PlanProductIn(Model):
    """A product with the time it is for; none: nothing is fed then."""

    when: ProductWhen = ""
    product_id: int | None = None


class PlanIn(Model):
    """A feeding plan as it is entered. Days of the year as MM-DD; empty asks nothing.

    ``key``: pot, kind, group or place; empty for all. ``value``: as typed, "half" and "cut it by 80" too.
    """

    scope: PlanScope = "all"
    key: str = ""
    name: str = Field(default="", max_length=80)
    season_from: str = ""
    season_to: str = ""
    warm_C: TypedOrNone = None
    warm_nights: int = 6
    growth: GrowthCue = ""
    bloom: BloomCue = ""
    reserve_only: bool = False
    lamps_h: TypedOrNone = None
    outside: Outside = "none"
    outside_share: Typed = 0.5
    rhythm: Rhythm = "waterings"
    every_days: Typed = 14.0
    faster_from: str = ""
    faster_to: str = ""
    faster_days: Typed = 7.0
    every_months: int = 1
    cycle: int = 4
    feeds: int = 1
    strength: StrengthName = ""
    value: Said = 0.0
    count: TypedOrNone = None
    measure_id: int | None = None
    count_L: Typed = 1.0
    products: list[PlanProductIn] = []
    route: PlanRoute = ""
    spray_days: Typed = 0.0
    spray_n_mg_L: Typed = 0.0
    spray_mL: Typed = 3.0
    spray_when: str = Field(default="", max_length=80)
    spray_before_dark_min: Typed = 0.0
    beyond: str = Field(default="", max_length=200)


class PlanKept(PlanIn):
    """A plan to keep; ``seen``: the plan in force when its form was opened, 0: there was none."""

    seen: int | None = None


class PlanOut(Model):
    """A plan in force: whose it is, the sentence, and the pots it rules."""

    id: int
    scope: PlanScope
    key: str
    of: str
    plan: FeedingPlan
    value_said: str
    sentence: str
    made_on: date
    codes: list[str]


class PlanStart(Model):
    """A plan to start from, with what speaks for and against it."""

    name: str
    definition: str
    in_favour: str
    against: str
    plan: FeedingPlan
    value_said: str
    sentence: str


class PlanPot(Model):
    """A pot under the plan that is being made; ``rules``: a nearer one does not stand before it."""

    pot_id: int
    code: str
    name: str
    rules: bool
    ruled_by: str
    ahead: PlanOnPot


class PlanPreview(Model):
    """A plan while it is made: its sentence, the echo of its strength, three of its pots, and two other plans."""

    today: date
    of: str
    plan: FeedingPlan
    sentence: str
    echo: str
    pots: list[PlanPot]
    ruled: int
    waiting: list[str]
    feeds_now: int
    feeds_then: int
    beside: list[PlanOnPot]


def _span(first: str, last: str) -> tuple[str, str] | None:
    if not first.strip() and not last.strip():
        return None
    if not first.strip() or not last.strip():
        missing = "season_from" if not first.strip() else "season_to"
        raise Underspecified("One end of the season is empty. Enter both days.", pointer=f"/{missing}")
    return first.strip(), last.strip()


def _strength(session: Session, body: PlanIn) -> tuple[float, str, str]:
    """Strength as a number, how it was counted, and the echo."""
    if not body.strength:
        return 0.0, "", ""
    if body.strength != "count":
        mode: StrengthMode = body.strength
        value, echo = read_strength(mode, body.value)
        return value, "", echo
    if body.count is None or body.measure_id is None:
        raise Underspecified("Count and measure are missing. Say how many of which spoon or dropper.", pointer="/count")
    measure = get_row(session, models.Measure, body.measure_id, "Measure", "/measure_id")
    density = None
    if measure.unit == "mL" and measure.product_id is not None:
        density = density_of(label_of(get_row(session, models.Product, measure.product_id, "Feed")))
    said = f"{body.count:g} × {measure.name} in {body.count_L:g} L"
    return counted_g_L(body.count, measure.each, body.count_L, density), said, ""


def _plan(session: Session, body: PlanIn) -> tuple[FeedingPlan, str]:
    value, counted, echo = _strength(session, body)
    for i, p in enumerate(body.products):
        if p.product_id is not None:
            get_row(session, models.Product, p.product_id, "Feed", f"/products/{i}/product_id")
    same = {k: getattr(body, k) for k in FeedingPlan.__dataclass_fields__ if hasattr(body, k)}
    plan = FeedingPlan(
        **{
            **same,
            "season": _span(body.season_from, body.season_to),
            "faster": _span(body.faster_from, body.faster_to),
            "value": value,
            "counted": counted,
            "products": tuple(PlanProduct(p.when, p.product_id) for p in body.products),
        }
    )
    return checked_plan(plan), echo


def _whose(session: Session, scope: str, key: str) -> str:
    """The words for a scope and its key, or a refusal."""
    if scope == "plant":
        row = get_row(session, models.Pot, int(key) if key.isdigit() else 0, "Pot", "/key")
        return row.code
    if scope == "kind":
        return f"every {get_profile(key).short}"
    if scope == "group":
        if key not in {p.group for p in profiles().values()}:
            raise NotFound(f"There is no group “{key}”. Choose one of the list of kinds.", pointer="/key")
        return f"all of the group {key}"
    if scope == "place":
        return f"all in {get_row(session, models.Place, int(key) if key.isdigit() else 0, 'Place', '/key').name}"
    return "all plants"


def _names(session: Session) -> dict[int, str]:
    return {p.id: p.name for p in open_products(session)}


def _in_scope(p: PotToday, scope: str, key: str) -> bool:
    mine = {
        "plant": str(p.pot.id),
        "kind": p.profile.id,
        "group": p.profile.group,
        "place": str(p.pot.place_id),
        "all": "",
    }
    return mine[scope] == key


def _out(session: Session, row: KeptPlan, pots: list[PotToday]) -> PlanOut:
    ruled = [p.pot.code for p in pots if p.school_by.value == f"{PLAN}{row.scope}" and _in_scope(p, row.scope, row.key)]
    of = _whose(session, row.scope, row.key)
    return PlanOut(
        id=row.id,
        scope=row.scope,
        key=row.key,
        of=of,
        plan=row.plan,
        value_said=value_said(row.plan),
        sentence=sentence(row.plan, of, _names(session)),
        made_on=row.made_on,
        codes=ruled,
    )


@router.get("/plans")
def plans(session: ReadSession, today: Today) -> list[PlanOut]:
    """Feeding plans in force, the nearest scope first."""
    order = ("plant", "kind", "group", "place", "all")
    pots = pots_today(session, today)
    rows = sorted(kept_plans(session), key=lambda r: (order.index(r.scope), r.id))
    return [_out(session, r, pots) for r in rows]


@router.get("/plans/starts")
def plan_starts(session: ReadSession) -> list[PlanStart]:
    """Schools of feeding as plans to start from."""
    out = []
    for s in schools_in_force(session):
        plan = start_of_school(s.school)
        if plan is not None:
            out.append(
                PlanStart(
                    name=s.school.name,
                    definition=s.school.definition,
                    in_favour=s.school.in_favour,
                    against=s.school.against,
                    plan=plan,
                    value_said=value_said(plan),
                    sentence=sentence(plan, "it"),
                )
            )
    return out


@router.post("/plans/preview", response_model=PlanPreview)
def preview_plan(body: PlanIn, session: ReadSession, today: Today) -> Response:
    """What a plan says and gives, before it is kept; nothing is stored."""
    of = _whose(session, body.scope, body.key)
    plan, echo = _plan(session, body)
    feeds, by = round_feeds(session), "own" if body.scope == "plant" else body.scope
    mine = [p for p in pots_today(session, today) if _in_scope(p, body.scope, body.key)]
    nearer = [p for p in mine if is_nearer(p.school_by.by, by)]
    shown, now, then = [], 0, 0
    for p in mine:
        rules = p not in nearer
        day = under(p.day, plan, None, by) if rules else p.day
        found = on_pot(day, feed_for(day.feeding.product_id, feeds))
        if rules:
            now += on_pot(p.day, feed_for(p.day.feeding.product_id, feeds)).feeds
            then += found.feeds
        shown.append(
            PlanPot(pot_id=p.pot.id, code=p.pot.code, name=p.name, rules=rules, ruled_by=p.school_by.says, ahead=found)
        )
    shown.sort(key=lambda p: not p.rules)
    page = PlanPreview(
        today=today,
        of=of,
        plan=plan,
        sentence=sentence(plan, of, _names(session)),
        echo=echo,
        pots=shown[:SHOWN_POTS],
        ruled=len(mine) - len(nearer),
        waiting=[p.pot.code for p in nearer],
        feeds_now=now,
        feeds_then=then,
        beside=_beside(session, mine[0], feeds) if mine else [],
    )
    return as_json(page)


def _beside(session: Session, p: PotToday, feeds: list[RoundFeed]) -> list[PlanOnPot]:
    """The same pot under other schools."""
    known = {s.school.id: s.school for s in schools_in_force(session)}
    others = [known[i] for i in BESIDE if i in known and known[i] is not p.school]
    return [on_pot(under(p.day, None, school), feed_for(None, feeds)) for school in others]


@router.post("/plans", status_code=201)
def keep_plan(body: PlanKept, writer: OneWrite, today: Today) -> Stored:
    """Keep a plan; the one before of the same plant, kind, group or place is archived."""

    def write(session: Session) -> dict[str, Any]:
        of = _whose(session, body.scope, body.key)
        plan, _ = _plan(session, body)
        stands = next((row for row in kept_plans(session) if (row.scope, row.key) == (body.scope, body.key)), None)
        said = sentence(stands.plan, of, _names(session)) if stands else "The plan was taken away."
        replaces(body.seen, stands.id if stands else 0, said)
        if stands is not None:
            session.get_one(models.FeedingPlanRow, stands.id).archived_at = this_moment()
        new = models.FeedingPlanRow(scope=body.scope, key=body.key, plan=plan_as_plain(plan), made_on=today)
        session.add(new)
        session.flush()
        if body.scope == "plant":
            touch(session, int(body.key))
        else:
            touch_all(session)
        return {"id": new.id}

    return Stored(**writer.once(body, write))


class PlanOfPot(Model):
    """What feeds a pot: its plan in a sentence, who set it, the coming weeks, and what other schools would give."""

    sentence: str
    by: str
    scope: str
    plan: FeedingPlan
    ahead: PlanOnPot
    beside: list[PlanOnPot]


@router.get("/pots/{pot_id}/plan", response_model=PlanOfPot)
def plan_of_pot(pot_id: int, session: ReadSession, today: Today) -> Response:
    """The plan that rules a pot and what it gives in the coming weeks."""
    p, feeds = one_pot(session, pot_id, today), round_feeds(session)
    page = PlanOfPot(
        sentence=sentence(p.day.feeding.plan, p.pot.code, _names(session)),
        by=p.school_by.says,
        scope=p.school_by.by,
        plan=p.day.feeding.plan,
        ahead=on_pot(p.day, feed_for(p.day.feeding.product_id, feeds)),
        beside=_beside(session, p, feeds),
    )
    return as_json(page)
