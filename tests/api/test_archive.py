"""A whole collection out and in: nothing lost, nothing half, nothing believed that was altered."""

import csv
import io
import json
import random
import sqlite3
import zipfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from dataclasses import replace
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import select

from fenwa.archive import carry
from fenwa.archive.tables import LEFT_OUT, is_empty, read_out
from fenwa.core.errors import Conflict, DomainError, InputError
from fenwa.formats.data_package import Collection, Column, Sheet, cell, read_json, value, write_package
from fenwa.store.backup import Backups
from fenwa.store.models import Place
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.session import Store
from scripts.forked import fenwa
from tests.api.test_photos import kept_photo
from tests.conftest import Client, pot

NOW = datetime(2026, 11, 23, 7, 0)
SCHEMAS = Path(__file__).parents[1] / "store" / "schemas"


def packed(collection: Collection) -> bytes:
    out = io.BytesIO()
    write_package(collection, out)
    return out.getvalue()


def exported(store: Store) -> bytes:
    return packed(carry.collection_of(store, NOW))


def tables(store: Store) -> dict[str, list[tuple[Any, ...]]]:
    return {t.name: t.rows for t in read_out(store.path)[1]}


def take(store: Store, data: bytes, choice: Any = "refuse") -> carry.Taken:
    return carry.take(store, Backups(store.path), carry.read_file(io.BytesIO(data)), choice, NOW)


@pytest.fixture(scope="module")
def whole(demo: Client) -> bytes:
    """The demonstration at full size, as one zip."""
    return exported(demo.store)


@pytest.fixture
def other(tmp_path: Path, empty: Path) -> Iterator[Store]:
    """A second, empty collection."""
    (tmp_path / "other").mkdir()
    path = tmp_path / "other" / "other.sqlite"
    path.write_bytes(empty.read_bytes())
    store = Store(path)
    yield store
    store.close()


# round trip


def test_the_demonstration_goes_out_and_into_an_empty_collection_unchanged(
    demo: Client, whole: bytes, other: Store
) -> None:
    assert is_empty(other)
    before = tables(demo.store)
    assert sum(map(len, before.values())) > 2000
    taken = take(other, whole)
    assert tables(other) == before
    assert taken.written == sum(map(len, before.values()))
    photos = {p.name: p.read_bytes() for p in PhotoFolder(demo.store.path).path.rglob("*.*")}
    back = {p.name: p.read_bytes() for p in PhotoFolder(other.path).path.rglob("*.*")}
    wholes = {n for n in photos if n.count(".") == 1}
    assert wholes
    assert {n: back[n] for n in wholes} == {n: photos[n] for n in wholes}
    assert set(back) == set(photos), "the small sizes are made anew"
    ours, theirs = demo.get("/api/pots"), Client(other).get("/api/pots")
    assert theirs == ours


