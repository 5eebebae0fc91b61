"""Logs of pots as the core folds them: each from the newest day its fold can go on from, in a handful of queries."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from functools import lru_cache
from typing import Any

from pydantic_core import from_json
from sqlalchemy import Text, bindparam, func, select, type_coerce
from sqlalchemy.orm import Session

from fenwa.core.care.log import CRUST, LoggedLook, LoggedPhase, LoggedPour, PoursSoFar, pours_so_far
from fenwa.core.library.loader import get_profile
from fenwa.core.pot.folded import Standing
from fenwa.core.pot.specification import WETTING_ROUTES, PotReading, PotSpec, WaterEvent
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.flush_state import as_reading
from fenwa.store.models import Feel, Flush, Growth, Look, PhaseSpan, Plant, Pot, Pour, Runoff
from fenwa.store.prill_rows import prills_given
from fenwa.store.questions import among, columns, listed
from fenwa.store.salt_of_pots import BallastShares, pot_spec
from fenwa.store.standing_rows import standings_of


@dataclass(frozen=True)
class RunoffRow:
    """What came out of a pour."""

    volume_L: float | None
    ec_uS_cm: float | None
    method: str
    left_out: bool
    archived_at: Any


@dataclass(frozen=True)
class PourRow:
    """A pour with its runoff, as far as a fold needs it."""

    id: int
    pot_id: int
    on: date
    job: str
    route: str
    volume_L: float | None
    ec_uS_cm: float | None
    batch_id: int | None
    water_id: int | None
    plant_id: int | None
    flush_id: int | None
    soaked_min: float | None
    runoff: RunoffRow | None


@dataclass
class LogRows:
    """One pot with its log from a day on; ``since``, ``so_far``: where its fold and its pours stood that day."""

    pot: Pot
    plant: Plant
    spec: PotSpec
    figures: str
    looks: list[LoggedLook]
    spans: list[LoggedPhase]
    since: Standing | None = None
    so_far: PoursSoFar | None = None
    pours: list[LoggedPour] = field(default_factory=list)
    events: list[WaterEvent] = field(default_factory=list)
    readings: list[PotReading] = field(default_factory=list)

    def pours_at(self, days: Sequence[date]) -> list[PoursSoFar]:
        """What the pours say up to each of these days, which come in their order."""
        out, at, n = [], self.so_far or PoursSoFar(), 0
        for day in days:
            begun = n
            while n < len(self.pours) and self.pours[n].on <= day:
                n += 1
            at = pours_so_far(self.pours[begun:n], at)
            out.append(at)
        return out


def as_event(p: Pour | PourRow, shares: BallastShares) -> WaterEvent:
    """One stored pour as the core reads it."""
    r = p.runoff if p.runoff is not None and p.runoff.archived_at is None else None
    return WaterEvent(
        p.on,
        p.volume_L,
        p.ec_uS_cm,
        p.route,  # type: ignore[arg-type]  # checked when it was stored
        r.volume_L if r else None,
        r.ec_uS_cm if r else None,
        r.method if r else "runoff",  # type: ignore[arg-type]
        shares.of(p),
        (p.soaked_min or 0.0) / 60,
        bool(r and r.left_out),
        p.job == "flush",
    )


@lru_cache(maxsize=4096)
def _listed(stored: str | None) -> tuple[Any, ...]:
    """A stored list, read once, for most looks say the same."""
    return () if stored is None else tuple(from_json(stored) or ())


_LOOK = (  # whose it is, then as the core reads it
    Look.pot_id,
    Look.plant_id,
    Look.growth_id,
    Look.on,
    type_coerce(Look.marks, Text).label("marks"),
    Look.marks_looked_for,
    Look.new_leaf,
    Look.new_growth,
    Look.growth_stopped,
    Look.spike,
    Look.root_cm,
    Look.roots_working,
    Look.leaves_count,
    Look.newest_leaf_mm,
    Look.growth_cm,
    type_coerce(Look.roots_cm, Text).label("roots_cm"),
)
_POUR = (
    Pour.id,
    Pour.pot_id,
    Pour.on,
    Pour.job,
    Pour.route,
    Pour.volume_L,
    Pour.ec_uS_cm,
    Pour.batch_id,
    Pour.water_id,
    Pour.plant_id,
    Pour.flush_id,
    Pour.soaked_min,
)
_RUNOFF = (Runoff.id, Runoff.volume_L, Runoff.ec_uS_cm, Runoff.method, Runoff.left_out, Runoff.archived_at)

_IDS = among()
_POTS = select(Pot).where(Pot.id.in_(_IDS))
_PLANTS = select(Plant).where(Plant.pot_id.in_(_IDS), Plant.archived_at.is_(None)).order_by(Plant.id)
_SPANS = (
    select(Growth.plant_id, PhaseSpan.phase, PhaseSpan.since)
    .join(Growth, Growth.id == PhaseSpan.growth_id)
    .where(Growth.plant_id.in_(_IDS), Growth.leads.is_(True), PhaseSpan.archived_at.is_(None))
    .order_by(PhaseSpan.since, PhaseSpan.id)
)
_SIDE_GROWTHS = select(Growth.id).join(Plant).where(Plant.pot_id.in_(_IDS), Growth.leads.is_(False))
_LOOKS = select(*_LOOK).where(Look.pot_id.in_(_IDS), Look.archived_at.is_(None)).order_by(Look.on, Look.id)
_PARTIAL = select(Flush.id).where(Flush.pot_id.in_(_IDS), Flush.ended_as.in_(("", "interrupted")))
_BETWEEN = (
    select(Runoff.pot_id, Runoff.on, Runoff.ec_uS_cm, Runoff.method, Runoff.crust, Runoff.left_out)
    .where(Runoff.pot_id.in_(_IDS), Runoff.archived_at.is_(None))
    .order_by(Runoff.on, Runoff.id)
)
_POURED = select(Pour.id).where(Pour.pot_id == Feel.pot_id, Pour.on == Feel.on, Pour.archived_at.is_(None))
_FELT = (
    select(Feel.pot_id, Feel.on, Feel.moist)
    .where(Feel.pot_id.in_(_IDS), Feel.archived_at.is_(None), Feel.moist.is_not(None), ~_POURED.exists())
    .order_by(Feel.on, Feel.id)
)
_BEGINS = func.json_each(bindparam("begins", type_=Text)).table_valued("value")
_ASKED = select(
    func.json_extract(_BEGINS.c.value, "$[0]").label("pot_id"),
    func.json_extract(_BEGINS.c.value, "$[1]").label("since"),
).subquery()
_POURS = (
    select(*_POUR, *_RUNOFF)
    .select_from(_ASKED)
    .join(Pour, (Pour.pot_id == _ASKED.c.pot_id) & (Pour.on >= _ASKED.c.since))
    .outerjoin(Runoff, Runoff.pour_id == Pour.id)
    .where(Pour.archived_at.is_(None))
    .order_by(Pour.on, Pour.id)
)


def load_logs(session: Session, pot_ids: Sequence[int], whole: bool = False) -> list[LogRows]:
    """The logs of pots. ``whole``: from their first day, whatever was kept on the way."""
    asked = {"ids": listed(pot_ids)}
    pots = {p.id: p for p in session.scalars(_POTS, asked)}
    plants: dict[int, Plant] = {}
    for plant in session.scalars(_PLANTS, asked):
        plants.setdefault(plant.pot_id, plant)
    spans = _spans(session, [p.id for p in plants.values()])
    looks = _looks(session, plants)
    prills = prills_given(session, None, set(pot_ids))
    out: dict[int, LogRows] = {}
    for pot_id in pot_ids:
        pot, plant = pots[pot_id], plants[pot_id]
        phases = spans.get(plant.id, [])
        salt = tuple(x.salt for x in prills.get(pot_id, []) if x.salt is not None)
        spec = pot_spec(pot, get_profile(plant.profile_id), phases[-1].phase if phases else "active", salt)
        out[pot_id] = LogRows(pot, plant, spec, _figures(spec, pot), looks.get(pot_id, []), phases)
    if not whole:
        for pot_id, (since, so_far) in standings_of(session, {i: x.figures for i, x in out.items()}).items():
            out[pot_id].since, out[pot_id].so_far = since, so_far
    _pours(session, out)
    _readings(session, out)
    return list(out.values())


def _figures(spec: PotSpec, pot: Pot) -> str:
    """What the log is folded by: with other figures no day of an earlier fold serves."""
    return hashlib.sha256(repr((CORE_VERSION, spec, pot.repotted_on)).encode()).hexdigest()[:16]


def _begins(x: LogRows) -> date:
    """The first day of the log that is not folded."""
    return date.min if x.since is None else x.since.on + timedelta(days=1)


def _spans(session: Session, plant_ids: Sequence[int]) -> dict[int, list[LoggedPhase]]:
    """Phases of the leading growth of plants, oldest first."""
    out: dict[int, list[LoggedPhase]] = {}
    for plant_id, phase, since in columns(session, _SPANS, ids=listed(plant_ids)):
        out.setdefault(plant_id, []).append(LoggedPhase(phase, since))
    return out


def _looks(session: Session, plants: Mapping[int, Plant]) -> dict[int, list[LoggedLook]]:
    """Looks at pots, oldest first."""
    ids = listed(plants)
    side = {x.id for x in columns(session, _SIDE_GROWTHS, ids=ids)}
    out: dict[int, list[LoggedLook]] = {}
    for pot_id, plant_id, growth_id, on, marks, *told, roots_cm in columns(session, _LOOKS, ids=ids):
        leads = growth_id not in side and plant_id == plants[pot_id].id
        out.setdefault(pot_id, []).append(LoggedLook._make((on, _listed(marks), *told, _listed(roots_cm), leads)))
    return out


def _pours(session: Session, logs: Mapping[int, LogRows]) -> None:
    """Give each log its pours."""
    begins = listed([i, _begins(x).isoformat()] for i, x in logs.items())
    pours = [_pour_row(tuple(row)) for row in columns(session, _POURS, begins=begins)]
    shares = BallastShares(session, pours)
    partial = {x.id for x in columns(session, _PARTIAL, ids=listed(logs))}
    for p in pours:
        x = logs[p.pot_id]
        if p.on >= (x.pot.repotted_on or date.min):  # what the old mix held went with it
            x.events.append(as_event(p, shares))
        x.pours.append(
            LoggedPour(
                p.on,
                "plain" if p.flush_id in partial else p.job,
                p.route,
                p.volume_L if p.flush_id is None else None,
                p.ec_uS_cm,
                p.plant_id is not None,
            )
        )


def last_pours(
    session: Session, pot_ids: Iterable[int], since: date, today: date, most: int
) -> dict[int, list[PourRow]]:
    """The newest pours of many pots that reach the roots and whose EC is known, at most so many of each and none
    before a day; by pot, oldest first.
    """
    newest = func.row_number().over(partition_by=Pour.pot_id, order_by=(Pour.on.desc(), Pour.id.desc()))
    known = (
        select(Pour.id, newest.label("nth"))
        .where(Pour.pot_id.in_(among()), Pour.archived_at.is_(None), Pour.on >= since, Pour.on <= today)
        .where(Pour.route.in_(WETTING_ROUTES), Pour.ec_uS_cm.is_not(None))
        .subquery()
    )
    found = (
        select(*_POUR, *_RUNOFF)
        .join(known, (known.c.id == Pour.id) & (known.c.nth <= most))
        .outerjoin(Runoff, Runoff.pour_id == Pour.id)
        .order_by(Pour.on, Pour.id)
    )
    out: dict[int, list[PourRow]] = {}
    for row in columns(session, found, ids=listed(pot_ids)):
        p = _pour_row(tuple(row))
        out.setdefault(p.pot_id, []).append(p)
    return out


def _pour_row(row: tuple[Any, ...]) -> PourRow:
    there, *runoff = row[len(_POUR) :]
    what: list[Any] = [*row[: len(_POUR)], None if there is None else RunoffRow(*runoff)]
    return PourRow(*what)


def _readings(session: Session, logs: Mapping[int, LogRows]) -> None:
    """Give each log what was read between its pours, the crusts that looks saw, and how wet a finger felt it."""
    for pot_id, readings in readings_from(session, {i: _begins(x) for i, x in logs.items()}).items():
        x = logs[pot_id]
        seen = [PotReading(k.on, crust="clear") for k in x.looks if CRUST in k.marks and k.on >= _begins(x)]
        mix = x.pot.repotted_on or date.min
        x.readings = [r for r in sorted([*seen, *readings], key=lambda r: r.on) if r.on >= mix]


def readings_from(session: Session, since: Mapping[int, date]) -> dict[int, list[PotReading]]:
    """Readings of pots that hang on no pour, and how wet a finger felt them on days without one: on others nobody
    knows which came first.
    """
    out: dict[int, list[PotReading]] = {pot_id: [] for pot_id in since}
    ids = listed(since)
    for r in columns(session, _BETWEEN, ids=ids):
        if r.pot_id is not None and r.on is not None and r.on >= since[r.pot_id]:
            out[r.pot_id].append(as_reading(r))
    for pot_id, on, moist in columns(session, _FELT, ids=ids):
        if on >= since[pot_id]:
            out[pot_id].append(PotReading(on, moist=moist))
    return out


def readings_of(session: Session, pot_id: int, looks: Iterable[Look]) -> list[PotReading]:
    """Readings of one pot between its pours, the crusts these looks saw, and how wet a finger felt it."""
    seen = [PotReading(x.on, crust="clear") for x in looks if CRUST in x.marks]
    return sorted([*seen, *readings_from(session, {pot_id: date.min})[pot_id]], key=lambda r: r.on)
