"""Schools of feeding held against each other across a collection: salt, leaves and losses, with their honesty."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from statistics import median

from fenwa.core.evidence.pairs import EffectFound, effect_of_groups
from fenwa.core.leaf.sizes import SeenLeaf, finished, usual_length
from fenwa.core.working import Computed

NEWEST = 2  # finished leaves that tell how a plant does now; judgement
MOST_PLANTS = 60  # of a school in the exact test


@dataclass(frozen=True)
class SchoolPlant:
    """A plant as a school shows in it. Shares None: nothing was predicted or measured."""

    salt_share: float | None
    over_ceiling: bool
    leaf_share: float | None
    leaves_lost: int


@dataclass(frozen=True)
class SchoolSeen:
    """A school across the collection: plants, salt as a share of their ceilings, leaves as a share of usual, lost.

    None: nothing was predicted or measured.
    """

    school: str
    plants: int
    salt_share: float | None
    over_ceiling: int
    leaf_share: float | None
    leaves_lost: int


@dataclass(frozen=True)
class SchoolsCompared:
    """Schools, that of most plants first, and the difference of the first two with leaves. None: too few."""

    schools: tuple[SchoolSeen, ...]
    first: str
    second: str
    leaves: Computed[EffectFound] | None
    sentence: str


def newest_share(leaves: Sequence[SeenLeaf], today: date) -> float | None:
    """The newest finished leaves as a share of the plant's usual length, geometric mean. None: none finished."""
    usual, done = usual_length(list(leaves), today), finished(leaves)[-NEWEST:]
    return math.exp(sum(math.log(x.mm / usual) for x in done) / len(done)) if usual and done else None


def compare_schools(plants: Mapping[str, Sequence[SchoolPlant]]) -> SchoolsCompared:
    """Which school does what. Nobody drew by coin who is fed how: whatever differs may have other reasons."""
    rows = []
    for name, mine in plants.items():
        salts = [p.salt_share for p in mine if p.salt_share is not None]
        known = [p.leaf_share for p in mine if p.leaf_share is not None]
        rows.append(
            SchoolSeen(
                school=name,
                plants=len(mine),
                salt_share=median(salts) if salts else None,
                over_ceiling=sum(p.over_ceiling for p in mine),
                leaf_share=median(known) if known else None,
                leaves_lost=sum(p.leaves_lost for p in mine),
            )
        )
    rows.sort(key=lambda r: (-r.plants, r.school))
    named = [r.school for r in rows if r.leaf_share is not None][:2]
    first, second = (named + ["", ""])[:2]
    if len(named) < 2:
        return SchoolsCompared(tuple(rows), first, second, None, "Fewer than two schools have leaves to compare.")
    a, b = ([math.log(p.leaf_share) for p in plants[n] if p.leaf_share] for n in named)
    effect = effect_of_groups(changed=a[:MOST_PLANTS], unchanged=b[:MOST_PLANTS])
    said = f"{first} against {second}: {effect.result.sentence} Nobody drew by coin who is fed how: weak."
    return SchoolsCompared(tuple(rows), first, second, effect, said)
