"""A dose too small for the scale: through a stock bottle, or through a stock thinned in steps."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.errors import DomainError, Infeasible
from fenwa.core.mix.clear import STRONGEST
from fenwa.core.mix.dilution import SerialDilution, serial_dilution
from fenwa.core.mix.feed import Feed
from fenwa.core.mix.label import Label
from fenwa.core.mix.solubility import SOLUBLE_SHARE
from fenwa.core.mix.stock import PURE, SOLUBLE_UNKNOWN_g_L, StockSolution, split_for, stock_solution
from fenwa.core.mix.weighing import WEIGHABLE_STEPS, combined_relative_error, relative_weighing_error
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Working


@dataclass(frozen=True)
class SteppedStock:
    """A stock thinned in steps, for a vessel too small for a single draw. [g, mL, g/L, %]"""

    mass_g: float
    bottle_mL: float
    concentration_g_L: float
    dilution: SerialDilution
    error_pct: float
    working: Working


def stock_for(
    base: BaseWater, d: float, volume_L: float, scale_step_g: float, syringe_step_mL: float, label: Label
) -> tuple[Computed[StockSolution] | None, str]:
    """A stock for one product, filled with the can's water or else with pure water; or the sentence why there is
    none.
    """
    refusal = ""
    for water in (base, PURE):  # hard water clouds a strong bottle that pure water keeps clear
        try:
            found = stock_solution(
                feeds=[Feed(label, d)],
                volume_L=volume_L,
                base=water,
                scale_step_g=scale_step_g,
                syringe_step_mL=syringe_step_mL,
            )
        except Infeasible as refused:
            refusal = refusal or refused.detail
        else:
            return found, ""
    return None, refusal


def by_steps_for(
    d: float, volume_L: float, scale_step_g: float, syringe_step_mL: float, label: Label, base: BaseWater
) -> SteppedStock | None:
    """The least the scale can weigh in a litre, thinned by one or two draws; None when that does not go either."""
    if label.form == "liquid" or d <= 0:
        return None
    mass = WEIGHABLE_STEPS * scale_step_g
    limit = SOLUBLE_UNKNOWN_g_L if label.solubility_g_L is None else SOLUBLE_SHARE * label.solubility_g_L
    if mass > limit or mass <= d or not split_for(base, [Feed(label, d)], min(mass / d, STRONGEST)):
        return None
    try:
        found = serial_dilution(
            stock_g_L=mass, target_mg_L=d * 1000, final_mL=volume_L * 1000, syringe_step_mL=syringe_step_mL
        )
    except DomainError:
        return None
    error = 100 * combined_relative_error(found.result.error_pct / 100, relative_weighing_error(mass, scale_step_g))
    return SteppedStock(mass, 1000.0, mass, found.result, error, found.working)
