"""From a label, a water and a strength to what is weighed into this can."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require, shown
from fenwa.core.errors import Infeasible, OutOfRange, Underspecified
from fenwa.core.mix.label import Elements, Label, full_rate_per_L, ions_per_gram, label_to_elements
from fenwa.core.mix.stock import WEIGHABLE_STEPS, StockSolution, stock_solution
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.water.conductivity import conductance_uS_cm, dissolve, prepare
from fenwa.core.water.ions import MOLAR_MASS, AddedIons, WaterIons
from fenwa.core.water.kinds import BaseWater, composition_of
from fenwa.core.working import Computed, Ledger

StrengthMode = Literal["fraction", "nitrogen", "ec_added", "ec_total"]

DOSE_MAX_g_L = 20.0  # far above any feed; keeps a slipped decimal out
MODEL_ERROR = 0.05  # of the ion model below 3000 µS/cm
CLOSURE_ERROR = 0.10  # of what the label leaves unlisted


@dataclass(frozen=True)
class ElementLevel:
    """One element in the can. mg/L; what the water brings is None when not known."""

    name: str
    from_feed_mg_L: float
    from_water_mg_L: float | None


@dataclass(frozen=True)
class Dose:
    """The can: four names of one strength, what to weigh, what the pen should read."""

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
    elements: tuple[ElementLevel, ...]


class _Can:
    """Conductivity of a can as a function of the dose."""

    def __init__(self, water: WaterIons, per_gram: AddedIons) -> None:
        self._base = prepare(water)
        self._per_gram = per_gram
        self.water_ec = conductance_uS_cm(dissolve(self._base, None))

    def ec(self, dose_g_L: float) -> float:
        return float(conductance_uS_cm(dissolve(self._base, self._per_gram.scaled(dose_g_L))))

    def dose_for(self, ec_uS_cm: float) -> float | None:
        """Dose that reads ``ec_uS_cm``, or None if no sensible dose does."""
        if ec_uS_cm <= self.water_ec + 1e-9:
            return 0.0
        if self.ec(DOSE_MAX_g_L) < ec_uS_cm:
            return None
        return root_between(lambda d: self.ec(d) - ec_uS_cm, 0.0, DOSE_MAX_g_L, xtol=1e-6)


def _dose_from(
    strength: StrengthMode, value: float, label: Label, e: Elements, can: _Can, base: BaseWater, ledger: Ledger
) -> float:
    """Dose in g/L for one of the four ways to name a strength."""
    rate = full_rate_per_L(label)
    if strength == "fraction":
        require(value, "Share of the label rate", "", low=0, high=5, pointer="/value")
        if rate is None:
            raise Underspecified("Label rate is not stated, so a share of it means nothing. "
                                 "Enter the label's rate, or name the strength in mg/L N or EC.", pointer="/strength")  # fmt: skip
        ledger.take("share", "share of the label rate kept", value, "")
        ledger.take("rate", "label rate", rate, "mL/L" if label.form == "liquid" else "g/L", "label")
        if label.form == "liquid":
            return ledger.step("d", "share * rate * rho", "g/L", "dose")
        return ledger.step("d", "share * rate", "g/L", "dose")
    if strength == "nitrogen":
        require(value, "Nitrogen", "mg/L", low=0, high=2000, pointer="/value")
        if e.N_mg_g <= 0 and value > 0:
            raise Infeasible(f"{label.name} holds no nitrogen, so no dose gives {shown(value)} mg/L N. "
                             "Choose another product, or name the strength by EC.", pointer="/strength")  # fmt: skip
        ledger.take("N_t", "nitrogen wanted", value, "mg/L")
        return ledger.step("d", "N_t / N_g", "g/L", "dose") if value > 0 else 0.0
    target = value + base.ec25_uS_cm if strength == "ec_added" else value
    require(target, "Target EC", "µS/cm", low=0, high=20_000, pointer="/value")
    if value < 0 or target < base.ec25_uS_cm - 1e-9:
        raise Infeasible(
            f"Target {shown(target)} µS/cm is below {base.name} itself, {shown(base.ec25_uS_cm)} µS/cm. "
            "Nothing weighed in can lower it: choose a higher target or a purer water.",
            pointer="/value", low=base.ec25_uS_cm,
        )  # fmt: skip
    found = can.dose_for(target)
    if found is None:
        raise Infeasible(f"{label.name} reaches no {shown(target)} µS/cm: it carries little that conducts "
                         "(urea is invisible to a pen). Name the strength in mg/L N.", pointer="/value")  # fmt: skip
    return ledger.take("d", "dose", found, "g/L", "solved: ion model")


@calculation("dose", title="Dose for this can", station="mix")
def dose(
    *,
    label: Label,
    base: BaseWater,
    volume_L: float,
    strength: StrengthMode,
    value: float,
    ceiling_uS_cm: float | None = None,
    ceiling_of: str = "",
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
) -> Computed[Dose]:
    """What to weigh into this can, and what a meter should then read.

    Parameters
    ----------
    label : Label
        The product as labelled. [%]
    base : BaseWater
        The water it is dissolved in. [µS/cm]
    volume_L : float
        Volume of the can, above 0 to 10 000. [L]
    strength : str
        Which way the strength is named: fraction, nitrogen, ec_added or ec_total.
    value : float
        The strength so named: share of the label rate, mg/L N, or µS/cm. [as named]
    ceiling_uS_cm : float
        The strictest feed ceiling among the chosen pots. [µS/cm]
    ceiling_of : str
        Whose ceiling it is.
    scale_step_g : float
        Smallest step of the scale. [g]
    syringe_step_mL : float
        Smallest division of the syringe. [mL]

    Returns
    -------
    Computed
        Dose, amount, the four strengths, predicted EC with its range, headroom,
        rounding error and a stock if the dose is below what the scale can weigh. [g, µS/cm, mg/L]

    Raises
    ------
    Infeasible
        If the target lies below the water, or the product cannot reach it.
    Underspecified
        If a share of an unstated label rate is asked for.

    Notes
    -----
    The range is 5 % of the model, a tenth of what the label leaves unlisted, and the rounding.

    References
    ----------
    E1.4; E1.5; E1.13; robinson-stokes ch. 7
    """
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(base.ec25_uS_cm, f"EC of {base.name}", "µS/cm", low=0, high=20_000, pointer="/base/ec25_uS_cm")
    require(scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")
    elements = label_to_elements(label=label)
    e = elements.result
    ledger = Ledger("Dose for this can", "Feeds below 3000 µS/cm; stocks are never predicted.",
                    ("label", "robinson-stokes"))  # fmt: skip
    for sentence in elements.working.assumptions:
        ledger.assume(sentence)
    for sentence in elements.working.cautions:
        ledger.caution(sentence)
    water_ions, how = composition_of(base)
    ledger.assume(how)
    can = _Can(water_ions, ions_per_gram(e))
    ledger.take("N_g", "nitrogen in a gram of product", e.N_mg_g, "mg/g", "label")
    if e.density_g_mL is not None:
        ledger.take(
            "rho", "density", e.density_g_mL, "g/mL", "label" if label.density_g_mL else "default:usual liquids"
        )
    d = _dose_from(strength, value, label, e, can, base, ledger)
    if d > DOSE_MAX_g_L:
        raise OutOfRange(f"Dose {shown(d)} g/L cannot be meant for a feed. Check the strength: 0.2 to 2 g/L is usual.",
                         pointer="/value", value=d, high=DOSE_MAX_g_L)  # fmt: skip
    if d == 0:
        ledger.take("d", "dose", 0.0, "g/L", "entered")
    ledger.take("V", "volume of the can", volume_L, "L")
    nitrogen = ledger.step("N", "d * N_g", "mg/L", "nitrogen in the can")
    ledger.take("C_w", base.name, base.ec25_uS_cm, "µS/cm", "measured")
    ledger.take("C_m", "water and feed by the ion model", can.ec(d), "µS/cm", "solved: ion model (ion-conductivity)")
    ledger.take("C_m0", "the water alone by the same model", can.water_ec, "µS/cm", "solved: ion model")
    added = ledger.step("C_add", "C_m - C_m0", "µS/cm", "EC added")
    total = ledger.step("C", "C_w + C_add", "µS/cm", "EC in the can")
    amount, unit, step, rounded, rounding = _weighing(ledger, e, d, scale_step_g, syringe_step_mL)
    ledger.take("p", "model and label, relative", _relative_error(e), "", "default:5 % and a tenth of what is unlisted")
    weighable = amount == 0 or amount >= WEIGHABLE_STEPS * step
    stock, refusal = (None, "") if weighable else _stock(d, volume_L, scale_step_g, syringe_step_mL, label)
    if stock is not None:
        ledger.take("E", "error of the dose through the stock (SD)", stock.error_pct, "%", "computed:stock-solution")
    else:
        ledger.take("E", "error of the dose by rounding", rounding, "%", "this working")
    low = ledger.step(
        "C_low", "C - C_add * min(1, sqrt(p**2 + (E / 100)**2)) - 0.02 * C_w", "µS/cm", "lower end to expect"
    )
    high = ledger.step("C_high", "C + C_add * sqrt(p**2 + (E / 100)**2) + 0.02 * C_w", "µS/cm", "upper end to expect")
    if e.N_urea_mg_g > 0:
        ledger.caution("Part of the nitrogen is urea, which a pen cannot see: the feed is stronger than it reads.")
    headroom = headroom_n = None
    if ceiling_uS_cm is not None:
        require(ceiling_uS_cm, "Ceiling", "µS/cm", low=0, high=20_000, pointer="/ceiling_uS_cm")
        ledger.take(
            "C_max", f"feed ceiling of {ceiling_of or 'the strictest pot'}", ceiling_uS_cm, "µS/cm", "table:profile"
        )
        headroom = ledger.step("room", "C_max - C", "µS/cm", "room to the ceiling")
        at_ceiling = can.dose_for(ceiling_uS_cm - base.ec25_uS_cm + can.water_ec)
        headroom_n = None if at_ceiling is None else at_ceiling * e.N_mg_g - nitrogen
        if headroom < 0:
            ledger.caution(f"Over the ceiling of {ceiling_of or 'the strictest pot'} by {-headroom:.0f} µS/cm.")
    rate = full_rate_per_L(label)
    per_L = d / e.density_g_mL if e.density_g_mL is not None else d
    return ledger.close(
        Dose(
            d, per_L if unit == "mL" else None, d * volume_L, amount if unit == "mL" else None,
            None if rate is None else per_L / rate, nitrogen, added, total, low, high, headroom, headroom_n,
            headroom is not None and headroom < 0, rounded, unit, rounding, weighable, stock, refusal,
            _levels(e, d, base, water_ions),
        )
    )  # fmt: skip


def _relative_error(e: Elements) -> float:
    listed = e.N_nitrate_mg_g / 14.007 + e.K_mg_g / 39.098 + e.Ca_mg_g / 20.039 + e.Mg_mg_g / 12.15 + 0.1
    return float((MODEL_ERROR**2 + (CLOSURE_ERROR * min(1.0, abs(e.unlisted_meq_g) / listed)) ** 2) ** 0.5)


def _weighing(
    ledger: Ledger, e: Elements, d: float, scale_step_g: float, syringe_step_mL: float
) -> tuple[float, str, float, float, float]:
    """Amount for the can, its unit, the tool's step, the rounded amount and the rounding error."""
    if e.density_g_mL is not None:
        amount, unit, step = ledger.step("m", "d * V / rho", "mL", "measure into the can"), "mL", syringe_step_mL
    else:
        amount, unit, step = ledger.step("m", "d * V", "g", "weigh into the can"), "g", scale_step_g
    ledger.take("r", "step of the scale or syringe", step, unit)
    rounded = ledger.step("m_r", "floor(m / r + 0.5) * r", unit, "rounded to what the tool can do")
    error = ledger.step("R", "abs(m_r - m) / max(m, 1e-9) * 100", "%", "rounding error") if amount > 0 else (
        ledger.take("R", "rounding error", 0.0, "%", "nothing weighed"))  # fmt: skip
    return amount, unit, step, rounded, error


