"""Care: kinds with their figures, what rules a pot's phase and rhythm, holds set aside, places and their nights,
weights.
"""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any, Literal

from sqlalchemy.orm import Session

from fenwa.api.edits import of_both
from fenwa.api.model import Model
from fenwa.api.pots.entered import PhaseChoice, known_school
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row
from fenwa.api.transactions import now as this_moment
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.acts import then_of
from fenwa.core.care.coming import coming_pot, next_job
from fenwa.core.care.condition import Hold
from fenwa.core.care.day import forming, gaps_of
from fenwa.core.care.felt import Ready, ReadyBy, Sign
from fenwa.core.care.interval import CheckInterval, check_interval
from fenwa.core.care.kind_in_force import OwnLimits, limits_of, own_limits, own_version
from fenwa.core.care.pattern import NextFeed, feeding_pattern
from fenwa.core.care.ramp import RampDay, arrival_ramp
from fenwa.core.care.readiness import moist_of, readiness
from fenwa.core.care.round_pot import round_pot
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.library.loader import get_profile, profiles, sources
from fenwa.core.library.profile import Profile
from fenwa.core.pot.methods import Moist
from fenwa.core.pot.weights import PotWater, Weighed, pot_water_from_weights
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.care_state import own_row, profile_in_force
from fenwa.store.collection import pots_today
from fenwa.store.errand_state import ramps_of
from fenwa.store.pot_rows import kinds_with_own_figures, weights_until
from fenwa.store.pot_today import PotToday
from fenwa.store.round_state import water_of_pot
from fenwa.store.summary import refresh, touch_all

router = Ways(prefix="/api", tags=["care"])


class KindRow(Model):
    """A kind in the list of kinds."""

    id: str
    name: str
    group: str
    confidence: str
    source: str
    rest: str
    water_max_uS_cm: float
    pots: int
    own: bool


class KindPage(Model):
    """A kind on one screen: the figures in force, where they come from, and the pots that live by them."""

    profile: Profile
    source: str
    own_id: int | None
    own_word: str
    limits: OwnLimits
    pots: list[Stored]
    codes: list[str]


def _kinds_kept(session: Session, today: date) -> dict[str, list[PotToday]]:
    kept: dict[str, list[PotToday]] = {}
    for p in pots_today(session, today):
        for plant in p.plants:
            kept.setdefault(plant.profile_id, []).append(p)
    return kept


@router.get("/kinds")
def kinds(session: ReadSession, today: Today) -> list[KindRow]:
    """Every kind Fenwa knows, with how sure its figures are."""
    kept = _kinds_kept(session, today)
    own = kinds_with_own_figures(session)
    return [
        KindRow(
            id=p.id,
            name=p.name,
            group=p.group,
            confidence=p.confidence,
            source=sources()[p.source],
            rest=p.rest.kind,
            water_max_uS_cm=p.source_water.ec_max_uS_cm,
            pots=len(kept.get(p.id, [])),
            own=p.id in own,
        )
        for p in sorted(profiles().values(), key=lambda p: (p.group, p.name))
    ]


@router.get("/kinds/{profile_id}")
def kind(profile_id: str, session: ReadSession, today: Today, plant_id: int | None = None) -> KindPage:
    """One kind with the figures in force; those of one plant where it is named."""
    get_profile(profile_id)
    found, own = profile_in_force(session, profile_id, plant_id), own_row(session, profile_id, plant_id)
    pots = _kinds_kept(session, today).get(profile_id, [])
    return KindPage(
        profile=found,
        source=sources()[found.source],
        own_id=own.id if own else None,
        own_word=own.word if own else "",
        limits=limits_of(found),
        pots=[Stored(id=p.pot.id) for p in pots],
        codes=[p.pot.code for p in pots],
    )


