"""What a round is made of: waters, cans, the pots that share them, the way along the shelves."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from operator import attrgetter

from fenwa.core.care.acts import then_of
from fenwa.core.care.due import Job, RoundPot
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.dose import StrengthMode
from fenwa.core.mix.feed import ProductSlope
from fenwa.core.mix.label import Label
from fenwa.core.mix.school import FeedRoute
from fenwa.core.once import changed, once_for
from fenwa.core.pace import in_steps
from fenwa.core.pot.specification import Route
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Working

MIN_IN_A_ROW = 3  # two alike pots are as quick one by one
_FEED_INTO = {"cup": "feed into the cup", "moss pole": "feed on the moss pole", "reservoir": "feed into the reservoir"}
SMALL_POUR_mL, SMALL_STEP_mL, LARGE_STEP_mL = 150.0, 10.0, 50.0


@dataclass(frozen=True)
class RoundWater:
    """A water the cans may be filled with."""

    id: int
    name: str
    base: BaseWater


@dataclass(frozen=True)
class RoundFeed:
    """A feed its grower owns, with its own measured slope if it has one. [µS/cm per g/L]"""

    id: int
    name: str
    label: Label
    slope: ProductSlope | None = None


@dataclass(frozen=True)
class CanPot:
    """A pot's share of a can. [mL]"""

    pot_id: int
    code: str
    name: str
    place: str
    amount_mL: float
    route: Route
    isolated: bool
    why: str
    given: str  # what it gets, in a word
    step_mL: float  # what one tap of more or less changes
    row: int = 0  # pots of one number stand in a row and get the same
    then: str = ""  # what goes with it: dry the crown, tip out
    together: bool = False  # enough of them to be poured in one go


@dataclass(frozen=True, kw_only=True)
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
    water_measured: bool
    to_mix: bool  # something is weighed into it: it is mixed and read before the first pour
    product_id: int | None = None  # what is weighed into it
    product: str = ""
    made_for: FeedRoute = "root"


@dataclass(frozen=True)
class PotToCheck:
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
    looks: tuple[PotToCheck, ...]
    pots_due: int
    minutes: float
    legs: tuple[Leg, ...] = ()
    saving: str = ""
    clean_hands: str = ""


def can_pot(p: RoundPot, job: Job, amount_mL: float, route: Route, why: str) -> CanPot:
    """A pot's share of a can, with what a walk says and offers of it. [mL]"""
    return CanPot(
        pot_id=p.id,
        code=p.code,
        name=p.name,
        place=p.place,
        amount_mL=amount_mL,
        route=route,
        isolated=p.isolated,
        why=why,
        given=given(job, route),
        step_mL=SMALL_STEP_mL if amount_mL < SMALL_POUR_mL else LARGE_STEP_mL,
        then=then_of(route, p.crown, p.soak_min, p.stand_min),
    )


def given(job: Job, route: str) -> str:
    """What a pot gets, in a word: where it goes to the tray, that is what matters."""
    if job == "flush":
        return "flush"
    if route == "tray":
        return "into the tray"
    if job == "feed" and route in _FEED_INTO:
        return _FEED_INTO[route]
    return "plain water" if job == "plain" else job


def walk_of(pots: list[RoundPot]) -> Iterator[RoundPot]:
    """Pots in the order they are walked."""
    return in_steps(sorted(pots, key=attrgetter("walk")))


def shares_of(pots: list[RoundPot], job: Job) -> tuple[CanPot, ...]:
    """What each pot gets of a can, in rows."""
    return in_rows(_share_of(p, job) for p in walk_of(pots))


@once_for
def _share_of(p: RoundPot, job: Job) -> CanPot:
    held = p.feed_held if job == "plain" else ""
    why = " ".join(x for x in (p.urgent, p.ready.sentence, held) if x)
    return can_pot(p, job, round(p.volume_L * 1000, -1), poured_by(p, job), why)


def poured_by(p: RoundPot, job: Job) -> Route:
    """The way a pot gets this job: a feed as its plan has it, all else as it is watered."""
    return p.feed_route if job == "feed" and p.feed_route is not None else p.route


def made_for(p: RoundPot) -> FeedRoute:
    """The way a pot's feed is mixed for: what goes into a cup or on a moss pole is never shared with a root."""
    way = poured_by(p, "feed")
    return way if way in ("cup", "moss pole") else "root"


def in_rows(shares: Iterable[CanPot]) -> tuple[CanPot, ...]:
    """Numbers the rows of a can: neighbours in walking order that get the same amount by the same route.

    An isolated pot is a row of its own: hands are washed between.
    """
    walked = list(shares)
    rows: list[int] = []
    for i, share in enumerate(in_steps(walked)):
        before = walked[i - 1] if i else None
        alike = before is not None and not share.isolated and not before.isolated and _same(share) == _same(before)
        rows.append(0 if before is None else rows[-1] if alike else rows[-1] + 1)
    length = Counter(rows)
    return tuple(
        changed(share, row=row, together=length[row] >= MIN_IN_A_ROW)
        for share, row in zip(in_steps(walked), rows, strict=True)
    )


def _same(share: CanPot) -> tuple[object, ...]:
    """What pots of one row have in common."""
    return share.amount_mL, share.route, share.place, share.then


def legs_of(cans: tuple[Can, ...]) -> tuple[Leg, ...]:
    """The walk: can by can in their order, and every isolated pot after all others, whatever it gets.

    What drips or clings goes from the healthy to the suspect and never back (hygiene of the order of the day).
    """
    healthy, isolated = list[Leg](), list[Leg]()
    for c in in_steps(cans):
        with_others = tuple([p.pot_id for p in c.pots if not p.isolated])
        if with_others:
            healthy.append(Leg(c.letter, with_others))
        if len(with_others) < len(c.pots):
            isolated.append(Leg(c.letter, tuple([p.pot_id for p in c.pots if p.isolated])))
    return (*healthy, *isolated)
