"""The shelf: feeds by label or formula, what is left of them, measures of one's own, vessels, feeds without a ppm."""

from __future__ import annotations

from dataclasses import asdict, fields
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.edits import of_both
from fenwa.api.mix.shown import ProductOut, VesselOut, product_out, vessel_out
from fenwa.api.model import Model
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row, now
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.edits import same
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.mix.elements import Elements, label_to_elements
from fenwa.core.mix.grade import Grade, read_grade
from fenwa.core.mix.label import Basis, Chelate, Form, Kind, Label, Oxides, by_formula, check_label, label_from
from fenwa.core.mix.label_choices import ACIDITY_kg_t, AcidityUnit, Choices, Stated, need_choices
from fenwa.core.mix.spoon import MeasureKind
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.mix_rows import newest_feedings
from fenwa.store.mix_state import label_of, left_of, measures_of, open_products, vessels_of
from fenwa.store.summary import refresh

router = Ways(prefix="/api", tags=["shelf"])


class LabelIn(Model):
    """A label as typed, or the formula of a salt. Empty: not stated."""

    name: str
    kind: Kind = "soluble"
    form: Form = "powder"
    basis: Basis | None = None
    formula: str = ""
    density_g_mL: TypedOrNone = None
    n_total_pct: TypedOrNone = None
    n_nitrate_pct: TypedOrNone = None
    n_ammonium_pct: TypedOrNone = None
    n_urea_pct: TypedOrNone = None
    n_other_pct: TypedOrNone = None
    p_pct: TypedOrNone = None
    k_pct: TypedOrNone = None
    pk_as: Oxides | None = None
    others_as: Oxides | None = None
    co3_pct: TypedOrNone = None
    density_unknown: bool = False
    ca_pct: TypedOrNone = None
    mg_pct: TypedOrNone = None
    s_pct: TypedOrNone = None
    cl_pct: TypedOrNone = None
    na_pct: TypedOrNone = None
    fe_pct: TypedOrNone = None
    fe_chelate: Chelate = ""
    mn_pct: TypedOrNone = None
    zn_pct: TypedOrNone = None
    cu_pct: TypedOrNone = None
    b_pct: TypedOrNone = None
    mo_pct: TypedOrNone = None
    label_rate: TypedOrNone = None
    label_rate_unit: str | None = None
    solubility_g_L: TypedOrNone = None
    acidity_kg_t: TypedOrNone = None
    acidity_unit: AcidityUnit = "kg CaCO3/t"
    longevity_days: TypedOrNone = None
    longevity_at_C: TypedOrNone = None
    bulk_density_g_mL: TypedOrNone = None
    cap_mL: TypedOrNone = None
    drop_mL: TypedOrNone = None

    def label(self) -> Label:
        """The label, checked, with the shares of its formula."""
        if self.kind != "no ppm" and not self.formula.strip():
            need_choices(
                Stated(
                    self.form == "liquid",
                    self.density_g_mL is not None,
                    (self.p_pct, self.k_pct) != (None, None),
                    (self.ca_pct, self.mg_pct, self.s_pct) != (None, None, None),
                ),
                Choices(self.basis, self.pk_as, self.others_as, self.density_unknown),
            )
        label = self.as_stated()
        check_label(label)
        return label

    def as_stated(self) -> Label:
        """The label with the shares of its formula, unchecked."""
        known = {f.name for f in fields(Label)}
        stated = {k: v for k, v in self.model_dump().items() if k in known and v is not None}
        if self.acidity_kg_t is not None:
            stated["acidity_kg_t"] = self.acidity_kg_t * ACIDITY_kg_t[self.acidity_unit]
        return by_formula(Label(**stated), pointer="")


class PackIn(Model):
    """What stands on the shelf. Empty: not known. [currency; g or mL]"""

    price: TypedOrNone = None
    pack_amount: TypedOrNone = None
    opened_on: date | None = None
    left_amount: TypedOrNone = None


class ProductIn(LabelIn, PackIn):
    """A feed and its pack."""


