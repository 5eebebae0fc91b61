"""The day's round: what is due, which cans it takes, who gets what in walking order."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import date
from functools import lru_cache
from typing import Any

from fenwa.core.care.cans import SAFE, CanWater, MixNeed, SharedCan, SLOPE_uS_PER_mg_N, group
from fenwa.core.care.due import Job, RoundPot, job_of, sprays_today
from fenwa.core.care.round_parts import (
    Can,
    CanPot,
    PotToCheck,
    RoundPlan,
    RoundWater,
    can_pot,
    legs_of,
    shares_of,
    walk_of,
)
from fenwa.core.errors import DomainError
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.can import litres_for
from fenwa.core.mix.dose import StrengthMode, dose
from fenwa.core.mix.elements import ions_per_gram, label_to_elements
from fenwa.core.mix.feed import FeedModel, ProductSlope, elements_of
from fenwa.core.mix.label import Label
from fenwa.core.mix.stock import PURE
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

SPRAY_SPARE_mL = 5.0  # a mist bottle does not give its last
MINUTES_A_POT, MINUTES_A_CAN, MINUTES_A_ROUND = 0.75, 2.5, 2.0  # judgement
CLEAN_HANDS = "Isolated pots last: wash hands and blades before and after them, and let nothing drip from pot to pot."


@lru_cache(maxsize=256)
def _remembered_dose(**inputs: Any) -> Computed[Dose]:
    """The dose is pure and a round asks for the same cans all day."""
    return dose(**inputs)


@lru_cache(maxsize=64)
def rise_per_mg_N(label: Label) -> float:
    """EC a feed adds for a mg/L of nitrogen, at 50 mg/L in pure water. [µS/cm]"""
    elements = elements_of(label)
    if elements.N_mg_g <= 0:
        return SLOPE_uS_PER_mg_N
    rise = FeedModel(PURE, ions_per_gram(elements)).rise(50.0 / elements.N_mg_g) / 50.0
    return min(max(rise, 1.0), 60.0)


@dataclass(frozen=True)
class _Bench:
    """What every can of a round is made with."""

    waters: dict[int, RoundWater]
    label: Label
    scale_step_g: float
    syringe_step_mL: float
    slope: ProductSlope | None


def _feed_can(shared: SharedCan, pots: list[RoundPot], bench: _Bench) -> Can:
    water = bench.waters[shared.water_id]
    strictest = min(pots, key=lambda p: p.feed_ceiling_uS_cm if p.feed_ceiling_uS_cm is not None else math.inf)
    ceiling = strictest.feed_ceiling_uS_cm
    strength = float(max(1, math.floor((shared.n_low_mg_L + shared.n_high_mg_L) / 2)))
    why = f"The strictest, {strictest.code}, takes a feed up to {ceiling:.0f} µS/cm." if ceiling else ""
    return _made(
        job="feed",
        pots=pots,
        water=water,
        strength=strength,
        volume=litres_for(p.volume_L for p in pots),
        ceiling=ceiling,
        of=strictest.code,
        why=why,
        bench=bench,
    )


def _made(
    *,
    job: Job,
    pots: list[RoundPot],
    water: RoundWater,
    strength: float,
    volume: float,
    ceiling: float | None,
    of: str,
    why: str,
    bench: _Bench,
) -> Can:
    """A can with what is weighed into it, kept under the ceiling."""
    named: StrengthMode = "nitrogen"
    value = strength

    def make() -> Computed[Dose]:
        return _remembered_dose(
            label=bench.label,
            base=water.base,
            volume_L=volume,
            strength=named,
            value=value,
            ceiling_uS_cm=ceiling,
            ceiling_of=of,
            scale_step_g=bench.scale_step_g,
            syringe_step_mL=bench.syringe_step_mL,
            slope=bench.slope,
        )

    computed = make()
    if computed.result.over_ceiling and ceiling is not None:
        named, value = "ec_total", math.floor(max(SAFE * ceiling, water.base.ec25_uS_cm))
        computed = make()
    made = computed.result
    title = f"{volume:g} L feed" if job == "feed" else f"{1000 * volume:.0f} mL leaf spray"
    shares = shares_of(pots, job) if job == "feed" else _spray_shares(pots)
    return Can(
        letter="",
        job=job,
        title=title,
        water_id=water.id,
        water_name=water.name,
        volume_L=volume,
        ec_uS_cm=made.ec_total_uS_cm,
        ec_low_uS_cm=made.ec_low_uS_cm,
        ec_high_uS_cm=made.ec_high_uS_cm,
        nitrogen_mg_L=made.nitrogen_mg_L,
        strength=named,
        strength_value=value,
        weighing=weighing_line(made),
        why=why,
        dose=made,
        working=computed.working,
        pots=shares,
        water_measured=water.base.measured,
        to_mix=True,
    )


def _spray_shares(pots: list[RoundPot]) -> tuple[CanPot, ...]:
    return tuple(can_pot(p, "leaf spray", p.spray_mL, "leaf spray", p.pattern.when) for p in walk_of(pots))


def _spray_cans(pots: list[RoundPot], waters: list[RoundWater], bench: _Bench, ledger: Ledger) -> list[Can]:
    """Thin sprays, grouped like cans; each bottle under the lowest ceiling of its plants."""
    needs = [MixNeed(p.id, p.spray_n_mg_L, p.spray_n_mg_L, p.spray_ceiling_uS_cm, p.water_ids) for p in pots]
    known = {p.id: p for p in pots}
    out = []
    for shared in group(needs, _plain_waters(waters), _rise(bench)).cans:
        members = [known[i] for i in shared.ids]
        strictest = min(members, key=lambda p: p.spray_ceiling_uS_cm if p.spray_ceiling_uS_cm is not None else math.inf)
        volume = math.ceil((sum(p.spray_mL for p in members) + SPRAY_SPARE_mL) / 10) / 100
        when = members[0].pattern.when
        try:
            out.append(
                _made(
                    job="leaf spray",
                    pots=members,
                    water=bench.waters[shared.water_id],
                    strength=max(1.0, math.floor(shared.n_high_mg_L)),
                    volume=volume,
                    ceiling=strictest.spray_ceiling_uS_cm,
                    of=strictest.code,
                    why=f"On the leaves{', ' + when if when else ''}; never in the tray or on the medium.",
                    bench=bench,
                )
            )
        except DomainError as refused:
            ledger.caution(f"No leaf spray for {', '.join(p.code for p in members)}: {refused.detail}")
    return out


def _rise(bench: _Bench) -> float:
    """What a mg/L of nitrogen adds to the reading, by the product's own slope where there is one."""
    own = bench.slope.factor if bench.slope else 1.0
    return min(max(own * rise_per_mg_N(bench.label), 1.0), 60.0)


