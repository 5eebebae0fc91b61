"""What pots, places and kinds are ruled by beside their log: own profiles, climate, holds set aside, prills, skips."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.core.care.condition import CLIMATE_DAYS, Override
from fenwa.core.care.felt import Felt, Probe, ReadyRule
from fenwa.core.care.interval import mean_C
from fenwa.core.care.kept import Series as Warmth
from fenwa.core.care.kind_in_force import own_version
from fenwa.core.care.on_trial import OnTrial
from fenwa.core.care.plan import FeedingPlan
from fenwa.core.care.prills import Prills
from fenwa.core.care.standing_rules import InForce, Scope, in_force
from fenwa.core.library.loader import get_profile
from fenwa.core.library.profile import Profile
from fenwa.core.mix.school import School
from fenwa.core.pot.release import PrillSalt
from fenwa.store import models
from fenwa.store.memory import remembered
from fenwa.store.mix_state import schools_in_force
from fenwa.store.models import (
    Climate,
    FeedingPlanRow,
    Place,
    Pot,
    ProfileCopy,
    StandingRule,
)
from fenwa.store.prill_rows import prills_given
from fenwa.store.seen_of_pots import (
    LookAgain,
    OnScale,
    Treated,
    felt_of_pots,
    overrides_of,
    put_off,
    treated_of,
    weights_of,
)
from fenwa.store.trial_rows import trials_now

CLIMATE_KEPT_DAYS = 450  # waterings older than that teach no interval


PLAN, PLANT = "plan:", "plant"
_PLAN = TypeAdapter(FeedingPlan)


@dataclass(frozen=True)
class KeptPlan:
    """A feeding plan with its row."""

    id: int
    scope: str
    key: str
    plan: FeedingPlan
    made_on: date


def _keys(pot: Pot, profile: Profile) -> tuple[tuple[Scope, str], ...]:
    return (("kind", profile.id), ("group", profile.group), ("place", str(pot.place_id)), ("all", ""))


def plan_as_plain(plan: FeedingPlan) -> dict[str, Any]:
    """A plan as it is stored."""
    plain: dict[str, Any] = _PLAN.dump_python(plan, mode="json")
    return plain


def kept_plans(session: Session) -> list[KeptPlan]:
    """Every plan in force, the oldest first; of one scope and key the newest rules."""
    rows = session.scalars(
        select(FeedingPlanRow).where(FeedingPlanRow.archived_at.is_(None)).order_by(FeedingPlanRow.id)
    )
    newest = {(r.scope, r.key): KeptPlan(r.id, r.scope, r.key, _PLAN.validate_python(r.plan), r.made_on) for r in rows}
    return sorted(newest.values(), key=lambda p: p.id)


@dataclass
class CareRows:
    """Rows by pot, place or plant, loaded in a handful of queries."""

    places: dict[int, Place]
    climate: dict[int, Climate]
    copies: dict[tuple[str, int | None], ProfileCopy]
    overrides: dict[int, tuple[Override, ...]]
    weights: dict[int, list[OnScale]]
    prills: dict[int, list[Prills]]
    treated: dict[int, Treated]
    skipped: dict[int, date]
    look_again: dict[int, LookAgain]
    schools: dict[str, School]
    warmth: dict[int, Warmth]
    nights: dict[int, Warmth]
    days: dict[int, Warmth]
    probes: dict[int, Probe]
    felt: dict[int, dict[str, Any]]
    rules: dict[tuple[str, str], StandingRule]
    plans: dict[tuple[str, str], KeptPlan]
    trials: dict[int, OnTrial]

    def newest_prills(self, pot: Pot) -> Prills | None:
        """The newest prills of a pot."""
        mine = self.prills.get(pot.id)
        return mine[-1] if mine else None

    def prill_salt(self, pot: Pot) -> tuple[PrillSalt, ...]:
        """The salt of all prills of a pot whose amount is known."""
        return tuple(p.salt for p in self.prills.get(pot.id, []) if p.salt is not None)

    def products_of(self, pot: Pot, profile: Profile) -> FeedingPlan | None:
        """The nearest plan that names a product, whatever rules the rhythm."""
        if not self.plans:
            return None
        keys = ((PLANT, str(pot.id)), *_keys(pot, profile))
        return next((p.plan for key in keys if (p := self.plans.get(key)) is not None and p.plan.products), None)

    def feeding_of(self, pot: Pot, profile: Profile) -> tuple[FeedingPlan | None, School | None, InForce]:
        """The plan or the school a pot is fed by and who chose it, nearest first; ``own`` is the pot's own rhythm.

        Where both stand equally near, the plan rules.
        """
        rules = self._rules_of(pot, profile, "school_id")
        mine = self.plans.get((PLANT, str(pot.id)))
        if self.plans:
            near = {scope: self.plans.get((scope, key)) for scope, key in _keys(pot, profile)}
            rules |= {scope: f"{PLAN}{scope}" for scope, plan in near.items() if plan is not None}
        found = in_force(f"{PLAN}{PLANT}" if mine else pot.school_id or "", rules)
        if found.value.startswith(PLAN):
            scope = found.value.removeprefix(PLAN)
            plan = mine if scope == PLANT else near[scope]  # type: ignore[index]  # a scope it was made of
            assert plan is not None
            return plan.plan, None, found
        return None, (self.schools.get(found.value) if found.value else None), found

    def phase_school_of(self, pot: Pot, own: str, profile: Profile) -> InForce:
        """How the phase is told, and who chose it; by what is noted where nobody chose."""
        found = in_force(own, self._rules_of(pot, profile, "phase_school"))
        return found if found.value else InForce("noted", "none")

    def _rules_of(self, pot: Pot, profile: Profile, column: str) -> dict[Scope, str]:
        if not self.rules:
            return {}
        keys = _keys(pot, profile)
        return {scope: getattr(row, column) for scope, key in keys if (row := self.rules.get((scope, key)))}

    def ready_rule(self, pot: Pot) -> ReadyRule:
        """The pot's rule of readiness."""
        probe = self.probes.get(pot.probe_id) if pot.probe_id else None
        return ReadyRule(pot.ready_by, pot.ready_at, probe, tuple(pot.signs or ()), pot.signs_least)  # type: ignore[arg-type]

    def felt_of(self, pot: Pot, left_share: float | None) -> Felt:
        """What was found of a pot, each with its day; a probe's reading counts for the pot's own probe."""
        of, weighed = self.felt.get(pot.id, {}), self.weights.get(pot.id, [])
        probed = of.get("probe_value")
        probed = probed if probed is not None and probed.probe_id == pot.probe_id else None
        moist, roots, droop = of.get("moist"), of.get("roots"), of.get("droops")
        wall, heft = of.get("wall"), of.get("heft")
        return Felt(
            left_share=left_share,
            weighed_on=weighed[-1].on if weighed and left_share is not None else None,
            probe_value=probed.probe_value if probed else None,
            probed_on=probed.on if probed else None,
            moist=moist.moist if moist else None,
            moist_on=moist.on if moist else None,
            roots=roots.roots if roots else None,
            roots_on=roots.on if roots else None,
            droops=droop.droops if droop else None,
            droop_on=droop.on if droop else None,
            wall=wall.wall if wall else None,
            wall_on=wall.on if wall else None,
            heft=heft.heft if heft else None,
            heft_on=heft.on if heft else None,
        )

    def profile(self, profile_id: str, plant_id: int) -> Profile:
        """The kind with the grower's own figures: the plant's version first, then the kind's."""
        copy = self.copies.get((profile_id, plant_id)) or self.copies.get((profile_id, None))
        return _own(profile_id, _frozen(copy.figures)) if copy else get_profile(profile_id)

    def is_own(self, profile_id: str, plant_id: int) -> bool:
        """Whether the figures in force are the grower's."""
        return (profile_id, plant_id) in self.copies or (profile_id, None) in self.copies


