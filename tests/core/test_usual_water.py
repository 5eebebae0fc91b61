"""Waters nobody measured: a range for every kind, narrowed by what is known, and refused where it cannot be."""

from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.errors import OutOfRange
from fenwa.core.water.blended import blended
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import SHAPES, BaseWater, WaterKind
from fenwa.core.water.usual import BY_UNKNOWN_SCALE, HARDNESS_WIDTH, REPORT_WIDTH, usual_water

KINDS: tuple[WaterKind, ...] = get_args(WaterKind)
HARD_KINDS = [k for k in KINDS if not water_kinds()[k].thin and k != "softened"]


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_its_range_from_its_row(kind: WaterKind) -> None:
    found = usual_water(kind=kind)
    u = found.result
    assert (u.low_uS_cm, u.usual_uS_cm, u.high_uS_cm) == water_kinds()[kind].usual_uS_cm
    assert (u.by, u.confidence) == ("its kind", "low")
    assert u.sentence.startswith("Not measured; ")
    assert found.working.cautions, "nobody measured it: that is said"


@pytest.mark.parametrize("kind", HARD_KINDS)
def test_the_hardness_of_its_shape_gives_the_conductivity_of_its_shape(kind: WaterKind) -> None:
    shape = SHAPES[kind]
    hardness = 2.497 * (shape.Ca_mg_L or 0) + 4.118 * (shape.Mg_mg_L or 0)
    u = usual_water(kind=kind, hardness_mg_L_CaCO3=hardness).result
    assert u.usual_uS_cm == pytest.approx(ec_of(shape))
    assert u.low_uS_cm == pytest.approx(u.usual_uS_cm * (1 - HARDNESS_WIDTH))
    assert u.high_uS_cm == pytest.approx(u.usual_uS_cm * (1 + HARDNESS_WIDTH))
    assert u.by == "its hardness"


@given(st.sampled_from(HARD_KINDS), st.floats(0, 2000), st.floats(0, 2000))
def test_a_harder_water_conducts_more_and_none_is_free_of_salt(kind: WaterKind, one: float, other: float) -> None:
    soft, hard = sorted((one, other))
    a = usual_water(kind=kind, hardness_mg_L_CaCO3=soft).result
    b = usual_water(kind=kind, hardness_mg_L_CaCO3=hard).result
    assert 0 < a.usual_uS_cm <= b.usual_uS_cm


@pytest.mark.parametrize("kind", [k for k in KINDS if k not in HARD_KINDS])
def test_where_hardness_tells_nothing_the_kind_stands(kind: WaterKind) -> None:
    """Softened water has no hardness and all its salt; a nearly pure one has neither."""
    assert usual_water(kind=kind, hardness_mg_L_CaCO3=0).result == usual_water(kind=kind).result


@pytest.mark.parametrize(
    ("ppm", "low", "high"),
    [(88.0, 88 / 0.7, 176.0), (9.0, 9 / 0.7, 18.0)],  # by the scales of 0.7 and of 0.5
)
def test_a_pen_of_unknown_scale_spans_all_scales(ppm: float, low: float, high: float) -> None:
    u = usual_water(kind="mains", ppm_of_unknown_scale=ppm).result
    assert u.low_uS_cm == pytest.approx(low, rel=0.01)
    assert u.high_uS_cm == pytest.approx(high, rel=0.01)
    assert u.low_uS_cm < u.usual_uS_cm < u.high_uS_cm
    assert u.by == BY_UNKNOWN_SCALE


def test_the_nearest_knowledge_rules() -> None:
    report = WaterIons(Ca_mg_L=20.0, Cl_mg_L=35.5)
    by_report = usual_water(kind="mains", hardness_mg_L_CaCO3=300, report=report).result
    assert by_report.by == "its report"
    assert by_report.usual_uS_cm == pytest.approx(ec_of(report))
    assert by_report.high_uS_cm == pytest.approx(by_report.usual_uS_cm * (1 + REPORT_WIDTH))
    seen = usual_water(kind="mains", hardness_mg_L_CaCO3=300, report=report, ppm_of_unknown_scale=100).result
    assert seen.by == BY_UNKNOWN_SCALE


@pytest.mark.parametrize("report", [WaterIons(), WaterIons(pH=7.0), WaterIons(Ca_mg_L=0.0)])
def test_an_empty_report_is_none(report: WaterIons) -> None:
    assert usual_water(kind="mains", report=report).result.by == "its kind"


@pytest.mark.parametrize("kind", ["mains", "softened", "rain"])
@pytest.mark.parametrize(
    ("known", "pointer"),
    [
        ({"hardness_mg_L_CaCO3": -0.1}, "/hardness_mg_L_CaCO3"),
        ({"hardness_mg_L_CaCO3": 2001.0}, "/hardness_mg_L_CaCO3"),
        ({"hardness_mg_L_CaCO3": float("nan")}, "/hardness_mg_L_CaCO3"),
        ({"ppm_of_unknown_scale": 0.0}, "/ppm_of_unknown_scale"),
        ({"ppm_of_unknown_scale": 100_001.0}, "/ppm_of_unknown_scale"),
    ],
)
def test_what_cannot_be_is_refused_by_the_calculation_itself(
    kind: WaterKind, known: dict[str, float], pointer: str
) -> None:
    with pytest.raises(OutOfRange) as refused:
        usual_water(kind=kind, **known)  # type: ignore[arg-type]
    assert refused.value.pointer == pointer


@pytest.mark.parametrize("kind", ["mains", "rain"])
@pytest.mark.parametrize("seen", [None, 50.0])
@pytest.mark.parametrize("calcium", [-5.0, 1e9, float("nan")])
def test_a_report_that_cannot_be_is_refused_even_where_the_pen_rules(
    kind: WaterKind, seen: float | None, calcium: float
) -> None:
    with pytest.raises(OutOfRange) as refused:
        usual_water(kind=kind, report=WaterIons(Ca_mg_L=calcium), ppm_of_unknown_scale=seen)
    assert refused.value.pointer == "/report/Ca_mg_L"


@pytest.mark.parametrize(
    ("measured", "width"), [((True, True), 0.0), ((True, False), 10.0), ((False, True), 5.0), ((False, False), 15.0)]
)
def test_what_is_open_of_its_parts_stays_open_in_a_blend(measured: tuple[bool, bool], width: float) -> None:
    """A third of the first, two thirds of the second; 15 µS/cm open for each that nobody measured."""
    parts = [
        BaseWater(60.0, "mains", None, "Tap", 0.0 if measured[0] else 15.0, measured[0]),
        BaseWater(30.0, "mains", None, "Other", 0.0 if measured[1] else 15.0, measured[1]),
    ]
    mixed = blended([(parts[0], 1.0), (parts[1], 2.0)])
    assert mixed.ec25_uS_cm == pytest.approx(40.0)
    assert mixed.half_width_uS_cm == pytest.approx(width)
    assert mixed.measured is all(measured)
