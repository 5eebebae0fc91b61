"""A change of rhythm, and a school of flushing, over many pots at once: what each would do to all, or to a kind."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import capital, require
from fenwa.core.errors import InputError
from fenwa.core.pot.flush_schools import SCHOOLS, WORDS, FlushSchool
from fenwa.core.pot.rhythms import WHAT_IFS, WhatIf
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class PotWhatIf:
    """A pot under one change: whether it crosses its ceiling in the year ahead, and its water a month. [L]"""

    change: WhatIf
    crosses: bool
    litres_month: float


@dataclass(frozen=True)
class WhatIfSum:
    """A change over all pots asked about: how many cross, and the water it takes more each month. [L]"""

    change: WhatIf
    pots: int
    crossing: int
    litres_month: float
    more_litres_month: float
    sentence: str


@dataclass(frozen=True)
class RhythmsTogether:
    """Every change side by side; ``best``: fewest over, then least water. None: nothing changes anything."""

    changes: tuple[WhatIfSum, ...]
    best: WhatIf | None
    sentence: str


@calculation("rhythms-together", title="One change for many pots", station="flush")
def rhythms_together(*, pots: list[PotWhatIf]) -> Computed[RhythmsTogether]:
    """How many pots cross their ceilings within a year under each change of rhythm, and what water it takes.

    Parameters
    ----------
    pots : list[PotWhatIf]
        Each pot under each change: it crosses or not, its litres a month, 0 to 10 000. [L]

    Returns
    -------
    Computed
        Pots over and litres for each change, and the one that keeps most under with least water. [L]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or nothing is asked about.

    References
    ----------
    E3.10; section 4.5
    """
    if not any(p.change == "as it is" for p in pots):
        raise InputError("No pot has a rhythm yet. Log two pours of one first.", pointer="/pots")
    for i, p in enumerate(pots):
        require(p.litres_month, "Water", "L/month", low=0, high=10_000, pointer=f"/pots/{i}/litres_month")
    ledger = Ledger("One change for many pots", "Each pot's own rhythm repeated for a year.", ("judgement",))
    base = sum(p.litres_month for p in pots if p.change == "as it is")
    sums = []
    for k, change in enumerate(WHAT_IFS):
        mine = [p for p in pots if p.change == change]
        if not mine:
            continue
        crossing, litres = sum(p.crosses for p in mine), sum(p.litres_month for p in mine)
        ledger.found(f"n{k}", f"{change}: pots over within a year", crossing, "", "each pot run a year ahead")
        ledger.found(f"v{k}", f"{change}: water", litres, "L/month", "rhythms")
        if k:
            ledger.step(f"d{k}", f"v{k} - v0", "L/month", f"{change}: water more")
        more = litres - base
        water = f", {more:.1f} L more water a month" if more > 0.05 else ""
        said = f"{capital(change)}: {crossing} of {len(mine)} cross{water}."
        sums.append(WhatIfSum(change, len(mine), crossing, litres, more, said))
    ledger.step("v", "v0", "L/month", "water as it is")
    now = sums[0]
    better = [s for s in sums[1:] if s.crossing < now.crossing]
    best = min(better, key=lambda s: (s.crossing, s.more_litres_month)) if better else None
    if now.crossing == 0:
        said = f"None of {now.pots} crosses its ceiling within a year as it is."
    elif best is None:
        said = f"{now.crossing} of {now.pots} cross within a year, and none of these changes helps: flush, or repot."
    else:
        left = "none" if best.crossing == 0 else str(best.crossing)
        verb = "crosses" if now.crossing == 1 else "cross"
        said = f"As it is, {now.crossing} of {now.pots} {verb} within a year; with {best.change}, {left}."
    return ledger.close(RhythmsTogether(tuple(sums), best.change if best else None, said))


@dataclass(frozen=True)
class PotSchool:
    """A pot's year by one school of flushing. [L, d]"""

    school: FlushSchool
    flushes: int
    litres: float
    days_over: int


@dataclass(frozen=True)
class SchoolSum:
    """A school over all pots asked about: flushes, water, and days over added up. [L, d]"""

    school: FlushSchool
    words: str
    pots: int
    flushes: int
    litres: float
    days_over: int
    sentence: str


@dataclass(frozen=True)
class SchoolsTogether:
    """The schools side by side over many pots."""

    schools: tuple[SchoolSum, ...]
    sentence: str


@calculation("schools-together", title="Schools of flushing over many pots", station="flush")
def schools_together(*, pots: list[PotSchool]) -> Computed[SchoolsTogether]:
    """What each school of flushing would have done with all these pots over the last year.

    Parameters
    ----------
    pots : list[PotSchool]
        Each pot by each school: flushes 0 to 400, litres 0 to 100 000, days over the ceiling 0 to 1 460. [L, d]

    Returns
    -------
    Computed
        Flushes, litres and pot-days over the ceiling of each school. [L, d]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or nothing is asked about.

    References
    ----------
    section 4.5
    """
    if not pots:
        raise InputError("No pot has a log yet. Log a pour first.", pointer="/pots")
    for i, p in enumerate(pots):
        require(p.flushes, "Flushes", "", low=0, high=400, pointer=f"/pots/{i}/flushes")
        require(p.litres, "Water", "L", low=0, high=100_000, pointer=f"/pots/{i}/litres")
        require(p.days_over, "Days over", "d", low=0, high=1460, pointer=f"/pots/{i}/days_over")
    ledger = Ledger("Schools of flushing over many pots", "Each pot's own log played again.", ("judgement",))
    sums = []
    for k, school in enumerate(SCHOOLS):
        mine = [p for p in pots if p.school == school]
        if not mine:
            continue
        flushes, litres, over = (
            sum(p.flushes for p in mine),
            sum(p.litres for p in mine),
            sum(p.days_over for p in mine),
        )
        ledger.found(f"n{k}", f"{WORDS[school]}: flushes", flushes, "", "each pot's log played again")
        ledger.found(f"v{k}", f"{WORDS[school]}: water", litres, "L", "each pot's log played again")
        ledger.found(f"o{k}", f"{WORDS[school]}: days over, of all pots", over, "d", "each pot's log played again")
        ledger.take(f"p{k}", f"{WORDS[school]}: pots", len(mine), "", "log")
        ledger.step(f"m{k}", f"o{k} / p{k}", "d", f"{WORDS[school]}: days over a pot")
        said = f"{WORDS[school]}: {flushes} flushes, {litres:.1f} L, {over / len(mine):.0f} days over a pot."
        sums.append(SchoolSum(school, WORDS[school], len(mine), flushes, litres, over, said))
    asked = [s for s in sums if s.school != "as logged"] or sums
    best = min(asked, key=lambda s: (s.days_over, s.litres))
    thrifty = min(asked, key=lambda s: s.litres)
    said = f"{best.words} keeps {best.pots} pots lowest: {best.days_over} pot-days over, {best.litres:.1f} L."
    if thrifty is not best:
        said += f" {thrifty.words} takes least water: {thrifty.litres:.1f} L, {thrifty.days_over} pot-days over."
    return ledger.close(SchoolsTogether(tuple(sums), said))
