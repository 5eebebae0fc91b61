"""A number carries its working: inputs with origin, steps with formula and numbers.

The text of a step is the formula that computes it: ``Ledger.step`` evaluates the
text itself, so what is shown and what is computed cannot drift apart. What is solved
elsewhere is no step of arithmetic and does not look like one: ``Ledger.found`` states it.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from types import CodeType
from typing import Any, Generic, TypeVar

T = TypeVar("T")

FUNCTIONS: dict[str, Callable[..., float]] = {
    "ln": math.log,
    "lg": math.log10,
    "exp": math.exp,
    "sqrt": math.sqrt,
    "min": min,
    "max": max,
    "abs": abs,
    "ceil": math.ceil,
    "floor": math.floor,
}


@dataclass(frozen=True)
class Term:
    """An input of a working: where the number came from stands beside it."""

    symbol: str
    label: str
    value: float
    unit: str
    origin: str


@dataclass(frozen=True)
class Step:
    """One line over the symbols above it: arithmetic, or a value that another way of computing found.

    ``formula`` is evaluated as it stands here. A statement has none and says in ``by`` how the value was found: a
    fixed point, a programme, a fold over a log, with its equation.
    """

    symbol: str
    label: str
    formula: str
    value: float
    unit: str
    by: str = ""


@dataclass(frozen=True)
class Working:
    """How a number came about, complete enough to be replayed by hand."""

    title: str
    inputs: tuple[Term, ...]
    steps: tuple[Step, ...]
    assumptions: tuple[str, ...]
    cautions: tuple[str, ...]
    validity: str
    sources: tuple[str, ...]
    formula_id: str = ""


@dataclass(frozen=True)
class Computed(Generic[T]):
    """A result and its working, always together."""

    result: T
    working: Working


@lru_cache(maxsize=1024)
def _compiled(formula: str) -> CodeType:
    return compile(formula, "<formula>", "eval")


@dataclass
class Ledger:
    """Collects a working while a calculation runs."""

    title: str
    validity: str = ""
    sources: tuple[str, ...] = ()
    _terms: list[Term] = field(default_factory=list)
    _steps: list[Step] = field(default_factory=list)
    _assumptions: list[str] = field(default_factory=list)
    _cautions: list[str] = field(default_factory=list)
    _names: dict[str, Any] = field(default_factory=dict)

    def take(self, symbol: str, label: str, value: float, unit: str, origin: str = "entered") -> float:
        """Note an input and return it unchanged."""
        self._terms.append(Term(symbol, label, float(value), unit, origin))
        self._names[symbol] = float(value)
        return float(value)

    def step(self, symbol: str, formula: str, unit: str, label: str) -> float:
        """Evaluate ``formula`` over the symbols so far, note it, return its value."""
        scope = {"__builtins__": {}, **FUNCTIONS, **self._names}
        value = float(eval(_compiled(formula), scope))  # noqa: S307 - the text is ours, never a user's
        self._steps.append(Step(symbol, label, formula, value, unit))
        self._names[symbol] = value
        return value

    def found(self, symbol: str, label: str, value: float, unit: str, by: str) -> float:
        """State a value that no line of arithmetic gives, and by what it was found; return it unchanged."""
        self._steps.append(Step(symbol, label, "", float(value), unit, by))
        self._names[symbol] = float(value)
        return float(value)

    def assume(self, sentence: str) -> None:
        """Note what was taken for granted, once."""
        if sentence not in self._assumptions:
            self._assumptions.append(sentence)

    def caution(self, sentence: str) -> None:
        """Note a reason to trust the number less, once."""
        if sentence not in self._cautions:
            self._cautions.append(sentence)

    def close(self, result: T) -> Computed[T]:
        """The result with everything noted so far."""
        return Computed(
            result,
            Working(
                self.title,
                tuple(self._terms),
                tuple(self._steps),
                tuple(self._assumptions),
                tuple(self._cautions),
                self.validity,
                self.sources,
            ),
        )
