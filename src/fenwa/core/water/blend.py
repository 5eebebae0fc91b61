"""Several waters to targets: shares by linear programme, conductivity by the ion model."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import BaseWater, composition_of, is_thin
from fenwa.core.water.report import hardness_of
from fenwa.core.working import Computed, Ledger

BlendMethod = Literal["ions", "straight line"]
Quantity = Literal["ec", "alkalinity", "hardness"]
Sense = Literal["about", "at most"]
Objective = Literal["cost", "least of the scarce"]

WORDS = {"ec": "EC", "alkalinity": "alkalinity", "hardness": "hardness"}
UNITS = {"ec": "µS/cm", "alkalinity": "mg/L CaCO3", "hardness": "mg/L CaCO3"}
MAX_WATERS = 6
_ROUNDS = 12  # the ion model bends little: three or four are enough
_NEAR_uS_cm = 0.05
_WATER_CEILING_uS_cm = 50_000.0


@dataclass(frozen=True)
class BlendWater:
    """A water to blend: conductivity, ions if reported, price and litres on hand if known."""

    water: BaseWater
    price_per_L: float | None = None
    on_hand_L: float | None = None
    alkalinity_mg_L_CaCO3: float | None = None
    hardness_mg_L_CaCO3: float | None = None


@dataclass(frozen=True)
class BlendTarget:
    """What is wanted of the blend. [µS/cm; mg/L CaCO3]"""

    quantity: Quantity
    value: float
    sense: Sense = "about"


@dataclass(frozen=True)
class BlendPart:
    """A water's share of the blend. [L]"""

    name: str
    share: float
    litres: float


@dataclass(frozen=True)
class Blend:
    """Shares and what the blend will read. Cost is None while a used water's price is not known."""

    parts: tuple[BlendPart, ...]
    ec25_uS_cm: float
    straight_line_ec_uS_cm: float
    alkalinity_mg_L_CaCO3: float | None
    hardness_mg_L_CaCO3: float | None
    cost: float | None
    method: BlendMethod


def mix_ions(ions: list[WaterIons], shares: list[float]) -> WaterIons:
    """Ions and alkalinity of a blend, exact; an ion one of them did not measure is not known. pH by shares."""

    def part(name: str) -> float | None:
        values = [(getattr(w, name), f) for w, f in zip(ions, shares, strict=True) if f > 0]
        if any(v is None for v, _ in values):
            return None
        return float(sum(v * f for v, f in values))

    return WaterIons(**{name: part(name) for name in vars(ions[0])})


@dataclass(frozen=True)
class _Known:
    """Waters as columns: what mixes linearly, and the ions if all have them."""

    ec: np.ndarray
    alkalinity: list[float | None]
    hardness: list[float | None]
    ions: list[WaterIons] | None

    def ec_at(self, shares: np.ndarray) -> float:
        if self.ions is None:
            return float(self.ec @ shares)
        return ec_of(mix_ions(self.ions, [float(f) for f in shares]))

    def amounts(self, quantity: Quantity, waters: list[BlendWater]) -> np.ndarray:
        column = self.alkalinity if quantity == "alkalinity" else self.hardness
        for w, amount in zip(waters, column, strict=True):
            if amount is None:
                raise Underspecified(
                    f"{WORDS[quantity].capitalize()} of {w.water.name} is not known. "
                    f"Measure it with a drop test, or choose a target in EC.",
                    pointer="/targets",
                )
        return np.array(column, float)


def _known(waters: list[BlendWater]) -> _Known:
    usable = all(w.water.ions is not None or is_thin(w.water.kind) for w in waters)
    some = any(w.water.ions is not None for w in waters)
    ions = [composition_of(w.water)[0] for w in waters] if usable and some else None
    alkalinity, hardness = [], []
    for i, w in enumerate(waters):
        own = ions[i] if ions else w.water.ions
        thin = composition_of(w.water)[0] if is_thin(w.water.kind) else None
        a, h = w.alkalinity_mg_L_CaCO3, w.hardness_mg_L_CaCO3
        for source in (own, thin):
            a = a if a is not None else source.alkalinity_mg_L_CaCO3 if source else None
            h = h if h is not None else hardness_of(source) if source else None
        alkalinity.append(a)
        hardness.append(h)
    return _Known(np.array([w.water.ec25_uS_cm for w in waters]), alkalinity, hardness, ions)


