"""Lengths in a photo: a known length in it gives the scale, taps along the midrib give the leaf."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LARGEST_px = 100_000.0
LEAST_SPAN_px = 20.0  # a known length of less is no scale
TAP_px = 4.0  # how far off a tap is (SD), in a picture as wide as a phone shows it; judgement
TILT_deg = 8.0  # how far off level a hand holds a phone (SD); judgement
MOST_TAPS = 200
BETWEEN = 24  # points of the curve between two taps


@dataclass(frozen=True)
class PhotoPoint:
    """A point in a photo, from its top left corner. [px]"""

    x: float
    y: float


@dataclass(frozen=True)
class PhotoScale:
    """How long a pixel is, with its relative error (SD). [mm/px]"""

    mm_per_px: float
    error: float
    span_px: float
    sentence: str


def _check_point(p: PhotoPoint, pointer: str) -> None:
    require(p.x, "Point, across", "px", low=-LARGEST_px, high=LARGEST_px, pointer=f"{pointer}/x")
    require(p.y, "Point, down", "px", low=-LARGEST_px, high=LARGEST_px, pointer=f"{pointer}/y")


def _check_hand(tap_px: float, tilt_deg: float) -> None:
    require(tap_px, "Precision of a tap", "px", low=0, high=200, pointer="/tap_px")
    require(tilt_deg, "Tilt", "°", low=0, high=45, pointer="/tilt_deg")


@calculation("photo-scale", title="Scale of a photo", station="leaf")
def photo_scale(
    *, first: PhotoPoint, second: PhotoPoint, known_mm: float, tap_px: float = TAP_px, tilt_deg: float = TILT_deg
) -> Computed[PhotoScale]:
    """How many millimetres a pixel of a photo is, from two taps at the ends of a known length.

    Parameters
    ----------
    first : PhotoPoint
        One end of the pot's rim, a ruler or any known length. [px]
    second : PhotoPoint
        The other end, at least 20 px away. [px]
    known_mm : float
        How long that is, above 0 to 5 000. [mm]
    tap_px : float
        How far off a tap is (SD), 0 to 200. [px]
    tilt_deg : float
        How far off level the photo was taken (SD), 0 to 45. [°]

    Returns
    -------
    Computed
        Millimetres a pixel, with the relative error. [mm/px]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or the taps are too close.

    References
    ----------
    E7.9
    """
    _check_point(first, "/first")
    _check_point(second, "/second")
    require(known_mm, "Known length", "mm", low=0, open_low=True, high=5000, pointer="/known_mm")
    _check_hand(tap_px, tilt_deg)
    ledger = Ledger("Scale of a photo", "In the plane of the known length.", ("plane-photo", "judgement"))
    for symbol, label, value in (
        ("x_1", "first tap, across", first.x),
        ("y_1", "first tap, down", first.y),
        ("x_2", "second tap, across", second.x),
        ("y_2", "second tap, down", second.y),
    ):
        ledger.take(symbol, label, value, "px", "tapped")
    ledger.take("K", "known length", known_mm, "mm")
    ledger.take("t", "a tap is off by (SD)", tap_px, "px", "judgement")
    ledger.take("tilt", "loss by the tilt of a hand (share)", 1 - math.cos(math.radians(tilt_deg)), "", "judgement")
    span = math.hypot(second.x - first.x, second.y - first.y)
    if span < LEAST_SPAN_px:
        raise InputError(
            f"The two taps are {span:.0f} px apart. Tap both ends, at least {LEAST_SPAN_px:.0f} px apart.",
            pointer="/second",
        )
    ledger.step("s", "sqrt((x_2 - x_1) ** 2 + (y_2 - y_1) ** 2)", "px", "between the taps")
    scale = ledger.step("m", "K / s", "mm/px", "a pixel is")
    error = ledger.step("e", "sqrt(2 * (t / s) ** 2 + tilt ** 2)", "", "relative error (SD)")
    ledger.assume("The leaf lies as far from the camera as the known length.")
    said = f"{span:.0f} px are {known_mm:g} mm: a pixel is {scale:.3g} mm, within {100 * Z80 * error:.1f} %."
    return ledger.close(PhotoScale(scale, error, span, said))


@dataclass(frozen=True)
class PhotoLength:
    """A length in a photo with its 80 % range. [mm]"""

    mm: float
    low_mm: float
    high_mm: float
    px: float
    sentence: str


def curve(points: Sequence[PhotoPoint]) -> NDArray[np.float64]:
    """A smooth curve through taps (centripetal Catmull-Rom), so that the bow between two is not cut short.

    Parameters
    ----------
    points : Sequence[PhotoPoint]
        Two or more, none on the one before. [px]

    Returns
    -------
    NDArray[np.float64]
        Shape (n, 2). [px]
    """
    p = np.array([[q.x, q.y] for q in points], dtype=np.float64)
    if len(p) == 2:
        return p
    ends = np.vstack([2 * p[0] - p[1], p, 2 * p[-1] - p[-2]])
    u = np.linspace(0.0, 1.0, BETWEEN, endpoint=False)[:, None]
    out = []
    for a, b, c, d in zip(ends, ends[1:], ends[2:], ends[3:], strict=False):
        t0 = 0.0
        t1 = t0 + math.sqrt(float(np.linalg.norm(b - a)))
        t2 = t1 + math.sqrt(float(np.linalg.norm(c - b)))
        t3 = t2 + math.sqrt(float(np.linalg.norm(d - c)))
        t = t1 + u * (t2 - t1)
        ab = (t1 - t) / (t1 - t0) * a + (t - t0) / (t1 - t0) * b
        bc = (t2 - t) / (t2 - t1) * b + (t - t1) / (t2 - t1) * c
        cd = (t3 - t) / (t3 - t2) * c + (t - t2) / (t3 - t2) * d
        abc = (t2 - t) / (t2 - t0) * ab + (t - t0) / (t2 - t0) * bc
        bcd = (t3 - t) / (t3 - t1) * bc + (t - t1) / (t3 - t1) * cd
        out.append((t2 - t) / (t2 - t1) * abc + (t - t1) / (t2 - t1) * bcd)
    return np.vstack([*out, p[-1:]])


@calculation("photo-length", title="A length in a photo", station="leaf")
def photo_length(
    *, points: list[PhotoPoint], mm_per_px: float, scale_error: float = 0.0, tap_px: float = TAP_px
) -> Computed[PhotoLength]:
    """Length of a leaf traced by taps along its midrib, from base to tip, with its range.

    Parameters
    ----------
    points : list[PhotoPoint]
        Taps in order, 2 to 200, no two on one spot. [px]
    mm_per_px : float
        Scale of the photo, above 0 to 1 000. [mm/px]
    scale_error : float
        Relative error of the scale (SD), 0 to 1.
    tap_px : float
        How far off a tap is (SD), 0 to 200. [px]

    Returns
    -------
    Computed
        The length along the curve with its 80 % range. [mm]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or two taps in a row are on one spot.

    References
    ----------
    E7.10
    """
    if not 2 <= len(points) <= MOST_TAPS:
        raise InputError(f"{len(points)} taps. Tap 2 to {MOST_TAPS} points along the midrib.", pointer="/points")
    for i, p in enumerate(points):
        _check_point(p, f"/points/{i}")
    require(mm_per_px, "Scale", "mm/px", low=0, open_low=True, high=1000, pointer="/mm_per_px")
    require(scale_error, "Error of the scale", "", low=0, high=1, pointer="/scale_error")
    _check_hand(tap_px, 0)
    apart = [math.hypot(b.x - a.x, b.y - a.y) for a, b in pairwise(points)]
    if min(apart) < 1:
        i = apart.index(min(apart))
        raise InputError(f"Taps {i + 1} and {i + 2} are on one spot. Take one of them out.", pointer=f"/points/{i + 1}")
    along = float(np.linalg.norm(np.diff(curve(points), axis=0), axis=1).sum())
    ledger = Ledger(
        "A length in a photo", "A leaf that lies flat in the plane of the scale.", ("plane-photo", "judgement")
    )
    ledger.take("m", "a pixel is", mm_per_px, "mm/px", "photo-scale")
    ledger.take("e", "relative error of the scale (SD)", scale_error, "", "photo-scale")
    ledger.take("t", "a tap is off by (SD)", tap_px, "px", "judgement")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    ledger.found("s", "along the curve through the taps", along, "px", "centripetal Catmull-Rom")
    mm = ledger.step("L", "m * s", "mm", "length")
    ledger.step("r", "sqrt(e ** 2 + 2 * (t / s) ** 2)", "", "relative error (SD)")
    low = ledger.step("low", "L * exp(-z * r)", "mm", "four in five are longer")
    high = ledger.step("high", "L * exp(z * r)", "mm", "and shorter")
    bend = max(apart) / along
    if len(points) == 2:
        ledger.caution("Two taps give a straight line: tap along the bend of a leaf.")
    elif bend > 0.6 and len(points) < 5:
        ledger.caution("Most of the leaf lies between two taps: one more between them makes it surer.")
    return ledger.close(PhotoLength(mm, low, high, along, f"{mm:.0f} mm, {low:.0f} to {high:.0f} mm."))


def tap_error(width_px: float, shown_px: float) -> float:
    """How far off a tap is in a photo that was shown smaller or larger than it is (SD). [px]"""
    require(shown_px, "Width it was shown at", "px", low=50, high=LARGEST_px, pointer="/shown_px")
    return TAP_px * width_px / shown_px


@dataclass(frozen=True)
class RimTaps:
    """Two taps at the ends of a known length in one photo. [px, mm]"""

    first: PhotoPoint
    second: PhotoPoint
    known_mm: float


@dataclass(frozen=True)
class Laid:
    """A photo laid onto a common ruler: x mm = a x + c y + e, y mm = b x + d y + f of a pixel (x, y)."""

    a: float
    b: float
    c: float
    d: float
    e: float
    f: float


@dataclass(frozen=True)
class PhotoPair:
    """Two photos on one ruler whose origin is the middle of the rim, the rim level. [mm]"""

    before: Laid
    after: Laid
    days: int
    turned_deg: float
    sentence: str


@dataclass(frozen=True)
class Trace:
    """A line traced in a photo, on the common ruler: a leaf's midrib or the outline of a blade. [mm]"""

    leaf: int | None
    closed: bool
    points: tuple[PhotoPoint, ...]


