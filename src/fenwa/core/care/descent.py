"""Where a plant comes from: divisions, cuttings and offsets, entered as they are said."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal, get_args

from fenwa.core.errors import InputError

Relation = Literal["division", "cutting", "offset"]
Cause = Literal[
    "rot",
    "dried out",
    "burnt by salt or feed",
    "cold",
    "heat",
    "pests",
    "disease",
    "never settled",
    "at the end of its life",
    "not known",
]

MAX_AT_ONCE = 200
_NUMBERED = re.compile(r"(.*?)(\d{1,9})")
_WORDS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
# what growers also call them; each is rooted or cut like the one it stands for
_NAMES: dict[str, Relation] = {
    "division": "division",
    "split": "division",
    "piece": "division",
    "backbulb": "division",
    "cutting": "cutting",
    "pulling": "cutting",
    "leaf cutting": "cutting",
    "root cutting": "cutting",
    "offset": "offset",
    "pup": "offset",
    "keiki": "offset",
    "plantlet": "offset",
    "runner": "offset",
    "gemma": "offset",
}


@dataclass(frozen=True)
class FastAdd:
    """So many of a kind of descent from the pot of a code."""

    count: int
    relation: Relation
    code: str


def read_fast_add(text: str) -> FastAdd:
    """Understand "six divisions of P-01".

    Raises
    ------
    InputError
        With what is missing and an example.
    """
    found = re.fullmatch(r"\s*(\w+)\s+([a-z ]+?)\s+(?:of|from)\s+(\S.*?)\s*", text, re.IGNORECASE)
    if found is None:
        raise InputError(
            f"“{text.strip()}” is not understood. Write it like “six divisions of P-01”.", pointer="/phrase"
        )
    number, name, code = found.group(1).lower(), found.group(2).lower(), found.group(3)
    count = (
        int(number) if number.isascii() and number.isdigit() else _WORDS.index(number) + 1 if number in _WORDS else None
    )
    if number in ("a", "an"):
        count = 1
    if count is None:
        raise InputError(f"“{found.group(1)}” is not a number. Write 6 or six.", pointer="/phrase")
    if not 1 <= count <= MAX_AT_ONCE:
        raise InputError(f"{count} at once: add 1 to {MAX_AT_ONCE}.", pointer="/phrase")
    relation = _NAMES.get(name) or _NAMES.get(name.removesuffix("s")) or _NAMES.get({"gemmae": "gemma"}.get(name, ""))
    if relation is None:
        known = ", ".join(f"{r}s" for r in get_args(Relation))
        raise InputError(f"“{found.group(2)}” is not known. Say {known}.", pointer="/phrase")
    return FastAdd(count, relation, code)


def child_codes(code: str, count: int, taken: set[str]) -> list[str]:
    """Codes for the children of a pot: its own with the next free numbers behind a stroke."""
    out: list[str] = []
    n = 1
    while len(out) < count:
        name = f"{code}/{n}"
        if name not in taken:
            out.append(name)
        n += 1
    return out


def alike_codes(code: str, count: int, taken: set[str]) -> list[str]:
    """Codes for pots entered together: the first as typed, the others with the next free numbers.

    >>> alike_codes("P-01", 3, {"P-02"})
    ['P-01', 'P-03', 'P-04']
    >>> alike_codes("Sill", 2, set())
    ['Sill', 'Sill-2']
    """
    found = _NUMBERED.fullmatch(code)
    stem, digits = (found[1], found[2]) if found else (f"{code}-", "1")
    out, n = [code], int(digits)
    while len(out) < count:
        n += 1
        name = f"{stem}{n:0{len(digits)}}"
        if name not in taken:
            out.append(name)
    return out


def first_code(code: str, taken: set[str]) -> str:
    """The code, or the next number of it that is free.

    >>> first_code("M-01", {"M-01", "M-02"})
    'M-03'
    """
    return code if code not in taken else next(c for c in alike_codes(code, 2, taken) if c != code)


def spaced_tags(tags: list[str]) -> list[str]:
    """Tags as kept: trimmed, in lower case, each once, in the order given.

    Raises
    ------
    InputError
        If a tag is longer than 40 characters or holds a comma.
    """
    kept = [" ".join(t.lower().split()) for t in tags]
    for t in kept:
        if len(t) > 40 or any(c in t for c in ",;|"):
            raise InputError(f"Tag “{t[:50]}” cannot be kept. Take up to 40 letters and no comma.", pointer="/tags")
    return list(dict.fromkeys(t for t in kept if t))
