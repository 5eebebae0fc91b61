"""A pen's display turned into conductivity at 25 °C."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.registry import calculation
from fenwa.core.water.compensation import ALPHA_KCL_PER_C, PURE_WATER_LIMIT_uS_cm, natural_water_factor
from fenwa.core.water.tds import TdsScale, scale_factor
from fenwa.core.working import Computed, Ledger

EcUnit = Literal["µS/cm", "mS/cm", "dS/m", "ppm"]
Compensation = Literal["natural-water", "linear"]

EC_MAX_uS_cm = 200_000.0  # sea water is about 53 000; anything above is a slip of the unit
TO_uS_cm = {"µS/cm": 1.0, "mS/cm": 1000.0, "dS/m": 1000.0}


@dataclass(frozen=True)
class Ec25:
    """Conductivity at 25 °C with the half-width the meter leaves it. [µS/cm]"""

    ec25_uS_cm: float
    half_width_uS_cm: float
    below_pure_limit: bool


def one_unit_uS_cm(unit: str, scale: str | None, shown: float = 1.0) -> float:
    """µS/cm in one unit of a display; an unknown ppm scale is refused with what ``shown`` could be."""
    return 1.0 / scale_factor(scale, shown) if unit == "ppm" else TO_uS_cm[unit]


def scale_known(unit: str, scale: str | None) -> bool:
    """Whether a display can be turned into conductivity at all."""
    return unit != "ppm" or scale not in (None, "unknown")


def display_step(unit: str, scale: str | None, step_uS_cm: float) -> float:
    """A step in µS/cm as the display counts it; as it is while a ppm scale is not known."""
    return step_uS_cm / one_unit_uS_cm(unit, scale) if scale_known(unit, scale) else step_uS_cm


@dataclass(frozen=True)
class MeterCorrection:
    """What checks against standards say of a meter: shown = slope * true + offset, and what stays open."""

    slope: float
    offset_uS_cm: float
    relative_half_width: float
    absolute_half_width_uS_cm: float = 0.0
    checked_on: str = ""


def _meter_half_width(
    ledger: Ledger,
    ec: str,
    accuracy_pct_fs: float | None,
    range_uS_cm: float | None,
    correction: MeterCorrection | None,
) -> float:
    """Half-width of a reading: from the meter's checks, its own statement, or a usual pen's."""
    if correction is not None:
        ledger.take("u_rel", "share the checks leave open", correction.relative_half_width, "", "checks of the meter")
        ledger.take("u_abs", "half a step of the display", correction.absolute_half_width_uS_cm, "µS/cm", "meter")
        return ledger.step("U", f"sqrt((u_rel * {ec}) ** 2 + u_abs ** 2)", "µS/cm", "half-width after the checks")
    if accuracy_pct_fs is not None and range_uS_cm is not None:
        require(accuracy_pct_fs, "Meter accuracy", "% of range", low=0, high=50, pointer="/accuracy_pct_fs")
        require(range_uS_cm, "Meter range", "µS/cm", low=0, open_low=True, high=500_000, pointer="/range_uS_cm")
        ledger.take("acc", "accuracy of the meter, % of full scale", accuracy_pct_fs, "%")
        ledger.take("range", "range of the meter", range_uS_cm, "µS/cm")
        return ledger.step("U", "acc / 100 * range", "µS/cm", "half-width from the meter")
    ledger.assume("The meter states no accuracy: a usual pen's 2 % and 1 µS/cm are taken.")
    return ledger.step("U", f"0.02 * {ec} + 1", "µS/cm", "half-width of a usual pen")


def _corrected(ledger: Ledger, c: MeterCorrection) -> float:
    """The shown value without the meter's own error."""
    require(c.slope, "Slope of the meter", "", low=0.2, high=5, pointer="/correction/slope")
    ledger.take("a", "slope of the meter", c.slope, "", f"checks of the meter {c.checked_on}".strip())
    ledger.take("b", "offset of the meter", c.offset_uS_cm, "µS/cm", "checks of the meter")
    return ledger.step("EC_c", "max(0, (EC_T - b) / a)", "µS/cm", "without the meter's own error")