def _plain_waters(waters: list[RoundWater]) -> list[CanWater]:
    return [CanWater(w.id, w.base.ec25_uS_cm) for w in waters]


def weighing_line(made: Dose) -> str:
    """What goes in, as the bench needs to hear it."""
    if made.stock is not None:
        s = made.stock
        return (
            f"{s.draw_mL:.3g} mL of stock: {s.weigh_g:.6g} g in {s.bottle_mL:g} mL "
            f"(the can alone would take {made.amount_g:.2g} g)"
        )
    amount = made.amount_mL if made.amount_mL is not None else made.amount_g
    tail = f"; {made.stock_refusal}" if made.stock_refusal else ""
    return (
        f"{amount:.3g} {made.rounded_unit}, rounds to {made.rounded_amount:g} "
        f"({made.rounding_error_pct:.0f} % off){tail}"
    )


@calculation("round", title="Today's round", station="round", many_rows=True)
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
    ledger = Ledger(
        "Today's round",
        "Interval rule; lift or feel the pot before pouring.",
        ("judgement", "profile", "interval-stabbing"),
    )
    jobs = {p.id: job_of(p, today) for p in pots}
    no_water: list[RoundPot] = []
    at_hand = {w.id: w for w in waters}
    plain = [p for p in pots if jobs[p.id] == "plain"]
    feed = [p for p in pots if jobs[p.id] == "feed"]
    sprays = [p for p in pots if sprays_today(p, today)]
    strengths: list[Can] = []
    mist: list[Can] = []
    saving = ""
    if label is None or label_to_elements(label=label).result.N_mg_g <= 0:
        if feed or sprays:
            ledger.caution("No feed with nitrogen on the shelf: pots due for feed get plain water.")
        plain = plain + feed
    else:
        bench = _Bench({w.id: w for w in waters}, label, scale_step_g, syringe_step_mL, slope)
        strengths, unfed, saving = _feed_cans(feed, waters, bench, ledger)
        plain = plain + unfed
        mist = _spray_cans(sprays, waters, bench, ledger)
    cans: list[Can] = []
    for carnivore in (True, False):
        by_water: dict[int, list[RoundPot]] = {}
        for p in plain:
            if p.carnivore is carnivore:
                first = next((i for i in p.water_ids if i in at_hand), None)
                if first is None:
                    no_water.append(p)
                else:
                    by_water.setdefault(first, []).append(p)
        cans.extend(_plain_can(by_water[w.id], w, carnivore) for w in waters if w.id in by_water)
    cans.extend(sorted(strengths, key=lambda c: c.ec_uS_cm))
    for p in walk_of([p for p in pots if jobs[p.id] == "flush"]):
        flush_water = next((at_hand[i] for i in p.water_ids if i in at_hand), None)
        if flush_water is None:
            no_water.append(p)
        else:
            cans.append(_flush_can(p, flush_water))
    cans.extend(mist)
    looks = [
        PotToCheck(p.id, p.code, p.name, h.reason, h.release)
        for p in walk_of(pots)
        for h in [h for h in p.holds if not h.standing and not h.word][:1]
    ]
    looks += [
        PotToCheck(
            p.id,
            p.code,
            p.name,
            "Due for water, and no water at hand may be given to it.",
            p.water_note or "Enter a water, or a purer one.",
        )
        for p in walk_of(no_water)
    ]
    poured = {share.pot_id for c in cans for share in c.pots}
    looks += [
        PotToCheck(p.id, p.code, p.name, p.water_note, "Give purer water as soon as there is any.")
        for p in walk_of(pots)
        if p.water_note and p.id in poured
    ]
    lettered = tuple(replace(c, letter=_letter(i)) for i, c in enumerate(cans))
    due = len({p.pot_id for c in lettered for p in c.pots})
    ledger.take("n_pots", "pots due", due, "")
    ledger.take("n_cans", "cans", len(lettered), "")
    ledger.take("n_rounds", "flush rounds", sum(p.flush_rounds for p in pots if jobs[p.id] == "flush"), "")
    minutes = ledger.step(
        "minutes", f"{MINUTES_A_POT} * n_pots + {MINUTES_A_CAN} * n_cans + {MINUTES_A_ROUND} * n_rounds", "min", "about"
    )
    isolated = any(p.isolated for c in lettered for p in c.pots)
    return ledger.close(
        RoundPlan(lettered, tuple(looks), due, minutes, legs_of(lettered), saving, CLEAN_HANDS if isolated else "")
    )


