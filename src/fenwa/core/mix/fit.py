"""Two to six products to targets: least squares in relative errors, then the nearest the scale can weigh."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError
from fenwa.core.mix.elements import Elements, ions_per_gram
from fenwa.core.mix.feed import MOST_PRODUCTS, elements_of, ideal_rise, sum_ions
from fenwa.core.mix.label import Label
from fenwa.core.mix.strength import ELEMENTS
from fenwa.core.mix.weighing import WEIGHABLE_STEPS
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import conductance_uS_cm, dissolve, prepared
from fenwa.core.water.ions import MOLAR_MASS
from fenwa.core.water.kinds import BaseWater, composition_of, is_thin
from fenwa.core.working import Computed, Ledger

Array = NDArray[np.float64]
WEIGHTS = {"N": 1.0, "K": 0.7, "Ca": 0.7, "Mg": 0.5, "P": 0.3}  # judgement, E1.18
OTHER_WEIGHT = 0.3
UNREACHED = 0.20  # farther off than this: not reachable with these products
NOTICEABLE = 0.05
REACH = 2  # steps of the scale searched to each side of the optimum
MOST_g_L = 5.0  # of one product
GIVES_RATIO = 2.0  # a bound gives when the misfit without it is less than half
_ROUNDS = 4  # the reading bends little: the cap's slopes settle in three


@dataclass(frozen=True)
class FitTarget:
    """An element and what is wanted of it in the can, the water's own included. [mg/L]"""

    element: str
    mg_L: float


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


@dataclass(frozen=True)
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


@dataclass
class _Problem:
    """Everything of a fit as arrays."""

    A: Array  # elements by products, mg/g
    b: Array  # from the water, mg/L
    t: Array
    w: Array
    nitrate: Array  # NO3-N minus the wanted share of N, by product, mg/g
    price: Array | None
    price_max: float | None
    ideal: Array
    rise_max: float | None

    def without(self, bound: str) -> _Problem:
        """The same without one of the bounds."""
        if bound == "the nitrate share":
            return replace(self, nitrate=np.zeros_like(self.nitrate))
        return replace(self, price_max=None) if bound == "the cost" else replace(self, rise_max=None)

    def bounds(self) -> list[str]:
        """The bounds that are set, in words."""
        return [name for name, is_set in (("the nitrate share", bool(np.any(self.nitrate != 0))),
                                          ("the cost", self.price is not None and self.price_max is not None),
                                          ("the EC cap", self.rise_max is not None)) if is_set]  # fmt: skip

    def objective(self, x: Array) -> Any:
        """Sum of squared weighted relative errors; ``x`` may be many rows."""
        miss = self.w * (x @ self.A.T + self.b - self.t) / self.t
        return (miss**2).sum(axis=-1)

    def rows(self, bend: float) -> list[tuple[Array, float]]:
        """Linear bounds: row . x <= bound."""
        out: list[tuple[Array, float]] = []
        if np.any(self.nitrate != 0):
            out.append((-self.nitrate, 0.0))
        if self.price is not None and self.price_max is not None:
            out.append((self.price, self.price_max))
        if self.rise_max is not None:
            out.append((self.ideal * bend, self.rise_max))
        return out


def _best(p: _Problem, bend: float) -> Array:
    """The optimum under the bounds: bounded least squares, then a quadratic programme where a bound is met."""
    from scipy.optimize import LinearConstraint, lsq_linear, minimize

    scale = p.w / p.t
    n = p.A.shape[1]
    x = np.asarray(lsq_linear(p.A * scale[:, None], (p.t - p.b) * scale, bounds=(0, MOST_g_L)).x)
    rows = p.rows(bend)
    if all(row @ x <= bound + 1e-9 for row, bound in rows):
        return x
    start = _inside(x, rows)

    def gradient(y: Array) -> Array:
        return np.asarray(2 * (p.A.T @ (scale**2 * (p.A @ y + p.b - p.t))))

    held = [LinearConstraint(row[None, :], -np.inf, bound) for row, bound in rows]
    answers = [start]
    for first in (start, np.zeros(n)):
        found = minimize(p.objective, first, jac=gradient, method="SLSQP", bounds=[(0, MOST_g_L)] * n, constraints=held,
                         options={"ftol": 1e-13, "maxiter": 400})  # fmt: skip
        answers.append(_inside(np.clip(found.x, 0, MOST_g_L), rows))
    return min(answers, key=lambda y: float(p.objective(y)))


