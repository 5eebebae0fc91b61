"""Which species a solution holds at a pH: Davies activities, acids, ion pairs, by fixed point.

One round of the fixed point serves a single solution (numbers) and thousands at once (arrays): it uses
arithmetic only, so that the quick way and the shown way cannot differ.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from operator import mul
from typing import Any

import numpy as np

from fenwa.core.roots import root_between
from fenwa.core.water.ions import SPECIES_CHARGE, Totals

# acid constants at I = 0, 25 °C (handbook) and ion pairs (nordstrom-1990, plummer-busenberg-1982, nist-46)
_K1, _K2, _KW = 10**-6.35, 10**-10.33, 1e-14
_KP1, _KP2, _KP3, _KN = 10**-2.15, 10**-7.20, 10**-12.35, 10**-9.25
_CASO4, _MGSO4, _NASO4, _KSO4, _NHSO4 = 10**2.30, 10**2.25, 10**0.70, 10**0.85, 10**1.03
_HSO4 = 10**1.99  # second proton of sulfuric acid, handbook
_CAHCO3, _MGHCO3, _CACO3, _MGCO3 = 10**1.11, 10**1.07, 10**3.22, 10**2.98
_CAHPO4, _MGHPO4, _CAH2PO4, _MGH2PO4 = 10**2.74, 10**2.87, 10**1.41, 10**1.51
# citric acid and its complexes with calcium and magnesium (nist-46)
_KC1, _KC2, _KC3 = 10**-3.13, 10**-4.76, 10**-6.40
_CACIT, _MGCIT, _CAHCIT, _MGHCIT = 10**4.87, 10**4.89, 10**9.26, 10**8.91
KSP_CALCITE = 10**-8.48
AIR_CO2_mol_L = 10 ** -(3.4 + 1.47)  # pCO2 10^-3.4 atm and Henry's constant: calcite-equilibrium
_TINY = 1e-300
DAMPED_STRONG_FROM, STRONG_mol_L = 4, 0.1
LN10 = 2.302585092994046
MAX_JOINT_ROUNDS = 120
LONGEST_STEP_pH = 0.5
MAX_ROUNDS = 200
DAMPED_FROM = 30  # strong solutions swing between two answers: from here on each round goes half the way
PH_MIN, PH_MAX = -1.5, 15.5  # of the strongest acid and alkali a bottle holds
DAVIES_MAX = 2.0  # mol/L; above it Davies activities run away, so they stay at what they are there


@dataclass
class Speciation:
    """Free and paired species at a pH. [mol/L]"""

    species: dict[str, Any]
    ionic_strength: Any
    charge: Any
    alkalinity: Any
    pH: Any
    calcite_index: Any = 0.0


def start_of(t: Totals) -> list[Any]:
    """First guess of the free amounts: everything free."""
    return [t.Ca, t.Mg, t.Na, t.K, t.N3, t.SO4, t.C, t.P, t.Cit]


def strength_of(t: Totals, free: list[Any]) -> Any:
    """First guess of the ionic strength. [mol/L]"""
    Ca, Mg, Na, K, N3, SO4, C, P, Cit = free
    return 0.5 * (4 * (Ca + Mg + SO4 + Cit) + Na + K + N3 + t.Cl + t.NO3 + t.F + C + P) + _TINY


def one_round(
    t: Totals, free: list[Any], I: Any, pH: Any, activity: Any, citrate: bool
) -> tuple[list[Any], Any, Speciation]:
    """Next free amounts, next ionic strength, and the species now. ``activity`` is that of H+, 10^-pH."""
    Ca, Mg, Na, K, N3, SO4, C, P, Cit = free
    held = 0.5 * (I + DAVIES_MAX - abs(I - DAVIES_MAX))  # the lesser of the two, for numbers and arrays
    root = held**0.5
    lgy = -0.509 * (root / (1 + root) - 0.3 * held)
    y1 = 10**lgy
    y1y1 = y1 * y1
    y2 = y1y1 * y1y1  # powers of arrays are slow
    h, oh = activity / y1, _KW / activity / y1
    k1, k2 = _K1 / y1y1, _K2 / y2
    kp1, kp2 = _KP1 / y1y1, _KP2 / y2
    HCO3 = C / (1 + h / k1 + k2 / h)
    CO3 = HCO3 * k2 / h
    kp3 = _KP3 / (y1y1 * y2)
    H2PO4 = P / (1 + h / kp1 + kp2 / h * (1 + kp3 / h))
    HPO4 = H2PO4 * kp2 / h
    PO4 = HPO4 * kp3 / h
    NH4 = N3 / (1 + _KN / h)
    y22 = y2 * y2
    CaSO4, MgSO4 = _CASO4 * y22 * Ca * SO4, _MGSO4 * y22 * Mg * SO4
    NaSO4, KSO4, NHSO4 = _NASO4 * y2 * Na * SO4, _KSO4 * y2 * K * SO4, _NHSO4 * y2 * NH4 * SO4
    CaHCO3, MgHCO3 = _CAHCO3 * y2 * Ca * HCO3, _MGHCO3 * y2 * Mg * HCO3
    CaCO3, MgCO3 = _CACO3 * y22 * Ca * CO3, _MGCO3 * y22 * Mg * CO3
    CaHPO4, MgHPO4 = _CAHPO4 * y22 * Ca * HPO4, _MGHPO4 * y22 * Mg * HPO4
    CaH2PO4, MgH2PO4 = _CAH2PO4 * y2 * Ca * H2PO4, _MGH2PO4 * y2 * Mg * H2PO4
    HSO4 = _HSO4 * y2 * h * SO4
    species = {
        "H": h,
        "OH": oh,
        "Na": Na,
        "K": K,
        "NH4": NH4,
        "Ca": Ca,
        "Mg": Mg,
        "Cl": t.Cl,
        "NO3": t.NO3,
        "SO4": SO4,
        "F": t.F,
        "HCO3": HCO3,
        "CO3": CO3,
        "H2PO4": H2PO4,
        "HPO4": HPO4,
        "CaHCO3": CaHCO3,
        "MgHCO3": MgHCO3,
        "NaSO4": NaSO4,
        "KSO4": KSO4,
        "NH4SO4": NHSO4,
        "CaH2PO4": CaH2PO4,
        "MgH2PO4": MgH2PO4,
        "PO4": PO4,
        "HSO4": HSO4,
    }
    on_Ca = CaSO4 + CaHCO3 + CaCO3 + CaHPO4 + CaH2PO4
    on_Mg = MgSO4 + MgHCO3 + MgCO3 + MgHPO4 + MgH2PO4
    on_Cit: Any = 0.0
    if citrate:
        on_Ca, on_Mg, on_Cit = _citrates(
            species=species, Cit=Cit, Ca=Ca, Mg=Mg, h=h, y1=y1, y2=y2, on_Ca=on_Ca, on_Mg=on_Mg
        )
    new = [
        _share(t.Ca, Ca, on_Ca),
        _share(t.Mg, Mg, on_Mg),
        _share(t.Na, Na, NaSO4),
        _share(t.K, K, KSO4),
        _share(t.N3, N3, NHSO4),
        _share(t.SO4, SO4, CaSO4 + MgSO4 + NaSO4 + KSO4 + NHSO4 + HSO4),
        _share(t.C, C, CaHCO3 + MgHCO3 + CaCO3 + MgCO3),
        _share(t.P, P, CaHPO4 + MgHPO4 + CaH2PO4 + MgH2PO4),
        _share(t.Cit, Cit, on_Cit),
    ]
    strength, charge = _strength_and_charge(species)
    alkalinity = HCO3 + 2 * CO3 + oh - h + CaHCO3 + MgHCO3 + 2 * (CaCO3 + MgCO3)
    return new, strength, Speciation(species, strength, charge, alkalinity, pH, Ca * CO3 * y22 / KSP_CALCITE)


# species stand in one order always, with the citrates after the others: half the squared charge, and the charge
_ORDER = (
    "H",
    "OH",
    "Na",
    "K",
    "NH4",
    "Ca",
    "Mg",
    "Cl",
    "NO3",
    "SO4",
    "F",
    "HCO3",
    "CO3",
    "H2PO4",
    "HPO4",
    "CaHCO3",
    "MgHCO3",
    "NaSO4",
    "KSO4",
    "NH4SO4",
    "CaH2PO4",
    "MgH2PO4",
    "PO4",
    "HSO4",
    "Cit",
    "HCit",
    "H2Cit",
    "CaCit",
    "MgCit",
)
_WEIGHTS = {
    n: ([0.5 * SPECIES_CHARGE[name] ** 2 for name in _ORDER[:n]], [float(SPECIES_CHARGE[name]) for name in _ORDER[:n]])
    for n in (len(_ORDER) - 5, len(_ORDER))
}


def _strength_and_charge(species: dict[str, Any]) -> tuple[Any, Any]:
    if isinstance(species["Ca"], np.ndarray):  # one product over all species: sums of arrays would rule the time
        weights = np.array([[0.5 * SPECIES_CHARGE[n] ** 2, SPECIES_CHARGE[n]] for n in species]).T
        strength, charge = weights @ np.array(list(species.values()))
        return strength, charge
    half_squares, charges = _WEIGHTS[len(species)]
    return sum(map(mul, half_squares, species.values())), sum(map(mul, charges, species.values()))


def _citrates(
    *, species: dict[str, Any], Cit: Any, Ca: Any, Mg: Any, h: Any, y1: Any, y2: Any, on_Ca: Any, on_Mg: Any
) -> tuple[Any, Any, Any]:
    """Citrate's own acids and its complexes; ``Cit`` is all citrate not bound to a metal."""
    y3 = y1**9
    kc1, kc2, kc3 = _KC1 / (y1 * y1), _KC2 / y2, _KC3 * y2 / (y3 * y1)
    cit3 = Cit / (1 + h / kc3 + h * h / (kc2 * kc3) + h**3 / (kc1 * kc2 * kc3))
    hcit = cit3 * h / kc3
    CaCit, MgCit = _CACIT * y2 * y3 / y1 * Ca * cit3, _MGCIT * y2 * y3 / y1 * Mg * cit3
    CaHCit, MgHCit = _CAHCIT * y2 * y1 * y3 * Ca * h * cit3, _MGHCIT * y2 * y1 * y3 * Mg * h * cit3
    species |= {"Cit": cit3, "HCit": hcit, "H2Cit": hcit * h / kc2, "CaCit": CaCit, "MgCit": MgCit}
    return on_Ca + CaCit + CaHCit, on_Mg + MgCit + MgHCit, CaCit + MgCit + CaHCit + MgHCit


