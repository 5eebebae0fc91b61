"""Trials: planned before they begin, run through every round, judged by the exact test."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from pydantic import Field, TypeAdapter
from sqlalchemy.orm import Session

from fenwa.api.answers.desk import Desk, desk_of
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.on_trial import TrialFeed
from fenwa.core.entry import require
from fenwa.core.errors import Conflict, InputError, Underspecified
from fenwa.core.evidence.beside import noticed
from fenwa.core.evidence.measures import Measure, facts_of
from fenwa.core.evidence.trial import MOST_LEAF_DAYS, Design, TrialPlan, TrialPlant, trial_plan, unfit_for_trial
from fenwa.core.evidence.trial_answer import (
    Member,
    TrialAnswer,
    TrialPair,
    groups_answer,
    leaves_gained,
    phases_answer,
    trial_answer,
)
from fenwa.core.evidence.windows import LAGS, ChangeKind, window_of
from fenwa.core.leaf.line import UNKNOWN_LEAF_DAYS
from fenwa.core.leaf.sizes import usual_length
from fenwa.core.leaf.timing import plastochron
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import touch_all
from fenwa.store.trial_rows import runs_on, trials_kept

router = Ways(prefix="/api/trials", tags=["answers"])
_PLAN: TypeAdapter[TrialPlan] = TypeAdapter(TrialPlan)


class TrialIn(Model):
    """A question put to plants. Changed plants get ``water_id`` and ``feed``; the others stay as they are.

    ``share``: of the label, where ``feed`` says so. ``seed`` of the coin: the same one tosses the same.
    """

    question: str = Field(max_length=160)
    kind: ChangeKind
    pot_ids: list[int] = Field(max_length=40)
    measure: Measure = "leaf length"
    design: Design = "pairs"
    seed: Typed = 1
    water_id: int | None = None
    feed: TrialFeed = "as planned"
    share: TypedOrNone = None


class TrialPot(Model):
    """A pot as a trial names it."""

    pot_id: int
    code: str
    name: str


class PlannedTrial(Model):
    """A plan with its pots by name; ``sees`` in the measure's unit."""

    plan: Computed[TrialPlan]
    pots: list[TrialPot]
    unit: str
    window_why: str


class TrialRow(Model):
    """A trial in the list."""

    id: int
    question: str
    kind: str
    measure: str
    design: Design
    started_on: date
    ends_on: date
    ended_on: date | None
    running: bool
    pots: int
    can_answer: bool
    grade: str
    sentence: str


class MemberOut(Model):
    """A plant that takes part: what it is given, leaves it gained since the beginning, whether it was left out."""

    pot_id: int
    code: str
    name: str
    changed: bool
    gives: str
    gained: int
    left_out: str


class NoticedOut(Model):
    """Something else that changed since it began; ``one_sided``: on one plant of a pair only."""

    on: date
    codes: list[str]
    words: str
    one_sided: bool


class TrialPage(Model):
    """A trial with its plan, its members, what it says so far, and what else changed."""

    today: date
    row: TrialRow
    plan: TrialPlan
    members: list[MemberOut]
    answer: TrialAnswer
    unit: str
    noticed: list[NoticedOut]
    ended_why: str
    gained: str


def _plants(session: Session, pots: list[PotToday], today: date) -> tuple[list[TrialPlant], float]:
    """The plants with their usual size, and the days between leaves of the slowest."""
    leaves = leaves_of(session, [p.plant.id for p in pots], today)
    rows, slowest = [], 1.0
    for p in pots:
        mine = leaves.get(p.plant.id, [])
        found = plastochron([x.opened_on for x in mine])
        slowest = max(slowest, found[0] if found else UNKNOWN_LEAF_DAYS)
        parent = p.plant.parent_plant_id
        rows.append(
            TrialPlant(
                id=p.pot.id,
                name=f"{p.pot.code} {p.name}",
                kind=p.plant.profile_id,
                size=usual_length(mine, today),
                family=f"division of {parent}" if parent else "",
                unfit=unfit_for_trial(p.phase, p.pot.isolated, p.day.kept.trial),
            )
        )
    return rows, min(MOST_LEAF_DAYS, slowest)


def _planned(session: Session, body: TrialIn, today: date) -> tuple[PlannedTrial, list[PotToday], tuple[int, int]]:
    desk = desk_of(session, today)
    missing = [i for i in body.pot_ids if i not in desk.pots]
    if missing:
        raise InputError(f"Pot {missing[0]} is not there. Choose pots that are kept.", pointer="/pot_ids")
    if not body.pot_ids:
        raise Underspecified(
            "No pot was chosen. Choose two at least, or one for a trial in phases.", pointer="/pot_ids"
        )
    pots = [desk.pots[i] for i in body.pot_ids]
    plants, slowest = _plants(session, pots, today)
    windows = [window_of(body.kind, p.profile.lag_days) for p in pots]
    low, high = max(w.low for w in windows), max(w.high for w in windows)
    computed = trial_plan(
        plants=plants,
        design=body.design,
        seed=int(body.seed),
        starts_on=today,
        lag_low_days=float(low),
        lag_high_days=float(max(1, high)),
        days_between_leaves=slowest,
        measure=body.measure,
        interval_days=max(p.interval.days for p in pots),
    )
    named = [TrialPot(pot_id=p.pot.id, code=p.pot.code, name=p.name) for p in pots]
    unit = facts_of(body.measure).unit
    return PlannedTrial(plan=computed, pots=named, unit=unit, window_why=windows[0].why), pots, (low, max(1, high))


