"""Calcium and magnesium in pure water: whether the can holds enough, and what lifts it."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.feed import elements_of
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

CALCIUM_SHARE = 0.30  # of the nitrogen, mg for mg: a thin feed's usual proportion, judgement
LEAST_mg_L, ENOUGH_mg_L = 10.0, 40.0
THIN_SHARE = 0.75  # below this part of what is wanted it is said


@dataclass(frozen=True)
class CalciumLift:
    """Calcium in the can against what its nitrogen asks for, and a dose of a supplement. [mg/L, g/L]"""

    calcium_mg_L: float
    wanted_mg_L: float
    thin: bool
    dose_g_L: float
    dose_mL_L: float | None
    lifts_to_mg_L: float
    nitrogen_mg_L: float
    sentence: str


@calculation("calcium-lift", title="Is calcium thin?", station="mix")
def calcium_lift(
    *, calcium_mg_L: float, nitrogen_mg_L: float, supplement: Label, water_known: bool = True
) -> Computed[CalciumLift]:
    """Whether calcium is thin for the nitrogen of a can, and the supplement that lifts it.

    Parameters
    ----------
    calcium_mg_L : float
        Calcium in the can, water and feed together. [mg/L]
    nitrogen_mg_L : float
        Nitrogen in the can. [mg/L]
    supplement : Label
        A product with calcium and no phosphorus. [%]
    water_known : bool
        Whether the water's own calcium is in that number.

    Returns
    -------
    Computed
        What is wanted, the dose of the supplement and what it brings. [mg/L, g/L]

    Raises
    ------
    InputError
        If the supplement holds no calcium.

    Notes
    -----
    Growers differ: some always add it to pure water, some only when the feed has none. This computes, and asks.

    References
    ----------
    judgement; E1.4
    """
    require(calcium_mg_L, "Calcium", "mg/L", low=0, high=2000, pointer="/calcium_mg_L")
    require(nitrogen_mg_L, "Nitrogen", "mg/L", low=0, high=2000, pointer="/nitrogen_mg_L")
    e = elements_of(supplement)
    if e.Ca_mg_g <= 0:
        raise InputError(f"{supplement.name} holds no calcium. Choose a calcium supplement.", pointer="/supplement")
    ledger = Ledger("Is calcium thin?", "A usual proportion, not a need of each kind.", ("judgement", "label"))
    ledger.take("Ca", "calcium in the can", calcium_mg_L, "mg/L", "computed:dose")
    ledger.take("N", "nitrogen in the can", nitrogen_mg_L, "mg/L", "computed:dose")
    wanted = ledger.step("t", f"min(max({CALCIUM_SHARE} * N, {LEAST_mg_L}), {ENOUGH_mg_L})", "mg/L", "calcium wanted")
    ledger.take("a", f"calcium in a gram of {supplement.name}", e.Ca_mg_g, "mg/g", "label")
    dose = ledger.step("d", "max(0, t - Ca) / a", "g/L", "supplement")
    ledger.take("n", f"nitrogen in a gram of {supplement.name}", e.N_mg_g, "mg/g", "label")
    nitrogen = ledger.step("N_d", "d * n", "mg/L", "nitrogen it brings")
    if not water_known:
        ledger.assume("The water's own calcium is not known: it is counted as none.")
    thin = calcium_mg_L < THIN_SHARE * wanted
    mL = dose / e.density_g_mL if e.density_g_mL else None
    amount = f"{mL:.2g} mL/L" if mL is not None else f"{dose:.2g} g/L"
    sentence = (
        f"Calcium is thin for {nitrogen_mg_L:.0f} mg/L N: {calcium_mg_L:.2g} mg/L. {supplement.name} at {amount} "
        f"lifts it to {wanted:.0f} mg/L."
        if thin
        else f"Calcium {calcium_mg_L:.2g} mg/L is enough for this feed."
    )
    return ledger.close(
        CalciumLift(calcium_mg_L, wanted, thin, dose, mL, max(wanted, calcium_mg_L), nitrogen, sentence)
    )


def lifts_calcium(label: Label) -> bool:
    """Whether a product is a calcium supplement: calcium and magnesium, and no phosphorus to cloud it."""
    return label.kind == "soluble" and (label.ca_pct or 0) > 0 and (label.mg_pct or 0) > 0 and not label.p_pct