def _share(total: Any, free: Any, bound: Any) -> Any:
    return total * free / (free + bound + _TINY)


class Solver:
    """Speciation of one solution; each solve starts from the last one."""

    def __init__(self) -> None:
        self._free: list[float] | None = None

    def solve(self, t: Totals, pH: float) -> Speciation:
        """Species at ``pH`` for the totals ``t`` (closed to air). [mol/L]"""
        whole = start_of(t)
        last = self._free
        # an ion that was absent last time has nothing to start from
        free = last if last is not None and all(a > 0 or b == 0 for a, b in zip(last, whole, strict=True)) else whole
        I = strength_of(t, free)
        citrate, activity = t.Cit > 0, 10**-pH
        for turn in range(MAX_ROUNDS):
            new, strength, found = one_round(t, free, I, pH, activity, citrate)
            if turn >= DAMPED_FROM:
                new, strength = _halfway(new, free), 0.5 * (strength + I)
            change = max(abs(a - b) for a, b in zip(new, free, strict=True))
            settled = change < 1e-11 and abs(strength - I) < 1e-10
            free, I = new, strength
            if settled:
                break
        self._free = free
        return found

    def at_charge(self, t: Totals, charge: float, pH: float) -> Speciation | None:
        """Species at the pH where the charge is ``charge``, pairs and pH settling together; None if they do not.

        Each round of the fixed point is followed by a Newton step of the pH along the buffer
        capacity: ten times quicker than solving the pairs anew at every trial pH.
        """
        if t.Cit > 0:
            return None
        free = start_of(t)
        I = strength_of(t, free)
        last, relax = 0.0, 1.0
        for turn in range(MAX_JOINT_ROUNDS):
            new, strength, found = one_round(t, free, I, pH, 10**-pH, citrate=False)
            if turn >= (DAMPED_STRONG_FROM if I > STRONG_mol_L else DAMPED_FROM):
                new, strength = _halfway(new, free), 0.5 * (strength + I)
            step = (found.charge - charge) / (LN10 * buffer_of(found.species, free))
            # pairs buffer too, so that a step can overshoot: shorter after a turn, longer again on a straight way
            relax = 0.5 * relax if step * last < 0 else min(1.0, 1.3 * relax)
            last = step
            step = min(max(relax * step, -LONGEST_STEP_pH), LONGEST_STEP_pH)
            change = max(abs(a - b) for a, b in zip(new, free, strict=True))
            near = max(1e-10, 1e-7 * I)  # of a stock no more is asked than of its balance
            if change < near and abs(step) < 1e-6 and abs(strength - I) < 10 * near:
                return found
            free, I, pH = new, strength, pH + step
            if not PH_MIN < pH < PH_MAX:
                return None
        return None


