"""Jobs besides water: rinse a tray pot, empty a saucer, look again, end a quarantine, check a meter."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.care.decided import plans_repotting
from fenwa.core.care.ramp import RampDay
from fenwa.core.care.usual import tray_change_days
from fenwa.core.care.vocabulary import RINSES, ErrandKind
from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.leaf.series import Dose
from fenwa.core.once import once
from fenwa.core.pace import in_steps
from fenwa.core.pot.flush import FromAbove

QUARANTINE_DAYS = 42  # three to six weeks by usual advice; the longer is taken
RESERVOIR_DAYS = 28
LOOK_IN_GROWTH_DAYS = 30  # in growth nobody looked for so long: a look is asked, feed is not thinned; judgement
STOCK_TAKE_DAYS = 14  # after a die-back: what stands below is counted; judgement
ARRIVAL_REVIEW_DAYS = 38  # an arrival that opened no leaf by then is looked at; judgement
SETTLED_BY_LOG: tuple[ErrandKind, ...] = ("meter check", "water re-test", "repot", "look", "phase not told")


def quarantine_since(due_on: date) -> date:
    """When a quarantine began, from the day its end was due."""
    return due_on - timedelta(days=QUARANTINE_DAYS)


@dataclass(frozen=True, kw_only=True)
class PotFacts:
    """What is known of a pot's dates. None: never, not known, or does not apply. [d, months]"""

    id: int
    code: str
    name: str
    drains: bool
    route: str
    from_above: FromAbove
    cadence_days: tuple[int, int] | None
    kept_since: date | None
    last_flush_on: date | None
    isolated: bool
    isolated_since: date | None
    look_again_on: date | None
    look_again_for: str
    prill_until: date | None
    medium_since: date | None
    medium_life_months: tuple[int, int] | None
    dormant: bool
    ramps: tuple[tuple[str, RampDay], ...] = ()
    arrived_on: date | None = None  # of one that has not opened a leaf since
    rinsed_on: date | None = None  # tray or reservoir changed, told without a pour
    looked_on: date | None = None  # of one in growth: its last look, or since when it is kept
    phase_asked_on: date | None = None  # of one that rests dry by its kind, and nobody said whether it does
    died_back_on: date | None = None  # of one that rests below the ground or on bulbs
    look_again_what: str = ""  # what was decided
    trial_look_on: date | None = None  # under trial: the first of its days that nobody looked on
    leaf_by: date | None = None  # of one in growth: the last day its next leaf is expected
    series: tuple[tuple[int, str, Dose], ...] = ()  # treatments given several times

    @once
    def asks(self) -> tuple[Errand, ...]:
        """Every job the pot will ask for, due or not yet."""
        return tuple(_errands_of(self))


@dataclass(frozen=True)
class ThingFacts:
    """A meter, a water or a membrane with the day it is due."""

    id: str
    kind: ErrandKind
    name: str
    due_on: date | None
    sentence: str


@dataclass(frozen=True)
class Errand:
    """A job with a lasting name, so that a calendar keeps it in place."""

    id: str
    kind: ErrandKind
    due_on: date
    pot_id: int | None
    title: str
    sentence: str

    @property
    def done_here(self) -> bool:
        """Whether a word settles it; else a check, a reading or a repotting logged elsewhere does."""
        return self.kind not in SETTLED_BY_LOG


def _rinse(p: PotFacts) -> tuple[date, str] | None:
    """A pot that never drains keeps every salt: it needs a rinse from above, or where none is allowed fresh water."""
    start = max((d for d in (p.last_flush_on, p.rinsed_on) if d is not None), default=p.kept_since)
    if p.drains or p.dormant or start is None:
        return None
    days = tray_change_days(p.cadence_days)
    if p.from_above == "never":
        return start + timedelta(days=days), "Empty the tray and fill it with fresh pure water; never from above."
    if p.from_above in ("tray_change", "water_change"):
        return start + timedelta(days=days), "Change the water for pure water; the medium keeps what it holds."
    how = " at the rim" if p.from_above == "rim_only" else ""
    return start + timedelta(
        days=days
    ), f"Empty the tray, rinse{how} from above with pure water, let it drain, fill afresh."


def medium_old_on(since: date | None, life_months: tuple[int, int] | None) -> date | None:
    """The day a medium is past its usual life; None: nobody knows its age or its life."""
    if since is None or life_months is None:
        return None
    return since + timedelta(days=round(life_months[1] * DAYS_A_MONTH))


def _looks(p: PotFacts) -> list[tuple[date, str]]:
    """The first reason to look at a plant in growth: a month unseen, or a leaf that should be there by now."""
    asked = []
    if p.trial_look_on is not None:
        asked.append((p.trial_look_on, "A day of its trial: look and measure, both of a pair on one day."))
    if p.looked_on is not None:
        asked.append(
            (
                p.looked_on + timedelta(days=LOOK_IN_GROWTH_DAYS),
                "In growth, and nobody noted a leaf or a look for a month. Feed goes on as planned.",
            )
        )
        if p.leaf_by is not None and p.looked_on <= p.leaf_by:
            asked.append((p.leaf_by, "By its own rhythm a leaf should be open by now. Feed goes on as planned."))
    return sorted(asked)[:1]


