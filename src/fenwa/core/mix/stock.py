"""A stock solution for doses too small for the scale at hand."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

WEIGHABLE_STEPS = 20  # E1.13: from 20 scale steps on, weighing is within about 2 % (SD)
SOLUBLE_SHARE = 2 / 3  # of the solubility at the coldest store, guideline
BOTTLES_mL = (100, 250, 400, 500, 1000, 2000)
DRAWS_mL_L = (10.0, 5.0, 20.0, 25.0, 50.0)  # round syringe volumes a litre, handiest first
BOTTLE_ERROR = 0.01  # filling a bottle to its line


@dataclass(frozen=True)
class StockSolution:
    """What to weigh into which bottle, and what to draw from it."""

    mass_g: float
    bottle_mL: float
    concentration_g_L: float
    draw_mL_per_L: float
    draw_mL: float
    error_pct: float
    lasts_L: float


def relative_weighing_error(mass_g: float, step_g: float) -> float:
    """Standard deviation of a weighing with tare, relative: r / (√6 m), E1.13."""
    return step_g / (math.sqrt(6) * mass_g)


def combined_relative_error(*parts: float) -> float:
    """Independent relative errors add in squares, E1.14."""
    return math.sqrt(sum(p * p for p in parts))


@calculation("stock-solution", title="Stock solution", station="mix")
def stock_solution(
    *,
    dose_g_L: float,
    volume_L: float,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
    solubility_g_L: float | None = None,
    bottle_mL: float | None = None,
    draw_mL_per_L: float | None = None,
) -> Computed[StockSolution]:
    """A stock that brings a small dose within reach of the scale and the syringe.

    Parameters
    ----------
    dose_g_L : float
        Dose in the can, above 0 to 50. [g/L]
    volume_L : float
        Volume of the can, above 0 to 10 000. [L]
    scale_step_g : float
        Smallest step of the scale, above 0 to 100. [g]
    syringe_step_mL : float
        Smallest division of the syringe, above 0 to 50. [mL]
    solubility_g_L : float
        Solubility at 20 °C, if known. [g/L]
    bottle_mL : float
        Bottle to use; chosen when empty. [mL]
    draw_mL_per_L : float
        Stock to draw for each litre; chosen when empty. [mL/L]

    Returns
    -------
    Computed
        Mass, bottle, concentration, draw and the error that remains. [g, mL, %]

    Raises
    ------
    Infeasible
        If no bottle and draw satisfy the scale, the syringe and the solubility.

    References
    ----------
    E1.11; E1.13; E1.14
    """
    require(dose_g_L, "Dose", "g/L", low=0, open_low=True, high=50, pointer="/dose_g_L")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")
    limit = SOLUBLE_SHARE * solubility_g_L if solubility_g_L is not None else 200.0
    best: tuple[float, float, float, float] | None = None
    for draw in (draw_mL_per_L,) if draw_mL_per_L else DRAWS_mL_L:
        for bottle in (bottle_mL,) if bottle_mL else BOTTLES_mL:
            mass = dose_g_L * bottle / draw
            drawn = draw * volume_L
            fits = (
                mass >= WEIGHABLE_STEPS * scale_step_g * (1 - 1e-9)
                and dose_g_L * 1000 / draw <= limit
                and drawn >= WEIGHABLE_STEPS * syringe_step_mL * (1 - 1e-9)
                and bottle >= drawn
            )
            if fits and (best is None or bottle < best[0]):
                best = (bottle, draw, mass, drawn)
        if best:
            break
    if best is None:
        raise Infeasible(
            f"No stock fits {dose_g_L:.3g} g/L for {volume_L:g} L with a {scale_step_g:g} g scale and a "
            f"{syringe_step_mL:g} mL syringe. Make a larger can, or use a finer scale or syringe.",
            pointer="/volume_L",
        )
    bottle, draw, _, _ = best
    ledger = Ledger("Stock solution", "Use within 4 to 8 weeks; with urea or organics within 2.", ("mass-balance",))
    ledger.take("d", "dose in the can", dose_g_L, "g/L")
    ledger.take("V", "volume of the can", volume_L, "L")
    ledger.take("v_L", "stock drawn for each litre", draw, "mL/L", "entered" if draw_mL_per_L else "default:round draw")
    ledger.take("B", "bottle", bottle, "mL", "entered" if bottle_mL else "default:smallest that fits")
    ledger.take("r", "step of the scale", scale_step_g, "g")
    ledger.take("s", "step of the syringe", syringe_step_mL, "mL")
    concentration = ledger.step("c_s", "d * 1000 / v_L", "g/L", "strength of the stock")
    mass = ledger.step("m", "c_s * B / 1000", "g", "weigh into the bottle")
    drawn = ledger.step("v", "v_L * V", "mL", "draw for this can")
    ledger.take("b", "filling the bottle to its line", BOTTLE_ERROR, "", "default:careful filling")
    error = ledger.step("E", "100 * sqrt((r / (sqrt(6) * m))**2 + (s / (sqrt(12) * v))**2 + b**2)", "%",
                        "error of the dose (SD)")  # fmt: skip
    lasts = ledger.step("L", "B / v_L", "L", "feed one bottle makes")
    if solubility_g_L is None:
        ledger.assume("Solubility not known: stocks up to 200 g/L are taken as soluble. Stop if grains stay.")
    ledger.caution("Never calcium together with sulfate or phosphate in one stock bottle.")
    ledger.caution("Label the bottle with contents, strength and date; keep it from children, pets and food.")
    return ledger.close(StockSolution(mass, bottle, concentration, draw, drawn, error, lasts))
