"""From a label, a water and a strength to what is weighed into this can."""

from __future__ import annotations

from fenwa.core.entry import capital, require, shown
from fenwa.core.errors import InputError, OutOfRange
from fenwa.core.mix.asked_dose import AskedDose, Dose
from fenwa.core.mix.elements import Elements, ions_per_gram, label_to_elements
from fenwa.core.mix.feed import (
    MAX_PRODUCTS,
    DOSE_MAX_g_L,
    Feed,
    FeedModel,
    ProductSlope,
    elements_of,
    ideal_rise,
    relative_error,
    sum_ions,
)
from fenwa.core.mix.label import Label, full_rate_per_L
from fenwa.core.mix.levels import ElementLevel, element_levels
from fenwa.core.mix.small_dose import SteppedStock, by_steps_for, stock_for
from fenwa.core.mix.strength import StrengthMode, check_mode
from fenwa.core.mix.weighing import Weighing, weigh
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger

__all__ = ["Dose", "ElementLevel", "SteppedStock", "StrengthMode", "dose"]


@calculation("dose", title="Dose for this can", station="mix")
def dose(
    *,
    label: Label,
    base: BaseWater,
    volume_L: float,
    strength: StrengthMode,
    value: float,
    element: str = "N",
    also: list[Feed] | None = None,
    slope: ProductSlope | None = None,
    ceiling_uS_cm: float | None = None,
    ceiling_of: str = "",
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
) -> Computed[Dose]:
    """What to weigh into this can, and what a meter should then read.

    Parameters
    ----------
    label : Label
        The leading product as labelled: its dose is what the strength decides. [%]
    base : BaseWater
        The water it is dissolved in. [µS/cm]
    volume_L : float
        Volume of the can, above 0 to 10 000. [L]
    strength : str
        Which way the strength is named: fraction, nitrogen, element, ec_added, ec_total or dose.
    value : float
        The strength so named: share of the label rate, mg/L, µS/cm or g/L. [as named]
    element : str
        The element meant when the strength is named by element.
    also : list[Feed]
        Other products in the same can at fixed doses. [g/L]
    slope : ProductSlope
        The leading product's own measured slope. [µS/cm per g/L]
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
        Dose, amounts, the strengths, predicted EC with its range, headroom,
        rounding error and a stock if the dose is below what the scale can weigh. [g, µS/cm, mg/L]

    Raises
    ------
    Infeasible
        If the target lies below the water, or the product cannot reach it.
    Underspecified
        If a share of an unstated label rate is asked for.
    InputError
        If a product has no ppm, or the element is none.

    Notes
    -----
    The range is 5 % of the model, a tenth of what the label leaves unlisted, and the rounding;
    with a slope of the grower's own, the scatter of its batches instead of the first two.
    Nitrogen and elements count all products of the can, the water's own apart.

    References
    ----------
    E1.4; E1.5; E1.6; E1.13; robinson-stokes ch. 7
    """
    others = list(also or [])
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(base.ec25_uS_cm, f"EC of {base.name}", "µS/cm", low=0, high=20_000, pointer="/base/ec25_uS_cm")
    require(scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")
    check_mode(strength, element)
    if len(others) >= MAX_PRODUCTS:
        raise InputError(f"A can takes at most {MAX_PRODUCTS} products.", pointer="/also")
    rest = [
        (
            elements_of(f.label),
            require(
                f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/also/{i}/dose_g_L"
            ),
        )
        for i, f in enumerate(others)
    ]
    elements_of(label)
    elements = label_to_elements(label=label)
    e = elements.result
    ledger = Ledger(
        "Dose for this can", "Feeds below 3000 µS/cm; stocks are never predicted.", ("label", "robinson-stokes")
    )
    for sentence in elements.working.assumptions:
        ledger.assume(sentence)
    for sentence in elements.working.cautions:
        ledger.caution(sentence)
    lead = ions_per_gram(e)
    can = FeedModel(base, lead, sum_ions([(ions_per_gram(x), d) for x, d in rest]), slope.factor if slope else 1.0)
    ledger.assume(can.how)
    ledger.take("N_g", "nitrogen in a gram of product", e.N_mg_g, "mg/g", "label")
    if e.density_g_mL is not None:
        ledger.take(
            "rho", "density", e.density_g_mL, "g/mL", "label" if label.density_g_mL else "default:usual liquids"
        )
    asked = AskedDose(label, e, can, base, rest, ledger)
    d = asked.dose(strength, value, element)
    if d > DOSE_MAX_g_L:
        raise OutOfRange(
            f"Dose {shown(d)} g/L cannot be meant for a feed. Check the strength: 0.2 to 2 g/L is usual.",
            pointer="/value",
            value=d,
            high=DOSE_MAX_g_L,
        )
    if d == 0:
        ledger.take("d", "dose", 0.0, "g/L", "entered")
    ledger.take("V", "volume of the can", volume_L, "L")
    nitrogen = _nitrogen(ledger, asked)
    added, total = _reading(ledger, can, base, d, slope)
    amount, rounding = _amounts(ledger, e, scale_step_g, syringe_step_mL)
    parts = tuple(
        weigh(name, x, dose_, volume_L, scale_step_g, syringe_step_mL)
        for name, x, dose_ in (
            (label.name, e, d),
            *((f.label.name, x, f.dose_g_L) for f, (x, _) in zip(others, rest, strict=True)),
        )
    )
    first = parts[0]
    made_stock, refusal = (
        (None, "") if first.weighable else stock_for(base, d, volume_L, scale_step_g, syringe_step_mL, label)
    )
    stock = made_stock.result if made_stock else None
    steps = (
        by_steps_for(d, volume_L, scale_step_g, syringe_step_mL, label, base)
        if stock is None and not first.weighable
        else None
    )
    through = stock.error_pct if stock is not None else steps.error_pct if steps is not None else None
    low, high = _range(ledger, parts, [(e, d), *rest], through, rounding, slope)
    if any(x.N_urea_mg_g * dose_ > 0 for x, dose_ in [(e, d), *rest]):
        ledger.caution("Part of the nitrogen is urea, which a pen cannot see: the feed is stronger than it reads.")
    headroom = headroom_n = None
    if ceiling_uS_cm is not None:
        headroom, headroom_n = _room(ledger, can, base, e, d, ceiling_uS_cm, ceiling_of)
    names = [label.name, *(f.label.name for f in others)]
    levels, levels_working = element_levels(
        [(name, x, dose_) for name, (x, dose_) in zip(names, [(e, d), *rest], strict=True)],
        can.water_ions if base.ions is not None else None,
    )
    rate = full_rate_per_L(label)
    per_L = d / e.density_g_mL if e.density_g_mL is not None else d
    liquid = first.unit == "mL"
    return ledger.close(
        Dose(
            dose_g_L=d,
            dose_mL_L=per_L if liquid else None,
            amount_g=d * volume_L,
            amount_mL=amount if liquid else None,
            fraction=None if rate is None else per_L / rate,
            nitrogen_mg_L=nitrogen,
            ec_added_uS_cm=added,
            ec_total_uS_cm=total,
            ec_low_uS_cm=low,
            ec_high_uS_cm=high,
            headroom_uS_cm=headroom,
            headroom_nitrogen_mg_L=headroom_n,
            over_ceiling=headroom is not None and headroom < 0,
            rounded_amount=first.rounded,
            rounded_unit=first.unit,
            rounding_error_pct=rounding,
            weighable=first.weighable,
            stock=stock,
            stock_refusal=refusal,
            stock_working=made_stock.working if made_stock else None,
            by_steps=steps,
            elements=levels,
            elements_working=levels_working,
            parts=parts,
            predicted_by="your own batches" if slope else "ion model",
            model_added_uS_cm=can.model(d) - can.water_model if d > 0 else can.also_model - can.water_model,
        )
    )


def _nitrogen(ledger: Ledger, asked: AskedDose) -> float:
    others = asked.from_others("N")
    if others > 0:
        ledger.take("N_also", "nitrogen of the other products", others, "mg/L", "label")
        return ledger.step("N", "d * N_g + N_also", "mg/L", "nitrogen in the can")
    return ledger.step("N", "d * N_g", "mg/L", "nitrogen in the can")


def _reading(
    ledger: Ledger, can: FeedModel, base: BaseWater, d: float, slope: ProductSlope | None
) -> tuple[float, float]:
    ledger.take("C_w", base.name, base.ec25_uS_cm, "µS/cm", base.origin)
    ledger.take("U_w", f"left open of {base.name}", base.half_width_uS_cm, "µS/cm", base.origin)
    if not base.measured:
        ledger.caution(f"{capital(base.name)} was not measured: what such a water usually reads is taken.")
    ledger.found(
        "C_m",
        "water and feed by the ion model",
        can.model(d) if d > 0 else can.also_model,
        "µS/cm",
        "ion model (ion-conductivity)",
    )
    ledger.found("C_m0", "the water alone by the same model", can.water_model, "µS/cm", "ion model")
    if slope is None:
        added = ledger.step("C_add", "C_m - C_m0", "µS/cm", "EC added")
    else:
        ledger.assume(
            f"The slope of your own {slope.batches} batches is used: {slope.slope_uS_per_g_L:.0f} µS/cm for each g/L."
        )
        ledger.found("C_ma", "water and the other products by the same model", can.also_model, "µS/cm", "ion model")
        ledger.take("k", "own slope over the model's", slope.factor, "", "measured:batches (product-slope)")
        added = ledger.step("C_add", "C_ma - C_m0 + k * (C_m - C_ma)", "µS/cm", "EC added")
    return added, ledger.step("C", "C_w + C_add", "µS/cm", "EC in the can")


def _amounts(ledger: Ledger, e: Elements, scale_step_g: float, syringe_step_mL: float) -> tuple[float, float]:
    """Amount of the leading product and its rounding error, written out."""
    if e.density_g_mL is not None:
        amount, unit, step = ledger.step("m", "d * V / rho", "mL", "measure into the can"), "mL", syringe_step_mL
    else:
        amount, unit, step = ledger.step("m", "d * V", "g", "weigh into the can"), "g", scale_step_g
    ledger.take("r", "step of the scale or syringe", step, unit)
    ledger.step("m_r", "floor(m / r + 0.5) * r", unit, "rounded to what the tool can do")
    error = (
        ledger.step("R", "abs(m_r - m) / max(m, 1e-9) * 100", "%", "rounding error")
        if amount > 0
        else (ledger.take("R", "rounding error", 0.0, "%", "nothing weighed"))
    )
    return amount, error


def _range(
    ledger: Ledger,
    parts: tuple[Weighing, ...],
    made: list[tuple[Elements, float]],
    through_pct: float | None,
    rounding: float,
    slope: ProductSlope | None,
) -> tuple[float, float]:
    """Lower and upper end to expect: model, label and weighing together."""
    weights = [ideal_rise(ions_per_gram(e)) * d for e, d in made]
    whole = sum(weights) or 1.0
    share = [w / whole for w in weights]
    relative = [relative_error(e) for e, _ in made]
    if slope:
        relative[0] = max(0.02, (slope.factor_high - slope.factor_low) / 2 / slope.factor)
    model = sum(s * p for s, p in zip(share, relative, strict=True))
    ledger.take(
        "p",
        "model and label, relative",
        model,
        "",
        "measured:batches" if slope else "default:5 % and a tenth of what is unlisted",
    )
    if through_pct is not None:
        ledger.take("E", "error of the dose through the stock (SD)", through_pct, "%", "computed:stock-solution")
    else:
        ledger.take("E", "error of the dose by rounding", rounding, "%", "this working")
    tail = ""
    if len(parts) > 1:
        ledger.take("w", "share of the leading product in what is added", share[0], "", "label")
        rest = sum((s * w.error_pct / 100) ** 2 for s, w in zip(share[1:], parts[1:], strict=True)) ** 0.5
        ledger.take("E_o", "rounding of the other products, of what is added", rest, "", "this working")
        tail = " + E_o**2"
    weighed = "(w * E / 100)" if len(parts) > 1 else "(E / 100)"
    low = ledger.step(
        "C_low",
        f"max(0, C - C_add * min(1, sqrt(p**2 + {weighed}**2{tail})) - max(0.02 * C_w, U_w))",
        "µS/cm",
        "lower end to expect",
    )
    high = ledger.step(
        "C_high", f"C + C_add * sqrt(p**2 + {weighed}**2{tail}) + max(0.02 * C_w, U_w)", "µS/cm", "upper end to expect"
    )
    return low, high


def _room(
    ledger: Ledger, can: FeedModel, base: BaseWater, e: Elements, d: float, ceiling: float, ceiling_of: str
) -> tuple[float, float | None]:
    whose = ceiling_of or "the strictest pot"
    require(ceiling, "Ceiling", "µS/cm", low=0, high=20_000, pointer="/ceiling_uS_cm")
    ledger.take("C_max", f"feed ceiling of {whose}", ceiling, "µS/cm", "table:profile")
    room = ledger.step("room", "C_max - C", "µS/cm", "room to the ceiling")
    most = can.dose_for_rise(ceiling - base.ec25_uS_cm)
    if room < 0:
        ledger.caution(f"Over the ceiling of {whose} by {-room:.0f} µS/cm.")
    return room, None if most is None else (most - d) * e.N_mg_g