class OwnFiguresIn(Model):
    """A grower's own figures of a kind; what is empty stays as it was. [µS/cm, mg/L, °C, d]"""

    water_max: TypedOrNone = None
    alkalinity_max: TypedOrNone = None
    reading_low: TypedOrNone = None
    reading_high: TypedOrNone = None
    reading_ceiling: TypedOrNone = None
    nitrogen_low: TypedOrNone = None
    nitrogen_high: TypedOrNone = None
    feed_ceiling: TypedOrNone = None
    minimum_C: TypedOrNone = None
    flush_each_days: TypedOrNone = None
    gate_root_cm: TypedOrNone = None
    gate_roots: TypedOrNone = None
    gate_growth_cm: TypedOrNone = None
    word: str = ""
    plant_id: int | None = None
    seen: OwnLimits | None = None  # the limits in force when the form was opened


@router.post("/kinds/{profile_id}/own", status_code=201)
def keep_own_figures(profile_id: str, body: OwnFiguresIn, writer: OneWrite) -> Stored:
    """Keep your own figures for a kind, or for one plant of it; the shipped ones stay beside them."""
    shipped = get_profile(profile_id)

    def write(session: Session) -> dict[str, Any]:
        if (
            body.plant_id is not None
            and get_row(session, models.Plant, body.plant_id, "Plant", "/plant_id").profile_id != profile_id
        ):
            raise InputError(
                f"Plant {body.plant_id} is not of the kind {shipped.short}. Open its own kind.", pointer="/plant_id"
            )
        in_force = profile_in_force(session, profile_id, body.plant_id)
        limits = body.model_dump(exclude={"word", "plant_id", "seen"}, exclude_none=True)
        if body.seen is not None:
            limits = of_both(asdict(body.seen), asdict(limits_of(in_force)), limits)
        figures = own_limits(in_force, OwnLimits(**limits))
        before = own_row(session, profile_id, body.plant_id)
        base = before or own_row(session, profile_id)
        if base is not None:
            figures = {**base.figures, **figures}
        if before is not None:
            before.archived_at = this_moment()
        own_version(shipped, figures)
        touch_all(session)
        return keep_row(
            session, models.ProfileCopy(profile_id=profile_id, plant_id=body.plant_id, figures=figures, word=body.word)
        )

    return Stored(**writer.once(body, write))


class CarePage(Model):
    """What rules a pot: phase, holds, rhythm, interval, water by weight, each with why."""

    phase: str
    phase_by: str
    phase_sentence: str
    phase_school: PhaseChoice
    phase_school_by: str
    school_id: str | None
    school: str
    school_by: str
    interval_by: str
    ready_by: ReadyBy
    ready_at: float | None
    ready_moist: Moist
    probe_id: int | None
    ready: Computed[Ready]
    holds: list[Hold]
    next_feed: Computed[NextFeed]
    interval: Computed[CheckInterval]
    water: Computed[PotWater] | None
    place_id: int
    trial: str
    signs: list[Sign]
    signs_least: int
    next_on: date | None
    next_job: str
    feed_held: str
    handling: str
    ramps: list[Computed[RampDay]]


