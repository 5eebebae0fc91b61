"""Fit before buying: what would have to change for a kind to live here, and what that costs a month."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwa.core.care.candidate import HUMIDIFIER_W, Asks, Fit, Home, HomeVerdict, will_it_live
from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.water.choice import WaterChoice
from fenwa.core.working import Computed, Ledger

MAT_W, CASE_LIGHT_W, LAMP_W = 15.0, 24.0, 30.0  # a mat under a pot, light of a case, a lamp over a shelf; judgement
CASE_LIGHT_h = 12.0
CLIMATE_OF_DAYS = 365  # of measured climate a plant is held against: it has to live through a whole year
USUAL_LITRES_MONTH = 1.0  # of a small pot, where nobody said; judgement
LOW_SHARE, HIGH_SHARE = 0.1, 0.9  # of the days: single days are no climate
LIGHT_NEAR = 0.5  # of the light a kind asks: below, a place is too dark for it


@dataclass(frozen=True)
class FitWater:
    """A water of the grower's: whether the kind may have it, and its price. Price None: not told."""

    name: str
    may: bool
    why: str = ""
    price_per_L: float | None = None


@dataclass(frozen=True)
class FitChange:
    """What would have to change. ``cost_month`` None: not known; 0: costs nothing. ``kWh``: of a month."""

    aspect: str
    what: str
    cost_month: float | None
    kWh: float
    reaches: bool


@dataclass(frozen=True)
class FitOfKind:
    """A kind against waters and climate: the verdict, what would have to change, and a month of it."""

    verdict: HomeVerdict
    changes: tuple[FitChange, ...]
    cost_month: float | None
    reachable: bool
    sentence: str


@dataclass(frozen=True)
class ClimateSeen:
    """The climate of a place as it was measured. None: it was not. [%, °C]"""

    humidity: tuple[float, float] | None
    night_C: float | None


def climate_seen(
    lows_pct: Sequence[float | None], highs_pct: Sequence[float | None], nights_C: Sequence[float | None]
) -> ClimateSeen:
    """Humidity between a tenth and nine tenths of the days, and the coldest night but for a tenth of them. [%, °C]"""
    low, high = (sorted(v for v in rows if v is not None) for rows in (lows_pct, highs_pct))
    nights = sorted(v for v in nights_C if v is not None)

    def at(values: list[float], share: float) -> float:
        return values[min(len(values) - 1, int(share * len(values)))]

    humidity = (at(low, LOW_SHARE), max(at(low, LOW_SHARE), at(high, HIGH_SHARE))) if low and high else None
    return ClimateSeen(humidity, at(nights, LOW_SHARE) if nights else None)


