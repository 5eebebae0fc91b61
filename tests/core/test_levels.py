"""Elements in a can, worked by hand: what each product brings and what the water adds."""

from dataclasses import fields

import pytest

from fenwa.core.mix.elements import Elements
from fenwa.core.mix.levels import ElementLevel, element_levels
from fenwa.core.water.ions import WaterIons

NOTHING = Elements(
    **{
        f.name: None if f.name == "density_g_mL" else True if f.name == "split_known" else 0.0
        for f in fields(Elements)
        if f.name != "closed_with"
    }
)


def with_amounts(**amounts: float) -> Elements:
    return Elements(**{**vars(NOTHING), **{f"{name}_mg_g": mg for name, mg in amounts.items()}})


NITRATE = with_amounts(N_nitrate=110.0, K=124.5, Ca=40.0)
IRON = with_amounts(Fe=60.0, Mn=20.0)


def level(levels: tuple[ElementLevel, ...], name: str) -> ElementLevel:
    return next(x for x in levels if x.name == name)


def test_doses_of_all_products_add_up_and_the_water_comes_on_top() -> None:
    """0.5 g/L of one and 0.02 g/L of the other in a water with 30 mg/L of calcium and 12 of sulfate."""
    water = WaterIons(Ca_mg_L=30.0, SO4_mg_L=12.0, NO3_mg_L=8.86)
    levels, working = element_levels([("Nitrate", NITRATE, 0.5), ("Iron", IRON, 0.02)], water)
    calcium = level(levels, "Calcium")
    assert (calcium.from_feed_mg_L, calcium.from_water_mg_L) == (pytest.approx(20.0), 30.0)
    assert calcium.in_can_mg_L == pytest.approx(50.0)
    nitrate = level(levels, "Nitrate N")
    assert nitrate.from_feed_mg_L == pytest.approx(55.0)
    assert nitrate.from_water_mg_L == pytest.approx(8.86 * 14.007 / 62.005, rel=1e-3)
    assert level(levels, "Sulfur").from_water_mg_L == pytest.approx(12.0 * 32.06 / 96.06, rel=1e-3)
    assert level(levels, "Iron").in_can_mg_L == pytest.approx(60.0 * 0.02)
    assert level(levels, "Manganese").in_can_mg_L == pytest.approx(20.0 * 0.02)
    assert working.formula_id == "mix.levels.element_levels"
    assert any(step.symbol == "E_Ca" and step.value == pytest.approx(50.0) for step in working.steps)


def test_traces_stand_only_where_a_label_names_them() -> None:
    levels, _ = element_levels([("Nitrate", NITRATE, 0.5)], None)
    assert [x.name for x in levels] == [
        "Nitrate N",
        "Ammonium N",
        "Urea N",
        "Phosphorus",
        "Potassium",
        "Calcium",
        "Magnesium",
        "Sulfur",
    ]


def test_a_water_nobody_reported_is_unknown_and_one_that_was_is_counted() -> None:
    unknown, working = element_levels([("Nitrate", NITRATE, 0.5)], None)
    assert level(unknown, "Calcium").from_water_mg_L is None
    assert level(unknown, "Calcium").in_can_mg_L == pytest.approx(20.0), "what is known of both"
    assert "The water's own ions are not known: only the feed's are counted." in working.assumptions
    partly, told = element_levels([("Nitrate", NITRATE, 0.5)], WaterIons(Ca_mg_L=0.0))
    assert level(partly, "Calcium").from_water_mg_L == 0.0
    assert level(partly, "Magnesium").from_water_mg_L is None, "not in the report"
    assert not any("not known" in a for a in told.assumptions)


def test_no_report_gives_urea_and_a_water_has_none() -> None:
    levels, _ = element_levels([("Nitrate", NITRATE, 0.5)], None)
    assert level(levels, "Urea N").from_water_mg_L == 0.0


def test_twice_the_dose_is_twice_the_feed_and_the_same_water() -> None:
    water = WaterIons(Ca_mg_L=30.0)
    once, _ = element_levels([("Nitrate", NITRATE, 0.5)], water)
    twice, _ = element_levels([("Nitrate", NITRATE, 1.0)], water)
    for a, b in zip(once, twice, strict=True):
        assert b.from_feed_mg_L == pytest.approx(2 * a.from_feed_mg_L)
        assert b.from_water_mg_L == a.from_water_mg_L
