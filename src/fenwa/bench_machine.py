"""How much of its processors the machine gave while something was timed: a shared one gives now more, now less."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path
from statistics import median
from typing import NamedTuple, TypeVar

T = TypeVar("T")

STAT = Path("/proc/stat")
BUSY, STOLEN = (0, 1, 2, 5, 6, 7), 7  # user, nice, system, interrupts; what others took of what was asked for
ROWS, STRIDE, WALKS = 300_000, 130_003, 3  # without a common divisor: each row once
SUMS = 300_000
SLOWER, TAKEN = 1.15, 0.02  # of the quickest look of this run; of the processors' time
LEARNT_BY = 15  # looks by which a run learns how quick the machine can be
TRIES = 4  # of one measure
WAIT_s = 1.0
PATIENCE_s, A_MEASURE_s = 420.0, 60.0  # in all of a run and of one figure, for waiting and for measuring again


class Look(NamedTuple):
    """How quick the machine is now, by work that is the same each time: a walk through rows that lie all over the
    memory, and a sum that never leaves the processor. A neighbour slows the one or the other. [ms]
    """

    walk_ms: float
    sum_ms: float

    def beside(self, other: Look) -> Look:
        """The slower of both."""
        return Look(max(self.walk_ms, other.walk_ms), max(self.sum_ms, other.sum_ms))


_quickest = Look(float("inf"), float("inf"))
_left_s = PATIENCE_s


@dataclass(frozen=True)
class Machine:
    """What the machine itself did meanwhile: how quick it was, and the share that others took.

    ``quiet_of``: how many samples were taken in quiet, and of how many, where there were more than one.
    """

    look: Look
    taken: float | None
    quiet_of: tuple[int, int] | None = None

    @property
    def slowness(self) -> float:
        """How many times slower than it ever was in this run."""
        slower = max(self.look.walk_ms / _quickest.walk_ms, self.look.sum_ms / _quickest.sum_ms)
        return slower / (1 - min(self.taken or 0.0, 0.9))

    @property
    def quiet(self) -> bool:
        """Whether it was about as quick as it ever was in this run, and next to nothing was taken."""
        return _is_quiet(self.look) and (self.taken or 0.0) <= TAKEN

    def __str__(self) -> str:
        said = f"{self.look.walk_ms:.0f} and {self.look.sum_ms:.0f} ms"
        said += "" if self.taken is None else f", {100 * self.taken:.0f} %"
        return said if self.quiet_of is None else f"{said}; {self.quiet_of[0]} of {self.quiet_of[1]} quiet"


def _is_quiet(look: Look) -> bool:
    return look.walk_ms <= SLOWER * _quickest.walk_ms and look.sum_ms <= SLOWER * _quickest.sum_ms


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


def look() -> Look:
    """Look at the machine now: each the median of a few times. [ms]"""
    global _quickest
    table, keys = _rows()
    walks, sums = [], []
    for _ in range(WALKS):
        begun = time.perf_counter()
        n = 0
        for k in keys:
            n += table[k][0]
        between = time.perf_counter()
        for k in range(SUMS):
            n += k & 7
        walks.append(1000 * (between - begun))
        sums.append(1000 * (time.perf_counter() - between))
    found = Look(median(walks), median(sums))
    _quickest = Look(min(_quickest.walk_ms, found.walk_ms), min(_quickest.sum_ms, found.sum_ms))
    return found


def learn() -> Look:
    """The quickest of some looks: a neighbour comes and goes by the second."""
    for _ in range(LEARNT_BY):
        look()
        time.sleep(WAIT_s)
    return _quickest


def watched(measure: Callable[[], T], before: Look | None = None) -> tuple[T, Machine]:
    """What was measured, and how the machine was meanwhile: the slower of the looks before and after it."""
    begun, first = _now(), before or look()
    found = measure()
    last = look()
    after = _now()
    taken = None
    if begun is not None and after is not None and after[0] > begun[0]:
        taken = (after[1] - begun[1]) / (after[0] - begun[0])
    return found, Machine(first.beside(last), taken)


class _Patience:
    """What is left for waiting and measuring again, of a run and of one figure."""

    def __init__(self) -> None:
        self._of_figure_s = A_MEASURE_s

    @property
    def is_left(self) -> bool:
        return self._of_figure_s > 0 and _left_s > 0

    def spend(self, took_s: float) -> None:
        global _left_s
        self._of_figure_s -= took_s
        _left_s -= took_s


def _quiet_look(patience: _Patience) -> Look:
    """Look until the machine is quiet, while there is patience."""
    found = look()
    while not _is_quiet(found) and patience.is_left:
        begun = time.perf_counter()
        time.sleep(WAIT_s)
        found = look()
        patience.spend(time.perf_counter() - begun)
    return found


def in_quiet(measure: Callable[[], T], patience: _Patience | None = None) -> tuple[T, Machine]:
    """Measure in a quiet moment, a few times if it did not last. What is told goes by the machine, not by the result.

    With no quiet moment among the tries the one with the quickest machine is kept.
    """
    patience = patience or _Patience()
    best: tuple[T, Machine] | None = None
    for again in range(TRIES):
        if again and not patience.is_left:
            break
        before, begun = _quiet_look(patience), time.perf_counter()
        found = watched(measure, before)
        if again:
            patience.spend(time.perf_counter() - begun)
        if found[1].quiet:
            return found
        if best is None or found[1].slowness < best[1].slowness:
            best = found
    assert best is not None
    return best


def each_in_quiet(measures: Iterable[Callable[[], T]]) -> tuple[list[T], Machine]:
    """Each measured in a quiet moment of its own, for such moments are short; the machine as it was at the middle one.

    Together they have the patience of one figure.
    """
    patience = _Patience()
    found = [in_quiet(measure, patience) for measure in measures]
    machines = [machine for _, machine in found]
    middle = sorted(machines, key=lambda m: m.slowness)[len(machines) // 2]
    return [x for x, _ in found], replace(middle, quiet_of=(sum(m.quiet for m in machines), len(machines)))
