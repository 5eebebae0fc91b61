"""Effects of ratios are worked out in logarithms: within a factor of twenty thousand, beyond it a sentence."""

import math
from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import OutOfRange
from fenwa.core.evidence.measures import LARGEST, LARGEST_LOG, MEASURES

RATIOS = sorted(name for name, facts in MEASURES.items() if facts.log)
OTHERS = sorted(name for name, facts in MEASURES.items() if not facts.log)


def asked(name: str, value: float, measure: str) -> dict[str, Any]:
    return {
        "effect-of-pairs": {"differences": [value, 0.1], "measure": measure},
        "effect-of-groups": {"changed": [value, 0.1], "unchanged": [0.0, 0.1], "measure": measure},
        "effect-together": {
            "answers": [{"name": "a", "measured": value, "se": abs(value)}, {"name": "b", "measured": 0.0, "se": 0.1}],
            "measure": measure,
        },
    }[name]


EFFECTS = ("effect-of-pairs", "effect-of-groups", "effect-together")


def numbers(x: Any) -> list[float]:
    if isinstance(x, dict):
        return [n for v in x.values() for n in numbers(v)]
    if isinstance(x, list):
        return [n for v in x for n in numbers(v)]
    return [x] if isinstance(x, int | float) and not isinstance(x, bool) else []


@pytest.mark.parametrize("measure", RATIOS)
@pytest.mark.parametrize("name", EFFECTS)
@pytest.mark.parametrize("sign", [1, -1])
def test_the_largest_ratio_is_worked_out_and_a_larger_one_refused(name: str, measure: str, sign: int) -> None:
    answer = run_calculation(name, asked(name, sign * LARGEST_LOG, measure))
    assert all(math.isfinite(n) for n in numbers(answer))
    for beyond in (10.001, 597.9, LARGEST):
        with pytest.raises(OutOfRange, match="10") as refused:
            run_calculation(name, asked(name, sign * beyond, measure))
        assert refused.value.pointer


@pytest.mark.parametrize("measure", OTHERS)
@pytest.mark.parametrize("name", EFFECTS)
def test_what_is_no_ratio_goes_as_far_as_before(name: str, measure: str) -> None:
    run_calculation(name, asked(name, LARGEST, measure))
    with pytest.raises(OutOfRange):
        run_calculation(name, asked(name, LARGEST + 1, measure))


@pytest.mark.parametrize("error", [0.0, 1e-7, 5.6e-106, -0.1])
def test_no_answer_is_surer_than_a_number_can_say(error: float) -> None:
    sure = {"name": "a", "measured": 1.0, "se": error}
    with pytest.raises(OutOfRange) as refused:
        run_calculation("effect-together", {"answers": [sure, {"name": "b", "measured": 0.0, "se": 2}]})
    assert refused.value.pointer == "/answers/0/se"
    answer = run_calculation("effect-together", {"answers": [{**sure, "se": 1e-6}] * 200})
    assert all(math.isfinite(n) for n in numbers(answer))
