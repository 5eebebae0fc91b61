"""Speed measured in one run: forecasts, ion model, page data, first-load JavaScript."""

from __future__ import annotations

import gzip
import re
import tempfile
from datetime import date
from functools import partial
from pathlib import Path
from statistics import quantiles
from typing import Any

import numpy as np

from fenwa.bench_answers import answers
from fenwa.bench_pages import pages, timed
from fenwa.bench_plain import SAMPLE, plain_loop_s
from fenwa.bench_pots import calibration
from fenwa.bench_rows import TODAY
from fenwa.bench_scroll import scroll


def _forecasts() -> None:
    from fenwa.core.pot.ahead import Rhythm, forecast
    from fenwa.core.pot.balance import State
    from fenwa.core.pot.specification import MEMBERS, Medium, PotSpec, members_of

    n = 2000
    pots = [PotSpec(1.0, Medium(0.25, 0.55, 1.0, 0.5, 1.1))] * n
    members = members_of(pots)
    start = 400.0 * members.start_factor * np.ones_like(members.soil.W_m_cc)
    rhythms = [Rhythm(6.0, (0.25,) * 4, (400.0, 400.0, 400.0, 40.0))] * n
    state = State(members.soil.W_m_cc * 1.0, start, start)
    fast = min(timed(lambda: forecast(pots, members, state, rhythms, 365, date.today())) for _ in range(3))
    slow = plain_loop_s(n)
    print(f"root-zone forecasts, {n} pots x 365 days x {MEMBERS} members: {fast:.2f} s (target 1 s)")
    print(f"  the same as a plain Python loop (from {SAMPLE} pots): {slow:.1f} s, ratio {slow / fast:.0f}")


def _ions() -> None:
    from fenwa.core.water.conductivity import ec_of, ion_conductivity
    from fenwa.core.water.ions import AddedIons
    from fenwa.core.water.kinds import SHAPES

    feed = AddedIons(NO3_N_mg_L=54.0, NH4_N_mg_L=6.0, P_mg_L=6.0, K_mg_L=57.0, Ca_mg_L=37.0, Mg_mg_L=9.0, S_mg_L=8.0)
    ec_of(SHAPES["mains"], feed)  # loads the optimiser
    runs = 200
    bare = timed(lambda: [ec_of(SHAPES["mains"], feed.scaled(1 + i / 500)) for i in range(runs)])
    full = timed(lambda: [ion_conductivity(water=SHAPES["mains"], added=feed.scaled(1 + i / 500)) for i in range(runs)])
    print(
        f"ion-conductivity, feed in hard water: {runs / bare:.0f} per second; with working {runs / full:.0f} per second"
    )
    _many_ions(feed)


def _many_ions(feed: Any) -> None:
    import numpy as np

    from fenwa.core.water.kinds import SHAPES
    from fenwa.core.water.many import ec_of_many

    n = 4000
    rng = np.random.default_rng(5)
    waters = {k: v * rng.uniform(0.3, 1.2, n) for k, v in vars(SHAPES["mains"]).items() if v is not None and k != "pH"}
    fed = {k: v * rng.uniform(0.2, 1.5, n) for k, v in vars(feed).items()}
    plain = min(timed(lambda: ec_of_many(waters)) for _ in range(3))
    dosed = min(timed(lambda: ec_of_many(waters, fed)) for _ in range(3))
    print(f"  as arrays: {n / plain:.0f} waters per second, {n / dosed:.0f} feeds per second (target 20000)")


def _care() -> None:
    """A year of 500 pots, and one day's round for 5,000."""
    from fenwa.core.care.due import RoundPot
    from fenwa.core.care.feed_cans import rise_per_mg_N
    from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts
    from fenwa.core.care.pattern import FedSoFar, every_nth
    from fenwa.core.care.round import round_plan
    from fenwa.core.care.round_parts import RoundFeed, RoundWater
    from fenwa.core.care.standing_rules import InForce
    from fenwa.core.care.year import YearPot, YearWater, days_of
    from fenwa.core.library.loader import fertilizers, habits, media, profiles, schools
    from fenwa.core.pot.specification import PotSpec
    from fenwa.core.water.kinds import BaseWater

    kinds, soils = list(profiles().values()), list(media().values())
    label = fertilizers()["balanced_13_3_15_ca_mg"].label
    rise = rise_per_mg_N(label)
    pots = []
    for i in range(500):
        kind = kinds[i % len(kinds)]
        habit = habits()[kind.habit]
        spec = PotSpec(
            0.3 + 0.1 * (i % 9), soils[i % len(soils)].medium(), habit.u, habit.loss_per_day, u_ballast=habit.u_ballast
        )
        pots.append(
            YearPot(
                KeptPot(i, interval_days=sum(habit.interval_days) / 2),
                kind,
                spec,
                PlaceFacts(hemisphere=("north", "south")[i % 2]),
                Chosen(schools()["thin_and_constant"], phase_by=InForce("calendar", "own")),
            )
        )
    waters = [YearWater(1, 15.0), YearWater(2, 180.0), YearWater(3, 450.0)]
    year = timed(lambda: list(days_of(pots, waters, date(2026, 1, 5), 365, lambda n: rise * n)))
    print(f"a year of 500 pots, day by day: {year:.1f} s (target 10 s)")
    due = []
    for i in range(5000):
        feeding = kinds[i % len(kinds)].phases["active"]
        low, high = feeding.n_ideal_mg_L
        due.append(
            RoundPot(
                id=i,
                code=f"K-{i}",
                name="",
                place="bench",
                shelf_order=i,
                isolated=i % 50 == 0,
                interval_days=5,
                pattern=every_nth(4),
                fed=FedSoFar(),
                last_pour_on=None,
                last_flush_on=None,
                feeds_at_root=feeding.feed,
                n_low_mg_L=low,
                n_high_mg_L=high,
                feed_ceiling_uS_cm=feeding.ec_ceiling_uS_cm,
                carnivore=kinds[i % len(kinds)].carnivore,
                volume_L=0.2,
                route="top",
                reading_uS_cm=300.0,
                ceiling_uS_cm=1e4,
                flush_rounds=0,
                flush_round_L=0,
                flush_pause_min=0,
                flush_sentence="",
                flush_forbidden=False,
                water_ids=(1, 2),
            )
        )
    base = [RoundWater(1, "Rain", BaseWater(34.0, "rain")), RoundWater(2, "Well", BaseWater(180.0, "borehole"))]
    feeds = [RoundFeed(1, "feed", label)]
    round_plan(pots=due, waters=base, feeds=feeds, today=TODAY)
    times = [timed(lambda: round_plan(pots=due, waters=base, feeds=feeds, today=TODAY)) * 1000 for _ in range(8)]
    print(f"a day's round for 5000 pots: median {sorted(times)[4]:.0f} ms, most {max(times):.0f} ms (target 300 ms)")


