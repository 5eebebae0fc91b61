"""What a change can be judged by, each with its usual scatter between plants alike; E7.5, E7.8."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from fenwa.core.errors import InputError

Measure = Literal["leaf length", "root tips", "new burn", "leaves gained", "height", "rating"]


@dataclass(frozen=True)
class MeasureFacts:
    """A measure: ``log`` compared as ratios; SD of a pair's difference and of true effects, before any data.

    ``better``: +1 more is better. ``by_leaf``: read off leaves by when they formed, else off looks by their day.
    """

    name: str
    unit: str
    log: bool
    pair_SD: float
    effect_SD: float
    better: int
    more: str
    less: str
    by_leaf: bool = False

    @property
    def largest(self) -> float:
        """What no value and no difference of it exceeds: of logarithms a factor of twenty thousand."""
        return LARGEST_LOG if self.log else LARGEST


MEASURES: Final[dict[Measure, MeasureFacts]] = {
    "leaf length": MeasureFacts("length of finished leaves", "%", True, 0.15, 0.20, 1, "longer", "shorter", True),
    "root tips": MeasureFacts(
        "live root tips", "points", False, 0.20, 0.20, 1, "more root tips alive", "fewer root tips alive"
    ),
    "new burn": MeasureFacts("marked leaves", "points", False, 0.35, 0.30, -1, "more marked", "fewer marked", True),
    "leaves gained": MeasureFacts("leaves in 100 days", "%", True, 0.40, 0.35, 1, "more", "fewer"),
    "height": MeasureFacts("height", "%", True, 0.15, 0.20, 1, "taller", "shorter"),
    "rating": MeasureFacts("rating by number, blind", "of 10", False, 1.5, 1.5, 1, "better", "worse"),
}
SHARES: Final = "points"  # of percent
LARGEST: Final = 1000.0
LARGEST_LOG: Final = 10.0


def facts_of(measure: str) -> MeasureFacts:
    """A measure by its name.

    Raises
    ------
    InputError
        If there is none of that name.
    """
    found = MEASURES.get(measure)  # type: ignore[call-overload]
    if found is None:
        raise InputError(f"Measure “{measure}” is not known. Choose one of {', '.join(MEASURES)}.", pointer="/measure")
    return found  # type: ignore[no-any-return]


def shown_change(measure: MeasureFacts, value: float) -> float:
    """A difference as it is told: percent of ratios, else in the measure's own unit; shares as points of percent."""
    if measure.log:
        return 100 * math.expm1(value)
    return 100 * value if measure.unit == SHARES else value
