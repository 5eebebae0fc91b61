"""Undo and correction of what was logged: nothing is deleted, every earlier value is kept."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, Today, now
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.care.errands import ends_quarantine, quarantine_since
from fenwa.core.care.vocabulary import DONE
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, NotFound
from fenwa.store import models
from fenwa.store.flush_state import passes_ever
from fenwa.store.look_rows import recount_marks, with_look
from fenwa.store.summary import current_plants, refresh, touch, touch_all
from fenwa.store.water_rows import findings_of

router = Ways(prefix="/api/log", tags=["log"])

Kind = Literal[
    "pour",
    "look",
    "reading",
    "batch",
    "pot",
    "water",
    "product",
    "meter",
    "check",
    "report",
    "treatment",
    "membrane pair",
    "inbox entry",
    "recipe",
    "measure",
    "vessel",
    "school",
    "bottle",
    "feeding",
    "override",
    "own figures",
    "weight",
    "climate",
    "decision",
    "person",
    "timer",
    "event",
    "plant",
    "felt",
    "probe",
    "rule",
    "plan",
    "candidate",
    "flush",
    "runoff",
    "level",
    "leaf",
    "leaf length",
    "mark",
    "photo",
    "rating",
    "series",
    "trial",
    "case",
    "ill check",
    "logger",
]
LEAVES = ("leaf", "leaf length", "photo", "rating")  # what answers are read off
MODELS: dict[str, type[Any]] = {
    "pour": models.Pour,
    "look": models.Look,
    "reading": models.Reading,
    "batch": models.Batch,
    "pot": models.Pot,
    "water": models.Water,
    "product": models.Product,
    "meter": models.Meter,
    "check": models.MeterCheck,
    "report": models.Report,
    "treatment": models.Treatment,
    "membrane pair": models.MembranePair,
    "inbox entry": models.InboxEntry,
    "recipe": models.Recipe,
    "measure": models.Measure,
    "vessel": models.Vessel,
    "school": models.SchoolCopy,
    "bottle": models.StockBottle,
    "feeding": models.Feeding,
    "override": models.HoldOverride,
    "own figures": models.ProfileCopy,
    "weight": models.Weight,
    "climate": models.Climate,
    "decision": models.Decision,
    "person": models.Person,
    "timer": models.Timer,
    "event": models.Event,
    "plant": models.Plant,
    "felt": models.Feel,
    "probe": models.Probe,
    "rule": models.StandingRule,
    "plan": models.FeedingPlanRow,
    "candidate": models.Candidate,
    "flush": models.Flush,
    "runoff": models.Runoff,
    "level": models.Level,
    "leaf": models.Leaf,
    "leaf length": models.LeafLengthRow,
    "mark": models.MarkRow,
    "photo": models.Photo,
    "rating": models.Rating,
    "series": models.Series,
    "trial": models.Trial,
    "case": models.IllCase,
    "ill check": models.CheckDone,
    "logger": models.Logger,
}


class Done(Model):
    """The row and whether it is archived now."""

    kind: Kind
    id: int
    archived: bool


class CorrectionIn(Model):
    """New values for a pour; what is left out stays as it was."""

    volume_L: TypedOrNone = None
    ec_uS_cm: TypedOrNone = None
    on: date | None = None
    note: str | None = None


def _row(session: Session, kind: str, row_id: int) -> Any:
    row = session.get(MODELS[kind], row_id)
    if row is None:
        raise NotFound(f"There is no {kind} {row_id}.")
    return row


def _after(session: Session, kind: str, row: Any) -> None:
    """Fold the pot again when its log changed."""
    session.flush()
    if kind == "flush":  # its passes come and go with it
        for passed in passes_ever(session, row.id):
            passed.archived_at = row.archived_at
        session.flush()
    if kind == "look":
        for brought in with_look(session, row):
            brought.archived_at = row.archived_at
        session.flush()
    if kind == "mark":
        recount_marks(session, row.look_id)
    if kind == "runoff" and row.pour is not None:
        refresh(session, row.pour.pot_id)
    elif kind in ("pour", "look", "flush", "runoff", "level", "feeding", "felt"):
        refresh(session, row.pot_id)
    if kind in ("reading", "report"):  # what was tested with it goes and comes with it
        for finding in findings_of(session, row):
            finding.archived_at = row.archived_at
    if kind in ("pot", "plant") and row.archived_at is None:  # back to life: what was written as its end is no more
        for plant in [row] if kind == "plant" else current_plants(session, row.id):
            plant.died_on, plant.death_cause = None, ""
    if kind == "plant":
        refresh(session, row.pot_id)
    if kind == "pot":
        touch(session, row.id)
    if kind in ("override", "weight", "decision", "event", "plant") and row.pot_id is not None:
        touch(session, row.pot_id)
    if kind == "event" and row.pot_id is not None and row.kind == DONE and ends_quarantine(row.errand_kind):
        pot, back = session.get_one(models.Pot, row.pot_id), row.archived_at is not None
        pot.isolated, pot.isolated_since = back, quarantine_since(row.errand_due_on) if back else None
    if kind in ("own figures", "climate", "school", "rule", "plan", "probe", "trial", *LEAVES) or (
        kind == "event" and row.place_id is not None
    ):
        touch_all(session)


def _set_archived(kind: Kind, row_id: int, archived: bool, writer: OneWrite) -> Done:
    def write(session: Session) -> dict[str, Any]:
        row = _row(session, kind, row_id)
        if kind == "plant" and archived and current_plants(session, row.pot_id) == [row]:
            raise InputError("This is the last plant of its pot. Archive the pot.")
        row.archived_at = now() if archived else None
        _after(session, kind, row)
        return {"kind": kind, "id": row_id, "archived": archived}

    return Done(**writer.once(None, write))


@router.post("/{kind}/{row_id}/archive")
def archive(kind: Kind, row_id: int, writer: OneWrite) -> Done:
    """Hide a row; it can be restored."""
    return _set_archived(kind, row_id, True, writer)


@router.post("/{kind}/{row_id}/restore")
def restore(kind: Kind, row_id: int, writer: OneWrite) -> Done:
    """Take an archive back."""
    return _set_archived(kind, row_id, False, writer)


@router.post("/pour/{row_id}/correct")
def correct_pour(row_id: int, body: CorrectionIn, writer: OneWrite, today: Today) -> Done:
    """Change a pour; what it said before is kept."""
    changes = {k: v for k, v in body.model_dump().items() if v is not None}
    if not changes:
        raise InputError("Nothing to correct. Change at least one value.")
    if body.volume_L is not None:
        require(body.volume_L, "Volume", "L", low=0, open_low=True, high=200, pointer="/volume_L")
    if body.ec_uS_cm is not None:
        require(body.ec_uS_cm, "EC", "µS/cm", low=0, high=20_000, pointer="/ec_uS_cm")
    if body.on is not None:
        require_not_future(body.on, today, "Date", pointer="/on")

    def write(session: Session) -> dict[str, Any]:
        row = _row(session, "pour", row_id)

        def plain(value: Any) -> Any:
            return value.isoformat() if isinstance(value, date) else value

        session.add(
            models.Correction(
                table_name="pour",
                row_id=row_id,
                at=now(),
                before={k: plain(getattr(row, k)) for k in changes},
                after={k: plain(v) for k, v in changes.items()},
            )
        )
        for key, value in changes.items():
            setattr(row, key, value)
        _after(session, "pour", row)
        return {"kind": "pour", "id": row_id, "archived": row.archived_at is not None}

    return Done(**writer.once(body, write))
