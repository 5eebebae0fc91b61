"""Fenwa as a process of its own, forked from one that has imported it once: sixty starts would otherwise spend most of
their time on imports.
"""

import multiprocessing
import os
import subprocess
import sys
import tempfile
from multiprocessing.connection import Connection
from pathlib import Path

ROOT = Path(__file__).parents[1]
# Python 3.11 does not hand its own paths to the fork server: without them it imports nothing beforehand.
os.environ["PYTHONPATH"] = os.pathsep.join([str(ROOT / "src"), os.environ.get("PYTHONPATH", "")]).strip(os.pathsep)
FORKS = multiprocessing.get_context("forkserver")
FORKS.set_forkserver_preload(["fenwa.cli", "fenwa.api.app", "fenwa.demo.database", "fenwa.store.prepare", "uvicorn"])


def command_line(arguments: list[str], said: Connection) -> None:
    """What ``./fenwa`` runs with these arguments, its output into the pipe ``said``."""
    from fenwa.cli import app

    os.dup2(said.fileno(), 1)
    sys.stdout = os.fdopen(1, "w")
    sys.argv = ["fenwa", *arguments]
    app()


def fenwa(*words: str, **environment: str) -> subprocess.CompletedProcess[str]:
    """What ``./fenwa`` does and says with these words, until it ends; after two minutes it has failed."""
    with tempfile.TemporaryDirectory() as folder:
        said = [Path(folder) / "out", Path(folder) / "err"]
        process = FORKS.Process(target=_spoken, args=(list(words), environment, *said), daemon=True)
        process.start()
        process.join(timeout=120)
        if process.exitcode is None:
            process.kill()
            process.join()
        code = process.exitcode or 0
        return subprocess.CompletedProcess(words, code, *(p.read_text() if p.exists() else "" for p in said))


def _spoken(words: list[str], environment: dict[str, str], out: Path, err: Path) -> None:
    from fenwa.cli import app

    os.environ.update(environment)
    for n, path in ((1, out), (2, err)):
        with path.open("wb") as file:
            os.dup2(file.fileno(), n)
    sys.stdout, sys.stderr = os.fdopen(1, "w", closefd=False), os.fdopen(2, "w", closefd=False)
    sys.argv = ["fenwa", *words]
    app()
