"""What evidence reads of a plant: each measure up to the day, of the growth that leads, nothing not measured."""

from typing import Any

import pytest

from fenwa.core.care.vocabulary import DONE, LATER, SKIPPED, TREATED
from fenwa.core.evidence.changes import Noted, Poured
from fenwa.store.answer_rows import cases_of, checks_of, noted_by, poured_by, values_of
from fenwa.store.leaf_models import Leaf, Look, MarkRow, OrganRow, Photo, Rating
from fenwa.store.models import Decision, Event, Pot, Pour
from tests.conftest import TODAY, Client
from tests.store.rows import GONE, SIDE, ago, asked, put, two_pots


def look(days: int, **more: Any) -> Look:
    return Look(**({"pot_id": 1, "plant_id": 1, "on": ago(days)} | more))


def values(client: Client, measure: str, *plants: int) -> dict[int, list[float]]:
    """By plant, oldest first."""
    found = asked(client, lambda s: values_of(s, plants or (1, 2), [measure], TODAY))
    return {plant: [x.value for x in samples] for plant, samples in found[measure].items() if samples}


@pytest.fixture
def two(kept: Client) -> Client:
    return two_pots(kept)


def test_heights_are_of_the_growth_that_leads(two: Client) -> None:
    """Measured smaller, a side growth would read as a plant that shrank."""
    put(
        two,
        look(3, growth_cm=12.0),
        look(9, growth_cm=10.0),
        look(6, growth_cm=2.0, growth_id=SIDE),
        look(2, growth_cm=0.0),
        look(1, growth_cm=30.0, archived_at=GONE),
        look(-1, growth_cm=40.0),
        look(4, growth_cm=7.0, pot_id=2, plant_id=2),
    )
    assert values(two, "height") == {1: [10.0, 12.0], 2: [7.0]}
    assert values(two, "height", 2) == {2: [7.0]}
    two.made(f"/api/growths/{SIDE}/lead")
    assert values(two, "height", 1) == {1: [10.0, 2.0, 12.0]}, "what names the one that leads now counts from then on"


def counted_tips(client: Client, days: int, count: float | None, of: float | None, **more: Any) -> None:
    (seen,) = put(client, look(days, **more))
    put(client, OrganRow(look_id=seen, organ="root tips", count=count, of=of))


@pytest.mark.parametrize(
    ("count", "of", "share"),
    [(0.0, 8.0, 0.0), (6.0, 8.0, 0.75), (8.0, 8.0, 1.0), (None, 8.0, None), (3.0, None, None), (3.0, 0.0, None)],
)
def test_root_tips_are_a_share_of_those_that_were_looked_at(
    two: Client, count: float | None, of: float | None, share: float | None
) -> None:
    """None working is nought; none counted, or of none, is no value."""
    counted_tips(two, 5, count, of)
    counted_tips(two, 5, 1.0, 2.0, archived_at=GONE)
    counted_tips(two, -1, 1.0, 2.0)
    assert values(two, "root tips") == ({} if share is None else {1: [share]})


def test_a_leaf_without_a_mark_is_burnt_none_only_if_somebody_looked_after_it_opened(two: Client) -> None:
    put(
        two, *[Leaf(id=40 + n, growth_id=1, opened_on=ago(days), number=n) for n, days in enumerate((90, 60, 30, 2), 1)]
    )
    assert values(two, "new burn") == {}, "nobody looked for marks"
    (seen,) = put(two, look(10, marks_looked_for=True))
    put(
        two,
        MarkRow(look_id=seen, leaf_id=41, kind="tip"),
        MarkRow(look_id=seen, leaf_id=42, kind="tip", old=True),
        MarkRow(look_id=seen, leaf_id=43, kind="spot", cause="slugs"),
    )
    assert values(two, "new burn") == {1: [1.0, 0.0, 0.0]}, (
        "a scar and another's bite do not count; the last came later"
    )


@pytest.mark.parametrize(
    ("kind", "burnt"), [("tip", 1.0), ("rim", 1.0), ("crisp", 1.0), ("spot", 1.0), ("limp", 0.0), ("crust", 0.0)]
)
def test_which_marks_are_a_burn(two: Client, kind: str, burnt: float) -> None:
    put(two, Leaf(id=41, growth_id=1, opened_on=ago(60)))
    (seen,) = put(two, look(10, marks_looked_for=True))
    put(two, MarkRow(look_id=seen, leaf_id=41, kind=kind))
    assert values(two, "new burn") == {1: [burnt]}


