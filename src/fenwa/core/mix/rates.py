"""Label rates in any unit a label uses, turned into grams or millilitres a litre."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.errors import InputError, Underspecified

US_GAL_L, IMP_GAL_L, US_TSP_mL, OZ_g = 3.785411784, 4.54609, 4.92892159375, 28.349523125
BULK_DENSITY_g_mL = 1.0  # level spoons of an unknown powder: 0.8-1.2, judgement
DROP_mL = 0.05  # twenty to the millilitre: a convention, droppers differ by half

Measure = Literal["weight", "volume", "spoon", "cap", "drop"]

# what a label counts, as grams or millilitres of one (E1.5); caps and drops are the bottle's own
RATE_AMOUNTS: dict[str, tuple[Measure, float]] = {
    "g": ("weight", 1.0),
    "mL": ("volume", 1.0),
    "oz": ("weight", OZ_g),
    "US tsp": ("spoon", US_TSP_mL),
    "metric tsp": ("spoon", 5.0),
    "US tbsp": ("spoon", 3 * US_TSP_mL),
    "metric tbsp": ("spoon", 15.0),
    "Australian tbsp": ("spoon", 20.0),
    "US fl oz": ("volume", 29.5735295625),
    "imp fl oz": ("volume", 28.4130625),
    "cap": ("cap", 1.0),
    "drops": ("drop", 1.0),
}
RATE_PERS: dict[str, float] = {
    "L": 1.0,
    "10 L": 10.0,
    "100 L": 100.0,
    "US gal": US_GAL_L,
    "imp gal": IMP_GAL_L,
    "100 US gal": 100 * US_GAL_L,
}
RATE_UNITS: tuple[str, ...] = tuple(f"{amount}/{per}" for amount in RATE_AMOUNTS for per in RATE_PERS)


@dataclass(frozen=True)
class Packing:
    """How a product sits in a spoon, a cap and a drop. None: nobody measured it. [g/mL; mL]"""

    bulk_density_g_mL: float | None = None
    cap_mL: float | None = None
    drop_mL: float | None = None


def split_unit(unit: str, *, pointer: str = "") -> tuple[str, str]:
    """Amount and volume of a rate unit such as ``US tsp/US gal``, or a sentence that names the choices."""
    amount, _, per = unit.partition("/")
    if amount not in RATE_AMOUNTS or per not in RATE_PERS:
        gallon = " US and imperial gallons differ by a fifth: say which." if "gal" in unit else ""
        raise InputError(
            f"Label rate unit “{unit}” is not a choice.{gallon} Amounts: {', '.join(RATE_AMOUNTS)}; "
            f"per {', '.join(RATE_PERS)}.",
            pointer=f"{pointer}/label_rate_unit",
            value=unit,
        )
    return amount, per


def rate_per_L(value: float, unit: str, form: str, packing: Packing | None = None, *, pointer: str = "") -> float:
    """A label rate as grams a litre (powder) or millilitres a litre (liquid).

    A level spoon of powder counts its measured bulk density, or 1.0 g/mL; a cap must be
    known; a drop is 0.05 mL until it is counted. Weights of a liquid are refused: its
    density would be needed twice.

    Raises
    ------
    InputError
        If the unit is not one, or a weight is asked of a liquid or a volume of a powder.
    Underspecified
        If nobody knows what a cap holds.
    """
    amount, per = split_unit(unit, pointer=pointer)
    measure, size = RATE_AMOUNTS[amount]
    own, at = packing or Packing(), f"{pointer}/label_rate_unit"
    if form == "liquid" and measure == "weight":
        raise InputError(
            f"Label rate in {unit} is a weight, but the product is a liquid. Choose a mL unit.", pointer=at
        )
    if form == "powder" and measure in ("volume", "drop"):
        raise InputError(
            f"Label rate in {unit} is a volume, but the product is a powder. Choose grams or spoons.", pointer=at
        )
    if measure == "cap":
        if own.cap_mL is None:
            raise Underspecified(
                "How much a cap holds is not known. Weigh or measure five level caps, or enter its millilitres.",
                pointer=f"{pointer}/cap_mL",
            )
        size = own.cap_mL
    elif measure == "drop":
        size = own.drop_mL if own.drop_mL is not None else DROP_mL
    if form == "powder" and measure in ("spoon", "cap"):
        size *= own.bulk_density_g_mL if own.bulk_density_g_mL is not None else BULK_DENSITY_g_mL
    return value * size / RATE_PERS[per]


def counts_spoons(unit: str) -> bool:
    """Whether a rate unit counts level spoons or caps, whose weight depends on the product."""
    amount = unit.partition("/")[0]
    return amount in RATE_AMOUNTS and RATE_AMOUNTS[amount][0] in ("spoon", "cap")
