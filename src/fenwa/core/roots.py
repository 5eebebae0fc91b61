"""Root of a function between two bounds.

scipy's optimiser is loaded on first use: it slows a start by half a second.
"""

from __future__ import annotations

from collections.abc import Callable


def root_between(f: Callable[[float], float], low: float, high: float, xtol: float) -> float:
    """Where ``f`` crosses zero between ``low`` and ``high`` (Brent's method); the signs there must differ."""
    from scipy.optimize import brentq

    return float(brentq(f, low, high, xtol=xtol))
