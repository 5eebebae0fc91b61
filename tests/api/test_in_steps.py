"""A long answer written some rows at a time reads as one written in one go, and lets entries go first between."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

import pytest
from pydantic import BaseModel

from fenwa.api.in_steps import as_json_in_steps
from fenwa.core.pace import AT_A_TIME, between_steps
from fenwa.store.giving_way import give_way


@dataclass(frozen=True)
class Row:
    name: str
    on: date | None
    mL: float


class Inner(BaseModel):
    rows: Sequence[Row]
    name: str = ""


class Page(BaseModel):
    before: str
    inner: Inner
    more: list[Row]
    after: float


@pytest.fixture
def steps() -> Iterator[list[int]]:
    """How often a step was done."""
    done: list[int] = []
    between_steps(lambda: done.append(1))
    yield done
    between_steps(give_way)


def rows(n: int) -> list[Row]:
    return [Row(f'µ "rows":[] {i}', date(2026, 11, 1) if i % 2 else None, i / 3) for i in range(n)]


@pytest.mark.parametrize("n", [0, 1, AT_A_TIME, AT_A_TIME + 1, 3 * AT_A_TIME])
def test_it_reads_as_if_written_in_one_go(n: int, steps: list[int]) -> None:
    some, odd = rows(n), '"rows":[] and "more":[]'
    whole = Page(before=odd, inner=Inner(rows=some, name=odd), more=some[:3], after=float("nan"))
    empty = Page(before=odd, inner=Inner(rows=[], name=odd), more=[], after=float("nan"))
    sent = as_json_in_steps(empty, {"rows": (Row, some), "more": (Row, tuple(some[:3]))})
    assert bytes(sent.body) == whole.model_dump_json().encode()
    assert sent.media_type == "application/json"
    assert len(steps) == -(-n // AT_A_TIME) + (n > 0)


def test_a_name_that_two_fields_have_is_a_mistake_of_ours() -> None:
    class Twice(BaseModel):
        rows: list[Row]
        inner: Inner

    with pytest.raises(ValueError, match="unpack"):
        as_json_in_steps(Twice(rows=[], inner=Inner(rows=[])), {"rows": (Row, rows(2))})
