"""The list of calculations: one registration serves the API, the command line and the interface."""

from __future__ import annotations

import functools
import inspect
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, ParamSpec, TypeVar

from fenwa.core.entry import check_plain
from fenwa.core.working import Computed

P = ParamSpec("P")
R = TypeVar("R")

_PARAMETER = re.compile(r"^(\w+) : (.+)$")
_UNIT = re.compile(r"\[([^\]]*)\]\s*$")


@dataclass(frozen=True)
class ParameterDoc:
    """What a docstring says of one parameter."""

    text: str
    unit: str


@dataclass(frozen=True)
class Calculation:
    """A registered calculation: a pure function and what is said of it."""

    name: str
    title: str
    station: str
    function: Callable[..., Computed[Any]]

    @property
    def summary(self) -> str:
        """First line of the docstring."""
        return (inspect.getdoc(self.function) or "").split("\n", 1)[0]

    @property
    def formula_id(self) -> str:
        """Import path below ``fenwa.core``: search it, land on the function."""
        return f"{self.function.__module__.removeprefix('fenwa.core.')}.{self.function.__name__}"

    @property
    def parameters(self) -> dict[str, ParameterDoc]:
        """Text and unit of each parameter, read from the docstring."""
        docs: dict[str, list[str]] = {}
        section, name = "", ""
        for line in (inspect.getdoc(self.function) or "").splitlines():
            if line.startswith("---"):
                continue
            if line in ("Parameters", "Returns", "Raises", "Notes", "References", "Examples"):
                section = line
            elif section == "Parameters" and (found := _PARAMETER.match(line)):
                name = found.group(1)
                docs[name] = []
            elif section == "Parameters" and name and line.strip():
                docs[name].append(line.strip())
        out = {}
        for key, lines in docs.items():
            text = " ".join(lines)
            unit = _UNIT.search(text)
            out[key] = ParameterDoc(_UNIT.sub("", text).strip(), unit.group(1) if unit else "")
        return out


_CALCULATIONS: dict[str, Calculation] = {}


def calculation(
    name: str, *, title: str, station: str, many_rows: bool = False
) -> Callable[[Callable[P, Computed[R]]], Callable[P, Computed[R]]]:
    """Register a pure function; its results are stamped with their formula id.

    ``many_rows``: it takes thousands of rows that were checked when each came in; looking through them at every
    call would take longer than the calculation. What comes from outside is looked through in any case.
    """

    def register(function: Callable[P, Computed[R]]) -> Callable[P, Computed[R]]:
        formula_id = f"{function.__module__.removeprefix('fenwa.core.')}.{function.__name__}"

        @functools.wraps(function)
        def run(*args: P.args, **kwargs: P.kwargs) -> Computed[R]:
            if not many_rows:
                for key, value in kwargs.items():  # whatever a calculation checks itself, nothing endless gets in
                    check_plain(value, f"/{key}")
            computed = function(*args, **kwargs)
            return replace(computed, working=replace(computed.working, formula_id=formula_id))

        _CALCULATIONS[name] = Calculation(name, title, station, run)
        return run

    return register


def registered() -> dict[str, Calculation]:
    """What has registered itself so far, by name; ``core/calculations.py`` has imported all there are."""
    return dict(_CALCULATIONS)
