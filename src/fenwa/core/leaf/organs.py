"""Root tips, pitchers, dew, flowers, bulbs: what a look can see of a plant beside its leaves, by its kind."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from statistics import mean
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.leaf.score import Measure, Measured
from fenwa.core.library.profile import KindOrgan
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Organ = KindOrgan
Told = Literal["seen", "none seen", "cannot tell"]  # not looked for: no record at all
Figure = Literal["count", "of", "mm", "percent", "lost"]
Loss = Literal["pest", "slugs", "dried", "cold", "cut", "accident", "unknown"]
UNSURE: Organ = "nub"


@dataclass(frozen=True)
class Asked:
    """A figure of an organ, in its own words. ``unit`` empty: a count."""

    figure: Figure
    label: str
    unit: str
    most: float


@dataclass(frozen=True)
class OrganForm:
    """What is asked of an organ: figures, and choices of words."""

    label: str
    figures: tuple[Asked, ...]
    words: Mapping[str, tuple[str, ...]] = field(default_factory=dict)


ORGANS: dict[Organ, OrganForm] = {
    "leaves": OrganForm("Leaves", ()),
    "root tips": OrganForm(
        "Root tips",
        (
            Asked("count", "live tips", "", 500),
            Asked("of", "tips seen", "", 500),
            Asked("mm", "longest root", "mm", 2000),
        ),
        {"wet": ("green", "grey", "brown"), "dry": ("silver", "tan", "brown"), "shows": ("inside", "out of the holes")},
    ),
    "pitchers": OrganForm(
        "Pitchers",
        (Asked("count", "open", "", 1000), Asked("of", "formed since", "", 1000), Asked("mm", "newest", "mm", 1500)),
        {"fluid": ("full", "low", "dry"), "lid": ("open", "closed")},
    ),
    "dew": OrganForm("Dew", (Asked("percent", "leaves with droplets", "%", 100),)),
    "spikes": OrganForm(
        "Spikes",
        (Asked("count", "spikes", "", 500), Asked("mm", "longest", "mm", 3000)),
        {"stage": ("growing", "dried")},
    ),
    "buds": OrganForm("Buds", (Asked("count", "buds", "", 5000), Asked("of", "dropped since", "", 5000))),
    "flowers": OrganForm(
        "Flowers",
        (Asked("count", "opened", "", 5000), Asked("of", "buds in all", "", 5000), Asked("lost", "lost", "", 5000)),
        {"lost to": ("pest", "slugs", "dried", "cold", "cut", "accident", "unknown")},
    ),
    "internodes": OrganForm("Gap between leaves", (Asked("mm", "newest gap", "mm", 2000),)),
    "bulbs": OrganForm(
        "Bulbs",
        (Asked("count", "bulbs", "", 500), Asked("mm", "newest, height", "mm", 1000)),
        {"skin": ("plump", "wrinkled"), "grown in": ("this year", "last year", "earlier")},
    ),
    "nub": OrganForm("A new nub", (), {"is": ("root", "spike", "shoot", "unsure")}),
}
SHARE_OF: dict[Organ, str] = {
    "root tips": "live tips are more than tips seen",
    "flowers": "opened are more than buds in all",
}


@dataclass(frozen=True)
class SeenOrgan:
    """An organ at a look. Figures None: not counted, not measured. [mm, %]"""

    organ: Organ
    told: Told = "seen"
    count: float | None = None
    of: float | None = None
    mm: float | None = None
    percent: float | None = None
    words: dict[str, str] = field(default_factory=dict)
    lost: float | None = None


def check_organ(seen: SeenOrgan, pointer: str) -> None:
    """Refuse what an organ cannot show.

    Raises
    ------
    OutOfRange, InputError
        If a figure cannot be, the organ has no such figure or word, or nothing was seen and yet counted.
    """
    form = ORGANS[seen.organ]
    asked = {a.figure: a for a in form.figures}
    for name in ("count", "of", "mm", "percent", "lost"):
        value = getattr(seen, name)
        if value is None:
            continue
        if name not in asked:
            raise InputError(f"{form.label} have no “{name}”. Leave it out.", pointer=f"{pointer}/{name}")
        a = asked[name]
        if seen.told != "seen":
            raise InputError(
                f"{form.label}: “{seen.told}”, and yet a figure is told. Choose “seen”, or leave the figure out.",
                pointer=f"{pointer}/{name}",
            )
        require(value, f"{form.label}, {a.label}", a.unit, low=0, high=a.most, pointer=f"{pointer}/{name}")
        if not a.unit and value != int(value):
            raise InputError(
                f"{form.label}, {a.label}: {value:g} is not a whole number. Count whole ones.",
                pointer=f"{pointer}/{name}",
            )
    if seen.organ in SHARE_OF and seen.count is not None and seen.of is not None and seen.count > seen.of:
        raise InputError(f"{form.label}: {SHARE_OF[seen.organ]}. Count again.", pointer=f"{pointer}/count")
    for word, said in seen.words.items():
        if said not in form.words.get(word, ()):
            known = "; ".join(f"{k}: {', '.join(v)}" for k, v in form.words.items()) or "none"
            raise InputError(
                f"{form.label}: “{word}: {said}” is not known. Known words: {known}.", pointer=f"{pointer}/words"
            )


def organ_share(seen: SeenOrgan) -> float | None:
    """What an organ says as a share: live tips of seen, opened of all buds, dew. None: not told. [0 to 1]"""
    if seen.told == "cannot tell":
        return None
    if seen.organ == "dew":
        return 0.0 if seen.told == "none seen" else None if seen.percent is None else seen.percent / 100
    if seen.organ not in SHARE_OF:
        return None
    if seen.told == "none seen":
        return 0.0
    return None if seen.count is None or not seen.of else seen.count / seen.of


def asks_again(organs: Sequence[SeenOrgan]) -> bool:
    """Whether a look left something unsure that a week will tell."""
    return any(o.organ == UNSURE and o.words.get("is") == "unsure" for o in organs)


@dataclass(frozen=True)
class LookFigures:
    """What one look measured of a plant. None: not measured. [mm, %, points]"""

    on: date
    organs: tuple[SeenOrgan, ...] = ()
    turgor: float | None = None
    new_burn_points: float | None = None
    leaf_mm: float | None = None


def measures_now(looks: Sequence[LookFigures]) -> list[Measured]:
    """Each measure at the newest look that has it, against the mean of the looks before: E7.8's own baseline.

    A measure seen once has no baseline and is left out; unknown never counts as zero.
    """
    series: dict[Measure, list[float]] = {}
    for look in sorted(looks, key=lambda x: x.on):
        for name, value in _measures(look).items():
            series.setdefault(name, []).append(value)
    return [Measured(name, values[-1], mean(values[:-1])) for name, values in series.items() if len(values) > 1]


def _measures(look: LookFigures) -> dict[Measure, float]:
    out: dict[Measure, float] = {}
    if look.turgor is not None:
        out["turgor"] = look.turgor
    if look.new_burn_points is not None:
        out["new tip burn"] = look.new_burn_points
    if look.leaf_mm is not None:
        out["ln leaf ratio"] = math.log(look.leaf_mm)
    for o in look.organs:
        if o.told == "cannot tell":
            continue
        share = organ_share(o)
        if o.organ == "root tips" and share is not None:
            out["live root tips"] = share
        if o.organ == "dew" and share is not None:
            out["dew fraction"] = share
        if o.organ == "internodes" and o.mm:
            out["ln internode"] = math.log(o.mm)
    return out


@dataclass(frozen=True)
class BudLoss:
    """Buds lost to one cause."""

    count: int
    why: Loss


def bloom_of(looks: Sequence[Sequence[SeenOrgan]]) -> tuple[float, float, list[BudLoss]] | None:
    """Buds, opened and lost of one bloom, from its looks oldest first; None: no bud was counted.

    The newest look that counted them tells how many there were and opened; losses add up over the looks.
    """
    flowers = [o for look in looks for o in look if o.organ == "flowers" and o.told == "seen"]
    counted = [o for o in flowers if o.of is not None]
    if not counted:
        return None
    lost: dict[str, int] = {}
    for o in flowers:
        if o.lost:
            why = o.words.get("lost to", "unknown")
            lost[why] = lost.get(why, 0) + int(o.lost)
    newest = counted[-1]
    return newest.of or 0.0, newest.count or 0.0, [BudLoss(n, why) for why, n in lost.items()]  # type: ignore[arg-type]


@dataclass(frozen=True)
class Bloom:
    """Buds that opened, and what became of the rest. [%]"""

    opened: int
    buds: int
    percent: float | None
    unknown: int
    sentence: str


@calculation("bloom", title="Buds that opened", station="leaf")
def bloom(*, buds: float, opened: float, lost: list[BudLoss] | None = None) -> Computed[Bloom]:
    """Share of the buds that opened, and what became of the others.

    Parameters
    ----------
    buds : float
        Buds counted at their fixed stage, 0 to 5 000.
    opened : float
        Buds that opened, 0 to ``buds``.
    lost : list[BudLoss]
        What became of the others, by cause; together at most those that did not open.

    Returns
    -------
    Computed
        Share that opened, and how many are accounted for by nothing. [%]

    Raises
    ------
    OutOfRange, InputError
        If a count cannot be, or more is told than there were.

    References
    ----------
    E7.8
    """
    require(buds, "Buds", "", low=0, high=5000, pointer="/buds")
    require(opened, "Opened", "", low=0, high=5000, pointer="/opened")
    if opened > buds:
        raise InputError(f"{opened:g} opened of {buds:g} buds. Count again.", pointer="/opened")
    lost = lost or []
    for i, x in enumerate(lost):
        require(x.count, "Buds lost", "", low=0, high=5000, pointer=f"/lost/{i}/count")
    told = sum(x.count for x in lost)
    if told > buds - opened:
        raise InputError(
            f"{told} buds are told as lost, and only {buds - opened:g} did not open. Count again.", pointer="/lost"
        )
    ledger = Ledger("Buds that opened", "At a fixed stage.", ("growth-analysis",))
    ledger.take("B", "buds", buds, "", "counted")
    ledger.take("o", "opened", opened, "", "counted")
    ledger.take("l", "lost to a cause that is known", sum(x.count for x in lost if x.why != "unknown"), "", "counted")
    unknown = int(ledger.step("u", "B - o - l", "", "nobody knows"))
    percent = ledger.step("p", "100 * o / B", "%", "opened") if buds else None
    parts = [f"{x.count} lost to {x.why}" for x in lost if x.count and x.why != "unknown"]
    if unknown:
        parts.append(f"{unknown} unknown")
    share = f", {percent:.0f} %" if percent is not None else ""
    said = f"{opened:g} of {buds:g} opened{share}" + (f": {', '.join(parts)}." if parts else ".")
    return ledger.close(Bloom(int(opened), int(buds), percent, unknown, said))
