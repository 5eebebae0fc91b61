"""Units a grower may type or see, as straight lines from the canonical unit."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.constants import INCH_cm
from fenwa.core.errors import InputError
from fenwa.core.mix.rates import IMP_GAL_L, US_GAL_L, OZ_g
from fenwa.core.water.tds import SCALES


@dataclass(frozen=True)
class DisplayUnit:
    """shown = canonical * factor + offset, with ``digits`` significant figures at most."""

    unit: str
    factor: float
    offset: float = 0.0
    digits: int = 3


DISPLAY: dict[str, dict[str, DisplayUnit]] = {
    "ec": {
        "µS/cm": DisplayUnit("µS/cm", 1.0),
        "mS/cm": DisplayUnit("mS/cm", 0.001),
        **{f"ppm ({name})": DisplayUnit(f"ppm ({name} scale)", k) for name, k in SCALES.items()},
    },
    "temperature": {"°C": DisplayUnit("°C", 1.0), "°F": DisplayUnit("°F", 1.8, 32.0)},
    "volume": {
        "L": DisplayUnit("L", 1.0),
        "US gal": DisplayUnit("US gal", 1 / US_GAL_L),
        "imp gal": DisplayUnit("imp gal", 1 / IMP_GAL_L),
    },
    "length": {"cm": DisplayUnit("cm", 1.0), "in": DisplayUnit("in", 1 / INCH_cm)},
    "mass": {"g": DisplayUnit("g", 1.0), "oz": DisplayUnit("oz", 1 / OZ_g, digits=3)},
}


def to_canonical(value: float, kind: str, unit: str, *, pointer: str = "") -> float:
    """A value typed in one of the display units, in the canonical one."""
    found = DISPLAY[kind].get(unit)
    if found is None:
        raise InputError(f"Unit “{unit}” is not a choice. Choose {', '.join(DISPLAY[kind])}.", pointer=pointer)
    return (value - found.offset) / found.factor


KIND_OF = {"µS/cm": "ec", "°C": "temperature", "L": "volume", "g": "mass", "cm": "length", "mm": "length"}
CANONICAL = {"ec": "µS/cm", "temperature": "°C", "volume": "L", "mass": "g", "length": "cm"}
MM_cm = 0.1


def in_own_unit(value: float, unit: str, own: str, *, pointer: str = "") -> float:
    """A value typed in a unit of the reader's choice, in the unit its field is stored in.

    Parameters
    ----------
    unit
        As it is shown beside the field: any unit of ``DISPLAY``.
    own
        The field's unit, one of ``KIND_OF``.

    Raises
    ------
    InputError
        If the two do not measure the same.

    >>> round(in_own_unit(4.0, "in", "mm"), 1)
    101.6
    """
    kind = KIND_OF.get(own, "")
    for name, shown in DISPLAY.get(kind, {}).items():
        if unit in (name, shown.unit):
            kept = to_canonical(value, kind, name) / (MM_cm if own == "mm" else 1.0)
            return float(f"{kept:.12g}")  # 350 ppm are 500 µS/cm, not a hair more
    raise InputError(f"Unit “{unit}” does not go with {own}. Enter the value in {own}.", pointer=pointer)
