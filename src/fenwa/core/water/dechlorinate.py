"""Taking disinfectant out: conditioner, carbon, ascorbate, standing; what each can and cannot do."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

# mg per mg of chlorine counted as Cl2: chlorine-stoichiometry
DEFAULT_RATIO, LEAST_RATIO, MEASURED_HIGH = 7.0, 0.875, 2.3
ANHYDROUS = 0.637
ASCORBIC, ASCORBATE = 2.48, 2.79
STOCK_mg_mL = 10.0  # 1 % stock, 10 g of crystals in a litre
AMMONIUM_N = 0.198  # mg N left by each mg Cl2 of chloramine
EC_RISE, SODIUM_RISE = 7.5, 1.3  # µS/cm and mg/L per mg/L Cl2 treated at 7 to 1
UNKNOWN_FREE_mg_L, UNKNOWN_COMBINED_mg_L = 1.0, 3.0
FREE_MINUTES, COMBINED_MINUTES = 5, 30


@dataclass(frozen=True)
class Way:
    """One way to take the disinfectant out, whether it works here, and how."""

    name: str
    works: bool
    how: str


@dataclass(frozen=True, kw_only=True)
class Dechlorination:
    """Dose of sodium thiosulfate and what follows. [mg, mL, min, µS/cm, mg/L]"""

    free_mg_L: float
    combined_mg_L: float
    thiosulfate_mg: float
    least_mg: float
    anhydrous_mg: float
    stock_mL: float
    ascorbic_mg: float
    wait_minutes: int
    ec_rise_uS_cm: float
    sodium_rise_mg_L: float
    ammonium_N_mg_L: float
    ways: tuple[Way, ...]


@calculation("dechlorinate", title="Taking out chlorine and chloramine", station="water")
def dechlorinate(
    *, volume_L: float, free_mg_L: float | None = None, total_mg_L: float | None = None, chloramine: bool | None = None
) -> Computed[Dechlorination]:
    """Thiosulfate for a volume of tap water, and which other ways work on it.

    Parameters
    ----------
    volume_L : float
        Water to treat, above 0 to 10 000. [L]
    free_mg_L : float
        Free chlorine, 0 to 20; empty: not measured. [mg/L Cl2]
    total_mg_L : float
        Total chlorine, 0 to 20; what it has over free chlorine is chloramine. [mg/L Cl2]
    chloramine : bool
        Whether the supplier uses chloramine, if known and not measured.

    Returns
    -------
    Computed
        Milligrams of crystals, millilitres of 1 % stock, waiting time, what it adds. [mg, mL]

    Raises
    ------
    InputError
        If free chlorine is more than total.
    OutOfRange
        If a number cannot be.

    Notes
    -----
    7 mg of crystals for each mg of chlorine covers every path of the reaction; the excess is harmless to
    plants. Conductivity, hardness, alkalinity and sodium are not lowered.

    References
    ----------
    chlorine-stoichiometry
    """
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    for name, value, pointer in (
        ("Free chlorine", free_mg_L, "/free_mg_L"),
        ("Total chlorine", total_mg_L, "/total_mg_L"),
    ):
        if value is not None:
            require(value, name, "mg/L", low=0, high=20, pointer=pointer)
    ledger = Ledger(
        "Taking out chlorine and chloramine",
        "Covers every path of the reaction at tap pH.",
        ("chlorine-stoichiometry",),
    )
    ledger.take("V", "water to treat", volume_L, "L")
    free, combined = _amounts(ledger, free_mg_L, total_mg_L, chloramine)
    ledger.take("r", "crystals for each mg of chlorine", DEFAULT_RATIO, "mg/mg", "default:chlorine-stoichiometry")
    dose = ledger.step("m", "r * (free + comb) * V", "mg", "sodium thiosulfate crystals (pentahydrate)")
    least = ledger.step("m_min", f"{LEAST_RATIO} * (free + comb) * V", "mg", "least, if all goes to sulfate")
    dry = ledger.step("m_dry", f"{ANHYDROUS} * m", "mg", "the same as anhydrous salt")
    stock = ledger.step("mL", f"m / {STOCK_mg_mL}", "mL", "of a fresh 1 % stock (10 g in a litre)")
    acid = ledger.step("asc", f"{ASCORBIC} * (free + comb) * V", "mg", "or ascorbic acid instead")
    ec = ledger.step("dEC", f"{EC_RISE} * (free + comb)", "µS/cm", "what the treatment adds to the reading")
    sodium = ledger.step("dNa", f"{SODIUM_RISE} * (free + comb)", "mg/L", "sodium added")
    nitrogen = ledger.step("N", f"{AMMONIUM_N} * comb", "mg/L N", "ammonium left by the chloramine")
    minutes = COMBINED_MINUTES if combined > 0 else FREE_MINUTES
    ledger.caution("It takes out disinfectant only: no reading falls, and no hardness, alkalinity or sodium.")
    ledger.caution("Never bring dry thiosulfate or its stock together with acid.")
    return ledger.close(
        Dechlorination(
            free_mg_L=free,
            combined_mg_L=combined,
            thiosulfate_mg=dose,
            least_mg=least,
            anhydrous_mg=dry,
            stock_mL=stock,
            ascorbic_mg=acid,
            wait_minutes=minutes,
            ec_rise_uS_cm=ec,
            sodium_rise_mg_L=sodium,
            ammonium_N_mg_L=nitrogen,
            ways=_ways(free, combined),
        )
    )


def _amounts(ledger: Ledger, free: float | None, total: float | None, chloramine: bool | None) -> tuple[float, float]:
    if free is not None and total is not None:
        if free > total:
            raise InputError(
                f"Free chlorine {free:g} mg/L is more than total, {total:g} mg/L. "
                "Total is read after the second reagent: see whether the two are swapped.",
                pointer="/free_mg_L",
            )
        ledger.take("free", "free chlorine", free, "mg/L", "measured")
        ledger.take("total", "total chlorine", total, "mg/L", "measured")
        return free, ledger.step("comb", "total - free", "mg/L", "chloramine: total less free")
    if total is not None:  # free unknown: all may be combined, which waits longer
        ledger.assume("Free chlorine not measured: all of the total is counted as chloramine.")
        return (
            ledger.take("free", "free chlorine, not known", 0.0, "mg/L", "assumed"),
            ledger.take("comb", "chloramine", total, "mg/L", "measured"),
        )
    if free is not None and chloramine is not True:
        if chloramine is None:
            ledger.caution("Total chlorine not measured: if the supplier uses chloramine, this dose misses it.")
        return (
            ledger.take("free", "free chlorine", free, "mg/L", "measured"),
            ledger.take("comb", "chloramine", 0.0, "mg/L", "assumed"),
        )
    if free is None:
        ledger.assume(f"Free chlorine not measured: {UNKNOWN_FREE_mg_L:g} mg/L is assumed.")
    combined = 0.0 if chloramine is False else UNKNOWN_COMBINED_mg_L
    if combined:
        ledger.assume(f"Chloramine not measured: {UNKNOWN_COMBINED_mg_L:g} mg/L is assumed.")
    return (
        ledger.take(
            "free",
            "free chlorine",
            UNKNOWN_FREE_mg_L if free is None else free,
            "mg/L",
            "assumed" if free is None else "measured",
        ),
        ledger.take("comb", "chloramine", combined, "mg/L", "assumed"),
    )


def _ways(free: float, combined: float) -> tuple[Way, ...]:
    bound = combined > 0
    wait = "15 to 30 minutes" if bound else "5 minutes"
    carbon, standing = "Slow flow through a fresh cartridge.", "A day in an open, wide vessel; for free chlorine only."
    if bound:
        carbon = "Slow flow; chloramine needs catalytic carbon or four times the contact."
        standing = "Does not work on chloramine: it stays for days."
    return (
        Way("Conditioner (thiosulfate)", True, f"Stir in and wait {wait}. Make up a fresh 1 % stock."),
        Way("Ascorbic acid", True, f"Stir in and wait {wait}. It lowers the pH of soft water."),
        Way("Active carbon", True, carbon),
        Way("Standing overnight", not bound, standing),
    )
