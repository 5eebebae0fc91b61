"""Seasons of a plant from the day it woke, two plants side by side, schools across the collection."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import Literal

from sqlalchemy.orm import Session

from fenwa.api.answers.desk import desk_of
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.core.care.season import days_from_shortest
from fenwa.core.errors import InputError
from fenwa.core.evidence.pair import PairFact, PairSeen, SourceSeen, what_differs
from fenwa.core.evidence.restarts import season_spans, woke_on
from fenwa.core.evidence.schools import SchoolPlant, SchoolsCompared, compare_schools, newest_share
from fenwa.core.evidence.seasons import (
    SeasonLog,
    SeasonOverlay,
    SeasonPoint,
    SeasonSum,
    nitrogen_stairs,
    season_overlay,
    season_sum,
)
from fenwa.core.leaf.laid import season_starts
from fenwa.core.leaf.suppliers import Arrival, suppliers_of
from fenwa.core.library.loader import media
from fenwa.core.working import Computed
from fenwa.store.answer_rows import poured_by
from fenwa.store.leaf_rows import leaves_of, plants_ever
from fenwa.store.pot_today import PotToday
from fenwa.store.season_rows import (
    first_roots,
    growths_seen,
    phases_noted,
    season_logs,
)

router = Ways(prefix="/api", tags=["answers"])

By = Literal["seasons", "growths"]
CARE_DAYS = 90  # of two plants side by side: what they were given lately


class SeasonsPage(Model):
    """Seasons or growths of a plant laid over each other. ``overlay`` None: there is one so far."""

    today: date
    pot_id: int
    code: str
    name: str
    by: By
    cue: str
    seasons: list[SeasonLog]
    stairs: list[list[SeasonPoint]]
    totals: list[SeasonSum]
    overlay: Computed[SeasonOverlay] | None
    sentence: str
    poisonous: bool


def _log(session: Session, p: PotToday, since: date, until: date, name: str, growth_id: int | None = None) -> SeasonLog:
    return replace(season_logs(session, [p], since, until, growth_id)[p.id], name=name)


def _seasons(session: Session, p: PotToday, today: date) -> tuple[list[SeasonLog], str]:
    """Seasons by the days it woke; one that never rested by the turn of its year."""
    starts = woke_on(phases_noted(session, p.plant.id), p.log.kept_since)
    cue = "the day it woke"
    if len(starts) < 2:
        this, before = season_starts(today, days_from_shortest(today, p.day.place.hemisphere))
        starts, cue = [this, before], "the shortest day" if p.day.place.hemisphere != "none" else "a year"
    spans = season_spans(starts, today)
    return [_log(session, p, a, b, str(a.year)) for a, b in spans], cue


@router.get("/pots/{pot_id}/seasons")
def seasons_of(pot_id: int, session: ReadSession, today: Today, by: By = "seasons") -> SeasonsPage:
    """Seasons of a plant, or its growths, laid over each other: what went in, what came of it at the same age."""
    p = one_pot(session, pot_id, today)
    if by == "growths":
        seen = growths_seen(session, p.plant.id)[:6]
        logs = [_log(session, p, on, today, g.name or f"growth {i}", g.id) for i, (g, on) in enumerate(seen, 1)]
        cue = "its first leaf"
    else:
        logs, cue = _seasons(session, p, today)
        if len(logs) > 1 and not (logs[1].pours or logs[1].leaves or logs[1].heights):
            logs = logs[:1]
    logs = [x for x in logs if x.days >= 0]
    overlay = season_overlay(seasons=logs[:12], cool_below_C=p.profile.climate.night_C[0]) if len(logs) > 1 else None
    one = "One season so far. Next year this page compares."
    return SeasonsPage(
        today=today,
        pot_id=pot_id,
        code=p.pot.code,
        name=p.name,
        by=by,
        cue=cue,
        seasons=logs,
        stairs=[nitrogen_stairs(x) for x in logs],
        totals=[season_sum(x, x.days, p.profile.climate.night_C[0]) for x in logs],
        overlay=overlay,
        sentence=overlay.result.sentence if overlay else one if by == "seasons" else "One growth so far.",
        poisonous=p.profile.hazard.poisonous,
    )


class PairPage(Model):
    """Two plants side by side."""

    first: str
    second: str
    seen: PairSeen


def _facts(session: Session, p: PotToday, today: date) -> list[PairFact]:
    since = today - timedelta(days=CARE_DAYS)
    pours = poured_by(session, [p.pot.id], since, today).get(p.pot.id, [])
    fed = [x for x in pours if x.job == "feed"]
    strengths = sorted({round(x.nitrogen_mg_L) for x in fed if x.nitrogen_mg_L})
    waters = sorted({x.water for x in pours if x.water})
    medium = media()[p.pot.medium_id].name if p.pot.medium_id in media() else p.pot.medium_id
    return [
        PairFact("source", "plant", p.plant.source),
        PairFact("roots at the start", "plant", first_roots(session, p.plant.id)),
        PairFact("arrived", "plant", p.plant.arrived_on.isoformat() if p.plant.arrived_on else ""),
        PairFact("kind", "plant", p.profile.name),
        PairFact("place", "place", p.place),
        PairFact("spot", "place", p.pot.spot),
        PairFact("medium", "care", medium),
        PairFact("pot", "care", f"{p.pot.volume_L:g} L"),
        PairFact("watering", "care", p.pot.route),
        PairFact("water", "care", ", ".join(waters)),
        PairFact("feed", "care", ", ".join(f"{n} mg/L N" for n in strengths) if fed else "none"),
    ]


@router.get("/pots/{pot_id}/pair")
def pair_of(pot_id: int, beside: int, session: ReadSession, today: Today) -> PairPage:
    """Two plants side by side: only what differs, and what became of others from the same source."""
    if pot_id == beside:
        raise InputError("A pot beside itself differs in nothing. Choose another.", pointer="/beside")
    a, b = one_pot(session, pot_id, today), one_pot(session, beside, today)
    ever = [Arrival(x.source, x.arrived_on, x.died_on, x.death_cause, None) for x in plants_ever(session)]
    named = {a.plant.source.strip(), b.plant.source.strip()} - {""}
    sources = [SourceSeen(s.name, s.plants, s.plants - s.alive) for s in suppliers_of(ever, today) if s.name in named]
    return PairPage(
        first=f"{a.pot.code} {a.name}",
        second=f"{b.pot.code} {b.name}",
        seen=what_differs(_facts(session, a, today), _facts(session, b, today), sources),
    )


@router.get("/schools-compared")
def schools_compared(session: ReadSession, today: Today) -> SchoolsCompared:
    """Which school does what to salt, leaves and losses, with the same honesty as any other answer."""
    desk = desk_of(session, today)
    leaves = leaves_of(session, [p.plant.id for p in desk.pots.values()], today)
    groups: dict[str, list[SchoolPlant]] = {}
    for p in desk.pots.values():
        mine = leaves.get(p.plant.id, [])
        name = p.school.name if p.school else p.day.feeding.plan.name or "its own rhythm"
        seen = SchoolPlant(
            salt_share=p.day.share_of_ceiling if p.reading is not None else None,
            over_ceiling=p.day.over_ceiling,
            leaf_share=newest_share(mine, today),
            leaves_lost=sum(x.lost_on is not None for x in mine),
        )
        groups.setdefault(name, []).append(seen)
    return compare_schools(groups)
