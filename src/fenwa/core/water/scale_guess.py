"""Which scale is my pen? A known standard, or the same water on two meters, names it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.registry import calculation
from fenwa.core.water.compensation import kcl_ratio
from fenwa.core.water.tds import SCALES
from fenwa.core.working import Computed, Ledger

PEN_SPREAD = 0.02  # one standard deviation of an unchecked pen's gain; judgement
Reference = Literal["standard", "another meter"]
LEAST_SHOWN = 0.001  # the last digit of the finest display, mS/cm
HALF_WIDTH_PCT: dict[Reference, float] = {"standard": 1.0, "another meter": 3.0}
SURE, LIKELY = 0.95, 0.75
NONE_BEYOND = 3.5  # standard deviations from every scale: the pen is off, or the standard is not what it says
MICROSIEMENS = "µS/cm"


@dataclass(frozen=True)
class ScaleOdds:
    """A scale, what the pen should have shown on it, and how likely it is. [share]"""

    scale: str
    would_show: float
    share: float


@dataclass(frozen=True)
class ScaleGuess:
    """``scale`` is None when no scale stands out; ``confidence``: sure, likely, cannot tell, none fits."""

    scale: str | None
    confidence: str
    factor: float
    odds: tuple[ScaleOdds, ...]
    sentence: str


@calculation("meter-scale-guess", title="Which scale is my pen?", station="water")
def meter_scale_guess(
    *,
    shown: float,
    true_uS_cm: float,
    reference: Reference = "standard",
    resolution: float = 1.0,
    temperature_C: float | None = None,
    compensated: bool = True,
) -> Computed[ScaleGuess]:
    """Scale of a ppm pen, from what it shows in a water of known conductivity.

    Parameters
    ----------
    shown : float
        What the pen shows, above 0 to 200 000. [ppm or µS/cm]
    true_uS_cm : float
        The standard's value, or the other meter's reading, at 25 °C. [µS/cm]
    reference : str
        standard: a fresh one, known to 1 %; another meter: to 3 %.
    resolution : float
        Step of the pen's display. [as shown]
    temperature_C : float
        Of the water; needed only when the pen does not compensate, 0 to 30. [°C]
    compensated : bool
        True when the pen corrects to 25 °C itself.

    Returns
    -------
    Computed
        The scale with the odds of each, or none when two lie too close or none fits.

    Raises
    ------
    OutOfRange
        If a number cannot be.
    Underspecified
        If the pen does not compensate and no temperature is given.

    Notes
    -----
    Equal odds before; a normal error of the gain: 2 % for the pen, the reference's own, half a step of the display.

    References
    ----------
    usda-hb60; judgement
    """
    require(shown, "Shown value", "", low=LEAST_SHOWN, high=200_000, pointer="/shown")
    require(true_uS_cm, "Known conductivity", "µS/cm", low=1, high=200_000, pointer="/true_uS_cm")
    require(resolution, "Display step", "", low=0, open_low=True, high=1000, pointer="/resolution")
    ledger = Ledger(
        "Which scale is my pen?",
        "A pen more than about 7 % off looks like another scale: read a second standard when unsure.",
        ("usda-hb60", "judgement"),
    )
    ledger.take("shown", "what the pen shows", shown, "", "measured")
    true = ledger.take("EC", "known conductivity at 25 °C", true_uS_cm, "µS/cm")
    ref = "EC"
    if not compensated:
        if temperature_C is None:
            raise Underspecified(
                "Water temperature is missing, and this pen does not compensate. Enter it, or "
                "read near 25 °C and enter 25.",
                pointer="/temperature",
            )
        ledger.take("rT", "a standard at this temperature over 25 °C", kcl_ratio(temperature_C), "", "table:pratt-2001")
        true, ref = ledger.step("EC_T", "EC * rT", "µS/cm", "known conductivity at its temperature"), "EC_T"
    factor = ledger.step("k", f"shown / {ref}", "per µS/cm", "factor the pen uses")
    ledger.take("ur", "half-width of the reference", HALF_WIDTH_PCT[reference], "%", f"default:{reference}")
    ledger.take("res", "step of the display", resolution, "", "meter")
    sd = ledger.step("s", f"sqrt({PEN_SPREAD} ** 2 + (ur / 200) ** 2 + (res / shown / 3.46) ** 2)", "", "spread of k")
    candidates = {MICROSIEMENS: 1.0, **SCALES}
    distance = {name: abs(math.log(factor / k)) / sd for name, k in candidates.items()}
    weight = {name: math.exp(-0.5 * d * d) for name, d in distance.items()}
    total = sum(weight.values())
    odds = tuple(
        sorted(
            (ScaleOdds(name, true * k, weight[name] / total if total > 0 else 0.0) for name, k in candidates.items()),
            key=lambda o: -o.share,
        )
    )
    best = min(distance, key=lambda name: distance[name])
    share = next(o.share for o in odds if o.scale == best)
    if distance[best] > NONE_BEYOND:
        guess = ScaleGuess(
            None, "none fits", factor, odds, f"No scale fits a factor of {factor:.2f}. Check the pen or the standard."
        )
    elif share < LIKELY:
        near = " or ".join(o.scale for o in odds[:2])
        guess = ScaleGuess(
            None,
            "cannot tell",
            factor,
            odds,
            f"It could be {near}. Read a fresh standard, at 25 °C, to tell them apart.",
        )
    else:
        word = "sure" if share >= SURE else "likely"
        name = "It shows µS/cm, not ppm" if best == MICROSIEMENS else f"The {best} scale"
        guess = ScaleGuess(best, word, factor, odds, f"{name}: {word}, {100 * share:.0f} of 100.")
    ledger.found("odds", "odds of the best scale", share, "", "normal error, equal odds before")
    return ledger.close(guess)
