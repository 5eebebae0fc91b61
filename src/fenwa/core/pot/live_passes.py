"""A pass of a flush, and what of it cannot be."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError

TENFOLD = 10.0
MAX_PASSES = 60


@dataclass(frozen=True)
class FlushPass:
    """One pass: litres poured, litres that drained, and the reading of the last that ran out. [L, µS/cm]

    ``minute``: when it was poured, counted from the start; ``soaked_min``: how long the water had stood before it.
    """

    volume_L: float
    runoff_uS_cm: float | None = None
    drained_L: float | None = None
    minute: float = 0.0
    soaked_min: float = 0.0
    read_twice: bool = False


def check_flush(
    passes: list[FlushPass],
    water: float,
    stop: float,
    slope: float,
    round_L: float,
    pause: float,
    first: float | None,
    refill: float,
) -> None:
    require(water, "EC of the flush water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(stop, "Runoff to stop at", "µS/cm", low=0, open_low=True, high=20_000, pointer="/stop_runoff_uS_cm")
    require(slope, "Slope", "1/L", low=0.001, high=1000, pointer="/slope_per_L")
    require(round_L, "Water of a pass", "L", low=0.01, high=1000, pointer="/round_L")
    require(pause, "Soak", "min", low=0, high=2880, pointer="/pause_min")
    require(refill, "Refill", "L", low=0, high=500, pointer="/refill_L")
    if first is not None:
        require(first, "First runoff expected", "µS/cm", low=0, high=50_000, pointer="/expected_first_uS_cm")
    if stop <= water:
        raise InputError(
            f"The target, a runoff of {stop:.0f} µS/cm, is no higher than the water’s own {water:.0f} µS/cm. "
            "Use a purer water or a higher target.",
            pointer="/stop_runoff_uS_cm",
        )
    if len(passes) > MAX_PASSES:
        raise InputError(f"{len(passes)} passes are too many for one flush. End it, or repot.", pointer="/passes")
    before, last, usual = 0.0, None, first
    for i, p in enumerate(passes):
        at = f"/passes/{i}"
        require(p.volume_L, "Poured", "L", low=0, open_low=True, high=1000, pointer=f"{at}/volume_L")
        require(p.soaked_min, "Soak", "min", low=0, high=100_000, pointer=f"{at}/soaked_min")
        if p.minute < before:
            what = "the one before it" if i else "the flush itself"
            raise InputError(
                f"Pass {i + 1} is dated before {what}. Enter passes in their order.", pointer=f"{at}/minute"
            )
        require(p.minute, "Minute", "min", low=0, high=1_000_000, pointer=f"{at}/minute")
        before = p.minute
        if p.drained_L is not None:
            require(p.drained_L, "Runoff", "L", low=0, high=1000, pointer=f"{at}/drained_L")
            if p.drained_L > p.volume_L:
                raise InputError(
                    f"Runoff {p.drained_L:g} L is more than the {p.volume_L:g} L poured. Check both volumes.",
                    pointer=f"{at}/drained_L",
                )
        if p.runoff_uS_cm is None:
            continue
        require(p.runoff_uS_cm, "Runoff", "µS/cm", low=0, open_low=True, high=50_000, pointer=f"{at}/runoff_uS_cm")
        usual = last if last is not None else usual
        if usual is not None and p.runoff_uS_cm > TENFOLD * usual and not p.read_twice:
            raise InputError(
                f"Runoff {p.runoff_uS_cm:.0f} µS/cm is more than ten times what is expected, {usual:.0f} µS/cm. "
                "Check the unit, rinse the pen and read again; then say that it was read twice.",
                pointer=f"{at}/runoff_uS_cm",
            )
        last = p.runoff_uS_cm
