"""Will it stay clear? Minerals and solubility in a bottle and in the can, and what to keep apart."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.elements import Elements, ions_per_gram
from fenwa.core.mix.feed import MOST_PRODUCTS, DOSE_MAX_g_L, Feed, elements_of, sum_ions
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import dissolve, prepared
from fenwa.core.water.ions import AddedIons
from fenwa.core.water.kinds import BaseWater, composition_of
from fenwa.core.water.saturation import Saturation, saturation_of
from fenwa.core.working import Computed, Ledger

Clear = Literal["clear", "borderline", "clouds"]
Where = Literal["can", "stock"]

SOLUBLE_SHARE = 2 / 3  # of the solubility at the coldest store, guideline
COLD_SHARE = 0.42  # of the 20 °C solubility at 0 °C: potassium nitrate, the steepest of the usual salts
BORDER, CLOUDS = -0.1, 0.2  # saturation indices, science of the water section 5
CALCITE = (0.3, 0.8)  # scale over days; visible soon
TRACE_mg_g = 2.0  # less calcium, sulfur or phosphorus than this in a gram does not send a product to another bottle
STRONGEST = 200.0
WORDS = {"gypsum": "gypsum (calcium sulfate)", "dicalcium_phosphate": "dicalcium phosphate",
         "calcite": "lime (calcite)", "struvite": "struvite (magnesium ammonium phosphate)"}  # fmt: skip
# pairs of ions that can fall out as a plain salt: name, molar mass g/mol, solubility g/L at 20 °C
_SALTS = (("potassium sulfate", 174.26, 110.0), ("potassium nitrate", 101.10, 310.0))


@dataclass(frozen=True)
class MineralCheck:
    """One mineral in one vessel. ``index``: lg(IAP/Ksp), None when an ion of it is absent."""

    where: Where
    mineral: str
    index: float | None
    verdict: Clear


@dataclass(frozen=True)
class SolubilityCheck:
    """A salt in the bottle against what dissolves at the coldest store. [g/L]"""

    name: str
    strength_g_L: float
    limit_g_L: float
    fits: bool


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


def solubility_at(solubility_20_g_L: float, celsius: float) -> float:
    """Solubility at the coldest store, taken to fall like potassium nitrate's below 20 °C. [g/L]"""
    cold = min(max(celsius, 0.0), 20.0)
    return solubility_20_g_L * (COLD_SHARE + (1 - COLD_SHARE) * cold / 20.0)


def judged(where: Where, found: Saturation) -> list[MineralCheck]:
    """Each mineral's verdict in a vessel."""
    out = []
    for mineral in WORDS:
        index = getattr(found, mineral)
        border, clouds = CALCITE if mineral == "calcite" else (BORDER, CLOUDS)
        if mineral == "struvite":
            border, clouds = 0.0, 0.3
        if where == "can" and mineral != "calcite":
            border = 0.0
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

    def at(self, times: float, which: tuple[int, ...]) -> Saturation:
        """Saturation of some of the products together, ``times`` the strength of the can."""
        ions = sum_ions([(self._per_gram[i], self._doses[i] * times) for i in which])
        return saturation_of(dissolve(self._water, ions))

    def stands(self, times: float, which: tuple[int, ...]) -> bool:
        """Whether nothing falls out of that bottle."""
        s = self.at(times, which)
        return (s.gypsum <= BORDER and s.dicalcium_phosphate <= BORDER and s.struvite <= 0.3
                and s.calcite <= CALCITE[0])  # fmt: skip

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


