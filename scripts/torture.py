"""Pulled plugs: the server is killed at random moments, and what it acknowledged is looked for afterwards.

Killed are writes of every kind, starts, migrations of an old database, and backups. After each kill the database has to
be whole, what was answered has to be there once, and what was under way has to be there once when it is sent again.
"""

from __future__ import annotations

import argparse
import http.client
import json
import os
import random
import re
import sqlite3
import sys
import tempfile
import threading
import time
import urllib.request
from collections import Counter
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

from scripts.forked import FORKS, ROOT, command_line

KILLS = 200
TODAY = "2026-11-23"
SHARE = {"writes": 0.5, "start": 0.2, "migration": 0.2, "backup": 0.1}  # of the kills
OLD = ROOT / "tests" / "store" / "schemas" / "0001.sql"
ROWS_OF_OLD = 3_000  # pours added to the old database, so that its migration takes a while


@dataclass
class Sent:
    """A write with its key, the table it goes to, and what was answered; None: nothing came back."""

    key: str
    path: str
    body: dict[str, Any]
    table: str
    answer: Any = None


@dataclass
class Toll:
    """What was lost, doubled, broken."""

    kills: Counter[str] = field(default_factory=Counter)
    acknowledged: int = 0
    under_way: int = 0
    wrong: list[str] = field(default_factory=list)


def writes(draw: random.Random) -> Iterator[Sent]:
    """Writes of every kind, without end."""
    n = 0
    while True:
        n += 1
        pot = draw.choice([1, 2])
        kinds: list[tuple[str, str, dict[str, Any]]] = [
            (
                "/api/pours",
                "pour",
                {"pot_ids": [pot], "on": TODAY, "water_id": 1, "volume": 100 + n, "note": "torture"},
            ),
            ("/api/waters/1/readings", "reading", {"on": TODAY, "value": 30 + n % 9, "unit": "µS/cm"}),
            (f"/api/pots/{pot}/looks", "look", {"on": TODAY, "leaves_count": 5, "newest_leaf_mm": 100 + n % 50}),
            (f"/api/pots/{pot}/weights", "weight", {"on": TODAY, "kind": "now", "grams": 500 + n}),
            (f"/api/pots/{pot}/readings", "runoff", {"on": TODAY, "ec": 400 + n % 99}),
            (f"/api/pots/{pot}/felt", "feel", {"on": TODAY, "moist": "dry"}),
            ("/api/people", "person", {"name": f"Person {n}"}),
        ]
        path, table, body = draw.choice(kinds)
        yield Sent(f"torture-{draw.getrandbits(64):x}", path, body, table)


@contextmanager
def server(database: Path) -> Iterator[tuple[Any, str | None]]:
    """``./fenwa serve`` on a free port, and the address it said; it is killed at the end."""
    heard, said = FORKS.Pipe(duplex=False)
    arguments = ["serve", "--port", "0", "--today", TODAY, "--database", str(database)]
    process = FORKS.Process(target=command_line, args=(arguments, said), daemon=True)
    process.start()
    said.close()
    try:
        with os.fdopen(os.dup(heard.fileno())) as lines:
            found = re.search(r"https?://\S+:\d+", lines.readline())
        yield process, found.group() if found else None
    finally:
        process.kill()
        process.join()
        heard.close()


def send(address: str, what: Sent) -> int:
    """Send a write; its answer is noted, and its status returned."""
    where = urlsplit(address)
    with closing(http.client.HTTPConnection(str(where.hostname), where.port, timeout=60)) as line:
        head = {"Content-Type": "application/json", "Idempotency-Key": what.key}
        line.request("POST", what.path, json.dumps(what.body).encode(), head)
        answer = line.getresponse()
        content = answer.read()
        if answer.status in (200, 201):
            what.answer = json.loads(content)
        return answer.status


