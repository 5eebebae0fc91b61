"""Measuring in photos on pictures drawn here, whose truth is known."""

import math
from datetime import date

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from fenwa.core.errors import InputError, OutOfRange
from fenwa.core.leaf.changes import Happened, between
from fenwa.core.leaf.colours import ColourCount, Thresholds, colours_inside, inside, photo_marks
from fenwa.core.leaf.photo import PhotoPoint, RimTaps, curve, photo_length, photo_pair, photo_scale, tap_error
from fenwa.core.leaf.sizes import LeafLength, SeenLeaf

GREEN, BROWN, YELLOW, POT = (74, 128, 62), (118, 78, 44), (214, 196, 84), (172, 98, 70)


def bow(mm: float, bend: float, n: int) -> list[tuple[float, float]]:
    """Points along an arc of a known length [mm]; ``bend``: the angle it turns through."""
    if bend < 1e-6:
        return [(mm * i / (n - 1), 0.0) for i in range(n)]
    r = mm / bend
    return [(r * math.sin(bend * i / (n - 1)), r * (1 - math.cos(bend * i / (n - 1)))) for i in range(n)]


def turned(points: list[tuple[float, float]], k: float, angle: float, x: float, y: float) -> list[PhotoPoint]:
    c, s = k * math.cos(angle), k * math.sin(angle)
    return [PhotoPoint(c * a - s * b + x, s * a + c * b + y) for a, b in points]


@given(
    mm=st.floats(30, 400),
    bend=st.floats(0, 1.8),
    taps=st.integers(4, 9),
    px_per_mm=st.floats(1.5, 12),
    angle=st.floats(0, 2 * math.pi),
)
@settings(deadline=None, max_examples=60)
def test_a_bowed_leaf_is_as_long_as_it_is_whatever_its_turn_and_size(
    mm: float, bend: float, taps: int, px_per_mm: float, angle: float
) -> None:
    rim = turned([(0, 0), (120, 0)], px_per_mm, angle, 900, 700)
    scale = photo_scale(first=rim[0], second=rim[1], known_mm=120).result
    found = photo_length(
        points=turned(bow(mm, bend, taps), px_per_mm, angle + 1, 500, 400),
        mm_per_px=scale.mm_per_px,
        scale_error=scale.error,
    ).result
    assert found.mm == pytest.approx(mm, rel=0.02)
    assert found.low_mm < found.mm < found.high_mm


