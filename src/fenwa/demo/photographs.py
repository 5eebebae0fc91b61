"""Photographs of the demonstration: plants drawn as a phone would see them, with what is true of them known.

No real photo is in them. A leaf is as long as the log says and the rim as wide as the pot: measuring finds both again.
"""

from __future__ import annotations

import io
import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter

WIDTH, HEIGHT = 760, 860
FINER = 2  # drawn so much larger, then made small: soft edges as a lens gives them
WALL, TABLE = (222, 226, 221), (190, 181, 166)
CLAY, RIM, BARK, SALT = (164, 96, 70), (182, 112, 84), (92, 68, 50), (238, 236, 228)
GREENS = ((82, 132, 70), (96, 146, 80), (74, 120, 64))
BROWN, YELLOW = (116, 76, 44), (206, 190, 86)


@dataclass(frozen=True)
class DrawnLeaf:
    """A leaf of the picture: its length, the brown share of it from the tip, yellow when old. [mm]"""

    mm: float
    brown: float = 0.0
    yellow: bool = False
    spot: bool = False


@dataclass(frozen=True)
class Photograph:
    """A drawn photo with what is true in it: ends of the rim and each leaf's midrib. [px]"""

    jpeg: bytes
    rim: tuple[tuple[float, float], tuple[float, float]]
    midribs: tuple[tuple[tuple[float, float], ...], ...]


def _bow(mm: float, lean: float) -> list[tuple[float, float]]:
    """A leaf's midrib from its base: upright at first, then over to its side; as long as told. [mm, up is negative]"""
    n = 40
    step = mm / (n - 1)
    x = y = 0.0
    out = [(x, y)]
    for i in range(1, n):
        angle = lean * (0.45 + 0.55 * i / n)
        x, y = x + step * math.sin(angle), y - step * math.cos(angle)
        out.append((x, y))
    return out


def _blade(rib: list[tuple[float, float]], wide: float) -> list[tuple[float, float]]:
    left, right = [], []
    for i, (x, y) in enumerate(rib):
        j, k = max(i - 1, 0), min(i + 1, len(rib) - 1)
        dx, dy = rib[k][0] - rib[j][0], rib[k][1] - rib[j][1]
        size = math.hypot(dx, dy) or 1.0
        t = i / (len(rib) - 1)
        half = wide * math.sin(math.pi * min(1.0, 0.12 + 0.88 * t)) ** 0.7
        left.append((x - half * dy / size, y + half * dx / size))
        right.append((x + half * dy / size, y - half * dx / size))
    return [*left, *reversed(right)]


def photograph(
    rng: np.random.Generator, *, rim_mm: float, leaves: list[DrawnLeaf], crust: bool = False, warm: float = 0.0
) -> Photograph:
    """One photo of a plant in its pot; each is taken from a little nearer or farther, and never quite level."""
    tallest = max((x.mm for x in leaves), default=100.0)
    room = min(0.62 * HEIGHT / tallest, 0.42 * WIDTH / rim_mm)
    k = room * float(rng.uniform(0.9, 1.0)) * FINER  # pixels a millimetre
    turn = math.radians(float(rng.uniform(-2.5, 2.5)))
    cx = FINER * (WIDTH / 2 + float(rng.uniform(-18, 18)))
    cy = FINER * (HEIGHT * 0.70 + float(rng.uniform(-14, 14)))

    def px(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        c, s = k * math.cos(turn), k * math.sin(turn)
        return [(cx + c * x - s * y, cy + s * x + c * y) for x, y in points]

    picture = Image.new("RGB", (WIDTH * FINER, HEIGHT * FINER), WALL)
    draw = ImageDraw.Draw(picture)
    draw.rectangle((0, int(HEIGHT * FINER * 0.86), WIDTH * FINER, HEIGHT * FINER), fill=TABLE)
    r = rim_mm / 2
    deep = 0.85 * rim_mm
    draw.polygon(px([(-r * 0.93, 0), (r * 0.93, 0), (r * 0.7, deep), (-r * 0.7, deep)]), fill=CLAY)
    draw.polygon(px([(-r, -4), (r, -4), (r, 9), (-r, 9)]), fill=RIM)
    draw.polygon(px([(-r * 0.95, -4), (r * 0.95, -4), (r * 0.9, -10), (-r * 0.9, -10)]), fill=BARK)
    if crust:
        for at in rng.uniform(-0.85, 0.85, 9):
            draw.polygon(px([(r * at - 6, -8), (r * at + 6, -8), (r * at + 4, -3), (r * at - 5, -3)]), fill=SALT)
    ribs = []
    spread = np.linspace(-1.15, 1.15, max(len(leaves), 2))
    order = [*range(0, len(leaves), 2), *reversed(range(1, len(leaves), 2))]
    for place, i in enumerate(order):
        leaf = leaves[i]
        lean = float(spread[place]) + float(rng.normal(0, 0.05))
        rib = _bow(leaf.mm, lean)
        wide = max(5.0, leaf.mm * 0.085)
        green = YELLOW if leaf.yellow else GREENS[i % len(GREENS)]
        draw.polygon(px(_blade(rib, wide)), fill=green, outline=tuple(int(0.7 * v) for v in green))
        draw.line(px(rib), fill=tuple(int(0.82 * v) for v in green), width=int(1.6 * FINER))
        if leaf.brown > 0:
            whole = _blade(rib, wide)
            n = len(rib)
            first = min(n - 2, int(n * (1 - leaf.brown)))
            draw.polygon(px([*whole[first:n], *whole[n : 2 * n - first]]), fill=BROWN)
        if leaf.spot:
            x, y = px([rib[len(rib) // 2]])[0]
            draw.ellipse((x - 5 * FINER, y - 4 * FINER, x + 5 * FINER, y + 4 * FINER), fill=BROWN)
        ribs.append((i, tuple((x / FINER, y / FINER) for x, y in px(rib[:: len(rib) // 6] + rib[-1:]))))
    small = picture.reduce(FINER).filter(ImageFilter.GaussianBlur(0.6))
    light = _light(rng, np.asarray(small, dtype=np.float64), warm)
    out = io.BytesIO()
    Image.fromarray(light).save(out, "JPEG", quality=90)
    ends = px([(-r, 0), (r, 0)])
    return Photograph(
        out.getvalue(),
        ((ends[0][0] / FINER, ends[0][1] / FINER), (ends[1][0] / FINER, ends[1][1] / FINER)),
        tuple(rib for _, rib in sorted(ribs)),
    )


def _light(rng: np.random.Generator, picture: NDArray[np.float64], warm: float) -> NDArray[np.uint8]:
    """Light from the left, a little uneven, and the grain of a phone at dusk."""
    shade = 1.06 - 0.14 * np.linspace(0, 1, picture.shape[1])[None, :, None]
    tint = np.array([1 + warm, 1.0, 1 - warm])
    grain = rng.normal(0, 3.2, picture.shape[:2])[..., None]
    lit: NDArray[np.uint8] = np.clip(picture * shade * tint + grain, 0, 255).astype(np.uint8)
    return lit
