"""Two to six products to targets: least squares in relative errors, then the nearest the scale can weigh."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwa.core.entry import capital, require, signed
from fenwa.core.errors import Infeasible, InputError
from fenwa.core.mix.elements import Elements, ions_per_gram
from fenwa.core.mix.feed import MAX_PRODUCTS, elements_of, sum_ions
from fenwa.core.mix.fit_search import (
    Array,
    FitTarget,
    Problem,
    on_grid,
    optimum,
    problem_of,
    what_gives,
)
from fenwa.core.mix.label import Label
from fenwa.core.mix.strength import ELEMENTS
from fenwa.core.mix.weighing import WEIGHABLE_STEPS
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import conductance_uS_cm, dissolve, prepared
from fenwa.core.water.kinds import BaseWater, is_thin
from fenwa.core.working import Computed, Ledger

UNREACHED = 0.20  # farther off than this: not reachable with these products


@dataclass(frozen=True)
class FitPart:
    """A product of the fit: best dose, and what the scale makes of it for the can. [g/L, g or mL]"""

    name: str
    dose_g_L: float
    amount: float
    rounded: float
    unit: str
    rounded_dose_g_L: float


@dataclass(frozen=True)
class FitElement:
    """An element: wanted, at the optimum and as weighed, with the error of what is weighed. [mg/L, %]"""

    element: str
    target_mg_L: float
    best_mg_L: float
    weighed_mg_L: float
    error_pct: float
    reached: bool


@dataclass(frozen=True, kw_only=True)
class Fit:
    """Doses, masses on the scale's grid, what each element comes to, and which target gives."""

    parts: tuple[FitPart, ...]
    elements: tuple[FitElement, ...]
    objective: float
    weighed_objective: float
    ec25_uS_cm: float
    nitrate_share: float | None
    cost_per_L: float | None
    gives: str
    sentence: str


