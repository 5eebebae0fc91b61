"""Days a pot's fold goes on from, kept true by the database itself.

A write of any kind (a form, an import, a correction, an Undo) that touches what was folded up to a day takes that day
away, by a trigger: whoever folds next goes on from the newest day that is left. Nobody has to remember to say so.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import Engine, Text, bindparam, delete, func, insert, select, tuple_
from sqlalchemy.orm import Session

from fenwa.core.care.log import PoursSoFar
from fenwa.core.pot.folded import CHUNK, Standing, worth_keeping
from fenwa.store.models import PotStanding
from fenwa.store.questions import among, columns, listed

_STANDING = TypeAdapter(Standing)
_POURS = TypeAdapter(PoursSoFar)
_GONE = 'DELETE FROM pot_standing WHERE pot_id IN ({pots}) AND "on" >= {since};'
_OF_POUR = "(SELECT {what} FROM pour WHERE id = {row}.pour_id)"


def _trigger(table: str, when: str, body: str, condition: str = "") -> tuple[str, str]:
    name = f"standing_{table}_{when.split()[0].lower()}"
    return name, f"CREATE TRIGGER {name} AFTER {when} ON {table} {condition} BEGIN {body} END"


def _dated(table: str) -> list[tuple[str, str]]:
    """Rows with a pot and a day of their own."""
    return [
        _trigger(table, "INSERT", _GONE.format(pots="NEW.pot_id", since='NEW."on"')),
        _trigger(table, "DELETE", _GONE.format(pots="OLD.pot_id", since='OLD."on"')),
        _trigger(table, "UPDATE", _GONE.format(pots="OLD.pot_id, NEW.pot_id", since='min(OLD."on", NEW."on")')),
    ]


def _runoffs() -> list[tuple[str, str]]:
    """A reading of a pour has its pot and its day there; one between pours has its own."""

    def gone(row: str) -> str:
        pot, on = (_OF_POUR.format(what=what, row=row) for what in ("pot_id", '"on"'))
        return _GONE.format(pots=f"coalesce({row}.pot_id, {pot})", since=f'coalesce({row}."on", {on})')

    return [
        _trigger("runoff", "INSERT", gone("NEW")),
        _trigger("runoff", "DELETE", gone("OLD")),
        _trigger("runoff", "UPDATE", gone("OLD") + " " + gone("NEW")),
    ]


_CAN = "dose_g_L, also, predicted_uS_cm, water_id, water_ec_uS_cm, recipe_version_id"
TRIGGERS: Mapping[str, str] = dict(
    [
        *_dated("pour"),
        *_dated("look"),
        *_dated("feel"),
        *_runoffs(),
        # broken off, it counts as water; come to its end, as a flush
        _trigger("flush", "UPDATE OF ended_as, archived_at", _GONE.format(pots="NEW.pot_id", since='NEW."on"')),
        _trigger(
            "batch",
            f"UPDATE OF {_CAN}",
            _GONE.format(pots="SELECT pot_id FROM pour WHERE batch_id = NEW.id", since="min(OLD.made_on, NEW.made_on)"),
        ),
        # what of a pour's salt is ballast follows from its water
        _trigger(
            "water",
            "UPDATE OF kind, ions",
            "DELETE FROM pot_standing;",
            "WHEN OLD.kind IS NOT NEW.kind OR OLD.ions IS NOT NEW.ions",
        ),
    ]
)


def set_triggers(engine: Engine) -> None:
    """Give the database the triggers of this version, whatever an earlier one or a migration left."""
    with engine.begin() as connection:
        ours = "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND name LIKE 'standing%'"
        found = {row.name: row.sql for row in connection.exec_driver_sql(ours)}
        if found == TRIGGERS:
            return
        for name in found:
            connection.exec_driver_sql(f"DROP TRIGGER {name}")
        for text in TRIGGERS.values():
            connection.exec_driver_sql(text)
        connection.exec_driver_sql("DELETE FROM pot_standing")  # nobody watched over them until now


_DAYS = select(PotStanding.pot_id, PotStanding.on, PotStanding.figures).where(PotStanding.pot_id.in_(among()))
_ASKED = func.json_each(bindparam("days", type_=Text)).table_valued("value")
_OF_DAYS = select(PotStanding.pot_id, PotStanding.data).join(
    _ASKED,
    (PotStanding.pot_id == func.json_extract(_ASKED.c.value, "$[0]"))
    & (PotStanding.on == func.json_extract(_ASKED.c.value, "$[1]")),
)


def standings_of(session: Session, figures: Mapping[int, str]) -> dict[int, tuple[Standing, PoursSoFar]]:
    """The newest day each pot can go on from by the figures it is folded by now; days of others are taken away."""
    days: dict[int, date] = {}
    other: list[tuple[int, date]] = []
    for pot_id, on, by in columns(session, _DAYS, ids=listed(figures)):
        if by != figures[pot_id]:
            other.append((pot_id, on))
        elif pot_id not in days or on > days[pot_id]:
            days[pot_id] = on
    if other:
        session.execute(delete(PotStanding).where(tuple_(PotStanding.pot_id, PotStanding.on).in_(other)))
    asked = listed([pot_id, on.isoformat()] for pot_id, on in days.items())
    found = columns(session, _OF_DAYS, days=asked) if days else ()
    return {
        pot_id: (_STANDING.validate_python(data["fold"]), _POURS.validate_python(data["pours"]))
        for pot_id, data in found
    }


def keep_standings(
    session: Session, kept: Iterable[tuple[int, str, Standing, PoursSoFar]], steps: Mapping[int, int]
) -> None:
    """Keep days to go on from, and of each pot no more than are worth it after so many steps."""
    rows: list[dict[str, Any]] = [
        {
            "pot_id": pot_id,
            "on": s.on,
            "steps": s.steps,
            "figures": figures,
            "data": {
                "fold": _STANDING.dump_python(s, mode="json"),
                "pours": _POURS.dump_python(pours, mode="json"),
            },
        }
        for pot_id, figures, s, pours in kept
    ]
    if not rows:
        return
    session.execute(insert(PotStanding), rows)
    written = {row["pot_id"] for row in rows}
    there = select(PotStanding.pot_id, PotStanding.on, PotStanding.steps).where(PotStanding.pot_id.in_(written))
    spare: Sequence[tuple[int, date]] = [
        (pot_id, on)
        for pot_id, on, at in session.execute(there)
        if not worth_keeping(at // CHUNK, steps[pot_id] // CHUNK)
    ]
    if spare:
        session.execute(delete(PotStanding).where(tuple_(PotStanding.pot_id, PotStanding.on).in_(spare)))


def clear_standings(session: Session) -> None:
    """No pot goes on from any day: each is folded whole the next time."""
    session.execute(delete(PotStanding))
