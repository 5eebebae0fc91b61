"""Two who change one thing at once: what each of them changed is kept, and where both changed it, it is told."""

from __future__ import annotations

import math
from collections.abc import Mapping

SAME = 1e-4  # a figure as a form shows it is rounded; nearer than this nobody changed it


def merged(
    *, seen: Mapping[str, object], now: Mapping[str, object], sent: Mapping[str, object]
) -> tuple[dict[str, object], tuple[str, ...]]:
    """What is to be stored of an edit, and the fields that two changed to different values.

    Parameters
    ----------
    seen : Mapping[str, object]
        What the form was opened on, by field.
    now : Mapping[str, object]
        What is stored by now.
    sent : Mapping[str, object]
        What the form holds: a field as it was seen was not touched, and stays as it is stored by now.

    Returns
    -------
    tuple[dict[str, object], tuple[str, ...]]
        Every field of ``sent`` with its value, and the names of those changed by both. A field nobody told ``seen`` of
        is taken as it was sent.
    """
    out: dict[str, object] = {}
    both = []
    for name, yours in sent.items():
        if name not in seen or name not in now:
            out[name] = yours
        elif same(yours, seen[name]):
            out[name] = now[name]
        else:
            out[name] = yours
            if not same(now[name], seen[name]) and not same(now[name], yours):
                both.append(name)
    return out, tuple(both)


def same(a: object, b: object) -> bool:
    """Whether two values of a field are one: figures to the digits a form shows, nothing and an empty text alike."""
    if isinstance(a, bool) or isinstance(b, bool):
        return a is b
    if isinstance(a, int | float) and isinstance(b, int | float):
        return math.isclose(a, b, rel_tol=SAME, abs_tol=1e-12)
    return (a or None) == (b or None) if not isinstance(a, int | float) and not isinstance(b, int | float) else False
