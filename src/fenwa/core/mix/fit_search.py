"""Searching the doses of a recipe: the optimum under its limits, and the best of all roundings about it."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.elements import Elements, ions_per_gram
from fenwa.core.mix.feed import ideal_rise
from fenwa.core.water.ions import MOLAR_MASS
from fenwa.core.water.kinds import BaseWater, composition_of, is_thin

Array = NDArray[np.float64]
WEIGHTS = {"N": 1.0, "K": 0.7, "Ca": 0.7, "Mg": 0.5, "P": 0.3}  # judgement, E1.18
OTHER_WEIGHT = 0.3
REACH = 2  # steps of the scale searched to each side of the optimum
MAX_g_L = 5.0  # of one product
GIVES_RATIO = 2.0  # a bound gives when the misfit without it is less than half
_ROUNDS = 4  # the reading bends little: the cap's slopes settle in three

NOTICEABLE = 0.05


@dataclass(frozen=True)
class FitTarget:
    """An element and what is wanted of it in the can, the water's own included. [mg/L]"""

    element: str
    mg_L: float


@dataclass(kw_only=True)
class Problem:
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

    def without(self, bound: str) -> Problem:
        """The same without one of the bounds."""
        if bound == "the nitrate share":
            return replace(self, nitrate=np.zeros_like(self.nitrate))
        return replace(self, price_max=None) if bound == "the cost" else replace(self, rise_max=None)

    def bounds(self) -> list[str]:
        """The bounds that are set, in words."""
        return [
            name
            for name, is_set in (
                ("the nitrate share", bool(np.any(self.nitrate != 0))),
                ("the cost", self.price is not None and self.price_max is not None),
                ("the EC cap", self.rise_max is not None),
            )
            if is_set
        ]

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


def best_doses(p: Problem, bend: float) -> Array:
    """The optimum under the bounds: bounded least squares, then a quadratic programme where a bound is met."""
    from scipy.optimize import LinearConstraint, lsq_linear, minimize

    scale = p.w / p.t
    n = p.A.shape[1]
    x = np.asarray(lsq_linear(p.A * scale[:, None], (p.t - p.b) * scale, bounds=(0, MAX_g_L)).x)
    rows = p.rows(bend)
    if all(row @ x <= bound + 1e-9 for row, bound in rows):
        return x
    start = _inside(x, rows)

    def gradient(y: Array) -> Array:
        return np.asarray(2 * (p.A.T @ (scale**2 * (p.A @ y + p.b - p.t))))

    held = [LinearConstraint(row[None, :], -np.inf, bound) for row, bound in rows]
    answers = [start]
    for first in (start, np.zeros(n)):
        found = minimize(
            p.objective,
            first,
            jac=gradient,
            method="SLSQP",
            bounds=[(0, MAX_g_L)] * n,
            constraints=held,
            options={"ftol": 1e-13, "maxiter": 400},
        )
        answers.append(_inside(np.clip(found.x, 0, MAX_g_L), rows))
    return min(answers, key=lambda y: float(p.objective(y)))


def _inside(x: Array, rows: list[tuple[Array, float]]) -> Array:
    """Shrunk until every bound is kept; nothing at all always keeps them."""
    for row, bound in rows:
        used = float(row @ x)
        if used > bound + 1e-12:
            x = x * max(0.0, bound / used) if bound > 0 else np.zeros_like(x)
    return x


def problem_of(
    base: BaseWater,
    elements: list[Elements],
    targets: list[FitTarget],
    nitrate: float | None,
    cost_max: float | None,
    prices: list[float | None] | None,
) -> tuple[Problem, Any]:
    water_ions, _ = composition_of(base)
    known = base.ions is not None or is_thin(base.kind)

    def brings(element: str) -> float:
        if not known:
            return 0.0
        if element == "N":
            return (water_ions.NO3_mg_L or 0) * MOLAR_MASS["N"] / MOLAR_MASS["NO3"] + (
                water_ions.NH4_mg_L or 0
            ) * MOLAR_MASS["N"] / MOLAR_MASS["NH4"]
        if element == "S":
            return (water_ions.SO4_mg_L or 0) * MOLAR_MASS["S"] / MOLAR_MASS["SO4"]
        return float(getattr(water_ions, f"{element}_mg_L", None) or 0.0)

    if nitrate is not None:
        require(nitrate, "Nitrate share", "", low=0, high=1, pointer="/nitrate_share_min")
    if cost_max is not None:
        require(cost_max, "Cost", "per litre", low=0, open_low=True, high=1000, pointer="/cost_max_per_L")
        if prices is None or any(x is None for x in prices):
            raise InputError(
                "A price is not known, so a cost cannot be kept. Enter the price of each product.",
                pointer="/cost_max_per_L",
            )
    whole = prices is not None and all(x is not None for x in prices)
    wanted = nitrate or 0.0
    return Problem(
        A=np.array([[e.of(t.element) for e in elements] for t in targets]),
        b=np.array([brings(t.element) for t in targets]),
        t=np.array([t.mg_L for t in targets]),
        w=np.array([WEIGHTS.get(t.element, OTHER_WEIGHT) for t in targets]),
        nitrate=np.array([e.N_nitrate_mg_g - wanted * e.N_mg_g if nitrate else 0.0 for e in elements]),
        price=np.array([float(x or 0) for x in prices]) if whole and prices else None,
        price_max=cost_max,
        ideal=np.array([ideal_rise(ions_per_gram(e)) for e in elements]),
        rise_max=None,
    ), water_ions


def optimum(p: Problem, rise: Any) -> tuple[Array, float]:
    """Doses at the optimum; the bend of the reading is found again at each, so that the cap is the true one."""
    bend = 0.85
    x = best_doses(p, bend)
    for _ in range(_ROUNDS if p.rise_max is not None else 1):
        if not x.any():
            break
        bend = rise(x) / float(p.ideal @ x) if p.ideal @ x > 0 else bend
        x = best_doses(p, bend)
    return x, bend


def on_grid(p: Problem, x: Array, steps: Array, volume_L: float, bend: float, rise: Any) -> Array:
    """The best doses that are whole steps of the tools, two steps around the optimum. [g/L]"""
    middle = np.floor(x * volume_L / steps + 0.5)
    around = [
        np.unique(np.clip(np.arange(k - REACH, k + REACH + 1), 0, None)) if v > 0 else np.array([0.0])
        for k, v in zip(middle, x, strict=True)
    ]
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


def what_gives(p: Problem, x: Array, bend: float, targets: list[FitTarget]) -> str:
    """The bound or target without which the others are met best; "" when all are met."""
    miss = np.abs(p.A @ x + p.b - p.t) / p.t
    if miss.max() > NOTICEABLE:
        for bound in p.bounds():
            freer = p.without(bound)
            if float(p.objective(x)) > GIVES_RATIO * float(freer.objective(best_doses(freer, bend))) + 1e-6:
                return bound
    if miss.max() <= NOTICEABLE or len(targets) < 2:
        return targets[int(miss.argmax())].element if miss.max() > NOTICEABLE else ""
    left = []
    for j in range(len(targets)):
        keep = np.arange(len(targets)) != j
        rest = Problem(
            A=p.A[keep],
            b=p.b[keep],
            t=p.t[keep],
            w=p.w[keep],
            nitrate=p.nitrate,
            price=p.price,
            price_max=p.price_max,
            ideal=p.ideal,
            rise_max=p.rise_max,
        )
        left.append(float(rest.objective(best_doses(rest, bend))) if miss[j] > NOTICEABLE else np.inf)
    return targets[int(np.argmin(left))].element