@calculation("recipe-fit", title="Products to targets", station="mix")
def recipe_fit(
    *,
    base: BaseWater,
    products: list[Label],
    targets: list[FitTarget],
    volume_L: float = 1.0,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
    nitrate_share_min: float | None = None,
    ec_cap_uS_cm: float | None = None,
    cost_max_per_L: float | None = None,
    prices_per_g: list[float | None] | None = None,
) -> Computed[Fit]:
    """How much of each product comes nearest to the targets, rounded to what the scale can weigh.

    Parameters
    ----------
    base : BaseWater
        The water; ions of its report count towards the targets. [µS/cm]
    products : list[Label]
        One to six soluble products. [%]
    targets : list[FitTarget]
        Elements wanted in the can, each above 0. [mg/L]
    volume_L : float
        Volume of the can, above 0 to 10 000. [L]
    scale_step_g : float
        Smallest step of the scale. [g]
    syringe_step_mL : float
        Smallest division of the syringe. [mL]
    nitrate_share_min : float
        Least share of the nitrogen as nitrate, 0 to 1. [1]
    ec_cap_uS_cm : float
        Most the can may read. [µS/cm]
    cost_max_per_L : float
        Most a litre may cost. [currency/L]
    prices_per_g : list[float]
        Price of a gram of each product; empty where not known. [currency/g]

    Returns
    -------
    Computed
        Doses, weighed amounts, error of each element, EC, and the target that gives. [g/L, g, %, µS/cm]

    Raises
    ------
    Infeasible
        If the water alone is over the cap.
    InputError
        If products or targets cannot be.

    Notes
    -----
    Relative errors weighted N 1, K and Ca 0.7, Mg 0.5, others 0.3. Masses are searched two steps of the
    scale around the optimum all together: rounding one by one is not good enough for small cans.

    References
    ----------
    E1.18; E1.19; linear-regression
    """
    _check(products, targets, volume_L, scale_step_g, syringe_step_mL)
    for i, price in enumerate(prices_per_g or []):
        if price is not None:
            require(price, "Price", "per gram", low=0, high=1e6, pointer=f"/prices_per_g/{i}")
    if prices_per_g is not None and len(prices_per_g) != len(products):
        raise InputError(
            f"{len(prices_per_g)} prices are given for {len(products)} products. Give one for each, empty where "
            "it is not known.",
            pointer="/prices_per_g",
        )
    elements = [elements_of(p) for p in products]
    problem, water_ions = problem_of(base, elements, targets, nitrate_share_min, cost_max_per_L, prices_per_g)
    ready = prepared(water_ions)
    per_gram = [ions_per_gram(e) for e in elements]
    alone = float(conductance_uS_cm(dissolve(ready, None)))

    def rise(x: Array) -> float:
        feed = sum_ions([(i, float(d)) for i, d in zip(per_gram, x, strict=True)])
        return float(conductance_uS_cm(dissolve(ready, feed))) - alone if x.any() else 0.0

    if ec_cap_uS_cm is not None:
        require(ec_cap_uS_cm, "EC cap", "µS/cm", low=0, high=20_000, pointer="/ec_cap_uS_cm")
        if base.ec25_uS_cm > ec_cap_uS_cm:
            raise Infeasible(
                f"{base.name} alone reads {base.ec25_uS_cm:.0f} µS/cm, over the cap of {ec_cap_uS_cm:.0f} µS/cm. "
                "Use a purer water, or raise the cap.",
                pointer="/ec_cap_uS_cm",
                low=base.ec25_uS_cm,
            )
        problem.rise_max = ec_cap_uS_cm - base.ec25_uS_cm
    x, bend = optimum(problem, rise)
    steps = np.array([syringe_step_mL * e.density_g_mL if e.density_g_mL else scale_step_g for e in elements])
    weighed = on_grid(problem, x, steps, volume_L, bend, rise)
    gives = what_gives(problem, x, bend, targets)
    return _told(
        base=base,
        products=products,
        elements=elements,
        targets=targets,
        p=problem,
        x=x,
        weighed=weighed,
        volume_L=volume_L,
        scale_step_g=scale_step_g,
        rise=rise(weighed),
        gives=gives,
        prices=prices_per_g,
        steps=steps,
    )


