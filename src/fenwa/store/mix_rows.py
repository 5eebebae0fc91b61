"""Rows of the Mix station: cans with what read them, recipes with their versions, bottles, feeds without a ppm."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.store.models import Batch, Feeding, Meter, Product, Reading, Recipe, RecipeVersion, StockBottle

SHOWN_BOTTLES = 50
SHOWN_FEEDINGS = 100


def newest_cans(session: Session, today: date, most: int) -> Sequence[Batch]:
    """Cans up to a day, the newest first."""
    return session.scalars(
        select(Batch)
        .where(Batch.archived_at.is_(None), Batch.made_on <= today)
        .order_by(Batch.made_on.desc(), Batch.id.desc())
        .limit(most)
    ).all()


def newest_fed_can(session: Session, today: date) -> Batch | None:
    """The newest can with feed in it."""
    return session.scalars(
        select(Batch)
        .where(Batch.archived_at.is_(None), Batch.dose_g_L > 0, Batch.made_on <= today)
        .order_by(Batch.made_on.desc(), Batch.id.desc())
        .limit(1)
    ).first()


def recipes_of(session: Session, cans: Sequence[Batch]) -> dict[int, tuple[str, int]]:
    """Name and version of the recipe each can follows, by id of the version."""
    found = session.execute(
        select(RecipeVersion.id, Recipe.name, RecipeVersion.version)
        .join(Recipe, Recipe.id == RecipeVersion.recipe_id)
        .where(RecipeVersion.id.in_([b.recipe_version_id for b in cans]))
    )
    return {v: (name, version) for v, name, version in found}


def meters_of(session: Session, cans: Sequence[Batch]) -> dict[int | None, str]:
    """Name of the meter that read each can last."""
    found = session.execute(
        select(Reading.batch_id, Meter.name)
        .join(Meter, Meter.id == Reading.meter_id)
        .where(Reading.batch_id.in_([b.id for b in cans]), Reading.archived_at.is_(None))
        .order_by(Reading.id)
    )
    return {row.batch_id: row.name for row in found}


def recipe_named(session: Session, name: str) -> Recipe | None:
    """The recipe of that name."""
    return session.scalars(select(Recipe).where(Recipe.name == name, Recipe.archived_at.is_(None))).first()


def newest_version(session: Session, recipe_id: int) -> RecipeVersion | None:
    """A recipe's newest version."""
    mine = select(RecipeVersion).where(RecipeVersion.recipe_id == recipe_id)
    return session.scalars(mine.order_by(RecipeVersion.version.desc())).first()


def newest_recipes(session: Session) -> list[tuple[Recipe, RecipeVersion]]:
    """Recipes with their newest version, the newest recipe first."""
    newest: dict[int, RecipeVersion] = {}
    for v in session.scalars(select(RecipeVersion).order_by(RecipeVersion.version)):
        newest[v.recipe_id] = v
    rows = session.scalars(select(Recipe).where(Recipe.archived_at.is_(None)).order_by(Recipe.id.desc()))
    return [(r, newest[r.id]) for r in rows if r.id in newest]


def newest_bottles(session: Session) -> Sequence[StockBottle]:
    """Stock bottles kept, the newest first."""
    return session.scalars(
        select(StockBottle)
        .where(StockBottle.archived_at.is_(None))
        .order_by(StockBottle.id.desc())
        .limit(SHOWN_BOTTLES)
    ).all()


def newest_feedings(session: Session, pot_id: int | None) -> list[tuple[Feeding, str]]:
    """What was given without a ppm, with the product's name, the newest first; of one pot if named."""
    query = (
        select(Feeding, Product.name)
        .join(Product, Product.id == Feeding.product_id)
        .where(Feeding.archived_at.is_(None))
    )
    if pot_id is not None:
        query = query.where(Feeding.pot_id == pot_id)
    rows = session.execute(query.order_by(Feeding.on.desc(), Feeding.id.desc()).limit(SHOWN_FEEDINGS))
    return [(f, name) for f, name in rows]


def products_on_shelf(session: Session) -> int:
    """How many feeds stand on the shelf."""
    here = select(func.count(Product.id)).where(Product.archived_at.is_(None), Product.owned.is_(True))
    return session.scalar(here) or 0


def library_ids(session: Session) -> set[str | None]:
    """Shipped feeds that were brought to the shelf, whatever became of them."""
    return set(session.scalars(select(Product.library_id)))