def _errands_of(p: PotFacts) -> list[Errand]:
    out: list[Errand] = []

    def add(kind: ErrandKind, on: date, title: str, sentence: str, which: str = "") -> None:
        out.append(
            Errand(
                f"pot-{p.id}-{kind.replace(' ', '-')}-{which}{on.isoformat()}",
                kind,
                on,
                p.id,
                f"{p.code} {p.name}: {title}",
                sentence,
            )
        )

    rinse = _rinse(p)
    if rinse is not None:
        kind: ErrandKind = "change reservoir" if p.route == "reservoir" else "rinse tray pot"
        add(kind, rinse[0], "fresh water below" if p.route == "reservoir" else "rinse the tray pot", rinse[1])
    if p.look_again_on is not None:
        add(
            "look again",
            p.look_again_on,
            "look again",
            f"You wanted to look again: {p.look_again_for}" if p.look_again_for else "You wanted to look again.",
        )
        if plans_repotting(p.look_again_what):
            before = p.look_again_on - timedelta(days=1)
            words = f"It is repotted on {p.look_again_on.day} {p.look_again_on:%b}: moist roots break less."
            add("water first", before, "water it before repotting", words)
    for what, ramp in p.ramps:
        for on in ramp.asked_on:
            add("ramp step", on, f"{what}: next step", ramp.sentence)
    for on, words in _looks(p):
        add("look", on, "look at it", words)
    for series_id, what, dose in p.series:
        title = f"{what}, {dose.number} of {dose.of}"
        add("treatment", dose.on, title, "A series works as a whole: give it on its day.", f"{series_id}-")
    if p.phase_asked_on is not None:
        add(
            "phase not told",
            p.phase_asked_on,
            "is it growing or at rest?",
            "Nobody said, so the season is taken. Note its phase on its page: a wrong guess waters a plant at rest.",
        )
    if p.died_back_on is not None:
        add(
            "stock-take",
            p.died_back_on + timedelta(days=STOCK_TAKE_DAYS),
            "count what rests",
            "Died back: how many tubers or bulbs, how firm, how large? Not known is an answer too.",
        )
    if p.arrived_on is not None:
        add(
            "arrival review",
            p.arrived_on + timedelta(days=ARRIVAL_REVIEW_DAYS),
            "look at the arrival",
            "No new leaf since it came. It stays without feed: is it settling, resting, or failing?",
        )
    if p.isolated and p.isolated_since is not None:
        add(
            "end of quarantine",
            p.isolated_since + timedelta(days=QUARANTINE_DAYS),
            "quarantine may end",
            "Look under the leaves and in the crown with a lens; clean twice, then move it.",
        )
    if p.prill_until is not None:
        add(
            "prills spent",
            p.prill_until,
            "prills are spent",
            "What they held is out: choose prills again or another rhythm.",
        )
    old_on = medium_old_on(p.medium_since, p.medium_life_months)
    if old_on is not None:
        add(
            "repot",
            old_on,
            "the medium is old",
            "Past its usual life: look whether it is mud, sour or matted, and repot in growth.",
        )
    return out


def errands(pots: list[PotFacts], things: list[ThingFacts], until: date) -> list[Errand]:
    """Jobs due up to a day, the oldest first."""
    found = [e for p in in_steps(pots) for e in p.asks]
    found += [
        Errand(f"{t.id}-{t.due_on.isoformat()}", t.kind, t.due_on, None, t.name, t.sentence)
        for t in things
        if t.due_on is not None
    ]
    return sorted((e for e in found if e.due_on <= until), key=lambda e: (e.due_on, e.title))


@dataclass(frozen=True, kw_only=True)
class Said:
    """What was said of an errand on a day: done, or put off by some days. [d]"""

    errand_id: str
    kind: ErrandKind | None
    on: date
    pot_id: int | None = None
    put_off_days: int | None = None

    @property
    def until(self) -> date | None:
        """The day it is asked for again; None: done."""
        return None if self.put_off_days is None else self.on + timedelta(days=self.put_off_days)


def rinsed_on(said: list[Said]) -> dict[int, date]:
    """The day each pot's tray or reservoir was last said to be changed."""
    out: dict[int, date] = {}
    for s in said:
        if s.until is None and s.pot_id is not None and s.kind in RINSES:
            out[s.pot_id] = max(s.on, out.get(s.pot_id, s.on))
    return out


def ends_quarantine(kind: str | None) -> bool:
    """Whether doing a job of this kind lets a pot back among the others."""
    return kind == "end of quarantine"


def still_asked(found: list[Errand], said: list[Said], today: date) -> list[Errand]:
    """Errands nobody has done or put off beyond today."""
    hidden = {s.errand_id for s in said if s.until is None or s.until > today}
    return [e for e in in_steps(found) if e.id not in hidden]


def meter_check(meter_id: int, name: str, due_on: date) -> ThingFacts:
    """A meter to be checked; one never checked says so where it is used."""
    return ThingFacts(
        f"meter-{meter_id}-check",
        "meter check",
        f"{name}: check in a standard",
        due_on,
        "A pen drifts: every figure rests on it.",
    )


def water_retest(water_id: int, name: str, due_on: date | None) -> ThingFacts:
    """A source to be read again."""
    return ThingFacts(
        f"water-{water_id}-read",
        "water re-test",
        f"{name}: read it again",
        due_on,
        "Its reading has grown old for a water of its kind.",
    )


def membrane_change(water_id: int, name: str, due_on: date | None) -> ThingFacts:
    """A membrane below its floor."""
    return ThingFacts(
        f"water-{water_id}-membrane",
        "membrane",
        f"{name}: the membrane",
        due_on,
        "It lets more through than you set as its floor: change it.",
    )
