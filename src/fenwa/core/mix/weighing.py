"""What a scale or a syringe can do with an amount."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.mix.elements import Elements

WEIGHABLE_STEPS = 20  # E1.13: from 20 scale steps on, weighing is within about 2 % (SD)


@dataclass(frozen=True, kw_only=True)
class Weighing:
    """An amount for the can, and what the tool makes of it. [g or mL, %]"""

    name: str
    dose_g_L: float
    dose_mL_L: float | None
    amount: float
    unit: str
    step: float
    rounded: float
    error_pct: float
    weighable: bool


def to_grid(amount: float, step: float) -> float:
    """The nearest multiple of the tool's step."""
    require(step, "Step of the scale or syringe", "", low=1e-6, high=1000, pointer="/scale_step_g")
    return math.floor(amount / step + 0.5) * step


def relative_weighing_error(mass_g: float, step_g: float) -> float:
    """Standard deviation of a weighing with tare, relative: r / (√6 m), E1.13."""
    return step_g / (math.sqrt(6) * mass_g)


def combined_relative_error(*parts: float) -> float:
    """Independent relative errors add in squares, E1.14."""
    return math.sqrt(sum(p * p for p in parts))


def is_weighable(amount: float, step: float) -> bool:
    """Nothing, or enough steps of the tool to trust it."""
    return amount <= 0 or amount >= WEIGHABLE_STEPS * step * (1 - 1e-9)


def weigh(
    name: str, e: Elements, dose_g_L: float, volume_L: float, scale_step_g: float, syringe_step_mL: float
) -> Weighing:
    """Grams of a powder or millilitres of a liquid for the whole can, rounded to the tool."""
    mass = dose_g_L * volume_L
    liquid = e.density_g_mL is not None
    per_L = dose_g_L / e.density_g_mL if e.density_g_mL is not None else None
    amount = mass / e.density_g_mL if e.density_g_mL is not None else mass
    step = syringe_step_mL if liquid else scale_step_g
    rounded = to_grid(amount, step)
    error = abs(rounded - amount) / amount * 100 if amount > 0 else 0.0
    return Weighing(
        name=name,
        dose_g_L=dose_g_L,
        dose_mL_L=per_L,
        amount=amount,
        unit="mL" if liquid else "g",
        step=step,
        rounded=rounded,
        error_pct=error,
        weighable=is_weighable(amount, step),
    )
