"""A product's own slope, learnt from batches that were measured."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwa.core.entry import brief, require
from fenwa.core.errors import Infeasible, InputError, Underspecified
from fenwa.core.mix.feed import OWN_SLOPE, ProductSlope
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MIN_CANS = 3
TELLING = ("fine", "check")  # verdicts of cans that teach: a slipped decimal or an unstirred can tells nothing
NEWEST_CANS = 40  # a slope follows the present pack, scale and habits


@dataclass(frozen=True)
class LoggedBatch:
    """A measured can of one product: dose, what the ion model says it adds, and what it added. [g/L, µS/cm]"""

    dose_g_L: float
    model_rise_uS_cm: float
    measured_rise_uS_cm: float


@dataclass(frozen=True, kw_only=True)
class MeasuredCan:
    """A can that was measured, as it is stored. ``alone``: no other product in it. [g/L, µS/cm]"""

    dose_g_L: float
    model_added_uS_cm: float | None
    predicted_uS_cm: float
    water_uS_cm: float
    measured_uS_cm: float
    alone: bool


def teaching(cans: Sequence[MeasuredCan]) -> list[LoggedBatch]:
    """Cans that can teach a slope: of this product alone, and such that both model and meter saw it add salt.

    What the model adds was not kept for the oldest cans; their prediction less their water stands in.
    """
    out = []
    for c in cans:
        model = c.predicted_uS_cm - c.water_uS_cm if c.model_added_uS_cm is None else c.model_added_uS_cm
        rise = c.measured_uS_cm - c.water_uS_cm
        if c.alone and model > 0 and rise > 0:
            out.append(LoggedBatch(c.dose_g_L, model, rise))
    return out


def slope_from_cans(cans: Sequence[MeasuredCan]) -> Computed[ProductSlope] | None:
    """The slope the cans teach; None before the third, and where they contradict the label: it stands then."""
    logged = teaching(cans)
    if len(logged) < MIN_CANS:
        return None
    try:
        return product_slope(batches=logged)
    except Infeasible:
        return None


@calculation("product-slope", title="Your own slope of a product", station="mix")
def product_slope(*, batches: list[LoggedBatch]) -> Computed[ProductSlope]:
    """Regression through the origin of what batches added on what the ion model expected.

    Parameters
    ----------
    batches : list[LoggedBatch]
        Three measured cans or more of this product alone. [g/L, µS/cm]

    Returns
    -------
    Computed
        Slope at the doses in use, the factor on the ion model and its 90 % interval. [µS/cm per g/L]

    Raises
    ------
    Underspecified
        If fewer than three batches were measured.
    InputError
        If a batch adds nothing.
    Infeasible
        If the cans are five times off the label's ions, either way.

    Notes
    -----
    The model keeps only the bend of the curve; the height is the grower's own. With one dose
    alone the factor is their mean.

    References
    ----------
    E1.6; linear-regression
    """
    if len(batches) < MIN_CANS:
        raise Underspecified(
            f"A slope of your own needs {MIN_CANS} measured batches; {len(batches)} logged. "
            "Read the next cans with the pen.",
            pointer="/batches",
        )
    for i, b in enumerate(batches):
        require(b.dose_g_L, "Dose", "g/L", low=0, open_low=True, high=20, pointer=f"/batches/{i}/dose_g_L")
        if not b.model_rise_uS_cm > 0 or not b.measured_rise_uS_cm > 0:
            raise InputError(
                f"Batch {i + 1} adds no conductivity: it cannot tell a slope. Leave it out.", pointer=f"/batches/{i}"
            )
        for value, words, key in (
            (b.model_rise_uS_cm, "Rise by the model", "model_rise_uS_cm"),
            (b.measured_rise_uS_cm, "Rise measured", "measured_rise_uS_cm"),
        ):
            require(value, f"{words} of batch {i + 1}", "µS/cm", low=0, high=50_000, pointer=f"/batches/{i}/{key}")
    from scipy.special import stdtrit

    ledger = Ledger(
        "Your own slope of a product", "At doses like those logged, in any of your waters.", ("linear-regression",)
    )
    for i, b in enumerate(batches, 1):
        ledger.take(f"d{i}", f"dose of batch {i}", b.dose_g_L, "g/L", "log")
        ledger.take(f"m{i}", f"model for batch {i}", b.model_rise_uS_cm, "µS/cm", "computed:ion-conductivity")
        ledger.take(f"r{i}", f"measured over the water, batch {i}", b.measured_rise_uS_cm, "µS/cm", "measured")
    n = range(1, len(batches) + 1)
    slope = ledger.step(
        "s",
        f"({' + '.join(f'd{i}*r{i}' for i in n)}) / ({' + '.join(f'd{i}**2' for i in n)})",
        "µS/cm per g/L",
        "slope through the origin",
    )
    ledger.step("M", " + ".join(f"m{i}**2" for i in n), "", "sum of squares of the model")
    k = ledger.step("k", f"({' + '.join(f'm{i}*r{i}' for i in n)}) / M", "", "own slope over the model's")
    if not OWN_SLOPE[0] <= k <= OWN_SLOPE[1]:
        raise Infeasible(
            f"These cans read {brief(k)} times what the label’s ions give: that is the scale, the meter or another "
            "product, no slope. Check them, or correct the label.",
            pointer="/batches",
        )
    ledger.take("n", "batches", len(batches), "")
    spread = ledger.step(
        "e", f"sqrt(({' + '.join(f'(r{i} - k*m{i})**2' for i in n)}) / (n - 1))", "µS/cm", "scatter of the batches"
    )
    ledger.take("t", "Student's t, 90 %", float(stdtrit(len(batches) - 1, 0.95)), "", "table:linear-regression")
    # a new can scatters like the logged ones, beside the doubt about the slope itself
    half = ledger.step("h", "t * e * sqrt(1 / M + n / M)", "", "half-width for the next can")
    if spread > 0.15 * max(b.measured_rise_uS_cm for b in batches):
        ledger.caution(
            "The batches scatter by more than 15 %: check scale, product and meter before trusting the slope."
        )
    return ledger.close(ProductSlope(k, k - half, k + half, slope, len(batches)))
