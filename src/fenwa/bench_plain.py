"""The yardstick of the salt balance: the same model as a plain Python loop."""

from __future__ import annotations

import math

from fenwa.bench_pages import timed

SAMPLE = 40  # pots


def _plain_loop(
    theta: float, volume: float, phi: float, eta: float, u: float, k: float, R: float, days: float
) -> tuple[float, float, float]:
    """The same balance for one member in plain Python, as a yardstick: mobile water, its EC, the immobile EC."""
    W_cc = theta * volume
    W_i, W_cap = phi * W_cc, (1 - phi) * W_cc
    W, C, Ci, t = W_cap, 400.0, 400.0, 0.0
    pours = (400.0, 400.0, 400.0, 40.0)
    n = 0
    while t < days:
        t += 6.0
        left = max(W - 0.05 * W_cc * 6.0, 0.1 * W_cap)
        C *= (left / W) ** (u - 1)
        W = left
        weight = R * W_i
        mean = (W * C + weight * Ci) / (W + weight)
        gap = (Ci - C) * math.exp(-k * 144.0)
        C, Ci = mean - gap * weight / (W + weight), mean + gap * W / (W + weight)
        C_in = pours[n % 4]
        n += 1
        refill = min(0.25, W_cap - W)
        C = (W * C + refill * C_in) / (W + refill)
        W += refill
        C = C_in + (C - C_in) * math.exp(-eta * max(0.25 - refill, 0.0) / W)
    return W, C, Ci


def plain_loop_s(pots: int) -> float:
    """A year of so many pots with every member, as a plain Python loop; timed over a sample. [s]"""
    from fenwa.core.pot.specification import MEMBERS

    def loop() -> None:
        for _ in range(SAMPLE * MEMBERS):
            _plain_loop(0.25, 1.0, 0.55, 0.5, 0.25, math.log(2), 1.1, 365.0)

    return timed(loop) * pots / SAMPLE
