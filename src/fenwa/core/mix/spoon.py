"""Personal measures: what a level spoon, a cap or a drop really holds."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.mix.label import BULK_DENSITY_g_mL
from fenwa.core.mix.weighing import to_grid
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MeasureKind = Literal["spoon", "cap", "dropper"]
CV_DENSITY_UNKNOWN, CV_LEVEL = 0.15, 0.10  # of an unweighed powder; of levelling by eye: judgement
MIN_WEIGHINGS, MIN_COUNTS = 3, 1
DROPS_IN_mL, WEIGHING_g = (2.0, 200.0), (0.0001, 2000.0)  # a drop as a label takes it: 0.005 to 0.5 mL
MAX_SPOONS = 12
SCALE_SHARE, SCATTER_SHARE = 0.2, 0.25  # of one level measure: above these a sentence says so


@dataclass(frozen=True, kw_only=True)
class Calibrated:
    """One level measure: mean, scatter of a single one, and the doubt of the mean. [g or mL]"""

    kind: MeasureKind
    each: float
    unit: str
    sd: float
    cv: float
    mean_error_pct: float
    weighings: int
    bulk_density_g_mL: float | None
    sentence: str


@dataclass(frozen=True)
class InMeasures:
    """An amount in whole and half measures of the grower's own."""

    count: float
    amount: float
    error_pct: float
    sentence: str


@calculation("spoon-calibration", title="Your own measure", station="mix")
def spoon_calibration(
    *,
    kind: MeasureKind,
    weighings: list[float],
    levels_each: int = 1,
    scale_step_g: float = 0.1,
    volume_mL: float | None = None,
) -> Computed[Calibrated]:
    """What a level spoon or cap of this product weighs, or what a drop holds.

    Parameters
    ----------
    kind : str
        spoon, cap or dropper.
    weighings : list[float]
        Weighings of level measures, five are good; for a dropper the drops counted in a millilitre. [g or 1]
    levels_each : int
        Level measures in each weighing, 1 to 100. [1]
    scale_step_g : float
        Smallest step of the scale. [g]
    volume_mL : float
        Volume of the measure, if known: gives the bulk density. [mL]

    Returns
    -------
    Computed
        Weight of one level measure or volume of a drop, its scatter, the error of the mean. [g, mL, %]

    Raises
    ------
    Underspecified
        If fewer than three weighings, or no count, are given.
    OutOfRange
        If a weighing cannot be.

    Notes
    -----
    Scatter is at least what the scale's step leaves open.

    References
    ----------
    E1.12; E1.13
    """
    need = MIN_COUNTS if kind == "dropper" else MIN_WEIGHINGS
    if len(weighings) < need:
        raise Underspecified(
            f"{len(weighings)} weighings are too few: weigh five level ones, at least {need}."
            if kind != "dropper"
            else "No count is given. Count the drops in one millilitre.",
            pointer="/weighings",
        )
    require(levels_each, "Level measures in each weighing", "", low=1, high=100, pointer="/levels_each")
    require(scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    if volume_mL is not None:
        require(volume_mL, "Volume of the measure", "mL", low=0.1, high=250, pointer="/volume_mL")
    words, unit = ("Drops in a millilitre", "") if kind == "dropper" else ("Weighing", "g")
    least, most = DROPS_IN_mL if kind == "dropper" else WEIGHING_g
    for i, w in enumerate(weighings):
        require(w, f"{words} {i + 1}", unit, low=least, high=most, pointer=f"/weighings/{i}")
    ledger = Ledger("Your own measure", "For this product and this measure, levelled the same way.", ("judgement",))
    n = len(weighings)
    for i, w in enumerate(weighings, 1):
        ledger.take(f"w{i}", f"{words.lower()} {i}", w, unit, "measured")
    ledger.take("n", "weighings", n, "")
    total = " + ".join(f"w{i}" for i in range(1, n + 1))
    if kind == "dropper":
        ledger.step("c", f"({total}) / n", "", "drops in a millilitre, mean")
        each = ledger.step("m", "1 / c", "mL", "one drop")
        single = ledger.step(
            "e",
            f"sqrt(({' + '.join(f'(1/w{i} - m)**2' for i in range(1, n + 1))}) / max(n - 1, 1))",
            "mL",
            "scatter of a count",
        )
    else:
        ledger.take("q", "level measures in each weighing", levels_each, "")
        ledger.take("r", "step of the scale", scale_step_g, "g")
        each = ledger.step("m", f"({total}) / (n * q)", "g", "one level measure")
        scatter = " + ".join(f"(w{i}/q - m)**2" for i in range(1, n + 1))
        # several levels in a weighing hide the scatter of a single one by the root of their number
        single = ledger.step(
            "e", f"max(sqrt(({scatter}) / (n - 1) * q), r / (sqrt(6) * q))", "g", "scatter of a single one"
        )
    mean_error = ledger.step(
        "E", "100 * e / m / sqrt(n)" if kind == "dropper" else "100 * e / m / sqrt(n * q)", "%", "error of the mean"
    )
    density = None
    if volume_mL is not None and kind != "dropper":
        ledger.take("V", "volume of the measure", volume_mL, "mL")
        density = ledger.step("rho", "m / V", "g/mL", "bulk density")
        require(
            density,
            "Bulk density",
            "g/mL",
            low=BULK_DENSITY_g_mL[0],
            high=BULK_DENSITY_g_mL[1],
            pointer="/volume_mL",
            hint="Check the volume of the measure and how many level ones were weighed.",
        )
    cv = single / each
    if kind != "dropper" and scale_step_g / levels_each > SCALE_SHARE * each:
        ledger.caution(
            f"A step of the scale, {scale_step_g:g} g, is a large part of one {kind}: weigh ten level ones at once."
        )
    elif cv > SCATTER_SHARE:
        ledger.caution("These weighings scatter by more than a quarter: level with a knife and weigh again.")
    said = "mL" if kind == "dropper" else "g"
    sentence = (
        f"A drop holds {each:.3g} mL ({1 / each:.3g} to the millilitre)."
        if kind == "dropper"
        else f"A level {kind} is {each:.3g} ± {single:.2g} g."
    )
    return ledger.close(
        Calibrated(
            kind=kind,
            each=each,
            unit=said,
            sd=single,
            cv=cv,
            mean_error_pct=mean_error,
            weighings=n * (1 if kind == "dropper" else levels_each),
            bulk_density_g_mL=density,
            sentence=sentence,
        )
    )


def unweighed_spoon_error(n: float, cv_density: float = CV_DENSITY_UNKNOWN) -> float:
    """Relative error of ``n`` level spoons of a powder nobody weighed, E1.12."""
    return math.sqrt(cv_density**2 + CV_LEVEL**2 / n)


def in_measures(
    name: str, amount: float, unit: str, each: float, cv: float, mean_error_pct: float
) -> InMeasures | None:
    """An amount in halves of a level measure; None where it is too little or too much for it."""
    count = to_grid(amount / each, 0.5)
    if not 1 <= count <= MAX_SPOONS:
        return None
    made = count * each
    off = (made - amount) / amount * 100
    error = math.hypot(math.hypot(100 * cv / math.sqrt(count), mean_error_pct), off)
    return InMeasures(count, made, error, f"or {count:g} × {name}, level ({made:.3g} {unit}, ±{error:.0f} %)")
