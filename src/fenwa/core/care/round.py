"""The day's round: what is due, which cans it takes, who gets what in walking order."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Any, Literal

from fenwa.core.care.holds import Hold, blocked
from fenwa.core.errors import DomainError
from fenwa.core.mix.dose import Dose, StrengthMode, dose
from fenwa.core.mix.elements import label_to_elements
from fenwa.core.mix.feed import ProductSlope
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger, Working

Job = Literal["feed", "plain", "flush"]

FLUSH_SHARE = 0.8  # of the ceiling: flush when the predicted reading passes it
FLUSH_REST_DAYS = 7  # a flush shows within days; not twice in a week
SPARE = 1.05  # a can holds a little more than the pots take
MINUTES_A_POT, MINUTES_A_CAN, MINUTES_A_ROUND = 0.75, 2.5, 2.0  # judgement


@dataclass(frozen=True)
class RoundPot:
    """A pot as the round needs it. None: not known or does not apply."""

    id: int
    code: str
    name: str
    place: str
    shelf_order: int
    isolated: bool
    interval_days: float
    plain_every: int
    last_pour_on: date | None
    last_flush_on: date | None
    feeds_since_plain: int
    feeds_at_root: bool
    n_low_mg_L: float
    n_high_mg_L: float
    feed_ceiling_uS_cm: float | None
    carnivore: bool
    volume_L: float
    route: str
    reading_uS_cm: float | None
    ceiling_uS_cm: float | None
    flush_rounds: int
    flush_round_L: float
    flush_pause_min: float
    flush_sentence: str
    flush_forbidden: bool
    water_ids: tuple[int, ...]
    holds: tuple[Hold, ...] = ()


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
class RoundPlan:
    """Today's work."""

    cans: tuple[Can, ...]
    looks: tuple[Look, ...]
    pots_due: int
    minutes: float


def job_of(p: RoundPot, today: date) -> Job | None:
    """What is due for a pot today by its interval, its pattern and its predicted reading."""
    if blocked(p.holds, "water"):
        return None
    flushed_long_ago = p.last_flush_on is None or (today - p.last_flush_on).days >= FLUSH_REST_DAYS
    salty = (
        p.reading_uS_cm is not None and p.ceiling_uS_cm is not None and p.reading_uS_cm >= FLUSH_SHARE * p.ceiling_uS_cm
    )
    if salty and flushed_long_ago and p.flush_rounds > 0 and not p.flush_forbidden and not blocked(p.holds, "flush"):
        return "flush"
    if p.last_pour_on is not None and (today - p.last_pour_on).days < p.interval_days:
        return None
    feeds = p.feeds_at_root and p.plain_every > 1 and p.n_high_mg_L > 0 and not blocked(p.holds, "feed")
    if feeds and not salty and p.feeds_since_plain < p.plain_every - 1:
        return "feed"
    return "plain"


def fewest_strengths(ranges: list[tuple[float, float]]) -> list[list[int]]:
    """Group ranges so that each group shares a strength, in the fewest groups.

    Sorting by upper end and opening a group only when a range starts above the
    open group's lowest upper end is the classic optimum for stabbing intervals.
    """
    order = sorted(range(len(ranges)), key=lambda i: ranges[i][1])
    groups: list[list[int]] = []
    reach = -math.inf
    for i in order:
        if ranges[i][0] > reach:
            groups.append([])
            reach = ranges[i][1]
        groups[-1].append(i)
    return groups


def _walk(pots: list[RoundPot]) -> list[RoundPot]:
    return sorted(pots, key=lambda p: (p.isolated, p.shelf_order, p.code))


def _shares(pots: list[RoundPot], why: str = "") -> tuple[CanPot, ...]:
    return tuple(
        CanPot(p.id, p.code, p.name, p.place, round(p.volume_L * 1000, -1), p.route, p.isolated, why)
        for p in _walk(pots)
    )


def _litres(pots: list[RoundPot]) -> float:
    return math.ceil(sum(p.volume_L for p in pots) * SPARE * 10) / 10


def _common_water(pots: list[RoundPot], waters: list[RoundWater]) -> RoundWater | None:
    """First water, in the grower's own order, that every pot may have."""
    return next((w for w in waters if all(w.id in p.water_ids for p in pots)), None)


