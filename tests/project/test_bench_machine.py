"""How the machine was while something was timed, and which of several measures is told."""

from itertools import pairwise

import pytest

from fenwa import bench_machine
from fenwa.bench_machine import Look, Machine, each_in_quiet, in_quiet, processors, watched

STAT = "cpu  100 10 40 900 7 3 2 50 5 0\ncpu0 50 5 20 450 3 1 1 25 0 0\nintr 9\n"


def test_processors_are_read_from_the_kernels_first_line() -> None:
    """By hand: 100 + 10 + 40 + 3 + 2 + 50 ticks asked for, of which others took 50; idle and waiting count for none."""
    assert processors(STAT) == (205, 50)


@pytest.mark.parametrize("text", ["", "cpu", "cpu 1 2 3 4\n", "intr 1 2 3 4 5 6 7 8 9 10\n"])
def test_a_kernel_that_tells_nothing_of_others_is_no_quiet_one(text: str) -> None:
    assert processors(text) is None


@pytest.fixture
def looks(monkeypatch: pytest.MonkeyPatch) -> list[float]:
    """What the walks of the looks before and after each measure take, in their order; 50 is the quickest. [ms]"""
    given: list[float] = []
    monkeypatch.setattr(bench_machine, "_quickest", Look(50.0, 10.0))
    monkeypatch.setattr(bench_machine, "look", lambda: Look(given.pop(0), 10.0))
    monkeypatch.setattr(bench_machine, "_now", lambda: None)
    monkeypatch.setattr(bench_machine, "_left_s", 1e6)
    monkeypatch.setattr(bench_machine, "A_MEASURE_s", 1e6)
    monkeypatch.setattr(bench_machine, "WAIT_s", 0.0)
    return given


def test_the_slower_of_the_looks_before_and_after_is_told(looks: list[float]) -> None:
    looks += [51.0, 80.0]
    found, machine = watched(lambda: "measured")
    assert (found, machine) == ("measured", Machine(Look(80.0, 10.0), None))
    assert not machine.quiet
    assert machine.slowness == pytest.approx(1.6)
    assert str(machine) == "80 and 10 ms"


def test_the_first_quiet_measure_is_kept_whatever_it_found(looks: list[float]) -> None:
    looks += [52.0, 60.0, 52.0, 53.0]
    values = iter([1.0, 9.0, 2.0])
    assert in_quiet(lambda: next(values)) == (9.0, Machine(Look(53.0, 10.0), None))
    assert next(values) == 2.0, "no more was measured than needed"


def test_a_quiet_moment_is_waited_for(looks: list[float]) -> None:
    looks += [99.0, 98.0, 97.0, 50.0, 51.0]
    values = iter([7.0])
    assert in_quiet(lambda: next(values)) == (7.0, Machine(Look(51.0, 10.0), None))
    assert looks == []


def test_without_a_quiet_moment_the_quietest_by_the_machine_is_kept(looks: list[float]) -> None:
    looks += [x for after in (120.0, 70.0, 90.0, 99.0) for x in (50.0, after)]
    assert len(looks) == 2 * bench_machine.TRIES
    values = iter([1.0, 9.0, 2.0, 0.5])
    assert in_quiet(lambda: next(values)) == (9.0, Machine(Look(70.0, 10.0), None))


@pytest.mark.parametrize("spent", ["_left_s", "A_MEASURE_s"])
def test_without_patience_left_nothing_is_waited_for_or_measured_again(
    looks: list[float], spent: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bench_machine, spent, 0.0)
    looks += [99.0, 98.0]
    assert in_quiet(lambda: 7.0) == (7.0, Machine(Look(99.0, 10.0), None))


def test_waiting_uses_up_the_patience_of_a_figure_and_of_the_run(
    looks: list[float], monkeypatch: pytest.MonkeyPatch
) -> None:
    clock = iter(range(1_000))  # a second passes between two looks at the clock
    monkeypatch.setattr(bench_machine.time, "perf_counter", lambda: float(next(clock)))
    monkeypatch.setattr(bench_machine, "A_MEASURE_s", 3.0)
    looks += [99.0] * 5
    assert in_quiet(lambda: 7.0)[0] == 7.0
    assert looks == [], "three looks were waited for, then it was measured as it was, once"
    assert bench_machine._left_s == 1e6 - 3


def test_samples_have_a_quiet_moment_each_and_the_patience_of_one_figure(
    looks: list[float], monkeypatch: pytest.MonkeyPatch
) -> None:
    clock = iter(range(1_000))
    monkeypatch.setattr(bench_machine.time, "perf_counter", lambda: float(next(clock)))
    monkeypatch.setattr(bench_machine, "A_MEASURE_s", 2.0)
    looks += [99.0, 50.0, 51.0]  # waited for once
    looks += [50.0, 90.0, 99.0, 99.0, 95.0]  # measured again, waiting once more: now no patience is left
    looks += [70.0, 80.0]  # taken as it is
    values = iter([1.0, 2.0, 3.0, 4.0])
    found, machine = each_in_quiet([lambda: next(values)] * 3)
    assert looks == []
    assert found == [1.0, 2.0, 4.0]
    assert machine == Machine(Look(80.0, 10.0), None, (1, 3)), "as it was at the middle one"
    assert str(machine) == "80 and 10 ms; 1 of 3 quiet"


@pytest.mark.parametrize(
    ("walk", "added", "taken", "quiet"),
    [
        (57.0, 11.0, 0.02, True),
        (58.0, 10.0, 0.0, False),
        (50.0, 12.0, 0.0, False),
        (50.0, 10.0, 0.03, False),
        (57.0, 11.0, None, True),
    ],
)
def test_quiet_is_near_the_quickest_look_with_next_to_nothing_taken(
    walk: float, added: float, taken: float | None, quiet: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(bench_machine, "_quickest", Look(50.0, 10.0))
    assert Machine(Look(walk, added), taken).quiet is quiet


def test_what_others_took_is_a_share_of_what_was_asked_for(monkeypatch: pytest.MonkeyPatch) -> None:
    seen = iter([(1_000, 10), (1_200, 60)])
    monkeypatch.setattr(bench_machine, "_now", lambda: next(seen))
    monkeypatch.setattr(bench_machine, "_quickest", Look(50.0, 10.0))
    monkeypatch.setattr(bench_machine, "look", lambda: Look(50.0, 15.0))
    machine = watched(lambda: None)[1]
    assert machine.taken == pytest.approx(0.25)
    assert machine.slowness == pytest.approx(1.5 / 0.75)
    assert str(machine) == "50 and 15 ms, 25 %"


def test_both_are_timed_and_the_quickest_of_each_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(bench_machine, "WALKS", 1)
    monkeypatch.setattr(bench_machine, "WAIT_s", 0.0)
    monkeypatch.setattr(bench_machine, "LEARNT_BY", 3)
    monkeypatch.setattr(bench_machine, "_quickest", Look(float("inf"), float("inf")))
    found = bench_machine.look()
    assert 0 < found.walk_ms < 1_000
    assert 0 < found.sum_ms < 1_000
    assert bench_machine._quickest == found
    learnt = bench_machine.learn()
    assert learnt.walk_ms <= found.walk_ms
    assert learnt.sum_ms <= found.sum_ms
    assert bench_machine._quickest == learnt


def test_the_walk_goes_through_each_row_once_and_never_to_a_neighbour() -> None:
    table, keys = bench_machine._rows()
    assert sorted(keys) == sorted(table)
    assert min(abs(a - b) for a, b in pairwise(keys)) > bench_machine.ROWS // 4
