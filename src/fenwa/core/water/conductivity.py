"""Conductivity of a solution from its ions: mixture Debye-Hückel-Onsager with pairs and pH."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.water.ions import (
    LAMBDA0,
    SPECIES_CHARGE,
    AddedIons,
    MEQ_CaCO3,
    Totals,
    WaterIons,
    add_feed,
    check_ions,
    totals_of,
)
from fenwa.core.water.speciation import PH_MAX, PH_MIN, Solver, Speciation
from fenwa.core.working import Computed, Ledger

ION_SIZE_A = 4.0  # Å, from handbook salt data
_HALVINGS = 26  # of the whole range of pH: to a millionth
DEFAULT_PH = 7.5  # of a water whose pH nobody measured


@dataclass(frozen=True)
class IonConductivity:
    """Conductivity from ions, its range, and what the speciation found."""

    ec25_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    pH: float
    ionic_strength_mol_L: float
    balance_error_pct: float


@dataclass(frozen=True)
class Prepared:
    """A water ready for feed: totals with carbon, its own charge error, its pH."""

    totals: Totals
    charge_error: float
    pH: float


def prepare(ions: WaterIons) -> Prepared:
    """Find the inorganic carbon that explains the alkalinity at the water's pH."""
    pH = ions.pH if ions.pH is not None else (DEFAULT_PH if _carries_carbon(ions) else 7.0)
    totals = totals_of(ions)
    wanted = _alkalinity_eq_L(ions, totals)
    solver = Solver()
    totals.C = wanted
    if wanted > 0:
        for _ in range(40):
            found = solver.solve(totals, pH).alkalinity
            if found <= 0 or abs(found - wanted) < 1e-10:
                break
            totals.C *= min(max(wanted / found, 0.2), 5.0)
    return Prepared(totals, solver.solve(totals, pH).charge, pH)


def _carries_carbon(ions: WaterIons) -> bool:
    return ions.alkalinity_mg_L_CaCO3 is None or ions.alkalinity_mg_L_CaCO3 > 0


def _alkalinity_eq_L(ions: WaterIons, t: Totals) -> float:
    if ions.alkalinity_mg_L_CaCO3 is not None:
        return ions.alkalinity_mg_L_CaCO3 / MEQ_CaCO3 / 1000
    # not measured: whatever balances the ions that were
    return max(0.0, 2 * t.Ca + 2 * t.Mg + t.Na + t.K + t.N3 - t.Cl - t.NO3 - 2 * t.SO4 - t.F - t.P)


def dissolve(base: Prepared, feed: AddedIons | None) -> Speciation:
    """Species after the feed: pH moves until the water's own charge error is met again."""
    if feed is None:
        return Solver().solve(base.totals, base.pH)
    return at_own_charge(add_feed(base.totals, feed), base)


def at_own_charge(totals: Totals, base: Prepared) -> Speciation:
    """Species of ``totals`` at the pH where the charge error of the water they came from is met again."""
    near = Solver().at_charge(totals, base.charge_error, base.pH)
    if near is not None:
        return near
    # rare: the strongest acids, alkalis and slurries. Halving needs no smooth curve, and each step settles on its own.
    low, high = PH_MIN, PH_MAX
    for _ in range(_HALVINGS):
        middle = 0.5 * (low + high)
        found = Solver().solve(totals, middle)
        low, high = (middle, high) if found.charge > base.charge_error else (low, middle)
    return found


@dataclass(frozen=True)
class Onsager:
    """Means over cations and anions that the Onsager terms need."""

    z_cat: Any
    z_an: Any
    lam_cat: Any
    lam_an: Any
    F: Any