def _stock(
    d: float, volume_L: float, scale_step_g: float, syringe_step_mL: float, label: Label
) -> tuple[StockSolution | None, str]:
    try:
        found = stock_solution(dose_g_L=d, volume_L=volume_L, scale_step_g=scale_step_g,
                               syringe_step_mL=syringe_step_mL, solubility_g_L=label.solubility_g_L)  # fmt: skip
    except Infeasible as refused:
        return None, refused.detail
    return found.result, ""


def _levels(e: Elements, d: float, base: BaseWater, ions: WaterIons) -> tuple[ElementLevel, ...]:
    """Elements from feed and water; the water's part only when a report gives it."""

    def water(name: str, factor: float = 1.0) -> float | None:
        amount = getattr(ions, f"{name}_mg_L") if base.ions is not None else None
        return None if amount is None else amount * factor

    m = MOLAR_MASS
    return (
        ElementLevel("Nitrate N", d * e.N_nitrate_mg_g, water("NO3", m["N"] / m["NO3"])),
        ElementLevel("Ammonium N", d * e.N_ammonium_mg_g, water("NH4", m["N"] / m["NH4"])),
        ElementLevel("Urea N", d * e.N_urea_mg_g, 0.0),
        ElementLevel("Phosphorus", d * e.P_mg_g, water("P")),
        ElementLevel("Potassium", d * e.K_mg_g, water("K")),
        ElementLevel("Calcium", d * e.Ca_mg_g, water("Ca")),
        ElementLevel("Magnesium", d * e.Mg_mg_g, water("Mg")),
        ElementLevel("Sulfur", d * e.S_mg_g, water("SO4", m["S"] / m["SO4"])),
    )
