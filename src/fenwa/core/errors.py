"""What can go wrong in the job's own terms. Nothing here knows about HTTP."""

from __future__ import annotations

from typing import Any, ClassVar


class DomainError(Exception):
    """A refusal with a plain sentence and the numbers that explain it.

    ``pointer`` names the field as the caller sent it (``/volume_L``), so that a
    form can show the sentence beside that field.
    """

    code: ClassVar[str] = "domain-error"

    def __init__(self, detail: str, *, pointer: str = "", **facts: Any) -> None:
        super().__init__(detail)
        self.detail = detail
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
