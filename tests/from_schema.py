"""Values made from a JSON schema, good ones and hostile ones: at the edges of every number and beyond."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

EDGES = (
    -1e308,
    -5200,
    -1,
    -1e-9,
    0,
    1e-12,
    1e-6,
    0.001,
    0.05,
    0.1,
    0.5,
    0.999,
    1,
    1.0001,
    2,
    5,
    20,
    60,
    200,
    365,
    1000,
    5250,
    20_000,
    1e6,
    1e12,
    1e15,
    1e300,
)
DAYS = (
    "1899-12-31",
    "1900-01-01",
    "2026-01-01",
    "2026-11-22",
    "2026-11-23",
    "2027-03-01",
    "2200-12-31",
    "9999-12-31",
    "tomorrow",
)
WORDS = ("", " ", "x", "1e5", "0,5", "٣", "KNO3", "Ca(NO3)2.4H2O", "((", "\x00", "half", "N" * 400)
NUMBERS = st.one_of(
    st.sampled_from(EDGES), st.floats(0, 2000, width=32), st.floats(allow_nan=False, allow_infinity=False)
)
HOSTILE: tuple[Any, ...] = (
    [],
    {},
    [1],
    [[]],
    {"a": 1},
    "\ud800x",
    2**63,
    -(2**64),
    1e308,
    "9999-12-31",
    "0001-01-01",
    None,
    "",
    True,
    -1,
    1e-12,
    "1e5",
    253402214400000,
    "99999999999999999999",
    "\x00",
    10**400,
)


def from_schema(schema: dict[str, Any], defs: dict[str, Any], depth: int = 0) -> st.SearchStrategy[Any]:
    """What a schema allows, and for numbers, days and words what lies at its edges."""
    if "$ref" in schema:
        return from_schema(defs[schema["$ref"].rsplit("/", 1)[-1]], defs, depth + 1)
    if "anyOf" in schema:
        return st.one_of([from_schema(s, defs, depth) for s in schema["anyOf"]])
    if "enum" in schema:
        return st.sampled_from(schema["enum"])
    if "const" in schema:
        return st.just(schema["const"])
    kind = schema.get("type")
    if kind in ("number", "integer"):
        return NUMBERS if kind == "number" else st.one_of(st.integers(-2, 400), st.sampled_from((2**63, -(2**64))))
    if kind == "string":
        return st.sampled_from(DAYS) if schema.get("format") in ("date", "date-time") else st.sampled_from(WORDS)
    if kind == "boolean":
        return st.booleans()
    if kind == "null":
        return st.none()
    if kind == "array":
        return _rows(schema, defs, depth)
    return _fields(schema, defs, depth) if kind == "object" else st.sampled_from((None, 0, "x"))


def _rows(schema: dict[str, Any], defs: dict[str, Any], depth: int) -> st.SearchStrategy[Any]:
    if "prefixItems" in schema:
        return st.tuples(*(from_schema(s, defs, depth + 1) for s in schema["prefixItems"])).map(list)
    return st.lists(from_schema(schema.get("items", {}), defs, depth + 1), max_size=3 if depth < 6 else 1)


def _fields(schema: dict[str, Any], defs: dict[str, Any], depth: int) -> st.SearchStrategy[Any]:
    wanted = set(schema.get("required", ()))
    parts = {k: from_schema(s, defs, depth + 1) for k, s in schema.get("properties", {}).items()}
    return st.fixed_dictionaries(
        {k: v for k, v in parts.items() if k in wanted}, optional={k: v for k, v in parts.items() if k not in wanted}
    )


@st.composite
def altered(draw: st.DrawFn, good: Any, schema: dict[str, Any], defs: dict[str, Any]) -> Any:
    """A good entry with one to three of its values replaced, or fields added, as the schema allows them."""
    entry = good
    for _ in range(draw(st.integers(1, 3))):
        entry = _change(draw, entry, schema, defs)
    return entry


def _change(draw: st.DrawFn, value: Any, schema: dict[str, Any], defs: dict[str, Any]) -> Any:
    while "$ref" in schema:
        schema = defs[schema["$ref"].rsplit("/", 1)[-1]]
    fitting = [s for s in schema.get("anyOf", ()) if _fits(value, s, defs)]
    if fitting:
        return _change(draw, value, fitting[0], defs)
    if isinstance(value, dict) and schema.get("properties") and draw(st.integers(0, 9)) > 0:
        key = draw(st.sampled_from(sorted(schema["properties"])))
        inner = schema["properties"][key]
        new = _change(draw, value[key], inner, defs) if key in value else draw(from_schema(inner, defs))
        return {**value, key: new}
    if isinstance(value, list) and value and "items" in schema and draw(st.integers(0, 4)) > 0:
        n = draw(st.integers(0, len(value) - 1))
        return [*value[:n], _change(draw, value[n], schema["items"], defs), *value[n + 1 :]]
    return draw(from_schema(schema, defs))


def _fits(value: Any, schema: dict[str, Any], defs: dict[str, Any]) -> bool:
    while "$ref" in schema:
        schema = defs[schema["$ref"].rsplit("/", 1)[-1]]
    kind = schema.get("type")
    return (kind == "object" and isinstance(value, dict)) or (kind == "array" and isinstance(value, list))