@calculation("blend", title="Blend of waters", station="water")
def blend(
    *,
    waters: list[BlendWater],
    targets: list[BlendTarget],
    volume_L: float = 1.0,
    objective: Objective = "cost",
    scarce: int = 0,
) -> Computed[Blend]:
    """Shares of two or more waters that meet targets at least cost, or with least of a scarce one.

    Parameters
    ----------
    waters : list
        Two to six waters. [µS/cm]
    targets : list
        EC, alkalinity or hardness, each about or at most a value. [µS/cm; mg/L CaCO3]
    volume_L : float
        Volume wanted, above 0 to 10 000. [L]
    objective : str
        cost, or least of the scarce.
    scarce : int
        Place in the list of the scarce water, from 0.

    Returns
    -------
    Computed
        Share and litres of each water, EC, alkalinity, hardness and cost of the blend. [L]

    Raises
    ------
    Infeasible
        If no shares meet the targets; names the bound that fails.
    Underspecified
        If a quantity aimed at is not known of a water.

    Notes
    -----
    Ions and alkalinity mix exactly. With reports (or nearly pure waters) the conductivity comes from the
    mixed ions, solved by successive linear programmes; else the straight line is used, 1 to 9 % low.

    References
    ----------
    mass-balance; linear-programme; E1.17
    """
    _check(waters, targets, volume_L, objective, scarce)
    known = _known(waters)
    price = np.array([w.price_per_L or 0.0 for w in waters])
    # a hair of the other waters' price decides between equal answers
    aim = price if objective == "cost" else np.eye(len(waters))[scarce] + 1e-6 * price
    shares = _shares(waters, targets, known, aim, volume_L)
    method: BlendMethod = "ions" if known.ions is not None else "straight line"
    ledger = Ledger(
        "Blend of waters", "In ions: within 5 %. Straight line: 1 to 9 % low.", ("mass-balance", "linear-programme")
    )
    ledger.take("V", "volume wanted", volume_L, "L")
    line = []
    for i, (w, f) in enumerate(zip(waters, shares, strict=True), 1):
        ledger.take(f"C{i}", w.water.name, w.water.ec25_uS_cm, "µS/cm", "measured")
        ledger.found(f"f{i}", f"share of {w.water.name}", float(f), "", "linear programme")
        ledger.step(f"V{i}", f"f{i} * V", "L", f"of {w.water.name}")
        line.append(f"f{i} * C{i}")
    line_ec = ledger.step("C_line", " + ".join(line), "µS/cm", "what a straight line would say")
    if known.ions is not None:
        ec = ledger.found("EC", "conductivity of the mixed ions", known.ec_at(shares), "µS/cm", "ion model")
        ledger.assume("Ions and alkalinity mix exactly; the conductivity is computed from the mixed ions.")
        for w in waters:
            if w.water.ions is None:
                ledger.assume(composition_of(w.water)[1])
    else:
        ec = ledger.step("EC", "C_line", "µS/cm", "conductivity of the blend")
        ledger.assume("A report is missing: conductivities are mixed by the straight line, which reads 1 to 9 % low.")

    def mixed(column: list[float | None], symbol: str, words: str) -> float | None:
        used = [(i, a) for i, (a, f) in enumerate(zip(column, shares, strict=True), 1) if f > 0]
        if any(a is None for _, a in used):
            return None
        for i, a in used:
            ledger.take(f"{symbol}{i}", f"{words} of {waters[i - 1].water.name}", a or 0.0, "mg/L CaCO3", "measured")
        return ledger.step(symbol, " + ".join(f"f{i} * {symbol}{i}" for i, _ in used), "mg/L CaCO3", words)

    alkalinity = mixed(known.alkalinity, "A", "alkalinity")
    hardness = mixed(known.hardness, "H", "hardness")
    cost = None
    if all(w.price_per_L is not None for w, f in zip(waters, shares, strict=True) if f > 0):
        for i, p in enumerate(price, 1):
            ledger.take(f"p{i}", f"price of {waters[i - 1].water.name}", float(p), "per litre")
        cost = ledger.step(
            "cost", " + ".join(f"p{i} * V{i}" for i in range(1, len(waters) + 1)), "", "cost of the blend"
        )
    else:
        ledger.assume("A price is not known: it is counted as nothing when waters are compared.")
    parts = tuple(BlendPart(w.water.name, float(f), float(f) * volume_L) for w, f in zip(waters, shares, strict=True))
    return ledger.close(Blend(parts, ec, line_ec, alkalinity, hardness, cost, method))


