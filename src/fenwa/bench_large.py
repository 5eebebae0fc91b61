"""Five thousand pots and a million rows behind a real server: start, pages, a pour beside four readers, memory."""

from __future__ import annotations

import sqlite3
import tempfile
import threading
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import replace
from datetime import timedelta
from functools import partial
from pathlib import Path
from statistics import median, quantiles

from fenwa.bench_machine import in_quiet, watched
from fenwa.bench_phone import measured as on_a_phone
from fenwa.bench_plain import plain_loop_s
from fenwa.bench_rows import NURSERY, TODAY, Size, written
from fenwa.bench_schema import EARLIER, ROWS, commit_ms, migrated_s
from fenwa.bench_served import Line, Served

PAGES = (
    "/api/stations",
    "/api/round?rows=40",
    "/api/water",
    "/api/mix",
    "/api/pots",
    "/api/pots/{}",
    "/api/days",
    "/api/flush",
    "/api/leaves",
    "/api/looks-asked",
    "/api/changes",
    "/api/settings",
)
DAY = timedelta(days=1)
OTHERS = {
    "all of today's round, as it is walked": "/api/round",
    "a round of a coming day": f"/api/round?on={TODAY + 3 * DAY}",
    "going away for two weeks": f"/api/away?leaving={TODAY + DAY}&back={TODAY + 15 * DAY}",
    "the season report": "/api/season-report",
    "every leaf as CSV": "/api/leaves.csv",
    "readings as CSV": "/api/readings.csv",
    "the calendar": "/api/calendar.ics",
}
TIMES = 8
STARTS = 3
HUNDREDS = 5
POURS = 100
PAUSE_s = 0.05  # in which a reader has got half way into its page again


def p95(times: list[float]) -> float:
    """The 95th percentile."""
    return quantiles(times, n=20)[-1]


def plain_read_ms(database: Path) -> float:
    """The rows a round rests on, read by plain sqlite3: the yardstick. [ms]"""
    with closing(sqlite3.connect(database)) as c:
        begun = time.perf_counter()
        c.execute("SELECT * FROM pot JOIN pot_summary ON pot_summary.pot_id = pot.id").fetchall()
        return 1000 * (time.perf_counter() - begun)


def measured(size: Size) -> tuple[list[Line], dict[str, float]]:
    """Every figure over a collection of this size, and the pages straight after a pour by path. [ms]"""
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "large.sqlite"
        rows = written(database, size)
        begun = time.perf_counter()
        store = Store(database)
        prepare_store(store)
        store.close()
        out = [
            Line("pots, rows of the log", f"{size.pots:,}, {rows:,}"),
            Line("folded whole, once", f"{time.perf_counter() - begun:.0f} s"),
            Line("the file", f"{database.stat().st_size / 1e6:.0f} MB"),
        ]
        out += in_quiet_lines(lambda: year_of_every_pot(database))
        out += in_quiet_lines(lambda: starts(database))
        server = Served(database)
        try:
            server.wait_until_laid_out()
            house = House(server, size.pots, plain_read_ms(database))
            out += in_quiet_lines(house.unchanged)
            (after, pages_ms), machine = in_quiet(house.after_a_pour)
            out += [replace(line, machine=str(machine)) for line in after]
            out += in_quiet_lines(house.others)
            out += in_quiet_lines(house.alone)
            for pause_s in (0.0, PAUSE_s):
                out += in_quiet_lines(partial(house.beside, pause_s))
            out += in_quiet_lines(house.hundred)
            out.append(Line("memory, the most", f"{server.memory_MB():.0f} MB", "600 MB"))
        finally:
            server.end()
    return out, pages_ms


def in_quiet_lines(measure: Callable[[], list[Line]]) -> list[Line]:
    """The lines of a measure, taken in a quiet moment if there is one, with how the machine was meanwhile."""
    lines, machine = in_quiet(measure)
    return [replace(line, machine=str(machine)) for line in lines]


