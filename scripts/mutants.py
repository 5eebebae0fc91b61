"""Plants each slip of mutants.toml in a copy of the core and expects a red test; prints what survived."""

import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[1]
LIST = Path(__file__).with_suffix(".toml")
AT_ONCE = 2
MAX_SECONDS = 300
WHOLE = {**os.environ, "FENWA_YEAR": "3"}  # the years in full: in a sample a slip may meet nobody


def planted(mutant: dict[str, str], folder: Path) -> None:
    """The slip in a copy of the core."""
    file = folder / "src" / "fenwa" / "core" / mutant["file"]
    text = file.read_text("utf-8")
    if text.count(mutant["old"]) != 1:
        raise SystemExit(
            f"“{mutant['name']}”: its line stands {text.count(mutant['old'])} times in {mutant['file']}. Mend the list."
        )
    file.write_text(text.replace(mutant["old"], mutant["new"]), "utf-8")


def copied(folder: Path) -> None:
    """What the tests need, without what was built."""
    leave = shutil.ignore_patterns("__pycache__", ".hypothesis")
    for name in ("src", "tests"):
        shutil.copytree(ROOT / name, folder / name, ignore=leave)
    shutil.copy(ROOT / "pyproject.toml", folder)


def survives(mutant: dict[str, str], tests: list[str]) -> bool:
    """Whether every test is green with the slip planted."""
    with tempfile.TemporaryDirectory() as where:
        folder = Path(where)
        copied(folder)
        planted(mutant, folder)
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *tests]
        try:
            ended = subprocess.run(  # noqa: S603 - our own
                command, cwd=folder, env=WHOLE, capture_output=True, timeout=MAX_SECONDS, check=False
            )
        except subprocess.TimeoutExpired:
            return False
        return ended.returncode == 0


def listed() -> dict[str, Any]:
    """The list of slips."""
    return tomllib.loads(LIST.read_text("utf-8"))


def main() -> None:
    """Run them all, some at once."""
    whole = listed()
    chosen = [m for m in whole["mutant"] if not sys.argv[1:] or any(word in m["name"] for word in sys.argv[1:])]
    alive = []
    with ThreadPoolExecutor(AT_ONCE) as pool:
        for mutant, lives in zip(chosen, pool.map(lambda m: survives(m, whole["tests"]), chosen), strict=True):
            alive.append(lives)
            print(f"{'survived' if lives else 'found'}: {mutant['name']} ({mutant['file']})", flush=True)
    print(f"{len(chosen)} slips planted, {sum(alive)} survived (target 0)")
    raise SystemExit(1 if any(alive) else 0)


if __name__ == "__main__":
    main()