class ProductChange(ProductIn):
    """A feed as it is to be; ``seen``: as it was when the form was opened."""

    seen: ProductIn | None = None


class PackOut(Model):
    """The pack of a feed and what is left of it by the cans made since. [currency; g or mL]"""

    product_id: int
    unit: str
    price: float | None
    pack_amount: float | None
    opened_on: date | None
    left_amount: float | None
    left_on: date | None
    left_now: float | None


class MeasureOut(Model):
    """A measure of the grower's own. [g or mL]"""

    id: int
    name: str
    kind: MeasureKind
    product_id: int | None
    product: str
    on: date
    each: float
    unit: str
    cv: float
    mean_error_pct: float


class ShelfPage(Model):
    """Feeds with their packs, measures and vessels."""

    today: date
    products: list[ProductOut]
    packs: list[PackOut]
    measures: list[MeasureOut]
    vessels: list[VesselOut]


@router.get("/shelf")
def shelf(session: ReadSession, today: Today) -> ShelfPage:
    """Everything on the shelf."""
    rows = open_products(session)
    names = {p.id: p.name for p in rows}
    return ShelfPage(
        today=today,
        products=[product_out(p) for p in rows],
        packs=[
            PackOut(
                product_id=p.id,
                unit="mL" if label_of(p).form == "liquid" else "g",
                price=p.price,
                pack_amount=p.pack_amount,
                opened_on=p.opened_on,
                left_amount=p.left_amount,
                left_on=p.left_on,
                left_now=left_of(session, p),
            )
            for p in rows
        ],
        measures=[
            MeasureOut(
                id=m.id,
                name=m.name,
                kind=m.kind,
                product_id=m.product_id,
                product=names.get(m.product_id or 0, ""),
                on=m.on,
                each=m.each,
                unit=m.unit,
                cv=m.cv,
                mean_error_pct=m.mean_error_pct,
            )
            for m in measures_of(session)
        ],
        vessels=[vessel_out(v) for v in vessels_of(session)],
    )


class GradeIn(Model):
    """A grade as typed."""

    text: str


@router.post("/products/grade")
def grade(body: GradeIn) -> Computed[Grade]:
    """Read a grade, to be confirmed; nothing is stored."""
    return read_grade(text=body.text)


@router.post("/products/elements")
def elements(body: LabelIn) -> Computed[Elements]:
    """What a label comes to while it is typed; nothing is stored."""
    return label_to_elements(label=body.label())


def _check_pack(body: PackIn, today: date) -> None:
    if body.price is not None:
        require(body.price, "Price", "", low=0, high=1_000_000, pointer="/price")
    if body.pack_amount is not None:
        require(body.pack_amount, "Pack", "", low=0, open_low=True, high=1_000_000, pointer="/pack_amount")
    if body.left_amount is not None:
        require(body.left_amount, "Left", "", low=0, high=1_000_000, pointer="/left_amount")
    if body.opened_on is not None:
        require_not_future(body.opened_on, today, "Opened on", pointer="/opened_on")


def _fill(row: models.Product, label: Label, body: PackIn, today: date) -> None:
    row.name, row.label, row.owned = label.name.strip(), asdict(label), True
    row.price, row.pack_amount, row.opened_on = body.price, body.pack_amount, body.opened_on
    if body.left_amount != row.left_amount or row.left_on is None:
        row.left_amount, row.left_on = body.left_amount, today if body.left_amount is not None else None


def _merge(row: models.Product, label: Label, body: PackIn, seen: ProductIn, today: date) -> None:
    """Fill in what was changed here; what was changed elsewhere since the form was opened stays."""
    pack = ("price", "pack_amount", "opened_on")
    stands = asdict(label_from(row.label)) | {name: getattr(row, name) for name in pack}
    opened = asdict(seen.as_stated()) | {name: getattr(seen, name) for name in pack}
    new = of_both(opened, stands, asdict(label) | {name: getattr(body, name) for name in pack})
    merged = Label(**{f.name: new[f.name] for f in fields(Label)})
    check_label(merged)
    left = body.left_amount if not same(body.left_amount, seen.left_amount) else row.left_amount
    _fill(row, merged, PackIn(left_amount=left, **{name: new[name] for name in pack}), today)


