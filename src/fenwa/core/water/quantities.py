"""What may be measured in a water beside its conductivity, and the units it comes in."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import Span, capital, read_span, require
from fenwa.core.errors import InputError, Overspecified
from fenwa.core.water.hardness import ALKALINITY_mg_L, HARDNESS_mg_L
from fenwa.core.water.ions import MOLAR_MASS, WaterIons

_B, _FE = 10.81, 55.845  # g/mol, iupac-atomic-weights


@dataclass(frozen=True)
class MeasuredQuantity:
    """A quantity: its words, canonical unit first among the units, and the fields it fills."""

    id: str
    label: str
    units: dict[str, float]
    most: float
    known_field: str = ""
    ion_field: str = ""

    @property
    def unit(self) -> str:
        """The canonical unit."""
        return next(iter(self.units))


def _ion(name: str, mass: float, charge: int, **others: float) -> dict[str, float]:
    """Units of an ion: mg/L and what else reports use, as mg/L in one of them."""
    return {
        "mg/L": 1.0,
        "µg/L": 0.001,
        "mmol/L": mass,
        "meq/L": mass / charge,
        **{k.replace("_", " "): v for k, v in others.items()},
    }


_M = MOLAR_MASS
QUANTITIES: dict[str, MeasuredQuantity] = {
    q.id: q
    for q in (
        MeasuredQuantity(
            "Ca", "calcium", {**_ion("Ca", _M["Ca"], 2), "mg/L CaCO3": 0.4005}, 5000, "calcium_mg_L", "Ca_mg_L"
        ),
        MeasuredQuantity(
            "Mg", "magnesium", {**_ion("Mg", _M["Mg"], 2), "mg/L CaCO3": 0.2428}, 5000, "magnesium_mg_L", "Mg_mg_L"
        ),
        MeasuredQuantity("Na", "sodium", _ion("Na", _M["Na"], 1), 20_000, "sodium_mg_L", "Na_mg_L"),
        MeasuredQuantity("K", "potassium", _ion("K", _M["K"], 1), 5000, "", "K_mg_L"),
        MeasuredQuantity(
            "NH4", "ammonium", {**_ion("NH4", _M["NH4"], 1), "mg/L N": _M["NH4"] / _M["N"]}, 1000, "", "NH4_mg_L"
        ),
        MeasuredQuantity("Cl", "chloride", _ion("Cl", _M["Cl"], 1), 20_000, "chloride_mg_L", "Cl_mg_L"),
        MeasuredQuantity(
            "NO3", "nitrate", {**_ion("NO3", _M["NO3"], 1), "mg/L N": _M["NO3"] / _M["N"]}, 5000, "", "NO3_mg_L"
        ),
        MeasuredQuantity(
            "SO4", "sulfate", {**_ion("SO4", _M["SO4"], 2), "mg/L S": _M["SO4"] / _M["S"]}, 10_000, "", "SO4_mg_L"
        ),
        MeasuredQuantity("F", "fluoride", _ion("F", _M["F"], 1), 100, "fluoride_mg_L", "F_mg_L"),
        MeasuredQuantity(
            "P", "phosphorus", {"mg/L": 1.0, "µg/L": 0.001, "mg/L PO4": 0.3261, "mmol/L": _M["P"]}, 500, "", "P_mg_L"
        ),
        MeasuredQuantity("B", "boron", {"mg/L": 1.0, "µg/L": 0.001, "mmol/L": _B}, 100, "boron_mg_L"),
        MeasuredQuantity("Fe", "iron", {"mg/L": 1.0, "µg/L": 0.001, "mmol/L": _FE}, 200, "iron_mg_L"),
        MeasuredQuantity(
            "alkalinity", "alkalinity", ALKALINITY_mg_L, 5000, "alkalinity_mg_L_CaCO3", "alkalinity_mg_L_CaCO3"
        ),
        MeasuredQuantity("hardness", "hardness", HARDNESS_mg_L, 5000, "hardness_mg_L_CaCO3"),
        MeasuredQuantity("free chlorine", "free chlorine", {"mg/L": 1.0, "µg/L": 0.001}, 20, "free_chlorine_mg_L"),
        MeasuredQuantity("total chlorine", "total chlorine", {"mg/L": 1.0, "µg/L": 0.001}, 20, "total_chlorine_mg_L"),
        MeasuredQuantity("pH", "pH", {"": 1.0}, 14, "pH", "pH"),
    )
}


@dataclass(frozen=True)
class MeasuredAmount:
    """A quantity as a range in its canonical unit, and as it was typed."""

    quantity: str
    span: Span
    typed: str
    unit: str


def read_amount(quantity: str, typed: str | float, unit: str | None = None, *, pointer: str = "") -> MeasuredAmount:
    """A typed amount or range in its canonical unit.

    Raises
    ------
    InputError
        If the quantity or unit is not known, or the amount is not a number or range.
    OutOfRange
        If the amount is negative or absurd.
    """
    q = QUANTITIES.get(quantity)
    if q is None:
        raise InputError(f"“{quantity}” is not a quantity. Choose {', '.join(QUANTITIES)}.", pointer=pointer)
    chosen = q.unit if unit is None else unit
    if chosen not in q.units:
        raise InputError(
            f"Unit “{chosen}” is not one of {q.label}. Choose {', '.join(u or 'none' for u in q.units)}.",
            pointer=pointer,
        )
    label = capital(q.label) if q.id != "pH" else "pH"
    span = read_span(typed, label, pointer=pointer).scaled(q.units[chosen])
    for end in (span.low, span.high):
        require(end, label, q.unit, low=0, high=q.most, pointer=pointer)
    return MeasuredAmount(q.id, span, str(typed).strip(), chosen)


def no_quantity_twice(amounts: list[MeasuredAmount], pointer: str = "") -> None:
    """Refuse two values of one quantity in one entry."""
    seen: set[str] = set()
    for a in amounts:
        if a.quantity in seen:
            raise Overspecified(
                f"{QUANTITIES[a.quantity].label.capitalize()} is given twice. Keep one.", pointer=pointer
            )
        seen.add(a.quantity)


def ions_of(spans: dict[str, Span]) -> WaterIons:
    """A report's lines as ions: middles of ranges, so “<0.02” counts as 0.01. [mg/L]"""
    return WaterIons(**{q.ion_field: spans[q.id].middle for q in QUANTITIES.values() if q.ion_field and q.id in spans})
