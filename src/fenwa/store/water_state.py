"""Waters as the core sees them today: newest reading, newest tests, report, treatments in force."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import lru_cache
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import Span
from fenwa.core.once import once
from fenwa.core.water.choice import Offered
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.kinds import BaseWater
from fenwa.core.water.knowledge import Measured, TreatmentStep, ions_to_mix, known_of, newest_tests, treatments_in_force
from fenwa.core.water.membrane import DEFAULT_FLOOR_PCT, rejection_pct
from fenwa.core.water.meters import CheckPoint, MeterCalibration, MeterTraits, meter_calibration
from fenwa.core.water.quantities import MeasuredAmount, ions_of
from fenwa.core.water.remedy import Candidate
from fenwa.core.water.usual import BY_UNKNOWN_SCALE, UsualWater, usual_water
from fenwa.core.water.verdict import WaterVerdict, unmeasured_verdict, water_verdict
from fenwa.core.working import Computed
from fenwa.store.memory import remembered
from fenwa.store.models import Batch, Finding, Meter, MeterCheck, Pour, Reading, Report, Treatment, Water
from fenwa.store.water_rows import membrane_pairs, waters_with_membrane


@dataclass(frozen=True)
class MembraneToday:
    """A membrane's newest pair, and whether it is under its floor. [µS/cm]"""

    on: date
    permeate_uS_cm: float
    failing: bool


@lru_cache(maxsize=8192)
def _judged(
    ec25_uS_cm: float, half_width_uS_cm: float, known: tuple[object, ...], needs: PlantNeeds
) -> Computed[WaterVerdict]:
    """The verdict on a water: forty waters for fourteen kinds are judged once, not at every page."""
    *plain, half_widths = known
    water = KnownOfWater(*plain, dict(half_widths))  # type: ignore[call-arg, arg-type, call-overload]
    return water_verdict(ec25_uS_cm=ec25_uS_cm, half_width_uS_cm=half_width_uS_cm, water=water, plant=needs)


