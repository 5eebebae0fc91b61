"""Long lists in windows: a page sends the rows it shows, and says how many there are."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, TypeVar

from fastapi import Query

from fenwa.core.errors import InputError

T = TypeVar("T")

WINDOW = 60  # rows sent unless another count is asked for: three screens of a desk
MOST = 500

Skip = Annotated[int, Query(ge=0, le=1_000_000, description="Rows before the first one sent.")]
Count = Annotated[int, Query(ge=1, le=MOST, description="Rows sent at most.")]


def window(rows: Sequence[T], skip: int, count: int) -> Sequence[T]:
    """The rows from ``skip`` on, ``count`` at most; past the end there is none."""
    return rows[skip : skip + count]


def numbers(text: str, pointer: str) -> set[int]:
    """Record numbers as an address holds them, between commas."""
    parts = [part.strip() for part in text.split(",") if part.strip()]
    if len(parts) > MOST or not all(part.isascii() and part.isdigit() and len(part) < 19 for part in parts):
        raise InputError(f"Write at most {MOST} numbers with commas between them, for example 3,5,8.", pointer=pointer)
    return {int(part) for part in parts}
