"""Cans with something weighed in: each product's own, in as few mixes as the pots' ranges allow."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from fenwa.core.care.cans import SAFE, CanWater, MixNeed, SharedCan, SLOPE_uS_PER_mg_N, group
from fenwa.core.care.due import Job, RoundPot
from fenwa.core.care.round_parts import Can, CanPot, RoundFeed, RoundWater, can_pot, made_for, shares_of, walk_of
from fenwa.core.errors import DomainError
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.can import litres_for
from fenwa.core.mix.dose import StrengthMode, dose
from fenwa.core.mix.elements import feeds_alone, ions_per_gram, only_feed
from fenwa.core.mix.feed import FeedModel, elements_of
from fenwa.core.mix.label import Label
from fenwa.core.mix.stock import PURE
from fenwa.core.working import Computed, Ledger

N_STEP_mg_L = 0.05  # nitrogen within so much is the same
BOTTLES_L = (0.1, 0.25, 0.5, 1.0)  # mist bottles there are
SPRAY_SPARE_mL = 5.0  # a mist bottle does not give its last


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
class Bench:
    """What every can of a round is made with."""

    waters: dict[int, RoundWater]
    feed: RoundFeed
    scale_step_g: float
    syringe_step_mL: float


def _feed_can(water_id: int, named: tuple[StrengthMode, float], pots: list[RoundPot], bench: Bench) -> Can:
    water = bench.waters[water_id]
    strictest = min(pots, key=lambda p: p.feed_ceiling_uS_cm if p.feed_ceiling_uS_cm is not None else math.inf)
    ceiling = strictest.feed_ceiling_uS_cm
    why = f"The strictest, {strictest.code}, takes a feed up to {ceiling:.0f} µS/cm." if ceiling else ""
    return _made(
        job="feed",
        pots=pots,
        water=water,
        named=named,
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
    named: tuple[StrengthMode, float],
    volume: float,
    ceiling: float | None,
    of: str,
    why: str,
    bench: Bench,
) -> Can:
    """A can with what is weighed into it, kept under the ceiling and under the nitrogen its pots may have."""
    mode, value = named

    def make() -> Computed[Dose]:
        return _remembered_dose(
            label=bench.feed.label,
            base=water.base,
            volume_L=volume,
            strength=mode,
            value=value,
            ceiling_uS_cm=ceiling,
            ceiling_of=of,
            scale_step_g=bench.scale_step_g,
            syringe_step_mL=bench.syringe_step_mL,
            slope=bench.feed.slope,
        )

    computed = make()
    most = min((p.n_most_mg_L for p in pots if p.n_most_mg_L is not None), default=math.inf)
    if job == "feed" and computed.result.nitrogen_mg_L > most + N_STEP_mg_L:
        mode, value = "nitrogen", float(math.floor(most))
        why = f"{why} Thinner than the plan: its kind takes {value:g} mg/L N at most.".strip()
        computed = make()
    if computed.result.over_ceiling and ceiling is not None:
        mode, value = "ec_total", math.floor(max(SAFE * ceiling, water.base.ec25_uS_cm))
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
        strength=mode,
        strength_value=value,
        product_id=bench.feed.id,
        product=bench.feed.name,
        weighing=weighing_line(made),
        why=why,
        dose=made,
        working=computed.working,
        pots=shares,
        water_measured=water.base.measured,
        to_mix=True,
        made_for=made_for(pots[0]) if job == "feed" else "leaf",
    )


def _spray_shares(pots: list[RoundPot]) -> tuple[CanPot, ...]:
    return tuple(can_pot(p, "leaf spray", p.spray_mL, "leaf spray", p.pattern.when) for p in walk_of(pots))


def spray_cans(pots: list[RoundPot], waters: list[RoundWater], bench: Bench, ledger: Ledger) -> list[Can]:
    """Thin sprays, grouped like cans; each bottle under the lowest ceiling of its plants."""
    needs = [MixNeed(p.id, p.spray_n_mg_L, p.spray_n_mg_L, p.spray_ceiling_uS_cm, p.water_ids) for p in pots]
    known = {p.id: p for p in pots}
    out = []
    for shared in group(needs, _plain_waters(waters), _rise(bench)).cans:
        members = [known[i] for i in shared.ids]
        strictest = min(members, key=lambda p: p.spray_ceiling_uS_cm if p.spray_ceiling_uS_cm is not None else math.inf)
        volume = math.ceil((sum(p.spray_mL for p in members) + SPRAY_SPARE_mL) / 10) / 100
        when = members[0].pattern.when
        why = f"On the leaves{', ' + when if when else ''}; never in the tray or on the medium."
        try:
            for litres in (volume, *(v for v in BOTTLES_L if v > volume)):  # the least that can be weighed
                larger = " A larger bottle than is needed: less cannot be weighed." if litres > volume else ""
                can = _made(
                    job="leaf spray",
                    pots=members,
                    water=bench.waters[shared.water_id],
                    named=("nitrogen", max(1.0, math.floor(shared.n_high_mg_L))),
                    volume=litres,
                    ceiling=strictest.spray_ceiling_uS_cm,
                    of=strictest.code,
                    why=why + larger,
                    bench=bench,
                )
                if not _is_nothing(can.dose):
                    break
        except DomainError as refused:
            ledger.caution(f"No leaf spray for {', '.join(p.code for p in members)}: {refused.detail}")
            continue
        if _is_nothing(can.dose):
            codes = ", ".join(p.code for p in members)
            ledger.caution(f"The spray for {codes} is less than can be weighed ({_grams(can.dose)}): mix a stock.")
            continue
        out.append(can)
    return out


def _is_nothing(dose: Dose | None) -> bool:
    """Whether a dose rounds to nothing on the scale, and no stock brings it."""
    return dose is not None and dose.rounded_amount <= 0 and dose.stock is None and dose.by_steps is None


def _grams(dose: Dose | None) -> str:
    return f"{dose.amount_g:.2g} g" if dose is not None else ""


def _rise(bench: Bench) -> float:
    """What a mg/L of nitrogen adds to the reading, by the product's own slope where there is one."""
    own = bench.feed.slope.factor if bench.feed.slope else 1.0
    return min(max(own * rise_per_mg_N(bench.feed.label), 1.0), 60.0)


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
    if made.by_steps is not None:
        b = made.by_steps
        return f"thinned in steps: {b.mass_g:.6g} g in {b.bottle_mL:g} mL. {b.dilution.sentence}"
    amount = made.amount_mL if made.amount_mL is not None else made.amount_g
    tail = f"; {made.stock_refusal}" if made.stock_refusal else ""
    return (
        f"{amount:.3g} {made.rounded_unit}, rounds to {made.rounded_amount:g} "
        f"({made.rounding_error_pct:.0f} % off){tail}"
    )


