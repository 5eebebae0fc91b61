"""Three questions answered: who may drink which water, what serves all, what is missing."""

import pytest

from fenwa.core.care.first_plan import SaidLine, WaterAtHand, first_plan
from fenwa.core.errors import DomainError
from fenwa.core.library.loader import profiles
from fenwa.core.water.kinds import WaterKind

RAIN, TAP = WaterAtHand("rain", 8, 45), WaterAtHand("mains", 180, 850)


def plan(lines: list[str], *waters: WaterAtHand):  # type: ignore[no-untyped-def]
    return first_plan(lines=tuple(SaidLine(x) for x in lines), waters=waters).result


def test_thinning_is_at_the_worst_of_both_ranges() -> None:
    p = plan(["6 masdevallia", "2 highland nepenthes"], RAIN, TAP)
    # (850 - 45) / (120 - 45) = 10.7, (850 - 45) / (150 - 45) = 7.7
    words = {(v.kind, v.water): v.word for v in p.verdicts}
    assert words["masdevallia", 0] == "yes"
    assert words["masdevallia", 1] == "1 part in 11 of rain"
    assert words["nepenthes_highland", 1] == "1 part in 8 of rain"
    assert p.serves_all == (0,)
    assert p.sentence == "Rain alone serves all 8 pots."


def test_a_reading_that_decides_is_said_and_stands_first_of_what_is_missing() -> None:
    p = plan(["phalaenopsis", "masdevallia"], RAIN, WaterAtHand("soft", 90, 800))
    words = {v.kind: v.word for v in p.verdicts if v.water == 1}
    assert words["phalaenopsis"].startswith("read it, or 1 part in")
    assert p.missing[0].what == "One reading: naturally soft"
    assert "settles Masdevallia, Phalaenopsis" in p.missing[0].settles
    assert [m.verdicts for m in p.missing] == sorted((m.verdicts for m in p.missing), reverse=True)


def test_one_water_alone_is_thinned_with_nothing() -> None:
    p = plan(["masdevallia"], TAP)
    assert p.verdicts[0].word == "no"
    assert p.sentence == "No water of these serves that kind as it is."


def test_a_water_that_was_read_is_no_longer_missing() -> None:
    p = plan(["masdevallia"], WaterAtHand("mains", 95, 95, True))
    assert p.verdicts[0].word == "yes"
    assert [m.what for m in p.missing] == ["A feed"]
    assert "Chlorine" in p.caution  # an amount under the mark says nothing of what a pen cannot see
    assert plan(["masdevallia"], RAIN).caution == ""


def test_pots_of_one_kind_are_one_group_and_litres_count_each() -> None:
    one, three = plan(["1 masdevallia"], RAIN), plan(["2 masdevallia", "1 masdevallia"], RAIN)
    assert [g.pots for g in three.plants] == [3]
    assert three.low_L_week == pytest.approx(3 * one.low_L_week)
    assert 0 < one.low_L_week < one.high_L_week


def test_nothing_told_is_no_error() -> None:
    p = plan([])
    assert (p.low_L_week, p.thinner, p.verdicts) == (None, None, ())
    assert p.sentence == "Name a plant, and each water is judged for it."
    assert plan(["phalaenopsis"]).sentence == "Name a water, and it is judged for each kind."


@pytest.mark.parametrize("kind", sorted(profiles()))
def test_every_kind_is_served_by_distilled_water(kind: str) -> None:
    water: WaterKind = "distilled"
    p = plan([profiles()[kind].short], WaterAtHand(water, 1, 5))
    assert p.verdicts[0].answer == "yes"


@pytest.mark.parametrize(
    ("lines", "waters", "said"),
    [
        (["roses"], (RAIN,), "no kind that is known"),
        (["phal"] * 51, (), "51 lines"),
        ([], (RAIN,) * 13, "13 waters"),
        ([], (WaterAtHand("rain", -1, 5),), "Lower end -1"),
        ([], (WaterAtHand("rain", 9, 5),), "Upper end 5"),
        ([], (WaterAtHand("rain", 9, 20_001),), "Upper end 20"),
    ],
)
def test_what_cannot_be_is_refused(lines: list[str], waters: tuple[WaterAtHand, ...], said: str) -> None:
    with pytest.raises(DomainError, match=said):
        plan(lines, *waters)
