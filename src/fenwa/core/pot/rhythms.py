"""Changes of a rhythm: larger pours, thinner feed, other water, a rinse now and then."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal, get_args

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.pot.ahead import Rhythm
from fenwa.core.pot.specification import PotSpec, capacity_L

WhatIf = Literal[
    "as it is",
    "pours half as large again",
    "three quarters of the feed",
    "the purest water",
    "every fourth pour a rinse",
]
WHAT_IFS: tuple[WhatIf, ...] = get_args(WhatIf)
RINSE_TIMES = 2.0  # of a usual pour
LONGEST = 48  # pours of a sequence that is repeated


def larger(r: Rhythm, times: float) -> Rhythm:
    """Every pour so many times as large."""
    return replace(r, volumes_L=tuple(v * times for v in r.volumes_L))


def thinner(r: Rhythm, keep: float, base_uS_cm: float) -> Rhythm:
    """A share of the feed above its water. [µS/cm]"""
    return replace(r, ecs_uS_cm=tuple(base_uS_cm + (ec - base_uS_cm) * keep for ec in r.ecs_uS_cm))


def other_water(r: Rhythm, water_uS_cm: float, base_uS_cm: float) -> Rhythm:
    """The same feed in another water. [µS/cm]"""
    return replace(r, ecs_uS_cm=tuple(max(0.0, ec - base_uS_cm) + water_uS_cm for ec in r.ecs_uS_cm))


def rinsed(r: Rhythm, every: int, pot: PotSpec, base_uS_cm: float) -> Rhythm:
    """Every so many pours one plain and larger, draining freely. [µS/cm]"""
    n = len(r.volumes_L)
    k = every * n if every * n <= LONGEST else every
    volumes, ecs, shares = [], [], []
    for i in range(k):
        rinse = i % every == every - 1
        volumes.append(rinse_L(r, pot) if rinse else r.volumes_L[i % n])
        ecs.append(base_uS_cm if rinse else r.ecs_uS_cm[i % n])
        shares.append(r.ballast_shares[i % n] if r.ballast_shares else None)
    return Rhythm(r.interval_d, tuple(volumes), tuple(ecs), tuple(shares))


def rinse_L(r: Rhythm, pot: PotSpec) -> float:
    """What a rinse is poured: twice a usual pour, or what the pot holds. [L]"""
    return RINSE_TIMES * max(sum(r.volumes_L) / len(r.volumes_L), capacity_L(pot) / 2)


def litres_month(r: Rhythm) -> float:
    """Water a month. [L]"""
    return sum(r.volumes_L) / len(r.volumes_L) / r.interval_d * DAYS_A_MONTH


def feed_share(r: Rhythm, before: Rhythm) -> float:
    """What of its salt a rhythm still brings, pour for pour."""
    return (sum(r.ecs_uS_cm) / len(r.ecs_uS_cm)) / max(sum(before.ecs_uS_cm) / len(before.ecs_uS_cm), 1e-9)


def with_what_if(r: Rhythm, what: WhatIf, pot: PotSpec, base_uS_cm: float, purest_uS_cm: float) -> Rhythm:
    """A pot's rhythm under one change of all; a pot that does not drain keeps its pours as they are.

    ``base_uS_cm``: water of its feed; ``purest_uS_cm``: the purest at hand it may have. [µS/cm]
    """
    base = min([base_uS_cm, *r.ecs_uS_cm])
    if what == "three quarters of the feed":
        return thinner(r, 0.75, base)
    if what == "the purest water":
        return other_water(r, min(purest_uS_cm, base), base)
    if what == "pours half as large again" and pot.drains:
        return larger(r, 1.5)
    if what == "every fourth pour a rinse" and pot.drains:
        return rinsed(r, 4, pot, base)
    return r
