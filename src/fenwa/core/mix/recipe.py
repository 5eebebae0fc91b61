"""Recipes: what makes two cans the same recipe, and what a can without one is called."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

DECIDES = ("product_id", "label", "strength", "value", "also", "element", "route", "school_id")


def own_name(product: str, strength: str) -> str:
    """Name of the recipe of a single can that follows no named one."""
    return f"{product}, {strength}"


def same_recipe(last: Mapping[str, Any], now: Mapping[str, Any]) -> bool:
    """Whether a can follows the version there is. A changed product, label, strength, company, route or school opens
    the next one: a measured can must never teach a label it was not made by.
    """
    return all(last[key] == now[key] for key in DECIDES)