def _check(
    waters: list[BlendWater], targets: list[BlendTarget], volume_L: float, objective: Objective, scarce: int
) -> None:
    if not 2 <= len(waters) <= MAX_WATERS:
        raise InputError(
            f"A blend takes 2 to {MAX_WATERS} waters; {len(waters)} given. Choose others.", pointer="/waters"
        )
    if len({w.water.name for w in waters}) < len(waters):
        raise InputError("The same water is chosen twice. Choose different waters.", pointer="/waters")
    for i, w in enumerate(waters):
        require(
            w.water.ec25_uS_cm,
            f"EC of {w.water.name}",
            "µS/cm",
            low=0,
            high=_WATER_CEILING_uS_cm,
            pointer=f"/waters/{i}",
        )
        if w.on_hand_L is not None:
            require(w.on_hand_L, f"Litres of {w.water.name}", "L", low=0, high=1_000_000, pointer=f"/waters/{i}")
    if not targets:
        raise Underspecified("No target is given. Enter an EC, an alkalinity or a hardness.", pointer="/targets")
    for t in targets:
        require(t.value, WORDS[t.quantity], UNITS[t.quantity], low=0, high=_WATER_CEILING_uS_cm, pointer="/targets")
    if len({t.quantity for t in targets}) < len(targets):
        raise InputError("A quantity is aimed at twice. Keep one target for each.", pointer="/targets")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    if objective == "least of the scarce" and not 0 <= scarce < len(waters):
        raise InputError("Name which of the waters is scarce.", pointer="/scarce")


def _rows(
    waters: list[BlendWater], targets: list[BlendTarget], known: _Known, at: np.ndarray
) -> list[tuple[BlendTarget, np.ndarray, float]]:
    """Each target as row . shares (= or <=) bound; the EC row is the tangent at ``at``."""
    rows = []
    for t in targets:
        if t.quantity != "ec":
            rows.append((t, known.amounts(t.quantity, waters), t.value))
            continue
        here = known.ec_at(at)
        slope = known.ec.copy()
        if known.ions is not None:
            corner = np.eye(len(at))
            slope = np.array([(known.ec_at(0.98 * at + 0.02 * corner[i]) - here) / 0.02 for i in range(len(at))])
            slope = slope - at @ slope + here  # shares add up to 1, so row . shares is the tangent, exact at ``at``
        rows.append((t, slope, t.value))
    return rows


def _programme(
    aim: np.ndarray, rows: list[tuple[BlendTarget, np.ndarray, float]], caps: list[float]
) -> np.ndarray | None:
    """Shares of least ``aim`` that keep the rows; None when there are none."""
    from scipy.optimize import linprog

    n = len(aim)
    equal = [(np.ones(n), 1.0)] + [(row, bound) for t, row, bound in rows if t.sense == "about"]
    below = [(row, bound) for t, row, bound in rows if t.sense == "at most"]
    found = linprog(
        aim,
        A_eq=np.array([r for r, _ in equal]),
        b_eq=np.array([b for _, b in equal]),
        A_ub=np.array([r for r, _ in below]) if below else None,
        b_ub=np.array([b for _, b in below]) if below else None,
        bounds=[(0.0, min(1.0, c)) for c in caps],
        method="highs",
    )
    return np.clip(np.asarray(found.x), 0.0, 1.0) if found.status == 0 else None


