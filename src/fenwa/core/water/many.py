"""Conductivity of thousands of solutions at once: the same model, array by array."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fenwa.core.water.conductivity import DEFAULT_PH, conductance_uS_cm
from fenwa.core.water.ions import MOLAR_MASS, AddedIons, MEQ_CaCO3, Totals, WaterIons, add_feed
from fenwa.core.water.speciation import (
    DAMPED_FROM,
    DAMPED_STRONG_FROM,
    LN10,
    PH_MAX,
    PH_MIN,
    LONGEST_STEP_pH,
    Speciation,
    STRONG_mol_L,
    buffer_of,
    one_round,
    start_of,
    strength_of,
)

Array = NDArray[np.float64]
_WATER_ROUNDS = 45  # carbon and species settle together
_PH_STEPS = 18  # halvings of that bracket: to 0.0001, finer than any meter
_PH_ROUNDS = 3  # each halving starts from the last species
_LAST_ROUNDS = 30
_STEPS = 60  # of the Newton search
_SETTLED = 1e-7  # of the ionic strength: a hundredth of what a meter's last digit is
_NEAR_pH = 1e-5
_CARBON = 6  # place of inorganic carbon among the free amounts


def _columns(kind: type, rows: dict[str, Any], n: int) -> Any:
    """Amounts as arrays of one length; what is missing is none."""
    return kind(**{f.name: np.broadcast_to(np.asarray(rows.get(f.name, 0.0), float), (n,)) for f in fields(kind)})


def ec_of_many(water: dict[str, Array], added: dict[str, Array] | None = None) -> Array:
    """Conductivity at 25 °C of many solutions.

    Parameters
    ----------
    water : dict
        Fields of ``WaterIons``, each an array of one length or a number; what is missing is
        none. Alkalinity must be stated. A missing pH is 7.5. [mg/L]
    added : dict
        Fields of ``AddedIons``, likewise; then pH moves until each water's own charge error is
        met again, as in ``ec_of``. [mg/L]

    Returns
    -------
    numpy.ndarray
        One conductivity for each solution; within 0.05 % of ``ec_of``. [µS/cm]

    References
    ----------
    robinson-stokes ch. 7
    """
    n = max(np.size(v) for v in [*water.values(), *(added or {}).values()])
    ions = _columns(WaterIons, {"pH": DEFAULT_PH, **water}, n)
    with np.errstate(all="ignore"):
        amounts: dict[str, Any] = {
            name: getattr(ions, f"{name}_mg_L") / MOLAR_MASS[name] / 1000
            for name in ("Ca", "Mg", "Na", "K", "Cl", "NO3", "SO4", "F", "P")
        }
        amounts["N3"] = ions.NH4_mg_L / MOLAR_MASS["NH4"] / 1000
        amounts["C"] = ions.alkalinity_mg_L_CaCO3 / MEQ_CaCO3 / 1000
        totals = Totals(**amounts)
        wanted: Any = totals.C
        free = start_of(totals)
        I = strength_of(totals, free)
        activity = 10**-ions.pH
        for _ in range(_WATER_ROUNDS):
            before, (free, I, found) = free, one_round(totals, free, I, ions.pH, activity, citrate=False)
            ratio = np.clip(np.where(found.alkalinity > 0, wanted / found.alkalinity, 1.0), 0.2, 5.0)
            totals.C = np.where(wanted > 0, totals.C * ratio, 0.0)  # type: ignore[assignment]
            free[_CARBON] = free[_CARBON] * ratio  # free and total together, or the two would swing
            if _moved(free, before, I) < _SETTLED:
                break
        if added is not None:
            found = _with_feed(add_feed(totals, _columns(AddedIons, added, n)), found)
        return np.asarray(conductance_uS_cm(found))


def _moved(new: list[Any], free: list[Any], I: Any) -> float:
    """The most that a free amount moved in a round, as a share of the ionic strength."""
    return float(max(np.max(abs(a - b) / I) for a, b in zip(new, free, strict=True)))


def _with_feed(totals: Totals, water: Speciation) -> Speciation:
    """Each at the pH where its own charge error is met again: by Newton steps, and by halving where those fail."""
    found, settled = _by_steps(totals, water)
    if not settled.all():
        rest = ~settled
        amounts: dict[str, Any] = {
            f.name: np.broadcast_to(getattr(totals, f.name), rest.shape)[rest] for f in fields(Totals)
        }
        halved = _by_halving(Totals(**amounts), water.pH[rest], water.charge[rest])
        found.ionic_strength[rest] = halved.ionic_strength
        for name, values in halved.species.items():
            found.species[name] = np.array(np.broadcast_to(found.species[name], rest.shape))
            found.species[name][rest] = values
    return found


def _by_steps(totals: Totals, water: Speciation) -> tuple[Speciation, NDArray[np.bool_]]:
    """As ``Solver.at_charge``, all at once, and which of them settled."""
    free = start_of(totals)
    I, pH = strength_of(totals, free), np.array(water.pH)
    last, relax = np.zeros_like(pH), np.ones_like(pH)
    for turn in range(_STEPS):
        new, strength, found = one_round(totals, free, I, pH, 10**-pH, citrate=False)
        half = (turn >= DAMPED_FROM) | ((turn >= DAMPED_STRONG_FROM) & (I > STRONG_mol_L))
        new = [np.where(half, (a * b) ** 0.5, a) for a, b in zip(new, free, strict=True)]
        strength = np.where(half, 0.5 * (strength + I), strength)
        step = (found.charge - water.charge) / (LN10 * buffer_of(found.species, free))
        relax = np.where(step * last < 0, 0.5 * relax, np.minimum(1.0, 1.3 * relax))
        last = step
        step = np.clip(relax * step, -LONGEST_STEP_pH, LONGEST_STEP_pH)
        moved = np.max([abs(a - b) for a, b in zip(new, free, strict=True)], axis=0)
        settled = (moved < _SETTLED * I) & (abs(step) < _NEAR_pH) & (PH_MIN < pH) & (pH < PH_MAX)
        if settled.all():
            break
        free, I, pH = new, strength, np.clip(pH + step, PH_MIN, PH_MAX)
    return found, settled


def _by_halving(totals: Totals, pH: Array, charge: Array) -> Speciation:
    """The strongest acids, alkalis and slurries: halving needs no smooth curve."""
    low, high = np.full_like(pH, PH_MIN), np.full_like(pH, PH_MAX)
    free = start_of(totals)
    I = strength_of(totals, free)
    middle, activity = pH, 10**-pH
    for _ in range(_PH_STEPS):
        middle = 0.5 * (low + high)
        activity = 10**-middle
        for _ in range(_PH_ROUNDS):
            free, I, found = one_round(totals, free, I, middle, activity, citrate=False)
        too_acid = found.charge > charge
        low, high = np.where(too_acid, middle, low), np.where(too_acid, high, middle)
    for _ in range(_LAST_ROUNDS):
        free, I, found = one_round(totals, free, I, middle, activity, citrate=False)
    return found
