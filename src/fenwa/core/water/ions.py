"""Ions of a water or a feed: amounts, constants, speciation at a pH."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields

from fenwa.core.entry import require

MEQ_CaCO3 = 50.04  # mg CaCO3 per meq of alkalinity

# g/mol, iupac-atomic-weights
MOLAR_MASS = {
    "Ca": 40.078, "Mg": 24.305, "Na": 22.990, "K": 39.098, "NH4": 18.039, "Cl": 35.453,
    "NO3": 62.004, "SO4": 96.06, "F": 18.998, "P": 30.974, "N": 14.007, "S": 32.06,
}  # fmt: skip
CHARGE = {"Ca": 2, "Mg": 2, "Na": 1, "K": 1, "NH4": 1, "Cl": -1, "NO3": -1, "SO4": -2, "F": -1}

# equivalent conductivities at infinite dilution, S cm²/mol of charge, 25 °C: crc-vanysek, robinson-stokes;
# phosphates li-gregory-1974; pairs are estimates of small effect
LAMBDA0 = {
    "H": 349.65, "OH": 198.0, "Na": 50.08, "K": 73.48, "NH4": 73.5, "Ca": 59.47, "Mg": 53.0,
    "Cl": 76.31, "NO3": 71.42, "SO4": 80.0, "F": 55.4, "HCO3": 44.5, "CO3": 69.3,
    "H2PO4": 33.0, "HPO4": 57.0, "CaHCO3": 19.0, "MgHCO3": 18.0, "NaSO4": 40.0, "KSO4": 45.0,
    "NH4SO4": 45.0, "CaH2PO4": 19.0, "MgH2PO4": 18.0,
}  # fmt: skip
SPECIES_CHARGE = {
    "H": 1, "OH": -1, "Na": 1, "K": 1, "NH4": 1, "Ca": 2, "Mg": 2, "Cl": -1, "NO3": -1, "SO4": -2, "F": -1,
    "HCO3": -1, "CO3": -2, "H2PO4": -1, "HPO4": -2, "CaHCO3": 1, "MgHCO3": 1, "NaSO4": -1, "KSO4": -1,
    "NH4SO4": -1, "CaH2PO4": 1, "MgH2PO4": 1,
}  # fmt: skip

# acid constants at I = 0, 25 °C (handbook) and ion pairs (nordstrom-1990, plummer-busenberg-1982, nist-46)
_K1, _K2, _KW = 10**-6.35, 10**-10.33, 1e-14
_KP1, _KP2, _KN = 10**-2.15, 10**-7.20, 10**-9.25
_CASO4, _MGSO4, _NASO4, _KSO4, _NHSO4 = 10**2.30, 10**2.25, 10**0.70, 10**0.85, 10**1.03
_CAHCO3, _MGHCO3, _CACO3, _MGCO3 = 10**1.11, 10**1.07, 10**3.22, 10**2.98
_CAHPO4, _MGHPO4, _CAH2PO4, _MGH2PO4 = 10**2.74, 10**2.87, 10**1.41, 10**1.51


@dataclass(frozen=True)
class WaterIons:
    """A water report. mg/L; alkalinity as CaCO3; None means not measured.

    Attributes are totals as the ion named: nitrate as NO3, ammonium as NH4,
    sulfate as SO4, phosphorus as P.
    """

    Ca_mg_L: float | None = None
    Mg_mg_L: float | None = None
    Na_mg_L: float | None = None
    K_mg_L: float | None = None
    NH4_mg_L: float | None = None
    Cl_mg_L: float | None = None
    NO3_mg_L: float | None = None
    SO4_mg_L: float | None = None
    F_mg_L: float | None = None
    P_mg_L: float | None = None
    alkalinity_mg_L_CaCO3: float | None = None
    pH: float | None = None


@dataclass(frozen=True)
class AddedIons:
    """What a feed brings to a litre. mg/L; nitrogen as N by form, sulfur as S."""

    NO3_N_mg_L: float = 0.0
    NH4_N_mg_L: float = 0.0
    urea_N_mg_L: float = 0.0
    P_mg_L: float = 0.0
    K_mg_L: float = 0.0
    Ca_mg_L: float = 0.0
    Mg_mg_L: float = 0.0
    S_mg_L: float = 0.0
    Na_mg_L: float = 0.0
    Cl_mg_L: float = 0.0

    def scaled(self, factor: float) -> AddedIons:
        """Every amount times ``factor``."""
        return AddedIons(**{f.name: getattr(self, f.name) * factor for f in fields(self)})


@dataclass
class Totals:
    """Total concentrations, mol/L; C is inorganic carbon, N3 is ammoniacal nitrogen."""

    Ca: float = 0.0
    Mg: float = 0.0
    Na: float = 0.0
    K: float = 0.0
    N3: float = 0.0
    Cl: float = 0.0
    NO3: float = 0.0
    SO4: float = 0.0
    F: float = 0.0
    P: float = 0.0
    C: float = 0.0


@dataclass
class Speciation:
    """Free and paired species at a pH, mol/L."""

    species: dict[str, float]
    ionic_strength: float
    charge: float
    alkalinity: float
    pH: float


def check_ions(ions: WaterIons, pointer: str = "") -> None:
    """Refuse negative or absurd amounts, naming the field."""
    for f in fields(ions):
        value = getattr(ions, f.name)
        if value is None:
            continue
        name = f.name.split("_")[0]
        if f.name == "pH":
            require(value, "pH", "", low=0, high=14, pointer=f"{pointer}/pH")
        else:
            require(value, name.capitalize() if name == "alkalinity" else name, "mg/L",
                    low=0, high=50_000, pointer=f"{pointer}/{f.name}")  # fmt: skip


def totals_of(ions: WaterIons) -> Totals:
    """Totals of a report without its carbon, unmeasured counted as none. [mol/L]"""

    def mol(name: str) -> float:
        return (getattr(ions, f"{name}_mg_L") or 0.0) / MOLAR_MASS[name] / 1000

    return Totals(mol("Ca"), mol("Mg"), mol("Na"), mol("K"), mol("NH4"), mol("Cl"), mol("NO3"), mol("SO4"),
                  mol("F"), mol("P"), 0.0)  # fmt: skip


def add_feed(base: Totals, feed: AddedIons) -> Totals:
    """Totals after the feed is dissolved; carbon stays as it was. [mol/L]"""
    m = MOLAR_MASS
    return Totals(
        base.Ca + feed.Ca_mg_L / m["Ca"] / 1000,
        base.Mg + feed.Mg_mg_L / m["Mg"] / 1000,
        base.Na + feed.Na_mg_L / m["Na"] / 1000,
        base.K + feed.K_mg_L / m["K"] / 1000,
        base.N3 + feed.NH4_N_mg_L / m["N"] / 1000,
        base.Cl + feed.Cl_mg_L / m["Cl"] / 1000,
        base.NO3 + feed.NO3_N_mg_L / m["N"] / 1000,
        base.SO4 + feed.S_mg_L / m["S"] / 1000,
        base.F,
        base.P + feed.P_mg_L / m["P"] / 1000,
        base.C,
    )


class Solver:
    """Speciation with ion pairs by fixed point; each solve starts from the last solution."""

    def __init__(self) -> None:
        self._free: list[float] | None = None

    def solve(self, t: Totals, pH: float) -> Speciation:
        """Species at ``pH`` for the totals ``t`` (Davies activities, closed to air)."""
        f = self._free or [t.Ca, t.Mg, t.Na, t.K, t.N3, t.SO4, t.C, t.P]
        Ca, Mg, Na, K, N3, SO4, C, P = f
        I = 0.5 * (4 * (Ca + Mg + SO4) + Na + K + N3 + t.Cl + t.NO3 + t.F + C + P)
        species: dict[str, float] = {}
        for _ in range(80):
            root = math.sqrt(I)
            lgy = -0.509 * (root / (1 + root) - 0.3 * I)
            y1, y2 = 10**lgy, 10 ** (4 * lgy)
            h = 10**-pH / y1
            oh = _KW / 10**-pH / y1
            k1, k2 = _K1 / (y1 * y1), _K2 / y2
            kp1, kp2 = _KP1 / (y1 * y1), _KP2 / y2
            HCO3 = C / (1 + h / k1 + k2 / h)
            CO3 = HCO3 * k2 / h
            H2PO4 = P / (1 + h / kp1 + kp2 / h)
            HPO4 = H2PO4 * kp2 / h
            NH4 = N3 / (1 + _KN / h)
            y22 = y2 * y2
            CaSO4, MgSO4 = _CASO4 * y22 * Ca * SO4, _MGSO4 * y22 * Mg * SO4
            NaSO4, KSO4, NHSO4 = _NASO4 * y2 * Na * SO4, _KSO4 * y2 * K * SO4, _NHSO4 * y2 * NH4 * SO4
            CaHCO3, MgHCO3 = _CAHCO3 * y2 * Ca * HCO3, _MGHCO3 * y2 * Mg * HCO3
            CaCO3, MgCO3 = _CACO3 * y22 * Ca * CO3, _MGCO3 * y22 * Mg * CO3
            CaHPO4, MgHPO4 = _CAHPO4 * y22 * Ca * HPO4, _MGHPO4 * y22 * Mg * HPO4
            CaH2PO4, MgH2PO4 = _CAH2PO4 * y2 * Ca * H2PO4, _MGH2PO4 * y2 * Mg * H2PO4
            new = [
                _free(t.Ca, Ca, CaSO4 + CaHCO3 + CaCO3 + CaHPO4 + CaH2PO4),
                _free(t.Mg, Mg, MgSO4 + MgHCO3 + MgCO3 + MgHPO4 + MgH2PO4),
                _free(t.Na, Na, NaSO4),
                _free(t.K, K, KSO4),
                _free(t.N3, N3, NHSO4),
                _free(t.SO4, SO4, CaSO4 + MgSO4 + NaSO4 + KSO4 + NHSO4),
                _free(t.C, C, CaHCO3 + MgHCO3 + CaCO3 + MgCO3),
                _free(t.P, P, CaHPO4 + MgHPO4 + CaH2PO4 + MgH2PO4),
            ]
            strength = 0.5 * (
                4 * (Ca + Mg + SO4 + CO3 + HPO4) + Na + K + NH4 + t.Cl + t.NO3 + t.F + HCO3 + H2PO4 + h + oh
                + CaHCO3 + MgHCO3 + NaSO4 + KSO4 + NHSO4 + CaH2PO4 + MgH2PO4
            )  # fmt: skip
            change = max(abs(a - b) for a, b in zip(new, (Ca, Mg, Na, K, N3, SO4, C, P), strict=True))
            settled = change < 1e-11 and abs(strength - I) < 1e-10
            Ca, Mg, Na, K, N3, SO4, C, P = new
            I = strength
            if settled:
                break
        self._free = [Ca, Mg, Na, K, N3, SO4, C, P]
        species = {
            "H": h, "OH": oh, "Na": Na, "K": K, "NH4": NH4, "Ca": Ca, "Mg": Mg, "Cl": t.Cl, "NO3": t.NO3,
            "SO4": SO4, "F": t.F, "HCO3": HCO3, "CO3": CO3, "H2PO4": H2PO4, "HPO4": HPO4, "CaHCO3": CaHCO3,
            "MgHCO3": MgHCO3, "NaSO4": NaSO4, "KSO4": KSO4, "NH4SO4": NHSO4, "CaH2PO4": CaH2PO4,
            "MgH2PO4": MgH2PO4,
        }  # fmt: skip
        charge = sum(SPECIES_CHARGE[name] * c for name, c in species.items())
        alkalinity = HCO3 + 2 * CO3 + oh - h + CaHCO3 + MgHCO3 + 2 * (CaCO3 + MgCO3)
        return Speciation(species, I, charge, alkalinity, pH)


def _free(total: float, free: float, bound: float) -> float:
    return total * free / (free + bound) if total > 0 and free > 0 else 0.0
