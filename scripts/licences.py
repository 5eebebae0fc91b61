"""Writes docs/licences.md: every package that ships with Fenwa or runs it, with its version and licence."""

import importlib.metadata
import json
import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs" / "licences.md"


def pinned(name: str) -> list[str]:
    """Packages of a lock file."""
    rows = (ROOT / name).read_text("utf-8").splitlines()
    return sorted(m.group(1) for r in rows if (m := re.match(r"([\w.-]+)==", r)))


def python_row(name: str) -> tuple[str, str, str]:
    """Version and licence of an installed package, as it states them itself."""
    said = importlib.metadata.metadata(name)
    classified = [c.split(" :: ")[-1] for c in said.get_all("Classifier") or [] if c.startswith("License ::")]
    licence = said.get("License-Expression") or next(iter(classified), "") or (said.get("License") or "").split("\n")[0]
    return name, importlib.metadata.version(name), licence


def interface_rows() -> list[tuple[str, str, str]]:
    """The packages the interface is built from, as their lock file states them."""
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text("utf-8"))["packages"]
    wanted = json.loads((ROOT / "web" / "package.json").read_text("utf-8"))["dependencies"]
    return [(n, lock[f"node_modules/{n}"]["version"], lock[f"node_modules/{n}"].get("license", "")) for n in wanted]


def written() -> str:
    """The page."""

    def table(rows: list[tuple[str, str, str]]) -> str:
        return "| package | version | licence |\n| --- | --- | --- |\n" + "".join(
            f"| {name} | {version} | {licence} |\n" for name, version, licence in rows
        )

    return (
        "# Packages and their licences\n\nMade by `scripts/licences.py`. Versions are pinned, with the hashes of their "
        "files.\n\n## The server\n\n"
        + table([python_row(n) for n in pinned("requirements.txt")])
        + "\n## The interface\n\n"
        + table(interface_rows())
    )


if __name__ == "__main__":
    PAGE.write_text(written(), "utf-8")
