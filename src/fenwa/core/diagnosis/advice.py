"""What may be done meanwhile and what waits: nothing is advised that would kill where another cause is at work."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from fenwa.core.data.diagnosis_tables import causes
from fenwa.core.diagnosis.evidence import Finding, SeenSign
from fenwa.core.diagnosis.likely import LikelyCauses, forbidden_by

Act = Literal["water", "feed", "flush"]
HARMLESS = 0.05  # weight of all causes that an act would harm: above it the act is not advised; judgement
SURE = 0.60  # weight of the cause an act is for
DECISIVE = 3.0  # likelihood ratio of a finding that decides for a cause
WATCH_DAYS = 14  # one old yellow leaf: a second within them raises it
ARRIVAL_DAYS = 14  # dew and traps come back after a journey
ACT_FOR: dict[Act, tuple[str, ...]] = {"water": ("dry",), "feed": ("under",), "flush": ("salt",)}
LIMP = ("wilt_wet_medium", "wilt_dry_medium")
LOST_ROOTS = {"wilt_wet_medium", "root_tips_dead", "black_base", "tip_soft_dark", "yellow_several_leaves"}
SMALL = ("small_new_short_internode", "small_new_long_internode")


@dataclass(frozen=True)
class PlantNow:
    """What rules the reading of signs beside the signs. None: not known.

    ``limp``: limp today, whatever the medium is; ``moist``: the medium; ``yellow_on``: days an oldest leaf was found
    yellow; ``runoff``: over, inside or low, empty: not read.
    """

    today: date
    resting: bool = False
    arrived_on: date | None = None
    group: str = ""
    kind: str = ""
    limp: bool = False
    moist: bool | None = None
    runoff: Literal["", "over", "inside", "low"] = ""
    crust: bool | None = None
    yellow_on: tuple[date, ...] = ()
    soft_roots: bool = False
    yellow_green: bool = False
    leaf_is_normal: bool = False
    pests_spread: bool = False
    poisonous: str = ""


@dataclass(frozen=True)
class Saying:
    """One thing to know or do. ``until``: the day it is looked at again."""

    kind: Literal["expected", "watch", "check first", "closed", "hold", "correction", "isolate", "caution", "right"]
    words: str
    until: date | None = None


@dataclass(frozen=True)
class Closed:
    """An act that is closed, and why."""

    act: Act
    why: str


@dataclass(frozen=True)
class Advice:
    """What to know, what waits, and what is closed with its reason; ``advised``: acts that are safe to advise now."""

    sayings: tuple[Saying, ...]
    advised: tuple[Act, ...]
    closed: tuple[Closed, ...]

    def is_closed(self, act: Act) -> str:
        """Why an act is closed; empty: it is not."""
        return next((c.why for c in self.closed if c.act == act), "")


def harmed_by(found: LikelyCauses, act: Act) -> float:
    """Weight of the causes that an act would harm."""
    return sum(c.weight for c in found.order if causes()[c.id].harmful == act or act in causes()[c.id].forbids)


def _decided(found: Sequence[Finding], ids: tuple[str, ...]) -> bool:
    return any(causes()[i].findings.get(f.id, 1.0) >= DECISIVE for f in found for i in ids)


def advised_acts(
    found: LikelyCauses, evidence: Sequence[Finding], seen: Sequence[SeenSign], now: PlantNow
) -> tuple[Act, ...]:
    """Acts the evidence supports: their cause is sure, a finding decided it, nothing they would harm is left."""
    out: list[Act] = []
    there = {s.id for s in seen if s.seen}
    for act, ids in ACT_FOR.items():
        sure = found.weight_of(*ids) >= SURE and _decided(evidence, ids)
        if not sure or harmed_by(found, act) > HARMLESS:
            continue
        if act == "water" and (now.moist is not False or there & LOST_ROOTS):
            continue  # only a medium found dry is watered, and none that shows a sign of lost roots
        if act == "feed" and (now.runoff != "low" or now.resting or now.crust):
            continue
        if act == "flush" and (now.resting or now.soft_roots):
            continue
        out.append(act)
    return tuple(out)


def advise(found: LikelyCauses, evidence: Sequence[Finding], seen: Sequence[SeenSign], now: PlantNow) -> Advice:
    """Sayings for a plant: what is expected, what is watched until when, what is closed and what waits."""
    there = {s.id for s in seen if s.seen}
    sayings: list[Saying] = []
    closed: dict[Act, str] = {}
    for act, cause in forbidden_by(found).items():
        closed[act] = f"{cause.name} is {cause.word}."
    _of_limp(there, now, sayings, closed)
    _of_small(found, there, now, sayings, closed)
    _of_yellow(there, now, sayings)
    _of_rest(there, now, sayings)
    if now.pests_spread or any(causes()[c.id].spreads and c.word in ("likely", "possible") for c in found.best):
        sayings.append(Saying("isolate", "It may spread: put the pot apart, see it last, with clean hands and tools."))
        sayings.append(
            Saying("caution", "Treat only by the product’s label and local rules; a dear plant by a local expert.")
        )
    advised = tuple(a for a in advised_acts(found, evidence, seen, now) if a not in closed)
    first = found.order[0]
    if first.word == "likely" and _decided(evidence, (first.id,)):
        sayings.append(Saying("correction", f"If it is {first.name.lower()}: {causes()[first.id].correction}"))
    else:
        sayings.append(Saying("check first", "No cure before the check: the log alone does not decide it."))
    if now.poisonous:
        sayings.append(Saying("caution", now.poisonous))
    waits: dict[Act, str] = {"water": "Watering", "feed": "Feed", "flush": "The flush"}
    for act, why in closed.items():
        sayings.append(Saying("hold", f"{waits[act]} waits: {why}"))
    sayings.append(Saying("hold", "Repotting, moving and a second change wait: they would hide the answer."))
    return Advice(tuple(sayings), advised, tuple(Closed(a, why) for a, why in closed.items()))


def _of_limp(there: set[str], now: PlantNow, out: list[Saying], closed: dict[Act, str]) -> None:
    """Limp in a damp medium is salt or lost roots: opposite next steps, told apart by the runoff."""
    limp = now.limp or any(x in there for x in LIMP)
    if not limp or (now.moist is False and "wilt_wet_medium" not in there):
        return
    if now.moist is None and "wilt_wet_medium" not in there:
        out.append(Saying("check first", "Limp: feel the medium first. No water and no feed until then."))
        closed["water"] = "Limp, and nobody felt the medium."
        closed["feed"] = "Droop is never met with feed."
        return
    closed["feed"] = "Droop is never met with feed."
    if now.runoff == "over":
        closed["water"] = "The medium is moist; rinse, do not just water."
        out.append(
            Saying(
                "right",
                "Limp on a moist medium, runoff high: salt, not thirst. The flush comes next, the roots stay in.",
            )
        )
    elif now.runoff:
        closed["water"] = "Limp on a moist medium, runoff low: lost roots."
        closed["flush"] = "Roots may be rotten."
        out.append(
            Saying("check first", "Limp on a moist medium, runoff low: roots next. No water, no feed, no flush.")
        )
    else:
        closed["water"] = "Limp on a moist medium: salt or lost roots."
        closed["flush"] = "Salt or lost roots: the runoff tells."
        out.append(
            Saying(
                "check first",
                "Limp on a moist medium: salt or lost roots, with opposite next steps. Read the runoff first; "
                "without a meter look for crust, then smell the pot.",
            )
        )


def _of_small(found: LikelyCauses, there: set[str], now: PlantNow, out: list[Saying], closed: dict[Act, str]) -> None:
    """Small leaves: crust, runoff, light, room, roots, in order; more feed is closed while salt is not excluded."""
    if not any(x in there for x in SMALL):
        return
    out.append(
        Saying(
            "check first",
            "Small leaves: look for crust, read the runoff, then light, room for roots, roots. More feed comes last.",
        )
    )
    salt = next((c for c in found.order if c.id == "salt"), None)
    if now.crust:
        closed["feed"] = "A crust is there: more feed is closed."
    elif salt is not None and now.runoff != "low" and salt.word != "unlikely":
        closed["feed"] = "Salt is not excluded: more feed is closed until the runoff reads low."


def _of_yellow(there: set[str], now: PlantNow, out: list[Saying]) -> None:
    if now.yellow_green:
        if now.kind == "cymbidium":
            out.append(Saying("right", "Yellow-green: right light for this kind."))
        else:
            out.append(
                Saying("check first", "Yellow-green: look for a cause; on this kind it is no sign of good light.")
            )
    days = sorted(now.yellow_on)
    if "yellow_several_leaves" in there:
        out.append(Saying("check first", "Evenly yellow: lift the pot and look at the roots before water or feed."))
    elif len(days) > 1 and (days[-1] - days[-2]).days <= WATCH_DAYS:
        out.append(
            Saying(
                "check first",
                "A second yellow leaf within a fortnight. Too wet? Look first: lift the pot, feel at depth.",
            )
        )
    elif days and "yellow_oldest_leaf" in there:
        until = days[-1] + timedelta(days=WATCH_DAYS)
        out.append(
            Saying("watch", f"One old yellow leaf: watch until {until.isoformat()}. A second by then raises it.", until)
        )


def _of_rest(there: set[str], now: PlantNow, out: list[Saying]) -> None:
    if now.resting and (now.soft_roots or there & {"yellow_oldest_leaf", "yellow_several_leaves", "root_tips_dead"}):
        out.append(Saying("expected", "Soft roots and falling leaves are expected at rest. Nothing to do; no water."))
    if now.arrived_on is not None and "no_dew_or_no_pitchers" in there:
        until = now.arrived_on + timedelta(days=ARRIVAL_DAYS)
        if now.today <= until:
            out.append(Saying("expected", f"No dew is expected after a journey, until {until.isoformat()}.", until))
    if now.leaf_is_normal:
        out.append(Saying("right", "A leaf of normal size has opened: this is over."))
