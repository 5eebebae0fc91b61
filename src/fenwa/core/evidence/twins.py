"""Which plant a changed one is held against: its division or sibling first, else a pot alike."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

SAME_CHANGE_DAYS = 45  # a twin that had the same change so near it is none
LIKE_VOLUME = 1.3  # ratio of pot volumes that is alike


@dataclass(frozen=True)
class PlantFacts:
    """What makes two plants alike. ``family``: its mother's id and its own; ``changes``: days and kinds of its own."""

    id: int
    name: str
    kind: str
    family: frozenset[int]
    place: str
    medium: str
    volume_L: float
    changes: tuple[tuple[date, str], ...] = ()


@dataclass(frozen=True)
class Twin:
    """A plant to hold against, and why this one."""

    id: int
    name: str
    why: str


def _had_it_too(twin: PlantFacts, change_on: date, kind: str) -> bool:
    return any(k == kind and abs((on - change_on).days) <= SAME_CHANGE_DAYS for on, k in twin.changes)


def twins_of(
    plant: PlantFacts, others: Sequence[PlantFacts], values: Mapping[int, tuple[int, int]], change_on: date, kind: str
) -> list[Twin]:
    """Plants that can stand beside a changed one, the most alike first; of its kind, measured before and after it.

    ``values``: by plant, how many values it has from before the change and how many that can answer it.
    """
    found: list[tuple[tuple[int, ...], Twin]] = []
    for o in others:
        before, after = values.get(o.id, (0, 0))
        if not before or not after or o.id == plant.id or o.kind != plant.kind or o.kind == "unknown":
            continue
        if _had_it_too(o, change_on, kind):
            continue
        family = bool(o.family & plant.family)
        same = [
            ("same place", o.place == plant.place),
            ("same medium", o.medium == plant.medium),
            ("like pot", max(o.volume_L, plant.volume_L) / min(o.volume_L, plant.volume_L) <= LIKE_VOLUME),
        ]
        why = ", ".join((["division or sibling"] if family else ["same kind"]) + [w for w, yes in same if yes])
        order = (-int(family), -sum(yes for _, yes in same), -min(before, 6), o.id)
        found.append((order, Twin(o.id, o.name, why)))
    return [t for _, t in sorted(found, key=lambda pair: pair[0])]
