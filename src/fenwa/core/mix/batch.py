"""Does the can read what it should? Judged before a plant gets it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

BatchVerdict = Literal["fine", "check", "about ten times", "about a tenth", "water alone", "water over"]

TIMES_TEN = (6.0, 14.0)  # EC rises less than the dose: ten times the salt adds eight to ten times the EC
CHECK_SHARE, CHECK_uS_cm = 0.15, 60.0  # stop-and-look limits before pouring, judgement


@dataclass(frozen=True)
class BatchCheck:
    """How a measured can compares with its prediction."""

    verdict: BatchVerdict
    sentence: str
    difference_uS_cm: float
    tolerance_uS_cm: float
    rescue_water_L: float | None
    final_volume_L: float | None


@calculation("batch-check", title="Does the can read true?", station="mix")
def batch_check(
    *,
    predicted_uS_cm: float,
    predicted_low_uS_cm: float,
    predicted_high_uS_cm: float,
    measured_uS_cm: float,
    water_uS_cm: float,
    volume_L: float,
    meter_half_width_uS_cm: float = 10.0,
    ceiling_uS_cm: float | None = None,
    ceiling_of: str = "",
) -> Computed[BatchCheck]:
    """Judge a mixed can by its reading, and find the water that would rescue it.

    Parameters
    ----------
    predicted_uS_cm : float
        EC the can should have. [µS/cm]
    predicted_low_uS_cm : float
        Lower end of what to expect. [µS/cm]
    predicted_high_uS_cm : float
        Upper end of what to expect. [µS/cm]
    measured_uS_cm : float
        Reading at 25 °C, above 0 to 200 000. [µS/cm]
    water_uS_cm : float
        EC of the base water, also used for the rescue. [µS/cm]
    volume_L : float
        Volume mixed. [L]
    meter_half_width_uS_cm : float
        What the meter leaves open. [µS/cm]
    ceiling_uS_cm : float
        The strictest feed ceiling among the pots it is for, if chosen. [µS/cm]
    ceiling_of : str
        Whose ceiling it is.

    Returns
    -------
    Computed
        fine, check, about ten times, about a tenth, water alone or water over; water to add. [L]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Tolerance: 15 % or 60 µS/cm, whichever is less, but never less than the
    prediction's own half-range and the meter together.

    References
    ----------
    E3.4 (mass balance of dilution); stop-and-look rule, judgement
    """
    require(predicted_uS_cm, "Predicted EC", "µS/cm", low=0, high=200_000, pointer="/predicted_uS_cm")
    require(predicted_low_uS_cm, "Least expected", "µS/cm", low=0, high=200_000, pointer="/predicted_low_uS_cm")
    require(predicted_high_uS_cm, "Most expected", "µS/cm", low=0, high=200_000, pointer="/predicted_high_uS_cm")
    require(measured_uS_cm, "Measured EC", "µS/cm", low=0, open_low=True, high=200_000, pointer="/measured_uS_cm")
    require(water_uS_cm, "EC of the water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    ledger = Ledger("Does the can read true?", "Any feed mixed in one water.", ("mass-balance", "judgement"))
    ledger.take("P", "predicted", predicted_uS_cm, "µS/cm", "computed:dose")
    ledger.take("P_low", "lower end to expect", predicted_low_uS_cm, "µS/cm", "computed:dose")
    ledger.take("P_high", "upper end to expect", predicted_high_uS_cm, "µS/cm", "computed:dose")
    ledger.take("M", "measured", measured_uS_cm, "µS/cm", "measured")
    ledger.take("W", "the water alone", water_uS_cm, "µS/cm", "measured")
    ledger.take("V", "volume mixed", volume_L, "L")
    ledger.take("U", "half-width of the meter", meter_half_width_uS_cm, "µS/cm")
    tolerance = ledger.step(
        "T", f"max(min({CHECK_SHARE} * P, {CHECK_uS_cm}), (P_high - P_low) / 2 + U)", "µS/cm", "tolerance"
    )
    difference = ledger.step("D", "M - P", "µS/cm", "difference")
    rescue = final = None
    verdict, sentence = _judge(
        ledger, predicted_uS_cm, measured_uS_cm, water_uS_cm, difference, tolerance, meter_half_width_uS_cm
    )
    if ceiling_uS_cm is not None:
        require(ceiling_uS_cm, "Ceiling", "µS/cm", low=0, high=20_000, pointer="/ceiling_uS_cm")
        ledger.take(
            "C_max", f"feed ceiling of {ceiling_of or 'the strictest pot'}", ceiling_uS_cm, "µS/cm", "table:profile"
        )
        if water_uS_cm > ceiling_uS_cm:
            verdict = "water over"
            sentence = (
                f"The water alone, {water_uS_cm:.0f} µS/cm, is already over the {ceiling_uS_cm:.0f} µS/cm of "
                f"{ceiling_of or 'the strictest pot'}: no feed in it fits. Use a purer water."
            )
        elif measured_uS_cm > ceiling_uS_cm and verdict == "fine":
            verdict = "check"
            sentence = (
                f"As predicted, and over the {ceiling_uS_cm:.0f} µS/cm of {ceiling_of or 'the strictest pot'}. "
                "Add water, or pour it on others."
            )
    if (
        difference > tolerance
        and verdict != "water over"
        and predicted_uS_cm > water_uS_cm
        and measured_uS_cm > water_uS_cm
    ):
        rescue = ledger.step("V_add", "V * (M - P) / (P - W)", "L", "water that brings it to the prediction")
        final = ledger.step("V_end", "V + V_add", "L", "the can then holds")
        sentence += f" About {rescue:.2g} L more of the same water would bring it to {predicted_uS_cm:.0f} µS/cm."
    return ledger.close(BatchCheck(verdict, sentence, difference, tolerance, rescue, final))


def _judge(
    ledger: Ledger, predicted: float, measured: float, water: float, difference: float, tolerance: float, meter: float
) -> tuple[BatchVerdict, str]:
    if abs(difference) <= tolerance:
        return "fine", "Reads as it should. Pour."
    added = predicted - water
    if added > meter:  # salt a meter can tell from the water, however wide the prediction
        ratio = ledger.step("X", "(M - W) / (P - W)", "", "salt added, measured over predicted")
        if TIMES_TEN[0] <= ratio <= TIMES_TEN[1]:
            return "about ten times", "About ten times what it should be: a slipped decimal? Do not pour."
        if measured > water and 1 / TIMES_TEN[1] <= ratio <= 1 / TIMES_TEN[0]:
            return "about a tenth", "About a tenth of what it should be: a slipped decimal?"
        if abs(measured - water) <= tolerance:
            return "water alone", "Reads like the water alone: was the feed added and stirred?"
    word = "stronger" if difference > 0 else "weaker"
    return "check", f"{abs(difference):.0f} µS/cm {word} than expected. Check scale, product and meter before pouring."