def test_every_table_goes_out_but_those_named_with_their_reason(whole: bytes, store: Store) -> None:
    told = json.loads(zipfile.ZipFile(io.BytesIO(whole)).read("datapackage.json"))
    names = {r["name"] for r in told["resources"] if r["path"].startswith("data/")}
    with closing(sqlite3.connect(store.path)) as c:
        there = {n for (n,) in c.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    assert names == there - set(LEFT_OUT) - {"alembic_version"}
    assert all(LEFT_OUT.values())
    assert all(r["description"] for r in told["resources"] if "schema" in r)


def test_the_package_is_valid_by_the_frictionless_library(whole: bytes, tmp_path: Path) -> None:
    from frictionless import Package

    with zipfile.ZipFile(io.BytesIO(whole)) as pack:
        pack.extractall(tmp_path / "p")
    report = Package(str(tmp_path / "p" / "datapackage.json")).validate()
    assert report.valid, report.flatten(["title", "rowNumber", "fieldName", "message"])[:10]


def test_units_stand_beside_their_columns(whole: bytes) -> None:
    told = json.loads(zipfile.ZipFile(io.BytesIO(whole)).read("datapackage.json"))
    fields = {(r["name"], f["name"]): f for r in told["resources"] if "schema" in r for f in r["schema"]["fields"]}
    assert fields["pour", "volume_L"]["unit"] == "L"
    assert fields["reading", "ec_uS_cm"]["unit"] == "µS/cm" if ("reading", "ec_uS_cm") in fields else True
    assert fields["pour", "on"]["type"] == "date"
    assert "unit" not in fields["pour", "on"]


def test_secrets_stay_here(kept: Client) -> None:
    kept.made("/api/lan/passphrase", {"passphrase": "four words nobody guesses"})
    data = exported(kept.store)
    text = zipfile.ZipFile(io.BytesIO(data)).read("data/setting.csv").decode()
    assert "lan." not in text
    assert "argon2" not in text


def test_an_import_leaves_who_may_come_in(kept: Client, other: Store) -> None:
    Client(other).made("/api/lan/passphrase", {"passphrase": "four words nobody guesses"})
    take(other, exported(kept.store))
    assert Client(other).get("/api/lan")["passphrase_set"]


def test_json_holds_the_same_tables(demo: Client, other: Store) -> None:
    text = carry.export_json(demo.store, NOW)
    assert read_json(text).sheets == carry.read_file(io.BytesIO(exported(demo.store))).sheets
    seen = carry.preview(other, read_json(text))
    assert seen.photos_missing > 0
    take(other, text.encode())
    assert tables(other) == tables(demo.store)


# cells

TEXTS = ["", "'", "''", "=1+1", "+49", "-", "@home", "\ttab", "\rcr", "'=x", 'a,b\r\n"c"', "ü µ 🌱", "null", " ", "0"]


@pytest.mark.parametrize("text", TEXTS)
def test_any_text_comes_back_and_none_runs_in_a_spreadsheet(text: str) -> None:
    written = cell(text, "string")
    assert value(written, "string") == text
    assert not written.startswith(("=", "+", "-", "@", "\t", "\r"))
    assert (value(cell(None, "string"), "string"), cell(None, "string")) == (None, "")


@pytest.mark.parametrize(
    ("plain", "kind", "written"),
    [
        (0, "integer", "0"),
        (-(2**53) - 1, "integer", "-9007199254740993"),
        (0.1, "number", "0.1"),
        (5.0, "number", "5.0"),
        (1e-300, "number", "1e-300"),
        (1, "boolean", "true"),
        (0, "boolean", "false"),
        ("2026-11-23", "date", "2026-11-23"),
        ("2026-11-23 07:00:00.000000", "datetime", "2026-11-23T07:00:00"),
        ("2026-11-23 07:00:00.000001", "datetime", "2026-11-23T07:00:00.000001"),
        ('{"a": [1, null]}', "object", '{"a": [1, null]}'),
        ("null", "any", "null"),
    ],
)
def test_every_kind_of_value_comes_back(plain: Any, kind: Any, written: str) -> None:
    assert cell(plain, kind) == written
    assert value(written, kind) == plain
    assert type(value(written, kind)) is type(plain)


def test_names_that_a_spreadsheet_would_run_come_back_as_they_were(kept: Client, other: Store) -> None:
    with kept.store.writing() as session:
        session.add_all(Place(name=name) for name in TEXTS)
    data = exported(kept.store)
    text = zipfile.ZipFile(io.BytesIO(data)).read("data/place.csv").decode()
    assert not [c for row in csv.reader(io.StringIO(text, newline="")) for c in row if c.startswith(("=", "+", "@"))]
    take(other, data)
    assert tables(other)["place"] == tables(kept.store)["place"]


# refused


def refused_unchanged(store: Store, data: bytes) -> str:
    before = tables(store)
    with pytest.raises(DomainError) as told:
        take(store, data)
    assert tables(store) == before
    assert not list(store.path.parent.glob("*.import*"))
    return told.value.detail


def test_cut_at_fifty_places_it_is_refused_with_nothing_changed(whole: bytes, other: Store) -> None:
    chance = random.Random(50)
    before = tables(other)
    for _ in range(50):
        with pytest.raises(InputError, match="Nothing was imported"):
            carry.read_file(io.BytesIO(whole[: chance.randrange(len(whole))]))
    assert tables(other) == before
    assert is_empty(other)


@pytest.mark.parametrize("seed", range(25))
def test_a_byte_altered_is_refused_or_changes_no_value(kept: Client, seed: int) -> None:
    """A byte of the zip's own bookkeeping (a date of a file) may change unseen; no value may."""
    data = bytearray(exported(kept.store))
    at = random.Random(seed).randrange(len(data))
    data[at] ^= 0xFF
    try:
        read = carry.read_file(io.BytesIO(bytes(data)))
    except InputError:
        return
    assert read.sheets == carry.collection_of(kept.store, NOW).sheets


def edited(data: bytes, path: str, old: bytes, new: bytes) -> bytes:
    """The zip with one file edited, written again as any program would."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as pack, zipfile.ZipFile(out, "w") as again:
        for name in pack.namelist():
            content = pack.read(name)
            if name == path:
                assert old in content
                content = content.replace(old, new, 1)
            again.writestr(name, content)
    return out.getvalue()


def test_a_cell_or_a_description_edited_by_hand_is_refused_with_its_place(kept: Client, other: Store) -> None:
    data = exported(kept.store)
    assert refused_unchanged(other, edited(data, "data/pot.csv", b"P-01", b"P-02")).startswith(
        "data/pot.csv: was altered"
    )
    told = refused_unchanged(other, edited(data, "datapackage.json", b'"rows": 1', b'"rows": 2'))
    assert told.startswith("datapackage.json: was altered")


@pytest.mark.parametrize(
    "data", [b"", b"no zip at all", b"{", b"{}", b'{"name": "fenwa-collection"}', b"PK\x03\x04" + b"\0" * 50]
)
def test_what_is_no_collection_is_refused(other: Store, data: bytes) -> None:
    assert "Nothing was imported" in refused_unchanged(other, data)


def test_a_zip_without_a_description_or_a_table_is_refused(kept: Client, other: Store) -> None:
    data = exported(kept.store)

    def without(path: str) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(data)) as pack, zipfile.ZipFile(out, "w") as again:
            for name in pack.namelist():
                if name != path:
                    again.writestr(name, pack.read(name))
        return out.getvalue()

    assert refused_unchanged(other, without("datapackage.json")).startswith("datapackage.json: is missing")
    assert refused_unchanged(other, without("data/pour.csv")).startswith("data/pour.csv: is missing")


def with_sheet(collection: Collection, name: str, **changes: Any) -> bytes:
    sheets = [replace(s, **changes) if s.name == name else s for s in collection.sheets]
    return packed(replace(collection, sheets=sheets))


def test_rows_that_do_not_fit_the_schema_are_refused_with_table_and_row(kept: Client, other: Store) -> None:
    whole = carry.collection_of(kept.store, NOW)
    pots = next(s for s in whole.sheets if s.name == "pot")
    twice = refused_unchanged(other, with_sheet(whole, "pot", rows=[*pots.rows, pots.rows[0]]))
    assert "pot, row 2" in twice
    orphans = refused_unchanged(other, with_sheet(whole, "pot", rows=[]))
    assert "points at a row of pot" in orphans
    column = refused_unchanged(other, with_sheet(whole, "pot", columns=(Column("wished", "string"), *pots.columns[1:])))
    assert "column wished" in column


def test_a_newer_schema_and_a_foreign_table_are_refused(kept: Client, other: Store) -> None:
    whole = carry.collection_of(kept.store, NOW)
    assert "newer Fenwa" in refused_unchanged(other, packed(replace(whole, schema="9999")))
    foreign = Sheet("submission", "", (Column("key", "string"),), ("key",), [("x",)])
    told = refused_unchanged(other, packed(replace(whole, sheets=[*whole.sheets, foreign])))
    assert told.startswith("submission: is no table")


def of_schema(tmp_path: Path, revision: str) -> tuple[Path, list[Sheet]]:
    """Every table of an earlier schema, from its dump: a row in each."""
    old = tmp_path / "old.sqlite"
    sheets = []
    with closing(sqlite3.connect(old)) as c:
        c.executescript((SCHEMAS / f"{revision}.sql").read_text("utf-8"))
        names = [n for (n,) in c.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        for name in names:
            if name not in {*LEFT_OUT, "alembic_version"}:
                columns = [row[1] for row in c.execute(f'PRAGMA table_info("{name}")')]
                kinds = {"INTEGER": "integer", "FLOAT": "number", "BOOLEAN": "boolean"}
                types = [kinds.get(row[2], "string") for row in c.execute(f'PRAGMA table_info("{name}")')]
                rows = c.execute(f'SELECT * FROM "{name}"').fetchall()
                made = tuple(Column(n, k) for n, k in zip(columns, types, strict=True))  # type: ignore[arg-type]
                sheets.append(Sheet(name, "", made, (columns[0],), rows))
    return old, sheets


def test_values_no_page_could_show_are_refused_before_anything_is_stored(other: Store, tmp_path: Path) -> None:
    """The dump holds letters where a finger’s word should stand; a collection like that would break its own start."""
    _, sheets = of_schema(tmp_path, "0004")
    told = refused_unchanged(other, packed(Collection("0004", "0", "2026-01-01T00:00:00", sheets)))
    assert told.startswith("The log of pot 1: holds a value that cannot be read")


def test_a_day_that_is_none_is_refused_whatever_its_column_is_called(kept: Client, other: Store) -> None:
    whole = carry.collection_of(kept.store, NOW)
    sheet = next(s for s in whole.sheets if s.name == "water")
    at = next(i for i, c in enumerate(sheet.columns) if c.kind == "datetime")
    columns = tuple(replace(c, kind="string") if i == at else c for i, c in enumerate(sheet.columns))
    rows = [tuple("yesterday" if i == at else v for i, v in enumerate(r)) for r in sheet.rows]
    told = refused_unchanged(other, with_sheet(whole, "water", columns=columns, rows=rows))
    assert "water: holds a value that cannot be read" in told
    days = [tuple("2026-02-30 00:00:00" if i == at else v for i, v in enumerate(r)) for r in sheet.rows]
    assert f"column {sheet.columns[at].name}" in refused_unchanged(other, with_sheet(whole, "water", rows=days))


@pytest.mark.parametrize("revision", ["0001", "0002", "0003"])
def test_a_file_of_an_older_schema_is_brought_to_the_present_one(other: Store, tmp_path: Path, revision: str) -> None:
    old, sheets = of_schema(tmp_path, revision)
    data = packed(Collection(revision, "0", "2026-01-01T00:00:00", sheets))
    take(other, data)
    with closing(sqlite3.connect(old)) as a, closing(sqlite3.connect(other.path)) as b:
        for table in ("pot", "pour", "water"):
            count = f"SELECT count(*) FROM {table}"
            assert a.execute(count).fetchone() == b.execute(count).fetchone() != (0,)


# beside rows that are there


def test_the_same_file_again_is_all_the_same_and_stores_nothing(kept: Client) -> None:
    data = exported(kept.store)
    seen = carry.preview(kept.store, carry.read_file(io.BytesIO(data)))
    assert not seen.becomes
    assert not seen.conflicts
    assert {s for t in seen.counts.values() for s, n in t.items() if n} == {"same"}
    assert take(kept.store, data).written == 0


def test_what_is_new_is_added_and_what_is_here_stays(kept: Client) -> None:
    before = exported(kept.store)
    kept.made("/api/pots", pot(code="X-99"))
    kept.made("/api/pours", {"pot_ids": [1], "on": "2026-11-22", "volume": 150, "water_id": 1})
    photo = kept_photo(kept)
    after, full = exported(kept.store), tables(kept.store)
    backups = Backups(kept.store.path)
    first = take(kept.store, before).before
    backups.restore(kept.store, backups.place(first), NOW)
    take(kept.store, before)
    assert tables(kept.store) == full, "an older file takes nothing away"
    assert take(kept.store, after).written == 0
    assert kept.http.get(f"/api/photos/{photo['id']}/screen").status_code == 200


def renamed(kept: Client) -> tuple[bytes, int]:
    """A file in which the first place has another name than here."""
    data = exported(kept.store)
    with kept.store.writing() as session:
        first = session.scalars(select(Place.id).order_by(Place.id)).first() or 0
        session.get_one(Place, first).name = "Ansa cold house"
    return data, first


@pytest.mark.parametrize(("choice", "stays"), [("mine", "Ansa cold house"), ("theirs", None)])
def test_a_conflict_is_shown_by_field_and_decided_by_the_user(kept: Client, choice: str, stays: str | None) -> None:
    data, first = renamed(kept)
    (row,) = carry.preview(kept.store, carry.read_file(io.BytesIO(data))).conflicts
    assert (row.table, row.key, row.state) == ("place", str(first), "conflict")
    ((field, mine, theirs),) = [f for f in row.fields if f[0] == "name"]
    assert (field, mine) == ("name", "Ansa cold house")
    before = tables(kept.store)
    with pytest.raises(Conflict, match="1 row is in conflict, the first in place, 1"):
        take(kept.store, data)
    assert tables(kept.store) == before
    take(kept.store, data, choice)
    with closing(sqlite3.connect(kept.store.path)) as c:
        assert c.execute("SELECT name FROM place WHERE id = ?", (first,)).fetchone() == (stays or theirs,)


def test_a_new_row_that_breaks_a_rule_of_the_others_stops_all(kept: Client) -> None:
    whole = carry.collection_of(kept.store, NOW)
    pots = next(s for s in whole.sheets if s.name == "pour")
    names = [c.name for c in pots.columns]
    row: list[Any] = [None] * len(names)
    plain = {"id": 500, "pot_id": 999, "on": "2026-11-20", "job": "plain", "route": "top", "note": ""}
    plain |= {"ec_estimated": 0, "volume_L": 0.1}
    for n, v in plain.items():
        row[names.index(n)] = v
    before = tables(kept.store)
    with pytest.raises(DomainError):
        take(kept.store, with_sheet(whole, "pour", rows=[tuple(row)]))
    assert tables(kept.store) == before


def test_a_refused_import_leaves_no_photo_and_thins_no_backup_out(kept: Client) -> None:
    whole = carry.collection_of(kept.store, NOW)
    photo = kept_photo(kept)
    with_photo = exported(kept.store)
    kept.made(f"/api/log/photo/{photo['id']}/archive")  # the row of the photo differs now
    backups, folder = Backups(kept.store.path), PhotoFolder(kept.store.path).path
    for file in [p for p in folder.rglob("*") if p.is_file()]:
        file.unlink()
    with pytest.raises(Conflict):
        take(kept.store, with_photo)
    with pytest.raises(InputError):
        take(kept.store, with_sheet(whole, "pot", rows=[]))
    assert backups.listed() == []
    assert not [p for p in folder.rglob("*") if p.is_file()]
    taken = take(kept.store, with_photo, "theirs")
    assert (taken.photos, len(backups.listed())) == (1, 1)


def test_two_looks_at_a_file_at_once_do_not_meet(kept: Client) -> None:
    data = exported(kept.store)
    read = [carry.read_file(io.BytesIO(data)) for _ in range(4)]
    with ThreadPoolExecutor(4) as pool:
        seen = list(pool.map(lambda r: carry.preview(kept.store, r), read))
    assert {p.sentence for p in seen} == {seen[0].sentence}
    assert not seen[0].conflicts
    assert not list(kept.store.path.parent.glob("*.import*"))


# through the API


def sent(c: Client, path: str, data: bytes, key: str = "archive-import-key") -> Any:
    headers = {"Idempotency-Key": key, "Content-Type": "application/octet-stream"}
    return c.http.post(path, content=data, headers=headers)


def test_export_preview_and_import_through_the_api(kept: Client, other: Store) -> None:
    answer = kept.http.get("/api/archive.zip")
    assert answer.headers["content-type"] == "application/zip"
    assert "fenwa-collection" in answer.headers["content-disposition"]
    assert kept.http.get("/api/archive.json").json()["name"] == "fenwa-collection"
    there = Client(other)
    seen = sent(there, "/api/archive/preview", answer.content).json()
    assert seen["becomes"]
    assert is_empty(other)
    done = sent(there, "/api/archive/import", answer.content)
    assert done.status_code == 200, done.text
    assert there.get("/api/pots") == kept.get("/api/pots")
    assert there.get("/api/backups")["backups"][0]["why"] == "before an import"


def test_a_refusal_through_the_api_is_a_problem_with_its_place(kept: Client) -> None:
    data = exported(kept.store)
    for path in ("/api/archive/preview", "/api/archive/import"):
        answer = sent(kept, path, data[:-30])
        assert answer.status_code == 422
        assert answer.json()["facts"]["place"] == "The file"


# the command line


def test_export_and_import_from_the_command_line(kept: Client, other: Store, tmp_path: Path) -> None:
    for name in ("all.zip", "all.json"):
        done = fenwa("export", str(tmp_path / name), "--database", str(kept.store.path))
        assert done.returncode == 0, done.stderr
    other.close()
    done = fenwa("import", str(tmp_path / "all.zip"), "--database", str(other.path))
    assert done.returncode == 0, done.stderr
    assert "the file becomes it" in done.stdout
    again = fenwa("import", str(tmp_path / "all.json"), "--database", str(other.path))
    assert "None is in conflict" in again.stdout
    assert read_out(other.path)[1] == read_out(kept.store.path)[1]
    assert not list(tmp_path.glob("*.half"))


def test_the_command_line_refuses_an_import_in_one_sentence(other: Store, tmp_path: Path) -> None:
    other.close()
    (tmp_path / "cut.zip").write_bytes(b"PK\x03\x04")
    for words, told in (
        (("import", str(tmp_path / "cut.zip")), "is cut or no zip"),
        (("import", str(tmp_path / "none.zip")), "is not there"),
        (("import", str(tmp_path / "cut.zip"), "--conflicts", "both"), "is no choice"),
        (("export", str(tmp_path / "all.doc")), "neither in .zip nor in .json"),
    ):
        done = fenwa(*words, "--database", str(other.path))
        assert done.returncode == 2
        assert told in done.stderr
        assert "Traceback" not in done.stderr
