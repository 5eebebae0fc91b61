"""Readings as typed, wherever one is entered."""

from __future__ import annotations

from typing import Literal

from fenwa.core.entry import require
from fenwa.core.units import to_canonical

ReadingUnit = Literal["µS/cm", "mS/cm"]


def runoff_ec(value: float | None, unit: ReadingUnit, pointer: str) -> float | None:
    """A reading as typed, in µS/cm; refused where it is beyond brine or nothing."""
    if value is None:
        return None
    ec = to_canonical(value, "ec", unit)
    hint = "That is beyond brine or below nothing. Check the unit: µS/cm or mS/cm."
    require(ec, "Reading", "µS/cm", low=0, open_low=True, high=50_000, pointer=pointer, hint=hint)
    return ec
