"""Backups through the API and the command line: shown with age and size, made, restored, warned of."""

import sqlite3
import time
from contextlib import closing
from datetime import timedelta
from pathlib import Path

import pytest

from fenwa.api.house import backups as page
from fenwa.api.transactions import now
from fenwa.store.backup import check_whole
from fenwa.store.session import Store
from scripts.forked import fenwa
from tests.api.test_photos import kept_photo
from tests.conftest import Client, pot


def test_where_the_data_are_how_large_and_that_there_is_no_backup_yet(kept: Client) -> None:
    told = kept.get("/api/backups")
    assert told["database"] == str(kept.store.path)
    assert told["database_bytes"] == kept.store.path.stat().st_size
    assert told["free_bytes"] > 0
    assert (told["backups"], told["sentence"], told["warning"]) == (
        [],
        "No backup yet.",
        "There is no backup yet. Make one.",
    )


def test_a_backup_by_hand_is_listed_once_with_its_age_and_size(kept: Client) -> None:
    made = kept.made("/api/backups", key="backup-by-hand-1")
    told = kept.get("/api/backups")
    assert [b["name"] for b in told["backups"]] == [made["name"]]
    assert (made["why"], told["warning"]) == ("by hand", "")
    assert made["age_h"] < 0.1
    assert told["sentence"] == "Last backup less than an hour ago, read back and whole."


def test_a_backup_older_than_two_days_is_warned_of(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    kept.made("/api/backups")
    later = now() + timedelta(days=2, hours=1)
    monkeypatch.setattr(page, "now", lambda: later)
    told = kept.get("/api/backups")
    assert told["warning"] == "The newest backup is 2 days old. Make one."
    assert told["sentence"].startswith("Last backup 2 days ago")


def test_a_disk_nearly_full_is_warned_of_before_it_fails(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    kept.made("/api/backups")
    usage = page.shutil.disk_usage(kept.store.path.parent)
    monkeypatch.setattr(page.shutil, "disk_usage", lambda _: usage._replace(free=1_000_000))
    assert "nearly full" in kept.get("/api/backups")["warning"]
    refused = kept.refused("/api/backups", {}, 409)
    assert "is full: no backup was made" in refused["detail"]
    assert "is full" in kept.get("/api/backups")["warning"]


def test_a_restore_shows_the_old_state_on_every_page_at_once(kept: Client) -> None:
    photo = kept_photo(kept)
    made = kept.made("/api/backups")
    before = kept.get("/api/pots")
    kept.made("/api/pots", pot(code="X-99"))
    kept.made("/api/pours", {"pot_ids": [1], "on": "2026-11-22", "volume": 150, "water_id": 1})
    assert kept.get("/api/pots") != before
    for file in kept.store.path.with_suffix(".photos").rglob("*.*"):
        file.unlink()
    told = kept.made(f"/api/backups/{made['name']}/restore")
    assert kept.get("/api/pots") == before
    assert kept.http.get(f"/api/photos/{photo['id']}/screen").status_code == 200, "its photo came back too"
    assert {b["name"] for b in kept.get("/api/backups")["backups"]} == {made["name"], told["before"]}
    kept.made(f"/api/backups/{told['before']}/restore")
    assert any(p["code"] == "X-99" for p in kept.get("/api/pots")["pots"])


def test_writing_goes_on_after_a_restore(kept: Client) -> None:
    made = kept.made("/api/backups")
    kept.made(f"/api/backups/{made['name']}/restore")
    kept.made("/api/pours", {"pot_ids": [1], "on": "2026-11-22", "volume": 150, "water_id": 1})
    assert check_whole(kept.store.path)["pour"] == 1


def test_a_backup_no_page_could_show_is_refused_and_changes_nothing(kept: Client) -> None:
    """Whole as a database, and yet a word in it that no rule of the log knows."""
    made = kept.made("/api/backups")
    before = kept.get("/api/pots")
    file = kept.store.path.with_suffix(".backups") / made["name"]
    with closing(sqlite3.connect(file)) as c:
        c.execute("INSERT INTO feel (pot_id, \"on\", moist) VALUES (1, '2026-11-20', 'soggy')")
        c.execute("DELETE FROM pot_summary")
        c.commit()
    refused = kept.refused(f"/api/backups/{made['name']}/restore", {}, 409)
    assert "holds a value that cannot be read" in refused["detail"]
    assert kept.get("/api/pots") == before
    assert len(kept.get("/api/backups")["backups"]) == 1


@pytest.mark.parametrize("name", ["nothing", "fenwa-20200101T000000Z-start.sqlite", "..%2Ffenwa.sqlite"])
def test_a_backup_that_is_not_there_is_refused(kept: Client, name: str) -> None:
    answer = kept.send(f"/api/backups/{name}/restore")
    assert answer.status_code == 404
    assert kept.get("/api/pots")["pots"]


# the command line


def test_backup_and_restore_from_the_command_line(kept: Client, tmp_path: Path) -> None:
    database, folder = kept.store.path, tmp_path / "elsewhere"
    done = fenwa("backup", "--database", str(database), FENWA_BACKUPS=str(folder))
    assert done.returncode == 0, done.stderr
    (file,) = folder.glob("fenwa-*-by-hand.sqlite")
    assert str(file) in done.stdout
    kept.made("/api/pots", pot(code="X-99"))
    kept.store.close()
    time.sleep(1.1)  # names are told apart by the second
    done = fenwa("restore", str(file), "--database", str(database), "--backups", str(folder))
    assert done.returncode == 0, done.stderr
    with closing(sqlite3.connect(database)) as c:
        assert c.execute("SELECT count(*) FROM pot WHERE code = 'X-99'").fetchone() == (0,)
    assert len(list(folder.glob("fenwa-*-before-restore.sqlite"))) == 1


def test_the_command_line_refuses_in_one_sentence(store: Store, tmp_path: Path) -> None:
    nowhere = fenwa("backup", "--database", str(tmp_path / "none.sqlite"))
    assert (nowhere.returncode, nowhere.stderr.count("\n")) == (2, 1)
    assert "nothing to back up" in nowhere.stderr
    words = tmp_path / "words.sqlite"
    words.write_text("not a database, only words that go on for a hundred bytes and more" * 3)
    refused = fenwa("restore", str(words), "--database", str(store.path))
    assert refused.returncode == 2
    assert "not a database of Fenwa" in refused.stderr
    assert "Traceback" not in refused.stderr
    gone = fenwa("restore", str(tmp_path / "gone.sqlite"), "--database", str(store.path))
    assert "is not there" in gone.stderr