def _frozen(figures: dict[str, Any]) -> tuple[Any, ...]:
    return tuple(
        (k, _frozen(v) if isinstance(v, dict) else tuple(v) if isinstance(v, list) else v)
        for k, v in sorted(figures.items())
    )


def _thawed(figures: tuple[Any, ...]) -> dict[str, Any]:
    def value(v: Any) -> Any:
        nested = (
            isinstance(v, tuple)
            and v
            and all(isinstance(x, tuple) and len(x) == 2 and isinstance(x[0], str) for x in v)
        )
        return _thawed(v) if nested else v

    return {k: value(v) for k, v in figures}


@lru_cache(maxsize=256)
def _own(profile_id: str, figures: tuple[Any, ...]) -> Profile:
    return own_version(get_profile(profile_id), _thawed(figures))


def load_care(session: Session, today: date, only: set[int] | None = None) -> CareRows:
    """Everything of the day that is not in a pot's own log."""
    skipped, look_again = put_off(session, today, only)
    places = None  # readers keep all of them; a write reads those it needs
    if only is not None and session.info.get("store") is None:
        places = set(session.scalars(select(Pot.place_id).where(Pot.id.in_(only))))
    house = house_of(session, today, places)
    return CareRows(
        **house,
        overrides=overrides_of(session, today, only),
        weights=weights_of(session, today, only),
        prills=prills_given(session, today, only, house["warmth"]),
        treated=treated_of(session, today, only),
        skipped=skipped,
        look_again=look_again,
        felt=felt_of_pots(session, today, only),
    )


