"""Will it stay clear? Minerals and solubility in a bottle and in the can, and what to keep apart."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import capital, require
from fenwa.core.errors import InputError
from fenwa.core.mix.elements import Elements, closing_sentence, ions_per_gram
from fenwa.core.mix.feed import MAX_PRODUCTS, DOSE_MAX_g_L, Feed, elements_of, sum_ions
from fenwa.core.mix.solubility import SolubilityCheck, TRACE_mg_g, bare_metal, checked, neutrals_of, salts_of
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import dissolve, prepared
from fenwa.core.water.ions import AddedIons, Totals, add_feed
from fenwa.core.water.kinds import BaseWater, composition_of
from fenwa.core.water.saturation import LG_KSP, Saturation, saturation_of
from fenwa.core.water.speciation import Speciation
from fenwa.core.working import Computed, Ledger

Clear = Literal["clear", "borderline", "clouds"]
Where = Literal["can", "stock"]

BORDER, CLOUDS = -0.1, 0.2  # saturation indices of gypsum and the phosphates in a bottle, precipitation-rules
CALCITE_CLOUDS, STRUVITE_CLOUDS = 0.8, 0.3  # visible soon; a film of lime over days lies between 0 and 0.8
STRONGEST = 200.0
WORDS = {
    "gypsum": "gypsum (calcium sulfate)",
    "dicalcium_phosphate": "dicalcium phosphate",
    "calcite": "lime (calcite)",
    "struvite": "struvite (magnesium ammonium phosphate)",
    "magnesium_phosphate": "magnesium phosphate",
    "magnesium_carbonate": "magnesium carbonate",
    "magnesium_hydroxide": "magnesium hydroxide",
    "calcium_hydroxide": "slaked lime (calcium hydroxide)",
}
SYMBOLS = {
    "gypsum": "g",
    "dicalcium_phosphate": "d",
    "calcite": "c",
    "struvite": "s",
    "magnesium_phosphate": "p",
    "magnesium_carbonate": "m",
    "magnesium_hydroxide": "b",
    "calcium_hydroxide": "l",
}


@dataclass(frozen=True)
class MineralCheck:
    """One mineral in one vessel. ``index``: lg(IAP/Ksp), None when an ion of it is absent."""

    where: Where
    mineral: str
    index: float | None
    verdict: Clear


@dataclass(frozen=True)
class Clarity:
    """Whether it stays clear, what must stand apart, in which order to mix, and the strongest clear stock."""

    verdict: Clear
    sentence: str
    minerals: tuple[MineralCheck, ...]
    solubility: tuple[SolubilityCheck, ...]
    bottles: tuple[tuple[int, ...], ...]
    order: tuple[int, ...]
    strongest_times: float | None
    pH_can: float


def border_of(mineral: str, where: Where) -> float:
    """Index from which a mineral is on the border: none is called clear above its solubility."""
    return BORDER if where == "stock" and mineral in ("gypsum", "dicalcium_phosphate") else 0.0


def judged(where: Where, found: Saturation) -> list[MineralCheck]:
    """Each mineral's verdict in a vessel."""
    out = []
    for mineral in WORDS:
        index = getattr(found, mineral)
        clouds = {"calcite": CALCITE_CLOUDS, "struvite": STRUVITE_CLOUDS}.get(mineral, CLOUDS)
        border = border_of(mineral, where)
        verdict: Clear = "clouds" if index > clouds else "borderline" if index > border else "clear"
        out.append(MineralCheck(where, WORDS[mineral], None if index < -90 else index, verdict))
    return out


def order_of(elements: list[Elements]) -> tuple[int, ...]:
    """Mixing order: what fits anything first, then magnesium and sulfates, phosphates, calcium last."""

    def rank(i: int) -> int:
        e = elements[i]
        if e.Ca_mg_g > TRACE_mg_g:
            return 3
        if e.P_mg_g > TRACE_mg_g:
            return 2
        return 1 if e.S_mg_g > TRACE_mg_g or e.Mg_mg_g > TRACE_mg_g else 0

    return tuple(sorted(range(len(elements)), key=lambda i: (rank(i), i)))


