"""What a round is made of: waters, cans, the pots that share them, the way along the shelves."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from fenwa.core.care.due import Job, RoundPot
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.dose import StrengthMode
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Working

SPARE = 1.05  # a can holds a little more than the pots take


@dataclass(frozen=True)
class RoundWater:
    """A water the cans may be filled with."""

    id: int
    name: str
    base: BaseWater


@dataclass(frozen=True)
class CanPot:
    """A pot's share of a can. [mL]"""

    pot_id: int
    code: str
    name: str
    place: str
    amount_mL: float
    route: str
    isolated: bool
    why: str
    row: int = 0  # pots of one number stand in a row and get the same


@dataclass(frozen=True)
class Can:
    """One can: what is in it, how much, and who gets it. [L, µS/cm]"""

    letter: str
    job: Job
    title: str
    water_id: int
    water_name: str
    volume_L: float
    ec_uS_cm: float
    ec_low_uS_cm: float
    ec_high_uS_cm: float
    nitrogen_mg_L: float
    strength: StrengthMode | None
    strength_value: float
    weighing: str
    why: str
    dose: Dose | None
    working: Working | None
    pots: tuple[CanPot, ...]


@dataclass(frozen=True)
class Look:
    """A pot to look at and not to pour, or to pour only plain."""

    pot_id: int
    code: str
    name: str
    reason: str
    release: str


@dataclass(frozen=True)
class Leg:
    """A part of the walk: pots that get one can, in order."""

    letter: str
    pot_ids: tuple[int, ...]


@dataclass(frozen=True)
class RoundPlan:
    """Today's work, and the walk through it."""

    cans: tuple[Can, ...]
    looks: tuple[Look, ...]
    pots_due: int
    minutes: float
    legs: tuple[Leg, ...] = ()
    saving: str = ""
    clean_hands: str = ""


def walk_of(pots: list[RoundPot]) -> list[RoundPot]:
    return sorted(pots, key=lambda p: (p.isolated, p.shelf_order, p.code))


def shares_of(pots: list[RoundPot]) -> tuple[CanPot, ...]:
    return in_rows(
        CanPot(p.id, p.code, p.name, p.place, round(p.volume_L * 1000, -1), p.route, p.isolated, p.ready.sentence)
        for p in walk_of(pots)
    )


def in_rows(shares: Iterable[CanPot]) -> tuple[CanPot, ...]:
    """Numbers the rows of a can: neighbours in walking order that get the same amount by the same route.

    An isolated pot is a row of its own: hands are washed between.
    """
    out: list[CanPot] = []
    for share in shares:
        before = out[-1] if out else None
        alike = (
            before is not None
            and not share.isolated
            and not before.isolated
            and ((share.amount_mL, share.route, share.place) == (before.amount_mL, before.route, before.place))
        )
        out.append(replace(share, row=0 if before is None else before.row if alike else before.row + 1))
    return tuple(out)


def legs_of(cans: tuple[Can, ...]) -> tuple[Leg, ...]:
    """The walk: can by can in their order, and every isolated pot after all others, whatever it gets.

    What drips or clings goes from the healthy to the suspect and never back (hygiene of the order of the day).
    """
    parts = [(c.letter, tuple(p.pot_id for p in c.pots if p.isolated is last)) for last in (False, True) for c in cans]
    return tuple(Leg(letter, ids) for letter, ids in parts if ids)


def litres_for(pots: list[RoundPot]) -> float:
    return math.ceil(sum(p.volume_L for p in pots) * SPARE * 10) / 10
