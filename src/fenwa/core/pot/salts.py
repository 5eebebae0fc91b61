"""Two salts: what of a water's or a feed's conductivity plants take up, and what only gathers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.water.ions import LAMBDA0, MOLAR_MASS, AddedIons, MEQ_CaCO3, WaterIons, check_ions
from fenwa.core.working import Computed, Ledger

# equivalents a milligram, with the mobility of each: infinite dilution is near enough for shares
_WATER_BALLAST = {"Ca": ("Ca", 2), "Mg": ("Mg", 2), "Na": ("Na", 1), "Cl": ("Cl", 1), "SO4": ("SO4", 2), "F": ("F", 1)}
_WATER_NUTRIENT = {"K": ("K", 1), "NH4": ("NH4", 1), "NO3": ("NO3", 1), "P": ("H2PO4", 1)}
_FEED_BALLAST = {"Na": ("Na", 1), "Cl": ("Cl", 1), "S": ("SO4", 2), "C": ("HCO3", 1)}
_FEED_NUTRIENT = {
    "K": ("K", 1),
    "NH4_N": ("NH4", 1),
    "NO3_N": ("NO3", 1),
    "P": ("H2PO4", 1),
    "Ca": ("Ca", 2),
    "Mg": ("Mg", 2),
}
_MASS_OF = {"NH4_N": "N", "NO3_N": "N"}


@dataclass(frozen=True)
class SaltSplit:
    """Conductivity of nutrients and of ballast, and the share of ballast. [µS/cm]"""

    nutrient_uS_cm: float
    ballast_uS_cm: float
    ballast_share: float


def _carried(amounts: object, ions: dict[str, tuple[str, int]]) -> float:
    """Conductivity of some ions at infinite dilution. [µS/cm]"""
    total = 0.0
    for name, (ion, charge) in ions.items():
        mg_L = getattr(amounts, f"{name}_mg_L") or 0.0
        total += mg_L / MOLAR_MASS[_MASS_OF.get(name, name)] * charge * LAMBDA0[ion]
    return total


@lru_cache(maxsize=512)
def water_ballast_share(water: WaterIons) -> float | None:
    """Share of a water's conductivity that is ballast: all but potassium, ammonium, nitrate and phosphate; None
    without ions.
    """
    bicarbonate = (water.alkalinity_mg_L_CaCO3 or 0.0) / MEQ_CaCO3 * LAMBDA0["HCO3"]
    ballast = _carried(water, _WATER_BALLAST) + bicarbonate
    whole = ballast + _carried(water, _WATER_NUTRIENT)
    return ballast / whole if whole > 0 else None


def feed_ballast_share(feed: AddedIons) -> float | None:
    """Share of a feed's own conductivity that is ballast: its sodium, chloride, sulfate and carbonate; None
    without ions.
    """
    ballast = _carried(feed, _FEED_BALLAST)
    whole = ballast + _carried(feed, _FEED_NUTRIENT)
    return ballast / whole if whole > 0 else None


@calculation("salt-split", title="Nutrient and ballast", station="pots")
def salt_split(
    *, water: WaterIons, water_uS_cm: float, feed: AddedIons | None = None, added_uS_cm: float = 0.0
) -> Computed[SaltSplit]:
    """What of a pour's conductivity the plant takes up, and what only gathers.

    Parameters
    ----------
    water : WaterIons
        Ions of the water; only their proportions count. [mg/L]
    water_uS_cm : float
        EC of the water alone, 0 to 20 000. [µS/cm]
    feed : AddedIons
        Ions of the feed; only their proportions count. [mg/L]
    added_uS_cm : float
        What the feed adds to the reading, 0 to 20 000. [µS/cm]

    Returns
    -------
    Computed
        Nutrient and ballast conductivity, and the share of ballast. [µS/cm]

    Raises
    ------
    OutOfRange
        If an amount cannot be.

    Notes
    -----
    Shares are those at infinite dilution. Calcium and magnesium count as ballast where the water brings them
    and as nutrients where the feed does. A water without any ion is all ballast.

    References
    ----------
    E3.8b; crc-vanysek
    """
    check_ions(water, "/water")
    require(water_uS_cm, "EC of the water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(added_uS_cm, "EC the feed adds", "µS/cm", low=0, high=20_000, pointer="/added_uS_cm")
    for name, value in vars(feed or AddedIons()).items():
        require(value, f"Feed {name}", "mg/L", low=0, high=100_000, pointer=f"/feed/{name}")
    ledger = Ledger("Nutrient and ballast", "Shares at infinite dilution, good to a twentieth.", ("crc-vanysek",))
    known, fed = water_ballast_share(water), feed_ballast_share(feed) if feed else None
    if known is None:
        ledger.assume("No ion of the water is known: all of it counts as ballast.")
    ledger.take("C_w", "the water alone", water_uS_cm, "µS/cm")
    ledger.take("C_f", "what the feed adds", added_uS_cm, "µS/cm")
    ledger.found("b_w", "ballast in the water", 1.0 if known is None else known, "", "mobility times equivalents")
    ledger.found("b_f", "ballast in the feed", fed or 0.0, "", "mobility times equivalents")
    ballast = ledger.step("B", "C_w * b_w + C_f * b_f", "µS/cm", "ballast")
    nutrient = ledger.step("N", "C_w + C_f - B", "µS/cm", "nutrients")
    whole = water_uS_cm + added_uS_cm
    return ledger.close(SaltSplit(max(nutrient, 0.0), ballast, ballast / whole if whole > 0 else 1.0))
