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
from typing import TypeVar

from fenwa.core.pace import in_steps

T = TypeVar("T")

PATIENCE_s = 0.15  # a pour takes a fifth of it
MOST_s, IN_s = 2.0, 2.5  # where entry follows entry without pause, pages go on a fifth of the time

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
    if now - getattr(_reader, "since", -math.inf) > IN_s:
        _reader.since, _reader.left = now, MOST_s
    left = min(left, _reader.left)
    if left > 0:
        _none.wait(left)
        _reader.left -= time.monotonic() - now


class InTurns(list[T]):
    """Many, gone through in steps: whoever reads them lets entries go first between."""

    def __iter__(self) -> Iterator[T]:
        return in_steps(super().__iter__())