def _inside(x: Array, rows: list[tuple[Array, float]]) -> Array:
    """Shrunk until every bound is kept; nothing at all always keeps them."""
    for row, bound in rows:
        used = float(row @ x)
        if used > bound + 1e-12:
            x = x * max(0.0, bound / used) if bound > 0 else np.zeros_like(x)
    return x


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
        raise InputError(f"{len(prices_per_g)} prices are given for {len(products)} products. Give one for each, empty where "
                         "it is not known.", pointer="/prices_per_g")  # fmt: skip
    elements = [elements_of(p) for p in products]
    problem, water_ions = _problem(base, elements, targets, nitrate_share_min, cost_max_per_L, prices_per_g)
    ready = prepared(water_ions)
    per_gram = [ions_per_gram(e) for e in elements]
    alone = float(conductance_uS_cm(dissolve(ready, None)))

    def rise(x: Array) -> float:
        feed = sum_ions([(i, float(d)) for i, d in zip(per_gram, x, strict=True)])
        return float(conductance_uS_cm(dissolve(ready, feed))) - alone if x.any() else 0.0

    if ec_cap_uS_cm is not None:
        require(ec_cap_uS_cm, "EC cap", "µS/cm", low=0, high=20_000, pointer="/ec_cap_uS_cm")
        if base.ec25_uS_cm > ec_cap_uS_cm:
            raise Infeasible(f"{base.name} alone reads {base.ec25_uS_cm:.0f} µS/cm, over the cap of {ec_cap_uS_cm:.0f}. "
                             "Use a purer water, or raise the cap.", pointer="/ec_cap_uS_cm", low=base.ec25_uS_cm)  # fmt: skip
        problem.rise_max = ec_cap_uS_cm - base.ec25_uS_cm
    x, bend = _optimum(problem, rise)
    steps = np.array([syringe_step_mL * e.density_g_mL if e.density_g_mL else scale_step_g for e in elements])
    weighed = _on_grid(problem, x, steps, volume_L, bend, rise)
    gives = _what_gives(problem, x, bend, targets)
    return _told(base, products, elements, targets, problem, x, weighed, volume_L, scale_step_g, rise(weighed), gives,
                 prices_per_g, steps)  # fmt: skip


