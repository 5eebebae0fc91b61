"""How much the first pour of a pot is, before anybody knows what it drinks."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.pot.methods import MOIST_LEFT, Moist
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

USUAL: Moist = "barely damp"
LEAST_L = 0.005


@dataclass(frozen=True)
class FirstPour:
    """How much, and why. [L]"""

    volume_L: float
    sentence: str


def first_pour_L(capacity_L: float, moist: Moist | None, leached: float = 0.0) -> float:
    """What refills a pot from how dry it is told, and a little more to drain; never over what it can hold. [L]"""
    missing = (1 - MOIST_LEFT[moist or USUAL]) * capacity_L
    return max(LEAST_L, min(missing / (1 - leached), capacity_L))


@calculation("first-pour", title="The first pour", station="pots")
def first_pour(
    *,
    capacity_L: float,
    moist: Moist | None = None,
    leached: float = 0.0,
    tray_cm2: float | None = None,
    depth_cm: float | None = None,
) -> Computed[FirstPour]:
    """How much to pour the first time, from what a pot can hold and how dry it is told.

    Parameters
    ----------
    capacity_L : float
        Water its medium can hold, above 0 to 450. [L]
    moist : str
        How dry it is to the finger; empty: not told, taken as barely damp.
    leached : float
        Share of a pour that is to drain, 0 to 0.5.
    tray_cm2 : float
        Area of its tray, 1 to 100 000; empty: it is watered from above. [cm²]
    depth_cm : float
        How deep the tray is filled, 0.1 to 30. [cm]

    Returns
    -------
    Computed
        Volume, never over what the pot can hold; of a tray its area by its depth. [L]

    Raises
    ------
    OutOfRange
        If a volume, a share or a length cannot be.

    References
    ----------
    judgement; water held by the medium
    """
    require(capacity_L, "Water held", "L", low=0, open_low=True, high=450, pointer="/capacity_L")
    require(leached, "Share that drains", "", low=0, high=0.5, pointer="/leached")
    ledger = Ledger("The first pour", "What is missing, and no more than it can hold.", ("judgement",))
    if tray_cm2 is not None:
        require(tray_cm2, "Area of the tray", "cm²", low=1, high=100_000, pointer="/tray_cm2")
        deep = require(depth_cm or 0.0, "Depth in the tray", "cm", low=0.1, high=30, pointer="/depth_cm")
        ledger.take("A", "area of the tray", tray_cm2, "cm²")
        ledger.take("h", "how deep it is filled", deep, "cm")
        volume = ledger.step("V", "A * h / 1000", "L", "into the tray")
        return ledger.close(FirstPour(volume, f"Fill the tray {deep:g} cm deep: about {1000 * volume:.0f} mL."))
    ledger.take("W", "water it can hold", capacity_L, "L", "computed:medium")
    ledger.take("left", f"of it left, {moist or USUAL} to the finger", MOIST_LEFT[moist or USUAL], "", "judgement")
    ledger.take("x", "share that drains", leached, "", "habit")
    ledger.step("V", f"max({LEAST_L}, min((1 - left) * W / (1 - x), W))", "L", "to pour")
    if moist is None:
        ledger.assume("Nobody told how dry it is: taken as barely damp.")
    volume = first_pour_L(capacity_L, moist, leached)
    return ledger.close(FirstPour(volume, f"About {1000 * volume:.0f} mL: what it lacks, never over what it can hold."))
