"""A stock solution for doses too small for the scale at hand, in one bottle or in two."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError
from fenwa.core.mix.clear import Bottles
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import Feed, elements_of
from fenwa.core.mix.solubility import SOLUBLE_SHARE, solubility_at
from fenwa.core.mix.weighing import WEIGHABLE_STEPS, to_grid
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger

BOTTLES_mL = (100, 250, 400, 500, 1000, 2000)
DRAWS_mL_L = (10.0, 5.0, 20.0, 25.0, 50.0)  # round syringe volumes a litre, handiest first
BOTTLE_ERROR = 0.01  # filling a bottle to its line
SOLUBLE_UNKNOWN_g_L = 200.0  # taken as soluble when the label is silent
KEEPS_WEEKS, KEEPS_WEEKS_UREA = 8, 2  # guideline: 4 to 8 weeks; organic or with urea 2
PURE = BaseWater(0.0, "deionised", None, "pure water")


@dataclass(frozen=True)
class BottleContent:
    """A product in a bottle: its mass, its strength there, and what the scale can weigh of it. [g, g/L]"""

    name: str
    mass_g: float
    concentration_g_L: float
    weigh_g: float | None = None  # None: no scale was named


@dataclass(frozen=True)
class StockBottle:
    """One bottle and the lines of its label."""

    letter: str
    contents: tuple[BottleContent, ...]
    volume_mL: float
    concentration_g_L: float
    hazard: str


@dataclass(frozen=True, kw_only=True)
class StockSolution:
    """What to weigh into which bottle, what to draw from it, and how long it keeps.

    ``mass_g``, ``weigh_g`` (the scale's nearest step) and ``concentration_g_L`` are of the smallest weighing, the
    one that sets the error.
    """

    mass_g: float
    bottle_mL: float
    concentration_g_L: float
    draw_mL_per_L: float
    draw_mL: float
    error_pct: float
    lasts_L: float
    bottles: tuple[StockBottle, ...]
    dilution: str
    keeps_weeks: int
    use_by: date | None
    filled_with: str
    weigh_g: float


def hazard_line(feeds: list[Feed]) -> str:
    """The caution for a bottle's label, from what is in it; the product's own label comes first."""
    lines = ["Concentrate: dilute before use. Keep from children, pets and food."]
    if any(elements_of(f.label).N_ammonium_mg_g > 100 for f in feeds):
        lines.append("Ammonium salt: never together with lime, bleach or alkali.")
    if any(elements_of(f.label).N_nitrate_mg_g > 100 for f in feeds):
        lines.append("Nitrate: away from heat, oil and sawdust when dry.")
    return " ".join(lines)


def keeps_weeks_of(feeds: list[Feed]) -> int:
    """Weeks a stock keeps, dark and cool: short with urea or organic nitrogen. [weeks]"""
    short = any(e.N_urea_mg_g > 0 or e.N_other_mg_g > 0 for e in (elements_of(f.label) for f in feeds))
    return KEEPS_WEEKS_UREA if short else KEEPS_WEEKS


def split_for(base: BaseWater, feeds: list[Feed], times: float) -> tuple[tuple[int, ...], ...]:
    """Which products may stand in which bottle at ``times`` the can's strength; empty when they would clot even in
    two.
    """
    elements = [elements_of(f.label) for f in feeds]
    return Bottles(base, [ions_per_gram(e) for e in elements], [f.dose_g_L for f in feeds], elements).split(times)


@calculation("stock-solution", title="Stock solution", station="mix")
def stock_solution(
    *,
    dose_g_L: float | None = None,
    feeds: list[Feed] | None = None,
    volume_L: float,
    base: BaseWater = PURE,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
    solubility_g_L: float | None = None,
    bottle_mL: float | None = None,
    draw_mL_per_L: float | None = None,
    storage_C: float = 20.0,
    made_on: date | None = None,
) -> Computed[StockSolution]:
    """A stock that brings small doses within reach of the scale and the syringe, in A and B where they must be apart.

    Parameters
    ----------
    dose_g_L : float
        Dose of a single product in the can, above 0 to 50; or name the feeds. [g/L]
    feeds : list[Feed]
        Products with their doses in the can, instead of a single dose. [g/L]
    volume_L : float
        Volume of the can, above 0 to 10 000. [L]
    base : BaseWater
        Water the bottles are filled with. [µS/cm]
    scale_step_g : float
        Smallest step of the scale, above 0 to 100. [g]
    syringe_step_mL : float
        Smallest division of the syringe, above 0 to 50. [mL]
    solubility_g_L : float
        Solubility of the single product at 20 °C, if known. [g/L]
    bottle_mL : float
        Bottle to use; chosen when empty. [mL]
    draw_mL_per_L : float
        Stock to draw for each litre; chosen when empty. [mL/L]
    storage_C : float
        Coldest temperature the bottle is kept at, 0 to 30. [°C]
    made_on : date
        Day of making, for the date on the label.

    Returns
    -------
    Computed
        Masses, bottles, concentration, draw, the error that remains, and how long it keeps. [g, mL, %]

    Raises
    ------
    Infeasible
        If no bottle and draw satisfy the scale, the syringe, the solubility and clarity.
    InputError
        If neither a dose nor a feed is given.

    References
    ----------
    E1.11; E1.13; E1.14; precipitation-rules
    """
    parts = [f for f in feeds or [] if f.dose_g_L > 0]
    doses = [f.dose_g_L for f in parts] if parts else [dose_g_L] if dose_g_L is not None else []
    if not doses:
        raise InputError("Nothing to dissolve is named. Enter a dose, or choose products.", pointer="/dose_g_L")
    for d in doses:
        require(d, "Dose", "g/L", low=0, open_low=True, high=50, pointer="/dose_g_L")
    require(volume_L, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")
    if bottle_mL is not None:
        require(bottle_mL, "Bottle", "mL", low=0, high=100_000, pointer="/bottle_mL")
    if draw_mL_per_L is not None:
        require(draw_mL_per_L, "Drawn for a litre", "mL", low=0, high=1_000, pointer="/draw_mL_per_L")
    require(storage_C, "Coldest store", "°C", low=0, high=30, pointer="/storage_C")
    known = [f.label.solubility_g_L for f in parts] if parts else [solubility_g_L]
    limits = [SOLUBLE_UNKNOWN_g_L if s is None else SOLUBLE_SHARE * solubility_at(s, storage_C) for s in known]
    least = min(doses)
    drawn_of = (draw_mL_per_L,) if draw_mL_per_L else DRAWS_mL_L
    together: tuple[tuple[int, ...], ...] = ((0,),)
    best: tuple[float, float] | None = None
    clots: list[float] = []
    for trial in drawn_of:
        if clots and 1000 / trial > min(clots):  # stronger than one that clots
            continue
        fits = _smallest_bottle(doses, limits, volume_L, scale_step_g, syringe_step_mL, trial, bottle_mL)
        if fits is None:
            continue
        found = split_for(base, parts, 1000 / trial) if parts else ((0,),)
        if not found:  # a weaker stock may stay clear: draw more of it
            clots.append(1000 / trial)
            continue
        together = found
        best = fits, trial
        break
    if best is None and clots:
        raise Infeasible(
            f"These products would clot at {' or '.join(f'{c:.3g}' for c in clots)} times the "
            "can, even in two bottles. "
            "Make a weaker stock, or weigh them straight into the can.",
            pointer="/draw_mL_per_L",
        )
    weakest = max(drawn_of)
    names = [f.label.name for f in parts] or ["It"]
    for name, d, limit in zip(names, doses, limits, strict=True):
        if best is None and d * 1000 / weakest > limit:
            raise Infeasible(
                f"{name} at {d * 1000 / weakest:.4g} g/L would not all dissolve at {storage_C:g} "
                f"°C: at most {limit:.4g} g/L. "
                "Draw more of a weaker stock for each litre.",
                pointer="/draw_mL_per_L",
            )
    if best is None:
        raise Infeasible(
            f"No stock fits {least:.3g} g/L for {volume_L:g} L with a {scale_step_g:g} g scale and a "
            f"{syringe_step_mL:g} mL syringe. Make a larger can, or use a finer scale or syringe.",
            pointer="/volume_L",
        )
    bottle, draw = best
    ledger = Ledger("Stock solution", "Use within 4 to 8 weeks; with urea or organics within 2.", ("mass-balance",))
    ledger.take("d", "dose in the can" if len(doses) == 1 else "smallest dose in the can", least, "g/L")
    ledger.take("V", "volume of the can", volume_L, "L")
    ledger.take("v_L", "stock drawn for each litre", draw, "mL/L", "entered" if draw_mL_per_L else "default:round draw")
    ledger.take("B", "bottle", bottle, "mL", "entered" if bottle_mL else "default:smallest that fits")
    ledger.take("r", "step of the scale", scale_step_g, "g")
    ledger.take("s", "step of the syringe", syringe_step_mL, "mL")
    concentration = ledger.step("c_s", "d * 1000 / v_L", "g/L", "strength of the stock")
    mass = ledger.step("m", "c_s * B / 1000", "g", "mass for the bottle")
    weighed = ledger.step("m_r", "r * floor(m / r + 0.5)", "g", "weigh into the bottle: the nearest step of the scale")
    for i, d in enumerate(doses):
        if len(doses) > 1:
            ledger.take(f"d_{i + 1}", f"dose of {parts[i].label.name}", d, "g/L")
            ledger.step(f"m_{i + 1}", f"d_{i + 1} * B / v_L", "g", f"{parts[i].label.name} into its bottle")
    drawn = ledger.step("v", "v_L * V", "mL", "draw for this can")
    ledger.take("b", "filling the bottle to its line", BOTTLE_ERROR, "", "default:careful filling")
    error = ledger.step(
        "E", "100 * sqrt((r / (sqrt(6) * m))**2 + (s / (sqrt(12) * v))**2 + b**2)", "%", "error of the dose (SD)"
    )
    lasts = ledger.step("L", "B / v_L", "L", "feed one bottle makes")
    if any(s is None for s in known):
        ledger.assume("Solubility not known: stocks up to 200 g/L are taken as soluble. Stop if grains stay.")
    if len(together) > 1:
        ledger.caution("Two bottles: draw A into the nearly full can, stir, then B. Never mix them undiluted.")
    ledger.caution("Never calcium together with sulfate or phosphate in one stock bottle.")
    ledger.caution("Label the bottle with contents, strength and date; keep it from children, pets and food.")
    weeks = keeps_weeks_of(parts) if parts else KEEPS_WEEKS
    bottles = (
        tuple(
            _bottle("" if len(together) == 1 else "AB"[i], [parts[j] for j in which], bottle, draw, scale_step_g)
            for i, which in enumerate(together)
        )
        if parts
        else ()
    )
    use_by = made_on + timedelta(weeks=weeks) if made_on else None
    return ledger.close(
        StockSolution(
            mass_g=mass,
            bottle_mL=bottle,
            concentration_g_L=concentration,
            draw_mL_per_L=draw,
            draw_mL=drawn,
            error_pct=error,
            lasts_L=lasts,
            bottles=bottles,
            dilution=dilution_words(1000 / draw),
            keeps_weeks=weeks,
            use_by=use_by,
            filled_with=base.name,
            weigh_g=weighed,
        )
    )


def dilution_words(D: float) -> str:
    """A dilution that cannot be misread. ``D``: litres of feed from a litre of stock."""
    return f"1 in {D:.4g} ({1000 / D:.4g} mL in each litre of feed; 1 part + {D - 1:.4g} parts water)"


def _bottle(letter: str, feeds: list[Feed], bottle_mL: float, draw: float, scale_step_g: float) -> StockBottle:
    masses = [f.dose_g_L * bottle_mL / draw for f in feeds]
    contents = tuple(
        BottleContent(f.label.name, mass, f.dose_g_L * 1000 / draw, to_grid(mass, scale_step_g))
        for f, mass in zip(feeds, masses, strict=True)
    )
    return StockBottle(letter, contents, bottle_mL, sum(c.concentration_g_L for c in contents), hazard_line(feeds))


def _smallest_bottle(
    doses: list[float],
    limits: list[float],
    volume_L: float,
    scale_step_g: float,
    syringe_step_mL: float,
    draw: float,
    bottle_mL: float | None,
) -> float | None:
    """Smallest bottle that satisfies scale, syringe and solubility at a draw; None when none does."""
    drawn = draw * volume_L
    for bottle in (bottle_mL,) if bottle_mL else BOTTLES_mL:
        if (
            all(d * bottle / draw >= WEIGHABLE_STEPS * scale_step_g * (1 - 1e-9) for d in doses)
            and all(d * 1000 / draw <= limit for d, limit in zip(doses, limits, strict=True))
            and drawn >= WEIGHABLE_STEPS * syringe_step_mL * (1 - 1e-9)
            and bottle >= drawn
        ):
            return bottle
    return None
