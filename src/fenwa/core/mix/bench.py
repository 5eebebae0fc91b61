"""The weighing list: what the bench does, in which order, with each caution beside its step."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.mix.dose import Dose
from fenwa.core.mix.elements import Elements

Act = Literal["half fill", "weigh", "measure", "draw", "fill", "read"]
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
    steps = [BenchStep("half fill", name, volume_L * share * FIRST_FILL, "L", "At room temperature." if i == 0 else "")
             for i, (name, share) in enumerate(waters)]  # fmt: skip
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
        elif part.unit == "mL":
            steps.append(BenchStep("measure", part.name, part.rounded, "mL", caution))
        else:
            steps.append(BenchStep("weigh", part.name, part.rounded, "g", caution))
    steps.append(BenchStep("fill", "the can", volume_L, "L", "Stir."))
    steps.append(BenchStep("read", "the pen", made.ec_total_uS_cm, "µS/cm", "", made.ec_low_uS_cm, made.ec_high_uS_cm))
    return tuple(steps)