def _feed_cans(
    feed: list[RoundPot], waters: list[RoundWater], bench: _Bench, ledger: Ledger
) -> tuple[list[Can], list[RoundPot], str]:
    """Feed cans, the pots no feed fits, and what sharing saved."""
    known = {p.id: p for p in feed}
    needs = [MixNeed(p.id, p.n_low_mg_L, p.n_high_mg_L, p.feed_ceiling_uS_cm, p.water_ids) for p in feed]
    found = group(needs, _plain_waters(waters), _rise(bench))
    out: list[Can] = []
    unfed = [known[i] for i in found.left_out]
    for shared in found.cans:
        members = [known[i] for i in shared.ids]
        try:
            out.append(_feed_can(shared, members, bench))
        except DomainError as refused:
            ledger.caution(f"No feed can for {', '.join(p.code for p in members)}: {refused.detail}")
            unfed += members
    if found.left_out:
        ledger.caution(
            "No feed fits under the ceiling on any water at hand for "
            f"{', '.join(p.code for p in unfed if p.id in found.left_out)}: plain water."
        )
    fed = found.alone
    saving = (
        f"{len(found.cans)} feed {'can' if len(found.cans) == 1 else 'cans'} for {fed} pots."
        if fed > len(found.cans)
        else ""
    )
    return out, unfed, saving


def _letter(i: int) -> str:
    return chr(65 + i) if i < 26 else f"{chr(64 + i // 26)}{chr(65 + i % 26)}"


def _plain_can(pots: list[RoundPot], w: RoundWater, carnivore: bool) -> Can:
    volume = litres_for(p.volume_L for p in pots)
    why = "Its own can: carnivores never share one with feed." if carnivore else "Plain water, nothing added."
    return _water_can("plain", f"{volume:g} L {w.name}, nothing added", w, volume, "", why, shares_of(pots, "plain"))


def _flush_can(p: RoundPot, w: RoundWater) -> Can:
    volume = round(p.flush_rounds * p.flush_round_L, 2)
    share = can_pot(p, "flush", volume * 1000, "top", p.flush_sentence)
    reading = (
        f"Reading about {p.reading_uS_cm:.0f}, ceiling {p.ceiling_uS_cm:.0f}." if p.reading_uS_cm is not None else ""
    )
    return _water_can("flush", f"Flush {p.code}", w, volume, p.flush_sentence, reading, (share,))


def _water_can(
    job: Job, title: str, w: RoundWater, volume_L: float, weighing: str, why: str, pots: tuple[CanPot, ...]
) -> Can:
    """A can of water with nothing weighed into it. [L]"""
    ec, open_to = w.base.ec25_uS_cm, w.base.half_width_uS_cm
    return Can(
        letter="",
        job=job,
        title=title,
        water_id=w.id,
        water_name=w.name,
        volume_L=volume_L,
        ec_uS_cm=ec,
        ec_low_uS_cm=max(0.0, ec - open_to),
        ec_high_uS_cm=ec + open_to,
        nitrogen_mg_L=0.0,
        strength=None,
        strength_value=0.0,
        weighing=weighing,
        why=why,
        dose=None,
        working=None,
        pots=pots,
        water_measured=w.base.measured,
        to_mix=False,
    )