def onsager_means(s: Speciation) -> Onsager:
    """Equivalent-weighted mean charges and mobilities, and the relaxation factor F."""
    sums: dict[int, list[Any]] = {1: [0.0, 0.0, 0.0], -1: [0.0, 0.0, 0.0]}
    for name, c in s.species.items():
        z = SPECIES_CHARGE[name]
        side = sums[1 if z > 0 else -1]
        side[0] = side[0] + c * abs(z)
        side[1] = side[1] + c * z * z
        side[2] = side[2] + c * abs(z) * LAMBDA0[name]
    zc, za = sums[1][1] / sums[1][0], sums[-1][1] / sums[-1][0]
    lc, la = sums[1][2] / sums[1][0], sums[-1][2] / sums[-1][0]
    q = zc * za / (zc + za) * (lc + la) / (zc * la + za * lc)
    return Onsager(zc, za, lc, la, q / (1 + q**0.5))


def conductance_uS_cm(s: Speciation) -> Any:
    """Conductivity at 25 °C of a speciated solution, or of many when its species are arrays. [µS/cm]"""
    o = onsager_means(s)
    root = s.ionic_strength**0.5
    damp = root / (1 + 0.329 * ION_SIZE_A * root)
    total: Any = 0.0
    for name, c in s.species.items():
        z = SPECIES_CHARGE[name]
        size, opposite = abs(z), (o.z_an if z > 0 else o.z_cat)
        lam0 = LAMBDA0[name]
        lam = lam0 - (0.785 * size * opposite * o.F * lam0 + 30.3 * size) * damp
        total = total + 1000 * c * size * 0.5 * (lam + abs(lam))  # never below zero
    return total


def ec_of(water: WaterIons, feed: AddedIons | None = None) -> float:
    """Conductivity at 25 °C, without the working: for solvers. [µS/cm]"""
    return float(conductance_uS_cm(dissolve(prepared(water), feed)))


@lru_cache(maxsize=256)
def prepared(water: WaterIons) -> Prepared:
    """A water ready for feed, remembered: a page asks about the same one again and again."""
    return prepare(water)


def charge_balance_pct(ions: WaterIons) -> float:
    """100 (cations - anions) / (cations + anions) in meq/L of a report. [%]"""
    t = totals_of(ions)
    cations = 2 * t.Ca + 2 * t.Mg + t.Na + t.K + t.N3
    anions = t.Cl + t.NO3 + 2 * t.SO4 + t.F + t.P + _alkalinity_eq_L(ions, t)
    both = cations + anions
    return 100 * (cations - anions) / both if both > 0 else 0.0


def scaled_to(ions: WaterIons, ec25_uS_cm: float) -> WaterIons:
    """The same water made thinner or stronger until its computed EC is the measured one."""
    factor = 1.0
    for _ in range(25):
        trial = _times(ions, factor)
        ratio = ec25_uS_cm / ec_of(trial)
        if abs(ratio - 1) < 1e-6:
            break
        factor *= ratio
    return _times(ions, factor)


def _times(ions: WaterIons, factor: float) -> WaterIons:
    changed = {name: value * factor for name, value in vars(ions).items() if name != "pH" and value is not None}
    return replace(ions, **changed)


