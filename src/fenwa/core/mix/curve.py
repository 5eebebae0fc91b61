"""A product's slope from its label's two printed points, or of two products from cans that hold both."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class DosePoint:
    """A dose and what it adds to the water's reading. [g/L, µS/cm]"""

    dose_g_L: float
    rise_uS_cm: float


@dataclass(frozen=True)
class DoseCurve:
    """Rise of a dose through two points: ``s0`` d less ``kappa`` d to the power 1.5. [µS/cm per g/L]"""

    s0: float
    kappa: float
    dose_g_L: float
    rise_uS_cm: float
    slope_there: float


@dataclass(frozen=True)
class PairBatch:
    """A can that held two products, and what it added. [g/L, µS/cm]"""

    first_g_L: float
    second_g_L: float
    rise_uS_cm: float


@dataclass(frozen=True)
class PairSlopes:
    """Slopes of two products, and the scatter of the cans about them. [µS/cm per g/L, µS/cm]"""

    first: float
    second: float
    scatter_uS_cm: float | None


@calculation("dose-curve", title="A slope from two points", station="mix")
def dose_curve(*, low: DosePoint, high: DosePoint, dose_g_L: float) -> Computed[DoseCurve]:
    """What a dose adds, from two printed or measured points of a product.

    Parameters
    ----------
    low : DosePoint
        The weaker point, above 0 to 20. [g/L]
    high : DosePoint
        The stronger one. [g/L]
    dose_g_L : float
        Dose asked for, 0 to twice the stronger one. [g/L]

    Returns
    -------
    Computed
        Both coefficients, the rise at the dose and the slope there. [µS/cm per g/L]

    Raises
    ------
    OutOfRange
        If a number cannot be.
    InputError
        If the points are the same, or stand the wrong way round.
    Infeasible
        If the points bend upwards or down below nothing.

    Notes
    -----
    Never for stock solutions: measure those after dilution.

    References
    ----------
    E1.7
    """
    for point, name in ((low, "low"), (high, "high")):
        words = "weaker" if name == "low" else "stronger"
        require(
            point.dose_g_L,
            f"Dose of the {words} point",
            "g/L",
            low=0,
            open_low=True,
            high=20,
            pointer=f"/{name}/dose_g_L",
        )
        require(
            point.rise_uS_cm,
            f"Rise at the {words} point",
            "µS/cm",
            low=0,
            open_low=True,
            high=50_000,
            pointer=f"/{name}/rise_uS_cm",
        )
    if high.dose_g_L < 1.05 * low.dose_g_L:
        raise InputError(
            "The stronger point must have at least 5 % more dose than the weaker. Swap them, or take points "
            "further apart.",
            pointer="/high/dose_g_L",
        )
    require(dose_g_L, "Dose", "g/L", low=0, high=2 * high.dose_g_L, pointer="/dose_g_L")
    ledger = Ledger("A slope from two points", "Between the points and a little beyond; never for stocks.", ("label",))
    for tag, point in (("1", low), ("2", high)):
        ledger.take(f"d{tag}", f"dose of point {tag}", point.dose_g_L, "g/L", "label")
        ledger.take(f"r{tag}", f"rise at point {tag}", point.rise_uS_cm, "µS/cm", "label")
    ledger.take("d", "dose", dose_g_L, "g/L")
    kappa = ledger.step("kappa", "(r1 / d1 - r2 / d2) / (sqrt(d2) - sqrt(d1))", "", "bend")
    s0 = ledger.step("s0", "r1 / d1 + kappa * sqrt(d1)", "µS/cm per g/L", "slope of the thinnest feed")
    rise = ledger.step("r", "s0 * d - kappa * d ** 1.5", "µS/cm", "what the dose adds")
    slope = ledger.step("s", "s0 - 1.5 * kappa * sqrt(d)", "µS/cm per g/L", "slope there")
    if kappa < -0.05 * s0 or rise < 0 or slope < 0 or s0 <= 0:
        raise Infeasible(
            "These two points bend the wrong way: a reading rises a little less than in proportion. Check both, "
            "and that they were read over the same water.",
            pointer="/high/rise_uS_cm",
        )
    return ledger.close(DoseCurve(s0, kappa, dose_g_L, rise, slope))


