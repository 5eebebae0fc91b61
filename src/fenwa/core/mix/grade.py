"""A grade as growers type it: "16 16 16", "161616", "13-3-15"."""

from __future__ import annotations

import re
from dataclasses import dataclass

from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

_NUMBER = r"\d{1,2}(?:[.,]\d{1,2})?"
_APART = re.compile(rf"^\s*({_NUMBER})\s*[-–:/\s]\s*({_NUMBER})\s*[-–:/\s]\s*({_NUMBER})\s*$")
_RUN = re.compile(r"^\d{3,6}$")


@dataclass(frozen=True)
class Grade:
    """N, P2O5 (or P) and K2O (or K) of a grade, and the sentence that asks to confirm it. [%]"""

    n_pct: float
    p_pct: float
    k_pct: float
    sentence: str
    sure: bool
    others: tuple[str, ...]


def _splits(run: str) -> list[tuple[float, float, float]]:
    """Ways to cut a run of digits into three shares of at most two digits that a bag could hold."""
    found = []
    for i in (1, 2):
        for j in (1, 2):
            parts = run[:i], run[i : i + j], run[i + j :]
            if not all(1 <= len(p) <= 2 for p in parts) or any(len(p) > 1 and p[0] == "0" for p in parts):
                continue
            n, p, k = (float(x) for x in parts)
            if n + p + k <= 100:
                found.append((n, p, k))
    return found


@calculation("read-grade", title="Reading a grade", station="mix")
def read_grade(*, text: str) -> Computed[Grade]:
    """The three numbers of a grade, understood from how it was typed and to be confirmed.

    Parameters
    ----------
    text : str
        The grade as typed: three numbers apart or in a run.

    Returns
    -------
    Computed
        N, P and K shares as the label gives them, with a sentence to confirm. [%]

    Raises
    ------
    Underspecified
        If nothing was typed.
    InputError
        If three shares cannot be read, or they exceed 100 %.

    Notes
    -----
    A run of six digits is cut in pairs; of three digits, singly. Four or five digits can be cut
    in more than one way: the evenest is proposed and the others are named.

    References
    ----------
    label; judgement
    """
    if not text.strip():
        raise Underspecified("Grade is empty. Type three numbers, such as 16-16-16.", pointer="/text")
    apart, run = _APART.match(text), re.sub(r"\s", "", text)
    if apart:
        choices = [tuple(float(x.replace(",", ".")) for x in apart.groups())]
    elif _RUN.match(run):
        choices = sorted(
            _splits(run), key=lambda c: (max(len(f"{x:g}") for x in c) - min(len(f"{x:g}") for x in c), -c[0])
        )
    else:
        choices = []
    if not choices:
        raise InputError(
            f"Grade “{text}” is not understood. Type three numbers, such as 16-16-16.", pointer="/text", value=text
        )
    n, p, k = choices[0]
    ledger = Ledger("Reading a grade", "The label itself decides.", ("label",))
    for symbol, words, value in (("N", "nitrogen", n), ("P", "second number", p), ("K", "third number", k)):
        ledger.take(symbol, words, value, "%", "entered")
    total = ledger.step("S", "N + P + K", "%", "the three together")
    if total > 100:
        raise InputError(
            f"Grade “{text}” adds up to {total:g} %, more than 100. Check the three numbers.",
            pointer="/text",
            value=total,
        )
    others = tuple(f"{a:g}-{b:g}-{c:g}" for a, b, c in choices[1:])
    sentence = f"Read as {n:g}-{p:g}-{k:g}: nitrogen {n:g} %, then phosphorus and potassium as the label gives them."
    if others:
        sentence += f" It could also be {' or '.join(others)}. Look at the label."
    return ledger.close(Grade(n, p, k, sentence, not others, others))


def label_of_grade(text: str, liquid: bool, rate: float | None, rate_unit: str) -> tuple[Label, Grade]:
    """A product of which only the three numbers are known; a liquid's are grams in a hundred millilitres.

    Raises
    ------
    DomainError
        If the grade cannot be read.
    """
    grade = read_grade(text=text).result
    label = Label(
        name=text,
        form="liquid" if liquid else "powder",
        basis="w/v" if liquid else "w/w",
        n_total_pct=grade.n_pct,
        p_pct=grade.p_pct,
        k_pct=grade.k_pct,
        label_rate=rate,
        label_rate_unit=rate_unit if rate is not None else None,
    )
    return label, grade
