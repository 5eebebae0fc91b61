"""How long the litres at hand last, and what to fetch."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class WaterNeed:
    """What is needed, what lacks, how many packs bring it, and how long the litres at hand last. [L, d]

    None: not told, or not known.
    """

    need_L: float
    short_L: float | None
    lasts_days: float | None
    packs: int | None
    cost: float | None
    sentence: str


@calculation("water-need", title="Litres for the coming days", station="water")
def water_need(
    *,
    weekly_L: float,
    days: int = 30,
    on_hand_L: float | None = None,
    pack_L: float | None = None,
    price_per_L: float | None = None,
) -> Computed[WaterNeed]:
    """Litres the pots of a water take in some days, against what is at hand.

    Parameters
    ----------
    weekly_L : float
        What its pots take in a week at their usual pours, 0 to 100 000. [L]
    days : int
        Days to reckon with, 1 to 366. [d]
    on_hand_L : float
        Litres at hand; empty: not entered. [L]
    pack_L : float
        Litres of a jug or canister it is bought in, 0.1 to 1 000; empty: by the litre. [L]
    price_per_L : float
        Price of a litre; empty: not known.

    Returns
    -------
    Computed
        Litres needed and short, whole packs to fetch and their price. [L]

    Raises
    ------
    OutOfRange
        If an amount is out of its range.

    References
    ----------
    mass-balance
    """
    require(weekly_L, "Litres a week", "L", low=0, high=100_000, pointer="/weekly_L")
    require(days, "Days", "d", low=1, high=366, pointer="/days")
    ledger = Ledger("Litres for the coming days", "As good as the usual pours.", ("mass-balance",))
    ledger.take("w", "its pots take in a week", weekly_L, "L", "computed:share-out")
    ledger.take("d", "days", days, "d", "entered")
    need = ledger.step("need", "w * d / 7", "L", "needed")
    said = f"{need:.1f} L in {days} days"
    if on_hand_L is None:
        return ledger.close(WaterNeed(need, None, None, None, None, f"{said}. Litres at hand are not entered."))
    require(on_hand_L, "Litres at hand", "L", low=0, high=1_000_000, pointer="/on_hand_L")
    ledger.take("have", "at hand", on_hand_L, "L", "entered")
    short = ledger.step("short", "max(0, need - have)", "L", "short")
    lasts = ledger.step("lasts", "7 * have / w", "d", "what is at hand lasts") if weekly_L > 0 else None
    if short <= 0:
        return ledger.close(WaterNeed(need, 0.0, lasts, 0, 0.0, f"{said}: what is at hand is enough."))
    packs, bought, said_packs = None, short, ""
    if pack_L is not None:
        require(pack_L, "Litres of a pack", "L", low=0.1, high=1000, pointer="/pack_L")
        packs = math.ceil(short / pack_L - 1e-9)
        ledger.take("p", "a pack holds", pack_L, "L", "entered")
        bought = ledger.found("bought", "whole packs", packs * pack_L, "L", "short / p, rounded up")
        said_packs = f": {packs} of {pack_L:g} L"
    cost = None
    if price_per_L is not None:
        require(price_per_L, "Price", "per litre", low=0, high=1_000_000, pointer="/price_per_L")
        ledger.take("price", "a litre costs", price_per_L, "", "entered")
        ledger.take("b", "litres bought", bought, "L", "computed")
        cost = ledger.step("cost", "b * price", "", "cost")
    priced = f", {cost:.2f}" if cost else ""
    return ledger.close(WaterNeed(need, short, lasts, packs, cost, f"{said}, {short:.1f} L short{said_packs}{priced}."))
