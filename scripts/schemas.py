"""Writes the JSON schemas of the reviewed data files from the rows the loader builds."""

import json
from dataclasses import fields
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from fenwa.core.data.tables import DATA
from fenwa.core.library.loader import Fertilizer
from fenwa.core.library.profile import Profile
from fenwa.core.mix.label import Label
from fenwa.core.mix.school import School

SCHEMAS = DATA / "schema"


def schema_of(kind: type, title: str, **extra: Any) -> dict[str, Any]:
    """JSON schema of a file whose keys are the fields of a row; unknown keys are refused."""
    made = TypeAdapter(kind).json_schema()
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **made,
        "title": title,
        "additionalProperties": False,
        **extra,
    }


def fertilizer() -> dict[str, Any]:
    """A fertilizer file holds the label's fields beside its own."""
    made = schema_of(Label, "Fertilizer file")
    own = {f.name: {"type": "string"} for f in fields(Fertilizer) if f.name != "label"}
    return {**made, "properties": {**own, **made["properties"]}, "required": [*own, *made["required"]]}


def everything() -> dict[str, dict[str, Any]]:
    """Each schema by its file name."""
    return {
        "fertilizer.json": fertilizer(),
        "school.json": schema_of(School, "School file"),
        "profile.json": schema_of(Profile, "Profile file"),
    }


def write(folder: Path = SCHEMAS) -> None:
    """Write them all."""
    folder.mkdir(exist_ok=True)
    for name, schema in everything().items():
        (folder / name).write_text(json.dumps(schema, indent=1, ensure_ascii=False) + "\n", "utf-8")


if __name__ == "__main__":
    write()
