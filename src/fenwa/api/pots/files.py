"""The collection as a file, and the code on a pot's label."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from fastapi import Request, Response
from pydantic import Field, ValidationError
from sqlalchemy.orm import Session

from fenwa.api.files import csv_answer
from fenwa.api.house.entrance import door_of, qr_svg
from fenwa.api.model import Model
from fenwa.api.pots.entered import PotChange, PotIn, change_pots, store_pot
from fenwa.api.problems import sentence
from fenwa.api.transactions import OneWrite, ReadSession, Today, get_row
from fenwa.api.ways import Ways
from fenwa.core.errors import DomainError
from fenwa.formats.pots_csv import PotRow, column_of, medium_cell, plants_cell, read_pots, write_pots
from fenwa.formats.table import because, refuse
from fenwa.store import models
from fenwa.store.collection import pots_today
from fenwa.store.pot_rows import kept_pots

router = Ways(prefix="/api", tags=["collection"])


@router.get("/pots.csv", response_class=Response)
def export_pots(session: ReadSession, today: Today) -> Response:
    """Every pot kept, one row each, in walking order."""
    rows = []
    for p in pots_today(session, today):
        pot = p.pot
        rows.append(
            [
                pot.code,
                pot.name,
                plants_cell([(x.profile_id, x.label, x.count) for x in p.plants]),
                p.place,
                pot.spot,
                medium_cell(pot.medium_id, pot.medium_parts),
                _yes_no(pot.medium_charged),
                _yes_no(pot.medium_limed),
                pot.volume_L,
                pot.top_cm,
                pot.height_cm,
                pot.drainage,
                pot.route,
                pot.interval_days,
                pot.interval_by,
                pot.school_id,
                p.found.phase,
                p.plant.arrived_on.isoformat() if p.plant.arrived_on else "",
                "yes" if pot.isolated else "no",
                "; ".join(pot.tags or []),
            ]
        )
    return csv_answer(write_pots(rows), "pots.csv")


def _yes_no(value: bool | None) -> str | None:
    return None if value is None else "yes" if value else "no"


class PotsFile(Model):
    """A file of pots. ``known``: whether rows of codes already kept are refused, or change those pots."""

    text: str = Field(max_length=900_000)
    known: Literal["refuse", "change"] = "refuse"


class PotsTaken(Model):
    """What a file brought."""

    added: int
    changed: int


@router.post("/pots/import")
def import_pots(body: PotsFile, writer: OneWrite, today: Today) -> PotsTaken:
    """Take pots from a file: all of it, or nothing, with the row and the reason."""
    rows = read_pots(body.text, today)

    def write(session: Session) -> dict[str, Any]:
        kept = {p.code: p.id for p in kept_pots(session)}
        if body.known == "refuse":
            for row in rows:
                if row.fields["code"] in kept:
                    raise refuse(
                        row.line,
                        "code",
                        f"{row.fields['code']} is kept already. Take the row out, or let the "
                        "file change the pots it names.",
                    )
        for row in rows:
            _take(session, row, kept.get(row.fields["code"]), today)
        changed = sum(r.fields["code"] in kept for r in rows)
        return {"added": len(rows) - changed, "changed": changed}

    return PotsTaken(**writer.once(body, write))


def _take(session: Session, row: PotRow, pot_id: int | None, today: date) -> None:
    """Store a row: a new pot, or the changes it names for a kept one. Plants and phase of a kept pot stay."""
    fields = {"medium_id": "bark_mix", "interval_days": 7, **row.fields} if pot_id is None else dict(row.fields)
    try:
        if pot_id is None:
            store_pot(session, PotIn(**fields), today)
            return
        tags = fields.pop("tags", None)
        known = {k: v for k, v in fields.items() if k in PotChange.model_fields and k != "code"}
        if not known.get("medium_parts"):
            known.pop("medium_parts", None)
        if tags is not None:
            known |= {
                "add_tags": tags,
                "remove_tags": [t for t in session.get_one(models.Pot, pot_id).tags or [] if t not in tags],
            }
        change_pots(session, PotChange(pot_ids=[pot_id], **known), today)
    except ValidationError as error:
        first = sentence(dict(error.errors()[0]))
        raise refuse(row.line, column_of(first.pointer), first.detail) from error
    except DomainError as error:
        raise because(row.line, column_of(error.pointer or ""), error) from error


@router.get("/pots/{pot_id}/qr.svg", response_class=Response)
def pot_qr(pot_id: int, request: Request, session: ReadSession) -> Response:
    """The pot's page as a QR code: under this house's address where there is one."""
    get_row(session, models.Pot, pot_id, "Pot", "/pot_id")
    door = door_of(request)
    base = door.addresses[0] if door and door.addresses else str(request.base_url)
    return qr_svg(f"{base}pots/{pot_id}")
