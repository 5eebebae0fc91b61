"""Water reports: typed or imported lines, and what they say."""

from __future__ import annotations

from datetime import date
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from fenwa.api.files import Imported, TextIn, csv_answer
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import TypedOrNone
from fenwa.api.water.entries import AmountIn, read_entry_amounts, row_source
from fenwa.api.water.shown import AmountOut
from fenwa.api.ways import Ways
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import Underspecified
from fenwa.core.water.quantities import QUANTITIES, MeasuredAmount, ions_of
from fenwa.core.water.report import ChargeBalance, ReportReview, charge_balance, water_report
from fenwa.core.working import Computed
from fenwa.formats.reports_csv import ReportRow, read_reports, write_reports
from fenwa.store import models
from fenwa.store.water_rows import findings_of, reports_on, reports_with_source
from fenwa.store.water_state import amounts_of_findings, finding_rows, report_ions

router = Ways(prefix="/api", tags=["reports"])


class QuantityOut(Model):
    """A quantity a form may offer, with its units, the canonical one first."""

    id: str
    label: str
    units: list[str]
    ion: bool


class ReportIn(Model):
    """A report's lines as typed; what is not in it stays empty."""

    on: date
    laboratory: str = ""
    reported_uS_cm: TypedOrNone = None
    lines: list[AmountIn]
    note: str = ""


class ReportOut(Model):
    """A stored report and what it says; ``review`` is null when it holds no ion."""

    id: int
    water_id: int
    water: str
    on: date
    laboratory: str
    reported_uS_cm: float | None
    lines: list[AmountOut]
    review: ReportReview | None


@router.get("/quantities")
def quantities() -> list[QuantityOut]:
    """What may be tested in a water, and in which units."""
    return [
        QuantityOut(id=q.id, label=q.label, units=list(q.units), ion=bool(q.ion_field)) for q in QUANTITIES.values()
    ]


def _store(
    session: Session,
    water_id: int,
    on: date,
    laboratory: str,
    reported: float | None,
    note: str,
    amounts: list[MeasuredAmount],
) -> models.Report:
    row = models.Report(water_id=water_id, on=on, laboratory=laboratory.strip(), reported_uS_cm=reported, note=note)
    session.add(row)
    session.flush()
    session.add_all(finding_rows(water_id, on, amounts, report_id=row.id))
    return row


@router.post("/waters/{water_id}/reports", status_code=201)
def add_report(water_id: int, body: ReportIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a report; its ions serve blends and cans unless it is more than 10 % out of balance."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if body.reported_uS_cm is not None:
        require(body.reported_uS_cm, "Reported EC", "µS/cm", low=0, high=200_000, pointer="/reported_uS_cm")

    def write(session: Session) -> dict[str, Any]:
        get_row(session, models.Water, water_id, "Water")
        amounts = read_entry_amounts(body.lines)
        if not amounts:
            raise Underspecified("The report is empty. Enter at least one line.", pointer="/lines")
        return {"id": _store(session, water_id, body.on, body.laboratory, body.reported_uS_cm, body.note, amounts).id}

    return Stored(**writer.once(body, write))


@router.post("/reports/preview")
def preview(body: ReportIn) -> Computed[ReportReview]:
    """What these lines say, nothing stored."""
    amounts = read_entry_amounts(body.lines)
    return water_report(ions=ions_of({a.quantity: a.span for a in amounts}), reported_uS_cm=body.reported_uS_cm)


def _out(session: Session, row: models.Report, water: str) -> ReportOut:
    ions = report_ions(session, row.id)
    any_ion = any(v for k, v in vars(ions).items() if k != "pH")
    return ReportOut(
        id=row.id,
        water_id=row.water_id,
        water=water,
        on=row.on,
        laboratory=row.laboratory,
        reported_uS_cm=row.reported_uS_cm,
        lines=[
            AmountOut(quantity=f.quantity, on=f.on, low=f.low, high=f.high, typed=f.typed, unit=f.unit)
            for f in findings_of(session, row)
        ],
        review=water_report(ions=ions, reported_uS_cm=row.reported_uS_cm).result if any_ion else None,
    )


@router.get("/reports")
def reports(session: ReadSession) -> list[ReportOut]:
    """All reports, newest first."""
    return [_out(session, r, name) for r, name in reversed(reports_with_source(session))]


@router.get("/reports/{report_id}/working")
def report_working(report_id: int, session: ReadSession) -> Computed[ReportReview]:
    """What a report says, with the working."""
    row = get_row(session, models.Report, report_id, "Report")
    return water_report(ions=report_ions(session, row.id), reported_uS_cm=row.reported_uS_cm)


@router.get("/reports/{report_id}/balance")
def balance_working(report_id: int, session: ReadSession) -> Computed[ChargeBalance]:
    """A report's charge balance, with the working."""
    return charge_balance(ions=report_ions(session, get_row(session, models.Report, report_id, "Report").id))


@router.post("/reports/import", status_code=201)
def import_reports(body: TextIn, writer: OneWrite, today: Today) -> Imported:
    """Reports from CSV: all or nothing. A report that is stored already is not stored twice."""

    def keep(session: Session, r: ReportRow) -> bool:
        water = row_source(session, r.water, r.line)
        for row in reports_on(session, water.id, r.on):
            lines = {(f.quantity, f.low, f.high) for f in findings_of(session, row)}
            if lines == {(a.quantity, a.span.low, a.span.high) for a in r.amounts}:
                return False
        _store(session, water.id, r.on, r.laboratory, r.reported_uS_cm, r.note, list(r.amounts))
        return True

    def write(session: Session) -> dict[str, Any]:
        stored = [keep(session, r) for r in read_reports(body.text, today)]
        return {"stored": sum(stored), "already_there": len(stored) - sum(stored)}

    return Imported(**writer.once(body, write))


@router.get("/reports.csv", response_class=Response)
def export_reports(session: ReadSession) -> Response:
    """All reports as CSV, the unit of each quantity in its column's header."""
    rows = [
        ReportRow(
            0,
            name,
            r.on,
            r.laboratory,
            r.reported_uS_cm,
            r.note,
            amounts_of_findings(findings_of(session, r)),
        )
        for r, name in reports_with_source(session)
    ]
    return csv_answer(write_reports(rows), "reports.csv")
