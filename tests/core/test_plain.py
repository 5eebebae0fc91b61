"""What no calculation can hold is refused wherever in a tree of values it stands, with the way to it."""

import math
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

import pytest

from fenwa.core.entry import FIRST_YEAR, LAST_YEAR, MAX_NUMBER, check_plain
from fenwa.core.errors import InputError


@dataclass(frozen=True)
class Row:
    value: Any


HELD = [
    None,
    True,
    0,
    -0.0,
    MAX_NUMBER,
    -MAX_NUMBER,
    int(MAX_NUMBER),
    date(FIRST_YEAR, 1, 1),
    date(LAST_YEAR, 12, 31),
    datetime(LAST_YEAR, 12, 31, 23, 59),
    "rain",
    (),
]
REFUSED = [
    math.nan,
    math.inf,
    -math.inf,
    math.nextafter(MAX_NUMBER, math.inf),
    -math.nextafter(MAX_NUMBER, math.inf),
    10**400,
    date(FIRST_YEAR - 1, 12, 31),
    date(LAST_YEAR + 1, 1, 1),
    datetime(LAST_YEAR + 1, 1, 1),
    "\ud800",
]
# how a value is wrapped, and the way that is told of it
WRAPPED = [
    (lambda x: x, "/a"),
    (lambda x: [0.0, x], "/a/1"),
    (lambda x: (x,), "/a/0"),
    (lambda x: {"b": x}, "/a/b"),
    (lambda x: Row(x), "/a/value"),
    (lambda x: [Row({"b": (1, x)})], "/a/0/value/b/1"),
]


@pytest.mark.parametrize(("wrap", "_way"), WRAPPED)
@pytest.mark.parametrize("value", HELD, ids=repr)
def test_what_can_be_held_passes_wherever_it_stands(value: Any, wrap: Any, _way: str) -> None:
    check_plain(wrap(value), "/a")


@pytest.mark.parametrize(("wrap", "way"), WRAPPED)
@pytest.mark.parametrize("value", REFUSED, ids=[repr(x)[:20] for x in REFUSED])
def test_what_cannot_is_refused_with_its_way(value: Any, wrap: Any, way: str) -> None:
    with pytest.raises(InputError) as refused:
        check_plain(wrap(value), "/a")
    assert refused.value.pointer == way
