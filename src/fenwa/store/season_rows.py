"""A plant's life as seasons read it: pours with nitrogen, heights, leaves, nights, flowers, phases."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.core.evidence.seasons import SeasonPoint, SeasonPour
from fenwa.store.models import Batch, Climate, Growth, Leaf, Look, OrganRow, PhaseSpan, Pour


def phases_noted(session: Session, plant_id: int) -> list[tuple[date, str]]:
    """Phases of the leading growth, oldest first."""
    rows = session.execute(
        select(PhaseSpan.since, PhaseSpan.phase)
        .join(Growth, Growth.id == PhaseSpan.growth_id)
        .where(Growth.plant_id == plant_id, Growth.leads, PhaseSpan.archived_at.is_(None))
        .order_by(PhaseSpan.since, PhaseSpan.id)
    )
    return [(on, phase) for on, phase in rows]


def season_pours(session: Session, pot_id: int, since: date, until: date) -> tuple[SeasonPour, ...]:
    """Pours of a pot between two days, by day since the first. Nitrogen None: a feed of unknown strength."""
    rows = session.execute(
        select(Pour.on, Pour.job, Pour.volume_L, Pour.ec_uS_cm, Batch.nitrogen_mg_L)
        .outerjoin(Batch, Batch.id == Pour.batch_id)
        .where(Pour.pot_id == pot_id, Pour.archived_at.is_(None), Pour.on >= since, Pour.on <= until)
        .order_by(Pour.on, Pour.id)
    )
    return tuple(
        SeasonPour((on - since).days, volume, nitrogen if job == "feed" else 0.0, ec)
        for on, job, volume, ec, nitrogen in rows
    )


def heights_between(
    session: Session, plant_id: int, since: date, until: date, growth_id: int | None = None
) -> tuple[SeasonPoint, ...]:
    """Heights of the leading growth, or of one growth, by day since the first. [cm]"""
    mine = select(Look.on, Look.growth_cm).where(
        Look.plant_id == plant_id,
        Look.archived_at.is_(None),
        Look.growth_cm.is_not(None),
        Look.on >= since,
        Look.on <= until,
    )
    if growth_id is not None:
        mine = mine.where(Look.growth_id == growth_id)
    rows = session.execute(mine.order_by(Look.on, Look.id))
    return tuple(SeasonPoint((on - since).days, cm) for on, cm in rows if cm is not None)


def leaves_between(
    session: Session, plant_id: int, since: date, until: date, growth_id: int | None = None
) -> tuple[int, ...]:
    """Days since the first on which leaves opened."""
    mine = (
        select(Leaf.opened_on)
        .join(Growth, Growth.id == Leaf.growth_id)
        .where(
            Growth.plant_id == plant_id,
            Leaf.archived_at.is_(None),
            Leaf.organ == "leaf",
            Leaf.opened_on >= since,
            Leaf.opened_on <= until,
        )
    )
    if growth_id is not None:
        mine = mine.where(Leaf.growth_id == growth_id)
    return tuple((on - since).days for on in session.scalars(mine.order_by(Leaf.opened_on)))


def nights_between(session: Session, place_id: int, since: date, until: date) -> tuple[SeasonPoint, ...]:
    """Coldest nights of a place, by day since the first. [°C]"""
    rows = session.execute(
        select(Climate.on, Climate.night_C)
        .where(
            Climate.place_id == place_id,
            Climate.archived_at.is_(None),
            Climate.night_C.is_not(None),
            Climate.on >= since,
            Climate.on <= until,
        )
        .order_by(Climate.on)
    )
    return tuple(SeasonPoint((on - since).days, night) for on, night in rows if night is not None)


def flowers_between(session: Session, plant_id: int, since: date, until: date) -> float | None:
    """Most flowers a look counted between two days; None: none were counted."""
    return session.scalars(
        select(func.max(OrganRow.count))
        .join(Look, Look.id == OrganRow.look_id)
        .where(
            Look.plant_id == plant_id,
            Look.archived_at.is_(None),
            OrganRow.archived_at.is_(None),
            OrganRow.organ == "flowers",
            Look.on >= since,
            Look.on <= until,
        )
    ).first()


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