@calculation("fit-of-kind", title="Fit before buying", station="pots")
def fit_of_kind(
    *,
    kind: Asks,
    home: Home,
    choice: WaterChoice,
    waters: list[FitWater],
    litres_month: float = 1.0,
    price_kWh: float | None = None,
    light_mol: float | None = None,
    asks_light_mol: float | None = None,
) -> Computed[FitOfKind]:
    """A kind against the grower's own waters and measured climate, and what a month of the difference costs.

    Parameters
    ----------
    kind : Asks
        What the kind asks. [%, °C, µS/cm]
    home : Home
        Air, coldest nights and whether pets live there; empty: not measured. [%, °C]
    choice : WaterChoice
        The waters of the home that this kind may have.
    waters : list[FitWater]
        Every water of the home with its price, at most 100.
    litres_month : float
        Litres the plant takes in a month, 0 to 1 000. [L]
    price_kWh : float
        Price of a kilowatt hour, 0 to 100; empty: not told.
    light_mol : float
        Daily light at the place, 0 to 80; empty: not measured. [mol/m² d]
    asks_light_mol : float
        Daily light the kind asks, above 0 to 80; empty: not told. [mol/m² d]

    Returns
    -------
    Computed
        The verdict by aspect, each change with its cost a month, and whether all can be reached.

    Raises
    ------
    OutOfRange, InputError
        If a figure cannot be, or there are too many waters.

    References
    ----------
    care profile; E9.2; judgement
    """
    require(litres_month, "Litres a month", "L", low=0, high=1000, pointer="/litres_month")
    if price_kWh is not None:
        require(price_kWh, "Price of a kWh", "", low=0, high=100, pointer="/price_kWh")
    if light_mol is not None:
        require(light_mol, "Daily light", "mol/m² d", low=0, high=80, pointer="/light_mol")
    if asks_light_mol is not None:
        require(asks_light_mol, "Light it asks", "mol/m² d", low=0, open_low=True, high=80, pointer="/asks_light_mol")
    if len(waters) > 100:
        raise InputError(f"{len(waters)} waters. Give at most 100.", pointer="/waters")
    for i, w in enumerate(waters):
        if w.price_per_L is not None:
            require(w.price_per_L, "Price of a litre", "", low=0, high=1000, pointer=f"/waters/{i}/price_per_L")
    fitting = [w for w in waters if w.may]
    judged = will_it_live(
        kind=kind, home=home, choice=choice, water_name=fitting[0].name if fitting else "a water here"
    )
    verdict = judged.result
    ledger = Ledger("Fit before buying", "Watts of usual devices; a month of 30.44 days.", ("profile", "judgement"))
    ledger.take("h", "hours of a month", 24 * DAYS_A_MONTH, "h", "definition")
    ledger.take("L", "litres a month", litres_month, "L", "entered")
    changes: list[FitChange] = []
    by_name = {a.name: a for a in verdict.aspects}
    air = by_name.get("air")
    if air is not None and air.fit == "with help":
        changes.append(_run(ledger, "air", "A humidifier in the dry months", HUMIDIFIER_W, 1.0, price_kWh))
    elif air is not None and air.fit == "misfit":
        share = (HUMIDIFIER_W + CASE_LIGHT_W * CASE_LIGHT_h / 24) / HUMIDIFIER_W
        changes.append(_run(ledger, "air", "A closed case with light", HUMIDIFIER_W, share, price_kWh))
    nights = by_name.get("nights")
    if nights is not None and nights.fit in ("with help", "misfit") and "cooler" not in nights.remedy:
        watts = MAT_W if nights.fit == "with help" else 2 * MAT_W
        changes.append(_run(ledger, "nights", "Warmth under the pot at night", watts, 0.5, price_kWh))
    elif nights is not None and nights.fit == "with help":
        changes.append(FitChange("nights", "A cooler room at night", 0.0, 0.0, False))
    changes += _of_water(ledger, waters, choice, litres_month)
    if light_mol is not None and asks_light_mol is not None and light_mol < LIGHT_NEAR * asks_light_mol:
        changes.append(_run(ledger, "light", "A lamp over the shelf, twelve hours", LAMP_W, 0.5, price_kWh))
    known = [c.cost_month for c in changes if c.cost_month is not None]
    cost = sum(known) if len(known) == len(changes) else None
    if not changes:
        ledger.step("C", "0 * L", "", "nothing would have to change")
    reach = all(c.reaches for c in changes)
    return ledger.close(FitOfKind(verdict, tuple(changes), cost, reach, _said(verdict.fit, changes, cost, reach)))


def _run(ledger: Ledger, aspect: str, what: str, watts: float, share: float, price: float | None) -> FitChange:
    symbol = {"air": "a", "nights": "n", "light": "l"}[aspect]
    ledger.take(f"W_{symbol}", f"{what}: power", watts, "W", "judgement")
    ledger.take(f"s_{symbol}", "times the hours", share, "", "judgement")
    kWh = ledger.step(f"E_{symbol}", f"W_{symbol} * s_{symbol} * h / 1000", "kWh", "a month of it")
    cost = None
    if price is not None:
        ledger.take(f"p_{symbol}", "price of a kWh", price, "", "entered")
        cost = ledger.step(f"C_{symbol}", f"E_{symbol} * p_{symbol}", "", "cost a month")
    return FitChange(aspect, what, cost, kWh, True)


def _of_water(ledger: Ledger, waters: list[FitWater], choice: WaterChoice, litres: float) -> list[FitChange]:
    """The cheapest water it may have; none: one has to be bought."""
    if choice.ids and choice.least_bad is None:
        mine = sorted((w for w in waters if w.may and w.price_per_L is not None), key=lambda w: w.price_per_L or 0.0)
        if not mine or not mine[0].price_per_L:
            return []
        ledger.take("p_w", f"a litre of {mine[0].name}", mine[0].price_per_L, "", "entered")
        return [FitChange("water", mine[0].name, ledger.step("C_w", "p_w * L", "", "water a month"), 0.0, True)]
    return [FitChange("water", "Rain, distilled or permeate, or a blend: none at hand is fit", None, 0.0, True)]


def _said(fit: Fit, changes: list[FitChange], cost: float | None, reach: bool) -> str:
    if not changes:
        return "Nothing would have to change." if fit == "fits" else "What is not known is to be measured first."
    what = "; ".join(c.what[:1].lower() + c.what[1:] for c in changes)
    if not reach:
        return f"It would need: {what}. Not all of it can be bought."
    if cost is None:
        return f"It would need: {what}. What a month costs is not known: enter the prices."
    return f"It would need: {what}. About {cost:.2f} a month."