def _check(products: list[Label], targets: list[FitTarget], volume_L: float, scale: float, syringe: float) -> None:
    if not 1 <= len(products) <= MOST_PRODUCTS:
        raise InputError(f"A fit takes 1 to {MOST_PRODUCTS} products; {len(products)} given.", pointer="/products")
    if len({p.name for p in products}) < len(products):
        raise InputError("The same product is chosen twice. Choose different ones.", pointer="/products")
    if not targets:
        raise InputError("No target is given. Enter at least one element in mg/L.", pointer="/targets")
    for i, t in enumerate(targets):
        if t.element not in ELEMENTS:
            raise InputError(
                f"Element “{t.element}” is not a choice. Choose one of {', '.join(ELEMENTS)}.", pointer=f"/targets/{i}"
            )
        require(t.mg_L, t.element, "mg/L", low=0, open_low=True, high=2000, pointer=f"/targets/{i}",
                hint="Enter what is wanted, above 0; leave out what does not matter.")  # fmt: skip
    if len({t.element for t in targets}) < len(targets):
        raise InputError("An element is aimed at twice. Keep one target for each.", pointer="/targets")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(scale, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")


def _problem(
    base: BaseWater, elements: list[Elements], targets: list[FitTarget], nitrate: float | None, cost_max: float | None,
    prices: list[float | None] | None,
) -> tuple[_Problem, Any]:  # fmt: skip
    water_ions, _ = composition_of(base)
    known = base.ions is not None or is_thin(base.kind)

    def brings(element: str) -> float:
        if not known:
            return 0.0
        if element == "N":
            return ((water_ions.NO3_mg_L or 0) * MOLAR_MASS["N"] / MOLAR_MASS["NO3"]
                    + (water_ions.NH4_mg_L or 0) * MOLAR_MASS["N"] / MOLAR_MASS["NH4"])  # fmt: skip
        if element == "S":
            return (water_ions.SO4_mg_L or 0) * MOLAR_MASS["S"] / MOLAR_MASS["SO4"]
        return float(getattr(water_ions, f"{element}_mg_L", None) or 0.0)

    if nitrate is not None:
        require(nitrate, "Nitrate share", "", low=0, high=1, pointer="/nitrate_share_min")
    if cost_max is not None:
        require(cost_max, "Cost", "per litre", low=0, open_low=True, high=1000, pointer="/cost_max_per_L")
        if prices is None or any(x is None for x in prices):
            raise InputError("A price is not known, so a cost cannot be kept. Enter the price of each product.",
                             pointer="/cost_max_per_L")  # fmt: skip
    whole = prices is not None and all(x is not None for x in prices)
    wanted = nitrate or 0.0
    return _Problem(
        np.array([[e.of(t.element) for e in elements] for t in targets]), np.array([brings(t.element) for t in targets]),
        np.array([t.mg_L for t in targets]), np.array([WEIGHTS.get(t.element, OTHER_WEIGHT) for t in targets]),
        np.array([e.N_nitrate_mg_g - wanted * e.N_mg_g if nitrate else 0.0 for e in elements]),
        np.array([float(x or 0) for x in prices]) if whole and prices else None, cost_max,
        np.array([ideal_rise(ions_per_gram(e)) for e in elements]), None,
    ), water_ions  # fmt: skip


def _optimum(p: _Problem, rise: Any) -> tuple[Array, float]:
    """Doses at the optimum; the bend of the reading is found again at each, so that the cap is the true one."""
    bend = 0.85
    x = _best(p, bend)
    for _ in range(_ROUNDS if p.rise_max is not None else 1):
        if not x.any():
            break
        bend = rise(x) / float(p.ideal @ x) if p.ideal @ x > 0 else bend
        x = _best(p, bend)
    return x, bend


def _on_grid(p: _Problem, x: Array, steps: Array, volume_L: float, bend: float, rise: Any) -> Array:
    """The best doses that are whole steps of the tools, two steps around the optimum. [g/L]"""
    middle = np.floor(x * volume_L / steps + 0.5)
    around = [np.unique(np.clip(np.arange(k - REACH, k + REACH + 1), 0, None)) if v > 0 else np.array([0.0])
              for k, v in zip(middle, x, strict=True)]  # fmt: skip
    grid = np.array(list(itertools.product(*around))) * steps / volume_L
    kept = np.ones(len(grid), bool)
    for row, bound in p.rows(bend * 0.98):  # the cap is looked at again with the true reading
        kept &= grid @ row <= bound + 1e-9
    grid = grid[kept] if kept.any() else np.floor(x * volume_L / steps)[None, :] * steps / volume_L
    order = np.argsort(p.objective(grid), kind="stable")
    for i in order[:60]:
        if p.rise_max is None or rise(grid[i]) <= p.rise_max + 1e-9:
            return np.asarray(grid[i])
    return np.asarray(np.floor(_inside(x, p.rows(bend)) * volume_L / steps) * steps / volume_L)


def _what_gives(p: _Problem, x: Array, bend: float, targets: list[FitTarget]) -> str:
    """The bound or target without which the others are met best; "" when all are met."""
    miss = np.abs(p.A @ x + p.b - p.t) / p.t
    if miss.max() > NOTICEABLE:
        for bound in p.bounds():
            freer = p.without(bound)
            if float(p.objective(x)) > GIVES_RATIO * float(freer.objective(_best(freer, bend))) + 1e-6:
                return bound
    if miss.max() <= NOTICEABLE or len(targets) < 2:
        return targets[int(miss.argmax())].element if miss.max() > NOTICEABLE else ""
    left = []
    for j in range(len(targets)):
        keep = np.arange(len(targets)) != j
        rest = _Problem(
            p.A[keep], p.b[keep], p.t[keep], p.w[keep], p.nitrate, p.price, p.price_max, p.ideal, p.rise_max
        )
        left.append(float(rest.objective(_best(rest, bend))) if miss[j] > NOTICEABLE else np.inf)
    return targets[int(np.argmin(left))].element


def _told(
    base: BaseWater, products: list[Label], elements: list[Elements], targets: list[FitTarget], p: _Problem, x: Array,
    weighed: Array, volume_L: float, scale_step_g: float, rise: float, gives: str, prices: list[float | None] | None,
    steps: Array,
) -> Computed[Fit]:  # fmt: skip
    ledger = Ledger("Products to targets", "Targets of a can, the water's own ions included where they are known.",
                    ("label", "linear-regression"))  # fmt: skip
    if base.ions is None:
        ledger.assume(
            f"No report for {base.name}: its own ions are "
            + ("a usual thin water's." if is_thin(base.kind) else "not counted.")
        )
    ledger.take("V", "volume of the can", volume_L, "L")
    parts, symbols = [], []
    for i, (label, e, best, got) in enumerate(zip(products, elements, x, weighed, strict=True), 1):
        ledger.take(f"x{i}", f"{label.name}, solved", float(best), "g/L", "solved: bounded least squares")
        density = e.density_g_mL or 1.0
        unit = "mL" if e.density_g_mL else "g"
        ledger.take(
            f"k{i}", f"{label.name}, as weighed", float(got) * volume_L, "g", "solved: nearest on the scale together"
        )
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
        got = ledger.step(t.element, " + ".join(f"a{i + 1}_{t.element} * d{i + 1}" for i in range(len(products))) + f" + b_{t.element}",
                          "mg/L", f"{t.element} as weighed")  # fmt: skip
        error = (got - t.mg_L) / t.mg_L * 100
        made.append(FitElement(t.element, t.mg_L, float(levels[j]), got, error, abs(error) <= UNREACHED * 100))
    N = sum(e.N_mg_g * float(d) for e, d in zip(elements, weighed, strict=True))
    nitrate = sum(e.N_nitrate_mg_g * float(d) for e, d in zip(elements, weighed, strict=True)) / N if N > 0 else None
    cost = (
        sum(float(x or 0) * d for x, d in zip(prices, weighed, strict=True)) if p.price is not None and prices else None
    )
    sentence = _sentence(p, x, weighed, made, gives, volume_L, scale_step_g, steps)
    return ledger.close(Fit(tuple(parts), tuple(made), float(p.objective(x)), float(p.objective(weighed)),
                            base.ec25_uS_cm + rise, nitrate, cost, gives, sentence))  # fmt: skip


def _sentence(
    p: _Problem, x: Array, weighed: Array, made: list[FitElement], gives: str, volume_L: float, scale_step_g: float, steps: Array
) -> str:  # fmt: skip
    best = np.abs(p.A @ x + p.b - p.t) / p.t
    if best.max() > UNREACHED:
        far = ", ".join(m.element for m, b in zip(made, best, strict=True) if b > UNREACHED)
        return (f"Not reachable with these products: {far} stays more than 20 % off. {gives[:1].upper()}{gives[1:]} gives: without it the "
                "others come nearest. Change it, or add a product.")  # fmt: skip
    worst = max(made, key=lambda m: abs(m.error_pct))
    if abs(worst.error_pct) > 10 and abs(worst.error_pct) > 100 * float(best.max()) + 5:
        used = x > 0
        need = float((WEIGHABLE_STEPS * steps[used] / x[used]).max()) if used.any() else volume_L
        return (f"The scale is too coarse for {volume_L:g} L: {worst.element} comes out {worst.error_pct:+.0f} %. "
                f"Make {np.ceil(need):.0f} L or more, or go through a stock.")  # fmt: skip
    if gives:
        return f"All within 20 %; {gives} gives a little."
    return "All targets are met."
