"""Plain solubility: does what is in a bottle dissolve at all, alone and as the salts its ions could form?"""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.mix.elements import Elements
from fenwa.core.water.ions import Totals
from fenwa.core.water.speciation import Speciation

SOLUBLE_SHARE = 2 / 3  # of the solubility at the coldest store, guideline
COLD_SHARE = 0.42  # of the 20 °C solubility at 0 °C: potassium nitrate, the steepest of the usual salts
BORIC_ACID_g_L, BORIC_ACID_PER_B = 47.0, 61.83 / 10.81
UREA_g_L, UREA_PER_N = 1000.0, 60.056 / 28.014
TRACE_mg_g = 2.0  # less of an element than this in a gram makes no difference to a bottle


@dataclass(frozen=True)
class PlainSalt:
    """A salt that the ions of a bottle could form. Solubility without its crystal water at 20 °C. [g/mol, g/L]"""

    name: str
    cation: str
    cations: int
    anion: str
    anions: int
    g_mol: float
    g_L: float


# crc-solubility: handbook, rounded down
SALTS = tuple(
    PlainSalt(*row)
    for row in (
        ("potassium chloride", "K", 1, "Cl", 1, 74.55, 340.0),
        ("potassium nitrate", "K", 1, "NO3", 1, 101.10, 310.0),
        ("potassium sulfate", "K", 2, "SO4", 1, 174.26, 110.0),
        ("monopotassium phosphate", "K", 1, "H2PO4", 1, 136.08, 220.0),
        ("dipotassium phosphate", "K", 2, "HPO4", 1, 174.17, 1500.0),
        ("potassium bicarbonate", "K", 1, "HCO3", 1, 100.11, 330.0),
        ("potassium carbonate", "K", 2, "CO3", 1, 138.20, 1100.0),
        ("potassium hydroxide", "K", 1, "OH", 1, 56.11, 1100.0),
        ("sodium chloride", "Na", 1, "Cl", 1, 58.44, 355.0),
        ("sodium nitrate", "Na", 1, "NO3", 1, 84.99, 870.0),
        ("sodium sulfate", "Na", 2, "SO4", 1, 142.04, 190.0),
        ("monosodium phosphate", "Na", 1, "H2PO4", 1, 119.98, 850.0),
        ("disodium phosphate", "Na", 2, "HPO4", 1, 141.96, 77.0),
        ("sodium bicarbonate", "Na", 1, "HCO3", 1, 84.01, 95.0),
        ("sodium carbonate", "Na", 2, "CO3", 1, 105.99, 215.0),
        ("sodium hydroxide", "Na", 1, "OH", 1, 40.00, 1050.0),
        ("ammonium chloride", "NH4", 1, "Cl", 1, 53.49, 370.0),
        ("ammonium nitrate", "NH4", 1, "NO3", 1, 80.04, 1200.0),
        ("ammonium sulfate", "NH4", 2, "SO4", 1, 132.14, 750.0),
        ("monoammonium phosphate", "NH4", 1, "H2PO4", 1, 115.03, 370.0),
        ("diammonium phosphate", "NH4", 2, "HPO4", 1, 132.06, 680.0),
        ("ammonium bicarbonate", "NH4", 1, "HCO3", 1, 79.06, 215.0),
        ("magnesium chloride", "Mg", 1, "Cl", 2, 95.21, 540.0),
        ("magnesium nitrate", "Mg", 1, "NO3", 2, 148.31, 690.0),
        ("magnesium sulfate", "Mg", 1, "SO4", 1, 120.37, 340.0),
        ("calcium chloride", "Ca", 1, "Cl", 2, 110.98, 740.0),
        ("calcium nitrate", "Ca", 1, "NO3", 2, 164.09, 830.0),
        ("monocalcium phosphate", "Ca", 1, "H2PO4", 2, 234.05, 18.0),
    )
)


@dataclass(frozen=True)
class SolubilityCheck:
    """A salt in the bottle against what dissolves at the coldest store. [g/L]"""

    name: str
    strength_g_L: float
    limit_g_L: float
    fits: bool


