"""Who may drink a water that is known as a reading or as a range, without any record."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.library.loader import profiles
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Answer = Literal["yes", "a reading decides", "thinned", "no"]
USUAL_RAIN_uS_cm = 60.0  # the upper end of rain: what it is thinned with, if nobody said


@dataclass(frozen=True)
class Drinker:
    """A kind and its mark. ``one_in``: one part of the water in so many parts altogether; None: it does not help."""

    kind: str
    name: str
    limit_uS_cm: float
    answer: Answer
    one_in: int | None


@dataclass(frozen=True)
class WhoDrinks:
    """Every kind, the strictest first; the one asked about. None: none was."""

    kinds: tuple[Drinker, ...]
    asked: Drinker | None
    yes: int
    undecided: int
    sentence: str


def one_drinker(kind: str, low: float, high: float, thinner: float) -> Drinker:
    """One kind and one water; ``thinner``: what the water to thin with reads at most. [µS/cm]"""
    p = profiles()[kind]
    limit = p.source_water.ec_max_uS_cm
    if high <= limit:
        return Drinker(kind, p.short, limit, "yes", 1)
    one_in = math.ceil((high - thinner) / (limit - thinner) - 1e-9) if thinner < limit else None
    answer: Answer = "a reading decides" if low <= limit else "thinned" if one_in else "no"
    return Drinker(kind, p.short, limit, answer, one_in)


def _sentence(d: Drinker, low: float, high: float) -> str:
    mark = f"The mark of {d.name} is {d.limit_uS_cm:.0f} µS/cm."
    if d.answer == "yes":
        return f"{mark} It may drink this water as it is."
    way = f"1 part in {d.one_in} stays under it" if d.one_in else "the water it would be thinned with is over it too"
    if d.answer == "a reading decides":
        return f"{mark} The range {low:.0f} to {high:.0f} µS/cm lies across it: read the water, or {way}."
    return f"{mark} Not as it is: {way}."


@calculation("who-may-drink", title="Who may drink it", station="water")
def who_may_drink(
    *, low_uS_cm: float, high_uS_cm: float, kind: str = "", thinner_uS_cm: float = USUAL_RAIN_uS_cm
) -> Computed[WhoDrinks]:
    """Which kinds may drink a water by its conductivity, and how far it is thinned for the others.

    Parameters
    ----------
    low_uS_cm : float
        Lower end of what the water reads, 0 to 20 000. [µS/cm]
    high_uS_cm : float
        Upper end, from the lower end to 20 000; the same where it was read. [µS/cm]
    kind : str
        Kind of plant asked about; empty: none.
    thinner_uS_cm : float
        What the water to thin it with reads at most, 0 to 20 000; rain if left out. [µS/cm]

    Returns
    -------
    Computed
        Every kind with its mark and answer, the strictest first. [µS/cm]

    Raises
    ------
    OutOfRange, InputError
        If a reading cannot be, the ends are swapped, or the kind is not known.

    Notes
    -----
    By the amount a pen sees. What a pen cannot see (chlorine, fluoride, sodium, alkalinity) is judged at the
    Water station. Conductivities of two waters mix in a straight line within a few per cent, and below it.

    References
    ----------
    judgement
    """
    require(low_uS_cm, "Lower end", "µS/cm", low=0, high=20_000, pointer="/low_uS_cm")
    require(high_uS_cm, "Upper end", "µS/cm", low=low_uS_cm, high=20_000, pointer="/high_uS_cm")
    require(thinner_uS_cm, "Water to thin with", "µS/cm", low=0, high=20_000, pointer="/thinner_uS_cm")
    if kind and kind not in profiles():
        raise InputError(f"Kind of plant “{kind}” is not known. Choose one of the list.", pointer="/kind", value=kind)
    found = [one_drinker(k, low_uS_cm, high_uS_cm, thinner_uS_cm) for k in profiles()]
    found.sort(key=lambda d: (d.limit_uS_cm, d.name))
    yes, undecided = (sum(d.answer == a for d in found) for a in ("yes", "a reading decides"))
    asked = next((d for d in found if d.kind == kind), None)
    shown = asked or found[0]
    ledger = Ledger("Who may drink it", "By the amount a pen sees.", ("judgement",))
    ledger.take("high", "upper end of the water", high_uS_cm, "µS/cm", "entered")
    ledger.take("t", "upper end of the water to thin with", thinner_uS_cm, "µS/cm", "entered")
    ledger.take("mark", f"most for {shown.name}", shown.limit_uS_cm, "µS/cm", f"profile {shown.kind}")
    if thinner_uS_cm < shown.limit_uS_cm < high_uS_cm:
        ledger.step("share", "(mark - t) / (high - t)", "", "of this water in the blend")
        ledger.step("parts", "(high - t) / (mark - t)", "", "parts altogether, rounded up")
    elif high_uS_cm <= shown.limit_uS_cm:
        ledger.step("left", "mark - high", "µS/cm", "under the mark")
    else:
        ledger.step("over", "t - mark", "µS/cm", "the thinner itself is over the mark")
    said = _sentence(asked, low_uS_cm, high_uS_cm) if asked else ""
    if not said:
        rest = len(found) - yes - undecided
        said = f"{yes} of {len(found)} kinds may drink it as it is, {rest} not."
        if undecided:
            said = f"{yes} of {len(found)} kinds may drink it as it is, {rest} not; a reading decides for {undecided}."
    return ledger.close(WhoDrinks(tuple(found), asked, yes, undecided, said))
