"""A dose as it is asked for, and the answer: what to weigh, what it brings, what it should read."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require, shown
from fenwa.core.errors import Infeasible, Underspecified
from fenwa.core.mix.elements import Elements
from fenwa.core.mix.feed import (
    FeedModel,
)
from fenwa.core.mix.label import Label, full_rate_per_L
from fenwa.core.mix.levels import ElementLevel
from fenwa.core.mix.rates import counts_spoons
from fenwa.core.mix.small_dose import SteppedStock
from fenwa.core.mix.spoon import unweighed_spoon_error
from fenwa.core.mix.stock import StockSolution
from fenwa.core.mix.strength import StrengthMode
from fenwa.core.mix.weighing import Weighing
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Ledger, Working


@dataclass(frozen=True, kw_only=True)
class Dose:
    """The can: four names of one strength, what to weigh, what the pen should read.

    ``parts`` lists every product, the leading one first; the other fields tell of the leading one.
    """

    dose_g_L: float
    dose_mL_L: float | None
    amount_g: float
    amount_mL: float | None
    fraction: float | None
    nitrogen_mg_L: float
    ec_added_uS_cm: float
    ec_total_uS_cm: float
    ec_low_uS_cm: float
    ec_high_uS_cm: float
    headroom_uS_cm: float | None
    headroom_nitrogen_mg_L: float | None
    over_ceiling: bool
    rounded_amount: float
    rounded_unit: str
    rounding_error_pct: float
    weighable: bool
    stock: StockSolution | None
    stock_refusal: str
    stock_working: Working | None
    by_steps: SteppedStock | None
    elements: tuple[ElementLevel, ...]
    elements_working: Working
    parts: tuple[Weighing, ...]
    predicted_by: str
    model_added_uS_cm: float


@dataclass
class AskedDose:
    """A strength as asked for, and what it is worked out from."""

    label: Label
    e: Elements
    can: FeedModel
    base: BaseWater
    others: list[tuple[Elements, float]]
    ledger: Ledger

    def from_others(self, element: str) -> float:
        return sum(e.of(element) * d for e, d in self.others)

    def dose(self, strength: StrengthMode, value: float, element: str) -> float:
        """Dose of the leading product. [g/L]"""
        if strength == "dose":
            return self.ledger.take(
                "d", "dose", require(value, "Dose", "g/L", low=0, high=1e6, pointer="/value"), "g/L"
            )
        if strength == "fraction":
            return self._fraction(value)
        if strength in ("nitrogen", "element"):
            return self._element(value, "N" if strength == "nitrogen" else element)
        return self._ec(strength, value)

    def _fraction(self, value: float) -> float:
        rate = full_rate_per_L(self.label)
        require(value, "Share of the label rate", "", low=0, high=5, pointer="/value")
        if rate is None:
            raise Underspecified(
                "Label rate is not stated, so a share of it means nothing. "
                "Enter the label's rate, or name the strength in mg/L N or EC.",
                pointer="/strength",
            )
        liquid = self.label.form == "liquid"
        if not liquid and self.label.bulk_density_g_mL is None and counts_spoons(self.label.label_rate_unit or ""):
            off = 100 * unweighed_spoon_error(max(1.0, self.label.label_rate or 1.0))
            self.ledger.caution(f"The label counts spoons and nobody weighed one: ±{off:.0f} %. Weigh five level ones.")
        self.ledger.take("share", "share of the label rate kept", value, "")
        self.ledger.take("rate", "label rate", rate, "mL/L" if liquid else "g/L", "label")
        return self.ledger.step("d", "share * rate * rho" if liquid else "share * rate", "g/L", "dose")

    def _element(self, value: float, element: str) -> float:
        words = "Nitrogen" if element == "N" else element
        require(value, words, "mg/L", low=0, high=2000, pointer="/value")
        brings = self.e.of(element)
        if brings <= 0 and value > 0:
            what = "no nitrogen" if element == "N" else f"no {element}"
            raise Infeasible(
                f"{self.label.name} holds {what}, so no dose gives {shown(value)} mg/L {element}. "
                "Choose another product, or name the strength by EC.",
                pointer="/strength",
            )
        if value <= 0:
            return 0.0
        others = self.from_others(element)
        if others > value + 1e-9:
            raise Infeasible(
                f"The other products alone bring {others:.3g} mg/L {element}, more than {shown(value)}. "
                "Lower them, or ask for more.",
                pointer="/value",
                low=others,
            )
        self.ledger.take("N_t", f"{words.lower() if element == 'N' else element} wanted", value, "mg/L")
        if element == "N":
            g = "N_g"
        else:
            g = "E_g"
            self.ledger.take(g, f"{element} in a gram of product", brings, "mg/g", "label")
        if others > 0:
            self.ledger.take("N_o", "from the other products", others, "mg/L", "label")
            return self.ledger.step("d", f"(N_t - N_o) / {g}", "g/L", "dose")
        return self.ledger.step("d", f"N_t / {g}", "g/L", "dose")

    def _ec(self, strength: StrengthMode, value: float) -> float:
        base = self.base
        target = value + base.ec25_uS_cm if strength == "ec_added" else value
        require(target, "Target EC", "µS/cm", low=0, high=20_000, pointer="/value")
        if value < 0 or target < base.ec25_uS_cm - 1e-9:
            raise Infeasible(
                f"Target {shown(target)} µS/cm is below {base.name} itself, {shown(base.ec25_uS_cm)} µS/cm. "
                "Nothing weighed in can lower it: choose a higher target or a purer water.",
                pointer="/value",
                low=base.ec25_uS_cm,
            )
        fixed = base.ec25_uS_cm + self.can.rise(0.0)
        if target < fixed - 0.5:
            raise Infeasible(
                f"Target {shown(target)} µS/cm is below what water and the other products read, {fixed:.0f} µS/cm. "
                "Lower them, or choose a higher target.",
                pointer="/value",
                low=fixed,
            )
        found = self.can.dose_for_rise(target - base.ec25_uS_cm)
        if found is None:
            raise Infeasible(
                f"{self.label.name} reaches no {shown(target)} µS/cm: it carries little that conducts "
                "(urea is invisible to a pen). Name the strength in mg/L N.",
                pointer="/value",
            )
        return self.ledger.found("d", "dose", found, "g/L", "ion model")
