"""Ions of a water or a feed: amounts, charges, mobilities."""

from __future__ import annotations

from dataclasses import dataclass, fields

from fenwa.core.entry import require

MEQ_CaCO3 = 50.04  # mg CaCO3 per meq of alkalinity

# g/mol, iupac-atomic-weights
MOLAR_MASS = {
    "Ca": 40.078,
    "Mg": 24.305,
    "Na": 22.990,
    "K": 39.098,
    "NH4": 18.039,
    "Cl": 35.453,
    "NO3": 62.004,
    "SO4": 96.06,
    "F": 18.998,
    "P": 30.974,
    "N": 14.007,
    "S": 32.06,
    "HCO3": 61.016,
    "C": 12.011,
    "CO3": 60.008,
}
CHARGE = {"Ca": 2, "Mg": 2, "Na": 1, "K": 1, "NH4": 1, "Cl": -1, "NO3": -1, "SO4": -2, "F": -1}

# equivalent conductivities at infinite dilution, S cm²/mol of charge, 25 °C: crc-vanysek, robinson-stokes;
# phosphates li-gregory-1974; pairs and acid citrates are estimates of small effect
LAMBDA0 = {
    "H": 349.65,
    "OH": 198.0,
    "Na": 50.08,
    "K": 73.48,
    "NH4": 73.5,
    "Ca": 59.47,
    "Mg": 53.0,
    "Cl": 76.31,
    "NO3": 71.42,
    "SO4": 80.0,
    "F": 55.4,
    "HCO3": 44.5,
    "CO3": 69.3,
    "H2PO4": 33.0,
    "HPO4": 57.0,
    "CaHCO3": 19.0,
    "MgHCO3": 18.0,
    "NaSO4": 40.0,
    "KSO4": 45.0,
    "NH4SO4": 45.0,
    "CaH2PO4": 19.0,
    "MgH2PO4": 18.0,
    "PO4": 92.8,
    "HSO4": 52.0,
    "Cit": 70.2,
    "HCit": 50.0,
    "H2Cit": 30.0,
    "CaCit": 25.0,
    "MgCit": 25.0,
}
SPECIES_CHARGE = {
    "H": 1,
    "OH": -1,
    "Na": 1,
    "K": 1,
    "NH4": 1,
    "Ca": 2,
    "Mg": 2,
    "Cl": -1,
    "NO3": -1,
    "SO4": -2,
    "F": -1,
    "HCO3": -1,
    "CO3": -2,
    "H2PO4": -1,
    "HPO4": -2,
    "CaHCO3": 1,
    "MgHCO3": 1,
    "NaSO4": -1,
    "KSO4": -1,
    "NH4SO4": -1,
    "CaH2PO4": 1,
    "MgH2PO4": 1,
    "PO4": -3,
    "HSO4": -1,
    "Cit": -3,
    "HCit": -2,
    "H2Cit": -1,
    "CaCit": -1,
    "MgCit": -1,
}


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
    """What a feed brings to a litre. mg/L; nitrogen as N by form, sulfur as S, carbonate as C.

    Totals only: how many protons phosphate and carbonate hold follows from the charge of all together.
    """

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
    C_mg_L: float = 0.0

    def scaled(self, factor: float) -> AddedIons:
        """Every amount times ``factor``."""
        return AddedIons(**{f.name: getattr(self, f.name) * factor for f in fields(self)})

    def plus(self, other: AddedIons) -> AddedIons:
        """Both together."""
        return AddedIons(**{f.name: getattr(self, f.name) + getattr(other, f.name) for f in fields(self)})


@dataclass(kw_only=True)
class Totals:
    """Total concentrations, mol/L, as numbers or as arrays of many solutions.

    C is inorganic carbon, N3 ammoniacal nitrogen, Cit citrate.
    """

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
    Cit: float = 0.0


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
            require(
                value,
                name.capitalize() if name == "alkalinity" else name,
                "mg/L",
                low=0,
                high=50_000,
                pointer=f"{pointer}/{f.name}",
            )


def totals_of(ions: WaterIons) -> Totals:
    """Totals of a report without its carbon, unmeasured counted as none. [mol/L]"""

    def mol(name: str) -> float:
        return (getattr(ions, f"{name}_mg_L") or 0.0) / MOLAR_MASS[name] / 1000

    return Totals(
        Ca=mol("Ca"),
        Mg=mol("Mg"),
        Na=mol("Na"),
        K=mol("K"),
        N3=mol("NH4"),
        Cl=mol("Cl"),
        NO3=mol("NO3"),
        SO4=mol("SO4"),
        F=mol("F"),
        P=mol("P"),
        C=0.0,
    )


def add_feed(base: Totals, feed: AddedIons) -> Totals:
    """Totals after the feed is dissolved, nothing of it lost to the air. [mol/L]"""
    m = MOLAR_MASS
    return Totals(
        Ca=base.Ca + feed.Ca_mg_L / m["Ca"] / 1000,
        Mg=base.Mg + feed.Mg_mg_L / m["Mg"] / 1000,
        Na=base.Na + feed.Na_mg_L / m["Na"] / 1000,
        K=base.K + feed.K_mg_L / m["K"] / 1000,
        N3=base.N3 + feed.NH4_N_mg_L / m["N"] / 1000,
        Cl=base.Cl + feed.Cl_mg_L / m["Cl"] / 1000,
        NO3=base.NO3 + feed.NO3_N_mg_L / m["N"] / 1000,
        SO4=base.SO4 + feed.S_mg_L / m["S"] / 1000,
        F=base.F,
        P=base.P + feed.P_mg_L / m["P"] / 1000,
        C=base.C + feed.C_mg_L / m["C"] / 1000,
        Cit=base.Cit,
    )
