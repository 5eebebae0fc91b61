"""Pure salts by their formula: shares of each element, nitrogen by form."""

from __future__ import annotations

import re
from collections import Counter

from fenwa.core.errors import InputError

# g/mol, iupac-atomic-weights
ATOMIC_MASS = {
    "H": 1.008,
    "B": 10.81,
    "C": 12.011,
    "N": 14.007,
    "O": 15.999,
    "F": 18.998,
    "Na": 22.990,
    "Mg": 24.305,
    "Si": 28.085,
    "P": 30.974,
    "S": 32.06,
    "Cl": 35.453,
    "K": 39.098,
    "Ca": 40.078,
    "Mn": 54.938,
    "Fe": 55.845,
    "Cu": 63.546,
    "Zn": 65.38,
    "Mo": 95.95,
}
# nitrogen is told apart by the group it stands in
_GROUPS = {
    "NO3": Counter({"N": 1, "O": 3, "nitrate": 1}),
    "NH4": Counter({"N": 1, "H": 4, "ammonium": 1}),
    "NH2": Counter({"N": 1, "H": 2, "urea": 1}),
}
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
    return InputError(
        f"Formula “{formula}” is not understood. Write it like Ca(NO3)2.4H2O.", pointer=pointer, value=formula
    )


# ions a formula falls apart into in water: atoms, charge. What is not on this list stays undecided (None).
IONS: dict[str, tuple[dict[str, int], int]] = {
    "NH4": ({"N": 1, "H": 4}, 1),
    "K": ({"K": 1}, 1),
    "Na": ({"Na": 1}, 1),
    "Ca": ({"Ca": 1}, 2),
    "Mg": ({"Mg": 1}, 2),
    "Mn": ({"Mn": 1}, 2),
    "Zn": ({"Zn": 1}, 2),
    "Cu": ({"Cu": 1}, 2),
    "Fe2": ({"Fe": 1}, 2),
    "Fe3": ({"Fe": 1}, 3),
    "NO3": ({"N": 1, "O": 3}, -1),
    "Cl": ({"Cl": 1}, -1),
    "F": ({"F": 1}, -1),
    "SO4": ({"S": 1, "O": 4}, -2),
    "PO4": ({"P": 1, "O": 4}, -3),
    "CO3": ({"C": 1, "O": 3}, -2),
    "MoO4": ({"Mo": 1, "O": 4}, -2),
    "urea": ({"C": 1, "O": 1, "N": 2, "H": 4}, 0),
    "B(OH)3": ({"B": 1, "O": 3, "H": 3}, 0),
    "Si(OH)4": ({"Si": 1, "O": 4, "H": 4}, 0),
    "H2O": ({"H": 2, "O": 1}, 0),
    "H": ({"H": 1}, 1),
    "OH": ({"O": 1, "H": 1}, -1),
}
_OF_ATOM = {
    "K": "K",
    "Na": "Na",
    "Ca": "Ca",
    "Mg": "Mg",
    "Mn": "Mn",
    "Zn": "Zn",
    "Cu": "Cu",
    "Cl": "Cl",
    "F": "F",
    "S": "SO4",
    "P": "PO4",
    "Mo": "MoO4",
    "B": "B(OH)3",
    "Si": "Si(OH)4",
}


def ion_mass(ion: str) -> float:
    """Molar mass of an ion or neutral of ``IONS``. [g/mol]"""
    return sum(ATOMIC_MASS[atom] * n for atom, n in IONS[ion][0].items())


def ions_of(formula: str, *, pointer: str = "/formula") -> dict[str, float] | None:
    """What a mole of the formula gives to water, phosphate and carbonate bare of protons; None if that is not known.

    Protons stand as H or OH, crystal water as H2O, below 0 where an oxide takes water up. Charges are
    in balance and the masses sum to the formula's. None for what holds carbon, nitrogen, sulfur or
    phosphorus in another form (chelates, acetates, sulfites), or does not balance. [mol/mol]
    """
    atoms = atoms_of(formula, pointer=pointer)
    ions: Counter[str] = Counter({"NO3": atoms["nitrate"], "NH4": atoms["ammonium"]})
    other = atoms["N"] - atoms["nitrate"] - atoms["ammonium"] - atoms["urea"]
    if other or atoms["urea"] % 2 or atoms["C"] < atoms["urea"] // 2:
        return None
    ions["urea"] = atoms["urea"] // 2
    ions["CO3"] = atoms["C"] - ions["urea"]
    for atom, ion in _OF_ATOM.items():
        ions[ion] += atoms[atom]
    for iron in ("Fe2", "Fe3"):
        found = _with_protons(atoms, ions + Counter({iron: atoms["Fe"]}))
        if found is not None:
            return found
    return None


def _with_protons(atoms: Counter[str], ions: Counter[str]) -> dict[str, float] | None:
    """The ions with what is left of hydrogen and oxygen as water, acid or alkali; None if charges do not balance."""
    O = atoms["O"] - sum(n * IONS[ion][0].get("O", 0) for ion, n in ions.items())
    H = atoms["H"] - sum(n * IONS[ion][0].get("H", 0) for ion, n in ions.items())
    made: dict[str, float] = {ion: float(n) for ion, n in ions.items() if n}
    if 2 * O > H:
        made |= {"OH": 2.0 * O - H, "H2O": float(H - O)}
    else:
        made |= {"H": float(H - 2 * O), "H2O": float(O)}
    made = {ion: n for ion, n in made.items() if n}
    return made if made and sum(n * IONS[ion][1] for ion, n in made.items()) == 0 else None


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
    counted = {
        "n_nitrate_pct": ("N", atoms["nitrate"]),
        "n_ammonium_pct": ("N", atoms["ammonium"]),
        "n_urea_pct": ("N", atoms["urea"]),
        "n_other_pct": ("N", other),
    }
    for atom in ("P", "K", "Ca", "Mg", "S", "Cl", "Na", "Fe", "Mn", "Zn", "Cu", "B", "Mo"):
        counted[f"{atom.lower()}_pct"] = (atom, atoms[atom])
    carbonate = (ions_of(formula, pointer=pointer) or {}).get("CO3", 0.0)
    extra = {"co3_pct": 100 * ion_mass("CO3") * carbonate / mass} if carbonate else {}
    return extra | {key: 100 * ATOMIC_MASS[atom] * n / mass for key, (atom, n) in counted.items() if n > 0}
