"""Elements in a can, from its products and from its water."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fenwa.core.mix.elements import Elements
from fenwa.core.water.ions import MOLAR_MASS, WaterIons
from fenwa.core.working import Ledger, Working


@dataclass(frozen=True)
class ElementLevel:
    """One element in the can. mg/L; what the water brings is None when not known."""

    name: str
    from_feed_mg_L: float
    from_water_mg_L: float | None
    in_can_mg_L: float  # what is known of both


# element, its field in Elements, the ion of a report that carries it and the share of it that is the element
_LEVELS = (
    ("Nitrate N", "N_nitrate", "NO3", MOLAR_MASS["N"] / MOLAR_MASS["NO3"]),
    ("Ammonium N", "N_ammonium", "NH4", MOLAR_MASS["N"] / MOLAR_MASS["NH4"]),
    ("Urea N", "N_urea", "", 0.0),
    ("Phosphorus", "P", "P", 1.0),
    ("Potassium", "K", "K", 1.0),
    ("Calcium", "Ca", "Ca", 1.0),
    ("Magnesium", "Mg", "Mg", 1.0),
    ("Sulfur", "S", "SO4", MOLAR_MASS["S"] / MOLAR_MASS["SO4"]),
)
_TRACES = (("Iron", "Fe"), ("Manganese", "Mn"), ("Zinc", "Zn"), ("Copper", "Cu"), ("Boron", "B"), ("Molybdenum", "Mo"))


def element_levels(
    made: list[tuple[str, Elements, float]], ions: WaterIons | None
) -> tuple[tuple[ElementLevel, ...], Working]:
    """Elements of each product times its dose, and the water's where a report gives them; with the arithmetic.

    ``made``: name, elements and dose [g/L] of each product. ``ions``: the water's report, None without one.
    Traces stand only where a label names them.
    """
    ledger = Ledger("Elements in the can", "Exact for what labels and reports state.", ("label", "mass-balance"))
    for i, (name, _, dose) in enumerate(made, 1):
        ledger.take(f"d{i}", f"dose of {name}", dose, "g/L", "computed:dose")
    out = []
    for words, field, ion, share in (*_LEVELS, *((w, f, "none", 0.0) for w, f in _TRACES)):
        amounts = [e.of(field) for _, e, _ in made]
        brings = 0.0 if not ion else None
        if ions is not None and ion not in ("", "none"):
            reported = getattr(ions, f"{ion}_mg_L")
            brings = None if reported is None else reported * share
        feed = 0.0
        if any(amounts):
            for i, ((name, _, _), amount) in enumerate(zip(made, amounts, strict=True), 1):
                ledger.take(f"a{i}_{field}", f"{words} in a gram of {name}", amount, "mg/g", "label")
            terms = " + ".join(f"a{i}_{field} * d{i}" for i in range(1, len(made) + 1))
            feed = ledger.step(f"F_{field}", terms, "mg/L", f"{words} from the feed")
        elif ion == "none":
            continue
        if brings:
            ledger.take(f"w_{field}", f"{words} of the water", brings, "mg/L", "measured")
            ledger.step(f"E_{field}", f"F_{field} + w_{field}" if feed else f"w_{field}", "mg/L", f"{words} in the can")
        out.append(ElementLevel(words, feed, brings, feed + (brings or 0.0)))
    if ions is None:
        ledger.assume("The water's own ions are not known: only the feed's are counted.")
    return tuple(out), replace(ledger.close(None).working, formula_id="mix.levels.element_levels")
