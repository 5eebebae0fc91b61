"""Which plant a changed one is held against: its division or sibling first, else a pot alike."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache

SAME_CHANGE_DAYS = 45  # a twin that had the same change so near it is none
LIKE_VOLUME = 1.3  # ratio of pot volumes that is alike
ENOUGH_BEFORE = 6  # more values from before make a twin no better


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
    near = [on for on, k in twin.changes if k == kind]
    return any(abs((on - change_on).days) <= SAME_CHANGE_DAYS for on in near)


def twins_of(
    plant: PlantFacts, others: Sequence[PlantFacts], values: Mapping[int, tuple[int, int]], change_on: date, kind: str
) -> list[Twin]:
    """Plants that can stand beside a changed one, the most alike first; of its kind, measured before and after it.

    ``values``: by plant, how many values it has from before the change and how many that can answer it.
    """
    found = []
    for o in others:
        before, after = values.get(o.id, (0, 0))
        if not before or not after or o.id == plant.id or o.kind != plant.kind or o.kind == "unknown":
            continue
        if _had_it_too(o, change_on, kind):
            continue
        family = not o.family.isdisjoint(plant.family)
        most, least = (o.volume_L, plant.volume_L) if o.volume_L > plant.volume_L else (plant.volume_L, o.volume_L)
        same = (o.place == plant.place, o.medium == plant.medium, most <= LIKE_VOLUME * least)
        order = (not family, -sum(same), -before if before < ENOUGH_BEFORE else -ENOUGH_BEFORE, o.id)
        found.append((order, o.name, _why(family, same)))
    return [Twin(order[-1], name, why) for order, name, why in sorted(found)]


@cache
def _why(family: bool, same: tuple[bool, bool, bool]) -> str:
    words = ("same place", "same medium", "like pot")
    return ", ".join(
        ["division or sibling" if family else "same kind"] + [w for w, yes in zip(words, same, strict=True) if yes]
    )
