"""An edit made on an old state: merged where it can be, told side by side where it cannot."""

from __future__ import annotations

from typing import Any, TypeVar

from pydantic import BaseModel

from fenwa.api.typed import label_of
from fenwa.core.edits import merged
from fenwa.core.errors import ChangedElsewhere

M = TypeVar("M", bound=BaseModel)


def kept_of_both(seen: M | None, now: M, sent: M) -> M:
    """What is to be stored of an edit, where ``seen`` is what its form was opened on; None: all of it as sent.

    Raises
    ------
    ChangedElsewhere
        If a field was changed here and elsewhere, to different values.
    """
    if seen is None:
        return sent
    of = type(now)
    before, stands, yours = ({name: getattr(x, name) for name in of.model_fields} for x in (seen, now, sent))
    values, both = merged(seen=before, now=stands, sent=yours)
    if both:
        raise ChangedElsewhere(
            {
                f"/{name}": f"{label_of(name)} was changed elsewhere meanwhile: it is {_said(stands[name])} now. "
                "Save again to store yours, or Cancel to keep that."
                for name in both
            },
            now={name: getattr(now, name) for name in both},
        )
    return of.model_validate(values)


def _said(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "empty" if value in (None, "") else f"“{value:g}”" if isinstance(value, float) else f"“{value}”"
