"""A pot's log as facts: what its pours, looks and phases leave behind for the day that asks."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from itertools import pairwise
from typing import Literal, NamedTuple

from fenwa.core.care.condition import Phase
from fenwa.core.care.pattern import FedSoFar
from fenwa.core.care.phase import GrowthMeasured
from fenwa.core.care.usual import roots_work

LoggedJob = Literal["feed", "plain", "flush"]
WATERINGS_KEPT = 13  # days of the last waterings: twelve gaps teach an interval
LOOKS_KEPT = 40  # looks that an arrival is judged by
CLEAN_LOOKS = 2
ROT_OVER_DAYS = 30  # judgement
USUAL_OF = 5  # the usual volume is the middle of so many pours

OFF_MEDIUM = ("cup", "moss pole", "leaf spray")  # what is poured there does not wet the medium

CRUST, LIMP, ROT, CRISP, ALGAE = "crust", "limp", "rot", "crisp", "algae"  # marks that rule a pot, as a look names them


class LoggedPour(NamedTuple):
    """A pour as far as the care of a pot goes. None: not measured. [L, µS/cm]"""

    on: date
    job: str
    route: str
    volume_L: float | None = None
    ec_uS_cm: float | None = None
    piece: bool = False  # one plant of several alone got it: the pot's own rhythm goes on


class LoggedLook(NamedTuple):
    """A look at a pot's plant. None: not measured. ``leads``: it saw the leading growth, not a side one. [cm, mm]

    A tuple, for every look of a pot is read at each of its pours.
    """

    on: date
    marks: tuple[str, ...] = ()
    marks_looked_for: bool = True
    new_leaf: bool = False
    new_growth: bool = False
    growth_stopped: bool = False
    spike: bool = False
    root_cm: float | None = None
    roots_working: bool | None = None
    leaves_count: int | None = None
    newest_leaf_mm: float | None = None
    growth_cm: float | None = None
    roots_cm: tuple[float, ...] = ()
    leads: bool = True


@dataclass(frozen=True)
class LoggedPhase:
    """A phase of the leading growth from a day on."""

    phase: Phase
    since: date


@dataclass(frozen=True)
class LogFacts:
    """Where the log leaves a pot. None: never, or not known. [mL, L, µS/cm, cm, mm]"""

    feeds_since_plain: int = 0
    plains_since_feed: int = 0
    last_pour_on: date | None = None
    last_pour_mL: float | None = None
    last_pour_ec: float | None = None
    last_feed_on: date | None = None
    last_flush_on: date | None = None
    last_spray_on: date | None = None
    usual_volume_L: float | None = None
    waterings: tuple[date, ...] = ()
    poured_uS_cm: tuple[tuple[date, float], ...] = ()
    growth_on: date | None = None
    new_growth_on: date | None = None
    new_leaf_on: date | None = None
    stopped_on: date | None = None
    spike_on: date | None = None
    bloom_over_on: date | None = None
    root_cm: float | None = None
    root_on: date | None = None
    roots_cm: tuple[float, ...] = ()
    growth_cm: float | None = None
    measured: tuple[GrowthMeasured, ...] = ()
    woke_on: date | None = None
    firm_on: tuple[date, ...] = ()
    limp_days: tuple[date, ...] = ()
    roots_working: bool | None = None
    roots_seen_on: date | None = None
    limp_on: date | None = None
    rot_on: date | None = None
    crust_on: date | None = None
    crisp_on: date | None = None
    algae_on: date | None = None
    last_look_on: date | None = None
    leaves_count: int | None = None
    newest_leaf_mm: float | None = None
    marks: tuple[str, ...] = ()
    last_equivalent: float | None = None
    last_equivalent_on: date | None = None
    phase: Phase | None = None  # not told
    phase_since: date | None = None
    kept_since: date | None = None

    @property
    def fed(self) -> FedSoFar:
        """What the log says of feeding."""
        return FedSoFar(self.feeds_since_plain, self.plains_since_feed, self.last_feed_on, self.last_spray_on)


class PoursSoFar(NamedTuple):
    """What the pours of a log say up to a day; each further one goes on from here, so that a long log costs no more
    than a short one. None: never, or not known. [mL, L, µS/cm]

    A tuple, for each pour makes a new one.
    """

    begun_on: date | None = None
    feeds_since_plain: int = 0
    plains_since_feed: int = 0
    last_pour_on: date | None = None
    last_pour_mL: float | None = None
    last_pour_ec: float | None = None
    last_feed_on: date | None = None
    last_flush_on: date | None = None
    last_spray_on: date | None = None
    volumes_L: tuple[float, ...] = ()
    waterings: tuple[date, ...] = ()
    poured_uS_cm: tuple[tuple[date, float], ...] = ()

    def after(self, p: LoggedPour) -> PoursSoFar:
        """With one more pour, not older than any before it."""
        if p.piece:
            return self
        begun = self._replace(begun_on=self.begun_on or p.on)
        if p.route == "leaf spray":
            return begun._replace(last_spray_on=p.on)
        feed = p.job == "feed"
        given = begun._replace(
            feeds_since_plain=self.feeds_since_plain + 1 if feed else 0,
            plains_since_feed=0 if feed else self.plains_since_feed + 1,
            last_feed_on=p.on if feed else self.last_feed_on,
        )
        if p.route in OFF_MEDIUM:
            return given
        flush, pure = p.job == "flush", p.ec_uS_cm is not None and not feed
        return given._replace(
            last_pour_on=p.on,
            last_pour_mL=None if p.volume_L is None else p.volume_L * 1000,
            last_pour_ec=p.ec_uS_cm,
            last_flush_on=p.on if flush else self.last_flush_on,
            volumes_L=(*self.volumes_L, p.volume_L)[-USUAL_OF:] if p.volume_L and not flush else self.volumes_L,
            waterings=(*(d for d in self.waterings if d != p.on), p.on)[-WATERINGS_KEPT:],
            poured_uS_cm=(*self.poured_uS_cm, (p.on, p.ec_uS_cm))[-WATERINGS_KEPT:]  # type: ignore[arg-type]
            if pure
            else self.poured_uS_cm,
        )

    @property
    def usual_volume_L(self) -> float | None:
        """The middle of the last pours. [L]"""
        known = sorted(self.volumes_L)
        return known[len(known) // 2] if known else None


def pours_so_far(pours: Iterable[LoggedPour], before: PoursSoFar | None = None) -> PoursSoFar:
    """What pours say, oldest first, after what was said ``before`` them."""
    found = before or PoursSoFar()
    for p in pours:
        found = found.after(p)
    return found


def facts_of_log(
    pours: Sequence[LoggedPour] | PoursSoFar,
    looks: Sequence[LoggedLook],
    phases: Sequence[LoggedPhase],
    reading: tuple[date, float] | None = None,
) -> LogFacts:
    """The facts of a log, each list oldest first; ``reading``: the last measured runoff as a reading. [µS/cm]

    ``pours``: all of them, or what they said so far.
    """
    said = pours if isinstance(pours, PoursSoFar) else pours_so_far(pours)
    seen = looks[-1] if looks else None
    every_look, looks = looks, [x for x in looks if x.leads]  # a side growth wakes nothing and ends nothing
    root = next((x for x in reversed(looks) if x.root_cm is not None), None)
    looked = [x for x in looks if x.marks_looked_for]
    return LogFacts(
        feeds_since_plain=said.feeds_since_plain,
        plains_since_feed=said.plains_since_feed,
        last_pour_on=said.last_pour_on,
        last_pour_mL=said.last_pour_mL,
        last_pour_ec=said.last_pour_ec,
        last_feed_on=said.last_feed_on,
        last_flush_on=said.last_flush_on,
        last_spray_on=said.last_spray_on,
        usual_volume_L=said.usual_volume_L,
        waterings=said.waterings,
        poured_uS_cm=said.poured_uS_cm,
        growth_on=_newest(looks, lambda x: x.new_leaf or x.new_growth),
        new_growth_on=_newest(looks, lambda x: x.new_growth),
        new_leaf_on=_newest(looks, lambda x: x.new_leaf),
        stopped_on=_newest(looks, lambda x: x.growth_stopped),
        spike_on=_newest(looks, lambda x: x.spike),
        bloom_over_on=_bloom_over(phases),
        root_cm=root.root_cm if root else None,
        root_on=root.on if root else None,
        roots_cm=root.roots_cm if root else (),
        growth_cm=next((x.growth_cm for x in reversed(looks) if x.growth_cm is not None), None),
        measured=tuple(
            GrowthMeasured(x.on, x.roots_cm or (x.root_cm,), x.growth_cm) for x in looks if x.root_cm is not None
        )[-LOOKS_KEPT:],
        woke_on=_woke(phases),
        firm_on=tuple(x.on for x in looked if LIMP not in x.marks)[-LOOKS_KEPT:],
        limp_days=tuple(x.on for x in looked if LIMP in x.marks)[-LOOKS_KEPT:],
        roots_working=_roots_work(looks, root),
        roots_seen_on=_newest(looks, lambda x: x.roots_working is not None or x.root_cm is not None),
        limp_on=looked[-1].on if looked and LIMP in looked[-1].marks else None,
        rot_on=_rot(looks, looked),
        crust_on=_crust(looks, looked),
        crisp_on=looked[-1].on if looked and CRISP in looked[-1].marks else None,
        algae_on=looked[-1].on if looked and ALGAE in looked[-1].marks else None,
        last_look_on=every_look[-1].on if every_look else None,
        leaves_count=next((x.leaves_count for x in reversed(looks) if x.leaves_count is not None), None),
        newest_leaf_mm=next((x.newest_leaf_mm for x in reversed(looks) if x.newest_leaf_mm is not None), None),
        marks=seen.marks if seen else (),
        last_equivalent=reading[1] if reading else None,
        last_equivalent_on=reading[0] if reading else None,
        phase=phases[-1].phase if phases else None,
        phase_since=phases[-1].since if phases else None,
        kept_since=min([s.since for s in phases[:1]] + [d for d in (said.begun_on,) if d], default=None),
    )


def _bloom_over(phases: Sequence[LoggedPhase]) -> date | None:
    """The day the last bloom gave way to another phase; None: none is known to be over."""
    over = [after.since for before, after in pairwise(phases) if before.phase == "flowering" != after.phase]
    return over[-1] if over else None


def _crust(looks: Sequence[LoggedLook], looked: Sequence[LoggedLook]) -> date | None:
    """Day a crust was last seen; one that the last two looks did not see is gone."""
    on = _newest(looks, lambda x: CRUST in x.marks)
    gone = len(looked) >= CLEAN_LOOKS and all(CRUST not in x.marks for x in looked[-CLEAN_LOOKS:])
    return None if gone else on


def _rot(looks: Sequence[LoggedLook], looked: Sequence[LoggedLook]) -> date | None:
    """Day rot was last seen; over when a look more than a month later finds none."""
    on = _newest(looks, lambda x: ROT in x.marks)
    clean = (
        bool(looked) and on is not None and ROT not in looked[-1].marks and (looked[-1].on - on).days > ROT_OVER_DAYS
    )
    return None if clean else on


def _woke(phases: Sequence[LoggedPhase]) -> date | None:
    """The day a dry or plain rest last gave way to growth, as noted."""
    resting = ("dormant", "rest")
    woke = [a.since for before, a in pairwise(phases) if before.phase in resting and a.phase not in resting]
    return woke[-1] if woke else None


def _newest(looks: Sequence[LoggedLook], is_it: Callable[[LoggedLook], bool]) -> date | None:
    """Day of the newest look that saw it."""
    return next((x.on for x in reversed(looks) if is_it(x)), None)


def _roots_work(looks: Sequence[LoggedLook], root: LoggedLook | None) -> bool | None:
    said = next((x for x in reversed(looks) if x.roots_working is not None), None)
    return roots_work(
        said.roots_working if said else None,
        said.on if said else None,
        _newest(looks, lambda x: x.new_leaf),
        root.root_cm if root else None,
        root.on if root else None,
    )


def opens_leaf(said_new: bool, any_known: bool, length_mm: float | None) -> bool:
    """Whether a look begins the record of a leaf: one said to be new, or the first that is ever measured."""
    return said_new or (not any_known and length_mm is not None)
