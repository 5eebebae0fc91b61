"""Where plants came from and what became of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from statistics import median

SETTLED_DAYS = 90  # a plant that died later died of its grower; judgement


@dataclass(frozen=True)
class Arrival:
    """A plant with its end, if it has one, and the first leaf it opened here. None: not told."""

    source: str
    arrived_on: date | None
    died_on: date | None
    cause: str
    first_leaf_on: date | None


@dataclass(frozen=True)
class Supplier:
    """A source with its plants; ``lost_early``: within 90 days. None: nothing tells. [d]"""

    name: str
    plants: int
    alive: int
    lost_early: int
    causes: tuple[str, ...]
    first_leaf_days: float | None
    sentence: str


def suppliers_of(arrivals: Sequence[Arrival], today: date) -> list[Supplier]:
    """Each source with what became of its plants, the most plants first; plants without a source are left out."""
    by_name: dict[str, list[Arrival]] = {}
    for a in arrivals:
        if a.source.strip():
            by_name.setdefault(a.source.strip(), []).append(a)
    out = []
    for name, plants in by_name.items():
        dead = [a for a in plants if a.died_on is not None and a.died_on <= today]
        early = [
            a
            for a in dead
            if a.arrived_on is not None and a.died_on is not None and (a.died_on - a.arrived_on).days <= SETTLED_DAYS
        ]
        leaf_days = [
            (a.first_leaf_on - a.arrived_on).days
            for a in plants
            if a.first_leaf_on is not None and a.arrived_on is not None
        ]
        days = float(median(leaf_days)) if leaf_days else None
        said = f"{len(plants)} {'plant' if len(plants) == 1 else 'plants'}, {len(plants) - len(dead)} alive"
        said += f", {len(early)} lost within {SETTLED_DAYS} days" if early else ""
        said += f", first leaf after {days:.0f} days" if days is not None else ""
        causes = tuple(sorted({a.cause for a in dead if a.cause}))
        out.append(Supplier(name, len(plants), len(plants) - len(dead), len(early), causes, days, said + "."))
    return sorted(out, key=lambda s: (-s.plants, s.name))
