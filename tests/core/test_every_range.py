"""Every number that a calculation takes has a range of its own: far beyond it, it is refused beside its field.

The inputs are the examples of the registry and of the cases; each of their numbers is put far below and far above
anything that can be, the others stay as they are. Numbers that only name a row have no range.
"""

import copy
import math
import re
from collections.abc import Iterator
from typing import Any

import pytest
from pydantic import ValidationError

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.calculations import list_calculations
from fenwa.core.errors import DomainError
from tests.core.test_registry import EXAMPLES, runs

NAMES_A_ROW = re.compile(r"(^|_)ids?$")
BEYOND = (-1e7, 1e12)
Path = tuple[str | int, ...]


def example_of(name: str) -> dict[str, Any]:
    return EXAMPLES[name] if name in EXAMPLES else next(inputs for of, inputs in runs() if of == name)


def numbers_in(value: Any, path: Path = ()) -> Iterator[tuple[Path, float]]:
    """Every number with the way to it; of a list the first and the last stand for all."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from numbers_in(inner, (*path, key))
    elif isinstance(value, list):
        for i in sorted({0, len(value) - 1} if value else ()):
            yield from numbers_in(value[i], (*path, i))
    elif isinstance(value, int | float) and not isinstance(value, bool):
        yield path, value


def with_number(inputs: dict[str, Any], path: Path, number: float) -> dict[str, Any]:
    changed = copy.deepcopy(inputs)
    place: Any = changed
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = number
    return changed


def names_a_row(path: Path) -> bool:
    return any(isinstance(step, str) and NAMES_A_ROW.search(step) for step in path[-2:])


CASES = [
    pytest.param(name, path, of, id=f"{name} {'/'.join(map(str, path))}")
    for name in (entry.name for entry in list_calculations())
    for path, of in numbers_in(example_of(name))
    if not names_a_row(path)
]


@pytest.mark.parametrize("beyond", BEYOND)
@pytest.mark.parametrize(("name", "path", "of"), CASES)
def test_what_cannot_be_is_refused_with_its_field(name: str, path: Path, of: float, beyond: float) -> None:
    number = int(beyond) if isinstance(of, int) else beyond
    with pytest.raises((DomainError, ValidationError)) as refused:
        run_calculation(name, with_number(example_of(name), path, number))
    if isinstance(refused.value, DomainError):
        assert refused.value.pointer.startswith("/"), "the sentence stands beside a field"
        assert refused.value.detail.endswith((".", "?")), refused.value.detail


@pytest.mark.parametrize("odd", [math.nan, math.inf, -math.inf])
@pytest.mark.parametrize("name", sorted({case.values[0] for case in CASES}))  # type: ignore[type-var]
def test_no_number_without_an_end_gets_in(name: str, odd: float) -> None:
    inputs = example_of(name)
    for path, _ in numbers_in(inputs):
        if not names_a_row(path):
            with pytest.raises((DomainError, ValidationError)):
                run_calculation(name, with_number(inputs, path, odd))


def test_there_are_numbers_to_try() -> None:
    assert len(CASES) > 450
    assert len({case.values[0] for case in CASES}) > 110
