"""How the machine was while something was timed, and which of several measures is told."""

from itertools import pairwise

import pytest

from fenwa import bench_machine
from fenwa.bench_machine import Machine, in_quiet, processors, watched

STAT = "cpu  100 10 40 900 7 3 2 50 5 0\ncpu0 50 5 20 450 3 1 1 25 0 0\nintr 9\n"


def test_processors_are_read_from_the_kernels_first_line() -> None:
    """By hand: 100 + 10 + 40 + 3 + 2 + 50 ticks asked for, of which others took 50; idle and waiting count for none."""
    assert processors(STAT) == (205, 50)


@pytest.mark.parametrize("text", ["", "cpu", "cpu 1 2 3 4\n", "intr 1 2 3 4 5 6 7 8 9 10\n"])
def test_a_kernel_that_tells_nothing_of_others_is_no_quiet_one(text: str) -> None:
    assert processors(text) is None


@pytest.fixture
def walks(monkeypatch: pytest.MonkeyPatch) -> list[float]:
    """What the walks before and after each measure take, in their order. [ms]"""
    given: list[float] = []
    monkeypatch.setattr(bench_machine, "_quickest_ms", 50.0)
    monkeypatch.setattr(bench_machine, "walk_ms", lambda: given.pop(0))
    monkeypatch.setattr(bench_machine, "_now", lambda: None)
    monkeypatch.setattr(bench_machine, "WAITS", 0)
    monkeypatch.setattr(bench_machine, "_spent_s", 0.0)
    return given


def test_the_slower_of_the_walks_before_and_after_is_told(walks: list[float]) -> None:
    walks += [51.0, 80.0]
    found, machine = watched(lambda: "measured")
    assert (found, machine) == ("measured", Machine(80.0, None))
    assert not machine.quiet
    assert str(machine) == "80 ms"


def test_the_first_quiet_measure_is_kept_whatever_it_found(walks: list[float]) -> None:
    walks += [120.0, 60.0, 52.0, 53.0]
    values = iter([1.0, 9.0, 2.0])
    assert in_quiet(lambda: next(values)) == (9.0, Machine(53.0, None))
    assert next(values) == 2.0, "no more was measured than needed"


def test_without_a_quiet_moment_the_quietest_by_the_machine_is_kept(walks: list[float]) -> None:
    walks += [120.0, 90.0, 70.0, 80.0, 99.0, 99.0]
    values = iter([1.0, 9.0, 2.0])
    assert in_quiet(lambda: next(values)) == (9.0, Machine(80.0, None))


@pytest.mark.parametrize(("given", "slept"), [([50.0, 50.0], 0), ([99.0, 50.0, 50.0, 51.0], 1), ([99.0] * 6, 3)])
def test_a_quiet_moment_is_waited_for_but_not_for_ever(
    walks: list[float], given: list[float], slept: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    waited: list[float] = []
    monkeypatch.setattr(bench_machine, "WAITS", 3)
    monkeypatch.setattr(bench_machine.time, "sleep", waited.append)
    walks += given
    bench_machine.wait_for_quiet()
    assert waited == [bench_machine.WAIT_s] * slept
    assert walks == []


def test_without_patience_left_nothing_is_waited_for_or_measured_again(
    walks: list[float], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bench_machine, "WAITS", 3)
    monkeypatch.setattr(bench_machine, "_spent_s", bench_machine.PATIENCE_s)
    walks += [99.0, 98.0]
    assert in_quiet(lambda: 7.0) == (7.0, Machine(99.0, None))


def test_waiting_and_measuring_again_use_up_the_patience_of_a_run(
    walks: list[float], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bench_machine, "WAITS", 1)
    monkeypatch.setattr(bench_machine, "PATIENCE_s", 3 * bench_machine.WAIT_s)
    monkeypatch.setattr(bench_machine.time, "sleep", lambda _: None)
    walks += [99.0] * 4 * bench_machine.TRIES
    assert in_quiet(lambda: 7.0)[0] == 7.0
    assert bench_machine._spent_s >= 3 * bench_machine.WAIT_s
    assert walks == [], "each try waits once and measures once"


@pytest.mark.parametrize(
    ("walk", "taken", "quiet"),
    [(57.0, 0.02, True), (58.0, 0.0, False), (50.0, 0.03, False), (57.0, None, True)],
)
def test_quiet_is_near_the_quickest_walk_with_next_to_nothing_taken(
    walk: float, taken: float | None, quiet: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bench_machine, "_quickest_ms", 50.0)
    assert Machine(walk, taken).quiet is quiet


def test_what_others_took_is_a_share_of_what_was_asked_for(monkeypatch: pytest.MonkeyPatch) -> None:
    seen = iter([(1_000, 10), (1_200, 60)])
    monkeypatch.setattr(bench_machine, "_now", lambda: next(seen))
    monkeypatch.setattr(bench_machine, "walk_ms", lambda: 50.0)
    machine = watched(lambda: None)[1]
    assert machine.taken == pytest.approx(0.25)
    assert str(machine) == "50 ms, 25 %"


def test_the_walk_is_timed_and_the_quickest_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(bench_machine, "WALKS", 1)
    monkeypatch.setattr(bench_machine, "_quickest_ms", float("inf"))
    found = bench_machine.walk_ms()
    assert 0 < found < 1_000
    assert bench_machine._quickest_ms == found


def test_the_walk_goes_through_each_row_once_and_never_to_a_neighbour() -> None:
    table, keys = bench_machine._rows()
    assert sorted(keys) == sorted(table)
    assert min(abs(a - b) for a, b in pairwise(keys)) > bench_machine.ROWS // 4
