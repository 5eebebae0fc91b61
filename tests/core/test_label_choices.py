"""What a label leaves open is asked once, in the order of the form, and nothing that it does not state."""

from dataclasses import fields, replace
from itertools import product

import pytest

from fenwa.core.errors import Underspecified
from fenwa.core.mix.label_choices import ACIDITY_kg_t, Choices, Stated, need_choices

OPEN = Choices(None, None, None, False)
CHOSEN = Choices("w/w", "oxides", "oxides", True)  # type: ignore[arg-type]
NOTHING = Stated(liquid=False, density=False, phosphorus_or_potassium=False, calcium_magnesium_or_sulfur=False)


@pytest.mark.parametrize(
    ("stated", "chosen", "pointer", "words"),
    [
        ({"liquid": True}, {}, "/basis", "Grams in 100 g (w/w) or in 100 mL (w/v)"),
        ({"liquid": True}, {"basis": "w/w"}, "/density_g_mL", "Weigh 10 mL"),
        ({"phosphorus_or_potassium": True}, {}, "/pk_as", "P2O5 and K2O, or P and K"),
        ({"calcium_magnesium_or_sulfur": True}, {}, "/others_as", "CaO, MgO and SO3"),
    ],
)
def test_each_thing_left_open_is_asked_with_both_readings(
    stated: dict[str, bool], chosen: dict[str, str], pointer: str, words: str
) -> None:
    with pytest.raises(Underspecified) as asked:
        need_choices(replace(NOTHING, **stated), replace(OPEN, **chosen))  # type: ignore[arg-type]
    assert asked.value.pointer == pointer
    assert words in asked.value.detail


def test_a_stated_density_or_the_usual_one_is_enough_for_a_liquid() -> None:
    need_choices(replace(NOTHING, liquid=True, density=True), replace(OPEN, basis="w/v"))
    need_choices(replace(NOTHING, liquid=True), replace(OPEN, basis="w/v", density_unknown=True))


@pytest.mark.parametrize("stated", list(product([False, True], repeat=len(fields(Stated)))))
def test_nothing_is_asked_of_who_chose_and_nothing_that_is_not_stated(stated: tuple[bool, ...]) -> None:
    label = Stated(*stated)
    need_choices(label, CHOSEN)
    asks = label.liquid or label.phosphorus_or_potassium or label.calcium_magnesium_or_sulfur
    if asks:
        with pytest.raises(Underspecified):
            need_choices(label, OPEN)
    else:
        need_choices(label, OPEN)


def test_acidity_of_a_label_in_its_three_units() -> None:
    """A short ton is 2,000 lb and a long ton 2,240 lb: pounds a ton over that is the share, times 1,000 kg/t."""
    assert ACIDITY_kg_t["kg CaCO3/t"] == 1.0
    assert ACIDITY_kg_t["lb/short ton"] == pytest.approx(1000 / 2000, rel=1e-3)
    assert ACIDITY_kg_t["lb/long ton"] == pytest.approx(1000 / 2240, rel=1e-3)
