"""Five thousand pots and a million rows behind a real server: start, pages, a pour beside four readers, memory."""

from __future__ import annotations

import sqlite3
import tempfile
import threading
import time
from contextlib import closing
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from statistics import median, quantiles

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


def beside_readers(server: Served, pots: int, pause_s: float, readers: int = 4) -> list[float]:
    """Pours, with a pause between them or none, while others read the round and pots without any. [ms]"""
    over = threading.Event()

    def read(n: int) -> None:
        k = 0
        while not over.is_set():
            k += 1
            server.ask(("/api/round", f"/api/pots/{1 + (97 * n + k) % pots}")[k % 2])

    threads = [threading.Thread(target=read, args=(n,)) for n in range(readers)]
    for t in threads:
        t.start()
    try:
        times = []
        for n in range(POURS):
            time.sleep(pause_s)
            times.append(server.pour([1 + (600 + n) % pots], f"bench-beside-{pause_s}-{n:04}"))
        return times
    finally:
        over.set()
        for t in threads:
            t.join()


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
        plain = plain_read_ms(database)
        out += year_of_every_pot(database)
        starts = []
        for _ in range(STARTS - 1):
            begun_once = Served(database)
            starts.append(begun_once.started_s)
            begun_once.end()
        server = Served(database)
        try:
            starts.append(server.started_s)
            out.append(Line(f"start until it answers, median of {STARTS}", f"{median(starts):.1f} s", "3 s"))
            server.wait_until_laid_out()
            every: list[float] = []
            for page in PAGES:
                path = page.format(7)
                server.ask(path)
                times = [server.ask(path) for _ in range(TIMES)]
                every += times
                out.append(Line(f"`{page.format('…')}` when nothing changed", f"{median(times):.0f} ms", "50 ms"))
            out.append(Line("pages when nothing changed, p95", f"{p95(every):.0f} ms", "50 ms"))
            out.append(Line("pots and summaries by plain sqlite3", f"{plain:.0f} ms"))
            after: dict[str, list[float]] = {}
            for n in range(TIMES * len(PAGES)):
                page = PAGES[n % len(PAGES)]
                server.pour([1 + n % size.pots], f"bench-after-{n:04}")
                after.setdefault(page, []).append(server.ask(page.format(1 + 7 * n % size.pots)))
            for page, times in after.items():
                out.append(
                    Line(
                        f"`{page.format('…')}` straight after a pour",
                        f"{median(times):.0f} ms",
                        "150 ms",
                        f"{median(times) / plain:.2f}",
                    )
                )
            for n, (what, path) in enumerate(OTHERS.items()):
                server.ask(path)
                times = []
                for k in range(3):
                    server.pour([1 + (300 + 10 * n + k) % size.pots], f"bench-other-{n}-{k}")
                    times.append(server.ask(path))
                target = "300 ms" if path == "/api/round" else ""
                said = Line(f"{what}, asked again after a pour", f"{median(times):.0f} ms", target)
                out.append(replace(said, ratio=f"{median(times) / plain:.2f}"))
            every = [x for times in after.values() for x in times]
            out.append(Line("pages straight after a pour, p95", f"{p95(every):.0f} ms", "150 ms"))
            alone = [server.pour([1 + (100 + n) % size.pots], f"bench-alone-{n:04}") for n in range(POURS)]
            out.append(Line("a pour alone, p95", f"{p95(alone):.0f} ms"))
            for how, pause_s in (("pour after pour", 0.0), (f"{1000 * PAUSE_s:.0f} ms between pours", PAUSE_s)):
                beside = p95(beside_readers(server, size.pots, pause_s))
                out.append(Line(f"a pour while four readers read, {how}, p95", f"{beside:.0f} ms", "30 ms"))
            many = server.pour(list(range(1, 1 + min(100, size.pots))), "bench-many")
            out.append(Line("a hundred pots poured at once", f"{many:.0f} ms", "500 ms"))
            out.append(Line("memory, the most", f"{server.memory_MB():.0f} MB", "600 MB"))
        finally:
            server.end()
    return out, {page: median(times) for page, times in after.items()}


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
                times = [server.pour([2 + n], f"bench-long-{n:04}") for n in range(20)]
            finally:
                server.end()
        out.append(Line(f"a pour on a pot with {pours:,} pours logged, median", f"{sorted(times)[10]:.0f} ms"))
    return out


def table(lines: list[Line]) -> str:
    """As Markdown."""
    rows = "".join(f"| {x.what} | {x.found} | {x.target} | {x.ratio} |\n" for x in lines)
    return f"| | found | target | ratio |\n| --- | --- | --- | --- |\n{rows}"


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
    out = [Line(f"{ROWS:,} rows brought from schema {r}", f"{migrated_s(r):.1f} s", "60 s") for r in EARLIER]
    full, normal = commit_ms("FULL"), commit_ms("NORMAL")
    return [*out, Line("a commit that waits for the disk, and one that does not", f"{full:.2f} and {normal:.2f} ms")]


def large() -> None:
    """Print every figure."""
    lines, of_nursery = measured(NURSERY)
    print(table(lines), flush=True)
    print(table(pours_by_length()), flush=True)
    print(by_pots(of_nursery), flush=True)
    print(table(schemas()), flush=True)
    print(table(on_a_phone()))
