"""A plant's life as seasons read it: pours with nitrogen, heights, leaves, nights, flowers, phases."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from datetime import date

from sqlalchemy import and_, func, literal, or_, select
from sqlalchemy.orm import Session

from fenwa.core.evidence.seasons import SeasonLog, SeasonPoint, SeasonPour
from fenwa.store.look_rows import of_leading
from fenwa.store.models import Batch, Climate, Growth, Leaf, Look, OrganRow, PhaseSpan, Pour
from fenwa.store.pot_today import PotToday


def phases_noted(session: Session, plant_id: int) -> list[tuple[date, str]]:
    """Phases of the leading growth, oldest first."""
    rows = session.execute(
        select(PhaseSpan.since, PhaseSpan.phase)
        .join(Growth, Growth.id == PhaseSpan.growth_id)
        .where(Growth.plant_id == plant_id, Growth.leads, PhaseSpan.archived_at.is_(None))
        .order_by(PhaseSpan.since, PhaseSpan.id)
    )
    return [(on, phase) for on, phase in rows]


def season_pours(session: Session, pot_ids: Collection[int], since: date, until: date) -> dict[int, list[SeasonPour]]:
    """Pours of pots between two days, by day since the first. Nitrogen None: a feed of unknown strength."""
    rows = session.execute(
        select(Pour.pot_id, Pour.on, Pour.job, Pour.volume_L, Pour.ec_uS_cm, Batch.nitrogen_mg_L)
        .outerjoin(Batch, Batch.id == Pour.batch_id)
        .where(Pour.pot_id.in_(pot_ids), Pour.archived_at.is_(None), Pour.on >= since, Pour.on <= until)
        .order_by(Pour.on, Pour.id)
    )
    out: dict[int, list[SeasonPour]] = {}
    for pot_id, on, job, volume, ec, nitrogen in rows:
        pour = SeasonPour((on - since).days, volume, nitrogen if job == "feed" else 0.0, ec)
        out.setdefault(pot_id, []).append(pour)
    return out


def heights_between(
    session: Session, plant_ids: Collection[int], since: date, until: date, growth_id: int | None = None
) -> dict[int, list[SeasonPoint]]:
    """Heights of the leading growth of plants, or of one growth, by day since the first. [cm]

    A look names its growth where that does not lead. One that names none is of the growth whose leaf it measured, and
    without a leaf of the one that leads now.
    """
    mine = (
        select(Look.plant_id, Look.on, Look.growth_cm)
        .outerjoin(Leaf, Leaf.id == Look.leaf_id)
        .where(
            Look.plant_id.in_(plant_ids),
            Look.archived_at.is_(None),
            Look.growth_cm.is_not(None),
            Look.on >= since,
            Look.on <= until,
        )
    )
    if growth_id is None:
        mine = mine.where(of_leading())
    else:
        leads = select(Growth.id).where(Growth.leads)
        named = func.coalesce(Look.growth_id, Leaf.growth_id)
        mine = mine.where(or_(named == growth_id, and_(named.is_(None), literal(growth_id).in_(leads))))
    out: dict[int, list[SeasonPoint]] = {}
    for plant_id, on, cm in session.execute(mine.order_by(Look.on, Look.id)):
        if cm is not None:
            out.setdefault(plant_id, []).append(SeasonPoint((on - since).days, cm))
    return out


def leaves_between(
    session: Session, plant_ids: Collection[int], since: date, until: date, growth_id: int | None = None
) -> dict[int, list[int]]:
    """Days since the first on which leaves of plants opened."""
    mine = (
        select(Growth.plant_id, Leaf.opened_on)
        .join(Growth, Growth.id == Leaf.growth_id)
        .where(
            Growth.plant_id.in_(plant_ids),
            Leaf.archived_at.is_(None),
            Leaf.organ == "leaf",
            Leaf.opened_on >= since,
            Leaf.opened_on <= until,
        )
    )
    if growth_id is not None:
        mine = mine.where(Leaf.growth_id == growth_id)
    out: dict[int, list[int]] = {}
    for plant_id, on in session.execute(mine.order_by(Leaf.opened_on)):
        out.setdefault(plant_id, []).append((on - since).days)
    return out


def nights_between(
    session: Session, place_ids: Collection[int], since: date, until: date
) -> dict[int, list[SeasonPoint]]:
    """Coldest nights of places, by day since the first. [°C]"""
    rows = session.execute(
        select(Climate.place_id, Climate.on, Climate.night_C)
        .where(
            Climate.place_id.in_(place_ids),
            Climate.archived_at.is_(None),
            Climate.night_C.is_not(None),
            Climate.on >= since,
            Climate.on <= until,
        )
        .order_by(Climate.on)
    )
    out: dict[int, list[SeasonPoint]] = {}
    for place_id, on, night in rows:
        if night is not None:
            out.setdefault(place_id, []).append(SeasonPoint((on - since).days, night))
    return out


def flowers_between(session: Session, plant_ids: Collection[int], since: date, until: date) -> dict[int, float]:
    """Most flowers of plants a look counted between two days; no plant of which none were counted."""
    rows = session.execute(
        select(Look.plant_id, func.max(OrganRow.count))
        .join(OrganRow, OrganRow.look_id == Look.id)
        .where(
            Look.plant_id.in_(plant_ids),
            Look.archived_at.is_(None),
            OrganRow.archived_at.is_(None),
            OrganRow.organ == "flowers",
            Look.on >= since,
            Look.on <= until,
        )
        .group_by(Look.plant_id)
    )
    return {plant_id: most for plant_id, most in rows if most is not None}


def season_logs(
    session: Session, pots: Sequence[PotToday], since: date, until: date, growth_id: int | None = None
) -> dict[int, SeasonLog]:
    """What pots were given and their leading plants became, by pot. ``growth_id``: one growth of the only one."""
    plants, places = [p.plant_id for p in pots], {p.where.id for p in pots}
    pours = season_pours(session, [p.id for p in pots], since, until)
    heights = heights_between(session, plants, since, until, growth_id)
    leaves = leaves_between(session, plants, since, until, growth_id)
    nights = {place: tuple(x) for place, x in nights_between(session, places, since, until).items()}
    flowers = flowers_between(session, plants, since, until)
    return {
        p.id: SeasonLog(
            name=p.name,
            woke_on=since,
            days=(until - since).days,
            pours=tuple(pours.get(p.id, ())),
            heights=tuple(heights.get(p.plant_id, ())),
            leaves=tuple(leaves.get(p.plant_id, ())),
            nights=nights.get(p.where.id, ()),
            flowers=flowers.get(p.plant_id),
            lamp_hours=p.where.lamp_hours,
        )
        for p in pots
    }


def growths_seen(session: Session, plant_id: int) -> Sequence[tuple[Growth, date]]:
    """Growths of a plant with the first day a leaf of them opened, newest first; one without a leaf is left out."""
    rows = session.execute(
        select(Growth, func.min(Leaf.opened_on))
        .join(Leaf, Leaf.growth_id == Growth.id)
        .where(Growth.plant_id == plant_id, Growth.archived_at.is_(None), Leaf.archived_at.is_(None))
        .group_by(Growth.id)
        .order_by(func.min(Leaf.opened_on).desc())
    )
    return [(growth, on) for growth, on in rows]


def first_roots(session: Session, plant_id: int) -> str:
    """What the first look that counted roots saw; empty: none did."""
    row = session.execute(
        select(OrganRow.count, OrganRow.told)
        .join(Look, Look.id == OrganRow.look_id)
        .where(
            Look.plant_id == plant_id,
            Look.archived_at.is_(None),
            OrganRow.archived_at.is_(None),
            OrganRow.organ == "root tips",
        )
        .order_by(Look.on, Look.id)
        .limit(1)
    ).first()
    if row is None:
        return ""
    count, told = row
    if told == "none seen" or count == 0:
        return "none"
    return f"{count:g}" if count is not None else ""
