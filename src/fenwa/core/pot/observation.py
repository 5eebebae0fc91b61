"""What a runoff should read, by how it is caught: the very thing the model is compared with."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwa.core.entry import require
from fenwa.core.pot.balance import State, bone_dry, dry, soak, water
from fenwa.core.pot.folded import salt, should_read
from fenwa.core.pot.methods import METHODS, WORDS, Method
from fenwa.core.pot.specification import PotSpec, band, check_pot, members_of, two_salts
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class ExpectedReading:
    """What a method should read, with its 80 % band. [µS/cm]"""

    method: Method
    words: str
    expected_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float


@dataclass(frozen=True)
class Observed:
    """Every method's expected reading, the chosen one first. [µS/cm]"""

    chosen: ExpectedReading
    others: tuple[ExpectedReading, ...]


@calculation("observation", title="What the runoff should read", station="pots")
def observation(
    *,
    pot: PotSpec,
    root_zone_uS_cm: float,
    poured_L: float,
    poured_uS_cm: float,
    lost_L: float = 0.0,
    method: Method = "runoff",
    ballast_share: float | None = None,
) -> Computed[Observed]:
    """What a runoff reads by the way it is caught, for a pot whose root zone is known.

    Parameters
    ----------
    pot : PotSpec
        Volume, medium and uptake. [L]
    root_zone_uS_cm : float
        Root zone at capacity before the water was lost, 0 to 50 000. [µS/cm]
    poured_L : float
        What is poured, above 0 to 1000. [L]
    poured_uS_cm : float
        Its EC, 0 to 20 000. [µS/cm]
    lost_L : float
        Water lost since the last watering, 0 to 500. [L]
    method : str
        How the runoff is caught.
    ballast_share : float
        What of the salt is ballast, 0 to 1; empty: not known. [1]

    Returns
    -------
    Computed
        Expected reading of that method with its range, and of the others. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Medium defaults, uncalibrated. A dunk is reckoned with the poured volume as its bath.

    References
    ----------
    E2.5; E3.2; E3.4; E3.10; E4.6
    """
    check_pot(pot)
    require(root_zone_uS_cm, "Root zone", "µS/cm", low=0, high=50_000, pointer="/root_zone_uS_cm")
    require(poured_L, "Poured", "L", low=0, open_low=True, high=1000, pointer="/poured_L")
    require(poured_uS_cm, "EC of the pour", "µS/cm", low=0, high=20_000, pointer="/poured_uS_cm")
    require(lost_L, "Water lost", "L", low=0, high=500, pointer="/lost_L")
    if ballast_share is not None:
        require(ballast_share, "Share of ballast", "", low=0, high=1, pointer="/ballast_share")
    members = members_of([pot])
    soil = members.soil
    C = two_salts(members, root_zone_uS_cm, ballast_share)
    full = State(soil.W_m_cc * 1.0, C, C)
    dried = dry(soil, full, lost_L * np.ones_like(soil.W_m_cc), 0.0)
    C_in = two_salts(members, poured_uS_cm, ballast_share)
    after, drained = water(soil, dried, poured_L, C_in)
    ledger = Ledger("What the runoff should read", "Medium defaults: good to about -25/+40 %.", ("pour-through",))
    if bone_dry(soil, full, lost_L)[0, 0]:
        ledger.caution("So much was lost that the pot is bone dry: the last tenth of its mobile water is kept.")
    found = {}
    for way in METHODS:
        at = soak(soil, dried, poured_L, C_in) if way == "dunk" else (after, drained)
        middle, low, high = band(should_read(members, way, dried, at[0], at[1], poured_L, C_in))
        found[way] = ExpectedReading(way, WORDS[way], float(middle[0]), float(low[0]), float(high[0]))
    _write(ledger, pot, root_zone_uS_cm, poured_uS_cm, dried, after, drained.C)
    others = tuple(found[way] for way in METHODS if way != method)
    return ledger.close(Observed(found[method], others))


def _write(
    ledger: Ledger, pot: PotSpec, root: float, poured: float, dried: State, after: State, runoff: object
) -> None:
    """First drops, mean and last of a watering in the symbols of E3.4."""
    ledger.take("C_root", "root zone before", root, "µS/cm")
    ledger.take("C_in", "what is poured", poured, "µS/cm")
    ledger.take("eta", "leaching efficiency", pot.medium.eta, "", "table:media")
    W, refill = float(dried.W_m[0, 0]), float(after.W_m[0, 0] - dried.W_m[0, 0])
    ledger.found("W", "mobile water before", W, "L", "E3.2")
    ledger.found("V_r", "taken up before it drains", max(refill, 0.0), "L", "E3.10")
    ledger.found("C_m", "mobile water before", float(salt(dried.C_m)[0, 0]), "µS/cm", "E3.2")
    ledger.step("C_mix", "(W * C_m + V_r * C_in) / (W + V_r)", "µS/cm", "when it begins to drain")
    ledger.step("first", "C_in + eta * (C_mix - C_in)", "µS/cm", "the first drops")
    ledger.found("mean", "all that runs out", float(np.asarray(salt(runoff))[0, 0]), "µS/cm", "E3.4")
    ledger.found("C_end", "mobile water afterwards", float(salt(after.C_m)[0, 0]), "µS/cm", "E3.4")
    ledger.step("last", "C_in + eta * (C_end - C_in)", "µS/cm", "the last that runs out")
