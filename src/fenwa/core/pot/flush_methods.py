"""Every way to bring a pot's salt down, side by side: rounds, baths, fresh water below, or a fresh mix."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.constants import uS_A_mg_N
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.balance import leach
from fenwa.core.pot.dunk import SOAK_HALF_TIMES, baths_needed
from fenwa.core.pot.flush import NOT_FROM_ABOVE, FlushPlan, FromAbove, flush_plan, reading_after, root_zone_for
from fenwa.core.pot.specification import PotSpec, capacity_L, check_pot, tray_L
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Way = Literal["rounds", "soak and drain", "baths", "fresh water below", "repot"]

POUR_min = 2.0  # to pour a round slowly and let it run; judgement
REPOT_min = 30.0
BATH_TIMES = 3.0  # a bath is taken as so many times the water the pot holds; judgement
SOAK_TIMES = 1.5
SOME_LEFT = 0.5  # of the water a pot holds: with less of it a flush is not begun
BATHS_HANDICAP = 1.25  # judgement
CLOSE_uS_cm, CLOSE_SHARE = 20.0, 0.1  # E4.1: nearer to the water than that the last litres do nothing

RIM = "Pour at the rim; keep crown and rosette dry."


@dataclass(frozen=True)
class FlushWater:
    """A water at hand: its EC, what is left of it and what a litre costs. None: not known. [µS/cm, L, currency/L]"""

    name: str
    ec_uS_cm: float
    left_L: float | None = None
    price_L: float | None = None
    allowed: bool = True


@dataclass(frozen=True, kw_only=True)
class FlushWay:
    """One way with what it costs. [L, min, µS/cm, mg]"""

    way: Way
    possible: bool
    sentence: str
    count: int
    litres: float
    minutes: float
    days: int
    reading_after_uS_cm: float | None
    risk: str


@dataclass(frozen=True, kw_only=True)
class FlushMethods:
    """The ways in order of water used, those that cannot work last, and what a flush carries off. [µS/cm, L, mg]"""

    ways: tuple[FlushWay, ...]
    best: Way | None
    water: str
    second_water: str
    water_sentence: str
    root_zone_target_uS_cm: float
    salt_mg: float
    nitrogen_mg: float
    cautions: tuple[str, ...]
    plan: FlushPlan


@calculation("flush-methods", title="Ways to flush", station="flush")
def flush_methods(
    *,
    pot: PotSpec,
    root_zone_uS_cm: float,
    target_reading_uS_cm: float,
    waters: list[FlushWater],
    deficit_L: float = 0.0,
    from_above: FromAbove = "yes",
    crust: bool = False,
    prills: bool = False,
    lime: bool = False,
    medium_old: bool = False,
    round_L: float | None = None,
    pause_min: float | None = None,
) -> Computed[FlushMethods]:
    """Rounds from above, soak and drain, baths, fresh water below and repotting, side by side for one pot.

    Parameters
    ----------
    pot : PotSpec
        Volume and medium. [L]
    root_zone_uS_cm : float
        Mean of all water in the pot as it stands, 0 to 50 000. [µS/cm]
    target_reading_uS_cm : float
        Reading wanted afterwards, above 0 to 20 000. [µS/cm]
    waters : list[FlushWater]
        Waters at hand, one to twenty. [µS/cm, L]
    deficit_L : float
        Water the pot takes up before it drains, 0 to what its mobile water can be. [L]
    from_above : str
        How this kind may be rinsed.
    crust : bool
        A crust was seen: it is scraped first, and one round is poured even where the reading is in range.
    prills : bool
        Prills are still giving.
    lime : bool
        Lime, gypsum or tufa in the medium sets a floor.
    medium_old : bool
        The medium is past its usual life.
    round_L : float
        Water of one round, 0.01 to 1000; empty: two thirds of the pot's own water. [L]
    pause_min : float
        Pause between rounds, 0 to 2880; empty: one and a half half times. [min]

    Returns
    -------
    Computed
        Each way with litres, minutes, days, reading afterwards and risk; the water to take; what is carried off.

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or no water is given.

    References
    ----------
    E4.1; E4.3; E4.6; E4.7; section 4.4
    """
    check_pot(pot)
    require(root_zone_uS_cm, "Root zone", "µS/cm", low=0, high=50_000, pointer="/root_zone_uS_cm")
    _check_waters(waters)
    target = root_zone_for(pot, target_reading_uS_cm)
    least = SOME_LEFT * capacity_L(pot)
    chosen = _choose([w for w in waters if w.left_L is None or w.left_L >= least] or waters, target)

    def planned(w: FlushWater) -> Computed[FlushPlan]:
        return flush_plan(
            pot=pot,
            root_zone_uS_cm=root_zone_uS_cm,
            target_reading_uS_cm=target_reading_uS_cm,
            water_uS_cm=w.ec_uS_cm,
            round_L=round_L,
            pause_min=pause_min,
            deficit_L=deficit_L,
            from_above="yes" if from_above not in NOT_FROM_ABOVE else from_above,
        )

    plan = planned(chosen)
    purest = min((w for w in waters if w.allowed and w.left_L != 0), key=lambda w: w.ec_uS_cm, default=chosen)
    if plan.result.status == "impossible" and purest is not chosen:
        chosen, plan = purest, planned(purest)
    p = plan.result
    ledger = Ledger("Ways to flush", "Medium defaults unless readings taught better.", ("mass-balance", "judgement"))
    ledger.take("C_0", "root zone as it stands", root_zone_uS_cm, "µS/cm", "computed:root-zone")
    ledger.take("C_t", "root zone wanted", target, "µS/cm", "from the reading wanted, E2.5")
    ledger.take("C_w", f"flush water, {chosen.name}", chosen.ec_uS_cm, "µS/cm", "measured")
    ledger.take("W", "water at capacity", capacity_L(pot), "L", "table:media")
    litres = ledger.take("V", "litres of the rounds", p.total_L, "L", "computed:flush-plan")
    carried = nitrogen = 0.0
    if p.rounds:
        ledger.take("W_m", "mobile water", (1 - pot.medium.phi) * capacity_L(pot), "L", "table:media")
        runoff = float(
            leach(
                root_zone_uS_cm,
                chosen.ec_uS_cm,
                pot.medium.eta,
                max(litres - deficit_L, 1e-9) / ((1 - pot.medium.phi) * capacity_L(pot)),
            )[1]
        )
        ledger.found("C_L", "mean runoff", max(runoff, chosen.ec_uS_cm), "µS/cm", "drainage, E3.4")
        ledger.take("s", "EC of a milligram of nitrogen in a litre", uS_A_mg_N, "µS/cm", "default:E1.6")
        ledger.take("D", "refill", deficit_L, "L", "computed:root-zone")
        nitrogen = ledger.step("N", "(C_L - C_w) / s * (V - D)", "mg", "nitrogen carried off, at most")
        carried = ledger.step("S", "(C_L - C_w) * (V - D) * 0.7", "mg", "salt carried off, about")
    ways = [
        _rounds(p, pot, from_above, crust, chosen, round_L),
        _soaks(pot, root_zone_uS_cm, target, chosen, from_above),
        _baths(pot, root_zone_uS_cm, target, chosen, from_above),
        _below(pot, root_zone_uS_cm, target, chosen),
        _repot(pot, medium_old),
    ]
    ways.sort(key=lambda w: (not w.possible, w.way == "repot" and not medium_old, w.minutes > 6 * 60, _liked(w)))
    cautions = _cautions(crust, prills, lime, medium_old, target, chosen.ec_uS_cm, p, pot.drainage == "plunged")
    for c in cautions:
        ledger.caution(c)
    second, said = _water_words(chosen, waters, ways[0].litres if ways[0].possible else 0.0, target)
    return ledger.close(
        FlushMethods(
            ways=tuple(ways),
            best=ways[0].way if ways[0].possible else None,
            water=chosen.name,
            second_water=second,
            water_sentence=said,
            root_zone_target_uS_cm=target,
            salt_mg=carried,
            nitrogen_mg=nitrogen,
            cautions=cautions,
            plan=p,
        )
    )


def _liked(w: FlushWay) -> float:
    """Litres, with rounds before baths and soaks where they take nearly as much: readings can follow them."""
    return w.litres * (1.0 if w.way == "rounds" else BATHS_HANDICAP)


def _check_waters(waters: list[FlushWater]) -> None:
    if not 1 <= len(waters) <= 20:
        raise InputError(f"{len(waters)} waters. Give one to twenty.", pointer="/waters")
    for i, w in enumerate(waters):
        require(w.ec_uS_cm, f"EC of {w.name}", "µS/cm", low=0, high=20_000, pointer=f"/waters/{i}/ec_uS_cm")
        if w.left_L is not None:
            require(w.left_L, f"Left of {w.name}", "L", low=0, high=1_000_000, pointer=f"/waters/{i}/left_L")
        if w.price_L is not None:
            require(w.price_L, f"Price of {w.name}", "", low=0, high=1000, pointer=f"/waters/{i}/price_L")


def _choose(waters: list[FlushWater], target: float) -> FlushWater:
    """The cheapest allowed water that is well below the target; else the purest."""
    offered = [w for w in waters if w.allowed] or waters
    able = [w for w in offered if target >= w.ec_uS_cm + max(CLOSE_uS_cm, CLOSE_SHARE * w.ec_uS_cm)]
    able = [w for w in able if w.ec_uS_cm <= 0.5 * target] or able
    if not able:
        return min(offered, key=lambda w: w.ec_uS_cm)
    return min(able, key=lambda w: (w.price_L or 0.0, w.ec_uS_cm))


def _water_words(chosen: FlushWater, waters: list[FlushWater], needed: float, target: float) -> tuple[str, str]:
    """Whether there is enough of it, and what to take for the last round where there is not."""
    if chosen.left_L is None or needed <= chosen.left_L:
        return "", f"{chosen.name}, {chosen.ec_uS_cm:.0f} µS/cm."
    rest = [w for w in waters if w is not chosen and w.allowed and w.ec_uS_cm < target]
    if not rest:
        return "", (
            f"{chosen.name} has {chosen.left_L:g} L; this needs {needed:.1f} L. Flush a part today and the rest later."
        )
    other = min(rest, key=lambda w: w.ec_uS_cm)
    return other.name, (
        f"{chosen.name} has {chosen.left_L:g} L; this needs {needed:.1f} L: use {other.name} for the last round."
    )


def _rounds(
    p: FlushPlan, pot: PotSpec, from_above: FromAbove, crust: bool, water: FlushWater, round_L: float | None
) -> FlushWay:
    risk = RIM if from_above == "rim_only" else "Wet crowns rot: pour on the medium."
    if p.status == "forbidden":
        return _no("rounds", p.sentence, risk)
    if p.status == "impossible":
        return _no("rounds", p.sentence, risk)
    if p.status == "not needed":
        if not crust:
            return _no("rounds", p.sentence, risk)
        volume = round_L if round_L is not None else capacity_L(pot)
        said = f"Scrape the crust off, then one round of {volume:.2g} L: the salt lies on top."
        return FlushWay(
            way="rounds",
            possible=True,
            sentence=said,
            count=1,
            litres=volume,
            minutes=POUR_min,
            days=1,
            reading_after_uS_cm=None,
            risk=risk,
        )
    same_day = p.status == "same day"
    minutes = p.rounds * POUR_min + (p.rounds - 1) * (p.pause_min if same_day else 0.0)
    return FlushWay(
        way="rounds",
        possible=True,
        sentence=("Scrape the crust off first. " if crust else "") + p.sentence,
        count=p.rounds,
        litres=p.total_L,
        minutes=minutes,
        days=1 if same_day else p.rounds,
        reading_after_uS_cm=p.end_reading_uS_cm,
        risk=risk,
    )


def _no(way: Way, why: str, risk: str) -> FlushWay:
    return FlushWay(
        way=way,
        possible=False,
        sentence=why,
        count=0,
        litres=0.0,
        minutes=0.0,
        days=0,
        reading_after_uS_cm=None,
        risk=risk,
    )


def _bathed(
    way: Way, pot: PotSpec, start: float, target: float, water: FlushWater, bath: float, what: str, risk: str
) -> FlushWay:
    W = capacity_L(pot)
    n = baths_needed(start, target, water.ec_uS_cm, W, bath)
    if n == 0:
        return _no(way, "The reading is at or below the target already.", risk)
    if n is None:
        return _no(way, f"Not with {water.name}: no count of them reaches the target. Use a purer water.", risk)
    soak = 60 * SOAK_HALF_TIMES * pot.medium.t_half_h
    after = water.ec_uS_cm + (start - water.ec_uS_cm) * (W / (W + bath)) ** n
    plural = "s" if n > 1 else ""
    return FlushWay(
        way=way,
        possible=True,
        sentence=f"{n} {what}{plural} of {bath:.2g} L, {max(soak, 10):.0f} min each, fresh water every time.",
        count=n,
        litres=n * bath,
        minutes=n * (max(soak, 10.0) + POUR_min),
        days=1 if n * soak < 12 * 60 else n,
        reading_after_uS_cm=reading_after(pot, after),
        risk=risk,
    )


def _soaks(pot: PotSpec, start: float, target: float, water: FlushWater, from_above: FromAbove) -> FlushWay:
    bath = max(0.1, math.ceil(SOAK_TIMES * capacity_L(pot) / 0.1) * 0.1)
    return _bathed("soak and drain", pot, start, target, water, bath, "soak", "From below: leaves and crown stay dry.")


def _baths(pot: PotSpec, start: float, target: float, water: FlushWater, from_above: FromAbove) -> FlushWay:
    if from_above in ("never", "rim_only"):
        return _no("baths", "Its crown must not go under: soak it from below instead.", "Rot.")
    bath = max(0.5, math.ceil(BATH_TIMES * capacity_L(pot) / 0.5) * 0.5)
    risk = "Fresh water for every plant: a shared bath carries virus and rot."
    return _bathed("baths", pot, start, target, water, bath, "bath", risk)


def _below(pot: PotSpec, start: float, target: float, water: FlushWater) -> FlushWay:
    if pot.drains:
        return _no("fresh water below", "It drains: there is no water below to change.", "")
    change = max(tray_L(pot), 0.05)
    risk = "Only what evens out with the tray leaves; the surface stays saltier."
    return _bathed("fresh water below", pot, start, target, water, change, "change", risk)


def _repot(pot: PotSpec, old: bool) -> FlushWay:
    said = "Repot into fresh mix: " + ("it is past its life, so this is due." if old else "only where a flush fails.")
    return FlushWay(
        way="repot",
        possible=True,
        sentence=said + " Plain water for two weeks, feed once roots move.",
        count=1,
        litres=capacity_L(pot),
        minutes=REPOT_min,
        days=1,
        reading_after_uS_cm=None,
        risk="Cut roots: no feed, no flush for one to two weeks.",
    )


def _cautions(
    crust: bool, prills: bool, lime: bool, old: bool, target: float, water: float, p: FlushPlan, plunged: bool
) -> tuple[str, ...]:
    out = []
    if plunged:
        out.append("Lift it out of its bed and let it drain apart: else the bed takes the salt and gives it back.")
    if crust:
        out.append("Scrape the crust off rim and surface first, dry: water would wash it back in.")
    if prills:
        out.append("Prills go on giving: a flush washes out what lies free and does not stop the rest.")
    if lime:
        out.append("Lime, gypsum or tufa in the mix sets a floor that no flush removes.")
    if old:
        out.append("The medium is past its usual life: a flush only keeps damaged roots wet. Repot in growth.")
    if p.status == "separate days" and p.one_round_floor_uS_cm > target:
        out.append(
            f"One round alone cannot pass {p.one_round_floor_uS_cm:.0f} µS/cm in the root zone: salt sits inside."
        )
    out.append("Runoff goes on lawn or tolerant garden plants: not on other pots, ponds or drains. Local rules first.")
    return tuple(out)