class Bottles:
    """Products at the strength of a bottle: what may stand together."""

    def __init__(
        self, base: BaseWater, per_gram: list[AddedIons], doses: list[float], elements: list[Elements]
    ) -> None:
        self._water, self._per_gram, self._doses, self._elements = (
            prepared(composition_of(base)[0]),
            per_gram,
            doses,
            elements,
        )

    def _dissolved(self, times: float, which: tuple[int, ...]) -> tuple[Totals, Speciation]:
        ions = sum_ions([(self._per_gram[i], self._doses[i] * times) for i in which])
        return add_feed(self._water.totals, ions), dissolve(self._water, ions)

    def at(self, times: float, which: tuple[int, ...]) -> Saturation:
        """Saturation of some of the products together, ``times`` the strength of the can."""
        return saturation_of(self._dissolved(times, which)[1])

    def stands(self, times: float, which: tuple[int, ...]) -> bool:
        """Whether nothing falls out of that bottle."""
        s = self.at(times, which)
        return all(getattr(s, mineral) <= border_of(mineral, "stock") for mineral in WORDS)

    def dissolves(self, times: float, which: tuple[int, ...], storage_C: float) -> list[SolubilityCheck]:
        """The plain salts those products could form in that bottle, against what dissolves in the cold."""
        parts = [(self._elements[i], self._doses[i] * times) for i in which]
        return salts_of(*self._dissolved(times, which), storage_C) + neutrals_of(parts, storage_C)

    def split(self, times: float) -> tuple[tuple[int, ...], ...]:
        """One bottle, or A with calcium and B without; empty when even that does not stand clear."""
        everything = tuple(i for i, d in enumerate(self._doses) if d > 0)
        if not everything or self.stands(times, everything):
            return (everything,) if everything else ()
        A = tuple(i for i in everything if self._elements[i].Ca_mg_g > TRACE_mg_g)
        B = tuple(i for i in everything if i not in A)
        # what goes with anything (nitrates, urea, chelates) stands with the calcium
        harmless = tuple(
            i for i in B if self._elements[i].S_mg_g <= TRACE_mg_g and self._elements[i].P_mg_g <= TRACE_mg_g
        )
        A, B = tuple(sorted({*A, *harmless})), tuple(i for i in B if i not in harmless)
        if A and B and self.stands(times, A) and self.stands(times, B):
            return A, B
        return ()

    def strongest(self) -> float:
        """Largest multiple of the can's strength at which everything stands in one bottle."""
        everything = tuple(i for i, d in enumerate(self._doses) if d > 0)
        if not everything or self.stands(STRONGEST, everything):
            return STRONGEST
        if not self.stands(1.0, everything):
            return 1.0
        low, high = 1.0, STRONGEST
        while high / low > 1.005:
            middle = (low * high) ** 0.5
            low, high = (middle, high) if self.stands(middle, everything) else (low, middle)
        return low