def house_of(session: Session, today: date, places: set[int] | None = None) -> dict[str, Any]:
    """The part of ``CareRows`` that is not of single pots, kept by readers; ``places``: all, or those a write needs."""
    return remembered(session, "house", today, lambda s: _of_the_house(s, today, places), also_writing=True)


def _of_the_house(session: Session, today: date, places: set[int] | None) -> dict[str, Any]:
    """Places with their climate, figures, schools, plans."""
    own = select(ProfileCopy).where(ProfileCopy.archived_at.is_(None)).order_by(ProfileCopy.id)
    standing = select(StandingRule).where(StandingRule.archived_at.is_(None)).order_by(StandingRule.id)
    nights, days, warmth = _climate_series(session, today, places)
    return {
        "places": {p.id: p for p in session.scalars(select(Place))},
        "climate": _newest_climate(session, today),
        "copies": {(c.profile_id, c.plant_id): c for c in session.scalars(own)},
        "schools": {s.school.id: s.school for s in schools_in_force(session)},
        "warmth": warmth,
        "nights": nights,
        "days": days,
        "probes": {p.id: Probe(p.name, p.lowest, p.highest, p.dry_end) for p in session.scalars(select(models.Probe))},  # type: ignore[arg-type]
        "rules": {(r.scope, r.key): r for r in session.scalars(standing)},
        "plans": {(p.scope, p.key): p for p in kept_plans(session)},
        "trials": trials_now(session, today),
    }


def _newest_climate(session: Session, today: date) -> dict[int, Climate]:
    newest = (
        select(Climate.place_id, func.max(Climate.on).label("on"))
        .where(Climate.archived_at.is_(None), Climate.on <= today)
        .group_by(Climate.place_id)
        .subquery()
    )
    query = select(Climate).join(newest, (Climate.place_id == newest.c.place_id) & (Climate.on == newest.c.on))
    return {c.place_id: c for c in session.scalars(query.where(Climate.archived_at.is_(None)).order_by(Climate.id))}


def _climate_series(
    session: Session, today: date, places: set[int] | None = None
) -> tuple[dict[int, Warmth], dict[int, Warmth], dict[int, Warmth]]:
    """Of each place, oldest first: nights and days of late, and the mean of both where both were measured."""
    of_late = (
        select(Climate.place_id, Climate.on, Climate.night_C, Climate.day_C)
        .where(
            Climate.archived_at.is_(None), Climate.on <= today, Climate.on >= today - timedelta(days=CLIMATE_KEPT_DAYS)
        )
        .order_by(Climate.on)
    )
    rows = session.execute(of_late if places is None else of_late.where(Climate.place_id.in_(places)))
    series: tuple[dict[int, list[tuple[date, float]]], ...] = ({}, {}, {})
    for place_id, on, night, day in rows:
        late = (today - on).days <= CLIMATE_DAYS
        for kept, value in zip(
            series, (night if late else None, day if late else None, mean_C(night, day)), strict=True
        ):
            if value is not None:
                kept.setdefault(place_id, []).append((on, value))
    nights, days, means = ({k: tuple(v) for k, v in kept.items()} for kept in series)
    return nights, days, means


def own_row(session: Session, profile_id: str, plant_id: int | None = None) -> ProfileCopy | None:
    """The grower's own figures of a kind, or of one plant of it, if there are any."""
    whose = ProfileCopy.plant_id.is_(None) if plant_id is None else ProfileCopy.plant_id == plant_id
    mine = select(ProfileCopy).where(ProfileCopy.archived_at.is_(None), ProfileCopy.profile_id == profile_id, whose)
    return session.scalars(mine.order_by(ProfileCopy.id.desc()).limit(1)).first()


def profile_in_force(session: Session, profile_id: str, plant_id: int | None = None) -> Profile:
    """A kind with the grower's own figures: the plant's, else the whole kind's, else as shipped."""
    copy = own_row(session, profile_id, plant_id) or own_row(session, profile_id)
    return _own(profile_id, _frozen(copy.figures)) if copy else get_profile(profile_id)
