"""Leaching efficiency and uptake from a few equal waterings, for a pot without a log."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.pot.balance import dry_concentration, leach
from fenwa.core.pot.calibration import LEARNT_LITTLE
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class CalibratedCycle:
    """Leaching efficiency and uptake with what is left of their spreads (SD of ln, SD of logit)."""

    eta: float
    u: float
    eta_sd_ln: float
    u_sd_logit: float
    sentence: str


@calculation("calibrate-cycle", title="Efficiency and uptake from equal waterings", station="flush")
def calibrate_cycle(
    *,
    feed_uS_cm: float,
    start_uS_cm: float,
    lost_share: float,
    drained_share: float,
    runoffs_uS_cm: list[float | None],
    eta: float = 0.7,
    u: float = 0.25,
    reading_sd: float = 0.15,
    eta_sd_ln: float = 0.35,
    u_sd_logit: float = 0.7,
) -> Computed[CalibratedCycle]:
    """Leaching efficiency and uptake from the runoffs of equal waterings, with what was believed before.

    Parameters
    ----------
    feed_uS_cm : float
        EC of every watering, 1 to 20 000. [µS/cm]
    start_uS_cm : float
        Root zone before the first, at capacity, 1 to 50 000. [µS/cm]
    lost_share : float
        Share of the water lost between two, 0 to 0.9.
    drained_share : float
        Drained over held water at each, above 0 to 10.
    runoffs_uS_cm : list[float]
        The mean runoff of each watering in order, one to a hundred; empty where it was not read. [µS/cm]
    eta : float
        Leaching efficiency believed before, 0.05 to 1.5.
    u : float
        Uptake fraction believed before, 0.01 to 0.99.
    reading_sd : float
        Standard deviation of ln(reading), 0.01 to 1.
    eta_sd_ln : float
        Of ln(efficiency) before, 0.01 to 2.
    u_sd_logit : float
        Of logit(uptake) before, 0.01 to 3.

    Returns
    -------
    Computed
        Both with their spreads. Steady readings tell uptake, not efficiency: that shows before and after a rinse.

    Raises
    ------
    OutOfRange
        If a number cannot be.
    Underspecified
        If no runoff was read.

    References
    ----------
    E3.2; E3.4; E3.14
    """
    require(feed_uS_cm, "EC of the feed", "µS/cm", low=1, high=20_000, pointer="/feed_uS_cm")
    require(start_uS_cm, "Root zone at the start", "µS/cm", low=1, high=50_000, pointer="/start_uS_cm")
    require(lost_share, "Share lost", "", low=0, high=0.9, pointer="/lost_share")
    require(drained_share, "Drained over held", "", low=0, open_low=True, high=10, pointer="/drained_share")
    require(eta, "Leaching efficiency", "", low=0.05, high=1.5, pointer="/eta")
    require(u, "Uptake fraction", "", low=0.01, high=0.99, pointer="/u")
    require(reading_sd, "Spread of a reading", "", low=0.01, high=1, pointer="/reading_sd")
    require(eta_sd_ln, "Spread of the efficiency", "", low=0.01, high=2, pointer="/eta_sd_ln")
    require(u_sd_logit, "Spread of the uptake", "", low=0.01, high=3, pointer="/u_sd_logit")
    if len(runoffs_uS_cm) > 100:
        raise InputError(f"{len(runoffs_uS_cm)} waterings are too many. Give the last 100.", pointer="/runoffs_uS_cm")
    for i, r in enumerate(runoffs_uS_cm):
        if r is not None:
            require(r, "Runoff", "µS/cm", low=0, open_low=True, high=50_000, pointer=f"/runoffs_uS_cm/{i}")
    if all(r is None for r in runoffs_uS_cm):
        raise Underspecified("No runoff was read. Enter at least one reading.", pointer="/runoffs_uS_cm")
    from scipy.optimize import least_squares  # loaded on first use: it slows a start by half a second

    centre = np.array([math.log(eta), math.log(u / (1 - u))])

    def residuals(p: np.ndarray) -> list[float]:
        e, drunk = math.exp(p[0]), 1 / (1 + math.exp(-p[1]))
        y, out = start_uS_cm, []
        for measured in runoffs_uS_cm:
            full = float(dry_concentration(y, lost_share, drunk)) * (1 - lost_share) + feed_uS_cm * lost_share
            after, leachate = leach(full, feed_uS_cm, e, drained_share)
            y = float(after)
            if measured is not None:
                out.append(math.log(measured / float(leachate)) / reading_sd)
        return [*out, (p[0] - centre[0]) / eta_sd_ln, (p[1] - centre[1]) / u_sd_logit]

    fit = least_squares(residuals, centre, bounds=(centre - 3, centre + 3))
    jacobian = np.asarray(fit.jac, dtype=float)
    left = np.sqrt(np.diag(np.linalg.inv(jacobian.T @ jacobian)))
    ledger = Ledger(
        "Efficiency and uptake from equal waterings",
        "One mobile water, equal waterings; least squares with what was believed before.",
        ("pour-through", "judgement"),
    )
    ledger.take("C_in", "feed", feed_uS_cm, "µS/cm")
    ledger.take("e", "share lost between", lost_share, "")
    ledger.take("x", "drained over held", drained_share, "")
    ledger.found("n", "readings", sum(r is not None for r in runoffs_uS_cm), "", "counted")
    ledger.found("a", "ln(efficiency)", float(fit.x[0]), "", "bounded least squares, E3.14")
    ledger.found("b", "logit(uptake)", float(fit.x[1]), "", "bounded least squares, E3.14")
    found = ledger.step("eta", "exp(a)", "", "leaching efficiency")
    drunk = ledger.step("u", "1 / (1 + exp(-b))", "", "uptake fraction")
    ledger.found("s_a", "SD of ln(efficiency) left", float(left[0]), "", "curvature at the fit")
    ledger.found("s_b", "SD of logit(uptake) left", float(left[1]), "", "curvature at the fit")
    little = [
        name
        for name, now, before in (("efficiency", left[0], eta_sd_ln), ("uptake", left[1], u_sd_logit))
        if now > (1 - LEARNT_LITTLE) * before
    ]
    said = f"Efficiency {found:.2f}, uptake {drunk:.2f}."
    if little:
        said += f" Your readings have not told the {' and the '.join(little)} yet: read before and after a plain rinse."
    return ledger.close(CalibratedCycle(found, drunk, float(left[0]), float(left[1]), said))
