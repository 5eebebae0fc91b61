"""Choices for the forms, from the core's own lists."""

from __future__ import annotations

from typing import Annotated, get_args

from fastapi import Depends

import fenwa
from fenwa.api.model import Model
from fenwa.api.transactions import Today, get_store
from fenwa.api.ways import Ways
from fenwa.core.care.condition import Phase
from fenwa.core.care.felt import MOIST
from fenwa.core.care.vocabulary import PlaceChangeKind
from fenwa.core.leaf.marks import Mark
from fenwa.core.library.loader import media, profiles, sources
from fenwa.core.mix.rates import RATE_AMOUNTS, RATE_PERS, RATE_UNITS
from fenwa.core.mix.school import FeedRoute
from fenwa.core.mix.strength import ELEMENTS
from fenwa.core.pot.methods import METHODS, Moist
from fenwa.core.pot.methods import WORDS as RUNOFF_WORDS
from fenwa.core.pot.specification import Drainage, Route
from fenwa.core.safety import SAFETY
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.temperature import EcUnit
from fenwa.store.session import Store

router = Ways(prefix="/api", tags=["options"])


class Choice(Model):
    """A value and the words for it."""

    value: str
    label: str


class Options(Model):
    """Every list a form offers."""

    version: str
    today: str
    media: list[Choice]
    profiles: list[Choice]
    water_kinds: list[str]
    routes: list[str]
    drainages: list[str]
    phases: list[str]
    runoff_methods: list[Choice]
    marks: list[str]
    moist: list[Moist]
    place_changes: list[PlaceChangeKind]
    ec_units: list[str]
    rate_units: list[str]
    rate_amounts: list[str]
    rate_pers: list[str]
    feed_routes: list[str]
    elements: list[str]
    sources: dict[str, str]
    safety: dict[str, str]


@router.get("/options")
def options(today: Today) -> Options:
    """Choices of the forms."""
    return Options(
        version=fenwa.__version__,
        today=today.isoformat(),
        media=[Choice(value=m.id, label=m.name) for m in media().values()],
        profiles=[Choice(value=p.id, label=p.name) for p in sorted(profiles().values(), key=lambda p: p.name)],
        water_kinds=list(get_args(WaterKind)),
        routes=list(get_args(Route)),
        drainages=list(get_args(Drainage)),
        phases=list(get_args(Phase)),
        runoff_methods=[Choice(value=m, label=RUNOFF_WORDS[m]) for m in METHODS],
        marks=list(get_args(Mark)),
        moist=list(MOIST),
        place_changes=list(get_args(PlaceChangeKind)),
        ec_units=list(get_args(EcUnit)),
        rate_units=list(RATE_UNITS),
        rate_amounts=list(RATE_AMOUNTS),
        rate_pers=list(RATE_PERS),
        feed_routes=list(get_args(FeedRoute)),
        elements=list(ELEMENTS),
        sources=sources(),
        safety=SAFETY,
    )


class FoldingOut(Model):
    """How far logs are that new figures ask to be read anew; ``sentence`` empty: nothing is left to do."""

    done: int
    total: int
    sentence: str


@router.get("/folding")
def folding(store: Annotated[Store, Depends(get_store)]) -> FoldingOut:
    """What a start with new figures still works through, while the pages answer."""
    done, total = store.folding
    return FoldingOut(
        done=done,
        total=total,
        sentence=""
        if done == total
        else f"This Fenwa reckons salt by new figures: {done} of {total} pots are worked out, the rest follow.",
    )


@router.get("/health")
def health() -> dict[str, str]:
    """Says that the server answers."""
    return {"status": "ok", "version": fenwa.__version__}
