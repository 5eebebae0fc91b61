"""Fenwa as a process of its own, forked from one that has imported it once: sixty starts would otherwise spend most of
their time on imports.
"""

import multiprocessing
import os
import sys
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