@dataclass(frozen=True)
class WaterToday:
    """A water, its newest usable reading and what is known of it beside the conductivity."""

    water: Water
    reading: Reading | None
    newest: Reading | None
    known: KnownOfWater
    ions: WaterIons | None
    tests: dict[str, Measured]
    steps: tuple[TreatmentStep, ...]
    report: Report | None
    membrane: MembraneToday | None = None
    used_L: float = 0.0

    @property
    def ec25_uS_cm(self) -> float | None:
        """Newest conductivity at 25 °C that could be computed; a membrane's newer pair stands before a reading."""
        if self._by_pair and self.membrane is not None:
            return self.membrane.permeate_uS_cm
        return self.reading.ec25_uS_cm if self.reading else None

    @property
    def _by_pair(self) -> bool:
        return self.membrane is not None and (self.reading is None or self.membrane.on > self.reading.on)

    @property
    def left_L(self) -> float | None:
        """Litres on hand: what was seen, less what was poured and mixed since; None: nobody entered it. [L]"""
        return None if self.water.on_hand_L is None else max(0.0, self.water.on_hand_L - self.used_L)

    @property
    def half_width_uS_cm(self) -> float:
        """What the meter left open in that reading."""
        if self._by_pair:
            return 0.0
        return (self.reading.half_width_uS_cm or 0.0) if self.reading else 0.0

    @property
    def measured(self) -> bool:
        """Whether its conductivity was read, on a scale that is known."""
        return self.ec25_uS_cm is not None

    @once
    def usual(self) -> Computed[UsualWater]:
        """What it usually reads, by what is known of it."""
        newest = self.newest
        shown = newest.value if newest and newest.unit == "ppm" and newest.ec25_uS_cm is None else None
        return usual_water(
            kind=self.known.kind,
            hardness_mg_L_CaCO3=self.known.hardness_mg_L_CaCO3,
            report=self.ions,
            ppm_of_unknown_scale=shown,
        )

    @property
    def reckoned_uS_cm(self) -> float:
        """What is reckoned with: measured, else the usual."""
        return self.usual.result.usual_uS_cm if self.ec25_uS_cm is None else self.ec25_uS_cm

    @property
    def span_uS_cm(self) -> tuple[float, float]:
        """What it may read: the reading with what the meter left open, else the usual range."""
        if self.ec25_uS_cm is None:
            return self.usual.result.low_uS_cm, self.usual.result.high_uS_cm
        return max(0.0, self.ec25_uS_cm - self.half_width_uS_cm), self.ec25_uS_cm + self.half_width_uS_cm

    def base(self) -> BaseWater:
        """The water to mix with; where nobody measured it, at its usual reading with what that leaves open."""
        if self.ec25_uS_cm is not None:
            return BaseWater(self.ec25_uS_cm, self.known.kind, self.ions, self.water.name)
        u = self.usual.result
        half = max(u.high_uS_cm - u.usual_uS_cm, u.usual_uS_cm - u.low_uS_cm)
        return BaseWater(u.usual_uS_cm, self.known.kind, self.ions, self.water.name, half, False)

    @once
    def _known_by_value(self) -> tuple[object, ...]:
        """The fields of what is known, in their order; the last, half-widths by name, as pairs."""
        *plain, half_widths = vars(self.known).values()
        return (*plain, tuple(half_widths.items()))

    def offered(self, needs: PlantNeeds) -> Offered:
        """The water as a choice weighs it for a plant."""
        low, high = self.span_uS_cm
        return Offered(
            id=self.water.id,
            name=self.water.name,
            low_uS_cm=low,
            usual_uS_cm=self.reckoned_uS_cm,
            high_uS_cm=high,
            measured=self.measured,
            verdict=self.verdict(needs).result,
            price_per_L=self.water.price_per_L,
            preference=self.water.preference,
            runs=water_kinds()[self.known.kind].runs,
            fell=water_kinds()[self.known.kind].falls,
            failing=self.membrane is not None and self.membrane.failing,
        )

    def verdict(self, needs: PlantNeeds) -> Computed[WaterVerdict]:
        """What it is for what a plant needs; what nobody measured is not measured, never unfit."""
        if self.ec25_uS_cm is None:
            by_reading = self.usual.result.by == BY_UNKNOWN_SCALE
            return unmeasured_verdict(self.usual.result, self.known, needs, by_reading)
        return _judged(self.ec25_uS_cm, self.half_width_uS_cm, self._known_by_value, needs)

    def candidate(self) -> Candidate | None:
        """The water as a remedy weighs it; None while no reading is usable."""
        if self.ec25_uS_cm is None:
            return None
        return Candidate(self.water.name, self.ec25_uS_cm, self.known, self.half_width_uS_cm, self.water.price_per_L)


def waters_today(session: Session, today: date, only: set[int] | None = None) -> list[WaterToday]:
    """Waters in the grower's order, each with its newest reading up to today; all, or only those named."""
    found = [w for w in waters_as_found(session, today, only) if only is None or w.water.id in only]
    seen = tuple((w.water.id, w.water.on_hand_L, w.water.on_hand_on) for w in found if w.water.on_hand_L is not None)
    if not seen:
        return found
    rows = {w.water.id: w.water for w in found}
    used = remembered(
        session, "litres used", (today, seen), lambda s: {i: _used_L(s, rows[i], today) for i, _, _ in seen}
    )
    return [replace(w, used_L=used[w.water.id]) if used.get(w.water.id) else w for w in found]


def waters_as_found(session: Session, today: date, only: set[int] | None = None) -> Sequence[WaterToday]:
    """Waters in the grower's order without what pours took of them since: nothing of it rests on pours.

    ``only``: those a write asks for; readers keep all of them.
    """
    asked = only if session.info.get("store") is None else None
    return remembered(session, "waters", today, lambda s: _load_waters(s, today, asked), also_writing=True)