def _checked(session: Session, body: TrialIn) -> float:
    if not body.question.strip():
        raise Underspecified(
            "The question is empty. Say what is tried, for example “rain instead of tap”.", pointer="/question"
        )
    if body.kind not in LAGS:
        raise InputError(f"Change “{body.kind}” is not known.", pointer="/kind")
    if body.water_id is not None:
        get_row(session, models.Water, body.water_id, "Water", pointer="/water_id")
    if body.feed != "share":
        return 1.0
    if body.share is None:
        raise Underspecified("The share of the label is empty. Enter it, for example 0.5.", pointer="/share")
    return require(body.share, "Share of the label", "", low=0, open_low=True, high=1, pointer="/share")


@router.post("/preview")
def preview_trial(body: TrialIn, session: ReadSession, today: Today) -> PlannedTrial:
    """What a trial would be: pairs, coin, looks, and whether it can answer. Nothing is stored."""
    return _planned(session, body, today)[0]


@router.post("", status_code=201)
def begin_trial(body: TrialIn, writer: OneWrite, today: Today) -> Stored:
    """Begin a trial: from now on the round gives each plant what the plan says, and holds everything else."""

    def write(session: Session) -> dict[str, Any]:
        share = _checked(session, body)
        planned, pots, lags = _planned(session, body, today)
        plan = planned.plan.result
        taking = set(plan.changed) | set(plan.unchanged)
        members = [
            {
                "pot_id": p.pot.id,
                "plant_id": p.plant.id,
                "changed": p.pot.id in plan.changed,
                "water_id": body.water_id if p.pot.id in plan.changed else None,
                "feed": body.feed if p.pot.id in plan.changed else "as planned",
                "share": share if p.pot.id in plan.changed else 1.0,
                "left_out": "",
            }
            for p in pots
            if p.pot.id in taking
        ]
        row = models.Trial(
            question=body.question.strip(),
            kind=body.kind,
            measure=body.measure,
            design=body.design,
            seed=plan.seed,
            started_on=today,
            ends_on=plan.ends_on,
            lag_low_days=float(lags[0]),
            lag_high_days=float(lags[1]),
            plan=_PLAN.dump_python(plan, mode="json"),
            members=members,
        )
        session.add(row)
        session.flush()
        touch_all(session)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


def _told(trial: models.Trial, desk: Desk, session: Session) -> TrialAnswer:
    """What a trial says so far."""
    values = desk.of(session, trial.measure)
    plan = _PLAN.validate_python(trial.plan)
    until = min(desk.today, trial.ended_on or desk.today)
    by_pot = {m["pot_id"]: m for m in trial.members}

    def of(pot_id: int) -> tuple[Any, ...]:
        return tuple(s for s in values.get(by_pot[pot_id]["plant_id"], []) if s.on <= until)

    def named(pot_id: int) -> str:
        p = desk.pots.get(pot_id)
        return p.pot.code if p else f"pot {pot_id}"

    lags = (trial.lag_low_days, trial.lag_high_days)
    if plan.phases:
        only = trial.members[0]
        member = Member(named(only["pot_id"]), of(only["pot_id"]))
        return phases_answer(member, plan.phases, lag_low_days=lags[0], today=until, measure=trial.measure)
    if trial.design == "groups":
        rows = [Member(named(i), of(i), m["changed"], m["left_out"]) for i, m in by_pot.items()]
        return groups_answer(rows, started_on=trial.started_on, lag_days=lags, today=until, measure=trial.measure)
    one_sided = {code for n in _noticed(trial, desk) if n.one_sided for code in n.codes}
    pairs = []
    for pair in plan.pairs:
        other = pair.second if pair.changed == pair.first else pair.first
        left = by_pot[pair.changed]["left_out"] or by_pot[other]["left_out"]
        hit = bool({named(pair.changed), named(other)} & one_sided)
        name = f"{named(pair.changed)} and {named(other)}"
        pairs.append(TrialPair(name, of(pair.changed), of(other), left, int(hit)))
    return trial_answer(pairs, started_on=trial.started_on, lag_days=lags, today=until, measure=trial.measure)


