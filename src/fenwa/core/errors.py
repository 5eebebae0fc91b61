"""What can go wrong in the job's own terms. Nothing here knows about HTTP."""

from __future__ import annotations

import re
from typing import Any, ClassVar

_POWER = re.compile(r"\b\d+(?:\.\d+)?e[+-]\d+")
_ALMOST_NOTHING = 1e-6


def without_powers(sentence: str) -> str:
    """A sentence with its numbers as they can be typed: no powers of ten."""

    def plain(found: re.Match[str]) -> str:
        value = float(found.group())
        return "almost 0" if value < _ALMOST_NOTHING else f"{value:.12f}".rstrip("0").rstrip(".")

    return _POWER.sub(plain, sentence)


class DomainError(Exception):
    """A refusal with a plain sentence and the numbers that explain it.

    ``pointer`` names the field as the caller sent it (``/volume_L``), so that a
    form can show the sentence beside that field.
    """

    code: ClassVar[str] = "domain-error"

    def __init__(self, detail: str, *, pointer: str = "", **facts: Any) -> None:
        self.detail = without_powers(detail)
        super().__init__(self.detail)
        self.pointer = pointer
        self.facts = facts


class InputError(DomainError):
    """The input cannot be used as it stands."""

    code = "input-error"


class OutOfRange(InputError):
    """A number outside what the quantity can be."""

    code = "out-of-range"


class Underspecified(InputError):
    """Something needed is missing or not known."""

    code = "underspecified"


class Overspecified(InputError):
    """Two entries contradict each other or say the same thing twice."""

    code = "overspecified"


class Infeasible(DomainError):
    """The inputs are sound, but no answer exists."""

    code = "infeasible"


class NotFound(DomainError):
    """Nothing is stored under that name."""

    code = "not-found"


class Conflict(DomainError):
    """The request contradicts what is already stored."""

    code = "conflict"


class ChangedElsewhere(Conflict):
    """An edit changes what another has changed since it was opened. ``fields``: the sentence of each, by pointer."""

    code = "changed-elsewhere"

    def __init__(self, fields: dict[str, str], **facts: Any) -> None:
        super().__init__(" ".join(fields.values()), **facts)
        self.fields = fields
