"""Every printed and hand-worked case of cases/*.toml against the registered calculation."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation

CASES = [
    case
    for path in sorted((Path(__file__).parent / "cases").glob("*.toml"))
    for case in tomllib.loads(path.read_text())["case"]
]


def at(result: Any, path: str) -> Any:
    for key in path.split("."):
        result = result[int(key)] if key.isdigit() else result[key]
    return result


@pytest.mark.parametrize("case", CASES, ids=[c["name"] for c in CASES])
def test_case_matches_its_source(case: dict[str, Any]) -> None:
    assert case["kind"] in ("published", "hand", "reference")
    assert case["source"]
    result = run_calculation(case["calc"], case["input"])["result"]
    for path, expected in case["expect"].items():
        if isinstance(expected, str) or (isinstance(expected, list) and any(isinstance(e, str) for e in expected)):
            assert at(result, path) == expected
        else:
            assert at(result, path) == pytest.approx(expected, rel=case.get("rel"), abs=case.get("abs"))
