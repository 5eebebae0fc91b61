"""Tables of the Mix station: feeds, recipes and their versions, cans, measures, vessels, schools, stock bottles."""

from __future__ import annotations

from datetime import date
from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from fenwa.core.mix.can import ec_of_can
from fenwa.store.base import Archivable, Base


class Product(Archivable, Base):
    """A fertilizer as its label states it (fields of ``core.mix.label.Label``), and what stands on the shelf of it.

    ``owned``: it stands on the grower's shelf; else it is a label to mix with once it is bought.
    ``left_amount`` was seen on ``left_on``; cans made since are taken off when it is asked for.
    """

    __tablename__ = "product"
    library_id: Mapped[str | None]
    name: Mapped[str]
    label: Mapped[dict[str, Any]]
    price: Mapped[float | None]
    pack_amount: Mapped[float | None]
    opened_on: Mapped[date | None]
    left_amount: Mapped[float | None]
    left_on: Mapped[date | None]
    owned: Mapped[bool] = mapped_column(default=False, server_default="0")


class Recipe(Archivable, Base):
    """A named way to feed; its versions keep what old pours used."""

    __tablename__ = "recipe"
    name: Mapped[str]
    note: Mapped[str] = mapped_column(default="", server_default="")


class RecipeVersion(Base):
    """Products, strength and route at one time; labels are copied so that later edits change nothing.

    ``also``: the other products, each with id, name, label and dose.
    """

    __tablename__ = "recipe_version"
    id: Mapped[int] = mapped_column(primary_key=True)
    recipe_id: Mapped[int] = mapped_column(ForeignKey("recipe.id"))
    version: Mapped[int]
    made_on: Mapped[date]
    product_id: Mapped[int] = mapped_column(ForeignKey("product.id"))
    label: Mapped[dict[str, Any]]
    strength: Mapped[str]
    value: Mapped[float]
    element: Mapped[str] = mapped_column(default="N", server_default="N")
    also: Mapped[list[dict[str, Any]]] = mapped_column(default=list, server_default="[]")
    route: Mapped[str] = mapped_column(default="root", server_default="root")
    school_id: Mapped[str | None]


class Batch(Archivable, Base):
    """A can: plain water or feed, what it should read and what it read.

    ``waters``: shares of a blend, empty for one source. ``left_L`` was seen on ``left_on``.
    """

    __tablename__ = "batch"
    made_on: Mapped[date]
    name: Mapped[str]
    water_id: Mapped[int] = mapped_column(ForeignKey("water.id"))
    water_ec_uS_cm: Mapped[float]
    product_id: Mapped[int | None] = mapped_column(ForeignKey("product.id"))
    recipe_version_id: Mapped[int | None] = mapped_column(ForeignKey("recipe_version.id"))
    volume_L: Mapped[float]
    dose_g_L: Mapped[float]
    nitrogen_mg_L: Mapped[float]
    predicted_uS_cm: Mapped[float]
    predicted_low_uS_cm: Mapped[float]
    predicted_high_uS_cm: Mapped[float]
    measured_uS_cm: Mapped[float | None]
    verdict: Mapped[str] = mapped_column(default="")
    verdict_sentence: Mapped[str] = mapped_column(default="")
    working: Mapped[dict[str, Any] | None]
    also: Mapped[list[dict[str, Any]]] = mapped_column(default=list, server_default="[]")
    waters: Mapped[list[dict[str, Any]]] = mapped_column(default=list, server_default="[]")
    route: Mapped[str] = mapped_column(default="root", server_default="root")
    model_added_uS_cm: Mapped[float | None]
    ceiling_uS_cm: Mapped[float | None]
    ceiling_of: Mapped[str] = mapped_column(default="", server_default="")
    left_L: Mapped[float | None]
    left_on: Mapped[date | None]
    water_estimated: Mapped[bool] = mapped_column(default=False, server_default="0")
    __table_args__ = (CheckConstraint("volume_L > 0", "volume_positive"),)

    @property
    def ec_uS_cm(self) -> float:
        """What it reads: measured where it was, else predicted."""
        return ec_of_can(self.measured_uS_cm, self.predicted_uS_cm)


class Measure(Archivable, Base):
    """A spoon, cap or dropper of the grower's own, weighed for one product."""

    __tablename__ = "measure"
    name: Mapped[str]
    kind: Mapped[str]
    product_id: Mapped[int | None] = mapped_column(ForeignKey("product.id"), index=True)
    on: Mapped[date]
    weighings: Mapped[list[dict[str, Any]]]
    volume_mL: Mapped[float | None]
    each: Mapped[float]
    unit: Mapped[str]
    cv: Mapped[float]
    mean_error_pct: Mapped[float]
    working: Mapped[dict[str, Any] | None]


class Vessel(Archivable, Base):
    """A can or mist bottle and what it holds."""

    __tablename__ = "vessel"
    name: Mapped[str]
    kind: Mapped[str]
    volume_L: Mapped[float]


class SchoolCopy(Archivable, Base):
    """A school the grower edited: it stands before the shipped one of the same id."""

    __tablename__ = "school_copy"
    school_id: Mapped[str] = mapped_column(index=True)
    name: Mapped[str]
    figures: Mapped[dict[str, Any]]


class StockBottle(Archivable, Base):
    """A bottle of stock as made: what its label says."""

    __tablename__ = "stock_bottle"
    made_on: Mapped[date]
    name: Mapped[str]
    letter: Mapped[str] = mapped_column(default="")
    contents: Mapped[list[dict[str, Any]]]
    volume_mL: Mapped[float]
    draw_mL_per_L: Mapped[float]
    dilution: Mapped[str]
    hazard: Mapped[str]
    use_by: Mapped[date | None]
    working: Mapped[dict[str, Any] | None]


class Feeding(Archivable, Base):
    """Prey, castings, prills given to a pot: recorded, without a strength."""

    __tablename__ = "feeding"
    pot_id: Mapped[int] = mapped_column(ForeignKey("pot.id"), index=True)
    product_id: Mapped[int] = mapped_column(ForeignKey("product.id"))
    on: Mapped[date]
    amount: Mapped[float | None]
    unit: Mapped[str]
    note: Mapped[str] = mapped_column(default="")
