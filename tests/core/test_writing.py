"""Sentences in the reader's units: quantities and days taken apart from the words, written out in one place."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.errors import InputError
from fenwa.core.units import KIND_OF, in_own_unit
from fenwa.core.writing import Amount, Day, Reader, parts, plain, written

CANON = Reader()
FAR = Reader("ppm (0.5)", "°F", "US gal", "oz", "in", "month first")


@pytest.mark.parametrize(
    ("text", "reader", "said"),
    [
        ("It reads 500 µS/cm.", Reader(ec="mS/cm"), "It reads 0.5 mS/cm."),
        ("It reads 8 to 45 µS/cm.", Reader(ec="ppm (0.5)"), "It reads 4 to 22 ppm (0.5 scale)."),
        ("34 of at most 300 µS/cm.", Reader(ec="mS/cm"), "0.034 of at most 0.3 mS/cm."),
        ("Cooler: 14 against 17 °C.", Reader(temperature="°F"), "Cooler: 57 against 63 °F."),
        ("50 to 900 of at most 300 µS/cm.", Reader(ec="mS/cm"), "0.05 to 0.9 of at most 0.3 mS/cm."),
        ("Nights of 18 °C or more.", Reader(temperature="°F"), "Nights of 64 °F or more."),
        ("Down to -5 °C.", Reader(temperature="°F"), "Down to 23 °F."),
        ("Nights 4 °C warmer.", Reader(temperature="°F"), "Nights 7 °F warmer."),  # a step has no zero point
        ("Pour 7.6 L.", Reader(volume="US gal"), "Pour 2 US gal."),
        ("Pour 9 L.", Reader(volume="imp gal"), "Pour 2 imp gal."),
        ("Weigh 28.3 g.", Reader(mass="oz"), "Weigh 0.998 oz."),
        ("A leaf of 120 mm in a pot 12 cm wide.", Reader(length="in"), "A leaf of 4.72 in in a pot 4.7 in wide."),
        ("Too early until 2026-09-03.", CANON, "Too early until 3 Sep 2026."),
        ("Too early until 2026-09-03.", Reader(dates="month first"), "Too early until Sep 3, 2026."),
        ("Too early until 2026-09-03.", Reader(dates="ISO"), "Too early until 2026-09-03."),
        ("Read on 22 Nov.", Reader(dates="month first"), "Read on Nov 22."),
        ("Read on 22 Nov.", CANON, "Read on 22 Nov."),
        ("Fed from 1 March to 31 October.", CANON, "Fed from 1 March to 31 October."),
        ("Fed from 1 March to 31 October.", Reader(dates="month first"), "Fed from March 1 to October 31."),
        ("3 Marches, 4 Junipers", Reader(dates="month first"), "3 Marches, 4 Junipers"),
        ("1\u202f205 µS/cm", Reader(ec="mS/cm"), "1.205 mS/cm"),
    ],
)
def test_a_sentence_is_written_for_its_reader(text: str, reader: Reader, said: str) -> None:
    assert written(text, reader) == said


@pytest.mark.parametrize(
    "text",
    [
        "Draw 20 mL up to 100 mL.",  # a syringe is in millilitres everywhere
        "40 mg/L of nitrogen, 0.6 g/L of feed, 20 mg/L as CaCO3.",
        "P-06 and M-04, 3 of 12 pots, 56 in 100.",
        "Version 1.2.3, 20-20-20, 2026-13-45, 99 Nov.",
        "98 cm² of tray",
        "",
    ],
)
def test_what_is_no_quantity_of_a_choice_stays(text: str) -> None:
    assert written(text, FAR) == text


def test_a_sentence_is_words_with_values_and_units_beside_them() -> None:
    assert parts("From 8 to 45 µS/cm since 2026-11-23, 3 L.") == (
        "From ",
        Amount(("8", "45"), (" to ",), "µS/cm"),
        " since ",
        Day(23, 11, 2026, "Nov"),
        ", ",
        Amount(("3",), (), "L"),
        ".",
    )


@given(st.text(max_size=200))
def test_canonical_units_leave_every_text_but_its_days_alone(text: str) -> None:
    kept = written(text, Reader(dates="ISO"))
    assert kept == text or any(isinstance(p, Day) for p in parts(text))


@given(
    st.lists(
        st.tuples(
            st.sampled_from(sorted(KIND_OF)),
            st.floats(min_value=0.01, max_value=9999, allow_nan=False).map(lambda v: f"{v:.4g}"),
        ),
        min_size=1,
        max_size=4,
    )
)
def test_no_old_unit_is_left_with_every_unit_away_from_its_default(found: list[tuple[str, str]]) -> None:
    found = [(unit, number) for unit, number in found if "e" not in number] or [("L", "2")]
    text = "; ".join(f"here {number} {unit}" for unit, number in found) + "."
    assert re.search(r"\d (µS/cm|°C|cm|mm|L|g)\b", written(text, FAR)) is None


@given(st.floats(min_value=-1e6, max_value=1e6, allow_nan=False), st.integers(1, 6))
def test_a_number_keeps_its_significant_figures(value: float, figures: int) -> None:
    shown = float(plain(value, figures))
    assert "e" not in plain(value, figures)
    assert shown == pytest.approx(value, rel=0.51 * 10 ** (1 - figures), abs=1e-300)


@pytest.mark.parametrize(
    ("value", "unit", "own", "kept"),
    [
        (350, "ppm (0.7 scale)", "µS/cm", 500),
        (350, "ppm (0.7)", "µS/cm", 500),
        (0.5, "mS/cm", "µS/cm", 500),
        (77, "°F", "°C", 25),
        (1, "US gal", "L", 3.785411784),
        (1, "imp gal", "L", 4.54609),
        (1, "oz", "g", 28.349523125),
        (4, "in", "cm", 10.16),
        (4, "in", "mm", 101.6),
        (4, "cm", "mm", 40),
    ],
)
def test_what_is_typed_in_another_unit_is_kept_in_the_fields_own(
    value: float, unit: str, own: str, kept: float
) -> None:
    assert in_own_unit(value, unit, own) == pytest.approx(kept, rel=1e-11)


@pytest.mark.parametrize(("unit", "own"), [("oz", "cm"), ("in", "L"), ("furlong", "cm"), ("in", "days")])
def test_a_unit_of_another_kind_is_refused(unit: str, own: str) -> None:
    with pytest.raises(InputError, match="does not go with"):
        in_own_unit(1, unit, own)
