"""Which standing rule is in force at a pot: its own, that of its kind, its group of kinds, its place, or of all."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Scope = Literal["kind", "group", "place", "all"]
SCOPES: tuple[Scope, ...] = ("kind", "group", "place", "all")  # the nearer to the plant, the stronger
WORDS = {
    "own": "its own choice",
    "kind": "the rule of its kind",
    "group": "the rule of its group of kinds",
    "place": "the rule of its place",
    "all": "the rule for all",
    "none": "no rule",
}


@dataclass(frozen=True)
class InForce:
    """A choice with who made it: ``own``, a scope, or ``none`` where nobody chose."""

    value: str
    by: str

    @property
    def says(self) -> str:
        """Who made it, in words."""
        return WORDS[self.by]


def is_nearer(one: str, other: str) -> bool:
    """Whether who chose one rule stands nearer to the plant than who chose the other.

    >>> is_nearer("kind", "place"), is_nearer("own", "own")
    (True, False)
    """
    order = ("own", *SCOPES, "none")
    return order.index(one) < order.index(other)


def in_force(own: str, rules: dict[Scope, str]) -> InForce:
    """The pot's own choice first, then kind, group, place and all; an empty one does not count.

    >>> in_force("", {"place": "pulse", "kind": "label"})
    InForce(value='label', by='kind')
    """
    if own:
        return InForce(own, "own")
    for scope in SCOPES:
        if rules.get(scope):
            return InForce(rules[scope], scope)
    return InForce("", "none")
