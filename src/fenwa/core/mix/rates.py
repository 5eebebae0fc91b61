"""Label rates in any unit a label uses, turned into grams or millilitres a litre."""

from __future__ import annotations

from typing import Literal, get_args

from fenwa.core.errors import InputError

RateUnit = Literal[
    "g/L", "mL/L", "g/10 L", "mL/10 L", "g/US gal", "mL/US gal", "g/imp gal", "mL/imp gal",
    "US tsp/US gal", "oz/100 US gal",
]  # fmt: skip

US_GAL_L, IMP_GAL_L, US_TSP_mL, OZ_g = 3.785411784, 4.54609, 4.92892159375, 28.349523125
BULK_DENSITY_g_mL = 1.0  # level spoons of an unknown powder: 0.8-1.2, judgement

_PER_L = {
    "g/L": 1.0, "mL/L": 1.0, "g/10 L": 0.1, "mL/10 L": 0.1, "g/US gal": 1 / US_GAL_L, "mL/US gal": 1 / US_GAL_L,
    "g/imp gal": 1 / IMP_GAL_L, "mL/imp gal": 1 / IMP_GAL_L,
    "US tsp/US gal": US_TSP_mL * BULK_DENSITY_g_mL / US_GAL_L, "oz/100 US gal": OZ_g / (100 * US_GAL_L),
}  # fmt: skip
RATE_UNITS: tuple[str, ...] = get_args(RateUnit)


def rate_per_L(value: float, unit: str, form: str, *, pointer: str = "") -> float:
    """A label rate as grams a litre (powder) or millilitres a litre (liquid).

    Spoons are US teaspoons of 4.929 mL; a powder's spoon counts 1.0 g/mL.
    A weight is refused for a liquid: its density would be needed twice.
    """
    if form == "liquid" and unit.startswith(("g", "oz")):
        raise InputError(f"Label rate in {unit} is a weight, but the product is a liquid. Choose a mL unit.",
                         pointer=f"{pointer}/label_rate_unit")  # fmt: skip
    if form == "powder" and unit.startswith("mL"):
        raise InputError(f"Label rate in {unit} is a volume, but the product is a powder. Choose grams or teaspoons.",
                         pointer=f"{pointer}/label_rate_unit")  # fmt: skip
    return value * _PER_L[unit]
