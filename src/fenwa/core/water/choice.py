"""Which waters a plant may be given, in which order; and where none is fit, the least bad one and until when."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from fenwa.core.entry import capital, require
from fenwa.core.errors import Underspecified
from fenwa.core.registry import calculation
from fenwa.core.water.kind_checks import PlantNeeds, check_needs
from fenwa.core.water.verdict import WaterVerdict, may_be_given
from fenwa.core.working import Computed, Ledger

Order = Literal["own", "purest", "cheapest"]
STRICT_uS_cm = 200.0  # a plant that may drink no more is strict: for it a clean water goes before a borderline one
SHORT_TERM_DAYS = 21  # "a few weeks at most": the shorter is taken
OVER_SHORT_TERM_DAYS = 7  # beyond the short-term limit: till the next watering or two; judgement


SLOW = ("hardness", "alkalinity")  # what lifts the pH of a medium over months, and kills nothing in days


@dataclass(frozen=True, kw_only=True)
class Offered:
    """A water at hand with what was found of it for one plant, in the grower's order. [µS/cm]"""

    id: int
    name: str
    low_uS_cm: float
    usual_uS_cm: float
    high_uS_cm: float
    measured: bool
    verdict: WaterVerdict
    price_per_L: float | None = None
    preference: int = 100  # the grower's own rank; alike for all: none was given
    runs: bool = False  # comes from a pipe
    fell: bool = False  # rain and dew: costs nothing
    failing: bool = False  # a membrane under its floor: not taken for pure

    @property
    def cost(self) -> float:
        """Its price, or a rank where none is told: what falls costs nothing, what runs a little, the rest is bought."""
        if self.price_per_L is not None:
            return self.price_per_L
        return 0.0 if self.fell else 0.01 if self.runs else 1.0

    @property
    def refused(self) -> str:
        """Why it must not be given at all: known to harm; empty where it may."""
        return self.verdict.kind_line if self.verdict.kind == "known bad" and not self._only_slow else ""

    @property
    def _only_slow(self) -> bool:
        """Whether all that is known against it works slowly: better such water than none."""
        bad = [k.agent for k in self.verdict.kinds if k.state == "known bad" and not k.minor]
        return bool(bad) and all(agent in SLOW for agent in bad)

    def over(self, limit: float) -> bool:
        """Over the limit by what is measured, or by the whole of its usual range."""
        if self._only_slow:
            return True
        return self.verdict.amount == "over" or (not self.measured and self.low_uS_cm > limit)

    def clean(self, limit: float) -> bool:
        """Within the limit by what is measured, or by the whole of its usual range."""
        if self.failing:
            return False
        return self.verdict.amount == "within" or (not self.measured and self.high_uS_cm <= limit)


@dataclass(frozen=True)
class LeastBad:
    """The water to go on with where none is fit, for how many days, and what would be better. [µS/cm, d]"""

    water_id: int
    name: str
    days: int
    change_by: date
    sentence: str


@dataclass(frozen=True)
class WaterChoice:
    """Waters that may be given, the first first; where none is fit, the least bad one alone with its limits."""

    ids: tuple[int, ...]
    least_bad: LeastBad | None = None
    refused: tuple[str, ...] = ()
    own_choice: str = ""  # its grower's own water, with what is known against it

    @property
    def note(self) -> str:
        """What to know before pouring: the least bad water with its limits, or why none may be given."""
        if self.own_choice:
            return self.own_choice
        if self.least_bad is not None:
            return self.least_bad.sentence
        return f"Not to be given: {'; '.join(self.refused)}." if not self.ids and self.refused else ""


def fit_waters(offered: list[Offered], needs: PlantNeeds, order: Order = "own") -> list[Offered]:
    """Waters that may be given for good, in the order to take them.

    In the grower's order, the cheaper first where none was given; or purest or cheapest first. A water whose range
    spans the limit, and for a strict plant a borderline reading, is taken only where no clean one is at hand.
    """
    limit = needs.ec_max_uS_cm
    fit = [w for w in offered if may_be_given(w.verdict) and not w.over(limit)]
    if order == "purest":
        fit.sort(key=lambda w: w.usual_uS_cm)
    elif order == "cheapest":
        fit.sort(key=lambda w: w.cost)
    else:
        fit.sort(key=lambda w: (w.preference, w.cost))
    strict = limit <= STRICT_uS_cm
    clean = [w for w in fit if w.clean(limit) or (w.measured and not strict and not w.failing)]
    return clean or fit


