"""What the wheel asks for: the packages of requirements.in, written there and nowhere else."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from hatchling.metadata.plugin.interface import MetadataHookInterface


class Dependencies(MetadataHookInterface):
    """Reads the list beside the project file."""

    def update(self, metadata: dict[str, Any]) -> None:
        """Fill the dependencies in."""
        lines = (Path(self.root) / "requirements.in").read_text("utf-8").splitlines()
        metadata["dependencies"] = [x.split("#")[0].strip() for x in lines if x.split("#")[0].strip()]