def solubility_at(solubility_20_g_L: float, celsius: float) -> float:
    """Solubility at the coldest store, taken to fall like potassium nitrate's below 20 °C. [g/L]"""
    cold = min(max(celsius, 0.0), 20.0)
    return solubility_20_g_L * (COLD_SHARE + (1 - COLD_SHARE) * cold / 20.0)


def checked(name: str, strength_g_L: float, solubility_20_g_L: float, storage_C: float) -> SolubilityCheck:
    """One salt against two thirds of what dissolves at the coldest store."""
    limit = SOLUBLE_SHARE * solubility_at(solubility_20_g_L, storage_C)
    return SolubilityCheck(name, strength_g_L, limit, strength_g_L <= limit * (1 + 1e-9))


def salts_of(t: Totals, s: Speciation, storage_C: float) -> list[SolubilityCheck]:
    """The salts that the ions of a bottle could form: each alone, and with the common ions that others bring.

    Alone: two thirds of what dissolves. With common ions: the product of its ions under that of the saturated salt;
    the limit told is the strength at which the whole bottle, thinned, comes down to it.
    """
    whole = {
        "K": t.K,
        "Na": t.Na,
        "NH4": s.species["NH4"],
        "Mg": t.Mg,
        "Ca": t.Ca,
        "Cl": t.Cl,
        "NO3": t.NO3,
        "SO4": t.SO4,
        "OH": s.species["OH"],
        **_forms(t.P, s, ("H2PO4", "HPO4", "PO4")),
        **_forms(t.C, s, ("HCO3", "CO3")),
    }
    out = []
    for salt in SALTS:
        cation, anion = float(whole[salt.cation]) / salt.cations, float(whole[salt.anion]) / salt.anions
        own = min(cation, anion)
        if own > 0:
            alone = checked(salt.name, own * salt.g_mol, salt.g_L, storage_C)
            ions = salt.cations + salt.anions
            mean = cation ** (salt.cations / ions) * anion ** (salt.anions / ions)
            limit = min(alone.limit_g_L, solubility_at(salt.g_L, storage_C) * own / mean)
            fits = alone.strength_g_L <= limit * (1 + 1e-9)
            out.append(SolubilityCheck(salt.name, alone.strength_g_L, limit, fits))
    return out


def _forms(total: float, s: Speciation, names: tuple[str, ...]) -> dict[str, float]:
    """What is bound in pairs shared out over the charged forms as the free ones are, the uncharged form left out."""
    free = sum(s.species[name] for name in names)
    bound = total - free
    share = total / free if free > 0 and bound > 0 and s.pH > 5 else 1.0
    return {name: s.species[name] * share for name in names}


def neutrals_of(parts: list[tuple[Elements, float]], storage_C: float) -> list[SolubilityCheck]:
    """Boric acid and urea, which carry no charge; ``parts``: elements with their strength in the bottle. [g/L]"""
    boric = sum(e.B_mg_g * g for e, g in parts) / 1000 * BORIC_ACID_PER_B
    urea = sum(e.N_urea_mg_g * g for e, g in parts) / 1000 * UREA_PER_N
    rows = (("boric acid", boric, BORIC_ACID_g_L), ("urea", urea, UREA_g_L))
    return [checked(name, strength, limit, storage_C) for name, strength, limit in rows if strength > 0]


def bare_metal(parts: list[tuple[str, str, Elements]]) -> str | None:
    """A product that brings iron, manganese, zinc or copper as a plain salt beside phosphate or carbonate.

    ``parts``: name, chelate and elements of each product. Their phosphates and hydroxides are so little soluble that
    no index is needed; chelates hold the metal back.
    """
    if not any(e.P_mg_g > TRACE_mg_g or e.C_mg_g > TRACE_mg_g for _, _, e in parts):
        return None
    for name, chelate, e in parts:
        if not chelate and max(e.Fe_mg_g, e.Mn_mg_g, e.Zn_mg_g, e.Cu_mg_g) > TRACE_mg_g:
            return name
    return None