def _plain_salts(ions: AddedIons, storage_C: float) -> list[SolubilityCheck]:
    """Potassium sulfate and nitrate that the mixed ions could form."""
    K, SO4, NO3 = ions.K_mg_L / 39.098, ions.S_mg_L / 32.06, ions.NO3_N_mg_L / 14.007
    made = (min(K / 2, SO4), min(K, NO3))
    return [SolubilityCheck(name, mmol * mass / 1000, limit, mmol * mass / 1000 <= limit)
            for (name, mass, at_20), mmol in zip(_SALTS, made, strict=True)
            for limit in (SOLUBLE_SHARE * solubility_at(at_20, storage_C),)]  # fmt: skip


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
    if not 1 <= len(feeds) <= MOST_PRODUCTS:
        raise InputError(f"A can takes 1 to {MOST_PRODUCTS} products; {len(feeds)} given.", pointer="/feeds")
    require(times, "Strength of the stock over the can", "times", low=1, high=STRONGEST, pointer="/times")
    require(storage_C, "Coldest store", "°C", low=0, high=30, pointer="/storage_C")
    for i, f in enumerate(feeds):
        require(f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/feeds/{i}/dose_g_L")
    elements = [elements_of(f.label) for f in feeds]
    per_gram, doses = [ions_per_gram(e) for e in elements], [f.dose_g_L for f in feeds]
    bottles = Bottles(base, per_gram, doses, elements)
    everything = tuple(range(len(feeds)))
    ledger = Ledger("Will it stay clear?", "Within 0.1 of a saturation index to 100 times a thin feed, rougher above.",
                    ("precipitation-rules", "gregory-1970", "ohlinger-1998"))  # fmt: skip
    ledger.assume(composition_of(base)[1])
    can = bottles.at(1.0, everything)
    minerals = judged("can", can)
    _write(ledger, "can", can)
    solubility: list[SolubilityCheck] = []
    parts: tuple[tuple[int, ...], ...] = (everything,)
    if times > 1:
        stock = bottles.at(times, everything)
        minerals += judged("stock", stock)
        _write(ledger, "stock", stock)
        parts = bottles.split(times)
        solubility = _dissolves(feeds, times, storage_C)
        for bottle in parts or (everything,):
            solubility += _plain_salts(sum_ions([(per_gram[i], doses[i] * times) for i in bottle]), storage_C)
    strongest = bottles.strongest() if times > 1 else None
    verdict, sentence = _verdict(feeds, minerals, solubility, parts, times, strongest)
    return ledger.close(Clarity(verdict, sentence, tuple(minerals), tuple(solubility), parts, order_of(elements),
                                strongest, can.pH))  # fmt: skip


def _dissolves(feeds: list[Feed], times: float, storage_C: float) -> list[SolubilityCheck]:
    out = []
    for f in feeds:
        if f.label.solubility_g_L is not None:
            limit = SOLUBLE_SHARE * solubility_at(f.label.solubility_g_L, storage_C)
            out.append(
                SolubilityCheck(f.label.name, f.dose_g_L * times, limit, f.dose_g_L * times <= limit * (1 + 1e-9))
            )
    return out


def _write(ledger: Ledger, where: str, found: Saturation) -> None:
    tag = where[0]
    ledger.take(f"I_{tag}", f"ionic strength, {where}", found.ionic_strength_mol_L, "mol/L", "solved: ion model")
    ledger.take(f"pH_{tag}", f"pH, {where}", found.pH, "", "solved: closed to air")
    for short, mineral in (("g", "gypsum"), ("d", "dicalcium_phosphate"), ("c", "calcite"), ("s", "struvite")):
        value = getattr(found, mineral)
        if value > -90:
            product = value + {"g": -4.58, "d": -6.59, "c": -8.48, "s": -13.26}[short]
            ledger.take(
                f"P_{short}{tag}",
                f"lg of the ion product of {WORDS[mineral]}, {where}",
                product,
                "",
                "solved: free ions",
            )
            ledger.take(
                f"K_{short}{tag}", "lg of its solubility product", product - value, "", "table:precipitation-rules"
            )
            ledger.step(
                f"SI_{short}{tag}", f"P_{short}{tag} - K_{short}{tag}", "", f"saturation of {WORDS[mineral]}, {where}"
            )


def _verdict(
    feeds: list[Feed], minerals: list[MineralCheck], solubility: list[SolubilityCheck],
    parts: tuple[tuple[int, ...], ...], times: float, strongest: float | None,
) -> tuple[Clear, str]:  # fmt: skip
    can = [m for m in minerals if m.where == "can" and m.verdict != "clear"]
    if any(m.verdict == "clouds" for m in can):
        worst = max((m for m in can if m.verdict == "clouds"), key=lambda m: m.index or 0.0)
        if "lime" in worst.mineral:
            return "clouds", (f"The can clouds with {worst.mineral}: the water carries too much lime for this feed. "
                              "Blend it with rain or permeate, or acidify it first.")  # fmt: skip
        return "clouds", f"The can clouds with {worst.mineral}. Use less of it, or give the products on different days."
    if times > 1:
        tight = [s for s in solubility if not s.fits]
        if tight:
            s = tight[0]
            return "clouds", (f"{s.name} at {s.strength_g_L:.3g} g/L would not all dissolve in the cold: keep below "
                              f"{s.limit_g_L:.3g} g/L, or make a weaker stock.")  # fmt: skip
        if not parts:
            fell = max(
                (m for m in minerals if m.where == "stock"), key=lambda m: m.index if m.index is not None else -99
            )
            return "clouds", (f"No stock at {times:.3g} times the can: {fell.mineral} would clot, even in two bottles. "
                              f"Up to {strongest:.3g} times stays clear; weigh it straight into the can instead.")  # fmt: skip
        if len(parts) == 2:
            A, B = (", ".join(feeds[i].label.name for i in bottle) for bottle in parts)
            return "borderline", (f"Two bottles: A with {A}; B with {B}. Together they would clot above "
                                  f"{strongest:.3g} times the can.")  # fmt: skip
    if can:
        return (
            "borderline",
            f"On the border for {can[0].mineral} in the can: use it the same day and do not let it stand.",
        )
    return "clear", "Stays clear." if times <= 1 else "Stays clear in one bottle and in the can."
