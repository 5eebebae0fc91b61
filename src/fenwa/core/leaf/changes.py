"""What changed between two days, and which leaf was formed after it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from fenwa.core.leaf.line import UNKNOWN_LEAF_DAYS
from fenwa.core.leaf.sizes import SeenLeaf, finished_mm
from fenwa.core.leaf.timing import Formed, begun_on, formed_against, plastochron

NEAR_DAYS = 10  # a length of so near a day stands for that day


@dataclass(frozen=True)
class Happened:
    """A change of a day, in words."""

    on: date
    words: str
    flush: bool = False


@dataclass(frozen=True)
class LeafBetween:
    """A leaf on two days. None: not measured near that day, or not there yet. [mm]"""

    number: int
    opened_on: date
    before_mm: float | None
    after_mm: float | None
    formed: Formed | str


@dataclass(frozen=True)
class Between:
    """Days between, what happened, and the leaves with what they can answer."""

    days: int
    happened: tuple[Happened, ...]
    leaves: tuple[LeafBetween, ...]
    formed_after: int
    sentence: str


def length_on(leaf: SeenLeaf, on: date) -> float | None:
    """A leaf's length on a day: measured near it, else its finished size where it had that before; None. [mm]"""
    close = [(abs((x.on - on).days), x.mm) for x in leaf.lengths if abs((x.on - on).days) <= NEAR_DAYS]
    if close:
        return min(close)[1]
    before = tuple(x for x in leaf.lengths if x.on <= on)
    return finished_mm(SeenLeaf(leaf.opened_on, before)) if before else None


def between(
    *,
    leaves: Sequence[SeenLeaf],
    changes: Sequence[Happened],
    before_on: date,
    after_on: date,
    lag_days: tuple[int, int],
) -> Between:
    """What happened between two days, and how each leaf stands to the first change that leaves can answer.

    The first flush if there was one, else the first change. Without a change a leaf is only older or newer.
    """
    ordered = sorted(leaves, key=lambda x: x.opened_on)
    rhythm = plastochron([x.opened_on for x in ordered])
    gap = rhythm[0] if rhythm else UNKNOWN_LEAF_DAYS
    judged = next((c for c in changes if c.flush), next(iter(changes), None))
    rows = []
    after = 0
    for i, leaf in enumerate(ordered, 1):
        formed: str = ""
        if judged is not None:
            formed = formed_against(leaf.opened_on, begun_on(leaf.opened_on, gap), judged.on)[0]
        after += formed == "formed after"
        rows.append(
            LeafBetween(leaf.number or i, leaf.opened_on, length_on(leaf, before_on), length_on(leaf, after_on), formed)
        )
    days = (after_on - before_on).days
    if judged is None:
        said = f"{days} days, and nothing was changed between: what differs is growth."
    elif after:
        said = f"{days} days. {after} {'leaf was' if after == 1 else 'leaves were'} formed after the {judged.words}."
    else:
        said = f"{days} days. No leaf was formed after the {judged.words} yet: {lag_days[0]} days at least."
    return Between(days, tuple(changes), tuple(rows), after, said)
