"""Is the meter true? Checks against standards: slope, offset, drift, the next check, what stays open."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.entry import require, require_not_future, signed
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.water.compensation import factor_to_25, kcl_ratio
from fenwa.core.water.temperature import MeterCorrection
from fenwa.core.working import Computed, Ledger

MeterCompensation = Literal["none", "linear", "natural-water"]
MeterState = Literal["true", "correctable", "not to be trusted"]

STANDARDS_uS_cm = {"84": 84.0, "1413": 1413.0, "12 880": 12_880.0}  # at 25 °C, sm-2510
STANDARD_HALF_WIDTH = 0.01  # a bottle's own tolerance, and two careful readings of it
TOLERANCE = 0.03  # drift allowed before the next check: below the margin of a verdict (5 %)
UNKNOWN_DRIFT_PER_MONTH = 0.01  # judgement, until two checks tell
FIRST_CHECK_DAYS, SHORTEST_DAYS, LONGEST_DAYS = 30, 7, 180
TRUE_WITHIN, WRONG_BEYOND = 0.03, 0.25
FIT_SHARE = 0.25  # E2.6: fit for a limit when the error is at most a quarter of it


@dataclass(frozen=True)
class CheckPoint:
    """One dip into a standard.

    ``standard_uS_cm`` is its printed value at 25 °C; ``adjusted``: the meter was set after it.
    """

    on: date
    standard_uS_cm: float
    shown_uS_cm: float
    temperature_C: float | None = None
    adjusted: bool = False


@dataclass(frozen=True)
class MeterTraits:
    """How a meter corrects for temperature, and the step of its display. [1/°C, µS/cm]"""

    compensation: MeterCompensation = "linear"
    alpha_per_C: float = 0.02
    resolution_uS_cm: float = 1.0
    check_days: float | None = None  # the grower's own days between checks; None: learnt from its drift


@dataclass(frozen=True, kw_only=True)
class MeterCalibration:
    """What the checks say. Drift in % a month; half-widths as a share and in µS/cm; NULL drift: one check only."""

    slope: float
    factor: float  # what a shown value is multiplied by: one over the slope
    offset_uS_cm: float
    points: int
    checked_on: date
    drift_pct_month: float | None
    drift_half_width_pct_month: float | None
    next_check_on: date
    relative_half_width: float
    absolute_half_width_uS_cm: float
    fit_above_uS_cm: float
    state: MeterState
    sentence: str

    def is_due(self, on: date) -> bool:
        """Whether the next check was due by a day."""
        return self.next_check_on <= on

    def correction(self) -> MeterCorrection:
        """What every reading from the check on is corrected with."""
        return MeterCorrection(
            self.slope,
            self.offset_uS_cm,
            self.relative_half_width,
            self.absolute_half_width_uS_cm,
            self.checked_on.isoformat(),
        )


def as_shown_by(unit: str, scale: str | None, own_scale: str | None, traits: MeterTraits) -> tuple[str | None, bool]:
    """Scale and compensation of what a known meter shows: it says whether it compensates, whoever typed the value; its
    own scale stands in where a ppm value came without one.
    """
    found = own_scale if unit == "ppm" and scale in (None, "unknown") and own_scale else scale
    return found, traits.compensation != "none"


def expected_display_uS_cm(standard_uS_cm: float, temperature_C: float | None, traits: MeterTraits) -> float:
    """What a true meter of this kind would show in a standard at this temperature. [µS/cm]"""
    if temperature_C is None:
        if traits.compensation == "none":
            raise Underspecified(
                "Temperature of the standard is missing, and this meter does not compensate. "
                "Enter it, or let the bottle come to 25 °C and enter 25.",
                pointer="/temperature_C",
            )
        return standard_uS_cm
    at_T = standard_uS_cm * kcl_ratio(temperature_C)
    if traits.compensation == "none":
        return at_T
    return at_T * factor_to_25(temperature_C, traits.compensation, traits.alpha_per_C)


def _checked(points: list[CheckPoint], today: date) -> None:
    if not points:
        raise Underspecified("No check yet. Dip the meter into a standard and enter what it shows.", pointer="/points")
    for p in points:
        require_not_future(p.on, today, "Date of the check", pointer="/on")
        require(p.standard_uS_cm, "Standard", "µS/cm", low=1, high=150_000, pointer="/standard_uS_cm")
        require(p.shown_uS_cm, "Shown value", "µS/cm", low=0, open_low=True, high=200_000, pointer="/shown_uS_cm")
        if not 0.2 <= p.shown_uS_cm / p.standard_uS_cm <= 5:
            raise InputError(
                f"Shown value {p.shown_uS_cm:g} µS/cm in a {p.standard_uS_cm:g} µS/cm standard cannot be a check. "
                "See that the unit is right (mS/cm or ppm?) and the bottle the one named.",
                pointer="/shown_uS_cm",
            )


@calculation("meter-calibration", title="Is the meter true?", station="water")
def meter_calibration(
    *, points: list[CheckPoint], today: date, traits: MeterTraits | None = None
) -> Computed[MeterCalibration]:
    """Slope, offset, drift and next check of a meter, from its checks against standards.

    Parameters
    ----------
    points : list
        Dips into standards; those of the newest day give slope and offset. [µS/cm]
    today : date
        The day the answer is for.
    traits : MeterTraits
        Temperature compensation and display step of the meter. [µS/cm]

    Returns
    -------
    Computed
        shown = slope x true + offset, drift a month, the day the drift will have reached 3 %, and
        the half-width every reading carries from then on. [µS/cm]

    Raises
    ------
    Underspecified
        If there is no check, or an uncompensated meter was checked without a temperature.
    InputError
        If a shown value cannot belong to its standard.

    Notes
    -----
    One standard gives a slope and no offset; two or more give both by least squares.
    Checks before the meter was last set are not used.

    References
    ----------
    sm-2510; pratt-2001; E2.6
    """
    traits = traits or MeterTraits()
    require(
        traits.alpha_per_C,
        "Temperature coefficient of the meter",
        "1/°C",
        low=0,
        high=0.06,
        pointer="/traits/alpha_per_C",
    )
    require(
        traits.resolution_uS_cm, "Step of the display", "µS/cm", low=0, high=1000, pointer="/traits/resolution_uS_cm"
    )
    if traits.check_days is not None:
        require(traits.check_days, "Days between checks", "d", low=1, high=730, pointer="/traits/check_days")
    _checked(points, today)
    ordered = sorted(points, key=lambda p: p.on)
    resets = [p.on for p in ordered if p.adjusted]
    since = [p for p in ordered if not resets or p.on > resets[-1]]
    ledger = Ledger(
        "Is the meter true?",
        "Holds between the standards used; far outside them the offset rules.",
        ("sm-2510", "pratt-2001", "judgement"),
    )
    if not since:  # set on its last check: true to the bottle from that day
        last = [
            CheckPoint(
                resets[-1],
                p.standard_uS_cm,
                expected_display_uS_cm(p.standard_uS_cm, p.temperature_C, traits),
                p.temperature_C,
            )
            for p in ordered
            if p.on == resets[-1]
        ]
        since = last
        ledger.assume("The meter was set to the standard on its last check: it starts there without error.")
    newest = [p for p in since if p.on == since[-1].on]
    slope, offset = _line(ledger, newest, traits)
    drift, drift_half = _drift(since, traits)
    ledger.take("tol", "drift allowed before the next check", TOLERANCE, "", "default:below a verdict's margin")
    if drift is None:
        days = float(FIRST_CHECK_DAYS)
        ledger.assume(f"One check tells no drift: the next is due after {FIRST_CHECK_DAYS} days, to learn it.")
        rate = UNKNOWN_DRIFT_PER_MONTH
    else:
        ledger.take("d", "drift a month, as a share", drift, "1/month", "fitted: checks of the meter")
        ledger.take("dU", "half-width of the drift", drift_half, "1/month", "fitted: checks of the meter")
        rate = ledger.step("rate", "abs(d) + 0.5 * dU", "1/month", "drift reckoned with")
        days = ledger.step(
            "days",
            f"max({SHORTEST_DAYS}, min({LONGEST_DAYS}, {DAYS_A_MONTH} * tol / max(rate, 0.0001)))",
            "d",
            "until the drift may have reached it",
        )
    if traits.check_days is not None:
        days = ledger.take("own", "days between checks, your own", traits.check_days, "d", "entered")
    factor = ledger.step("k", "1 / a", "", "factor of a shown value")
    ledger.take(
        "r", "drift a month reckoned with", rate, "1/month", "above" if drift is not None else "default:judgement"
    )
    ledger.take("age", "months since the check", (today - newest[0].on).days / DAYS_A_MONTH, "months")
    ledger.take("std", "half-width of a standard", STANDARD_HALF_WIDTH, "", "default:bottle")
    relative = ledger.step("u_rel", "sqrt(std ** 2 + (r * age) ** 2)", "", "share left open today")
    ledger.take("step", "step of the display", traits.resolution_uS_cm, "µS/cm", "meter")
    absolute = ledger.step("u_abs", "step / 2", "µS/cm", "half a step")
    fit = ledger.step(
        "fit", f"u_abs / sqrt(max(0.0001, {FIT_SHARE} ** 2 - u_rel ** 2))", "µS/cm", "lowest limit it is fit to judge"
    )
    off = max(
        abs(p.shown_uS_cm / expected_display_uS_cm(p.standard_uS_cm, p.temperature_C, traits) - 1) for p in newest
    )
    state: MeterState = "true" if off <= TRUE_WITHIN else "correctable" if off <= WRONG_BEYOND else "not to be trusted"
    due = newest[0].on + timedelta(days=round(days))
    if len(newest) == 1:
        ledger.caution("One standard shows a slope only. A second, near the waters you read, shows the offset.")
    if state == "not to be trusted":
        ledger.caution("More than a quarter off: clean the electrodes, use a fresh standard, then check again.")
    sentence = {
        "true": f"True within {100 * TRUE_WITHIN:.0f} %.",
        "correctable": f"Reads {signed(100 * (slope - 1), 1)} %: readings are corrected, the shown values kept.",
        "not to be trusted": f"Off by {100 * off:.0f} %: clean it and check again before believing it.",
    }[state]
    return ledger.close(
        MeterCalibration(
            slope=slope,
            factor=factor,
            offset_uS_cm=offset,
            points=len(newest),
            checked_on=newest[0].on,
            drift_pct_month=None if drift is None else 100 * drift,
            drift_half_width_pct_month=None if drift is None else 100 * drift_half,
            next_check_on=due,
            relative_half_width=relative,
            absolute_half_width_uS_cm=absolute,
            fit_above_uS_cm=fit,
            state=state,
            sentence=sentence,
        )
    )


def _line(ledger: Ledger, newest: list[CheckPoint], traits: MeterTraits) -> tuple[float, float]:
    """Slope and offset of the newest checks: one dip, two dips, or least squares over more."""
    true = [expected_display_uS_cm(p.standard_uS_cm, p.temperature_C, traits) for p in newest]
    shown = [p.shown_uS_cm for p in newest]
    for i, (t, s) in enumerate(zip(true, shown, strict=True), 1):
        ledger.take(
            f"x{i}", f"standard {newest[i - 1].standard_uS_cm:g} µS/cm as a true meter shows it", t, "µS/cm", "standard"
        )
        ledger.take(f"y{i}", "what this meter shows", s, "µS/cm", "measured")
    if len(set(true)) < 2:
        n = len(newest)
        formula = " + ".join(f"y{i} / x{i}" for i in range(1, n + 1))
        slope = ledger.step("a", f"({formula}) / {n}", "", "slope")
        return slope, ledger.take("b", "offset, not known from one standard", 0.0, "µS/cm", "taken as none")
    if len(newest) == 2:
        slope = ledger.step("a", "(y2 - y1) / (x2 - x1)", "", "slope")
        return slope, ledger.step("b", "y1 - a * x1", "µS/cm", "offset")
    # many standards: each counts by its share, or the strongest bottle would rule alone
    A = np.column_stack([np.asarray(true), np.ones(len(true))]) / np.asarray(true)[:, None]
    fitted = np.linalg.lstsq(A, np.asarray(shown) / np.asarray(true), rcond=None)[0]
    slope = ledger.found("a", "slope", float(fitted[0]), "", "least squares of shares")
    return slope, ledger.found("b", "offset", float(fitted[1]), "µS/cm", "least squares of shares")


def _drift(points: list[CheckPoint], traits: MeterTraits) -> tuple[float | None, float]:
    """Change of gain a month in the standard checked most often, and its half-width; None with one day only."""
    days_of: dict[float, set[date]] = {}
    for p in points:
        days_of.setdefault(p.standard_uS_cm, set()).add(p.on)
    chosen = max(days_of, key=lambda standard: (len(days_of[standard]), standard))
    days = sorted(days_of[chosen])
    if len(days) < 2:
        return None, 0.0
    own = [p for p in points if p.standard_uS_cm == chosen]
    gains = np.array(
        [
            np.mean([p.shown_uS_cm / expected_display_uS_cm(chosen, p.temperature_C, traits) for p in own if p.on == d])
            for d in days
        ]
    )
    t = np.array([(d - days[0]).days / DAYS_A_MONTH for d in days])
    spread = float(np.sqrt(np.sum((t - t.mean()) ** 2)))
    rate = float(np.sum((t - t.mean()) * (gains - gains.mean())) / spread**2)
    return rate, STANDARD_HALF_WIDTH / spread
