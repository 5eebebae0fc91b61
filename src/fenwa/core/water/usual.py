"""What a water nobody measured usually reads: by its kind, by its hardness, by its report, by a scale not known."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import brief, require
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import WaterIons, check_ions
from fenwa.core.water.kinds import SHAPES, WaterKind
from fenwa.core.water.tds import possible_conductivities
from fenwa.core.working import Computed, Ledger

HARDNESS_WIDTH = 0.4  # waters of one hardness differ so much in conductivity, either way; judgement
BY_UNKNOWN_SCALE = "a pen of unknown scale"
REPORT_WIDTH = 0.15  # a report is of a year or of a zone, not of this tap today; judgement


@dataclass(frozen=True)
class UsualWater:
    """What an unmeasured water may be taken to read, by what that is known, and how sure it is. [µS/cm]"""

    low_uS_cm: float
    usual_uS_cm: float
    high_uS_cm: float
    by: str
    confidence: str
    sentence: str


@calculation("usual-water", title="What an unmeasured water usually reads", station="water")
def usual_water(
    *,
    kind: WaterKind,
    hardness_mg_L_CaCO3: float | None = None,
    report: WaterIons | None = None,
    ppm_of_unknown_scale: float | None = None,
) -> Computed[UsualWater]:
    """Range to reckon with for a water whose conductivity nobody read.

    Parameters
    ----------
    kind : WaterKind
        Kind of the source.
    hardness_mg_L_CaCO3 : float
        Its hardness, by a strip or the supplier, 0 to 2000; empty: not known. [mg/L CaCO3]
    report : WaterIons
        Ions of its report; empty: none. [mg/L]
    ppm_of_unknown_scale : float
        What a pen showed whose scale is not known, above 0 to 100000; empty: none. [ppm]

    Returns
    -------
    Computed
        Low, usual and high conductivity, by what they are known, and how sure. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    The newest and nearest knowledge rules: a pen's display, then a report, then a hardness, then the kind.
    Not measured is neither zero nor unfit nor safe: the range says what is not known.

    References
    ----------
    judgement; usda-hb60; standard waters of section 8
    """
    # what is not used of it is checked all the same: a wrong entry is no entry
    if report is not None:
        check_ions(report, "/report")
    if hardness_mg_L_CaCO3 is not None:
        require(hardness_mg_L_CaCO3, "Hardness", "mg/L", low=0, high=2000, pointer="/hardness_mg_L_CaCO3")
    if ppm_of_unknown_scale is not None:
        require(
            ppm_of_unknown_scale, "Reading", "ppm", low=0, open_low=True, high=100_000, pointer="/ppm_of_unknown_scale"
        )
    ledger = Ledger(
        "What an unmeasured water usually reads",
        "A range to go on with until somebody reads it.",
        ("judgement", "usda-hb60"),
    )
    label = water_kinds()[kind].label
    if ppm_of_unknown_scale is not None:
        shown = ledger.take("shown", "what the pen shows", ppm_of_unknown_scale, "ppm", "measured")
        possible = sorted(possible_conductivities(shown).values())
        low = ledger.found("low", "by the scale of most ppm", possible[0], "µS/cm", "scales of meters")
        high = ledger.found("high", "by the scale of fewest ppm", possible[-1], "µS/cm", "scales of meters")
        middle = ledger.step("usual", "(low + high) / 2", "µS/cm", "between them")
        said = f"{brief(shown)} ppm on a scale not known: {low:.0f} to {high:.0f} µS/cm."
        return ledger.close(UsualWater(low, middle, high, BY_UNKNOWN_SCALE, "medium", said))
    if report is not None and any(v for k, v in vars(report).items() if k != "pH"):
        middle = ledger.found("usual", "conductivity of the ions of its report", ec_of(report), "µS/cm", "ion model")
        low = ledger.step("low", f"usual * (1 - {REPORT_WIDTH})", "µS/cm", "lower end")
        high = ledger.step("high", f"usual * (1 + {REPORT_WIDTH})", "µS/cm", "upper end")
        said = f"Not measured; by its report about {middle:.0f} µS/cm."
        return ledger.close(UsualWater(low, middle, high, "its report", "medium", said))
    if hardness_mg_L_CaCO3 is not None and not water_kinds()[kind].thin and kind != "softened":
        shape = SHAPES[kind]
        ledger.take("H", "its hardness", hardness_mg_L_CaCO3, "mg/L CaCO3", "told")
        ledger.take("H_s", "hardness of a usual water of this shape", _hardness(shape), "mg/L CaCO3", "table:waters")
        ledger.found("EC_s", "conductivity of that water", ec_of(shape), "µS/cm", "ion model")
        middle = ledger.step("usual", "EC_s * (0.15 + 0.85 * H / H_s)", "µS/cm", "in proportion, but for what is salt")
        low = ledger.step("low", f"usual * (1 - {HARDNESS_WIDTH})", "µS/cm", "lower end")
        high = ledger.step("high", f"usual * (1 + {HARDNESS_WIDTH})", "µS/cm", "upper end")
        said = f"Not measured; at this hardness usually {low:.0f} to {high:.0f} µS/cm."
        return ledger.close(UsualWater(low, middle, high, "its hardness", "low", said))
    low, middle, high = water_kinds()[kind].usual_uS_cm
    ledger.take("low", f"low for {label}", low, "µS/cm", "table:water_kinds")
    ledger.take("usual", f"usual for {label}", middle, "µS/cm", "table:water_kinds")
    ledger.take("high", f"high for {label}", high, "µS/cm", "table:water_kinds")
    ledger.step("width", "high - low", "µS/cm", "what is not known")
    ledger.caution("Nobody measured it: read it, or ask for its report, to narrow this.")
    said = f"Not measured; {label} usually reads {low:.0f} to {high:.0f} µS/cm."
    return ledger.close(UsualWater(low, middle, high, "its kind", "low", said))


def _hardness(ions: WaterIons) -> float:
    return 2.497 * (ions.Ca_mg_L or 0.0) + 4.118 * (ions.Mg_mg_L or 0.0)
