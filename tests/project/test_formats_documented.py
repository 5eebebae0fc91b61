"""Every format that goes in is documented with an example file, and the example is read here as a user's would be."""

import io
import re
import zipfile
from collections.abc import Callable
from datetime import UTC, date, datetime
from pathlib import Path

import pytest

from fenwa.archive import carry
from fenwa.core.errors import InputError
from fenwa.formats.climate_csv import read_air
from fenwa.formats.data_package import UNITS, read_package
from fenwa.formats.pots_csv import read_pots
from fenwa.formats.readings_csv import read_readings
from fenwa.formats.reports_csv import read_reports
from fenwa.formats.senml import parse_senml
from fenwa.store.models import Base
from fenwa.store.session import Store

ROOT = Path(__file__).parents[2]
EXAMPLES = ROOT / "docs" / "examples"
TEXT = (ROOT / "docs" / "formats.md").read_text("utf-8")
TODAY, NOW = date(2026, 11, 23), datetime(2026, 11, 23, 8)
READERS: dict[str, Callable[[str], list[object]]] = {
    "pots.csv": lambda t: list(read_pots(t, TODAY)),
    "readings.csv": lambda t: list(read_readings(t, TODAY)),
    "reports.csv": lambda t: list(read_reports(t, TODAY)),
    "air.csv": lambda t: list(read_air(t, NOW)),
    "pen.senml.json": lambda t: list(parse_senml(t, NOW.replace(tzinfo=UTC))),
}


def test_every_example_is_named_in_the_text_and_every_named_one_is_there() -> None:
    named = set(re.findall(r"\(examples/([^)]+)\)", TEXT))
    assert named == {p.name for p in EXAMPLES.iterdir()} == {*READERS, "collection.zip"}


@pytest.mark.parametrize("name", READERS)
def test_an_example_is_read(name: str) -> None:
    text = (EXAMPLES / name).read_bytes().decode("utf-8")
    assert len(READERS[name](text)) >= 1
    with pytest.raises(InputError):
        READERS[name](text[: len(text) // 2].replace("P-01", "").replace("Rain", ""))


def test_the_example_collection_is_read_into_an_empty_one(store: Store) -> None:
    read = read_package(EXAMPLES / "collection.zip")
    seen = carry.preview(store, read)
    assert seen.becomes
    assert sum(n["new"] for n in seen.counts.values()) > 0
    with zipfile.ZipFile(io.BytesIO((EXAMPLES / "collection.zip").read_bytes())) as pack:
        assert "datapackage.json" in pack.namelist()


def test_units_of_the_package_are_told_in_the_text() -> None:
    for unit in UNITS.values():
        assert f"`{unit}`" in TEXT, unit


def test_every_column_with_an_amount_has_its_unit() -> None:
    """A number whose name ends in a unit is told with it; one without stands for a count, a share or a key."""
    bare = {
        f"{t.name}.{c.name}"
        for t in Base.metadata.sorted_tables
        for c in t.columns
        if str(c.type) == "DOUBLE" and not any(c.name.endswith(e) for e in UNITS)
    }
    told = set(re.findall(r"`(\w+\.\w+)`", TEXT))
    assert bare <= told, sorted(bare - told)
