"""How much an answer is worth: one rule for every page."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from fenwa.core.entry import capital, require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Grade = Literal["too early", "a hint", "weak", "fair", "firm"]
GRADES: Final[tuple[Grade, ...]] = ("too early", "a hint", "weak", "fair", "firm")
FAIR_PAIRS, FAIR_CHANCE = 4, 0.985
FIRM_PAIRS, FIRM_CHANCE, FIRM_P = 8, 0.995, 0.05
COUNTS_FROM = 2  # the first leaf formed after a change is a hint, the second counts


@dataclass(frozen=True)
class EvidenceGrade:
    """The grade with the lines of the rule that gave it."""

    grade: Grade
    because: tuple[str, ...]
    next: str
    sentence: str


@calculation("evidence-grade", title="How sure that is", station="leaf")
def evidence_grade(
    *,
    pairs: int,
    counting: int,
    window_open: bool = True,
    chance: float = 0.5,
    exact_p: float = 1.0,
    drawn_by_coin: bool = False,
    one_sided: int = 0,
) -> Computed[EvidenceGrade]:
    """How much an answer is worth: too early, a hint, weak, fair or firm.

    Parameters
    ----------
    pairs : int
        Changed plants with an unchanged one beside them, 0 to 200; 0: one plant alone.
    counting : int
        Leaves formed after the change, or looks within its window, of the plant that has fewest, 0 to 10 000.
    window_open : bool
        Whether the first day that can count has come.
    chance : float
        Chance that the effect is above zero, 0 to 1.
    exact_p : float
        p of the exact test, 0 to 1.
    drawn_by_coin : bool
        Whether a coin told which of a pair was changed.
    one_sided : int
        Other changes that only one side of a pair had, 0 to 1 000.

    Returns
    -------
    Computed
        The grade, why, and what the next one asks.

    Raises
    ------
    OutOfRange
        If a figure cannot be.

    Notes
    -----
    No grade says proven: plants differ, and a log holds what was noted.

    References
    ----------
    E7.13; section 7.4
    """
    require(pairs, "Pairs", "", low=0, high=200, pointer="/pairs")
    require(counting, "Leaves that count", "", low=0, high=10_000, pointer="/counting")
    require(chance, "Chance", "", low=0, high=1, pointer="/chance")
    require(exact_p, "Exact p", "", low=0, high=1, pointer="/exact_p")
    require(one_sided, "Other changes", "", low=0, high=1000, pointer="/one_sided")
    ledger = Ledger("How sure that is", "0 too early, 1 a hint, 2 weak, 3 fair, 4 firm.", ("judgement",))
    ledger.take("n", "pairs", pairs, "", "log")
    ledger.take("l", "leaves or looks that count", counting, "", "log")
    ledger.take("c", "chance of its direction", max(chance, 1 - chance), "", "posterior")
    ledger.take("x", "other changes on one side only", one_sided, "", "log")
    why: list[str] = []
    if not window_open or counting < 1:
        ledger.step("g", "0 * n", "", "too early")
        said = "Too early: nothing formed after the change can be read yet."
        return ledger.close(EvidenceGrade("too early", ("Nothing that can answer has formed yet.",), "Wait.", said))
    decided = max(chance, 1 - chance)
    if pairs >= FIRM_PAIRS and drawn_by_coin and decided >= FIRM_CHANCE and exact_p < FIRM_P:
        best, following = 4, ""
        why.append(f"{pairs} pairs drawn by coin, direction sure to {FIRM_CHANCE:g}, p {exact_p:.2g}.")
    elif pairs >= FAIR_PAIRS and decided >= FAIR_CHANCE:
        best, following = 3, f"{FIRM_PAIRS} pairs drawn by coin, sure to {FIRM_CHANCE:g}, p under {FIRM_P:g}."
        why.append(f"{pairs} pairs, direction sure to {FAIR_CHANCE:g}.")
    elif pairs >= 1:
        best, following = 2, f"{FAIR_PAIRS} pairs, and a direction sure to {FAIR_CHANCE:g}."
        why.append("One pair." if pairs == 1 else f"{pairs} pairs, direction not sure to {FAIR_CHANCE:g}.")
    else:
        best, following = 1, "A plant beside it that was not changed."
        why.append("One plant with nothing beside it: season and light may have done it.")
    base = ledger.found("b", "by plants and chance", best, "", "rule E7.13")
    if counting < COUNTS_FROM and base > 1:
        why.append("Only the first leaf that formed after the change.")
        following = "The second leaf that forms after the change."
    ledger.take("k", "a first leaf alone is a hint", 1 if counting < COUNTS_FROM else 4, "", "default:E7.13")
    ledger.step("h", "min(b, k)", "", "before other changes")
    grade = int(
        ledger.step("g", "max(min(h, 1), h - min(x, 1))", "", "one lower where only one side changed otherwise")
    )
    if one_sided:
        why.append(f"{one_sided} other {'change' if one_sided == 1 else 'changes'} on one side only.")
        if base > 1:
            following = "Change one thing at a time."
    word = GRADES[grade]
    return ledger.close(EvidenceGrade(word, tuple(why), following, f"{capital(word)}. {' '.join(why)}"))