@lru_cache(maxsize=256)
def _remembered_dose(**inputs: Any) -> Computed[Dose]:
    """The dose is pure and a round asks for the same cans all day."""
    return dose(**inputs)


def _feed_can(
    pots: list[RoundPot], waters: list[RoundWater], label: Label, scale_step_g: float, syringe_step_mL: float,
    slope: ProductSlope | None,
) -> Can | None:  # fmt: skip
    base = _common_water(pots, waters)
    if base is None:
        return None
    low = max(p.n_low_mg_L for p in pots)
    high = min(p.n_high_mg_L for p in pots)
    strength = round((low + high) / 2)
    strictest = min(pots, key=lambda p: p.feed_ceiling_uS_cm if p.feed_ceiling_uS_cm is not None else math.inf)
    volume = _litres(pots)
    named: StrengthMode = "nitrogen"
    value = float(strength)

    def make() -> Computed[Dose]:
        return _remembered_dose(
            label=label, base=base.base, volume_L=volume, strength=named, value=value,
            ceiling_uS_cm=strictest.feed_ceiling_uS_cm, ceiling_of=strictest.code,
            scale_step_g=scale_step_g, syringe_step_mL=syringe_step_mL, slope=slope,
        )  # fmt: skip

    computed = make()
    if computed.result.over_ceiling and strictest.feed_ceiling_uS_cm is not None:
        named, value = "ec_total", round(max(0.95 * strictest.feed_ceiling_uS_cm, base.base.ec25_uS_cm))
        computed = make()
    made = computed.result
    ceiling = strictest.feed_ceiling_uS_cm
    why = f"The strictest, {strictest.code}, takes a feed up to {ceiling:.0f} µS/cm." if ceiling else ""
    return Can("", "feed", f"{volume:g} L feed", base.id, base.name, volume, made.ec_total_uS_cm, made.ec_low_uS_cm,
               made.ec_high_uS_cm, made.nitrogen_mg_L, named, value, weighing_line(made), why, made, computed.working, _shares(pots))  # fmt: skip


def weighing_line(made: Dose) -> str:
    """What goes in, as the bench needs to hear it."""
    if made.stock is not None:
        s = made.stock
        return (f"{s.draw_mL:.3g} mL of stock: {s.mass_g:.3g} g in {s.bottle_mL:g} mL "
                f"(the can alone would take {made.amount_g:.2g} g)")  # fmt: skip
    amount = made.amount_mL if made.amount_mL is not None else made.amount_g
    tail = f"; {made.stock_refusal}" if made.stock_refusal else ""
    return f"{amount:.3g} {made.rounded_unit}, rounds to {made.rounded_amount:g} ({made.rounding_error_pct:.0f} % off){tail}"