@dataclass(frozen=True)
class Frame:
    """What a photo covers on the common ruler. [mm]"""

    left: float
    top: float
    right: float
    bottom: float


def on_ruler(laid: Laid, points: Sequence[PhotoPoint]) -> tuple[PhotoPoint, ...]:
    """Points of a photo on the common ruler. [mm]"""
    return tuple(PhotoPoint(laid.a * p.x + laid.c * p.y + laid.e, laid.b * p.x + laid.d * p.y + laid.f) for p in points)


def frame_of(laid: Laid, width_px: float, height_px: float) -> Frame:
    """The upright rectangle on the common ruler that holds a whole photo. [mm]"""
    corners = on_ruler(laid, [PhotoPoint(x, y) for x in (0, width_px) for y in (0, height_px)])
    across, down = [p.x for p in corners], [p.y for p in corners]
    return Frame(min(across), min(down), max(across), max(down))


def _laid(taps: RimTaps, mm_per_px: float) -> Laid:
    turn = -math.atan2(taps.second.y - taps.first.y, taps.second.x - taps.first.x)
    a, b = mm_per_px * math.cos(turn), mm_per_px * math.sin(turn)
    x, y = (taps.first.x + taps.second.x) / 2, (taps.first.y + taps.second.y) / 2
    return Laid(a, b, -b, a, -(a * x - b * y), -(b * x + a * y))