def test_a_drawn_leaf_is_measured_within_two_percent() -> None:
    """Taps read off the drawn picture itself: the middle of a dark midrib on a green blade, the ends of a pale rim."""
    k, true_mm = 6.0, 142.0
    picture = Image.new("RGB", (1400, 1000), (236, 232, 224))
    draw = ImageDraw.Draw(picture)
    draw.line([(300, 900), (300 + 110 * k, 900)], fill=(255, 0, 255), width=3)
    spine = [(p.x, p.y) for p in turned(bow(true_mm, 1.1, 120), k, -0.7, 350, 860)]
    draw.line(spine, fill=(20, 60, 20), width=5, joint="curve")
    pixels = np.asarray(picture).astype(int)
    rim_y, rim_x = np.nonzero((pixels[..., 0] > 200) & (pixels[..., 1] < 60))
    rib_y, rib_x = np.nonzero((pixels[..., 0] < 60) & (pixels[..., 1] < 90))
    left, right = rim_x.argmin(), rim_x.argmax()
    scale = photo_scale(
        first=PhotoPoint(float(rim_x[left]), float(rim_y[left])),
        second=PhotoPoint(float(rim_x[right]), float(rim_y[right])),
        known_mm=110,
    ).result
    order = np.argsort(rib_x)
    taps = []
    for part in np.array_split(order, 160)[:: 160 // 7]:
        taps.append(PhotoPoint(float(rib_x[part].mean()), float(rib_y[part].mean())))
    last = order[-20:]
    taps.append(PhotoPoint(float(rib_x[last].mean()), float(rib_y[last].mean())))
    taps[0] = PhotoPoint(float(rib_x[order[:20]].mean()), float(rib_y[order[:20]].mean()))
    found = photo_length(points=taps, mm_per_px=scale.mm_per_px, scale_error=scale.error).result
    assert found.mm == pytest.approx(true_mm, rel=0.02)


def blade(brown: float, yellow: float, seed: int, *, tint: tuple[float, float, float] = (1, 1, 1)) -> NDArray[np.uint8]:
    """A green blade with a brown end and a yellow belt of known shares, uneven as leaves are."""
    rng = np.random.default_rng(seed)
    height, width = 240, 600
    out = np.full((height, width, 3), (236, 232, 224), dtype=float)
    across = np.broadcast_to((np.arange(width) + 0.5)[None, :] / width, (height, width))
    out[:] = GREEN
    out[across > 1 - brown] = BROWN
    out[(across <= 1 - brown) & (across > 1 - brown - yellow)] = YELLOW
    out = out * rng.normal(1, 0.06, (height, width, 1)) * np.array(tint)
    return np.clip(out, 0, 255).astype(np.uint8)


WHOLE = [PhotoPoint(0, 0), PhotoPoint(600, 0), PhotoPoint(600, 240), PhotoPoint(0, 240)]


@pytest.mark.parametrize(("brown", "yellow"), [(0.0, 0.0), (0.05, 0.0), (0.22, 0.1), (0.6, 0.3), (0.0, 0.4)])
def test_shares_of_a_drawn_blade_are_within_three_points(brown: float, yellow: float) -> None:
    found = photo_marks(colours=colours_inside(blade(brown, yellow, 3), WHOLE)).result
    assert found.brown == pytest.approx(100 * brown, abs=3)
    assert found.yellow == pytest.approx(100 * yellow, abs=3)
    assert found.green + found.yellow + found.brown + found.unclear == pytest.approx(100)


def test_a_grey_card_takes_the_light_off() -> None:
    """Under a warm lamp green reads brown; with the card in the photo it is green again."""
    warm = blade(0.2, 0.0, 5, tint=(1.9, 1.0, 0.5))
    card = ColourCount(int(120 * 1.9), 120, int(120 * 0.5), 1)
    without = photo_marks(colours=colours_inside(warm, WHOLE)).result
    with_card = photo_marks(colours=colours_inside(warm, WHOLE), grey=card).result
    assert without.green < 20
    assert with_card.brown == pytest.approx(20, abs=3)


def test_thresholds_move_what_counts_as_brown() -> None:
    colours = colours_inside(blade(0.0, 0.3, 7), WHOLE)
    assert photo_marks(colours=colours).result.yellow == pytest.approx(30, abs=3)
    moved = photo_marks(colours=colours, thresholds=Thresholds(yellow_from=112)).result
    assert moved.brown == pytest.approx(30, abs=3)


def test_glare_is_no_colour_of_a_leaf() -> None:
    glare = photo_marks(colours=[ColourCount(250, 250, 250, 30), ColourCount(*GREEN, 70)])
    assert glare.result.unclear == pytest.approx(30)
    assert any("glare" in c for c in glare.working.cautions)


def test_an_outline_takes_what_lies_in_it_and_nothing_else() -> None:
    corner = inside([PhotoPoint(0, 0), PhotoPoint(10, 0), PhotoPoint(10, 10), PhotoPoint(0, 10)], 20, 20)
    assert corner.sum() == 100
    assert not corner[:, 10:].any()


@given(k=st.floats(0.3, 3), angle=st.floats(-0.6, 0.6), x=st.floats(-200, 200), y=st.floats(-200, 200))
@settings(deadline=None, max_examples=40)
def test_two_photos_of_one_thing_lie_on_each_other(k: float, angle: float, x: float, y: float) -> None:
    """A point of the plant has one place on the ruler, whatever each camera did."""
    thing = [(0.0, 0.0), (110.0, 0.0), (40.0, -95.0)]
    one, two = turned(thing, 4.0, 0.1, 300, 800), turned(thing, 4.0 * k, angle, 500 + x, 700 + y)
    pair = photo_pair(before=RimTaps(one[0], one[1], 110), after=RimTaps(two[0], two[1], 110), days=30).result
    for a, b in zip(one, two, strict=True):
        places = [
            (m.a * p.x + m.c * p.y + m.e, m.b * p.x + m.d * p.y + m.f) for m, p in ((pair.before, a), (pair.after, b))
        ]
        assert places[0] == pytest.approx(places[1], abs=1e-6)
    assert pair.before.a * one[0].x + pair.before.c * one[0].y + pair.before.e == pytest.approx(-55)


def test_a_rim_tapped_the_other_way_round_is_said() -> None:
    a, b = PhotoPoint(100, 300), PhotoPoint(300, 300)
    pair = photo_pair(before=RimTaps(a, b, 100), after=RimTaps(b, a, 100), days=3)
    assert "left end first" in pair.working.cautions[0]


@pytest.mark.parametrize(
    ("call", "error", "pointer"),
    [
        (lambda: photo_scale(first=PhotoPoint(0, 0), second=PhotoPoint(5, 0), known_mm=10), InputError, "/second"),
        (lambda: photo_scale(first=PhotoPoint(0, 0), second=PhotoPoint(500, 0), known_mm=0), OutOfRange, "/known_mm"),
        (lambda: photo_scale(first=PhotoPoint(math.nan, 0), second=PhotoPoint(500, 0), known_mm=9), InputError, ""),
        (lambda: photo_length(points=[PhotoPoint(0, 0)], mm_per_px=1), InputError, "/points"),
        (lambda: photo_length(points=[PhotoPoint(0, 0), PhotoPoint(0, 0.5)], mm_per_px=1), InputError, "/points/1"),
        (lambda: photo_length(points=[PhotoPoint(0, 0), PhotoPoint(9, 9)], mm_per_px=0), OutOfRange, "/mm_per_px"),
        (lambda: photo_marks(colours=[]), InputError, "/colours"),
        (lambda: photo_marks(colours=[ColourCount(300, 0, 0, 1)]), OutOfRange, "/colours/0/red"),
        (lambda: photo_marks(colours=[ColourCount(*GREEN, 9)], grey=ColourCount(0, 9, 9, 1)), InputError, "/grey"),
        (
            lambda: photo_marks(colours=[ColourCount(*GREEN, 9)], thresholds=Thresholds(yellow_from=200)),
            InputError,
            "/thresholds/yellow_from",
        ),
        (lambda: colours_inside(blade(0, 0, 1), WHOLE[:2]), InputError, "/outline"),
        (lambda: colours_inside(blade(0, 0, 1), [PhotoPoint(900 + p.x, p.y) for p in WHOLE]), InputError, "/outline"),
        (lambda: tap_error(4000, 10), OutOfRange, "/shown_px"),
        (
            lambda: photo_pair(
                before=RimTaps(PhotoPoint(0, 0), PhotoPoint(100, 0), 110),
                after=RimTaps(PhotoPoint(0, 0), PhotoPoint(3, 0), 110),
                days=1,
            ),
            InputError,
            "/after/second",
        ),
    ],
)
def test_what_cannot_be_measured_is_refused_by_its_field(call, error, pointer) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(error) as refused:
        call()
    assert refused.value.pointer.startswith(pointer)


def test_a_curve_goes_through_its_taps() -> None:
    taps = turned(bow(100, 1.0, 5), 5, 0.3, 50, 80)
    line = curve(taps)
    for tap in taps:
        assert np.hypot(line[:, 0] - tap.x, line[:, 1] - tap.y).min() < 1e-6


def leaf(number: int, opened: str, *lengths: tuple[str, float]) -> SeenLeaf:
    measured = tuple(LeafLength(date.fromisoformat(on), mm) for on, mm in lengths)
    return SeenLeaf(date.fromisoformat(opened), measured, number, number)


def test_between_two_photos_a_leaf_is_told_by_when_it_was_formed() -> None:
    leaves = [
        leaf(1, "2026-06-01", ("2026-09-20", 150.0)),
        leaf(2, "2026-07-31", ("2026-09-20", 148.0), ("2026-11-20", 149.0)),
        leaf(3, "2026-11-10", ("2026-11-20", 160.0)),
    ]
    found = between(
        leaves=leaves,
        changes=[Happened(date(2026, 9, 1), "moved"), Happened(date(2026, 9, 5), "flush", True)],
        before_on=date(2026, 9, 20),
        after_on=date(2026, 11, 20),
        lag_days=(10, 28),
    )
    assert [x.formed for x in found.leaves] == ["formed before", "formed before", "begun before"]
    assert found.leaves[1].after_mm == 149.0
    assert found.leaves[0].after_mm == 150.0, "a finished leaf keeps its size"
    assert found.leaves[2].before_mm is None, "not there yet is not zero"
    assert found.formed_after == 0
    later = between(
        leaves=[*leaves, leaf(4, "2027-03-01")],
        changes=[Happened(date(2026, 9, 5), "flush", True)],
        before_on=date(2026, 9, 20),
        after_on=date(2027, 3, 2),
        lag_days=(10, 28),
    )
    assert later.formed_after == 1
    nothing = between(leaves=leaves, changes=[], before_on=date(2026, 9, 1), after_on=date(2026, 9, 2), lag_days=(1, 2))
    assert "nothing was changed" in nothing.sentence