@calculation("round-plan", title="Today's round", station="round")
def round_plan(
    *,
    pots: list[RoundPot],
    waters: list[RoundWater],
    label: Label | None,
    today: date,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
    slope: ProductSlope | None = None,
) -> Computed[RoundPlan]:
    """What is due today, grouped into as few cans as the pots' ranges allow.

    Parameters
    ----------
    pots : list[RoundPot]
        Every pot kept. [L, mg/L, µS/cm, d]
    waters : list[RoundWater]
        Waters in the grower's own order, first choice first. [µS/cm]
    label : Label
        The feed at hand, if any. [%]
    today : date
        The day to plan for.
    scale_step_g : float
        Smallest step of the scale. [g]
    syringe_step_mL : float
        Smallest division of the syringe. [mL]
    slope : ProductSlope
        The feed's own measured slope, if it has one. [µS/cm per g/L]

    Returns
    -------
    Computed
        Cans with volumes and weighings, pots in walking order, holds with reasons. [L, min]

    Raises
    ------
    OutOfRange
        If a volume or strength cannot be.

    Notes
    -----
    A missed feed is never doubled. Plain water goes out first, then feed from weak
    to strong, flushes last; carnivores never share a can with others.

    References
    ----------
    judgement; interval rule; E1.4
    """
    ledger = Ledger("Today's round", "Interval rule; lift or feel the pot before pouring.", ("judgement", "profile"))
    jobs = {p.id: job_of(p, today) for p in pots}
    cans: list[Can] = []
    no_water: list[RoundPot] = []
    plain = [p for p in pots if jobs[p.id] == "plain"]
    feed = [p for p in pots if jobs[p.id] == "feed"]
    if label is None or label_to_elements(label=label).result.N_mg_g <= 0:
        if feed:
            ledger.caution("No feed with nitrogen on the shelf: pots due for feed get plain water.")
        plain, feed = plain + feed, []
    strengths: list[Can] = []
    for group in fewest_strengths([(p.n_low_mg_L, p.n_high_mg_L) for p in feed]):
        members = [feed[i] for i in group]
        assert label is not None
        try:
            can = _feed_can(members, waters, label, scale_step_g, syringe_step_mL, slope)
        except DomainError as refused:
            ledger.caution(f"No feed can for {', '.join(p.code for p in members)}: {refused.detail}")
            can = None
        if can is None:
            plain.extend(members)
        else:
            strengths.append(can)
    for carnivore in (True, False):
        left = [p for p in plain if p.carnivore is carnivore]
        for w in waters:
            members = [p for p in left if w.id in p.water_ids]
            left = [p for p in left if p not in members]
            if members:
                cans.append(_plain_can(members, w, carnivore))
        no_water.extend(left)
    cans.extend(sorted(strengths, key=lambda c: c.ec_uS_cm))
    for p in _walk([p for p in pots if jobs[p.id] == "flush"]):
        flush_water = _common_water([p], waters)
        if flush_water is None:
            no_water.append(p)
        else:
            cans.append(_flush_can(p, flush_water))
    looks = [
        Look(p.id, p.code, p.name, h.reason, h.release)
        for p in _walk(pots)
        for h in p.holds[:1]
    ]  # fmt: skip
    looks += [Look(p.id, p.code, p.name, "No water at hand is fit for it.", "Enter or choose a purer water.")
              for p in _walk(no_water)]  # fmt: skip
    lettered = tuple(
        Can(**{**vars(c), "letter": _letter(i)}) for i, c in enumerate(cans)
    )  # fmt: skip
    due = sum(len(c.pots) for c in lettered)
    ledger.take("n_pots", "pots due", due, "")
    ledger.take("n_cans", "cans", len(lettered), "")
    ledger.take("n_rounds", "flush rounds", sum(p.flush_rounds for p in pots if jobs[p.id] == "flush"), "")
    minutes = ledger.step("minutes", f"{MINUTES_A_POT} * n_pots + {MINUTES_A_CAN} * n_cans + {MINUTES_A_ROUND} * n_rounds",
                          "min", "about")  # fmt: skip
    return ledger.close(RoundPlan(lettered, tuple(looks), due, minutes))


def _letter(i: int) -> str:
    return chr(65 + i) if i < 26 else f"{chr(64 + i // 26)}{chr(65 + i % 26)}"


def _plain_can(pots: list[RoundPot], w: RoundWater, carnivore: bool) -> Can:
    volume, ec = _litres(pots), w.base.ec25_uS_cm
    why = "Its own can: carnivores never share one with feed." if carnivore else "Plain water, nothing added."
    return Can("", "plain", f"{volume:g} L {w.name}, nothing added", w.id, w.name, volume, ec, ec, ec, 0.0, None, 0.0, "", why,
               None, None, _shares(pots))  # fmt: skip


def _flush_can(p: RoundPot, w: RoundWater) -> Can:
    volume, ec = round(p.flush_rounds * p.flush_round_L, 2), w.base.ec25_uS_cm
    share = CanPot(p.id, p.code, p.name, p.place, volume * 1000, "top", p.isolated, p.flush_sentence)
    reading = (
        f"Reading about {p.reading_uS_cm:.0f}, ceiling {p.ceiling_uS_cm:.0f}." if p.reading_uS_cm is not None else ""
    )
    return Can("", "flush", f"Flush {p.code}", w.id, w.name, volume, ec, ec, ec, 0.0, None, 0.0, p.flush_sentence, reading,
               None, None, (share,))  # fmt: skip