@calculation("photo-pair", title="Two photos on one ruler", station="leaf")
def photo_pair(*, before: RimTaps, after: RimTaps, days: float) -> Computed[PhotoPair]:
    """Lay two photos of one plant over each other: one scale, the rim of the pot level and in one place.

    Parameters
    ----------
    before : RimTaps
        Left and right end of the rim in the earlier photo, with its length above 0 to 5 000. [px, mm]
    after : RimTaps
        The same of the later photo. [px, mm]
    days : float
        Days between the photos, 0 to 36 500. [d]

    Returns
    -------
    Computed
        How each photo lies on the common ruler. [mm]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be, or two taps are too close.

    References
    ----------
    E7.9
    """
    require(days, "Days between", "d", low=0, high=36_500, pointer="/days")
    scales = []
    for name, taps in (("before", before), ("after", after)):
        try:
            scales.append(photo_scale(first=taps.first, second=taps.second, known_mm=taps.known_mm).result)
        except InputError as error:
            raise type(error)(error.detail, pointer=f"/{name}{error.pointer}") from error
    ledger = Ledger("Two photos on one ruler", "In the plane of the rim.", ("plane-photo",))
    for symbol, label, taps in (("b", "earlier", before), ("a", "later", after)):
        ledger.take(f"x_{symbol}", f"{label} photo: rim, across", taps.second.x - taps.first.x, "px", "tapped")
        ledger.take(f"y_{symbol}", f"{label} photo: rim, down", taps.second.y - taps.first.y, "px", "tapped")
        ledger.take(f"K_{symbol}", f"{label} photo: rim", taps.known_mm, "mm")
        ledger.step(f"m_{symbol}", f"K_{symbol} / sqrt(x_{symbol} ** 2 + y_{symbol} ** 2)", "mm/px", "a pixel is")
    tilts = [math.atan2(t.second.y - t.first.y, t.second.x - t.first.x) for t in (before, after)]
    turned = math.degrees((tilts[1] - tilts[0] + math.pi) % (2 * math.pi) - math.pi)
    ledger.found("w", "later photo turned against the earlier", turned, "°", "direction of the rim in each")
    if abs(turned) > 90:
        ledger.caution("The rim runs the other way in one photo: tap its left end first in both.")
    said = f"{days:g} days apart, on one ruler."
    return ledger.close(
        PhotoPair(_laid(before, scales[0].mm_per_px), _laid(after, scales[1].mm_per_px), int(days), turned, said)
    )