@router.post("/products", status_code=201)
def add_product(body: ProductIn, writer: OneWrite, today: Today) -> Stored:
    """Put a feed on the shelf by its label or formula."""
    label = body.label()
    _check_pack(body, today)

    def write(session: Session) -> dict[str, Any]:
        row = models.Product(name=label.name, label={})
        _fill(row, label, body, today)
        session.add(row)
        session.flush()
        return {"id": row.id}

    return Stored(**writer.once(body, write))


@router.post("/products/{product_id}/correct")
def correct_product(product_id: int, body: ProductChange, writer: OneWrite, today: Today) -> Stored:
    """Change a feed's label or pack; cans made before keep the label they used."""
    label = body.label()
    _check_pack(body, today)

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Product, product_id, "Feed")
        before = {"name": row.name, "label": row.label, "price": row.price, "left_amount": row.left_amount}
        if body.seen is None:
            _fill(row, label, body, today)
        else:
            _merge(row, label, body, body.seen, today)
        after = {"name": row.name, "label": row.label, "price": row.price, "left_amount": row.left_amount}
        session.add(models.Correction(table_name="product", row_id=row.id, at=now(), before=before, after=after))
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class OwnedIn(Model):
    """Whether a feed stands on the shelf."""

    owned: bool


@router.post("/products/{product_id}/owned")
def set_owned(product_id: int, body: OwnedIn, writer: OneWrite) -> Stored:
    """Say that a feed is on the shelf, or no longer: the round weighs only what is there."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Product, product_id, "Feed")
        row.owned = body.owned
        return {"id": row.id}

    return Stored(**writer.once(body, write))


class FeedingIn(Model):
    """Prey, castings or prills given to pots; no strength is asked for."""

    pot_ids: list[int]
    product_id: int
    on: date
    amount: TypedOrNone = None
    unit: str = "items"
    note: str = ""


@router.post("/feedings", status_code=201)
def add_feeding(body: FeedingIn, writer: OneWrite, today: Today) -> Stored:
    """Record a feed that has no ppm, at each pot named."""
    require_not_future(body.on, today, "Date", pointer="/on")
    if not body.pot_ids:
        raise Underspecified("No pot is chosen. Choose at least one.", pointer="/pot_ids")
    if body.amount is not None:
        require(body.amount, "Amount", body.unit, low=0, open_low=True, high=10_000, pointer="/amount")

    def write(session: Session) -> dict[str, Any]:
        product = get_row(session, models.Product, body.product_id, "Feed", "/product_id")
        if label_of(product).kind == "soluble":
            raise InputError(
                f"{product.name} is dissolved in a can: mix it and pour it. Only prey, castings and prills are "
                "recorded without a strength.",
                pointer="/product_id",
            )
        row, product.owned = None, True
        for pot_id in dict.fromkeys(body.pot_ids):
            get_row(session, models.Pot, pot_id, "Pot", "/pot_ids")
            row = models.Feeding(
                pot_id=pot_id, product_id=product.id, on=body.on, amount=body.amount, unit=body.unit, note=body.note
            )
            session.add(row)
            refresh(session, pot_id)  # prills give salt
        session.flush()
        return {"id": row.id if row is not None else 0}

    return Stored(**writer.once(body, write))


class FeedingOut(Model):
    """A feed without a ppm as it was given."""

    id: int
    pot_id: int
    product: str
    on: date
    amount: float | None
    unit: str
    note: str


@router.get("/feedings")
def list_feedings(session: ReadSession, pot_id: int | None = None) -> list[FeedingOut]:
    """What was given without a ppm, newest first; of one pot if named."""
    return [
        FeedingOut(id=f.id, pot_id=f.pot_id, product=name, on=f.on, amount=f.amount, unit=f.unit, note=f.note)
        for f, name in newest_feedings(session, pot_id)
    ]