def _noticed(trial: models.Trial, desk: Desk) -> list[NoticedOut]:
    """What else changed since it began, by the codes of the pots."""
    plan = _PLAN.validate_python(trial.plan)
    partner = {p.first: p.second for p in plan.pairs} | {p.second: p.first for p in plan.pairs}
    changed = {m["pot_id"]: m["changed"] for m in trial.members if m["pot_id"] in desk.pots}
    until = trial.ended_on or desk.today
    return [
        NoticedOut(on=n.on, codes=[desk.pots[i].pot.code for i in n.pots], words=n.words, one_sided=n.one_sided)
        for n in noticed(desk.changes, partner, changed, trial.kind, trial.started_on, until)
    ]


def _row(trial: models.Trial, answer: TrialAnswer, today: date) -> TrialRow:
    return TrialRow(
        id=trial.id,
        question=trial.question,
        kind=trial.kind,
        measure=trial.measure,
        design=trial.design,
        started_on=trial.started_on,
        ends_on=trial.ends_on,
        ended_on=trial.ended_on,
        running=runs_on(trial, today),
        pots=len(trial.members),
        can_answer=bool(trial.plan["can_answer"]),
        grade=answer.grade.grade,
        sentence=answer.sentence,
    )


@router.get("")
def list_trials(session: ReadSession, today: Today) -> list[TrialRow]:
    """Trials, the newest first, with what each says so far."""
    desk = desk_of(session, today)
    return [_row(t, _told(t, desk, session), today) for t in trials_kept(session)]


def _gives(session: Session, m: dict[str, Any]) -> str:
    if not m["changed"]:
        return "as before"
    said = []
    if m["water_id"] is not None:
        said.append(session.get_one(models.Water, m["water_id"]).name)
    feed: Literal["as planned", "none", "share"] = m["feed"]
    said += {"as planned": [], "none": ["no feed"], "share": [f"feed at {m['share']:g} of the label"]}[feed]
    return ", ".join(said) or "the change, by hand"


@router.get("/{trial_id}")
def show_trial(trial_id: int, session: ReadSession, today: Today) -> TrialPage:
    """One trial: its plan, its pairs, what it says so far, and what else changed."""
    trial = get_row(session, models.Trial, trial_id, "Trial")
    desk = desk_of(session, today)
    answer = _told(trial, desk, session)
    opened = leaves_of(session, [m["plant_id"] for m in trial.members], min(today, trial.ended_on or today))
    gained = {
        m["pot_id"]: sum(x.opened_on > trial.started_on for x in opened.get(m["plant_id"], ())) for m in trial.members
    }
    members = []
    for m in trial.members:
        p = desk.pots.get(m["pot_id"])
        pot = p.pot if p else session.get_one(models.Pot, m["pot_id"])
        members.append(
            MemberOut(
                pot_id=m["pot_id"],
                code=pot.code,
                name=p.name if p else pot.name,
                changed=m["changed"],
                gives=_gives(session, m),
                gained=gained[m["pot_id"]],
                left_out=m["left_out"],
            )
        )
    return TrialPage(
        today=today,
        row=_row(trial, answer, today),
        plan=_PLAN.validate_python(trial.plan),
        members=members,
        answer=answer,
        unit=facts_of(trial.measure).unit,
        noticed=_noticed(trial, desk),
        ended_why=trial.ended_why,
        gained=leaves_gained(
            [m.gained for m in members if m.changed and not m.left_out],
            [m.gained for m in members if not m.changed and not m.left_out],
            answer.grade.grade,
        ),
    )


class LeaveOutIn(Model):
    """A plant that no longer counts, with the reason, said before its leaves are measured."""

    pot_id: int
    why: str = Field(max_length=200)


@router.post("/{trial_id}/leave-out")
def leave_out(trial_id: int, body: LeaveOutIn, writer: OneWrite) -> Stored:
    """Leave a plant out by the rule told before; its pair counts no more."""
    why = body.why.strip()
    if not why:
        raise Underspecified("Why it is left out is empty. Say it in a few words.", pointer="/why")

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Trial, trial_id, "Trial")
        if body.pot_id not in {m["pot_id"] for m in row.members}:
            raise InputError(f"Pot {body.pot_id} takes no part in this trial.", pointer="/pot_id")
        row.members = [{**m, "left_out": why} if m["pot_id"] == body.pot_id else m for m in row.members]
        touch_all(session)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class EndIn(Model):
    """Why a trial ends; empty: its last day has come."""

    why: str = Field(default="", max_length=200)


@router.post("/{trial_id}/end")
def end_trial(trial_id: int, body: EndIn, writer: OneWrite, today: Today) -> Stored:
    """End a trial: its pots go back to their own plans. Before its last day a reason is asked for."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Trial, trial_id, "Trial")
        if row.ended_on is not None:
            raise Conflict(f"It ended on {row.ended_on.isoformat()} already.")
        if today < row.ends_on and not body.why.strip():
            raise Underspecified(
                f"It would be judged on {row.ends_on.isoformat()}. To end it before, say why.", pointer="/why"
            )
        row.ended_on, row.ended_why = today, body.why.strip()
        touch_all(session)
        return {"id": row.id}

    return Stored(**writer.once(body, write))