def feed_cans(
    feed: list[RoundPot], waters: list[RoundWater], bench: Bench, ledger: Ledger
) -> tuple[list[Can], list[RoundPot], str]:
    """Feed cans, the pots no feed fits, and what sharing saved."""
    known, at_hand = {p.id: p for p in feed}, _plain_waters(waters)
    free = [p for p in feed if p.asked is None]
    needs = [MixNeed(p.id, p.n_low_mg_L, p.n_high_mg_L, p.feed_ceiling_uS_cm, p.water_ids) for p in free]
    found = group(needs, at_hand, _rise(bench))
    unfed = [known[i] for i in found.left_out]
    cans = [(c.water_id, _middle(c), [known[i] for i in c.ids]) for c in found.cans]
    for named, share in dict.fromkeys((p.asked, p.asked_share) for p in feed if p.asked is not None):
        same = [p for p in feed if (p.asked, p.asked_share) == (named, share)]
        for w in waters:  # each in the first water it may have
            here = [p for p in same if next((i for i in p.water_ids if i in bench.waters), None) == w.id]
            if here:
                cans.append((w.id, _of_added(named, share, w), here))
        unfed += [p for p in same if not any(i in bench.waters for i in p.water_ids)]
    out: list[Can] = []
    for water_id, named, members in cans:
        try:
            can = _feed_can(water_id, named, members, bench)
        except DomainError as refused:
            ledger.caution(f"No feed can for {', '.join(p.code for p in members)}: {refused.detail}")
            unfed += members
            continue
        if _is_nothing(can.dose):
            ledger.caution(
                f"The feed for {', '.join(p.code for p in members)} is less than can be weighed "
                f"({_grams(can.dose)}): plain water. Mix a larger can, or a stock."
            )
            unfed += members
            continue
        out.append(can)
    if found.left_out:
        ledger.caution(
            "No feed fits under the ceiling on any water at hand for "
            f"{', '.join(p.code for p in unfed if p.id in found.left_out)}: plain water."
        )
    fed = found.alone + len(feed) - len(free)
    saving = f"{len(out)} feed {'can' if len(out) == 1 else 'cans'} for {fed} pots." if fed > len(out) > 0 else ""
    return out, unfed, saving


def _of_added(named: tuple[StrengthMode, float], share: float, water: RoundWater) -> tuple[StrengthMode, float]:
    """A strength with a share of what it adds to its water."""
    own = water.base.ec25_uS_cm
    return named if share == 1.0 else (named[0], own + share * max(0.0, named[1] - own))


def _middle(shared: SharedCan) -> tuple[StrengthMode, float]:
    """The strength of a shared can: whole milligrams in the middle of what its pots may have; one asked is kept."""
    if shared.n_low_mg_L == shared.n_high_mg_L:
        return "nitrogen", shared.n_high_mg_L
    return "nitrogen", float(max(1, math.floor((shared.n_low_mg_L + shared.n_high_mg_L) / 2)))


def benches(feeds: list[RoundFeed], waters: list[RoundWater], scale: float, syringe: float) -> dict[int, Bench]:
    """What the cans of each feed are made with."""
    at_hand = {w.id: w for w in waters}
    return {f.id: Bench(at_hand, f, scale, syringe) for f in feeds}


def feed_for(product_id: int | None, feeds: list[RoundFeed]) -> RoundFeed | None:
    """The feed a plan's product is, or where none is named the only one there is; None: not owned, or nobody said."""
    if product_id is not None:
        return next((f for f in feeds if f.id == product_id), None)
    usual = only_feed([f.label for f in feeds])
    return feeds[usual] if usual is not None else None


def by_product(
    feed: list[RoundPot], sprays: list[RoundPot], usual: int | None
) -> dict[int | None, tuple[list[RoundPot], list[RoundPot]]]:
    """The pots of each product, those of no named one under the usual feed; None: nobody said which."""
    out: dict[int | None, tuple[list[RoundPot], list[RoundPot]]] = {}
    for which, pots in enumerate((feed, sprays)):
        for p in pots:
            out.setdefault(p.product_id if p.product_id is not None else usual, ([], []))[which].append(p)
    return out


def which_feed(product_id: int | None, feeds: list[RoundFeed]) -> str:
    """The way out where no feed can be weighed."""
    if product_id is not None:
        return "The feed of its plan is not on your shelf. Add it on Shelf, or choose another in the plan."
    if any(feeds_alone(f.label) for f in feeds):
        return "Several feeds are on your shelf. Say in a feeding plan which one it gets."
    return "No feed with nitrogen is on your shelf. Add one on Shelf."
