"""Readers stand aside for a moment while an entry is stored: one process computes one thing at a time.

A page being worked out and a pour that share Python's lock take each other's time, and the pour, which asks the
database a hundred times, waits for the lock after each. Whoever reads therefore stops at its next question to the
database, or at the next of many pots, until the entry is in; never longer than ``PATIENCE_s``, for an import or a
photo may take long, and pages are to be read meanwhile.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from itertools import islice
from typing import TypeVar

T = TypeVar("T")

AT_A_TIME = 64  # of many
PATIENCE_s = 0.15  # a pour takes a fifth of it

_lock = threading.Lock()
_entries: dict[int, float] = {}  # threads that store an entry, and since when
_none = threading.Event()
_none.set()


@contextmanager
def entry() -> Iterator[None]:
    """An entry is stored by this thread."""
    me = threading.get_ident()
    with _lock:
        outermost = me not in _entries
        _entries.setdefault(me, time.monotonic())
        _none.clear()
    try:
        yield
    finally:
        if outermost:
            with _lock:
                del _entries[me]
                if not _entries:
                    _none.set()


def give_way() -> None:
    """Wait while another thread stores an entry that was begun just now."""
    if not _none.is_set():
        _wait()


def _wait() -> None:
    with _lock:
        if threading.get_ident() in _entries or not _entries:
            return
        left = max(_entries.values()) + PATIENCE_s - time.monotonic()
    if left > 0:
        _none.wait(left)


class InTurns(list[T]):
    """Many, gone through some at a time: whoever reads them gives way between."""

    def __iter__(self) -> Iterator[T]:
        there = super().__iter__()
        for _ in range(0, len(self), AT_A_TIME):
            give_way()
            yield from islice(there, AT_A_TIME)
