"""What a feed costs, and when the pack runs out at the present plan."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FAR_DAYS = 3650


@dataclass(frozen=True)
class CostAndStock:
    """Cost a litre and a month, days left and the day it runs out. None: a price or an amount is not known."""

    cost_per_L: float | None
    cost_per_month: float | None
    used_per_month: float
    days_left: float | None
    runs_out_on: date | None
    feed_left_L: float | None
    sentence: str


def price_per_unit(price: float | None, pack_amount: float | None) -> float | None:
    """Price of a gram or millilitre; None while price or pack is not known. [currency/g or /mL]"""
    return price / pack_amount if price is not None and pack_amount else None


@calculation("cost-and-stock", title="Cost, and when it runs out", station="mix")
def cost_and_stock(
    *,
    dose_per_L: float,
    litres_per_month: float,
    today: date,
    unit: str = "g",
    price: float | None = None,
    pack_amount: float | None = None,
    left: float | None = None,
) -> Computed[CostAndStock]:
    """Cost of a litre and of a month of feed, and the day the pack is empty.

    Parameters
    ----------
    dose_per_L : float
        Dose of the product, g or mL a litre, 0 to 1000. [g/L or mL/L]
    litres_per_month : float
        Feed poured in a month at the present plan, 0 to 100 000. [L/month]
    today : date
        The day to count from.
    unit : str
        g or mL.
    price : float
        Price of a pack, if known. [currency]
    pack_amount : float
        What a pack holds. [g or mL]
    left : float
        What is left of it, if known. [g or mL]

    Returns
    -------
    Computed
        Cost a litre and a month, use a month, days and date. [currency/L, g or mL, d]

    Raises
    ------
    OutOfRange
        If an amount cannot be.

    References
    ----------
    mass-balance
    """
    require(dose_per_L, "Dose", f"{unit}/L", low=0, high=1000, pointer="/dose_per_L")
    require(litres_per_month, "Feed in a month", "L", low=0, high=100_000, pointer="/litres_per_month")
    for value, words, at in ((price, "Price", "/price"), (left, "Left", "/left")):
        if value is not None:
            require(value, words, unit if words == "Left" else "", low=0, high=1_000_000, pointer=at)
    if pack_amount is not None:
        require(pack_amount, "Pack", unit, low=0, open_low=True, high=1_000_000, pointer="/pack_amount")
    ledger = Ledger("Cost, and when it runs out", "At the present plan; seasons move it.", ("mass-balance",))
    ledger.take("d", "dose", dose_per_L, f"{unit}/L", "computed:dose")
    ledger.take("L", "feed in a month", litres_per_month, "L/month", "log")
    used = ledger.step("U", "d * L", f"{unit}/month", "used in a month")
    per_L = per_month = days = feed = None
    runs_out = None
    if price is not None and pack_amount is not None:
        ledger.take("P", "price of a pack", price, "currency", "entered")
        ledger.take("A", "what a pack holds", pack_amount, unit, "entered")
        per_L = ledger.step("c", "d * P / A", "currency/L", "cost of a litre")
        per_month = ledger.step("C", "c * L", "currency/month", "cost of a month")
    if left is not None and dose_per_L > 0:
        ledger.take("left", "left of the pack", left, unit, "entered")
        feed = ledger.step("F", "left / d", "L", "feed it still makes")
        if used > 0:
            ledger.take("m", "days in a month", DAYS_A_MONTH, "d", "definition")
            days = ledger.step("D", "left / U * m", "d", "days it lasts")
            runs_out = today + timedelta(days=int(min(days, FAR_DAYS)))
    return ledger.close(
        CostAndStock(per_L, per_month, used, days, runs_out, feed, _sentence(days, runs_out, feed, left))
    )


def _sentence(days: float | None, runs_out: date | None, feed: float | None, left: float | None) -> str:
    if left is None:
        return "How much is left is not known."
    if days is None or runs_out is None:
        return (
            "At the present plan nothing of it is used."
            if feed is None
            else f"Enough for {feed:.3g} L; nothing of it is planned."
        )
    if days > FAR_DAYS:
        return "It lasts for more than ten years at the present plan."
    return f"It runs out about {runs_out.day} {runs_out:%b %Y} at the present plan."
