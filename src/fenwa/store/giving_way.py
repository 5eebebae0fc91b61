"""Readers stand aside for a moment while an entry is stored: one process computes one thing at a time.

A page being worked out and a pour that share Python's lock take each other's time, and the pour, which asks the
database a hundred times, waits for the lock after each. Whoever reads therefore stops at its next question to the
database, or at the next of many pots, until the entry is answered; never longer than ``PATIENCE_s``, for an import or
a photo may take long, and pages are to be read meanwhile.
"""

from __future__ import annotations

import math
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from itertools import islice
from typing import TypeVar

T = TypeVar("T")

AT_A_TIME = 64  # of many
PATIENCE_s = 0.15  # a pour takes a fifth of it
MOST_s = 1.0  # in twice the time: where entry follows entry, pages go on half of it

_lock = threading.Lock()
_entries: dict[object, float] = {}  # entries under way, and since when
_none = threading.Event()
_none.set()
_reader = threading.local()  # how long this thread may stand aside still
_mine: ContextVar[bool] = ContextVar("an entry is stored here", default=False)


@contextmanager
def entry() -> Iterator[None]:
    """An entry is handled inside: in this task, and in the threads it asks."""
    if _mine.get():
        yield
        return
    me, mark = object(), _mine.set(True)
    with _lock:
        _entries[me] = time.monotonic()
        _none.clear()
    try:
        yield
    finally:
        _mine.reset(mark)
        with _lock:
            del _entries[me]
            if not _entries:
                _none.set()


def give_way() -> None:
    """Wait while an entry is handled elsewhere that was begun just now."""
    if not _none.is_set() and not _mine.get():
        _wait()


def _wait() -> None:
    now = time.monotonic()
    with _lock:
        left = max(_entries.values(), default=0.0) + PATIENCE_s - now
    if now - getattr(_reader, "since", -math.inf) > 2 * MOST_s:
        _reader.since, _reader.left = now, MOST_s
    left = min(left, _reader.left)
    if left > 0:
        _none.wait(left)
        _reader.left -= time.monotonic() - now


class InTurns(list[T]):
    """Many, gone through some at a time: whoever reads them gives way between."""

    def __iter__(self) -> Iterator[T]:
        there = super().__iter__()
        for _ in range(0, len(self), AT_A_TIME):
            give_way()
            yield from islice(there, AT_A_TIME)
