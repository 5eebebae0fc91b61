"""The grower's closed cases as counts that move the tables."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from fenwa.core.diagnosis.evidence import OwnCases


def own_cases(closed: Sequence[tuple[str, Sequence[str]]]) -> list[OwnCases]:
    """Counts of each cause with the signs seen in its cases; a case of no known cause counts for none."""
    cases: Counter[str] = Counter()
    seen: dict[str, Counter[str]] = {}
    for cause, signs in closed:
        if cause:
            cases[cause] += 1
            seen.setdefault(cause, Counter()).update(set(signs))
    return [OwnCases(c, n, tuple(sorted(seen[c].items()))) for c, n in sorted(cases.items())]
