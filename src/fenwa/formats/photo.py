"""Photos as phones and cameras make them: turned upright, in plain colours, with nothing of place or device left."""

from __future__ import annotations

import io
import warnings
from dataclasses import dataclass
from typing import TYPE_CHECKING

from fenwa.core.errors import InputError

if TYPE_CHECKING:
    from PIL.Image import Image

MOST_BYTES = 25_000_000
MOST_PIXELS = 80_000_000  # a picture that unpacks to more is no photo of a plant
MOST_SIDE = 20_000
QUALITY = 92
LIST_px, SCREEN_px = 320, 1600
MEDIA = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp", "HEIF": "image/jpeg", "MPO": "image/jpeg"}
KNOWN = "JPEG, PNG, WebP or HEIC"


@dataclass(frozen=True)
class CleanPhoto:
    """A photo as it is stored: upright, sRGB, no metadata; smaller ones for lists and the screen."""

    media: str
    data: bytes
    width: int
    height: int
    for_list: bytes
    for_screen: bytes


def read_photo(raw: bytes) -> CleanPhoto:
    """A photo from what was sent, whatever its name says.

    Raises
    ------
    InputError
        If it is empty, too large, no picture, broken, or unpacks to more than a photo would.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError
    from pillow_heif import register_heif_opener

    register_heif_opener()
    if not raw:
        raise InputError("The photo is empty. Choose it again.", pointer="/photo")
    if len(raw) > MOST_BYTES:
        raise InputError(too_large(), pointer="/photo")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(raw)) as opened:
                if opened.format not in MEDIA:
                    raise InputError(f"This is a {opened.format} file. Take {KNOWN}.", pointer="/photo")
                if opened.width * opened.height > MOST_PIXELS or max(opened.size) > MOST_SIDE:
                    raise InputError(
                        f"The photo is {opened.width} × {opened.height} pixels. "
                        f"Send at most {MOST_PIXELS // 1_000_000} million, {MOST_SIDE} on a side.",
                        pointer="/photo",
                    )
                media = MEDIA[opened.format]
                upright = _plain_colours(ImageOps.exif_transpose(opened))
    except Image.DecompressionBombError as error:
        sentence = f"The photo unpacks to too many pixels. Send at most {MOST_PIXELS // 1_000_000} million."
        raise InputError(sentence, pointer="/photo") from error
    except UnidentifiedImageError as error:
        raise InputError(f"This file is not a picture. Take {KNOWN}.", pointer="/photo") from error
    except (OSError, SyntaxError, ValueError, EOFError, RuntimeError) as error:
        raise InputError(
            f"The picture is broken and cannot be read. Take it again as {KNOWN}.", pointer="/photo"
        ) from error
    return CleanPhoto(
        media,
        _written(upright, media),
        upright.width,
        upright.height,
        _written(_at_most(upright, LIST_px), "image/webp", 80),
        _written(_at_most(upright, SCREEN_px), "image/webp", 86),
    )


def too_large() -> str:
    """The refusal of a photo over the limit."""
    return f"The photo is larger than {MOST_BYTES // 1_000_000} MB. Send a smaller one."


def _plain_colours(opened: Image) -> Image:
    """Pixels alone, in sRGB: a phone's wider colours would shift what is read off them."""
    from PIL import Image, ImageCms

    profile = opened.info.get("icc_profile")
    picture = opened.convert("RGB") if opened.mode not in ("RGB", "RGBA", "LA", "PA", "P") else opened
    if picture.mode != "RGB":  # what shows through is white
        seen = picture.convert("RGBA")
        picture = Image.new("RGB", seen.size, "white")
        picture.paste(seen, mask=seen.getchannel("A"))
    if profile:
        try:
            made = ImageCms.profileToProfile(
                picture, ImageCms.ImageCmsProfile(io.BytesIO(profile)), ImageCms.createProfile("sRGB")
            )
            picture = made if made is not None else picture
        except (ImageCms.PyCMSError, OSError):
            pass  # an odd profile: the colours are taken as they stand
    plain = Image.new("RGB", picture.size)
    plain.paste(picture)
    return plain


def _at_most(picture: Image, side: int) -> Image:
    small = picture.copy()
    small.thumbnail((side, side))
    return small


def _written(picture: Image, media: str, quality: int = QUALITY) -> bytes:
    out = io.BytesIO()
    if media == "image/png":
        picture.save(out, "PNG", optimize=False)
    elif media == "image/webp":
        picture.save(out, "WEBP", quality=quality, method=2)
    else:
        picture.save(out, "JPEG", quality=quality)
    return out.getvalue()