def least_bad(offered: list[Offered], needs: PlantNeeds, since: date | None, today: date) -> LeastBad | None:
    """The water that does least harm where none is fit: a plant is not left dry. None where all are known to harm."""
    open_ones = [w for w in offered if not w.refused]
    if not open_ones:
        return None
    best = min(open_ones, key=lambda w: w.usual_uS_cm)
    limit, short = needs.ec_max_uS_cm, needs.ec_short_term_max_uS_cm
    bearable = short is not None and best.usual_uS_cm <= short
    days = SHORT_TERM_DAYS if bearable else OVER_SHORT_TERM_DAYS
    change_by = (since or today) + timedelta(days=days)
    about = (
        f"{best.usual_uS_cm:.0f} of at most {limit:.0f} µS/cm"
        if best.measured
        else f"usually {best.low_uS_cm:.0f} to {best.high_uS_cm:.0f} of at most {limit:.0f} µS/cm"
    )
    until = f"{change_by.day} {change_by:%b}"
    when = f"until {until} at most" if change_by > today else f"its time ended on {until}: change now"
    why = "" if bearable else ", over what it bears for weeks"
    slow = f" {capital(best.verdict.kind_line)}." if best.verdict.kind == "known bad" else ""
    return LeastBad(
        best.id,
        best.name,
        days,
        change_by,
        f"Only water over its limit is at hand: {best.name}, {about}{why}.{slow} "
        f"Better than dry, {when}. Rain, distilled or permeate, or a blend with one of them, is the way out.",
    )


def choose_waters(
    offered: list[Offered],
    needs: PlantNeeds,
    today: date,
    *,
    since: date | None = None,
    order: Order = "own",
    always: int | None = None,
) -> WaterChoice:
    """Waters for a plant on a day. ``since``: the first pour of an unbroken run over its limit, if there is one.

    ``always``: the water its grower keeps it on, on trial or by choice; given whatever stands beside it, and told
    where something is known against it.
    """
    mine = next((w for w in offered if w.id == always), None)
    if mine is not None:
        over = f"over its limit of {needs.ec_max_uS_cm:g} µS/cm" if mine.over(needs.ec_max_uS_cm) else ""
        against = mine.refused or over
        return WaterChoice((mine.id,), None, (), f"{mine.name} by your choice: {against}." if against else "")
    fit = fit_waters(offered, needs, order)
    refused = tuple(f"{w.name}: {w.refused}" for w in offered if w.refused)
    if fit:
        return WaterChoice(tuple(w.id for w in fit), None, refused)
    worse = least_bad(offered, needs, since, today)
    return WaterChoice((worse.water_id,) if worse else (), worse, refused)


@calculation("least-bad-water", title="If only unfit water is at hand", station="water")
def least_bad_water(
    *, offered: list[Offered], plant: PlantNeeds, today: date, since: date | None = None
) -> Computed[LeastBad]:
    """The water that does least harm to a plant where none at hand is fit, and the day by which it must change.

    Parameters
    ----------
    offered : list[Offered]
        Waters at hand, each with what was found of it for this plant. [µS/cm]
    plant : PlantNeeds
        What the plant needs of its water. [µS/cm, mg/L]
    today : date
        The day asked about.
    since : date
        The first pour of an unbroken run over its limit; empty: none yet.

    Returns
    -------
    Computed
        The water, the days it may be given, the day it must change. [d]

    Raises
    ------
    Underspecified
        If no water is offered, or each is known to harm.
    OutOfRange
        If a limit cannot be.

    Notes
    -----
    A plant is not left dry because its water is hard. What is known to harm (softened, chloramine for a
    sensitive kind) is refused all the same: its way out is another water or a treatment.

    References
    ----------
    judgement; care profile
    """
    check_needs(plant)
    for i, w in enumerate(offered):
        for value, key in ((w.low_uS_cm, "low_uS_cm"), (w.usual_uS_cm, "usual_uS_cm"), (w.high_uS_cm, "high_uS_cm")):
            require(value, "EC", "µS/cm", low=0, high=200_000, pointer=f"/offered/{i}/{key}")
        for value, words, key in (
            (w.verdict.limit_uS_cm, "Limit", "limit_uS_cm"),
            (w.verdict.margin_uS_cm, "Margin", "margin_uS_cm"),
            (abs(w.verdict.headroom_uS_cm), "Room", "headroom_uS_cm"),
        ):
            require(value, words, "µS/cm", low=0, high=200_000, pointer=f"/offered/{i}/verdict/{key}")
    found = least_bad(offered, plant, since, today)
    if found is None:
        raise Underspecified(
            "No water at hand may be given: each is known to harm this plant. Enter another, or treat one.",
            pointer="/offered",
        )
    ledger = Ledger("If only unfit water is at hand", "Better than dry, for a while.", ("judgement", "profile"))
    best = next(w for w in offered if w.id == found.water_id)
    ledger.take("limit", f"the most {plant.name} may drink for good", plant.ec_max_uS_cm, "µS/cm", "table:profile")
    ledger.take("EC", best.name, best.usual_uS_cm, "µS/cm", "measured" if best.measured else "usual-water")
    ledger.step("over", "EC - limit", "µS/cm", "over the limit")
    ledger.take("days", "days it may be given", found.days, "d", "judgement")
    return ledger.close(found)
