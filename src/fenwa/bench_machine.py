"""How much of its processors the machine gave while something was timed: a shared one gives now more, now less."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from statistics import median
from typing import TypeVar

T = TypeVar("T")

STAT = Path("/proc/stat")
BUSY, STOLEN = (0, 1, 2, 5, 6, 7), 7  # user, nice, system, interrupts; what others took of what was asked for
ROWS, STRIDE, WALKS = 300_000, 130_003, 5  # without a common divisor: each row once
SLOWER, TAKEN = 1.15, 0.02  # of the quickest walk of this run; of the processors' time
TRIES = 3
WAITS, WAIT_s = 4, 5.0
PATIENCE_s = 240.0  # in all of a run, for waiting and for measuring again

_quickest_ms = float("inf")
_spent_s = 0.0  # of the patience


@dataclass(frozen=True)
class Machine:
    """What the machine itself did meanwhile: the time of one plain walk, and the share that others took."""

    walk_ms: float
    taken: float | None

    @property
    def quiet(self) -> bool:
        """Whether the walk went about as quickly as it ever did in this run, and next to nothing was taken."""
        return self.walk_ms <= SLOWER * _quickest_ms and (self.taken or 0.0) <= TAKEN

    def __str__(self) -> str:
        walk = f"{self.walk_ms:.0f} ms"
        return walk if self.taken is None else f"{walk}, {100 * self.taken:.0f} %"


def processors(text: str) -> tuple[int, int] | None:
    """What the processors have worked and what others took of it, in the kernel's ticks; None where it tells neither.

    ``text`` is that of /proc/stat: its first line adds all processors up.
    """
    first = text.split("\n", 1)[0].split()
    if first[:1] != ["cpu"] or len(first) <= STOLEN + 1:
        return None
    ticks = [int(x) for x in first[1:]]
    return sum(ticks[n] for n in BUSY), ticks[STOLEN]


def _now() -> tuple[int, int] | None:
    return processors(STAT.read_text("ascii")) if STAT.exists() else None


@cache
def _rows() -> tuple[dict[int, tuple[int, str]], list[int]]:
    """A table, and its keys in no order: a server's work is to go through rows that lie all over the memory."""
    return {k: (k, str(k)) for k in range(ROWS)}, [k * STRIDE % ROWS for k in range(ROWS)]


def walk_ms() -> float:
    """A walk through a table in no order in plain Python, the median of five: the same work in every run. [ms]

    What only adds up, and never leaves the processor, goes as quickly beside a neighbour who holds the memory up.
    """
    global _quickest_ms
    table, keys = _rows()
    times = []
    for _ in range(WALKS):
        begun = time.perf_counter()
        n = 0
        for k in keys:
            n += table[k][0]
        times.append(1000 * (time.perf_counter() - begun))
    found = median(times)
    _quickest_ms = min(_quickest_ms, found)
    return found


def watched(measure: Callable[[], T]) -> tuple[T, Machine]:
    """What was measured, and how the machine was meanwhile: the slower of the walks before and after it."""
    before, walk = _now(), walk_ms()
    found = measure()
    walk = max(walk, walk_ms())
    after = _now()
    taken = None
    if before is not None and after is not None and after[0] > before[0]:
        taken = (after[1] - before[1]) / (after[0] - before[0])
    return found, Machine(walk, taken)


def wait_for_quiet() -> None:
    """Wait until the plain walk goes about as quickly as it ever did in this run, a third of a minute at most."""
    global _spent_s
    for _ in range(WAITS):
        if _spent_s >= PATIENCE_s or watched(lambda: None)[1].quiet:
            return
        time.sleep(WAIT_s)
        _spent_s += WAIT_s


def in_quiet(measure: Callable[[], T]) -> tuple[T, Machine]:
    """Measure in a quiet moment, a few times if it did not last. What is told goes by the machine, not by the result.

    With no quiet moment among the tries the one with the quickest walk is kept. A run has patience for four minutes.
    """
    global _spent_s
    best: tuple[T, Machine] | None = None
    for again in range(TRIES):
        if again and _spent_s >= PATIENCE_s:
            break
        wait_for_quiet()
        begun = time.perf_counter()
        found = watched(measure)
        _spent_s += time.perf_counter() - begun if again else 0.0
        if found[1].quiet:
            return found
        if best is None or _slowness(found[1]) < _slowness(best[1]):
            best = found
    assert best is not None
    return best


def _slowness(machine: Machine) -> float:
    return machine.walk_ms / (1 - min(machine.taken or 0.0, 0.9))
