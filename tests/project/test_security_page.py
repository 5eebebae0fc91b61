"""What docs/security.md and docs/licences.md claim is there."""

import re

import pytest

from scripts import licences
from tests.browser.server import ROOT

PAGE = (ROOT / "docs" / "security.md").read_text("utf-8")
NAMED = sorted(set(re.findall(r"`(tests/[\w/]+\.py)::(\w+)`", PAGE)))


@pytest.mark.parametrize(("file", "test"), NAMED)
def test_each_test_that_is_named_is_there(file: str, test: str) -> None:
    assert f"def {test}(" in (ROOT / file).read_text("utf-8")


def test_each_line_of_the_table_is_held_by_a_test() -> None:
    rows = [r for r in PAGE.splitlines() if re.match(r"\| \d", r)]
    assert len(rows) > 25
    assert all("::" in r for r in rows)


def test_every_package_stands_in_the_list_with_its_licence() -> None:
    rows = re.findall(r"^\| ([^|]+) \| ([^|]+) \| ([^|]*) \|$", licences.PAGE.read_text("utf-8"), re.MULTILINE)
    listed = {name.strip(): (version.strip(), licence.strip()) for name, version, licence in rows}
    locked = dict(re.findall(r"^([\w.-]+)==(\S+)", (ROOT / "requirements.txt").read_text("utf-8"), re.MULTILINE))
    interface = {name: version for name, version, _ in licences.interface_rows()}
    for name, version in {**locked, **interface}.items():
        assert listed[name][0] == version, name
        assert listed[name][1], f"{name}: no licence"