def starts(database: Path) -> list[Line]:
    """From the command until it answers. [s]"""
    times = []
    for _ in range(STARTS):
        server = Served(database)
        times.append(server.started_s)
        server.end()
    return [Line(f"start until it answers, median of {STARTS}", f"{median(times):.1f} s", "3 s")]


class House:
    """A server that stands, asked for one thing after the other; what is measured anew is poured anew."""

    def __init__(self, server: Served, pots: int, plain_ms: float) -> None:
        self.server, self.pots, self.plain_ms = server, pots, plain_ms
        self._poured = 0

    def _pour(self, *pot_ids: int) -> float:
        """Pour on these, counted round where there are fewer. [ms]"""
        self._poured += 1
        return self.server.pour([1 + n % self.pots for n in pot_ids], f"bench-pour-{self._poured:06}")

    def _ratio(self, times: list[float]) -> str:
        return f"{median(times) / self.plain_ms:.2f}"

    def unchanged(self) -> list[Line]:
        """Each page when nothing changed."""
        out, every = [], list[float]()
        for page in PAGES:
            path = page.format(7)
            self.server.ask(path)
            times = [self.server.ask(path) for _ in range(TIMES)]
            every += times
            out.append(Line(f"`{page.format('…')}` when nothing changed", f"{median(times):.0f} ms", "50 ms"))
        out.append(Line("pages when nothing changed, p95", f"{p95(every):.0f} ms", "50 ms"))
        return [*out, Line("pots and summaries by plain sqlite3", f"{self.plain_ms:.0f} ms")]

    def after_a_pour(self) -> tuple[list[Line], dict[str, float]]:
        """Each page straight after a pour and all of them, and the figure of each page by its path. [ms]"""
        after: dict[str, list[float]] = {}
        for n in range(TIMES * len(PAGES)):
            page = PAGES[n % len(PAGES)]
            self._pour(n)
            after.setdefault(page, []).append(self.server.ask(page.format(1 + 7 * n % self.pots)))
        out = [
            Line(f"`{page.format('…')}` straight after a pour", f"{median(t):.0f} ms", "150 ms", self._ratio(t))
            for page, t in after.items()
        ]
        every = [x for times in after.values() for x in times]
        out.append(Line("pages straight after a pour, p95", f"{p95(every):.0f} ms", "150 ms"))
        return out, {page: median(times) for page, times in after.items()}

    def others(self) -> list[Line]:
        """What is asked more seldom, asked again after a pour."""
        out = []
        for n, (what, path) in enumerate(OTHERS.items()):
            self.server.ask(path)
            times = []
            for k in range(3):
                self._pour(300 + 10 * n + k)
                times.append(self.server.ask(path))
            target = "300 ms" if path.startswith("/api/round") else ""
            found = f"{median(times):.0f} ms"
            out.append(Line(f"{what}, asked again after a pour", found, target, self._ratio(times)))
        return out

    def alone(self) -> list[Line]:
        """Pours while nobody reads."""
        return [Line("a pour alone, p95", f"{p95([self._pour(100 + n) for n in range(POURS)]):.0f} ms")]

    def beside(self, pause_s: float, readers: int = 4) -> list[Line]:
        """Pours, with a pause between them or none, while others read the round and pots without any."""
        over = threading.Event()

        def read(n: int) -> None:
            k = 0
            while not over.is_set():
                k += 1
                self.server.ask(("/api/round", f"/api/pots/{1 + (97 * n + k) % self.pots}")[k % 2])

        threads = [threading.Thread(target=read, args=(n,)) for n in range(readers)]
        for t in threads:
            t.start()
        try:
            times = []
            for n in range(POURS):
                time.sleep(pause_s)
                times.append(self._pour(600 + n))
        finally:
            over.set()
            for t in threads:
                t.join()
        how = f"{1000 * pause_s:.0f} ms between pours" if pause_s else "pour after pour"
        return [Line(f"a pour while four readers read, {how}, p95", f"{p95(times):.0f} ms", "30 ms")]

    def on_a_log_of(self, pours: int) -> list[Line]:
        """Pours on pots with so many in their log."""
        times = [self._pour(1 + n) for n in range(20)]
        return [Line(f"a pour on a pot with {pours:,} pours logged, median", f"{median(times):.0f} ms")]

    def hundred(self) -> list[Line]:
        """A hundred pots in one entry, others each time."""
        many = min(100, self.pots)
        times = [self._pour(*range(many * n, many * (n + 1))) for n in range(HUNDREDS)]
        return [Line(f"a hundred pots poured at once, median of {HUNDREDS}", f"{median(times):.0f} ms", "500 ms")]


