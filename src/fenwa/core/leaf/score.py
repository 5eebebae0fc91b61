"""How a plant stands against its own usual, over all that was measured of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Measure = Literal[
    "ln leaf ratio", "ln extension", "ln internode", "live root tips", "new tip burn", "turgor", "dew fraction"
]
# usual spread of each measure, whether more of it is better, and its weight; E7.8
SPREADS: dict[Measure, tuple[float, int, float]] = {
    "ln leaf ratio": (0.12, 1, 1.0),
    "ln extension": (0.25, 1, 1.0),
    "ln internode": (0.15, 1, 1.0),
    "live root tips": (0.20, 1, 1.5),
    "new tip burn": (5.0, -1, 1.0),  # points of percent
    "turgor": (0.7, -1, 1.0),  # 0 stiff to 3 flaccid
    "dew fraction": (0.15, 1, 1.0),
}
COMPARABLE = 3  # a score from fewer measures is not comparable
MOST_Z = 5.0  # spreads: what is farther off is a slip of the ruler, and counts so much


@dataclass(frozen=True)
class Measured:
    """One measure now and what is usual for this plant. Unknown: leave it out; zero is a value."""

    measure: Measure
    value: float
    baseline: float


@dataclass(frozen=True)
class ResponseScore:
    """In spreads of the plant's own usual, better is positive; None: nothing was measured."""

    score: float | None
    measures: int
    comparable: bool
    sentence: str


@calculation("response-score", title="Against its own usual", station="leaf")
def response_score(*, measures: list[Measured]) -> Computed[ResponseScore]:
    """How a plant stands against its own usual, in spreads, over what was measured of it.

    Parameters
    ----------
    measures : list[Measured]
        Each measure once, now and as usual for this plant, -1 000 to 1 000; what is unknown is left out.

    Returns
    -------
    Computed
        Weighted mean of how far each lies from usual, better positive, with the number of measures.

    Raises
    ------
    OutOfRange, InputError
        If a value cannot be, or a measure is given twice.

    Notes
    -----
    New tip burn only: an old mark changes nothing. From fewer than three measures it is not comparable.

    References
    ----------
    E7.8
    """
    seen: set[str] = set()
    for i, m in enumerate(measures):
        if m.measure in seen:
            raise InputError(f"“{m.measure}” is given twice. Give each measure once.", pointer=f"/measures/{i}/measure")
        seen.add(m.measure)
        require(m.value, m.measure.capitalize(), "", low=-1000, high=1000, pointer=f"/measures/{i}/value")
        require(m.baseline, "Usual value", "", low=-1000, high=1000, pointer=f"/measures/{i}/baseline")
    ledger = Ledger("Against its own usual", "Spreads of each measure by default.", ("judgement",))
    ledger.take("n", "measures", len(measures), "", "log")
    total, weights = [], []
    for i, m in enumerate(measures):
        spread, sign, weight = SPREADS[m.measure]
        ledger.take(f"x{i}", m.measure, m.value, "", "measured")
        ledger.take(f"b{i}", f"{m.measure}, usual", m.baseline, "", "log")
        ledger.take(f"s{i}", f"{m.measure}, spread", spread, "", "default:E7.8")
        ledger.take(f"w{i}", f"{m.measure}, weight", weight, "", "default:E7.8")
        better = f"(x{i} - b{i})" if sign > 0 else f"(b{i} - x{i})"
        ledger.step(f"z{i}", f"max(-{MOST_Z:g}, min({MOST_Z:g}, {better} / s{i}))", "", f"{m.measure}: in spreads")
        total.append(f"w{i} * z{i}")
        weights.append(f"w{i}")
    comparable = len(measures) >= COMPARABLE
    if not measures:
        ledger.step("k", "n", "", "measures known")
        return ledger.close(ResponseScore(None, 0, False, "Nothing was measured: there is no score."))
    score = ledger.step("S", f"({' + '.join(total)}) / ({' + '.join(weights)})", "", "score")
    word = "as usual" if abs(score) < 1 else "better than usual" if score > 0 else "worse than usual"
    said = f"{signed(score, 1)}: {word}, from {len(measures)} measure{'s' if len(measures) > 1 else ''}."
    if not comparable:
        said += f" Fewer than {COMPARABLE}: not comparable."
    return ledger.close(ResponseScore(score, len(measures), comparable, said))