def _check(products: list[Label], targets: list[FitTarget], volume_L: float, scale: float, syringe: float) -> None:
    if not 1 <= len(products) <= MAX_PRODUCTS:
        raise InputError(f"A fit takes 1 to {MAX_PRODUCTS} products; {len(products)} given.", pointer="/products")
    if len({p.name for p in products}) < len(products):
        raise InputError("The same product is chosen twice. Choose different ones.", pointer="/products")
    if not targets:
        raise InputError("No target is given. Enter at least one element in mg/L.", pointer="/targets")
    for i, t in enumerate(targets):
        if t.element not in ELEMENTS:
            raise InputError(
                f"Element “{t.element}” is not a choice. Choose one of {', '.join(ELEMENTS)}.", pointer=f"/targets/{i}"
            )
        require(
            t.mg_L,
            t.element,
            "mg/L",
            low=0,
            open_low=True,
            high=2000,
            pointer=f"/targets/{i}",
            hint="Enter what is wanted, above 0; leave out what does not matter.",
        )
    if len({t.element for t in targets}) < len(targets):
        raise InputError("An element is aimed at twice. Keep one target for each.", pointer="/targets")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(scale, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")


def _told(
    *,
    base: BaseWater,
    products: list[Label],
    elements: list[Elements],
    targets: list[FitTarget],
    p: Problem,
    x: Array,
    weighed: Array,
    volume_L: float,
    scale_step_g: float,
    rise: float,
    gives: str,
    prices: list[float | None] | None,
    steps: Array,
) -> Computed[Fit]:
    ledger = Ledger(
        "Products to targets",
        "Targets of a can, the water's own ions included where they are known.",
        ("label", "linear-regression"),
    )
    if base.ions is None:
        ledger.assume(
            f"No report for {base.name}: its own ions are "
            + ("a usual thin water's." if is_thin(base.kind) else "not counted.")
        )
    ledger.take("V", "volume of the can", volume_L, "L")
    parts, symbols = [], []
    for i, (label, e, best, got) in enumerate(zip(products, elements, x, weighed, strict=True), 1):
        ledger.found(f"x{i}", f"{label.name}, solved", float(best), "g/L", "bounded least squares")
        density = e.density_g_mL or 1.0
        unit = "mL" if e.density_g_mL else "g"
        ledger.found(f"k{i}", f"{label.name}, as weighed", float(got) * volume_L, "g", "nearest on the scale together")
        symbols.append(ledger.step(f"d{i}", f"k{i} / V", "g/L", f"dose of {label.name} as weighed"))
        parts.append(
            FitPart(
                label.name,
                float(best),
                float(best) * volume_L / density,
                float(got) * volume_L / density,
                unit,
                float(got),
            )
        )
    levels, made = p.A @ x + p.b, []
    for j, t in enumerate(targets):
        for i in range(len(products)):
            ledger.take(
                f"a{i + 1}_{t.element}", f"{t.element} in a gram of {products[i].name}", p.A[j, i], "mg/g", "label"
            )
        ledger.take(
            f"b_{t.element}",
            f"{t.element} of the water",
            p.b[j],
            "mg/L",
            "measured" if base.ions else "default:none known",
        )
        got = ledger.step(
            t.element,
            " + ".join(f"a{i + 1}_{t.element} * d{i + 1}" for i in range(len(products))) + f" + b_{t.element}",
            "mg/L",
            f"{t.element} as weighed",
        )
        error = (got - t.mg_L) / t.mg_L * 100
        made.append(FitElement(t.element, t.mg_L, float(levels[j]), got, error, abs(error) <= UNREACHED * 100))
    N = sum(e.N_mg_g * float(d) for e, d in zip(elements, weighed, strict=True))
    nitrate = sum(e.N_nitrate_mg_g * float(d) for e, d in zip(elements, weighed, strict=True)) / N if N > 0 else None
    cost = (
        sum(float(x or 0) * d for x, d in zip(prices, weighed, strict=True)) if p.price is not None and prices else None
    )
    sentence = _sentence(p, x, weighed, made, gives, volume_L, scale_step_g, steps)
    return ledger.close(
        Fit(
            parts=tuple(parts),
            elements=tuple(made),
            objective=float(p.objective(x)),
            weighed_objective=float(p.objective(weighed)),
            ec25_uS_cm=base.ec25_uS_cm + rise,
            nitrate_share=nitrate,
            cost_per_L=cost,
            gives=gives,
            sentence=sentence,
        )
    )


def _sentence(
    p: Problem,
    x: Array,
    weighed: Array,
    made: list[FitElement],
    gives: str,
    volume_L: float,
    scale_step_g: float,
    steps: Array,
) -> str:
    best = np.abs(p.A @ x + p.b - p.t) / p.t
    if best.max() > UNREACHED:
        far = ", ".join(m.element for m, b in zip(made, best, strict=True) if b > UNREACHED)
        return (
            f"Not reachable with these products: {far} stays more than 20 % off. "
            f"{capital(gives)} gives: without it the "
            "others come nearest. Change it, or add a product."
        )
    worst = max(made, key=lambda m: abs(m.error_pct))
    if abs(worst.error_pct) > 10 and abs(worst.error_pct) > 100 * float(best.max()) + 5:
        used = x > 0
        need = float((WEIGHABLE_STEPS * steps[used] / x[used]).max()) if used.any() else volume_L
        return (
            f"The scale is too coarse for {volume_L:g} L: {worst.element} comes out {signed(worst.error_pct)} %. "
            f"Make {np.ceil(need):.0f} L or more, or go through a stock."
        )
    if gives:
        return f"All within 20 %; {gives} gives a little."
    return "All targets are met."
