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