def year_of_every_pot(database: Path) -> list[Line]:
    """The year ahead of every pot at once, from its log, and the model alone as a plain loop. [s]"""
    from fenwa.store.collection import pots_today
    from fenwa.store.pot_rhythms import years_ahead
    from fenwa.store.session import Store

    store = Store(database)
    with store.reading() as session:
        pots = pots_today(session, TODAY)
        begun = time.perf_counter()
        found = years_ahead(session, pots, TODAY)
        took = time.perf_counter() - begun
    store.close()
    plain = plain_loop_s(len(found))
    return [
        Line(f"the year ahead of {len(found):,} pots, first asked", f"{took:.1f} s", "10 s", f"{took / plain:.2f}"),
        Line("the same years as a plain loop, nothing read", f"{plain:.1f} s"),
    ]


def pours_by_length() -> list[Line]:
    """What a pour costs at one, ten and a hundred times the log."""
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    out = []
    for pours in (40, 400, 4_000):
        with tempfile.TemporaryDirectory() as folder:
            database = Path(folder) / "long.sqlite"
            written(database, replace(NURSERY, pots=30, pours=pours, cans=0, leaves=0, climate_days=30, waters=2))
            store = Store(database)
            prepare_store(store)
            store.close()
            server = Served(database)
            try:
                server.pour([1], "bench-first")
                house = House(server, 30, 0.0)
                out += in_quiet_lines(partial(house.on_a_log_of, pours))
            finally:
                server.end()
    return out


def table(lines: list[Line]) -> str:
    """As Markdown; what the machine did meanwhile is said in ``bench_machine``."""
    rows = "".join(f"| {x.what} | {x.found} | {x.target} | {x.ratio} | {x.machine} |\n" for x in lines)
    return f"| | found | target | ratio | walk, taken |\n{'| --- ' * 5}|\n{rows}"


def by_pots(of_nursery: dict[str, float]) -> str:
    """What pages straight after a pour cost at 50, 500 and 5,000 pots, as Markdown. [ms]"""
    columns = {NURSERY.pots: of_nursery}
    for pots in (500, 50):
        less = NURSERY.pots // pots
        size = replace(NURSERY, pots=pots, leaves=NURSERY.leaves // less, waters=4, places=2, cans=NURSERY.cans // 10)
        columns[pots] = measured(size)[1]
    sizes = sorted(columns)
    head = "| straight after a pour [ms] | " + " | ".join(f"{n:,} pots" for n in sizes) + " |"
    rows = [
        f"| `{page.format('…')}` | " + " | ".join(f"{columns[n][page]:.0f}" for n in sizes) + " |" for page in PAGES
    ]
    return "\n".join([head, "| --- " * (1 + len(sizes)) + "|", *rows, ""])


def schemas() -> list[Line]:
    """A million rows of earlier schemas, and what waiting for the disk costs."""
    out = list[Line]()
    for r in EARLIER:
        took, machine = watched(partial(migrated_s, r))
        out.append(Line(f"{ROWS:,} rows brought from schema {r}", f"{took:.1f} s", "60 s", machine=str(machine)))
    (full, normal), machine = in_quiet(lambda: (commit_ms("FULL"), commit_ms("NORMAL")))
    found = f"{full:.2f} and {normal:.2f} ms"
    return [*out, Line("a commit that waits for the disk, and one that does not", found, machine=str(machine))]


def large() -> None:
    """Print every figure."""
    lines, of_nursery = measured(NURSERY)
    print(table(lines), flush=True)
    print(table(pours_by_length()), flush=True)
    print(by_pots(of_nursery), flush=True)
    print(table(schemas()), flush=True)
    print(table(on_a_phone()))
