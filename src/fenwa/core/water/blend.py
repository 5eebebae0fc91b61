"""Two waters to a target conductivity: exact in ions where known, else by the straight line."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import BaseWater, composition_of
from fenwa.core.working import Computed, Ledger

BlendMethod = Literal["ions", "straight line"]


@dataclass(frozen=True)
class Blend:
    """How much of each water. Fraction is the saltier water's share."""

    salty_fraction: float
    salty_L: float
    pure_L: float
    ec25_uS_cm: float
    straight_line_ec_uS_cm: float
    alkalinity_mg_L_CaCO3: float | None
    method: BlendMethod


def mix_ions(a: WaterIons, b: WaterIons, share_a: float) -> WaterIons:
    """Ions and alkalinity of a blend, exact; pH is left to the model (None)."""

    def part(name: str) -> float | None:
        x, y = getattr(a, name), getattr(b, name)
        return None if x is None or y is None else share_a * x + (1 - share_a) * y

    pH = None if a.pH is None or b.pH is None else share_a * a.pH + (1 - share_a) * b.pH
    return WaterIons(**{name: part(name) for name in vars(a) if name != "pH"}, pH=pH)


@calculation("blend-two", title="Blend of two waters", station="water")
def blend_two(*, salty: BaseWater, pure: BaseWater, target_uS_cm: float, volume_L: float = 1.0) -> Computed[Blend]:
    """Share of a saltier water in a purer one that meets a target conductivity.

    Parameters
    ----------
    salty : BaseWater
        The water of higher conductivity. [µS/cm]
    pure : BaseWater
        The water of lower conductivity. [µS/cm]
    target_uS_cm : float
        Conductivity wanted, between the two. [µS/cm]
    volume_L : float
        Volume wanted, above 0 to 10 000. [L]

    Returns
    -------
    Computed
        Fraction and litres of each. [L]

    Raises
    ------
    Infeasible
        If the target lies outside the two waters.

    Notes
    -----
    With reports for both, ions are mixed exactly and the conductivity computed anew;
    the straight line alone is up to 9 % low for hard water in permeate.

    References
    ----------
    mass-balance; E1.17
    """
    for name, w in (("salty", salty), ("pure", pure)):
        require(w.ec25_uS_cm, f"EC of {w.name}", "µS/cm", low=0, high=50_000, pointer=f"/{name}/ec25_uS_cm")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    low, high = sorted((pure.ec25_uS_cm, salty.ec25_uS_cm))
    if not low <= target_uS_cm <= high or high == low:
        raise Infeasible(
            f"Target {target_uS_cm:g} µS/cm cannot be blended from {low:g} and {high:g} µS/cm. "
            f"Choose a target between them, or another water.",
            pointer="/target_uS_cm", low=low, high=high,
        )  # fmt: skip
    ledger = Ledger("Blend of two waters", "In ions: within 5 %. Straight line: 1 to 9 % low.", ("mass-balance",))
    ledger.take("C_t", "target", target_uS_cm, "µS/cm")
    ledger.take("C_tap", salty.name, salty.ec25_uS_cm, "µS/cm", "measured")
    ledger.take("C_pure", pure.name, pure.ec25_uS_cm, "µS/cm", "measured")
    fraction = ledger.step("f_line", "(C_t - C_pure) / (C_tap - C_pure)", "", "share by the straight line")
    method: BlendMethod = "straight line"
    alkalinity = None
    line_ec = target_uS_cm
    if salty.ions is not None and pure.ions is not None:
        method = "ions"
        a, b = composition_of(salty)[0], composition_of(pure)[0]
        fraction = root_between(lambda f: ec_of(mix_ions(a, b, f)) - target_uS_cm, 0.0, 1.0, xtol=1e-6)
        fraction = ledger.take("f", "share found with the ion model", fraction, "", "solved: ion model")
        ledger.assume("Ions and alkalinity mix exactly; the conductivity is computed from the mixed ions.")
        line_ec = ledger.step("C_line", "C_pure + f * (C_tap - C_pure)", "µS/cm", "what a straight line would say")
        alkalinity = mix_ions(a, b, fraction).alkalinity_mg_L_CaCO3
    else:
        ledger.assume("No report for both waters: conductivities are mixed by the straight line.")
        fraction = ledger.step("f", "f_line", "", "share of the saltier water")
    ledger.take("V", "volume wanted", volume_L, "L")
    salty_L = ledger.step("V_tap", "f * V", "L", f"of {salty.name}")
    pure_L = ledger.step("V_pure", "V - V_tap", "L", f"of {pure.name}")
    return ledger.close(Blend(fraction, salty_L, pure_L, target_uS_cm, line_ec, alkalinity, method))
