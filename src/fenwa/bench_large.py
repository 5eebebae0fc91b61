"""Five thousand pots and a million rows behind a real server: start, pages, a pour beside four readers, memory."""

from __future__ import annotations

import sqlite3
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from dataclasses import replace
from datetime import timedelta
from functools import partial
from pathlib import Path
from statistics import median, quantiles

from fenwa.bench_machine import Machine, each_in_quiet, in_quiet, learn, watched
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
TOMORROW = f"/api/round?on={TODAY + DAY}"  # laid out beforehand; another coming day is worked out when it is asked for
OTHERS = {
    "all of today's round, as it is walked": "/api/round",
    "the round of tomorrow": TOMORROW,
    "a round of another coming day": f"/api/round?on={TODAY + 3 * DAY}",
    "going away for two weeks": f"/api/away?leaving={TODAY + DAY}&back={TODAY + 15 * DAY}",
    "the season report": "/api/season-report",
    "every leaf as CSV": "/api/leaves.csv",
    "readings as CSV": "/api/readings.csv",
    "the calendar": "/api/calendar.ics",
}
TIMES = 8
STARTS = 3
HUNDREDS = 5
POURS, AT_ONCE = 100, 20  # a moment of quiet is short: pours are timed a few at a time
PAUSE_s = 0.05  # in which a reader has got half way into its page again
READING_s = 0.3  # for which readers read before the first pour beside them


def p95(times: list[float]) -> float:
    """The 95th percentile."""
    return quantiles(times, n=20)[-1]


def plain_read_ms(database: Path) -> float:
    """The rows a round rests on, read by plain sqlite3: the yardstick. [ms]"""
    with closing(sqlite3.connect(database)) as c:
        begun = time.perf_counter()
        c.execute("SELECT * FROM pot JOIN pot_summary ON pot_summary.pot_id = pot.id").fetchall()
        return 1000 * (time.perf_counter() - begun)


@contextmanager
def house_of(size: Size) -> Iterator[tuple[Path, list[Line]]]:
    """A database of this size with its logs folded, and what that took."""
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "large.sqlite"
        rows = written(database, size)
        begun = time.perf_counter()
        store = Store(database)
        prepare_store(store)
        store.close()
        took_s = time.perf_counter() - begun
        lines = [
            Line("pots, rows of the log", f"{size.pots:,}, {rows:,}"),
            Line("folded whole, once", f"{took_s:.0f} s"),
            Line("the file", f"{database.stat().st_size / 1e6:.0f} MB"),
        ]
        yield database, lines


@contextmanager
def house_served(database: Path, size: Size) -> Iterator[House]:
    """A server on it, once all is laid out."""
    server = Served(database)
    try:
        server.wait_until_laid_out()
        yield House(server, size.pots, in_quiet(partial(plain_read_ms, database))[0])
    finally:
        server.end()


def measured(size: Size) -> tuple[list[Line], dict[str, float]]:
    """Every figure over a collection of this size, and the pages straight after a pour by path. [ms]"""
    with house_of(size) as (database, out):
        out += in_quiet_lines(lambda: year_of_every_pot(database))
        out += starts(database)
        with house_served(database, size) as house:
            out += in_quiet_lines(house.unchanged)
            after, pages_ms = house.after_a_pour()
            out += [*after, *house.others(), *house.alone()]
            out += [line for pause_s in (0.0, PAUSE_s) for line in house.beside(pause_s)]
            out += house.hundred()
            out.append(Line("memory, the most", f"{house.server.memory_MB():.0f} MB", "600 MB"))
    return out, pages_ms


def in_quiet_lines(measure: Callable[[], list[Line]]) -> list[Line]:
    """The lines of a measure, taken in a quiet moment if there is one, with how the machine was meanwhile."""
    return _with(*in_quiet(measure))


def _with(lines: list[Line], machine: Machine) -> list[Line]:
    return [replace(line, machine=str(machine)) for line in lines]