def furnish(address: str) -> None:
    """A water and two pots."""
    pot = {
        "profile_id": "paphiopedilum",
        "medium_id": "bark_mix",
        "volume": "0.9",
        "interval_days": 6,
        "phase": "active",
    }
    first: list[tuple[str, dict[str, Any]]] = [
        ("/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"}),
        ("/api/waters/1/readings", {"on": TODAY, "value": 34, "unit": "µS/cm"}),
        ("/api/pots", {**pot, "code": "T-01"}),
        ("/api/pots", {**pot, "code": "T-02"}),
    ]
    for n, (path, body) in enumerate(first):
        status = send(address, Sent(f"furnish-{n:04}", path, body, ""))
        assert status == 201, (path, status)


def counts(database: Path) -> Counter[str]:
    """Rows of each table that is written to."""
    tables = ("pour", "reading", "look", "weight", "runoff", "feel", "person")
    with closing(sqlite3.connect(database)) as c:
        return Counter({t: c.execute(f"SELECT count(*) FROM {t}").fetchone()[0] for t in tables})  # noqa: S608 - our names


def whole(database: Path, when: str, toll: Toll) -> None:
    """The file is sound, whatever happened."""
    with closing(sqlite3.connect(database)) as c:
        said = c.execute("PRAGMA integrity_check").fetchone()[0]
        broken = c.execute("PRAGMA foreign_key_check").fetchall()
    if said != "ok" or broken:
        toll.wrong.append(f"{when}: the database is not whole: {said}, {len(broken)} rows without their parent")


class House:
    """A collection that is written to and killed, with everything ever acknowledged."""

    def __init__(self, folder: Path, draw: random.Random, toll: Toll) -> None:
        self.database, self.draw, self.toll = folder / "house.sqlite", draw, toll
        self.stream = writes(draw)
        with server(self.database) as (_, address):
            assert address is not None
            furnish(address)
        self.stored = counts(self.database)
        self.pending: Sent | None = None

    def kill_writing(self) -> None:
        """Write as fast as it answers, and kill at a random moment."""
        with server(self.database) as (process, address):
            if address is None:
                self.toll.wrong.append("writes: the server did not start again")
                return
            self._again(address)
            with urllib.request.urlopen(f"{address}/api/health") as answer:  # noqa: S310 - our own server
                answer.read()  # the first answer of a start takes longer than all the others
            timer = threading.Timer(self.draw.uniform(0.02, 1.2), process.kill)
            timer.start()
            while self.pending is None:
                what = next(self.stream)
                try:
                    status = send(address, what)
                except (OSError, http.client.HTTPException):
                    self.pending = what
                    break
                if status not in (200, 201):
                    self.toll.wrong.append(f"writes: {what.path} answered {status}")
                    break
                self.stored[what.table] += 1
                self.toll.acknowledged += 1
            timer.join()
        self._look("writes")

    def kill_starting(self) -> None:
        """Kill a start at a random moment."""
        with _started(["serve", "--port", "0", "--today", TODAY, "--database", str(self.database)]) as process:
            process.join(self.draw.uniform(0.0, 1.5))
        self._look("start")

    def kill_backing_up(self) -> None:
        """Kill a backup at a random moment; every one that is listed is whole."""
        with _started(["backup", "--database", str(self.database)]) as process:
            process.join(self.draw.uniform(0.0, 0.6))
        self._look("backup")
        for copy in self.database.with_suffix(".backups").glob("*.sqlite"):
            whole(copy, "backup", self.toll)

    def _again(self, address: str) -> None:
        """What was under way at the last kill is sent once more, as the page does: it is there once."""
        if self.pending is None:
            return
        self.toll.under_way += 1
        status = send(address, self.pending)
        if status not in (200, 201):
            self.toll.wrong.append(f"writes: {self.pending.path} sent again answered {status}")
        self.stored[self.pending.table] += 1
        self.pending = None
        if counts(self.database) != self.stored:
            self.toll.wrong.append(f"writes: {_differences(self.stored, counts(self.database))} after sending again")
            self.stored = counts(self.database)

    def _look(self, when: str) -> None:
        self.toll.kills[when] += 1
        whole(self.database, when, self.toll)
        found = counts(self.database)
        more = found - self.stored
        may = Counter({self.pending.table: 1}) if self.pending else Counter()
        if self.stored - found or more - may:
            self.toll.wrong.append(f"{when}: {_differences(self.stored, found)}")