@calculation("precipitation-check", title="Will it stay clear?", station="mix")
def precipitation_check(
    *, base: BaseWater, feeds: list[Feed], times: float = 1.0, storage_C: float = 10.0
) -> Computed[Clarity]:
    """Whether products cloud in the can or in a stock bottle, and what to keep apart.

    Parameters
    ----------
    base : BaseWater
        The water of bottle and can. [µS/cm]
    feeds : list[Feed]
        One to six products with their doses in the can. [g/L]
    times : float
        Strength of the stock over the can, 1 to 200; 1: no stock. [1]
    storage_C : float
        Coldest temperature the bottle is kept at, 0 to 30. [°C]

    Returns
    -------
    Computed
        Verdict, saturation of each mineral in can and stock, solubility, bottles, mixing order. [lg, g/L]

    Raises
    ------
    OutOfRange
        If a strength or temperature cannot be.
    InputError
        If there is no product, or one that has no ppm.

    Notes
    -----
    Davies activities: within 0.1 to an ionic strength of 0.5 mol/L, a rough guide to 2. Hydroxyapatite is
    left out: almost every tap water with phosphate is oversaturated with it and stays clear.

    References
    ----------
    precipitation-rules; gregory-1970; ohlinger-1998
    """
    if not 1 <= len(feeds) <= MAX_PRODUCTS:
        raise InputError(f"A can takes 1 to {MAX_PRODUCTS} products; {len(feeds)} given.", pointer="/feeds")
    require(times, "Strength of the stock over the can", "times", low=1, high=STRONGEST, pointer="/times")
    require(storage_C, "Coldest store", "°C", low=0, high=30, pointer="/storage_C")
    for i, f in enumerate(feeds):
        require(f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/feeds/{i}/dose_g_L")
    elements = [elements_of(f.label) for f in feeds]
    per_gram, doses = [ions_per_gram(e) for e in elements], [f.dose_g_L for f in feeds]
    bottles = Bottles(base, per_gram, doses, elements)
    everything = tuple(range(len(feeds)))
    ledger = Ledger(
        "Will it stay clear?",
        "Within 0.1 of a saturation index to 100 times a thin feed, rougher above.",
        ("precipitation-rules", "gregory-1970", "ohlinger-1998", "crc-solubility-products", "crc-solubility"),
    )
    ledger.assume(composition_of(base)[1])
    for f, e in zip(feeds, elements, strict=True):
        if e.closed_with:
            ledger.assume(closing_sentence(f.label.name, e.unlisted_meq_g, e.closed_with))
    can = bottles.at(1.0, everything)
    minerals = judged("can", can)
    _write(ledger, "can", can)
    solubility = bottles.dissolves(1.0, everything, storage_C)
    parts: tuple[tuple[int, ...], ...] = (everything,)
    if times > 1:
        stock = bottles.at(times, everything)
        minerals += judged("stock", stock)
        _write(ledger, "stock", stock)
        parts = bottles.split(times)
        solubility = _dissolves(feeds, times, storage_C)
        for bottle in parts or (everything,):
            solubility += bottles.dissolves(times, bottle, storage_C)
    metal = bare_metal([(f.label.name, f.label.fe_chelate, e) for f, e in zip(feeds, elements, strict=True)])
    strongest = bottles.strongest() if times > 1 else None
    verdict, sentence = _verdict(feeds, minerals, solubility, parts, times, strongest, metal)
    return ledger.close(
        Clarity(verdict, sentence, tuple(minerals), tuple(solubility), parts, order_of(elements), strongest, can.pH)
    )


def _dissolves(feeds: list[Feed], times: float, storage_C: float) -> list[SolubilityCheck]:
    """Each product against the solubility on its label."""
    return [
        checked(f.label.name, f.dose_g_L * times, f.label.solubility_g_L, storage_C)
        for f in feeds
        if f.label.solubility_g_L is not None
    ]


def _write(ledger: Ledger, where: str, found: Saturation) -> None:
    tag = where[0]
    ledger.found(f"I_{tag}", f"ionic strength, {where}", found.ionic_strength_mol_L, "mol/L", "ion model")
    ledger.found(f"pH_{tag}", f"pH, {where}", found.pH, "", "closed to air")
    for mineral, short in SYMBOLS.items():
        value = getattr(found, mineral)
        if value > -90:
            product = value + LG_KSP[mineral]
            ledger.found(
                f"P_{short}{tag}",
                f"lg of the ion product of {WORDS[mineral]}, {where}",
                product,
                "",
                "free ions",
            )
            ledger.take(
                f"K_{short}{tag}", "lg of its solubility product", product - value, "", "table:precipitation-rules"
            )
            ledger.step(
                f"SI_{short}{tag}", f"P_{short}{tag} - K_{short}{tag}", "", f"saturation of {WORDS[mineral]}, {where}"
            )


def _verdict(
    feeds: list[Feed],
    minerals: list[MineralCheck],
    solubility: list[SolubilityCheck],
    parts: tuple[tuple[int, ...], ...],
    times: float,
    strongest: float | None,
    metal: str | None,
) -> tuple[Clear, str]:
    can = [m for m in minerals if m.where == "can" and m.verdict != "clear"]
    if any(m.verdict == "clouds" for m in can):
        worst = max((m for m in can if m.verdict == "clouds"), key=lambda m: m.index or 0.0)
        if worst.mineral == WORDS["calcite"]:
            return "clouds", (
                f"The can clouds with {worst.mineral}: the water carries too much lime for this feed. "
                "Blend it with rain or permeate, or acidify it first."
            )
        return "clouds", f"The can clouds with {worst.mineral}. Use less of it, or give the products on different days."
    tight = [s for s in solubility if not s.fits]
    if tight:
        return "clouds", _too_much(max(tight, key=lambda s: s.strength_g_L / s.limit_g_L), times)
    if times > 1 and not parts:
        fell = max((m for m in minerals if m.where == "stock"), key=lambda m: m.index if m.index is not None else -99)
        return "clouds", (
            f"No stock at {times:.3g} times the can: {fell.mineral} would clot, even in two bottles. "
            f"Up to {strongest:.3g} times stays clear; weigh it straight into the can instead."
        )
    if metal is not None:
        return "borderline", (
            f"{metal} brings a plain metal salt: with phosphate or carbonate it turns to mud in hours. "
            "Use a chelate, or give it on another day."
        )
    if times > 1 and len(parts) == 2:
        A, B = (", ".join(feeds[i].label.name for i in bottle) for bottle in parts)
        return "borderline", (
            f"Two bottles: A with {A}; B with {B}. Together they would clot above {strongest:.3g} times the can."
        )
    if can:
        worst = max(can, key=lambda m: m.index or 0.0)
        if worst.mineral == WORDS["calcite"]:
            return "borderline", "A film of lime may settle if this can stands for days: use it the same day."
        return (
            "borderline",
            f"On the border for {worst.mineral} in the can: use it the same day and do not let it stand.",
        )
    return "clear", "Stays clear." if times <= 1 else "Stays clear in one bottle and in the can."


def _too_much(s: SolubilityCheck, times: float) -> str:
    """What does not all dissolve, and the way out."""
    name = capital(s.name)
    if times <= 1:
        return f"{name} at {s.strength_g_L:.3g} g/L does not all dissolve in the can: keep below {s.limit_g_L:.3g} g/L."
    return (
        f"{name} at {s.strength_g_L:.3g} g/L would not all dissolve in the cold: keep below {s.limit_g_L:.3g} g/L, or "
        "make a weaker stock."
    )
