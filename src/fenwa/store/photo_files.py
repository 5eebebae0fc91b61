"""Photos as files beside the database, named by the hash of their content: one photo sent twice is one file."""

from __future__ import annotations

import hashlib
import io
import os
from pathlib import Path
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from fenwa.core.errors import NotFound
from fenwa.store.file import PRIVATE_FILE, PRIVATE_FOLDER

Size = Literal["list", "screen", "whole"]
ENDINGS = {"image/jpeg": "jpg", "image/png": "png", "image/webp": "webp"}


class PhotoFolder:
    """The folder of a collection's photos. Only its owner reads it."""

    def __init__(self, database: Path) -> None:
        self.path = database.with_suffix(".photos")

    def keep(self, data: bytes, media: str, *, for_list: bytes, for_screen: bytes) -> str:
        """Write a photo in its three sizes; the name it is found by again.

        Each file is written beside its place and moved there, so that half a file never stands under a name.
        """
        name = hashlib.sha256(data).hexdigest()
        self.put(name, media, data, for_list=for_list, for_screen=for_screen)
        return name

    def put(self, name: str, media: str, data: bytes, *, for_list: bytes, for_screen: bytes) -> None:
        """Write the files of a photo whose name is known."""
        self.path.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
        folder = self.path / name[:2]
        folder.mkdir(exist_ok=True, mode=PRIVATE_FOLDER)
        sizes: dict[Size, bytes] = {"list": for_list, "screen": for_screen, "whole": data}
        for size, content in sizes.items():
            place = self._place(name, size, media)
            if place.exists():
                continue
            half = place.with_suffix(f".{os.getpid()}.half")
            with os.fdopen(os.open(half, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, PRIVATE_FILE), "wb") as out:
                out.write(content)
                out.flush()
                os.fsync(out.fileno())
            half.replace(place)

    def file_name(self, name: str, media: str) -> str:
        """The file of the whole photo, without its folder."""
        return self._place(name, "whole", media).name

    def has(self, name: str, media: str) -> bool:
        """Whether the whole photo is there."""
        return self._place(name, "whole", media).exists()

    def read(self, name: str, size: Size, media: str) -> tuple[bytes, str]:
        """A photo's bytes and what they are.

        Raises
        ------
        NotFound
            If the file is gone: the database was moved without its folder.
        """
        place = self._place(name, size, media)
        try:
            return place.read_bytes(), media if size == "whole" else "image/webp"
        except FileNotFoundError as error:
            raise NotFound(
                f"The file of this photo is not in {self.path.name}. Put that folder beside the database."
            ) from error

    def pixels(self, name: str, media: str) -> NDArray[np.uint8]:
        """The photo as large as a screen shows it, shape (height, width, 3), sRGB."""
        from PIL import Image

        with Image.open(io.BytesIO(self.read(name, "screen", media)[0])) as opened:
            return np.asarray(opened.convert("RGB"), dtype=np.uint8)

    def forget(self, name: str, media: str) -> None:
        """Take a photo's files away, if they are there."""
        for size in ("list", "screen", "whole"):
            self._place(name, size, media).unlink(missing_ok=True)

    def bytes_used(self) -> int:
        """What all photos take on the disk. [bytes]"""
        if not self.path.exists():
            return 0
        return sum(f.stat().st_size for f in self.path.rglob("*") if f.is_file())

    def _place(self, name: str, size: Size, media: str) -> Path:
        ending = f".{ENDINGS[media]}" if size == "whole" else f".{size}.webp"
        return self.path / name[:2] / f"{name}{ending}"
