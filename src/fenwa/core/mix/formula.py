"""Pure salts by their formula: shares of each element, nitrogen by form."""

from __future__ import annotations

import re
from collections import Counter

from fenwa.core.errors import InputError

# g/mol, iupac-atomic-weights
ATOMIC_MASS = {
    "H": 1.008, "B": 10.81, "C": 12.011, "N": 14.007, "O": 15.999, "F": 18.998, "Na": 22.990, "Mg": 24.305,
    "Si": 28.085, "P": 30.974, "S": 32.06, "Cl": 35.453, "K": 39.098, "Ca": 40.078, "Mn": 54.938, "Fe": 55.845,
    "Cu": 63.546, "Zn": 65.38, "Mo": 95.95,
}  # fmt: skip
# nitrogen is told apart by the group it stands in
_GROUPS = {"NO3": Counter({"N": 1, "O": 3, "nitrate": 1}), "NH4": Counter({"N": 1, "H": 4, "ammonium": 1}),
           "NH2": Counter({"N": 1, "H": 2, "urea": 1})}  # fmt: skip
_TOKEN = re.compile(r"(NO3|NH4|NH2|[A-Z][a-z]?|\(|\))(\d*)")
_PART = re.compile(r"^(\d*)(.+)$")


def atoms_of(formula: str, *, pointer: str = "/formula") -> Counter[str]:
    """Atoms of a formula such as ``Ca(NO3)2.4H2O``; hydrates after a point, a middle dot or a space.

    Raises
    ------
    InputError
        If a sign is not understood or a bracket is left open.
    """
    whole: Counter[str] = Counter()
    for part in re.split(r"[.·*\s]+", formula.strip()):
        found = _PART.match(part)
        if not found:
            raise _unread(formula, pointer)
        times = int(found.group(1) or 1)
        for atom, n in _group(found.group(2), formula, pointer).items():
            whole[atom] += n * times
    return whole


def _group(text: str, formula: str, pointer: str) -> Counter[str]:
    stack: list[Counter[str]] = [Counter()]
    at = 0
    while at < len(text):
        found = _TOKEN.match(text, at)
        if not found:
            raise _unread(formula, pointer)
        sign, count = found.group(1), int(found.group(2) or 1)
        at = found.end()
        if sign == "(":
            stack.append(Counter())
            continue
        if sign == ")":
            if len(stack) < 2:
                raise _unread(formula, pointer)
            inner = stack.pop()
        elif sign in _GROUPS:
            inner = _GROUPS[sign]
        elif sign in ATOMIC_MASS:
            inner = Counter({sign: 1})
        else:
            raise _unread(formula, pointer)
        for atom, n in inner.items():
            stack[-1][atom] += n * count
    if len(stack) != 1:
        raise _unread(formula, pointer)
    return stack[0]


def _unread(formula: str, pointer: str) -> InputError:
    return InputError(f"Formula “{formula}” is not understood. Write it like Ca(NO3)2.4H2O.",
                      pointer=pointer, value=formula)  # fmt: skip


def molar_mass_of(formula: str) -> float:
    """Molar mass of a formula. [g/mol]"""
    return sum(ATOMIC_MASS[a] * n for a, n in atoms_of(formula).items() if a in ATOMIC_MASS)


def shares_of(formula: str, *, pointer: str = "/formula") -> dict[str, float]:
    """Shares a label would state, as fields of ``Label``; P and K as elements. [%]"""
    atoms = atoms_of(formula, pointer=pointer)
    mass = sum(ATOMIC_MASS[a] * n for a, n in atoms.items() if a in ATOMIC_MASS)
    if mass <= 0:
        raise _unread(formula, pointer)
    other = atoms["N"] - atoms["nitrate"] - atoms["ammonium"] - atoms["urea"]
    counted = {"n_nitrate_pct": ("N", atoms["nitrate"]), "n_ammonium_pct": ("N", atoms["ammonium"]),
               "n_urea_pct": ("N", atoms["urea"]), "n_other_pct": ("N", other)}  # fmt: skip
    for atom in ("P", "K", "Ca", "Mg", "S", "Cl", "Na", "Fe", "Mn", "Zn", "Cu", "B", "Mo"):
        counted[f"{atom.lower()}_pct"] = (atom, atoms[atom])
    return {key: 100 * ATOMIC_MASS[atom] * n / mass for key, (atom, n) in counted.items() if n > 0}
