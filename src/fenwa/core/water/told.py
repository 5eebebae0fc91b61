"""A water as somebody tells it without a record: a display in any unit, or only its kind."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.water.kinds import BaseWater, WaterKind
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit, ec_at_25, scale_known
from fenwa.core.water.usual import usual_water
from fenwa.core.working import Working


@dataclass(frozen=True)
class ToldWater:
    """What a water reads, as a range where it was not read or its scale is not known. [µS/cm]

    ``half_width_uS_cm``: what the meter, or not knowing, leaves open.
    """

    kind: WaterKind
    low_uS_cm: float
    middle_uS_cm: float
    high_uS_cm: float
    half_width_uS_cm: float
    measured: bool
    sentence: str
    working: Working

    def base(self, name: str) -> BaseWater:
        """The same as a water to mix with."""
        return BaseWater(self.middle_uS_cm, self.kind, None, name, self.half_width_uS_cm, self.measured)

    def at_most(self, name: str) -> BaseWater:
        """The saltiest it may be: for what shall stay under a mark."""
        return BaseWater(self.high_uS_cm, self.kind, None, name, 0.0, self.measured)


def told_water(
    kind: WaterKind,
    value: float | None,
    unit: EcUnit,
    scale: TdsScale | None,
    temperature_C: float | None = None,
    hardness_mg_L_CaCO3: float | None = None,
) -> ToldWater:
    """What a display, a hardness or a kind says of a water.

    Raises
    ------
    OutOfRange
        If the reading cannot be.
    """
    if value is not None and scale_known(unit, scale):
        read = ec_at_25(
            value=value, unit=unit, scale=scale, temperature_C=temperature_C, compensated=temperature_C is None
        )
        ec, half = read.result.ec25_uS_cm, read.result.half_width_uS_cm
        return ToldWater(kind, ec, ec, ec, half, True, f"{ec:.0f} µS/cm at 25 °C.", read.working)
    usual = usual_water(kind=kind, ppm_of_unknown_scale=value, hardness_mg_L_CaCO3=hardness_mg_L_CaCO3)
    u = usual.result
    half = (u.high_uS_cm - u.low_uS_cm) / 2
    return ToldWater(kind, u.low_uS_cm, u.usual_uS_cm, u.high_uS_cm, half, False, u.sentence, usual.working)
