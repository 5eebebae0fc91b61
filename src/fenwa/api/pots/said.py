"""Pots from one line, as a grower says them: understood, shown, and kept by the usual way in."""

from __future__ import annotations

from fenwa.api.model import Model
from fenwa.api.transactions import ReadSession
from fenwa.api.ways import Ways
from fenwa.core.care.descent import first_code
from fenwa.core.care.said import SaidPots, said_pots
from fenwa.core.library.loader import profiles
from fenwa.core.working import Computed
from fenwa.store.pot_rows import kept_pots

router = Ways(prefix="/api", tags=["pots"])


class LineIn(Model):
    """A line as typed, and which of several kinds it means."""

    line: str
    kind: str = ""


class KindChoice(Model):
    """A kind it could also be."""

    id: str
    name: str


class SaidOut(Model):
    """What was understood, the first free code, and kinds it could be as well."""

    said: Computed[SaidPots]
    code: str
    choices: list[KindChoice]


@router.post("/pots/said")
def read_line(body: LineIn, session: ReadSession) -> SaidOut:
    """What a line says: count, kind, medium, size. Nothing is stored."""
    said = said_pots(line=body.line, kind=body.kind)
    r = said.result
    ids = [r.kind, *r.others] if r.others else []
    return SaidOut(
        said=said,
        code=first_code(r.stem, {p.code for p in kept_pots(session)}),
        choices=[KindChoice(id=i, name=profiles()[i].name) for i in ids],
    )