def _load_waters(session: Session, today: date, only: set[int] | None) -> list[WaterToday]:
    kept = select(Water).where(Water.archived_at.is_(None)).order_by(Water.preference, Water.id)
    waters = session.scalars(kept if only is None else kept.where(Water.id.in_(only))).all()
    with_membrane = waters_with_membrane(session)
    tests, steps, reports = _newest_findings(session, today), _steps(session, today), _newest_reports(session, today)

    def newest(water_id: int, *conditions: Any) -> Reading | None:
        # a few waters, many readings: the index answers each in one step, a window over all would not
        return session.scalars(
            select(Reading)
            .where(
                Reading.water_id == water_id,
                Reading.on <= today,
                Reading.archived_at.is_(None),
                Reading.value.is_not(None),
                *conditions,
            )
            .order_by(Reading.on.desc(), Reading.id.desc())
            .limit(1)
        ).first()

    out = []
    for w in waters:
        last = newest(w.id)
        usable = last if last is None or last.ec25_uS_cm is not None else newest(w.id, Reading.ec25_uS_cm.is_not(None))
        force = treatments_in_force(steps.get(w.id, []), today, w.collected_on)
        mine = newest_tests(tests.get(w.id, []), force)
        report, ions = reports.get(w.id, (None, WaterIons(**w.ions) if w.ions else None))
        known = known_of(w.kind, w.disinfectant, _stated(w), mine, force)  # type: ignore[arg-type]
        out.append(
            WaterToday(
                w,
                usable,
                last,
                known,
                ions_to_mix(ions),
                mine,
                force,
                report,
                _membrane(session, w, today) if w.id in with_membrane else None,
            )
        )
    return out


def _membrane(session: Session, w: Water, today: date) -> MembraneToday | None:
    rows = membrane_pairs(session, w.id, today)
    if not rows:
        return None
    floor = w.membrane_floor_pct if w.membrane_floor_pct is not None else DEFAULT_FLOOR_PCT
    pair = rows[-1]
    kept = rejection_pct(pair.feed_uS_cm, pair.permeate_uS_cm)
    return MembraneToday(pair.on, pair.permeate_uS_cm, kept < floor)


def left_L(session: Session, w: Water, today: date) -> float | None:
    """Litres of a water that are left, as a form shows them; None: never entered. [L]"""
    return None if w.on_hand_L is None else round(max(0.0, w.on_hand_L - _used_L(session, w, today)), 3)


def enter_litres(session: Session, w: Water, litres: float | None, today: date) -> None:
    """Keep the litres there are now; what was poured earlier today is not taken off them again. [L]"""
    if litres == left_L(session, w, today):
        return
    w.on_hand_L, w.on_hand_on = litres, None if litres is None else today
    if litres is not None:
        w.on_hand_L = litres + _used_L(session, w, today)


def _used_L(session: Session, w: Water, today: date) -> float:
    """What pours and cans took of a water since its litres were last entered. [L]"""
    if w.on_hand_L is None or w.on_hand_on is None:
        return 0.0
    since = w.on_hand_on
    poured = select(func.coalesce(func.sum(Pour.volume_L), 0.0)).where(
        Pour.water_id == w.id,
        Pour.batch_id.is_(None),
        Pour.archived_at.is_(None),
        Pour.on >= since,
        Pour.on <= today,
    )
    cans = session.execute(
        select(Batch.water_id, Batch.volume_L, Batch.waters).where(
            Batch.archived_at.is_(None), Batch.made_on >= since, Batch.made_on <= today
        )
    )
    mixed = sum(b.volume_L * _share(b.water_id, b.waters, w.id) for b in cans)
    return float(session.scalar(poured) or 0.0) + float(mixed)


def _share(first: int, waters: list[dict[str, Any]], of: int) -> float:
    """Part of a can that is one water: of a blend its share, else all of it or none."""
    whole = float(sum(part["share"] for part in waters))
    if whole > 0:
        return float(sum(part["share"] for part in waters if part["water_id"] == of)) / whole
    return 1.0 if first == of else 0.0


def _stated(w: Water) -> dict[str, float | None]:
    """What was typed with the source, by field of ``KnownOfWater``."""
    return {
        "free_chlorine_mg_L": w.free_chlorine_mg_L,
        "sodium_mg_L": w.sodium_mg_L,
        "fluoride_mg_L": w.fluoride_mg_L,
        "hardness_mg_L_CaCO3": w.hardness_mg_L_CaCO3,
        "alkalinity_mg_L_CaCO3": w.alkalinity_mg_L_CaCO3,
    }