def _shares(
    waters: list[BlendWater], targets: list[BlendTarget], known: _Known, aim: np.ndarray, volume_L: float
) -> np.ndarray:
    caps = [1.0 if w.on_hand_L is None else w.on_hand_L / volume_L for w in waters]
    if sum(min(1.0, c) for c in caps) < 1 - 1e-9:
        have = sum(w.on_hand_L or 0.0 for w in waters)
        raise Infeasible(
            f"Only {have:g} L are on hand and {volume_L:g} L are wanted. Mix less, or add a water.",
            pointer="/volume_L",
            on_hand_L=have,
        )
    at = np.full(len(waters), 1.0 / len(waters))
    for _ in range(_ROUNDS):
        rows = _rows(waters, targets, known, at)
        found = _programme(aim, rows, caps)
        if found is None:
            found = _nearest(aim, rows, caps)
        if found is None:
            raise _impossible(waters, targets, known, caps)
        moved, at = float(np.abs(found - at).max()), found
        if known.ions is None or moved < 1e-6:
            break
    for t in targets:  # a tangent may still miss by a little: say so rather than pretend
        if t.quantity == "ec":
            miss = known.ec_at(at) - t.value
            if (abs(miss) if t.sense == "about" else miss) > max(_NEAR_uS_cm, 0.005 * t.value):
                raise _impossible(waters, targets, known, caps)
    return at


def _nearest(
    aim: np.ndarray, rows: list[tuple[BlendTarget, np.ndarray, float]], caps: list[float]
) -> np.ndarray | None:
    """A tangent far from the answer may miss a target the curve reaches: go as near as it allows, and draw it anew."""
    others = [r for r in rows if r[0].quantity != "ec"]
    for t, row, bound in rows:
        if t.quantity == "ec":
            low, high = _programme(row, others, caps), _programme(-row, others, caps)
            if low is None or high is None:
                return None
            return _programme(aim, [*others, (t, row, float(np.clip(bound, row @ low, row @ high)))], caps)
    return None


def _impossible(waters: list[BlendWater], targets: list[BlendTarget], known: _Known, caps: list[float]) -> Infeasible:
    """Which bound fails: a target out of these waters' reach, or targets that exclude each other."""
    even = np.full(len(waters), 1.0 / len(waters))
    for t in targets:
        row = known.ec if t.quantity == "ec" else known.amounts(t.quantity, waters)
        low, high = _programme(row, [], caps), _programme(-row, [], caps)
        if low is None or high is None:
            continue
        ends = (known.ec_at(low), known.ec_at(high)) if t.quantity == "ec" else (float(row @ low), float(row @ high))
        if t.value < ends[0] - 1e-9 or (t.sense == "about" and t.value > ends[1] + 1e-9):
            unit = UNITS[t.quantity]
            short = any(c < 1 for c in caps)
            stock, way_out = (
                (" with the litres on hand", ", another water, or mix less") if short else ("", ", or another water")
            )
            return Infeasible(
                f"{WORDS[t.quantity].capitalize() if t.quantity != 'ec' else 'EC'} {t.value:g} "
                f"{unit} cannot be blended: "
                f"these waters reach {ends[0]:.0f} to {ends[1]:.0f}{stock}. Choose a target between{way_out}.",
                pointer="/targets",
                low=ends[0],
                high=ends[1],
                fails=t.quantity,
            )
    for t in targets:
        rest = [other for other in targets if other is not t]
        if rest and _programme(np.zeros(len(waters)), _rows(waters, rest, known, even), caps) is not None:
            return Infeasible(
                f"The targets exclude each other: without {WORDS[t.quantity]} {t.value:g} "
                f"{UNITS[t.quantity]} it can be "
                "blended. Drop it, or make it “at most”.",
                pointer="/targets",
                fails=t.quantity,
            )
    return Infeasible(
        "No shares of these waters meet the targets. Add a water, or loosen a target.", pointer="/targets"
    )