def _halfway(new: list[Any], free: list[Any]) -> list[Any]:
    """Geometric mean of two rounds."""
    return [(a * b) ** 0.5 for a, b in zip(new, free, strict=True)]


def buffer_of(species: dict[str, Any], free: list[Any]) -> Any:
    """Buffer capacity over ln 10 of water, carbonate, phosphate and ammonia, for numbers and arrays. [mol/L]"""
    C, P, N3 = free[6], free[7], free[4]
    total = species["H"] + species["OH"]
    for whole, middle, last in ((C, species["HCO3"], species["CO3"]), (P, species["H2PO4"], species["HPO4"])):
        first = _not_below_zero(whole - middle - last - (species["PO4"] if whole is P else 0.0))
        total = total + (first * middle + middle * last + 4 * first * last) / (whole + _TINY)
    total = total + species["HSO4"] * species["SO4"] / (species["HSO4"] + species["SO4"] + _TINY)
    total = total + species["HPO4"] * species["PO4"] / (P + _TINY)
    return total + species["NH4"] * _not_below_zero(N3 - species["NH4"]) / (N3 + _TINY)


def _not_below_zero(x: Any) -> Any:
    return 0.5 * (x + abs(x))


def aired(t: Totals, alkalinity_eq_L: float) -> Speciation:
    """Species in equilibrium with open air that hold this carbonate alkalinity; nothing precipitates."""
    solver = Solver()

    def at(pH: float) -> Speciation:
        C = max(alkalinity_eq_L, 1e-6)
        for _ in range(12):  # carbon that leaves as much dissolved CO2 as the air keeps in
            found = solver.solve(replace(t, C=C), pH)
            root = found.ionic_strength**0.5
            y1 = 10 ** (-0.509 * (root / (1 + root) - 0.3 * found.ionic_strength))
            co2 = found.species["HCO3"] * y1 * 10**-pH / _K1
            ratio = AIR_CO2_mol_L / co2 if co2 > 0 else 1.0
            C *= min(max(ratio, 0.1), 10.0)
            if abs(ratio - 1) < 1e-5:
                break
        return found

    pH = root_between(lambda p: at(p).alkalinity - alkalinity_eq_L, 4.0, 9.6, xtol=1e-4)
    return at(pH)
