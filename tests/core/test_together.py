"""One change, and one school, over many pots: counted by hand."""

from __future__ import annotations

from typing import Any

import pytest

from fenwa.core.errors import DomainError
from fenwa.core.library.loader import get_medium
from fenwa.core.pot.ahead import Rhythm
from fenwa.core.pot.rhythms import WHAT_IFS, feed_share, litres_month, rinsed, with_what_if
from fenwa.core.pot.specification import PotSpec
from fenwa.core.pot.together import PotSchool, PotWhatIf, rhythms_together, schools_together

POT = PotSpec(1.0, get_medium("bark_mix").medium())
RHYTHM = Rhythm(7.0, (0.2, 0.3), (400.0, 60.0), (0.2, 1.0))


def rows(**crossing: int) -> list[PotWhatIf]:
    """Four pots of 2 L a month; so many cross under each change named by its first word."""
    out = []
    for change in WHAT_IFS:
        over = crossing.get(change.split()[0], crossing["as"])
        litres = 3.0 if change in ("pours half as large again", "every fourth pour a rinse") else 2.0
        out += [PotWhatIf(change, i < over, litres) for i in range(4)]
    return out


def test_the_change_that_leaves_fewest_over_with_least_water_is_named() -> None:
    found = rhythms_together(pots=rows(**{"as": 3, "pours": 1, "three": 1, "the": 2, "every": 2})).result
    assert [c.crossing for c in found.changes] == [3, 1, 1, 2, 2]
    assert found.best == "three quarters of the feed", "as few as larger pours, and no water more"
    assert found.sentence == "As it is, 3 of 4 cross within a year; with three quarters of the feed, 1."
    assert found.changes[1].more_litres_month == pytest.approx(4.0)
    assert found.changes[1].sentence == "Pours half as large again: 1 of 4 cross, 4.0 L more water a month."


@pytest.mark.parametrize(
    ("crossing", "says", "best"),
    [
        ({"as": 0}, "None of 4 crosses", None),
        ({"as": 2}, "none of these changes helps", None),
        ({"as": 1, "the": 0}, "1 of 4 crosses within a year; with the purest water, none.", "the purest water"),
    ],
)
def test_what_is_said_where_little_or_nothing_helps(crossing: dict[str, int], says: str, best: str | None) -> None:
    found = rhythms_together(pots=rows(**crossing)).result
    assert says in found.sentence
    assert found.best == best


def test_schools_over_many_pots_add_up() -> None:
    pots = [
        PotSchool("as logged", 1, 2.0, 100),
        PotSchool("as logged", 0, 0.0, 20),
        PotSchool("by calendar", 7, 8.0, 10),
        PotSchool("by calendar", 7, 6.0, 0),
        PotSchool("by forecast", 3, 4.0, 0),
        PotSchool("by forecast", 2, 3.0, 0),
    ]
    found = schools_together(pots=pots)
    assert [(s.flushes, s.litres, s.days_over, s.pots) for s in found.result.schools] == [
        (1, 2.0, 120, 2),
        (14, 14.0, 10, 2),
        (5, 7.0, 0, 2),
    ]
    assert found.result.sentence == "By the forecast keeps 2 pots lowest: 0 pot-days over, 7.0 L."
    assert {s.symbol: s.value for s in found.working.steps}["m0"] == pytest.approx(60)
    thrifty = schools_together(pots=[*pots, PotSchool("by reading", 0, 0.5, 300)]).result
    assert thrifty.sentence.endswith("By a measured reading takes least water: 0.5 L, 300 pot-days over.")


@pytest.mark.parametrize(
    ("run", "says"),
    [
        (lambda: rhythms_together(pots=[]), "No pot has a rhythm"),
        (lambda: rhythms_together(pots=[PotWhatIf("the purest water", False, 1)]), "No pot has a rhythm"),
        (lambda: rhythms_together(pots=[PotWhatIf("as it is", False, -1)]), "Water"),
        (lambda: rhythms_together(pots=[PotWhatIf("as it is", False, 10_001)]), "Water"),
        (lambda: schools_together(pots=[]), "No pot has a log"),
        (lambda: schools_together(pots=[PotSchool("as logged", -1, 1, 1)]), "Flushes"),
        (lambda: schools_together(pots=[PotSchool("as logged", 1, float("nan"), 1)]), "Litres"),
        (lambda: schools_together(pots=[PotSchool("as logged", 1, 1, 1461)]), "Days over"),
    ],
)
def test_what_cannot_be_is_refused(run: Any, says: str) -> None:
    with pytest.raises(DomainError, match=says):
        run()


def test_each_change_of_a_rhythm_by_hand() -> None:
    def under(change: Any, pot: PotSpec = POT) -> Rhythm:
        return with_what_if(RHYTHM, change, pot, 60.0, 15.0)

    assert under("as it is") is RHYTHM
    assert under("pours half as large again").volumes_L == pytest.approx((0.3, 0.45))
    assert under("three quarters of the feed").ecs_uS_cm == pytest.approx((60 + 0.75 * 340, 60))
    assert under("the purest water").ecs_uS_cm == pytest.approx((355, 15))
    four = under("every fourth pour a rinse")
    assert four.ecs_uS_cm == pytest.approx((400, 60, 400, 60) * 2)
    assert four.volumes_L[3] == pytest.approx(2 * max(0.25, POT.medium.theta_cc / 2))
    assert four.volumes_L[:3] == (0.2, 0.3, 0.2)
    tray = PotSpec(1.0, POT.medium, drainage="tray")
    for change in ("pours half as large again", "every fourth pour a rinse"):
        assert under(change, tray) is RHYTHM, "what does not drain is not poured more"
    assert litres_month(RHYTHM) == pytest.approx(0.25 / 7 * 30.44, rel=0.01)
    assert feed_share(rinsed(RHYTHM, 2, POT, 60.0), RHYTHM) == pytest.approx(1.0), "the second was plain already"
    assert feed_share(under("three quarters of the feed"), RHYTHM) == pytest.approx(375 / 460)