@calculation("slopes-of-two", title="Slopes of two products", station="mix")
def slopes_of_two(*, batches: list[PairBatch]) -> Computed[PairSlopes]:
    """Slopes of two products that are always used together, from cans with different proportions.

    Parameters
    ----------
    batches : list[PairBatch]
        Two to sixty measured cans. [g/L, µS/cm]

    Returns
    -------
    Computed
        Both slopes; the scatter where three cans or more were measured. [µS/cm per g/L]

    Raises
    ------
    Underspecified
        If fewer than two cans are given.
    OutOfRange
        If a number cannot be.
    Infeasible
        If the proportions are too alike, or a slope comes out below nothing.

    References
    ----------
    E1.6; linear-regression through the origin
    """
    if len(batches) < 2:
        raise Underspecified("Two cans with different proportions are needed. Measure another.", pointer="/batches")
    if len(batches) > 60:
        raise InputError(f"{len(batches)} cans are more than 60. Take the newest.", pointer="/batches")
    for i, b in enumerate(batches):
        for value, words, key in (
            (b.first_g_L, "First product", "first_g_L"),
            (b.second_g_L, "Second product", "second_g_L"),
        ):
            require(value, f"{words} of can {i + 1}", "g/L", low=0, high=20, pointer=f"/batches/{i}/{key}")
        require(
            b.rise_uS_cm,
            f"Rise of can {i + 1}",
            "µS/cm",
            low=0,
            open_low=True,
            high=50_000,
            pointer=f"/batches/{i}/rise_uS_cm",
        )
    ledger = Ledger("Slopes of two products", "At doses like those measured.", ("linear-regression",))
    n = range(1, len(batches) + 1)
    for i, b in enumerate(batches, 1):
        ledger.take(f"a{i}", f"first product of can {i}", b.first_g_L, "g/L", "log")
        ledger.take(f"b{i}", f"second product of can {i}", b.second_g_L, "g/L", "log")
        ledger.take(f"r{i}", f"rise of can {i}", b.rise_uS_cm, "µS/cm", "measured")
    for name, left, right in (("aa", "a", "a"), ("bb", "b", "b"), ("ab", "a", "b"), ("ar", "a", "r"), ("br", "b", "r")):
        ledger.step(name, " + ".join(f"{left}{i}*{right}{i}" for i in n), "", f"sum of {left} times {right}")
    det = ledger.step("D", "aa * bb - ab ** 2", "", "how far the proportions differ")
    whole = sum(b.first_g_L**2 for b in batches) * sum(b.second_g_L**2 for b in batches)
    if det <= 0.002 * whole:
        raise Infeasible(
            "These cans hold both products in nearly the same proportion: they cannot be told apart. Measure one "
            "with more of the other.",
            pointer="/batches",
        )
    first = ledger.step("s1", "(bb * ar - ab * br) / D", "µS/cm per g/L", "slope of the first")
    second = ledger.step("s2", "(aa * br - ab * ar) / D", "µS/cm per g/L", "slope of the second")
    if first < 0 or second < 0:
        raise Infeasible(
            "One slope comes out below nothing: the cans contradict each other. Check doses and readings.",
            pointer="/batches",
        )
    scatter = None
    if len(batches) > 2:
        squares = " + ".join(f"(r{i} - s1*a{i} - s2*b{i})**2" for i in n)
        ledger.take("n", "cans", len(batches), "")
        scatter = ledger.step("e", f"sqrt(({squares}) / (n - 2))", "µS/cm", "scatter of the cans")
    return ledger.close(PairSlopes(first, second, scatter))