def _newest_findings(session: Session, today: date) -> dict[int, list[Measured]]:
    rank = func.row_number().over(
        partition_by=(Finding.water_id, Finding.quantity), order_by=(Finding.on.desc(), Finding.id.desc())
    )
    ranked = (
        select(Finding.water_id, Finding.on, Finding.quantity, Finding.low, Finding.high, rank.label("place"))
        .where(Finding.archived_at.is_(None), Finding.on <= today)
        .subquery()
    )
    out: dict[int, list[Measured]] = {}
    for row in session.execute(select(ranked).where(ranked.c.place == 1)):
        out.setdefault(row.water_id, []).append(Measured(row.on, row.quantity, Span(row.low, row.high)))
    return out


def _steps(session: Session, today: date) -> dict[int, list[TreatmentStep]]:
    out: dict[int, list[TreatmentStep]] = {}
    for t in session.scalars(select(Treatment).where(Treatment.archived_at.is_(None), Treatment.on <= today)):
        out.setdefault(t.water_id, []).append(TreatmentStep(t.on, t.kind))  # type: ignore[arg-type]
    return out


def _newest_reports(session: Session, today: date) -> dict[int, tuple[Report, WaterIons]]:
    """Each water's newest report whose ions may be built on; a later one of a few lines does not hide it."""
    reports = session.scalars(
        select(Report)
        .where(Report.archived_at.is_(None), Report.on <= today)
        .order_by(Report.on.desc(), Report.id.desc())
    ).all()
    found: dict[int, tuple[Report, WaterIons]] = {}
    for r in reports:
        known = found.get(r.water_id)
        if known is None or ions_to_mix(known[1]) is None:
            ions = report_ions(session, r.id)
            if known is None or ions_to_mix(ions) is not None:
                found[r.water_id] = (r, ions)
    return found


def report_ions(session: Session, report_id: int) -> WaterIons:
    """A stored report's lines as ions."""
    rows = session.scalars(select(Finding).where(Finding.report_id == report_id, Finding.archived_at.is_(None)))
    return ions_of({f.quantity: Span(f.low, f.high) for f in rows})


def traits_of(meter: Meter) -> MeterTraits:
    """What the core needs of a meter."""
    return MeterTraits(meter.compensation, meter.alpha_per_C, meter.resolution_uS_cm, meter.check_days)  # type: ignore[arg-type]


def checks_of(session: Session, meter_id: int, until: date) -> Sequence[MeterCheck]:
    """A meter's checks up to a day, oldest first."""
    return session.scalars(
        select(MeterCheck)
        .where(MeterCheck.meter_id == meter_id, MeterCheck.archived_at.is_(None), MeterCheck.on <= until)
        .order_by(MeterCheck.on, MeterCheck.id)
    ).all()


def calibration_of(session: Session, meter: Meter, day: date) -> Computed[MeterCalibration] | None:
    """What a meter's checks say on a day; None before its first check."""
    points = [
        CheckPoint(c.on, c.standard_uS_cm, c.shown_uS_cm, c.temperature_C, c.adjusted)
        for c in checks_of(session, meter.id, day)
    ]
    return meter_calibration(points=points, today=day, traits=traits_of(meter)) if points else None


def amounts_of_findings(rows: Sequence[Finding]) -> tuple[MeasuredAmount, ...]:
    """Stored lines as they were tested."""
    return tuple(MeasuredAmount(f.quantity, Span(f.low, f.high), f.typed, f.unit) for f in rows)


def finding_rows(water_id: int, on: date, amounts: list[MeasuredAmount], **source: int) -> list[Finding]:
    """Rows for tested quantities of a reading or a report."""
    return [
        Finding(
            water_id=water_id,
            on=on,
            quantity=a.quantity,
            low=a.span.low,
            high=a.span.high,
            typed=a.typed,
            unit=a.unit,
            **source,
        )
        for a in amounts
    ]
