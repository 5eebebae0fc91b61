"""What a label leaves open and nobody may assume: asked once for a product, then kept with it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.errors import Underspecified
from fenwa.core.mix.acidity import LB_PER_LONG_TON, LB_PER_SHORT_TON
from fenwa.core.mix.label import Basis, DENSITY_UNKNOWN_g_mL, Oxides

AcidityUnit = Literal["kg CaCO3/t", "lb/short ton", "lb/long ton"]
ACIDITY_kg_t: dict[AcidityUnit, float] = {
    "kg CaCO3/t": 1.0,
    "lb/short ton": LB_PER_SHORT_TON,
    "lb/long ton": LB_PER_LONG_TON,
}


@dataclass(frozen=True)
class Choices:
    """What was chosen for a product; None and False: not chosen yet."""

    basis: Basis | None
    pk_as: Oxides | None
    others_as: Oxides | None
    density_unknown: bool


@dataclass(frozen=True)
class Stated:
    """Which choices a label calls for."""

    liquid: bool
    density: bool
    phosphorus_or_potassium: bool
    calcium_magnesium_or_sulfur: bool


def need_choices(stated: Stated, chosen: Choices) -> None:
    """Refuse a label whose shares can be read two ways until somebody has looked.

    Raises
    ------
    Underspecified
        Naming the field, the two readings and how far they are apart.
    """
    if stated.liquid and chosen.basis is None:
        raise Underspecified(
            "“Per cent means” is not chosen. Grams in 100 g (w/w) or in 100 mL (w/v): 10 to 35 % apart for "
            "a liquid. Look at the small print.",
            pointer="/basis",
        )
    if stated.liquid and not stated.density and not chosen.density_unknown:
        raise Underspecified(
            f"Density is empty. Weigh 10 mL, or choose the usual {DENSITY_UNKNOWN_g_mL} g/mL, which may be 7 % off.",
            pointer="/density_g_mL",
        )
    if stated.phosphorus_or_potassium and chosen.pk_as is None:
        raise Underspecified(
            "“P and K are given as” is not chosen. P2O5 and K2O, or P and K: more than twofold apart for "
            "phosphorus. Look at the label.",
            pointer="/pk_as",
        )
    if stated.calcium_magnesium_or_sulfur and chosen.others_as is None:
        raise Underspecified(
            "“Ca, Mg and S are given as” is not chosen. CaO, MgO and SO3, or Ca, Mg and S: a third to more "
            "than a half apart. Look at the label.",
            pointer="/others_as",
        )
