"""Leaves of many plants with their lengths, and the days they were fed and flushed."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.leaf.sizes import LeafLength, SeenLeaf
from fenwa.store.models import Growth, Leaf, Look, Pour


def leaves_of(session: Session, plant_ids: Iterable[int], today: date) -> dict[int, list[SeenLeaf]]:
    """Leaves of each plant with what was measured of them, up to today."""
    ids = list(plant_ids)
    rows = session.execute(
        select(Growth.plant_id, Leaf.id, Leaf.opened_on)
        .join(Leaf, Leaf.growth_id == Growth.id)
        .where(Growth.plant_id.in_(ids), Leaf.archived_at.is_(None), Leaf.opened_on <= today, Leaf.organ == "leaf")
        .order_by(Leaf.opened_on, Leaf.id)
    ).all()
    looks = session.execute(
        select(Look.leaf_id, Look.on, Look.newest_leaf_mm, Look.leaf_growing)
        .where(
            Look.plant_id.in_(ids),
            Look.archived_at.is_(None),
            Look.on <= today,
            Look.leaf_id.is_not(None),
            Look.newest_leaf_mm.is_not(None),
        )
        .order_by(Look.on, Look.id)
    )
    lengths: dict[int, list[LeafLength]] = {}
    for leaf_id, on, mm, growing in looks:
        if leaf_id is not None and mm is not None:
            lengths.setdefault(leaf_id, []).append(LeafLength(on, mm, growing))
    out: dict[int, list[SeenLeaf]] = {}
    for plant_id, leaf_id, opened_on in rows:
        out.setdefault(plant_id, []).append(SeenLeaf(opened_on, tuple(lengths.get(leaf_id, ()))))
    return out


def poured_days(session: Session, pot_ids: Sequence[int], since: date, today: date) -> dict[int, dict[str, list[date]]]:
    """Days each pot was fed and flushed, each day once."""
    rows = session.execute(
        select(Pour.pot_id, Pour.job, Pour.on)
        .where(
            Pour.pot_id.in_(pot_ids),
            Pour.archived_at.is_(None),
            Pour.job.in_(("feed", "flush")),
            Pour.on >= since,
            Pour.on <= today,
        )
        .order_by(Pour.on)
        .distinct()
    )
    out: dict[int, dict[str, list[date]]] = {}
    for pot_id, job, on in rows:
        out.setdefault(pot_id, {"feed": [], "flush": []})[job].append(on)
    return out
