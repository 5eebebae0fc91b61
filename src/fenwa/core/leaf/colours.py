"""Brown and yellow of a blade by colour, in a perceptual colour space, inside a traced outline."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.leaf.marks import Mark
from fenwa.core.leaf.photo import PhotoPoint
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

BITS = 6  # of a channel that are told apart: finer than the thresholds
MOST_COLOURS = 1 << (3 * BITS)
MOST_OUTLINE = 500
LEAST_INSIDE = 50  # pixels

MARK_OF: dict[str, Mark] = {"brown": "spot", "yellow": "pale"}  # what a share of a colour is as a mark of the blade

# linear sRGB to cone responses and on to OKLab
_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)


@dataclass(frozen=True)
class ColourCount:
    """A colour of a photo and how many pixels have it. [0 to 255]"""

    red: int
    green: int
    blue: int
    pixels: int


@dataclass(frozen=True)
class Thresholds:
    """Where colours part. Hue in degrees (red 30, yellow 110, green 145), lightness and chroma as OKLab gives them.

    ``green_from``: this hue and on is green; below it yellow where light, brown where darker than ``brown_below``
    or redder than ``yellow_from``. Less chroma than ``grey_below`` is told apart by lightness alone.
    """

    green_from: float = 117.0
    yellow_from: float = 85.0
    brown_below: float = 0.62
    grey_below: float = 0.03


@dataclass(frozen=True)
class PhotoMarks:
    """Shares of a blade by colour. [%]"""

    green: float
    yellow: float
    brown: float
    unclear: float
    sentence: str


def linear(srgb: NDArray[np.float64]) -> NDArray[np.float64]:
    """Linear light from sRGB, both 0 to 1."""
    bright: NDArray[np.float64] = np.where(srgb <= 0.04045, srgb / 12.92, ((srgb + 0.055) / 1.055) ** 2.4)
    return bright


def oklab(light: NDArray[np.float64]) -> NDArray[np.float64]:
    """OKLab from linear light, shape (n, 3): lightness 0 to 1, green to red, blue to yellow."""
    cones = np.cbrt(light @ _TO_LMS.T)
    lab: NDArray[np.float64] = cones @ _TO_LAB.T
    return lab


def inside(outline: Sequence[PhotoPoint], height: int, width: int) -> NDArray[np.bool_]:
    """Pixels whose middle lies inside an outline (even-odd), shape (height, width)."""
    y = np.arange(height, dtype=np.float64) + 0.5
    x = np.arange(width, dtype=np.float64) + 0.5
    out = np.zeros((height, width), dtype=np.bool_)
    points = list(outline)
    for a, b in zip(points, [*points[1:], points[0]], strict=True):
        if a.y == b.y:
            continue
        crosses = (a.y > y) != (b.y > y)
        at = a.x + (y - a.y) * (b.x - a.x) / (b.y - a.y)
        out ^= crosses[:, None] & (x[None, :] < at[:, None])
    return out


def colours_inside(picture: NDArray[np.uint8], outline: Sequence[PhotoPoint]) -> list[ColourCount]:
    """How often each colour stands inside an outline of a photo.

    Parameters
    ----------
    picture : NDArray[np.uint8]
        Shape (height, width, 3), sRGB.
    outline : Sequence[PhotoPoint]
        Corners in order, 3 to 500. [px]

    Raises
    ------
    InputError
        If the outline has too few or too many corners, or hardly anything lies in it.
    """
    if not 3 <= len(outline) <= MOST_OUTLINE:
        raise InputError(
            f"{len(outline)} corners. Trace 3 to {MOST_OUTLINE} points around the blade.", pointer="/outline"
        )
    chosen = picture[inside(outline, *picture.shape[:2])]
    if len(chosen) < LEAST_INSIDE:
        raise InputError(
            f"Only {len(chosen)} px lie inside the outline. Trace it around the blade, inside the photo.",
            pointer="/outline",
        )
    shift = 8 - BITS
    parts = (chosen >> shift).astype(np.int64)
    keys, counts = np.unique((parts[:, 0] << (2 * BITS)) | (parts[:, 1] << BITS) | parts[:, 2], return_counts=True)
    mask, middle = (1 << BITS) - 1, (1 << shift) // 2
    return [
        ColourCount(
            int((k >> (2 * BITS) & mask) << shift) + middle,
            int((k >> BITS & mask) << shift) + middle,
            int((k & mask) << shift) + middle,
            int(n),
        )
        for k, n in zip(keys, counts, strict=True)
    ]


@calculation("photo-marks", title="Brown and yellow of a blade", station="leaf", many_rows=True)
def photo_marks(
    *, colours: list[ColourCount], thresholds: Thresholds | None = None, grey: ColourCount | None = None
) -> Computed[PhotoMarks]:
    """Brown and yellow share of a blade from the colours inside its outline.

    Parameters
    ----------
    colours : list[ColourCount]
        Each colour with its pixels, channels 0 to 255, at most 262 144 colours.
    thresholds : Thresholds
        Where green, yellow and brown part, hue 0 to 360 (degrees), lightness and chroma 0 to 1; empty: the usual ones.
    grey : ColourCount
        What a grey card is in this photo: its colour is taken off as the light's; empty: no card.

    Returns
    -------
    Computed
        Shares of green, yellow, brown and unclear (glare, deep shade). [%]

    Raises
    ------
    OutOfRange, InputError
        If a channel or threshold cannot be, or no pixel is given.

    Notes
    -----
    OKLab: equal steps look equal. Glare and deep shade are unclear and belong to no colour.

    References
    ----------
    E7.11
    """
    if len(colours) > MOST_COLOURS:
        raise InputError(f"{len(colours)} colours. Give at most {MOST_COLOURS}.", pointer="/colours")
    for i, c in enumerate([*colours, *([grey] if grey else [])]):
        at = f"/colours/{i}" if i < len(colours) else "/grey"
        for name in ("red", "green", "blue"):
            require(getattr(c, name), f"{name.capitalize()} of a colour", "", low=0, high=255, pointer=f"{at}/{name}")
        require(c.pixels, "Pixels of a colour", "", low=0, high=1e9, pointer=f"{at}/pixels")
    t = thresholds or Thresholds()
    require(t.green_from, "Green from hue", "°", low=0, high=360, pointer="/thresholds/green_from")
    require(t.yellow_from, "Yellow from hue", "°", low=0, high=360, pointer="/thresholds/yellow_from")
    require(t.brown_below, "Brown below lightness", "", low=0, high=1, pointer="/thresholds/brown_below")
    require(t.grey_below, "Grey below chroma", "", low=0, high=1, pointer="/thresholds/grey_below")
    if t.yellow_from > t.green_from:
        raise InputError(
            f"Yellow from hue {t.yellow_from:g} is beyond green from {t.green_from:g}. Keep yellow below green.",
            pointer="/thresholds/yellow_from",
        )
    weights = np.array([c.pixels for c in colours], dtype=np.float64)
    if weights.sum() <= 0:
        raise InputError("No pixel is inside the outline. Trace it around the blade.", pointer="/colours")
    light = linear(np.array([[c.red, c.green, c.blue] for c in colours], dtype=np.float64) / 255)
    if grey is not None:
        card = linear(np.array([[grey.red, grey.green, grey.blue]], dtype=np.float64) / 255)[0]
        if card.min() <= 0:
            raise InputError("The grey card is black in one colour. Tap the card where it is lit.", pointer="/grey")
        light = np.clip(light * (card.mean() / card), 0, 1)
    lab = oklab(light)
    chroma = np.hypot(lab[:, 1], lab[:, 2])
    hue = np.degrees(np.arctan2(lab[:, 2], lab[:, 1])) % 360
    dim = chroma < t.grey_below
    unclear = (dim & (lab[:, 0] > 0.85)) | (lab[:, 0] < 0.12)
    green = ~unclear & ~dim & (hue >= t.green_from) & (hue < 250)
    warm = ~unclear & ~green
    yellow = warm & ~dim & (hue >= t.yellow_from) & (lab[:, 0] >= t.brown_below)
    brown = warm & ~yellow
    ledger = Ledger("Brown and yellow of a blade", "By colour alone, in even light.", ("oklab", "judgement"))
    ledger.take("H_g", "green from hue", t.green_from, "°", "threshold")
    ledger.take("H_y", "yellow from hue", t.yellow_from, "°", "threshold")
    ledger.take("L_b", "brown below lightness", t.brown_below, "", "threshold")
    ledger.take("N", "pixels inside", float(weights.sum()), "px", "photo")
    for symbol, name, mask in (("g", "green", green), ("y", "yellow", yellow), ("b", "brown", brown)):
        ledger.found(f"n_{symbol}", f"pixels {name}", float(weights[mask].sum()), "px", "OKLab hue and lightness")
    g = ledger.step("G", "100 * n_g / N", "%", "green")
    y = ledger.step("Y", "100 * n_y / N", "%", "yellow")
    b = ledger.step("B", "100 * n_b / N", "%", "brown")
    rest = ledger.step("U", "100 - G - Y - B", "%", "unclear: glare or deep shade")
    if rest > 10:
        ledger.caution("Much glare or shade in the outline: take the photo in even light.")
    if grey is None:
        ledger.assume("The light is white: no grey card in the photo.")
    said = f"{b:.0f} % brown, {y:.0f} % yellow, {g:.0f} % green" + (f", {rest:.0f} % unclear." if rest >= 1 else ".")
    return ledger.close(PhotoMarks(g, y, b, max(0.0, rest), said))
