"""The versions of a recipe: what a can follows is kept as it was made."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.mix.asked import Asked
from fenwa.core.mix.recipe import same_recipe
from fenwa.store import models
from fenwa.store.mix_rows import newest_version, recipe_named


def keep_version(session: Session, asked: Asked, value: float, on: date, name: str) -> models.RecipeVersion:
    """The version of a recipe this can uses: a changed label, product or strength opens the next one."""
    body, product = asked.body, asked.product
    recipe = recipe_named(session, name)
    if recipe is None:
        recipe = models.Recipe(name=name)
        session.add(recipe)
        session.flush()
    last = newest_version(session, recipe.id)
    now = {
        "product_id": product.id,
        "label": product.label,
        "strength": body.strength,
        "value": value,
        "also": also_rows(asked),
        "element": body.element,
        "route": body.route,
        "school_id": body.school_id,
    }
    if last is not None and same_recipe({key: getattr(last, key) for key in now}, now):
        return last
    version = models.RecipeVersion(recipe_id=recipe.id, version=last.version + 1 if last else 1, made_on=on, **now)
    session.add(version)
    session.flush()
    return version


def also_rows(asked: Asked) -> list[dict[str, Any]]:
    """The other products of a can as stored."""
    return [
        {"product_id": part.product_id, "name": feed.label.name, "label": asdict(feed.label), "dose_g_L": feed.dose_g_L}
        for part, feed in zip(asked.body.also, asked.also, strict=True)
    ]