def test_a_photo_rated_twice_is_one_value(two: Client) -> None:
    def photo(days: int, **more: Any) -> int:
        of = {
            "pot_id": 1,
            "plant_id": 1,
            "on": ago(days),
            "sha256": f"{days:064}",
            "media": "image/webp",
            "width_px": 8,
            "height_px": 8,
            "bytes": 90,
        }
        return put(two, Photo(**(of | more)))[0]

    first, second, gone, coming = photo(8), photo(4), photo(3, archived_at=GONE), photo(-1)
    put(
        two,
        *[
            Rating(photo_id=p, on=TODAY, score=n)
            for p, n in ((first, 4), (first, 7), (second, 6), (gone, 9), (coming, 1))
        ],
    )
    put(two, Rating(photo_id=second, on=TODAY, score=0, archived_at=GONE))
    assert values(two, "rating") == {1: [5.5, 6.0]}


def test_leaves_gained_count_days_and_a_day_only_once(two: Client) -> None:
    """Two leaves of one day are no gap of nothing. By hand: one in 20 days and one in 25 are 5 and 4 in a hundred."""
    put(two, *[Leaf(growth_id=1, opened_on=ago(n)) for n in (60, 40, 40, 15)])
    put(two, Leaf(growth_id=1, opened_on=ago(5), archived_at=GONE), Leaf(growth_id=1, opened_on=ago(4), organ="spike"))
    assert values(two, "leaves gained") == {1: [5.0, 4.0]}


def test_several_measures_at_once_are_as_each_by_itself(two: Client) -> None:
    put(two, *[Leaf(id=40 + n, growth_id=1, opened_on=ago(60 - 20 * n)) for n in range(3)])
    put(
        two,
        look(50, leaf_id=40, newest_leaf_mm=80.0, leaf_growing=False),
        look(9, growth_cm=4.0, marks_looked_for=True),
    )
    names = ["leaf length", "leaves gained", "new burn", "height", "root tips", "rating"]
    together = asked(two, lambda s: values_of(s, (1, 2), names, TODAY))
    assert list(together) == names
    for name in names:
        assert together[name] == asked(two, lambda s, n=name: values_of(s, (1, 2), [n], TODAY))[name]
    assert [x.value for x in together["leaf length"][1]] == [80.0]


def test_pours_are_told_with_their_water_between_both_days(two: Client) -> None:
    made = {"route": "overhead", "volume_L": 0.2}
    put(
        two,
        *[Pour(pot_id=1, on=ago(n), job="plain", water_id=1, **made) for n in (4, 11, 10, 3)],
        Pour(pot_id=1, on=ago(5), job="plain", water_id=1, archived_at=GONE, **made),
        Pour(pot_id=1, on=ago(6), job="feed", gave="compost tea", **made),
        Pour(pot_id=2, on=ago(6), job="plain", water_id=1, **made),
    )
    found = asked(two, lambda s: poured_by(s, [1], ago(10), ago(4)))
    assert found == {
        1: [
            Poured(ago(10), "plain", "Rain", None),
            Poured(ago(6), "feed", "", None),
            Poured(ago(4), "plain", "Rain", None),
        ]
    }


def test_what_is_noted_of_a_place_is_told_of_each_of_its_pots(two: Client) -> None:
    put(
        two,
        Event(place_id=1, on=ago(6), kind="heating on", note="the old stove"),
        Event(pot_id=2, on=ago(5), kind=TREATED, note=TREATED),
        Event(pot_id=1, on=ago(5), kind=DONE),
        Event(pot_id=1, on=ago(5), kind=LATER),
        Event(pot_id=1, on=ago(5), kind="moved", archived_at=GONE),
        Event(pot_id=1, on=ago(11), kind="moved"),
        Event(pot_id=1, on=ago(3), kind="moved"),
        Decision(pot_id=1, on=ago(4), what="wait", look_again_on=ago(-3)),
        Decision(pot_id=1, on=ago(4), what=SKIPPED),
        Decision(pot_id=2, on=ago(4), what="wait", archived_at=GONE),
    )
    found = asked(two, lambda s: noted_by(s, s.query(Pot).order_by(Pot.id).all(), ago(10), ago(4)))
    heating = Noted(ago(6), "heating on", "heating on: the old stove", "place")
    assert found == {
        1: [heating, Noted(ago(4), "decision", "wait", "pot", ago(-3))],
        2: [heating, Noted(ago(5), "treated", TREATED, "pot")],
    }


def test_nothing_noted_is_nothing_found(two: Client) -> None:
    assert asked(two, lambda s: noted_by(s, [], ago(10), TODAY)) == {}
    assert asked(two, lambda s: poured_by(s, [], ago(10), TODAY)) == {}
    assert asked(two, lambda s: values_of(s, [], ["height", "new burn"], TODAY)) == {"height": {}, "new burn": {}}
    assert asked(two, lambda s: list(cases_of(s))) == asked(two, lambda s: list(checks_of(s, 1, ago(10), TODAY))) == []
