"""The shelf and the cans from the store: what is left, which batches tell a slope, schools in force."""

from datetime import date

import pytest
from sqlalchemy import event, text

from fenwa.core.mix.label import label_from
from fenwa.store import models
from fenwa.store.mix_state import (
    batches_left,
    first_feed,
    label_of,
    left_of,
    round_feeds,
    schools_in_force,
    slope_of,
    used_since,
)
from tests.conftest import NITRATE, Client, pour, reading


def feed(kept: Client, name: str = NITRATE) -> int:
    return next(p["id"] for p in kept.get("/api/mix")["products"] if p["name"] == name)


def batch(kept: Client, **changes):  # type: ignore[no-untyped-def]
    body = {"product_id": feed(kept), "water_id": 1, "volume": 2, "value": 65, "made_on": "2026-11-20", **changes}
    return kept.made("/api/batches", body)


def measured(kept: Client, factor: float, **changes):  # type: ignore[no-untyped-def]
    made = batch(kept, **changes)
    kept.made(
        f"/api/batches/{made['id']}/reading", reading(value=round(34 + factor * (made["predicted_uS_cm"] - 34), 1))
    )
    return made


def test_a_label_survives_keys_of_another_time() -> None:
    assert label_from({"name": "x", "n_total_pct": 5.0, "colour": "blue"}).n_total_pct == 5.0


def test_a_desk_begins_with_the_only_feed_there_is_and_the_last_can_is_nobodys_default(kept: Client) -> None:
    with kept.store.reading() as s:
        owned = round_feeds(s)
        first = first_feed(s)
    assert [f.name for f in owned] == [NITRATE], "what stands on the shelf; the shipped labels are only labels"
    assert first is not None
    assert first.name == NITRATE
    other = feed(kept, "Foliage feed 20-8.7-16.6, urea-rich")
    batch(kept, product_id=other)
    with kept.store.reading() as s:
        assert {f.id for f in round_feeds(s)} == {first.id, other}, "what was mixed is owned"
        now = first_feed(s)
    assert now is not None
    assert now.id == min(first.id, other), "the first of the shelf, not the last can's"
    kept.made(f"/api/products/{other}/owned", {"owned": False})
    with kept.store.reading() as s:
        assert [f.name for f in round_feeds(s)] == [NITRATE]


def test_what_is_used_counts_products_beside_others_and_forgets_archived_cans(kept: Client) -> None:
    side = feed(kept, "Magnesium sulfate, heptahydrate")
    gone = batch(kept, also=[{"product_id": side, "dose": 0.1}])
    batch(kept, also=[{"product_id": side, "dose": 0.2}], volume=5)
    with kept.store.reading() as s:
        row = s.get(models.Product, side)
        assert row is not None
        assert used_since(s, row, date(2026, 11, 1)) == pytest.approx(0.2 + 1.0)
        assert used_since(s, row, date(2026, 11, 20)) == 0
        assert left_of(s, row) is None
    kept.made(f"/api/log/batch/{gone['id']}/archive")
    with kept.store.writing() as s:
        row = s.get(models.Product, side)
        assert row is not None
        row.left_amount, row.left_on = 10.0, date(2026, 11, 1)
        s.flush()
        assert left_of(s, row) == pytest.approx(9.0)


def test_liquids_are_counted_in_millilitres(kept: Client) -> None:
    liquid = feed(kept, "Liquid orchid feed 6-2-5")
    made = batch(kept, product_id=liquid, value=30, volume=10)
    with kept.store.writing() as s:
        row = s.get(models.Product, liquid)
        assert row is not None
        row.left_amount, row.left_on = 100.0, date(2026, 11, 1)
        s.flush()
        assert left_of(s, row) == pytest.approx(100 - made["dose_g_L"] * 10 / 1.21)
        assert label_of(row).form == "liquid"


@pytest.mark.parametrize("spoil", ["archive", "several", "slipped", "another label"])
def test_only_batches_that_tell_of_the_product_make_its_slope(kept: Client, spoil: str) -> None:
    for value in (40, 50):
        measured(kept, 0.95, value=value)
    third = measured(
        kept,
        10.0 if spoil == "slipped" else 0.95,
        value=60,
        also=[{"product_id": feed(kept, "Potassium nitrate"), "dose": 0.1}] if spoil == "several" else [],
    )
    product = feed(kept)
    if spoil == "archive":
        kept.made(f"/api/log/batch/{third['id']}/archive")
    if spoil == "another label":
        kept.made(
            f"/api/products/{product}/correct", {"name": NITRATE, "n_nitrate_pct": 12, "k_pct": 15, "pk_as": "oxide"}
        )
    with kept.store.reading() as s:
        row = s.get(models.Product, product)
        assert row is not None
        assert slope_of(s, row) is None
    if spoil != "another label":
        measured(kept, 0.95, value=60)
        with kept.store.reading() as s:
            row = s.get(models.Product, product)
            assert row is not None
            found = slope_of(s, row)
            assert found is not None
            assert found.result.factor == pytest.approx(0.95, abs=0.002)


def test_what_is_left_of_a_can_forgets_pours_taken_back(kept: Client) -> None:
    made = batch(kept)
    poured = kept.made("/api/pours", pour(batch_id=made["id"], water_id=None))["pour_ids"][0]
    with kept.store.reading() as s:
        row = s.get(models.Batch, made["id"])
        assert row is not None
        assert batches_left(s, [row]) == {row.id: pytest.approx(1.75)}
    kept.made(f"/api/log/pour/{poured}/archive")
    with kept.store.reading() as s:
        row = s.get(models.Batch, made["id"])
        assert row is not None
        assert batches_left(s, [row]) == {row.id: 2.0}


def test_a_school_of_ones_own_stands_after_the_shipped_ones(kept: Client) -> None:
    figures = {"name": "Fish water", "n_mg_L": 8, "n_low_mg_L": 5, "n_high_mg_L": 10, "cycle": 2, "feeds": 1}
    assert kept.send("/api/mix/schools/fish_water", figures, method="PUT").status_code == 200
    with kept.store.reading() as s:
        last = schools_in_force(s)[-1]
        assert (last.school.id, last.school.name, last.edited, last.school.group) == (
            "fish_water",
            "Fish water",
            True,
            "own",
        )


def test_what_is_left_of_many_cans_is_one_question(kept: Client) -> None:
    """A sum for each can took 9.6 s at 5,000 pots with 726 cans."""
    for n in range(6):
        made = batch(kept)
        kept.made("/api/pours", pour(batch_id=made["id"], water_id=None, on="2026-11-23", volume=100 * (n + 1)))
    asked: list[str] = []
    with kept.store.reading() as s:
        cans = list(s.query(models.Batch).order_by(models.Batch.id))
        engine = s.get_bind()

        def count(_c: object, _k: object, statement: str, *_rest: object) -> None:
            asked.append(statement)

        event.listen(engine, "before_cursor_execute", count)
        left = batches_left(s, cans)
        event.remove(engine, "before_cursor_execute", count)
        plan = " ".join(str(r) for r in s.execute(text("EXPLAIN QUERY PLAN SELECT * FROM pour WHERE batch_id = 3")))
    assert [left[b.id] for b in cans] == [pytest.approx(b.volume_L - 0.1 * (n + 1)) for n, b in enumerate(cans)]
    assert len(asked) == 1
    assert "ix_pour_batch_id" in plan
