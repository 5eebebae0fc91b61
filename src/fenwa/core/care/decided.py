"""What a grower's own words of a decision ask for, and where they are mistaken."""

from __future__ import annotations

from fenwa.core.care.vocabulary import REPOT_WORD

LIMES = ("dolomite", "lime", "limestone", "oyster shell", "eggshell")


def plans_repotting(what: str) -> bool:
    """Whether a decision plans a repotting: it is watered the day before."""
    return what.strip().lower().startswith(REPOT_WORD)


def caution_of(what: str, why: str) -> str:
    """What is mistaken in the words of a decision; empty: nothing that is known.

    Lime of any kind raises the pH: it never makes a mix acid.
    """
    words = f"{what} {why}".lower()
    lime = next((x for x in LIMES if x in words), "")
    if lime and "acid" in words and "less acid" not in words:
        return f"{lime.capitalize()} is lime: it makes a mix less acid, not more. Peat works the other way."
    return ""