def _never() -> None:
    """What must never happen, looked for over a year in many pots; the tests run a sample."""
    import os
    import subprocess
    import sys

    tests = Path(__file__).parents[2] / "tests" / "core"
    oracles = [tests / "test_never.py", tests / "test_year.py"]
    if not tests.exists():
        print("what must never happen: the tests are not beside this installation")
        return
    env = {**os.environ, "FENWA_NEVER": "2000", "FENWA_YEAR": "3"}
    for oracle, over in zip(oracles, ("2,000 pots", "186 pots under each school"), strict=True):
        command = [sys.executable, "-m", "pytest", "-q", "-x", str(oracle)]
        run = partial(subprocess.run, command, env=env, check=True, capture_output=True, cwd=tests.parents[1])
        took = timed(run)
        print(f"what must never happen, {over} for 365 days: it did not, {took:.0f} s")


def floor_ms(address: str, requests: int) -> tuple[float, float]:
    """Median and 95th percentile of the smallest question, asked by a real client over one kept line. [ms]"""
    import http.client
    from urllib.parse import urlsplit

    where = urlsplit(address)
    line = http.client.HTTPConnection(str(where.hostname), where.port)

    def ask() -> None:
        line.request("GET", "/api/health")
        line.getresponse().read()

    ask()
    times = [timed(ask) * 1000 for _ in range(requests)]
    line.close()
    return sorted(times)[requests // 2], quantiles(times, n=20)[-1]


def _floor() -> None:
    """What every request costs whatever it asks: a server of its own, a real socket."""
    import os
    import subprocess
    import sys

    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "fenwa.cli", "serve", "--port", "0", "--database", f"{folder}/floor.sqlite"]
        process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=dict(os.environ))  # noqa: S603 - our own
        try:
            assert process.stdout is not None
            said = re.search(r"https?://\S+:\d+", process.stdout.readline())
            assert said, "the server did not say where it answers"
            middle, most = floor_ms(said.group(), 200)
        finally:
            process.terminate()
            process.wait(timeout=10)
    print(f"a request's floor from a real client: median {middle:.1f} ms, p95 {most:.1f} ms (target 5 ms)")


_NEEDS = re.compile(r'(?:from|import)\s*["`\']\./([^"`\']+\.js)["`\']')
_SENT_FOR = re.compile(r'import\(["`\']\./(main-[^"`\']+\.js)["`\']\)')


def named_at_first(web: Path) -> set[str]:
    """Scripts that the page itself names: they wait for no other."""
    html = (web / "index.html").read_text("utf-8")
    return set(re.findall(r'(?:src|href)="/assets/([^"]+\.js)"', html))


def needed_by(web: Path, names: set[str]) -> set[str]:
    """These scripts, and all that they cannot run without."""
    found, to_read = set[str](), list(names)
    while to_read:
        if (name := to_read.pop()) not in found:
            found.add(name)
            to_read += _NEEDS.findall((web / "assets" / name).read_text("utf-8"))
    return found


def first_load_kB(web: Path) -> float:
    """Compressed size of the scripts the first page loads: those it names, and those they send for at once. [kB]"""
    first = needed_by(web, named_at_first(web))
    sent_for = {n for name in first for n in _SENT_FOR.findall((web / "assets" / name).read_text("utf-8"))}
    every = first | needed_by(web, sent_for)
    return sum(len(gzip.compress((web / "assets" / name).read_bytes(), 9)) for name in every) / 1000


def run(web: Path) -> None:
    """Print every measure."""
    _forecasts()
    _ions()
    _care()
    _never()
    calibration()
    _floor()
    pages()
    answers()
    if (web / "index.html").exists():
        print(f"first-load JavaScript: {first_load_kB(web):.0f} kB compressed (target 200 kB)")
        scroll()
    else:
        print("first-load JavaScript: the interface is not built; run ./fenwa demo once")