def _differences(wanted: Counter[str], found: Counter[str]) -> str:
    lost, doubled = dict(wanted - found), dict(found - wanted)
    return f"lost {lost}, more than acknowledged {doubled}"


@contextmanager
def _started(arguments: list[str]) -> Iterator[Any]:
    heard, said = FORKS.Pipe(duplex=False)
    process = FORKS.Process(target=command_line, args=(arguments, said), daemon=True)
    process.start()
    said.close()
    try:
        yield process
    finally:
        process.kill()
        process.join()
        heard.close()


def kill_migrating(folder: Path, draw: random.Random, toll: Toll) -> None:
    """An old database whose upgrade is killed once or twice: the next start ends it, and no row is missing."""
    database = folder / f"old-{draw.getrandbits(32):x}.sqlite"
    with closing(sqlite3.connect(database)) as c:
        c.executescript(OLD.read_text("utf-8"))
        columns = [r[1] for r in c.execute("PRAGMA table_info(pour)") if r[1] != "id"]
        names = ", ".join(f'"{n}"' for n in columns)
        row = c.execute(f"SELECT {names} FROM pour LIMIT 1").fetchone()  # noqa: S608 - our names
        marks = ", ".join("?" * len(columns))
        c.executemany(f"INSERT INTO pour ({names}) VALUES ({marks})", [row] * ROWS_OF_OLD)  # noqa: S608
        c.commit()
        before = c.execute("SELECT count(*), total(volume_L), max(id) FROM pour").fetchone()
    for _ in range(draw.choice([1, 2])):
        with _started(["serve", "--port", "0", "--today", TODAY, "--database", str(database)]) as process:
            process.join(draw.uniform(0.05, 2.5))
        toll.kills["migration"] += 1
        whole(database, "migration", toll)
    with server(database) as (_, address):
        if address is None:
            toll.wrong.append("migration: it did not go on at the next start")
    with closing(sqlite3.connect(database)) as c:
        after = c.execute("SELECT count(*), total(volume_L), max(id) FROM pour").fetchone()
    if after != before:
        toll.wrong.append(f"migration: pours were {before}, are {after}")
    for copy in folder.glob(f"{database.stem}.before-*.sqlite"):
        with closing(sqlite3.connect(copy)) as c:
            at = c.execute("SELECT version_num FROM alembic_version").fetchone()
            kept = c.execute("SELECT count(*), total(volume_L), max(id) FROM pour").fetchone()
        if at != ("0001",) or kept != before:
            toll.wrong.append(f"migration: the copy from before holds schema {at} and pours {kept}")


def run(kills: int, start: int, say: Any = lambda _: None) -> Toll:
    """Kill so often, by every kind's share."""
    draw, toll = random.Random(start), Toll()  # noqa: S311 - chance, not secrecy
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        house = House(folder, draw, toll)
        while (done := toll.kills.total()) < kills:
            behind = {kind: toll.kills[kind] / share for kind, share in SHARE.items()}
            kind = min(behind, key=lambda k: behind[k])
            if kind == "writes":
                house.kill_writing()
            elif kind == "start":
                house.kill_starting()
            elif kind == "backup":
                house.kill_backing_up()
            else:
                kill_migrating(folder, draw, toll)
            if done % 20 == 0:
                say(f"{done} kills, {toll.acknowledged} writes acknowledged, {len(toll.wrong)} findings")
        with server(house.database) as (_, address):
            assert address is not None
            house._again(address)
        house._look("end")
        del toll.kills["end"]
    return toll


def main() -> int:
    """Run, print, and fail if anything was lost, doubled or broken."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kills", type=int, default=KILLS)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    begun = time.monotonic()
    toll = run(asked.kills, asked.seed, lambda s: print(f"  {s}", flush=True))
    for what in toll.wrong:
        print(what)
    print(
        f"{toll.kills.total()} kills {dict(toll.kills)} (seed {asked.seed}) in {time.monotonic() - begun:.0f} s: "
        f"{toll.acknowledged} writes acknowledged, {toll.under_way} under way and sent again, "
        f"{len(toll.wrong)} findings"
    )
    return 1 if toll.wrong else 0


if __name__ == "__main__":
    sys.exit(main())
