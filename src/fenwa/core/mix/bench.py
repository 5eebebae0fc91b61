"""The weighing list: what the bench does, in which order, with each caution beside its step."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.dose import SteppedStock
from fenwa.core.mix.elements import Elements

Act = Literal["half fill", "weigh", "measure", "thin", "draw", "fill", "read"]
FIRST_FILL = 0.5  # of the can before anything goes in
STRONG_AMMONIUM_mg_g = 100.0


@dataclass(frozen=True)
class BenchStep:
    """One tick of the list. Amounts in the unit named; ``low`` and ``high`` only where something is read."""

    act: Act
    what: str
    amount: float
    unit: str
    caution: str = ""
    low: float | None = None
    high: float | None = None


def bench_list(
    made: Dose, volume_L: float, waters: list[tuple[str, float]], order: tuple[int, ...], elements: list[Elements]
) -> tuple[BenchStep, ...]:
    """Steps for the bench: water, each product in mixing order, fill up, read.

    Parameters
    ----------
    made : Dose
        The can as worked out.
    volume_L : float
        Its volume. [L]
    waters : list
        Names of the waters and their shares.
    order : tuple
        Places of the products in mixing order, calcium last.
    elements : list[Elements]
        Elements of each product, for its caution. [mg/g]
    """
    steps = [
        BenchStep("half fill", name, volume_L * share * FIRST_FILL, "L", "At room temperature." if i == 0 else "")
        for i, (name, share) in enumerate(waters)
    ]
    for place in order:
        part, e = made.parts[place], elements[place]
        if part.amount <= 0:
            continue
        last = e.Ca_mg_g > 0 and len(made.parts) > 1 and place == order[-1]
        caution = "Calcium last, into the nearly full can; stir between." if last else ""
        if e.N_ammonium_mg_g > STRONG_AMMONIUM_mg_g:
            caution = (caution + " Ammonium salt: no lime, bleach or alkali near it.").strip()
        if place == 0 and made.stock is not None and not part.weighable:
            steps.append(
                BenchStep("draw", f"stock of {part.name}", made.stock.draw_mL, "mL", "Shake it first. " + caution)
            )
        elif place == 0 and made.by_steps is not None and not part.weighable:
            steps += _thinned(part.name, made.by_steps, caution)
        elif part.rounded <= 0:
            steps.append(
                BenchStep("weigh", part.name, part.amount, part.unit, "Too little for your scale: make a larger can.")
            )
        elif part.unit == "mL":
            steps.append(BenchStep("measure", part.name, part.rounded, "mL", caution))
        else:
            steps.append(BenchStep("weigh", part.name, part.rounded, "g", caution))
    steps.append(BenchStep("fill", "the can", volume_L, "L", "Stir."))
    steps.append(BenchStep("read", "the pen", made.ec_total_uS_cm, "µS/cm", "", made.ec_low_uS_cm, made.ec_high_uS_cm))
    return tuple(steps)


def _thinned(name: str, stock: SteppedStock, caution: str) -> list[BenchStep]:
    """A stock thinned in a glass before the last draw goes into the can."""
    words = f"Stock: {stock.mass_g:g} g of {name} in {stock.bottle_mL:g} mL. Shake it first."
    out = []
    for i, step in enumerate(stock.dilution.steps[:-1]):
        out.append(
            BenchStep(
                "thin",
                f"stock into a glass, filled up to {step.to_mL:g} mL with water",
                step.draw_mL,
                "mL",
                words if i == 0 else "",
            )
        )
    last = stock.dilution.steps[-1]
    out.append(
        BenchStep(
            "draw",
            "thinned stock" if out else f"stock of {name}",
            last.draw_mL,
            "mL",
            caution if out else f"{words} {caution}".strip(),
        )
    )
    return out