@calculation("ec-at-25", title="Conductivity at 25 °C", station="water")
def ec_at_25(
    *,
    value: float,
    unit: EcUnit = "µS/cm",
    scale: TdsScale | None = None,
    temperature_C: float | None = None,
    compensated: bool = True,
    compensation: Compensation = "linear",
    alpha_per_C: float = ALPHA_KCL_PER_C,
    accuracy_pct_fs: float | None = None,
    range_uS_cm: float | None = None,
    correction: MeterCorrection | None = None,
) -> Computed[Ec25]:
    """Conductivity at 25 °C from what a meter shows.

    Parameters
    ----------
    value : float
        What the display shows, above 0, at most the equal of 200 000 µS/cm.
        [unit]
    unit : str
        µS/cm, mS/cm, dS/m, or ppm together with its scale.
    scale : str
        Of a ppm display: 0.5, 0.64, 0.7 or unknown.
    temperature_C : float
        Of the water, 0 to 60. Needed when the meter does not compensate. [°C]
    compensated : bool
        True when the meter corrects to 25 °C itself; then nothing is corrected again.
    compensation : str
        linear: EC_T / (1 + α (T - 25)); natural-water: the table of ISO 7888, 0 to 35 °C.
    alpha_per_C : float
        Coefficient of the linear form, 0 to 0.06. [1/°C]
    accuracy_pct_fs : float
        The meter's stated accuracy, % of full scale. [%]
    range_uS_cm : float
        The meter's full scale. [µS/cm]
    correction : MeterCorrection
        From the meter's checks against standards; the shown value is kept and corrected here. [µS/cm]

    Returns
    -------
    Computed
        EC at 25 °C and its half-width. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number lies outside its range.
    Underspecified
        If ppm comes without a scale, or a temperature is needed and missing.

    Notes
    -----
    Below 5 µS/cm no correction is made: pure water changes by 4 to 5 % a degree.

    References
    ----------
    sm-2510; iso-7888
    """
    ledger = Ledger(
        "Conductivity at 25 °C",
        "Linear form good to about 3 % from 5 to 35 °C; nothing is corrected twice.",
        ("sm-2510", "iso-7888"),
    )
    require(value, "Reading", unit, low=0, open_low=True, high=EC_MAX_uS_cm * 0.7, pointer="/value")
    if unit == "ppm":
        ledger.take("TDS", "reading", value, "ppm")
        ledger.take("k", "ppm scale of the meter", scale_factor(scale, value), "ppm per µS/cm", "entered")
        ec = ledger.step("EC_T", "TDS / k", "µS/cm", "conductivity at the water's temperature")
    else:
        ledger.take("shown", "reading", value, unit)
        ledger.take("unit", f"µS/cm in 1 {unit}", TO_uS_cm[unit], "µS/cm", "definition")
        ec = ledger.step("EC_T", "shown * unit", "µS/cm", "conductivity as shown")
    require(
        ec,
        "Reading",
        "µS/cm",
        low=0,
        open_low=True,
        high=EC_MAX_uS_cm,
        pointer="/value",
        hint="That is beyond brine. Check the unit: a pen in mS/cm shows about 0.05 to 5.",
    )
    if temperature_C is not None:
        require(
            temperature_C,
            "Water temperature",
            "°C",
            low=0,
            high=60,
            pointer="/temperature_C",
            hint="Enter the water's temperature from 0 to 60 °C, or leave it empty if the meter compensates.",
        )
    shown_name = "EC_T"
    if correction is not None:
        ec, shown_name = _corrected(ledger, correction), "EC_c"
    pure = ec < PURE_WATER_LIMIT_uS_cm
    if compensated:
        ledger.assume("The meter compensates to 25 °C itself; its reading is taken as it is.")
        ec25 = ledger.step("EC25", shown_name, "µS/cm", "conductivity at 25 °C")
    elif pure:
        ledger.caution("Below 5 µS/cm no temperature correction is sound: read it as “under 5”.")
        ec25 = ledger.step("EC25", shown_name, "µS/cm", "conductivity, not corrected")
    elif temperature_C is None:
        raise Underspecified(
            "Water temperature is missing, and this meter does not compensate. "
            "Enter the temperature, or say that the meter compensates.",
            pointer="/temperature_C",
        )
    elif compensation == "natural-water":
        require(temperature_C, "Water temperature", "°C", low=0, high=35, pointer="/temperature_C")
        ledger.take("T", "temperature of the water", temperature_C, "°C")
        ledger.take("f", "factor at this temperature", natural_water_factor(temperature_C), "", "table:iso-7888")
        ec25 = ledger.step("EC25", f"f * {shown_name}", "µS/cm", "conductivity at 25 °C")
    else:
        require(alpha_per_C, "Temperature coefficient", "1/°C", low=0, high=0.06, pointer="/alpha_per_C")
        ledger.take("T", "temperature of the water", temperature_C, "°C")
        ledger.take("alpha", "change per degree", alpha_per_C, "1/°C", "default:KCl-like solutions")
        ec25 = ledger.step("EC25", f"{shown_name} / (1 + alpha * (T - 25))", "µS/cm", "conductivity at 25 °C")
        if not 5 <= temperature_C <= 35:
            ledger.caution("Outside 5 to 35 °C the straight-line correction is rough. Let the water come to room heat.")
    if pure and compensated:
        ledger.caution("Below 5 µS/cm a compensating meter corrects wrongly: read it as “under 5”.")
    half = _meter_half_width(ledger, "EC25", accuracy_pct_fs, range_uS_cm, correction)
    if half > 0.25 * ec25:
        ledger.caution("The meter's error is more than a quarter of this reading: use a finer range if you have one.")
    return ledger.close(Ec25(ec25, half, pure))
