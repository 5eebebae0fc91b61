"""A share of the label as it is spoken, read back as the same share, and a strength named in ppm."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.care.plan_pot import start_of_school
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.library.loader import schools
from fenwa.core.mix.strength import ambiguity_of, in_words, read_share, read_strength


@pytest.mark.parametrize(
    ("share", "words"),
    [
        (0.25, "one quarter"),
        (2 / 3, "two thirds"),
        (1.0, "the whole"),
        (0.1, "one tenth"),
        (3 / 7, "3/7"),
        (1 / 12, "1/12"),
        (0.37, "37 %"),
        (0.123456, "12.3 %"),
        (1.5, "150 %"),
        (0.0, "0 %"),
    ],
)
def test_a_share_is_spoken_as_a_simple_fraction_where_there_is_one(share: float, words: str) -> None:
    assert in_words(share) == words


@given(st.integers(1, 12).flatmap(lambda n: st.tuples(st.integers(1, n), st.just(n))))
def test_what_is_spoken_is_read_back(parts: tuple[int, int]) -> None:
    share = parts[0] / parts[1]
    words = in_words(share)
    assert read_share("full" if words == "the whole" else words).share == pytest.approx(share, rel=5e-3)


@given(st.integers(1, 99))
def test_taking_away_and_keeping_are_each_others_rest(percent: int) -> None:
    away, kept = read_share(f"reduce by {percent} %"), read_share(f"reduce to {percent} %")
    assert away.share + kept.share == pytest.approx(1.0)
    if percent >= 10:  # “cut it by 80” can only mean per cent
        assert read_share(f"cut it by {percent}").share == pytest.approx(away.share)


@pytest.mark.parametrize(
    ("share", "words"),
    [
        (None, "The label states no rate"),
        (0.25, "“Three-quarter strength” would be 3 times this."),
        (0.5, "the same as “reduce by one half”"),
        (1.0, "Keeps the whole of the label rate."),
    ],
)
def test_how_a_share_is_misheard(share: float | None, words: str) -> None:
    assert words in ambiguity_of(share)


@pytest.mark.parametrize("mode", ["nitrogen", "element"])
def test_ppm_of_an_element_is_a_weight_in_a_litre(mode: str) -> None:
    assert read_strength(mode, "125 ppm") == (125.0, "")  # type: ignore[arg-type]
    assert read_strength(mode, "62,5 PPM")[0] == 62.5  # type: ignore[arg-type]


@pytest.mark.parametrize("mode", ["ec_added", "ec_total", "dose"])
def test_ppm_of_all_salts_is_asked_with_every_scale(mode: str) -> None:
    with pytest.raises(Underspecified) as asked:
        read_strength(mode, "350 ppm")  # type: ignore[arg-type]
    assert "700 µS/cm on the" in asked.value.detail
    assert "nitrogen alone (350 mg/L N)" in asked.value.detail
    assert asked.value.pointer == "/value"


@pytest.mark.parametrize("wrong", ["", "lots", "1/0", "reduce by 3", "reduce by two wholes", "-1/4", "1//4"])
def test_what_is_no_share_is_refused(wrong: str) -> None:
    with pytest.raises(InputError):
        read_share(wrong)


@pytest.mark.parametrize("school_id", schools())
def test_a_school_becomes_a_plan_that_says_the_same(school_id: str) -> None:
    school = schools()[school_id]
    plan = start_of_school(school)
    if school.prill_g_L > 0 or school.route == "cup":
        assert plan is None, "no can holds prills or prey"
        return
    assert plan is not None
    if school.route == "leaf":
        assert (plan.route, plan.strength, plan.value) == ("leaf spray", "nitrogen", school.n_mg_L)
        assert plan.every_days == (school.every_days or 14.0)
        assert plan.spray_mL > 0
    elif school.n_mg_L <= 0:
        assert plan.rhythm == "never"
    elif school.label_share:
        assert (plan.strength, plan.value) == ("fraction", school.label_share)
    else:
        assert (plan.strength, plan.value) == ("nitrogen", school.n_mg_L)
