"""The first answer from three questions: what grows, which waters there are, what has been read."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.care.drinkers import Answer, one_drinker
from fenwa.core.care.first_pour import first_pour_L
from fenwa.core.care.said import SaidPots, said_pots
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.library.loader import habits, media, profiles
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import WaterKind, is_thin
from fenwa.core.working import Computed, Ledger

MOST_LINES, MOST_WATERS = 50, 12
REPORTED = ("mains", "softened", "soft")  # whose supplier publishes what is in it


@dataclass(frozen=True)
class SaidLine:
    """Pots as one says them. ``kind``: which of several the name can mean; empty: the strictest."""

    line: str
    kind: str = ""


@dataclass(frozen=True)
class WaterAtHand:
    """A water that can be had. [µS/cm] Low and high are the same where it was read."""

    kind: WaterKind
    low_uS_cm: float
    high_uS_cm: float
    measured: bool = False


@dataclass(frozen=True)
class PlantGroup:
    """Pots of one kind, and the most they may drink. [µS/cm]"""

    kind: str
    name: str
    limit_uS_cm: float
    pots: int


@dataclass(frozen=True)
class FirstVerdict:
    """One kind and one water. ``one_in``: one part of it in so many, the rest the purest water there is."""

    kind: str
    water: int
    answer: Answer
    one_in: int | None
    word: str


@dataclass(frozen=True)
class Missing:
    """What would settle verdicts: how many. ``water``: its place in the list; None: of no water."""

    what: str
    settles: str
    verdicts: int
    water: int | None


@dataclass(frozen=True)
class FirstPlan:
    """Who may drink which water, what serves all, how much a week, what is missing. [L, µS/cm]"""

    plants: tuple[PlantGroup, ...]
    verdicts: tuple[FirstVerdict, ...]
    serves_all: tuple[int, ...]
    thinner: int | None
    low_L_week: float | None
    high_L_week: float | None
    missing: tuple[Missing, ...]
    sentence: str
    caution: str


def _word(answer: Answer, one_in: int | None, thinner: str) -> str:
    into = f"1 part in {one_in} of {thinner}" if one_in and one_in > 1 and thinner else ""
    if answer == "yes":
        return "yes"
    if answer == "a reading decides":
        return f"read it, or {into}" if into else "read it first"
    return into or "no"


def _weekly(said: SaidPots) -> tuple[float, float]:
    habit = habits()[profiles()[said.kind].habit]
    low, high = habit.interval_days
    pour = first_pour_L(media()[said.medium].theta_cc * said.volume_L, None, habit.LF) * said.count
    return pour * 7 / high, pour * 7 / low


def _missing(waters: list[WaterAtHand], verdicts: list[FirstVerdict], names: dict[str, str]) -> list[Missing]:
    found = []
    for i, w in enumerate(waters):
        if w.measured:
            continue
        open_kinds = [names[v.kind] for v in verdicts if v.water == i and v.answer == "a reading decides"]
        label = water_kinds()[w.kind].label
        thinned = sum(v.water == i and v.answer == "thinned" for v in verdicts)
        settles = "narrows its range."
        if open_kinds:
            more = f" and {len(open_kinds) - 3} more" if len(open_kinds) > 3 else ""
            settles = f"settles {', '.join(open_kinds[:3])}{more}, and how far it is thinned."
        elif thinned:
            settles = "settles how far it is thinned."
        found.append(Missing(f"One reading: {label}", settles, len(open_kinds) + thinned, i))
        if w.kind in REPORTED:
            told = "narrows it without a pen; hardness alone helps."
            found.append(Missing(f"The supplier’s report: {label}", told, len(open_kinds), i))
    found.sort(key=lambda m: -m.verdicts)
    return [*found, Missing("A feed", "can wait until the first can is mixed.", 0, None)]


def _litres(pots: list[SaidPots], ledger: Ledger) -> tuple[float, float] | None:
    if not pots:
        return None
    weeks = [_weekly(p) for p in pots]
    low = ledger.found("low", "litres a week at their longest usual interval", sum(a for a, _ in weeks), "L", "habits")
    high = ledger.found("high", "litres a week at their shortest", sum(b for _, b in weeks), "L", "habits")
    return low, high


def _sentence(serving: list[str], pots: int, kinds: int, waters: int) -> str:
    what = "pot" if pots == 1 else f"all {pots} pots"
    if not pots:
        return "Name a plant, and each water is judged for it."
    if not waters:
        return "Name a water, and it is judged for each kind."
    if serving:
        return f"{serving[0].capitalize()} alone serves {'the ' if pots == 1 else ''}{what}."
    of = "that kind" if kinds == 1 else f"all {kinds} kinds"
    return f"No water of these serves {of} as it is."


@calculation("first-plan", title="Who may drink which water", station="water")
def first_plan(*, lines: tuple[SaidLine, ...], waters: tuple[WaterAtHand, ...]) -> Computed[FirstPlan]:
    """What can be said from a list of plants and of waters, with nothing else known.

    Parameters
    ----------
    lines : tuple of SaidLine
        Pots as one says them, up to 50 lines.
    waters : tuple of WaterAtHand
        Waters that can be had, up to 12; each as read, or as wide as its kind usually is, 0 to 20 000. [µS/cm]

    Returns
    -------
    Computed
        Every kind with every water, the water that serves all, litres a week, what is missing. [µS/cm, L]

    Raises
    ------
    InputError, OutOfRange, Underspecified
        If a line is not understood, a list is too long, or a reading cannot be.

    Notes
    -----
    A water is thinned with the purest one of the list, both at their saltiest. What is missing stands in the order
    of how many verdicts it would settle. Litres: the first pour of a barely damp pot, at the shortest and at the
    longest usual interval of its kind.

    References
    ----------
    judgement; who-may-drink; said-pots; first-pour
    """
    if len(lines) > MOST_LINES:
        raise InputError(f"{len(lines)} lines. Enter at most {MOST_LINES} at once.", pointer="/lines")
    if len(waters) > MOST_WATERS:
        raise InputError(f"{len(waters)} waters. Choose at most {MOST_WATERS}.", pointer="/waters")
    for i, w in enumerate(waters):
        require(w.low_uS_cm, "Lower end", "µS/cm", low=0, high=20_000, pointer=f"/waters/{i}/low_uS_cm")
        require(w.high_uS_cm, "Upper end", "µS/cm", low=w.low_uS_cm, high=20_000, pointer=f"/waters/{i}/high_uS_cm")
    said = [said_pots(line=x.line, kind=x.kind).result for x in lines]
    counts: dict[str, int] = {}
    for s in said:
        counts[s.kind] = counts.get(s.kind, 0) + s.count
    plants = sorted(
        (PlantGroup(k, profiles()[k].short, profiles()[k].source_water.ec_max_uS_cm, n) for k, n in counts.items()),
        key=lambda g: (g.limit_uS_cm, g.name),
    )
    thinner = min(range(len(waters)), key=lambda i: waters[i].high_uS_cm, default=None)
    ledger = Ledger("Who may drink which water", "Each at its saltiest; by the amount a pen sees.", ("judgement",))
    verdicts = []
    for g in plants:
        for i, w in enumerate(waters):
            pure = waters[thinner].high_uS_cm if thinner is not None and thinner != i else 20_000.0
            d = one_drinker(g.kind, w.low_uS_cm, w.high_uS_cm, pure)
            into = "" if thinner is None else water_kinds()[waters[thinner].kind].label
            verdicts.append(FirstVerdict(g.kind, i, d.answer, d.one_in, _word(d.answer, d.one_in, into)))
    for i, w in enumerate(waters):
        label = water_kinds()[w.kind].label
        ledger.take(f"w{i + 1}", f"{label}, at most", w.high_uS_cm, "µS/cm", "measured" if w.measured else "usual")
    for i, g in enumerate(plants):
        ledger.take(f"p{i + 1}", f"most for {g.name}", g.limit_uS_cm, "µS/cm", f"profile {g.kind}")
    serves = [i for i in range(len(waters)) if plants and all(v.answer == "yes" for v in verdicts if v.water == i)]
    litres = _litres(said, ledger)
    labels = [water_kinds()[waters[i].kind].label for i in serves]
    unseen = any(not is_thin(w.kind) for w in waters)
    return ledger.close(
        FirstPlan(
            tuple(plants),
            tuple(verdicts),
            tuple(serves),
            thinner,
            litres[0] if litres else None,
            litres[1] if litres else None,
            tuple(_missing(list(waters), verdicts, {p.kind: p.name for p in plants})),
            _sentence(labels, sum(p.pots for p in plants), len(plants), len(waters)),
            "By the amount a pen sees. Chlorine, sodium and lime stay unknown until a report or a test."
            if unseen
            else "",
        )
    )