def starts(database: Path) -> list[Line]:
    """From the command until it answers. [s]"""

    def once() -> float:
        server = Served(database)
        server.end()
        return server.started_s

    times, machine = each_in_quiet([once] * STARTS)
    return _with([Line(f"start until it answers, median of {STARTS}", f"{median(times):.1f} s", "3 s")], machine)


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

    def _asked_after(self, path: str, *pot_ids: int) -> float:
        """A page straight after a pour. [ms]

        A look at the machine leaves nothing of the server near at hand: another page is asked after such a pour first.
        """
        self._pour(*pot_ids)
        self.server.ask(PAGES[0])
        self._pour(*pot_ids)
        return self.server.ask(path)

    def after_a_pour(self) -> tuple[list[Line], dict[str, float]]:
        """Each page straight after a pour and all of them, and the figure of each page by its path. [ms]"""
        asked = [(n, PAGES[n % len(PAGES)]) for n in range(TIMES * len(PAGES))]
        times, machine = each_in_quiet(
            partial(self._asked_after, page.format(1 + 7 * n % self.pots), n) for n, page in asked
        )
        after: dict[str, list[float]] = {}
        for (_, page), took in zip(asked, times, strict=True):
            after.setdefault(page, []).append(took)
        out = [
            Line(f"`{page.format('…')}` straight after a pour", f"{median(t):.0f} ms", "150 ms", self._ratio(t))
            for page, t in after.items()
        ]
        out.append(Line("pages straight after a pour, p95", f"{p95(times):.0f} ms", "150 ms"))
        return _with(out, machine), {page: median(t) for page, t in after.items()}

    def others(self) -> list[Line]:
        """What is asked more seldom, asked again after a pour; of a coming day also what the first asking took."""
        out = []
        for n, (what, path) in enumerate(OTHERS.items()):
            first_ms, machine = watched(partial(self.server.ask, path))
            if "?on=" in path:
                target = "300 ms" if path == TOMORROW else ""
                out += _with([Line(f"{what}, first asked", f"{first_ms:.0f} ms", target)], machine)
            times, machine = each_in_quiet(partial(self._asked_after, path, 300 + 10 * n + k) for k in range(3))
            target = "300 ms" if path.startswith("/api/round") else ""
            found = f"{median(times):.0f} ms"
            out += _with([Line(f"{what}, asked again after a pour", found, target, self._ratio(times))], machine)
        return out

    def _some(self, first: int, pause_s: float = 0.0) -> list[float]:
        """A few pours, with a pause before each or none. [ms]"""
        times = []
        for n in range(min(AT_ONCE, POURS)):
            time.sleep(pause_s)
            times.append(self._pour(first + n))
        return times

    def alone(self) -> list[Line]:
        """Pours while nobody reads."""
        some, machine = each_in_quiet(partial(self._some, 100 + n) for n in range(0, POURS, AT_ONCE))
        return _with([Line("a pour alone, p95", f"{p95([t for times in some for t in times]):.0f} ms")], machine)

    def beside(self, pause_s: float) -> list[Line]:
        """Pours, with a pause between them or none, while others read the round and pots without any."""
        some, machine = each_in_quiet(
            partial(self._some_beside_readers, 600 + n, pause_s) for n in range(0, POURS, AT_ONCE)
        )
        how = f"{1000 * pause_s:.0f} ms between pours" if pause_s else "pour after pour"
        found = f"{p95([t for times in some for t in times]):.0f} ms"
        return _with([Line(f"a pour while four readers read, {how}, p95", found, "30 ms")], machine)

    def _some_beside_readers(self, first: int, pause_s: float, readers: int = 4) -> list[float]:
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
            time.sleep(READING_s)
            return self._some(first, pause_s)
        finally:
            over.set()
            for t in threads:
                t.join()

    def on_a_log_of(self, pours: int) -> list[Line]:
        """Pours on pots with so many in their log."""
        times = [self._pour(1 + n) for n in range(20)]
        return [Line(f"a pour on a pot with {pours:,} pours logged, median", f"{median(times):.0f} ms")]

    def _after_one(self, *pot_ids: int) -> float:
        """A pour after another one, as ``_asked_after``. [ms]"""
        self._pour(0)
        return self._pour(*pot_ids)

    def hundred(self) -> list[Line]:
        """A hundred pots in one entry, others each time."""
        many = min(100, self.pots)
        times, machine = each_in_quiet(
            partial(self._after_one, *range(many * n, many * (n + 1))) for n in range(HUNDREDS)
        )
        found = f"{median(times):.0f} ms"
        return _with([Line(f"a hundred pots poured at once, median of {HUNDREDS}", found, "500 ms")], machine)


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
    return f"| | found | target | ratio | walk and sum, taken |\n{'| --- ' * 5}|\n{rows}"


def by_pots(of_nursery: dict[str, float]) -> str:
    """What pages straight after a pour cost at 50, 500 and 5,000 pots, as Markdown. [ms]"""
    columns = {NURSERY.pots: of_nursery}
    for pots in (500, 50):
        less = NURSERY.pots // pots
        size = replace(NURSERY, pots=pots, leaves=NURSERY.leaves // less, waters=4, places=2, cans=NURSERY.cans // 10)
        with house_of(size) as (database, _), house_served(database, size) as house:
            columns[pots] = house.after_a_pour()[1]
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
    quickest = learn()
    print(f"At its quickest a walk took {quickest.walk_ms:.0f} ms and a sum {quickest.sum_ms:.0f} ms.\n", flush=True)
    lines, of_nursery = measured(NURSERY)
    print(table(lines), flush=True)
    print(table(pours_by_length()), flush=True)
    print(by_pots(of_nursery), flush=True)
    print(table(schemas()), flush=True)
    print(table(on_a_phone()))
