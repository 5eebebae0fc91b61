"""An edit made on an old state: merged where it can be, told side by side where it cannot."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, TypeVar

from pydantic import BaseModel

from fenwa.api.typed import label_of, unit_of
from fenwa.core.edits import merged
from fenwa.core.entry import brief
from fenwa.core.errors import ChangedElsewhere

M = TypeVar("M", bound=BaseModel)


def kept_of_both(seen: M | None, now: M, sent: BaseModel) -> M:
    """What is to be stored of an edit, where ``seen`` is what its form was opened on; None: all of it as sent.
    ``sent`` may hold more fields than are compared, ``seen`` itself among them.

    Raises
    ------
    ChangedElsewhere
        If a field was changed here and elsewhere, to different values.
    """
    of = type(now)
    stands, yours = ({name: getattr(x, name) for name in of.model_fields} for x in (now, sent))
    if seen is None:
        return of.model_validate(yours)
    before = {name: getattr(seen, name) for name in of.model_fields}
    return of.model_validate(of_both(before, stands, yours))


def of_both(seen: Mapping[str, Any], now: Mapping[str, Any], sent: Mapping[str, Any]) -> dict[str, Any]:
    """The fields of an edit as they are to be stored.

    Raises
    ------
    ChangedElsewhere
        If a field was changed here and elsewhere, to different values.
    """
    values, both = merged(seen=seen, now=now, sent=sent)
    if both:
        raise ChangedElsewhere(
            {
                f"/{name}": f"{label_of(name)} was changed elsewhere meanwhile: it is {_said(name, now[name])} now. "
                "Save again to store yours, or Cancel to keep that."
                for name in both
            },
            now={name: now[name] for name in both},
        )
    return values


def replaces(seen: int | None, now: int, said: str) -> None:
    """Refuse to replace a whole that another has replaced since the form was opened on version ``seen`` of it.

    ``seen``: 0 where there was none, None where whatever stands is to go; ``said``: what stands now.
    """
    if seen is not None and seen != now:
        sentence = f"Changed elsewhere meanwhile. {said} Save again to store yours, or Cancel to keep that."
        raise ChangedElsewhere({"/seen": sentence}, now={"seen": now})


def _said(name: str, value: Any) -> str:
    """A stored value in words: a figure with its unit, as the outlet writes it for the reader."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return f"{brief(value)} {unit_of(name)}".strip()
    return "empty" if value in (None, "") else f"“{value}”"