@router.get("/pots/{pot_id}/care")
def care_of(pot_id: int, session: ReadSession, today: Today) -> CarePage:
    """What rules a pot today, with the working of each number."""
    p = one_pot(session, pot_id, today)
    place, last_on = p.day.place, p.log.last_pour_on
    choice, first = water_of_pot(session, p, today)
    due = round_pot(p.day, choice, first.reckoned_uS_cm if first else None)
    interval = check_interval(
        gaps=gaps_of(p.log, place),
        fallback_days=p.pot.interval_days,
        rate_now=place.drying_rate(today),
        forming=forming(p.log, today),
        last_on=last_on,
        rule_met=p.ready.state == "water",
    )
    return CarePage(
        phase=p.phase,
        phase_by=p.found.by,
        phase_sentence=p.found.sentence,
        phase_school=p.plant.phase_school,
        phase_school_by=p.phase_by.says,
        school_id=p.pot.school_id,
        school=p.pattern.name,
        school_by=p.school_by.says,
        interval_by=p.pot.interval_by,
        ready_by=p.rule.by,
        ready_at=p.rule.at,
        ready_moist=moist_of(p.rule),
        probe_id=p.pot.probe_id,
        ready=readiness(rule=p.rule, felt=p.felt, last_pour_on=last_on, today=today),
        holds=list(p.holds),
        next_feed=feeding_pattern(pattern=p.pattern, fed=p.fed, today=today),
        interval=interval,
        water=_by_weight(session, pot_id, today),
        place_id=p.where.id,
        trial=p.plant.trial,
        signs=list(p.rule.signs),
        signs_least=p.rule.least,
        next_on=coming_pot(due, today).first_on,
        next_job=next_job(due, today),
        feed_held=due.feed_held,
        handling=then_of(p.pot.route, p.day.crown, p.pot.soak_min, p.pot.stand_min),
        ramps=[
            arrival_ramp(ramp=r, stressed_on=p.log.limp_days, firm_on=p.log.firm_on, today=today)
            for r in ramps_of(p.plant)
        ],
    )


def _by_weight(session: Session, pot_id: int, today: date) -> Computed[PotWater] | None:
    rows = weights_until(session, pot_id, today)
    newest = {w.kind: w.grams for w in rows}
    if "drained" not in newest or "dry" not in newest or newest["dry"] >= newest["drained"]:
        return None
    return pot_water_from_weights(
        drained_g=newest["drained"],
        dry_g=newest["dry"],
        now_g=rows[-1].grams,
        weights=[Weighed(w.on, w.grams) for w in rows],
    )


class CareIn(Model):
    """What rules a pot. Left out: as it was; empty: as its kind or place says; school ``own``: the pot's own rhythm."""

    school_id: str | None = None
    phase_school: PhaseChoice | None = None
    interval_by: Literal["set", "learnt"] | None = None
    trial: str | None = None


@router.post("/pots/{pot_id}/care")
def set_care(pot_id: int, body: CareIn, writer: OneWrite, today: Today) -> Stored:
    """Choose the school, the way its phase is told, and whether its interval is learnt."""

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        pot, plant = session.get_one(models.Pot, pot_id), session.get_one(models.Plant, p.plant.id)
        if body.school_id is not None:
            pot.school_id = known_school(session, body.school_id)
        if body.interval_by is not None:
            pot.interval_by = body.interval_by
        if body.phase_school is not None:
            plant.phase_school = body.phase_school
        if body.trial is not None:
            plant.trial = body.trial.strip()
        refresh(session, pot_id)
        return {"id": pot_id}

    return Stored(**writer.once(body, write))


class OverrideIn(Model):
    """A hold to be set aside, with a word why."""

    hold_id: str
    word: str


@router.post("/pots/{pot_id}/override", status_code=201)
def set_aside(pot_id: int, body: OverrideIn, writer: OneWrite, today: Today) -> Stored:
    """Set a hold aside with a word; it stays shown, and the word is kept."""
    if not body.word.strip():
        raise Underspecified("A word is missing. Write why you set this hold aside.", pointer="/word")

    def write(session: Session) -> dict[str, Any]:
        p = one_pot(session, pot_id, today)
        hold = next((h for h in p.holds if h.id == body.hold_id), None)
        if hold is None:
            raise InputError(f"{p.pot.code} has no open hold “{body.hold_id}”. It may have ended.", pointer="/hold_id")
        if hold.standing:
            raise InputError(f"“{hold.id}” is a rule of the kind, not an event. {hold.release}", pointer="/hold_id")
        return keep_row(
            session, models.HoldOverride(pot_id=pot_id, hold_id=body.hold_id, on=today, word=body.word.strip())
        )

    return Stored(**writer.once(body, write))
