"""The salt balance of a pot, event by event: mobile and immobile water, bypass, uptake.

Every function takes floats or numpy arrays that broadcast; arrays let one call
serve many pots and many members of a band at once. The balance is linear in salt: nutrients and
ballast run side by side on a leading axis of the concentrations and of ``u``, and add up (E3.8b).
Concentrations are EC at 25 °C in µS/cm, waters in litres, times in hours.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Number = float | Array

MOBILE_FLOOR = 0.1  # of the mobile water always stays; below it a pot is bone dry and the balance ends


@dataclass(frozen=True)
class Soil:
    """What a medium does with water and salt. Fields broadcast."""

    W_m_cc: Any  # mobile water at capacity [L]
    W_i: Any  # immobile water [L]
    eta: Any  # leaching efficiency, 0..1 and above for media that drain like a piston
    u: Any  # uptake: salt leaves at u C with each litre of water
    k_h: Any  # exchange rate mobile/immobile [1/h]
    R: Any  # retardation of the immobile pool


@dataclass(frozen=True)
class State:
    """Mobile water now [L] and the two concentrations [µS/cm]."""

    W_m: Any
    C_m: Any
    C_i: Any

    def at(self, which: list[int]) -> State:
        """Some of many pots; pots on the axis before the members."""
        return State(self.W_m[which], self.C_m[..., which, :], self.C_i[..., which, :])

    def put(self, which: list[int], of: State) -> State:
        """Many pots, with some of them in another state."""
        return State(*(placed(a, which, b) for a, b in zip(_parts(self), _parts(of), strict=True)))

    def where(self, mask: Any, other: State) -> State:
        """The other state where the mask says so, this one elsewhere."""
        return State(*(np.where(mask, b, a) for a, b in zip(_parts(self), _parts(other), strict=True)))


def _parts(s: State) -> tuple[Any, Any, Any]:
    return s.W_m, s.C_m, s.C_i


def placed(whole: Any, which: list[int], rows: Any) -> Array:
    """A copy with some pots replaced; pots on the last axis but one."""
    out = np.array(whole)
    out[..., which, :] = rows
    return out


@dataclass(frozen=True)
class Drained:
    """What ran out: litres and their mean conductivity. [L, µS/cm]"""

    V_d: Any
    C: Any


def dry_concentration(y: Number, e: Number, u: Number) -> Any:
    """EC before the next watering after losing the share e of the water, E3.2. [µS/cm]"""
    return y * (1 - np.asarray(e)) ** (np.asarray(u) - 1)


def exchange(soil: Soil, s: State, hours: Number) -> State:
    """Mobile and immobile water move towards each other for some hours, E3.3."""
    weight_i = soil.R * soil.W_i
    closed = (s.C_i - s.C_m) * -np.expm1(-soil.k_h * hours)  # of the gap between them
    to_mobile = closed * (weight_i / (s.W_m + weight_i))
    return State(s.W_m, s.C_m + to_mobile, s.C_i - (closed - to_mobile))


def bone_dry(soil: Soil, s: State, E_L: Number) -> Any:
    """Whether a loss of E litres goes below the last tenth of mobile water, where the balance ends."""
    return s.W_m - np.asarray(E_L) < MOBILE_FLOOR * soil.W_m_cc * (1 - 1e-9)


def dry(soil: Soil, s: State, E_L: Number, hours: Number, given: Number = 0.0) -> State:
    """Lose E litres from the mobile water with uptake, add what prills gave, then exchange, E3.2, E3.10 and E3.3.

    The last tenth of it stays, whatever E is: ask ``bone_dry`` whether that was reached, and say so.
    ``given``: salt of prills, nutrients all of it. [µS/cm · L]
    """
    W = np.maximum(s.W_m - E_L, MOBILE_FLOOR * soil.W_m_cc)
    W = np.minimum(W, s.W_m)
    C = s.C_m * (W / s.W_m) ** (soil.u - 1)
    return exchange(soil, State(W, held_with(C, given, W), s.C_i), hours)


def held_with(C: Any, given: Number, W: Number) -> Any:
    """EC of a water that prills gave salt to, nutrients all of it; ``given`` in µS/cm · L. [µS/cm]"""
    if not isinstance(given, np.ndarray):
        return C
    return C + np.stack([given / W, np.zeros_like(given / W)])


def leach(C: Number, C_in: Number, eta: Number, x: Number) -> tuple[Any, Any]:
    """After-drainage EC and mean leachate EC for x = V_d / W_m, E3.4. [µS/cm]"""
    x = np.asarray(x)
    kept = np.exp(-np.asarray(eta) * x)
    some = x > 1e-12
    mean_share = (1 - kept) / x if some.all() else np.where(some, (1 - kept) / np.where(some, x, 1.0), eta)
    excess = C - C_in
    return C_in + excess * kept, C_in + excess * mean_share


def water(soil: Soil, s: State, V_L: Number, C_in: Number, bypass: Number = 0.0) -> tuple[State, Drained]:
    """Pour V litres: part bypasses, part refills and mixes, the rest drains, E3.10."""
    through = isinstance(bypass, float) and bypass == 0.0  # nothing bypasses, the usual case
    V_b = 0.0 if through else np.asarray(bypass) * V_L
    V_r = np.minimum(V_L - V_b, np.maximum(soil.W_m_cc - s.W_m, 0.0))
    W = s.W_m + V_r
    mixed = (s.W_m * s.C_m + V_r * C_in) / W
    V_d = np.maximum(V_L - V_b - V_r, 0.0)
    C, C_L = leach(mixed, C_in, soil.eta, V_d / W)
    if through:
        return State(W, C, s.C_i), Drained(V_d, C_L)
    out = V_b + V_d
    C_out = np.where(out > 1e-12, (V_b * C_in + V_d * C_L) / np.where(out > 1e-12, out, 1.0), C_L)
    return State(W, C, s.C_i), Drained(out, C_out)


def no_exit(C: Number, C_in: Number, u: Number, replaced: Number) -> Any:
    """EC of a store whose losses are replaced with C_in, ``replaced`` volumes of it, E3.12 and E3.13."""
    u = np.asarray(u, dtype=float)
    safe = np.where(u > 1e-9, u, 1.0)
    plateau = C_in / safe
    with_uptake = plateau + (C - plateau) * np.exp(-safe * replaced)
    return np.where(u > 1e-9, with_uptake, C + C_in * replaced)


def soak(soil: Soil, s: State, bath_L: Number, C_in: Number) -> tuple[State, Drained]:
    """Stand in a bath until all water in the pot has evened out with it, E4.6."""
    weight = s.W_m + soil.R * soil.W_i
    C = (s.W_m * s.C_m + soil.R * soil.W_i * s.C_i + bath_L * C_in) / (weight + bath_L)
    refill = np.maximum(soil.W_m_cc - s.W_m, 0.0)
    full = State(s.W_m + refill, C, C)
    return full, Drained(np.maximum(bath_L - refill, 0.0), C)


def root_zone_ec(soil: Soil, s: State) -> Any:
    """Mean EC of all water in the pot now. [µS/cm]"""
    return (s.W_m * s.C_m + soil.W_i * s.C_i) / (s.W_m + soil.W_i)


def at_capacity(soil: Soil, s: State, C_refill: Number = 0.0) -> Any:
    """EC of the root zone once a water of ``C_refill`` has brought the pot to capacity, E4.1b. [µS/cm]"""
    refill = np.maximum(soil.W_m_cc - s.W_m, 0.0)
    return (s.W_m * s.C_m + soil.W_i * s.C_i + refill * C_refill) / (s.W_m + refill + soil.W_i)


def first_drops(mixed: Number, C_in: Number, eta: Number) -> Any:
    """The first leachate of a watering, E3.4; ``mixed``: mobile water when it begins to drain. [µS/cm]"""
    return C_in + np.asarray(eta) * (mixed - C_in)


def pour_through_reading(C_root: Number, eta: Number, x: Number, C_DI: Number = 1.0) -> Any:
    """What a pour-through reads for a root zone, E2.5; x = V_leach / W_m. [µS/cm]"""
    return C_DI + (C_root - C_DI) * (1 - np.exp(-np.asarray(eta) * x)) / x


def root_zone_from_reading(reading: Number, eta: Number, x: Number, C_DI: Number = 1.0) -> Any:
    """Root zone that stands behind a pour-through reading, E2.5 turned round. [µS/cm]"""
    return C_DI + (reading - C_DI) * x / (1 - np.exp(-np.asarray(eta) * x))


def steady_q(eta: float, x: float, phi: float = 0.0) -> float:
    """Share of the excess a watering leaves, x = V_d / W_cc, E3.7."""
    return float(phi + (1 - phi) * np.exp(-eta * x / (1 - phi)))


def steady_state(C_in: float, e: float, u: float, q: float) -> float:
    """EC a repeated watering tends to, E3.8; infinity when salt has no way out. [µS/cm]"""
    denominator = 1 - q * (1 - e) ** u
    return C_in * (1 - q + e * q) / denominator if denominator > 1e-12 else float("inf")


def repeating_cycle(steps: list[tuple[float, float, float]], u: float, eta: float, phi: float = 0.0) -> list[float]:
    """EC after each watering of an endless sequence of (C_in, e, x), E3.9. [µS/cm]"""
    maps = []
    for C_in, e, x in steps:
        q = steady_q(eta, x, phi)
        maps.append((q * (1 - e) ** u, C_in * (1 - q + e * q)))
    A, B = 1.0, 0.0
    for a, b in maps:
        A, B = a * A, a * B + b
    y, out = B / (1 - A), []
    for a, b in maps:
        y = a * y + b
        out.append(y)
    return out


def leaching_fraction_for(C_in: float, limit: float, e: float, eta: float, u: float) -> float | None:
    """Share of each watering that must drain to hold a limit, E3.8c; None if no share does."""
    if limit <= C_in:
        return None
    denominator = limit * (1 - e) ** u - C_in * (1 - e)
    if denominator <= 0:
        return 0.0
    q = (limit - C_in) / denominator
    if q >= 1:
        return 0.0
    x = -np.log(q) / eta
    return float(x / (x + e))
