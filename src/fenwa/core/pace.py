"""Where a long calculation lets something shorter go first.

A calculation of many steps says ``step_done`` after each. What is done then is the matter of whoever runs it: a server
lets an entry be stored, everyone else goes on. No result depends on it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from itertools import islice
from typing import TypeVar

T = TypeVar("T")

AT_A_TIME = 64  # of many


def _go_on() -> None:
    """Nothing waits."""


_between: list[Callable[[], None]] = [_go_on]


def between_steps(do: Callable[[], None]) -> None:
    """Have this done between the steps of every long calculation of this process."""
    _between[0] = do


def step_done() -> None:
    """A step of a long calculation is done."""
    _between[0]()


def in_steps(many: Iterable[T]) -> Iterator[T]:
    """Go through many, with a step done before each ``AT_A_TIME`` of them."""
    there = iter(many)
    while True:
        step_done()
        some = tuple(islice(there, AT_A_TIME))
        if not some:
            return
        yield from some
