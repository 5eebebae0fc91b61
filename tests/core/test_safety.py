"""Safety lines: each a plain sentence, each shown where its hand is and once on that page."""

import re
from pathlib import Path

import pytest

from fenwa.core.safety import SAFETY

WEB = Path(__file__).parents[2] / "web" / "src"
SHOWN = re.compile(r'<Mind of="(\w+)"')


@pytest.mark.parametrize("where", SAFETY)
def test_each_line_stands_at_its_place_of_use(where: str) -> None:
    parts = [p for p in WEB.rglob("*.tsx") if where in SHOWN.findall(p.read_text("utf-8"))]
    assert parts, f"“{where}” is shown nowhere"
    assert all(SHOWN.findall(p.read_text("utf-8")).count(where) == 1 for p in parts)
    assert SAFETY[where].endswith(".")
    assert all(len(sentence.split()) <= 25 for sentence in SAFETY[where].split(". "))
