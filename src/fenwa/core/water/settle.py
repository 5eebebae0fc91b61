"""Has the pen settled? The criterion a reading waits for."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

WINDOW_s = 2.0
LEAST_SAMPLES = 6
SPREAD_SHARE, SPREAD_uS_cm = 0.01, 1.0
CREEP_SHARE, CREEP_uS_cm = 0.005, 0.5
CRITERION = (
    "Settled when, over the last 2 seconds, all samples lie within 1 % (or 1 µS/cm) and the two halves of them "
    "differ by less than 0.5 % (or 0.5 µS/cm)."
)


@dataclass(frozen=True)
class PenSample:
    """One sample of a pen: seconds since it was asked, conductivity as the pen sends it. [s, µS/cm]"""

    t_s: float
    ec_uS_cm: float


@dataclass(frozen=True)
class Settled:
    """Whether the pen has settled, and the value to take. Value is None until then. [µS/cm]"""

    settled: bool
    value_uS_cm: float | None
    spread_uS_cm: float
    samples: int
    criterion: str


@calculation("pen-settled", title="Has the pen settled?", station="water")
def pen_settled(*, samples: list[PenSample]) -> Computed[Settled]:
    """Stable value of a pen's trace, or that it has not settled yet.

    Parameters
    ----------
    samples : list
        Samples in order of time. [s, µS/cm]

    Returns
    -------
    Computed
        The mean of the last 2 seconds once they agree. [µS/cm]

    Raises
    ------
    OutOfRange
        If a sample is negative or absurd.

    References
    ----------
    judgement
    """
    ledger = Ledger("Has the pen settled?", CRITERION, ("judgement",))
    for s in samples:
        require(s.t_s, "Time of a sample", "s", low=0, high=86_400, pointer="/samples")
        require(s.ec_uS_cm, "Sample", "µS/cm", low=0, high=200_000, pointer="/samples")
    last = [s for s in samples if s.t_s > samples[-1].t_s - WINDOW_s] if samples else []
    values = [s.ec_uS_cm for s in last]
    if len(values) < LEAST_SAMPLES or samples[-1].t_s - samples[0].t_s < WINDOW_s:
        ledger.take("n", "samples in the last 2 seconds", len(values), "", "pen")
        ledger.step("wanted", f"{LEAST_SAMPLES} - n", "", "samples still wanted")
        return ledger.close(
            Settled(False, None, max(values, default=0.0) - min(values, default=0.0), len(values), CRITERION)
        )
    half = len(values) // 2
    ledger.take("top", "highest of the last 2 seconds", max(values), "µS/cm", "pen")
    ledger.take("low", "lowest of them", min(values), "µS/cm", "pen")
    ledger.take("first", "mean of the earlier half", sum(values[:half]) / half, "µS/cm", "pen")
    ledger.take("second", "mean of the later half", sum(values[half:]) / (len(values) - half), "µS/cm", "pen")
    mean = ledger.take("mean", "mean of all of them", sum(values) / len(values), "µS/cm", "pen")
    spread = ledger.step("spread", "top - low", "µS/cm", "spread")
    allowed = ledger.step("allowed", f"max({SPREAD_SHARE} * mean, {SPREAD_uS_cm})", "µS/cm", "spread allowed")
    creep = ledger.step("creep", "abs(second - first)", "µS/cm", "creep")
    slack = ledger.step("slack", f"max({CREEP_SHARE} * mean, {CREEP_uS_cm})", "µS/cm", "creep allowed")
    done = spread <= allowed and creep <= slack
    return ledger.close(Settled(done, mean if done else None, spread, len(values), CRITERION))
