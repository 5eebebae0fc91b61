"""Is a pot ready: its rule, what was felt, seen or read of it, its weights, and the probes with their scales."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, keep_row
from fenwa.api.typed import Typed, TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.felt import MOIST, DryEnd, Heft, Probe, ReadyBy, ReadyRule, Roots, Sign, Wall
from fenwa.core.care.readiness import checked_rule
from fenwa.core.care.vocabulary import WeightKind
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Conflict, InputError, Underspecified
from fenwa.core.pot.methods import Moist
from fenwa.core.pot.weights import checked_grams
from fenwa.store import models
from fenwa.store.house_rows import open_probes, probe_named
from fenwa.store.summary import refresh, touch

router = Ways(prefix="/api", tags=["care"])


class WeightIn(Model):
    """A pot on the scale. [g]"""

    on: date
    grams: Typed
    kind: WeightKind = "now"


@router.post("/pots/{pot_id}/weights", status_code=201)
def add_weight(pot_id: int, body: WeightIn, writer: OneWrite, today: Today) -> Stored:
    """Log a weight: drained, at dry, or now."""
    require_not_future(body.on, today, "Date", pointer="/on")
    checked_grams(body.grams, "/grams")

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        return keep_row(session, models.Weight(pot_id=pot_id, on=body.on, grams=body.grams, kind=body.kind))

    return Stored(**writer.once(body, write))


class ProbeOut(Model):
    """A soil probe and the scale printed on it."""

    id: int
    name: str
    lowest: float
    highest: float
    dry_end: DryEnd


class ProbeIn(Model):
    """A soil probe."""

    name: str = Field(max_length=60)
    lowest: Typed = 1
    highest: Typed = 10
    dry_end: DryEnd = "low"


@router.get("/probes")
def probes(session: ReadSession) -> list[ProbeOut]:
    """Probes kept, by name."""
    return [ProbeOut(**{k: getattr(p, k) for k in ProbeOut.model_fields}) for p in open_probes(session)]


@router.post("/probes", status_code=201)
def add_probe(body: ProbeIn, writer: OneWrite) -> Stored:
    """Keep a probe with its own scale."""
    name = " ".join(body.name.split())
    if not name:
        raise Underspecified("Name is empty. Call the probe something, for example “long probe”.", pointer="/name")
    for value, field, pointer in (
        (body.lowest, "Lowest of the scale", "/lowest"),
        (body.highest, "Highest of the scale", "/highest"),
    ):
        require(value, field, "", low=-1000, high=100_000, pointer=pointer)
    if body.lowest >= body.highest:
        raise InputError(
            f"A scale from {body.lowest:g} to {body.highest:g} cannot be. Put the lower end first.", pointer="/lowest"
        )

    def write(session: Session) -> dict[str, Any]:
        if probe_named(session, name) is not None:
            raise Conflict(f"A probe is called {name} already. Choose another name.", pointer="/name")
        return keep_row(
            session, models.Probe(name=name, lowest=body.lowest, highest=body.highest, dry_end=body.dry_end)
        )

    return Stored(**writer.once(body, write))


def _probe(session: Session, probe_id: int | None) -> Probe | None:
    if probe_id is None:
        return None
    row = get_row(session, models.Probe, probe_id, "Probe", "/probe_id")
    return Probe(row.name, row.lowest, row.highest, row.dry_end)  # type: ignore[arg-type]  # checked when it is stored


class ReadyIn(Model):
    """A rule of readiness: share of water left in % by weight, value on the probe's scale, or how dry to the finger."""

    ready_by: ReadyBy
    at: TypedOrNone = None
    moist: Moist | None = None
    probe_id: int | None = None
    signs: list[Sign] = []
    least: int = 2


@router.post("/pots/{pot_id}/ready")
def set_ready(pot_id: int, body: ReadyIn, writer: OneWrite, today: Today) -> Stored:
    """Choose by what you tell that this pot wants water."""

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        at = body.at
        if body.ready_by == "weight" and at is not None:
            at = require(at, "Share of water left", "%", low=0, high=90, pointer="/at") / 100
        if body.ready_by == "finger":
            at = None if body.moist is None else float(MOIST.index(body.moist))
        if body.ready_by == "probe" and body.probe_id is None:
            raise Underspecified("A probe is missing. Choose the probe this pot is read with.", pointer="/probe_id")
        if body.ready_by == "signs" and "finger" in body.signs and body.moist is not None:
            at = float(MOIST.index(body.moist))
        rule = checked_rule(ReadyRule(body.ready_by, at, _probe(session, body.probe_id), tuple(body.signs), body.least))
        pot = session.get_one(models.Pot, pot_id)
        pot.ready_by, pot.ready_at = rule.by, rule.at
        if rule.by == "signs":
            pot.signs, pot.signs_least = list(rule.signs), rule.least
        pot.probe_id = body.probe_id if rule.by == "probe" else pot.probe_id
        touch(session, pot_id)
        return {"id": pot_id}

    return Stored(**writer.once(body, write))


class FeltIn(Model):
    """What was found of a pot; what is empty was not looked at."""

    on: date
    probe_id: int | None = None
    probe_value: TypedOrNone = None
    moist: Moist | None = None
    roots: Roots | None = None
    droops: bool | None = None
    wall: Wall | None = None
    heft: Heft | None = None


@router.post("/pots/{pot_id}/felt", status_code=201)
def add_felt(pot_id: int, body: FeltIn, writer: OneWrite, today: Today) -> Stored:
    """Log how dry a pot was found."""
    require_not_future(body.on, today, "Date", pointer="/on")
    found = (body.probe_value, body.moist, body.roots, body.droops, body.wall, body.heft)
    if all(x is None for x in found):
        raise Underspecified(
            "Nothing was found. Enter at least one of probe, finger, roots, wall, heft or droop.", pointer="/moist"
        )

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        if body.probe_value is not None:
            probe = _probe(session, body.probe_id)
            if probe is None:
                raise Underspecified("A probe is missing. Choose the probe you read.", pointer="/probe_id")
            require(
                body.probe_value,
                f"Reading of {probe.name}",
                "",
                low=probe.lowest,
                high=probe.highest,
                pointer="/probe_value",
            )
        kept = keep_row(
            session,
            models.Feel(
                pot_id=pot_id,
                **{**body.model_dump(), "probe_id": body.probe_id if body.probe_value is not None else None},
            ),
        )
        if body.moist is not None:
            refresh(session, pot_id)
        return kept

    return Stored(**writer.once(body, write))