@calculation("ion-conductivity", title="Conductivity from ions", station="water")
def ion_conductivity(*, water: WaterIons, added: AddedIons | None = None) -> Computed[IonConductivity]:
    """Conductivity at 25 °C of a water, with or without feed dissolved in it.

    Parameters
    ----------
    water : WaterIons
        The report, alkalinity as CaCO3; what is not measured stays empty. [mg/L]
    added : AddedIons
        What the feed brings. [mg/L]

    Returns
    -------
    Computed
        Conductivity with its range, the pH of the closed can, the charge balance. [µS/cm]

    Raises
    ------
    InputError
        If no ion at all is given.
    OutOfRange
        If an amount is negative or absurd.

    Notes
    -----
    Checked from 0.0005 to 0.1 mol/L; mean error 0.6 %, largest 4 % below 3000 µS/cm.
    Urea, silica and humics carry no current. Above about 3000 µS/cm the error grows.

    References
    ----------
    robinson-stokes ch. 7; nordstrom-1990; plummer-busenberg-1982
    """
    check_ions(water, "/water")
    if added is not None:
        for name, value in vars(added).items():
            require(
                value,
                f"Added {name.removesuffix('_mg_L').replace('_', '-')}",
                "mg/L",
                low=0,
                high=100_000,
                pointer=f"/added/{name}",
            )
    if not any(v for k, v in vars(water).items() if k != "pH") and not (added and any(vars(added).values())):
        raise InputError("No ion is given. Enter at least one amount in mg/L.", pointer="/water")
    s = dissolve(prepared(water), added)
    ledger = Ledger(
        "Conductivity from ions",
        "Below 3000 µS/cm within about 5 %; 10 % when the report does not balance.",
        ("robinson-stokes", "crc-vanysek", "nordstrom-1990", "plummer-busenberg-1982"),
    )
    if water.pH is None and _carries_carbon(water):
        ledger.assume(f"pH of the water not measured: {DEFAULT_PH} is taken.")
    if water.alkalinity_mg_L_CaCO3 is None:
        ledger.assume("Alkalinity not measured: it is set to what balances the other ions.")
    if added and added.urea_N_mg_L:
        ledger.caution("Urea adds nitrogen and no conductivity: a meter cannot see it.")
    ec = _write_working(ledger, s)
    error = charge_balance_pct(water)
    share = 0.05 if abs(error) <= 5 else 0.10
    if share > 0.05:
        ledger.caution(f"The report is out of balance by {error:.1f} %: the range is doubled. Check the units.")
    ledger.take("r", "relative half-width", share, "", "table:accuracy of the model")
    low = ledger.step("EC_low", "EC * (1 - r)", "µS/cm", "lower end of the range")
    high = ledger.step("EC_high", "EC * (1 + r)", "µS/cm", "upper end of the range")
    return ledger.close(IonConductivity(ec, low, high, s.pH, s.ionic_strength, error))


def _write_working(ledger: Ledger, s: Speciation) -> float:
    """The conductance sum with every ion's share, in the symbols of the model."""
    o = onsager_means(s)
    ledger.found("I", "ionic strength", s.ionic_strength, "mol/L", "ion pairs and pH by fixed point")
    ledger.found("zc", "mean charge of the cations", o.z_cat, "", "weighted by equivalents")
    ledger.found("za", "mean charge of the anions", o.z_an, "", "weighted by equivalents")
    ledger.found("lc", "mean mobility of the cations", o.lam_cat, "S cm²/mol", "weighted by equivalents")
    ledger.found("la", "mean mobility of the anions", o.lam_an, "S cm²/mol", "weighted by equivalents")
    ledger.step("q", "zc * za / (zc + za) * (lc + la) / (zc * la + za * lc)", "", "Onsager's q")
    ledger.step("F", "q / (1 + sqrt(q))", "", "relaxation factor")
    ledger.step("D", f"sqrt(I) / (1 + 0.329 * {ION_SIZE_A} * sqrt(I))", "", "damping by the ionic cloud")
    parts = []
    for name, c in s.species.items():
        if c < 1e-9:
            continue
        z = abs(SPECIES_CHARGE[name])
        opposite = "za" if SPECIES_CHARGE[name] > 0 else "zc"
        ledger.found(f"c_{name}", f"{name}, free", c * 1000, "mmol/L", "speciation")
        ledger.take(f"l_{name}", f"mobility of {name} when alone", LAMBDA0[name], "S cm²/mol", "table:crc-vanysek")
        ledger.step(
            f"k_{name}",
            f"c_{name} * {z} * max(0, l_{name} - (0.785 * {z} * {opposite} * F * l_{name} + 30.3 * {z}) * D)",
            "µS/cm",
            f"share of {name}",
        )
        parts.append(f"k_{name}")
    return ledger.step("EC", " + ".join(parts), "µS/cm", "conductivity at 25 °C")
