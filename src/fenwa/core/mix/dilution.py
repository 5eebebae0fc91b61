"""Injectors and dilution in steps: what a ratio means, and how a mist bottle is reached from a strong stock."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError
from fenwa.core.mix.feed import MAX_PRODUCTS, DOSE_MAX_g_L, Feed, elements_of
from fenwa.core.mix.solubility import SOLUBLE_SHARE, solubility_at
from fenwa.core.mix.stock import BottleContent, StockBottle, dilution_words, hazard_line, keeps_weeks_of, split_for
from fenwa.core.mix.weighing import WEIGHABLE_STEPS, combined_relative_error
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger

Meaning = Literal["1 in n", "1 plus n"]
FILL_ERROR = 0.01  # filling a vessel to its line
VESSELS_mL = (100.0, 250.0, 500.0, 1000.0, 2000.0)
ROUND_DRAWS_mL = (5.0, 10.0, 20.0, 25.0, 50.0, 100.0)


@dataclass(frozen=True)
class Injector:
    """Stock for an injector: litres of feed from a litre of stock, bottles, the strongest ratio that dissolves."""

    litres_per_litre: float
    other_meaning_pct: float
    bottles: tuple[StockBottle, ...]
    feed_L: float
    largest_ratio: int
    keeps_weeks: int
    sentence: str


@calculation("injector", title="Stock for an injector", station="mix")
def injector(
    *,
    base: BaseWater,
    feeds: list[Feed],
    ratio: float,
    meaning: Meaning = "1 in n",
    tank_L: float = 5.0,
    storage_C: float = 10.0,
) -> Computed[Injector]:
    """What to weigh into the tank of an injector, with the meaning of its ratio stated.

    Parameters
    ----------
    base : BaseWater
        Water the tank is filled with. [µS/cm]
    feeds : list[Feed]
        One to six products with their doses in the finished feed. [g/L]
    ratio : float
        The n of the ratio, 2 to 500. [1]
    meaning : str
        "1 in n": one part of n is stock; "1 plus n": n parts of water to one of stock.
    tank_L : float
        Volume of the stock tank, above 0 to 1000. [L]
    storage_C : float
        Coldest temperature the tank stands at, 0 to 30. [°C]

    Returns
    -------
    Computed
        Bottles with masses and strengths, feed made, largest ratio. [g, g/L, L]

    Raises
    ------
    Infeasible
        If a product does not dissolve at that ratio, or would clot.
    InputError
        If no product is given.

    References
    ----------
    E1.11; precipitation-rules
    """
    made = [f for f in feeds if f.dose_g_L > 0]
    if not 1 <= len(made) <= MAX_PRODUCTS:
        raise InputError(f"A stock takes 1 to {MAX_PRODUCTS} products; {len(made)} given.", pointer="/feeds")
    for i, f in enumerate(made):
        elements_of(f.label)
        require(f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/feeds/{i}/dose_g_L")
    require(ratio, "Ratio", "", low=2, high=500, pointer="/ratio")
    require(tank_L, "Tank", "L", low=0, open_low=True, high=1000, pointer="/tank_L")
    require(storage_C, "Coldest place", "°C", low=0, high=30, pointer="/storage_C")
    ledger = Ledger(
        "Stock for an injector",
        "For injectors that keep their ratio: check with a bucket and a pen.",
        ("mass-balance", "precipitation-rules"),
    )
    ledger.take("n", "ratio on the injector", ratio, "")
    formula = "n" if meaning == "1 in n" else "n + 1"
    D = ledger.step("D", formula, "L/L", "feed from a litre of stock")
    ledger.take("B", "tank", tank_L, "L")
    largest = math.inf
    for i, f in enumerate(made, 1):
        ledger.take(f"d{i}", f"dose of {f.label.name}", f.dose_g_L, "g/L")
        strength = ledger.step(f"c{i}", f"d{i} * D", "g/L", f"{f.label.name} in the stock")
        ledger.step(f"m{i}", f"c{i} * B", "g", f"weigh {f.label.name}")
        if f.label.solubility_g_L is None:
            ledger.assume(f"Solubility of {f.label.name} not known: stop if grains stay.")
            continue
        limit = SOLUBLE_SHARE * solubility_at(f.label.solubility_g_L, storage_C)
        largest = min(largest, math.floor(limit / f.dose_g_L))
        if strength > limit * (1 + 1e-9):
            raise Infeasible(
                f"{f.label.name} would need {strength:.4g} g/L; {limit:.4g} g/L dissolve safely at {storage_C:g} °C. "
                f"Set the injector to 1 in {math.floor(limit / f.dose_g_L)} or less.",
                pointer="/ratio",
            )
    together = split_for(base, made, D)
    if not together:
        raise Infeasible(
            f"These products would clot at {D:.3g} times the feed, even in two tanks. Set a smaller ratio.",
            pointer="/ratio",
        )
    other = abs((D + 1 if meaning == "1 in n" else D - 1) / D - 1) * 100
    feed = ledger.step("F", "B * D", "L", "feed from one tank")
    bottles = tuple(
        StockBottle(
            "" if len(together) == 1 else "AB"[i],
            tuple(
                BottleContent(made[j].label.name, made[j].dose_g_L * D * tank_L, made[j].dose_g_L * D) for j in which
            ),
            tank_L * 1000,
            sum(made[j].dose_g_L * D for j in which),
            hazard_line([made[j] for j in which]),
        )
        for i, which in enumerate(together)
    )
    sentence = f"{dilution_words(D)}. Read the other way it would be {other:.1f} % off."
    if len(together) > 1:
        ledger.caution("Two tanks A and B on two injectors, or one after the other; never together undiluted.")
    ledger.caution("Label each tank with contents, strength and date; a concentrate is no drink and no toy.")
    return ledger.close(
        Injector(D, other, bottles, feed, int(largest) if largest < 500 else 500, keeps_weeks_of(made), sentence)
    )


@dataclass(frozen=True)
class DilutionStep:
    """Draw so much, fill up to so much. [mL]"""

    draw_mL: float
    to_mL: float


@dataclass(frozen=True)
class SerialDilution:
    """Steps from a strong stock to a thin feed, the strength after each, and what the syringe leaves open."""

    steps: tuple[DilutionStep, ...]
    strengths_mg_L: tuple[float, ...]
    final_mg_L: float
    error_pct: float
    sentence: str


@calculation("serial-dilution", title="Dilution in steps", station="mix")
def serial_dilution(
    *,
    stock_g_L: float,
    target_mg_L: float | None = None,
    final_mL: float = 500.0,
    steps: list[DilutionStep] | None = None,
    syringe_step_mL: float = 0.5,
) -> Computed[SerialDilution]:
    """From a strong stock to a mist bottle by one or two steps, each large enough for the syringe.

    Parameters
    ----------
    stock_g_L : float
        Strength of the stock, above 0 to 1000. [g/L]
    target_mg_L : float
        Strength wanted, product in the bottle; planned when no steps are given. [mg/L]
    final_mL : float
        Volume of the bottle, 10 to 100 000. [mL]
    steps : list[DilutionStep]
        Steps already decided; then only worked out. [mL]
    syringe_step_mL : float
        Smallest division of the syringe, above 0 to 50. [mL]

    Returns
    -------
    Computed
        Steps, strength after each, error of the whole (SD). [mL, mg/L, %]

    Raises
    ------
    Infeasible
        If no two steps reach the target with that syringe.
    InputError
        If a step draws more than it fills, or neither target nor steps are given.

    References
    ----------
    E1.14
    """
    require(stock_g_L, "Strength of the stock", "g/L", low=0, open_low=True, high=1000, pointer="/stock_g_L")
    require(syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")
    if steps:
        chosen = list(steps)
    else:
        if target_mg_L is None:
            raise InputError(
                "Neither a strength nor steps are given. Enter what the bottle should hold.", pointer="/target_mg_L"
            )
        require(
            target_mg_L,
            "Strength wanted",
            "mg/L",
            low=0,
            open_low=True,
            high=stock_g_L * 1000,
            pointer="/target_mg_L",
            hint=f"Enter less than the stock itself, {stock_g_L * 1000:g} mg/L.",
        )
        require(final_mL, "Bottle", "mL", low=10, high=100_000, pointer="/final_mL")
        chosen = _plan(stock_g_L * 1000, target_mg_L, final_mL, syringe_step_mL)
    ledger = Ledger("Dilution in steps", "Shake at each step; use the thin bottle the same week.", ("mass-balance",))
    ledger.take("c0", "stock", stock_g_L * 1000, "mg/L")
    ledger.take("s", "step of the syringe", syringe_step_mL, "mL")
    ledger.take("b", "filling to the line", FILL_ERROR, "", "default:careful filling")
    strengths, errors = [], []
    for i, step in enumerate(chosen, 1):
        require(
            step.draw_mL,
            f"Draw of step {i}",
            "mL",
            low=0,
            open_low=True,
            high=100_000,
            pointer=f"/steps/{i - 1}/draw_mL",
        )
        require(step.to_mL, f"Fill of step {i}", "mL", low=0, high=1_000_000, pointer=f"/steps/{i - 1}/to_mL")
        if not step.to_mL >= step.draw_mL:
            raise InputError(
                f"Step {i} draws {step.draw_mL:g} mL into {step.to_mL:g} mL. Fill up to more than is drawn.",
                pointer=f"/steps/{i - 1}/to_mL",
                value=step.to_mL,
            )
        ledger.take(f"v{i}", f"draw, step {i}", step.draw_mL, "mL")
        ledger.take(f"V{i}", f"fill up to, step {i}", step.to_mL, "mL")
        strengths.append(ledger.step(f"c{i}", f"c{i - 1} * v{i} / V{i}", "mg/L", f"after step {i}"))
        errors.append(f"(s / (sqrt(12) * v{i}))**2 + b**2")
    error = ledger.step("E", f"100 * sqrt({' + '.join(errors)})", "%", "error of the last (SD)")
    words = ", then ".join(f"{s.draw_mL:.3g} mL up to {s.to_mL:g} mL" for s in chosen)
    return ledger.close(SerialDilution(tuple(chosen), tuple(strengths), strengths[-1], error, f"Draw {words}."))


def _plan(c0: float, target: float, final_mL: float, syringe_step_mL: float) -> list[DilutionStep]:
    least = WEIGHABLE_STEPS * syringe_step_mL
    direct = final_mL * target / c0
    if direct >= least * (1 - 1e-9):
        return [DilutionStep(direct, final_mL)]
    best: tuple[float, float, list[DilutionStep]] | None = None
    for vessel in VESSELS_mL:
        for draw in ROUND_DRAWS_mL:
            second = final_mL * target / (c0 * draw / vessel)
            if draw < least or draw > vessel or not least * (1 - 1e-9) <= second <= min(vessel, final_mL):
                continue
            error = combined_relative_error(syringe_step_mL / draw, syringe_step_mL / second)
            if best is None or (vessel, error) < best[:2]:
                best = vessel, error, [DilutionStep(draw, vessel), DilutionStep(second, final_mL)]
    if best is None:
        raise Infeasible(
            f"No two steps bring {c0 / 1000:g} g/L to {target:g} mg/L in {final_mL:g} mL with a {syringe_step_mL:g} mL "
            "syringe. Make a larger bottle, a weaker stock, or use a finer syringe.",
            pointer="/final_mL",
        )
    return best[2]
